package form

import (
	"slices"

	"undaris/core/harmony"
)

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

// Bar holds a change on each beat at most; the first is on beat 0.
type Bar struct {
	Section string // a heading that begins here, such as "Verse"
	Row     bool   // a new line of the sheet begins here
	Beats   int    // of a bar that has another number than the progression (1 to 12); 0 in the others
	Changes []Change

	// Of a song that is not played as it is written: which written bar it is, from 1, and for
	// which time it is played. 0 where it is.
	Written, Pass int
}

// Progression is bars; where they say nothing else they have the same number of beats (2 to 12).
// A pickup lies before the first bar and is played once; it is none of the bars.
type Progression struct {
	Beats  int
	Bars   []Bar
	Pickup Pickup
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
			end := p.BeatsOf(i)
			if j+1 < len(b.Changes) {
				end = b.Changes[j+1].Beat
			}
			out = append(out, Place{i, j, c, end - c.Beat})
		}
	}
	return out
}

// Ends tells that the last bars of p are as long as those of tail, so that it can end on them.
func (p Progression) Ends(tail Progression) bool {
	for i := range tail.Bars {
		bar := len(p.Bars) - len(tail.Bars) + i
		if bar >= 0 && p.BeatsOf(bar) != tail.BeatsOf(i) {
			return false
		}
	}
	return true
}

// ReplaceEnd puts the bars of tail over the last bars of p, which it has to fit.
func (p Progression) ReplaceEnd(tail Progression) Progression {
	keep := max(0, len(p.Bars)-len(tail.Bars))
	out := Progression{Beats: p.Beats, Bars: append([]Bar(nil), p.Bars[:keep]...), Pickup: p.Pickup}
	for i, b := range tail.Bars {
		if keep+i < len(p.Bars) {
			old := p.Bars[keep+i]
			b.Section, b.Row, b.Beats = old.Section, old.Row, old.Beats
		}
		out.Bars = append(out.Bars, b)
	}
	return out
}

// Round is the progression as often as it takes to last so many beats: it goes round until a bar
// ends there or later.
func (p Progression) Round(beats int) Progression {
	out := Progression{Beats: p.Beats, Bars: slices.Clone(p.Bars), Pickup: p.Pickup}
	for i, length := 0, p.Length(); length < beats && len(p.Bars) > 0 && len(out.Bars) < MaxBars; i++ {
		b := p.Bars[i%len(p.Bars)]
		b.Row = b.Row || i%len(p.Bars) == 0
		out.Bars = append(out.Bars, b)
		length += p.BeatsOf(i % len(p.Bars))
	}
	return out
}

// Silent tells that no chord sounds in it.
func (p Progression) Silent() bool {
	return !slices.ContainsFunc(p.Places(), func(at Place) bool { return !at.Chord.None })
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
