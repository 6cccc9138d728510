package score

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

func TestALineMovedAndTakenBackIsTheSame(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f := rapid.SampledFrom(form.Forms).Draw(t, "form")
		from := form.Key{Tonic: rapid.SampledFrom(pitch.Roots).Draw(t, "from"), Minor: f.Minor}
		to := form.Key{Tonic: rapid.SampledFrom(pitch.Roots).Draw(t, "to"), Minor: f.Minor}
		in := neck.Standard()
		s := Score{Key: from, Progression: f.In(from), In: in}
		for i := range 8 {
			place := neck.Placement{String: rapid.IntRange(1, 6).Draw(t, "string"), Fret: rapid.IntRange(7, 12).Draw(t, "fret")}
			midi := in.MIDI(place)
			s.Notes = append(s.Notes, Note{Start: i * 480, Length: 480, Placement: place, Pitch: pitch.At(midi, from.Spell(midi%12)), Finger: 1})
		}
		moved, frets := s.Move(to, true)
		require.NoError(t, moved.Check())
		assert.Equal(t, to, moved.Key)
		for i, n := range moved.Notes {
			assert.Equal(t, s.Notes[i].Fret+frets, n.Fret)
			over, _ := s.ChordAt(n.Start)
			now, _ := moved.ChordAt(n.Start)
			before, was := over.ToneAt(s.Notes[i].Pitch.MIDI() % 12)
			after, is := now.ToneAt(n.Pitch.MIDI() % 12)
			assert.Equal(t, []any{before.Degree, was}, []any{after.Degree, is}, "what it is over its chord stays")
		}
		back, there := moved.Move(from, true)
		if there == -frets {
			for i, n := range back.Notes {
				assert.Equal(t, s.Notes[i].Placement, n.Placement)
			}
		}
		inPlace, _ := s.Move(to, false)
		for i, n := range inPlace.Notes {
			assert.Zero(t, n.String)
			assert.LessOrEqual(t, max(n.Pitch.MIDI()-s.Notes[i].Pitch.MIDI(), s.Notes[i].Pitch.MIDI()-n.Pitch.MIDI()), 6)
		}
	})
	// A shape that would run off the low end of the neck goes up instead.
	s := Score{Key: form.Key{Tonic: pitch.Name{Letter: 3}}, In: neck.Standard(), Progression: form.Forms[0].In(form.Key{Tonic: pitch.Name{Letter: 3}})}
	s.Notes = []Note{{Length: 480, Pitch: pitch.Pitch{Name: pitch.Name{Letter: 3}, Octave: 2}, Placement: neck.Placement{String: 6, Fret: 1}}}
	moved, frets := s.Move(form.Key{Tonic: pitch.Name{Letter: 1}}, true)
	assert.Equal(t, []any{9, 10, "D3"}, []any{frets, moved.Notes[0].Fret, moved.Notes[0].Pitch.String()})
	chord, _ := moved.ChordAt(0)
	assert.Equal(t, harmony.MustParse("D7").String(), chord.String())
}
