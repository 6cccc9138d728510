package ear

import (
	"cmp"
	"math"
	"slices"

	"undaris/core/judge"
	"undaris/core/score"
)

// Noticed is what an ear would notice of notes that are played, such as a simulated
// player's: all of it in time, the pitches as they are.
func Noticed(heard []judge.Heard, expected []judge.Expected) []Observation {
	const soon = score.Tick / 24
	var out []Observation
	tell := func(o Observation) int {
		o.Seq = len(out) + 1
		out = append(out, o)
		return o.Seq
	}
	heard = slices.Clone(heard)
	slices.SortStableFunc(heard, func(a, b judge.Heard) int { return cmp.Compare(a.At, b.At) })
	for _, h := range heard {
		begins := h.Pitch
		for _, e := range expected { // a bend is struck where it is fretted
			if e.Bent && math.Abs(e.At-h.At) < reach && math.Abs(h.Pitch-e.Pitch) < 1 {
				begins = e.Fretted
			}
		}
		of := tell(Observation{Kind: Attack, Tick: h.At})
		tell(Observation{Kind: Settled, Of: of, Tick: h.At + soon, MIDI: begins, Clarity: 1})
		tell(Observation{Kind: Salience, Of: of, Tick: h.At + 2*soon, Fresh: 1, Level: -20, Candidates: []Candidate{{int(math.Round(begins)), 1}}})
		if begins != h.Pitch {
			tell(Observation{Kind: Bend, Of: of, Tick: h.At + 3*soon, MIDI: h.Pitch})
		}
		if h.Sway > 0 {
			tell(Observation{Kind: Sway, Of: of, Tick: h.At + score.Tick/2, Width: h.Sway, Rate: h.Rate, Uneven: h.Uneven, Low: h.Low})
		}
		if h.Length > 0 {
			tell(Observation{Kind: Lost, Of: of, Tick: h.At + h.Length})
		}
	}
	return out
}
