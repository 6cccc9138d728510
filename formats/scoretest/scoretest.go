// Package scoretest draws what a score can hold, for tests of properties.
package scoretest

import (
	"slices"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/form"
	"undaris/core/harmony"
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

// Uneven draws other lengths for some of a progression's bars, where their chords have room.
func Uneven(t *rapid.T, p form.Progression) form.Progression {
	p.Bars = slices.Clone(p.Bars)
	for i := range p.Bars {
		b := &p.Bars[i]
		if rapid.IntRange(0, 2).Draw(t, "uneven") == 0 {
			if b.Beats = rapid.IntRange(1+b.Changes[len(b.Changes)-1].Beat, 6).Draw(t, "beats"); b.Beats == p.Beats {
				b.Beats = 0
			}
		}
	}
	return p
}

// Leads draws a pickup for some progressions, of chords that they have.
func Leads(t *rapid.T, p form.Progression) form.Progression {
	if p.Beats < 2 || !rapid.Bool().Draw(t, "leads") {
		return p
	}
	p.Pickup.Beats = rapid.IntRange(1, p.Beats-1).Draw(t, "pickup beats")
	for beat := range p.Pickup.Beats {
		if beat == 0 || rapid.Bool().Draw(t, "changes") {
			c := rapid.SampledFrom(p.Bars).Draw(t, "bar").Changes[0].Chord
			if rapid.IntRange(0, 5).Draw(t, "silent") == 0 {
				c = harmony.Chord{None: true}
			}
			p.Pickup.Changes = append(p.Pickup.Changes, form.Change{Beat: beat, Chord: c})
		}
	}
	return p
}

// SameBars asserts that two progressions have the same bars, however their metres are written.
func SameBars(t *rapid.T, want, got form.Progression) {
	require.Equal(t, want.Pickup, got.Pickup)
	require.Len(t, got.Bars, len(want.Bars))
	for i := range want.Bars {
		require.Equal(t, want.BeatsOf(i), got.BeatsOf(i), "beats of bar %d", i+1)
		a, b := want.Bars[i], got.Bars[i]
		a.Beats, b.Beats = 0, 0
		require.Equal(t, form.Progression{Beats: 12, Bars: []form.Bar{a}}.Text(), form.Progression{Beats: 12, Bars: []form.Bar{b}}.Text(), "bar %d", i+1)
	}
}
