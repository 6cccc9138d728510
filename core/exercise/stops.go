package exercise

import (
	"slices"

	"undaris/core/harmony"
)

// chords strikes the same rungs at once, from each rung in turn.
func chords(offsets ...int) figure {
	return func(rungs []rung, t Task) (out [][]rung) {
		for i := 0; i+slices.Max(offsets) < len(rungs); i++ {
			var group []rung
			for _, o := range offsets {
				group = append(group, rungs[i+o])
			}
			out = append(out, group)
		}
		return there(out, t.Down)
	}
}

// sixths pairs each third with the root above it, a third turned over, and each
// fifth with the third above.
func sixths(rungs []rung, t Task) (out [][]rung) {
	for i, low := range rungs {
		over := map[harmony.Role]harmony.Role{harmony.Third: harmony.Root, harmony.Fifth: harmony.Third}
		want, ok := over[low.degree.Role()]
		for _, high := range rungs[i:] {
			if d := high.midi - low.midi; ok && high.degree.Role() == want && d >= 7 && d <= 10 {
				out = append(out, []rung{low, high})
			}
		}
	}
	return there(out, t.Down)
}

// octaves strikes each tone with its octave.
func octaves(rungs []rung, t Task) (out [][]rung) {
	for i, low := range rungs {
		for _, high := range rungs[i:] {
			if high.midi == low.midi+12 {
				out = append(out, []rung{low, high})
			}
		}
	}
	return there(out, t.Down)
}
