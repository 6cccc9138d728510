package planner

import (
	"time"

	"undaris/core/say"
)

// Played is a line of the log as far as aims are concerned.
type Played struct {
	At          time.Time
	Chart, Line uint
	Call        bool // it is a call, and not a take
	Tempo       int
	Seconds     float64
	Notes, Good int // of a line: notes that were to be played, and those that were right
	Trials      []Trial
}

// Aim is what a teacher asks of a pupil, so far as the log can tell whether it is
// reached. What is zero is not asked for.
type Aim struct {
	Kind   AimKind
	Chart  uint   // of changes
	Mode   string // of changes: an ID of practice.Modes; empty is any
	Line   uint   // of a line or an exercise
	Key    int    // of calls: pitch class of the tonic
	Degree string // of calls: one of Degrees
	Tempo  int    // of takes: beats a minute at least
	Part   float64
	Times  int // in a row; of minutes, how many
}

// AimKind is what an aim is about.
type AimKind string

// The kinds of aims.
const (
	AimChanges AimKind = "changes" // Part of the changes of a chorus met
	AimLine    AimKind = "line"    // Part of the notes of a line right
	AimCalls   AimKind = "calls"   // calls right at once
	AimMinutes AimKind = "minutes" // minutes played
)

// AimKinds lists them.
var AimKinds = []AimKind{AimChanges, AimLine, AimCalls, AimMinutes}

// Progress is how far an aim is.
type Progress struct {
	Tries   int
	Best    float64 // part, of the best try; of minutes, how many were played
	Row     int     // the longest run of tries in a row that reached it
	Reached bool
	Last    time.Time
}

// about tells that a line of the log is a try at an aim, and how well it went, of 1.
func (a Aim) about(p Played) (went float64, yes bool) {
	n := len(p.Trials)
	switch a.Kind {
	case AimChanges:
		yes = !p.Call && a.Chart == p.Chart && n > 0 && (a.Mode == "" || p.Trials[0].Device == a.Mode) && p.Tempo >= a.Tempo
		for _, t := range p.Trials {
			if t.Success == 1 {
				went += 1 / float64(n)
			}
		}
	case AimLine:
		yes = !p.Call && a.Line == p.Line && p.Notes > 0 && p.Tempo >= a.Tempo
		went = float64(p.Good) / float64(max(1, p.Notes))
	case AimCalls:
		yes = p.Call && n > 0 && p.Trials[0].Key == a.Key && (a.Degree == "" || p.Trials[0].Degree == a.Degree)
		if yes {
			went = p.Trials[0].Success
		}
	}
	return went, yes
}

// wanted is the part that is asked for; a call is right or not.
func (a Aim) wanted() float64 {
	if a.Kind == AimCalls || a.Part == 0 {
		return 1
	}
	return a.Part
}

// Progress looks for an aim in what was played since it was set, the oldest first. A
// run is broken by a try that falls short.
func (a Aim) Progress(log []Played) (p Progress) {
	const rounding = 1e-9
	run := 0
	for _, x := range log {
		if a.Kind == AimMinutes {
			p.Best += x.Seconds / 60
			p.Tries++
			p.Last = x.At
			continue
		}
		went, yes := a.about(x)
		if !yes {
			continue
		}
		p.Tries++
		p.Last = x.At
		p.Best = max(p.Best, went)
		if run++; went < a.wanted()-rounding {
			run = 0
		}
		p.Row = max(p.Row, run)
	}
	if p.Reached = p.Row >= max(1, a.Times); a.Kind == AimMinutes {
		p.Reached = p.Best >= float64(a.Times)
	}
	return p
}

// Says tells an aim in a sentence; of is what it is about, by its title.
func (a Aim) Says(of, mode string) string {
	row := ""
	if a.Times > 1 {
		row = say.F(", %d times in a row", a.Times)
	}
	at := ""
	if a.Tempo > 0 {
		at = say.F(" at %d or faster", a.Tempo)
	}
	percent := int(100*a.wanted() + 0.5)
	switch a.Kind {
	case AimChanges:
		if mode != "" {
			mode = ", " + mode
		}
		return say.F("%s%s: %d %% of the changes met%s%s", of, mode, percent, at, row)
	case AimLine:
		return say.F("%s: %d %% of the notes right%s%s", of, percent, at, row)
	case AimCalls:
		from := ""
		if a.Degree != "" {
			from = " from the " + a.Degree
		}
		return say.F("calls in %s%s right at once%s", KeyName(a.Key), from, row)
	}
	return say.F("%d minutes played", a.Times)
}
