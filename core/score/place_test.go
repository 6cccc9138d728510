package score

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
)

func sounding(midis ...int) (notes []Note) {
	for i, midi := range midis {
		notes = append(notes, Note{Start: i * Tick, Length: Tick, Pitch: pitch.At(midi, form.Key{}.Spell(midi%12))})
	}
	return notes
}

func TestPlacesAreFoundInTheWindow(t *testing.T) {
	in := neck.Standard()
	rapid.Check(t, func(t *rapid.T) {
		w := neck.Region{Low: rapid.IntRange(0, 14).Draw(t, "low")}
		w.High = w.Low + rapid.IntRange(4, 7).Draw(t, "wide")
		notes := sounding(rapid.SliceOfN(rapid.IntRange(40, 84), 1, 12).Draw(t, "notes")...)
		before := append([]Note(nil), notes...)
		_, unfit, ok := Place(in, notes, w, neck.UsualHand, nil)
		if !ok {
			require.Equal(t, before, notes, "nothing is changed when something does not fit")
			for _, i := range unfit {
				require.Empty(t, in.Find(notes[i].Pitch.MIDI(), w))
			}
			return
		}
		for _, n := range notes {
			require.Equal(t, n.Pitch.MIDI(), in.MIDI(n.Placement))
			require.True(t, n.Fret >= w.Low && n.Fret <= w.High)
			require.Equal(t, n.Fret == 0, n.Finger == 0)
		}
	})
}

func TestPlacesAsTheNotesAsk(t *testing.T) {
	in := neck.Standard()
	w := neck.Region{Low: 5, High: 9}
	// D and E: a hammer-on keeps them on one string, though E could be had on the next.
	notes := sounding(62, 64)
	notes[1].Join = Hammer
	_, _, ok := Place(in, notes, w, neck.UsualHand, nil)
	require.True(t, ok)
	assert.Equal(t, notes[0].String, notes[1].String)
	// A whole-step bend wants a plain string.
	notes = sounding(57)
	notes[0].Bend = 4
	_, unfit, ok := Place(in, notes, w, neck.UsualHand, nil)
	assert.False(t, ok, "A3 lies on wound strings here")
	assert.Equal(t, []int{0}, unfit)
	// A wish for a string is kept where it can be.
	notes = sounding(64)
	_, _, ok = Place(in, notes, w, neck.UsualHand, []int{2})
	require.True(t, ok)
	assert.Equal(t, neck.Placement{String: 2, Fret: 5}, notes[0].Placement)
	// Two at once take two strings.
	notes = sounding(64, 67)
	notes[1].Start = 0
	_, _, ok = Place(in, notes, w, neck.UsualHand, nil)
	require.True(t, ok)
	assert.NotEqual(t, notes[0].String, notes[1].String)
}

func TestQuantisingMovesOnlyWhatCannotBeWritten(t *testing.T) {
	s := blank(t, 2, 4)
	s.Notes = []Note{at(0, 480), at(480, 480), at(960+7, 313), at(1290, 310), at(1600, 320), at(3840+3, 950)}
	moved := s.Quantise()
	assert.Equal(t, 1, moved, "seven ticks are less than a hundredth of a beat; ten are not")
	var starts []int
	for _, n := range s.Notes {
		starts = append(starts, n.Start)
	}
	assert.Equal(t, []int{0, 480, 960, 1280, 1600, 3840}, starts)
}
