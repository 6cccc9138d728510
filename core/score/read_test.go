package score

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// In every key and reading each note is written as far from what sounds as its chord is, and
// keeps its place and its name in the key.
func TestReadingPitch(t *testing.T) {
	f, known := form.FormByID("jazz-blues")
	require.True(t, known)
	for _, tonic := range pitch.Roots {
		k := form.Key{Tonic: tonic}
		s := Score{Key: k, Progression: f.In(k), In: neck.Standard(), Tempo: 96}
		for fret := range 12 {
			p := neck.Placement{String: 3, Fret: fret}
			s.Notes = append(s.Notes, Note{Start: fret * Tick, Length: Tick, Placement: p, Pitch: pitch.At(s.In.MIDI(p), k.Spell(s.In.MIDI(p)%12))})
		}
		for _, r := range form.Readings {
			w := s.Read(r)
			for i, n := range w.Notes {
				was := s.Notes[i]
				require.Equal(t, was.Pitch.MIDI()+r.Up, n.Pitch.MIDI(), "%s in %s", was.Pitch, r.ID)
				require.Equal(t, was.Placement, n.Placement)
			}
			assert.Equal(t, r.Key(k), w.Key)
		}
	}
}
