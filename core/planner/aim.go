package planner

import (
	"slices"
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
	Kind   string // an ID of AimKinds
	Chart  uint   // of changes
	Mode   string // of changes: an ID of practice.Modes; empty is any
	Line   uint   // of a line or an exercise
	Key    int    // of calls: pitch class of the tonic
	Degree string // of calls: one of Degrees
	Tempo  int    // of takes: beats a minute at least
	Part   float64
	Times  int // in a row; of minutes, how many
}

// Progress is how far an aim is.
type Progress struct {
	Tries   int
	Best    float64 // part, of the best try; of minutes, how many were played
	Row     int     // the longest run of tries in a row that reached it
	Reached bool
	Last    time.Time
}

// Progress looks for an aim in what was played since it was set, the oldest first. A
// run is broken by a try that falls short.
func (a Aim) Progress(log []Played) (p Progress) {
	const rounding = 1e-9
	kind, run := a.of(), 0
	for _, x := range log {
		went, yes := kind.try(a, x)
		if !yes {
			continue
		}
		p.Tries++
		p.Last = x.At
		if kind.Adds {
			p.Best += went
			continue
		}
		p.Best = max(p.Best, went)
		if run++; went < a.wanted()-rounding {
			run = 0
		}
		p.Row = max(p.Row, run)
	}
	if p.Reached = p.Row >= max(1, a.Times); kind.Adds {
		p.Reached = p.Best >= float64(a.Times)
	}
	return p
}

// Says tells an aim in a sentence; of is what it is about, by its title, mode how that is practised.
func (a Aim) Says(of, mode string) string {
	kind := a.of()
	text := kind.says(a, of, mode)
	if a.Tempo > 0 && slices.Contains(kind.Asks, "tempo") {
		text += say.F(" at %d or faster", a.Tempo)
	}
	if a.Times > 1 && !kind.Adds {
		text += say.F(", %d times in a row", a.Times)
	}
	return text
}
