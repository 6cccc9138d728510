// Package scoretest draws what a score can hold, for tests of properties.
package scoretest

import (
	"pgregory.net/rapid"

	"undaris/core/score"
)

// Ornaments draws from all ways to play a note but the joins, which need a note
// before. What no hand can do is among them; [score.Score.Undoable] takes it out.
func Ornaments(t *rapid.T) (o score.Ornaments) {
	for _, w := range score.Ways {
		if (w.On == "" || score.WayByID(w.On).Of(o) != 0) && w.ID != "join" && rapid.IntRange(0, 2).Draw(t, w.ID) == 0 {
			w.Put(&o, w.Within(rapid.IntRange(-6, 101).Draw(t, w.Name)))
		}
	}
	return o
}

// Join draws how a note is reached.
func Join(t *rapid.T) score.Join {
	return rapid.SampledFrom([]score.Join{score.Picked, score.Slide, score.Hammer, score.PullOff}).Draw(t, "join")
}
