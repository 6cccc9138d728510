package planner

import (
	"slices"
	"time"

	"undaris/core/say"
)

// Played is a line of the log as far as aims are concerned.
type Played struct {
	Entry       uint // its number
	At          time.Time
	Chart, Line uint
	Lick        uint // that was sent through the changes
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

// Following is an aim while its log goes on.
type Following struct {
	Aim  Aim
	Read uint // the number of the last line that was looked at
	p    Progress
	run  int
}

// Follow looks for an aim in what is played after a line of the log.
func (a Aim) Follow(line uint) *Following { return &Following{Aim: a, Read: line} }

// Calls tells whether nothing but calls is a try at it.
func (f *Following) Calls() bool { return f.Aim.of().calls }

// Add looks at the next line. A run is broken by a try that falls short.
func (f *Following) Add(x Played) {
	const rounding = 1e-9
	kind := f.Aim.of()
	went, yes := kind.try(f.Aim, x)
	if !yes {
		return
	}
	f.p.Tries++
	f.p.Last = x.At
	if kind.Adds {
		f.p.Best += went
		return
	}
	f.p.Best = max(f.p.Best, went)
	if f.run++; went < f.Aim.wanted()-rounding {
		f.run = 0
	}
	f.p.Row = max(f.p.Row, f.run)
}

// Progress is how far it came.
func (f *Following) Progress() Progress {
	p, a := f.p, f.Aim
	if p.Reached = p.Row >= max(1, a.Times); a.of().Adds {
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
