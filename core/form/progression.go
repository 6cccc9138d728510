package form

import "undaris/core/harmony"

// Limits of a progression.
const (
	MaxBars    = 512
	MaxChanges = 2048 // chords in all
	MinBeats   = 2
	MaxBeats   = 12
)

// Change is a chord that begins on a beat of its bar, counted from 0.
type Change struct {
	Beat  int
	Chord harmony.Chord
}

// Bar holds one to Beats changes; the first is on beat 0.
type Bar struct {
	Section string // a heading that begins here, such as "Verse"
	Row     bool   // a new line of the sheet begins here
	Changes []Change
}

// Progression is bars of the same number of beats (2 to 12).
type Progression struct {
	Beats int
	Bars  []Bar
}

// Place is one change in a progression: Bar and Index count from 0.
type Place struct {
	Bar, Index int
	Change
	Length int // in beats
}

// Places lists every change in order.
func (p Progression) Places() []Place {
	var out []Place
	for i, b := range p.Bars {
		for j, c := range b.Changes {
			end := p.Beats
			if j+1 < len(b.Changes) {
				end = b.Changes[j+1].Beat
			}
			out = append(out, Place{i, j, c, end - c.Beat})
		}
	}
	return out
}

// ReplaceEnd puts the bars of tail over the last bars of p.
func (p Progression) ReplaceEnd(tail Progression) Progression {
	keep := max(0, len(p.Bars)-len(tail.Bars))
	out := Progression{p.Beats, append([]Bar(nil), p.Bars[:keep]...)}
	for i, b := range tail.Bars {
		if keep+i < len(p.Bars) {
			old := p.Bars[keep+i]
			b.Section, b.Row = old.Section, old.Row
		}
		out.Bars = append(out.Bars, b)
	}
	return out
}

// Different lists the different chords of places, in the order they come, and for
// each place the index of its chord.
func Different(places []Place) (chords []harmony.Chord, of []int) {
	known := map[string]int{}
	for _, p := range places {
		symbol := p.Chord.String()
		at, ok := known[symbol]
		if !ok {
			at = len(chords)
			known[symbol] = at
			chords = append(chords, p.Chord)
		}
		of = append(of, at)
	}
	return chords, of
}
