package score_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

func TestLinesAreSpelledAsTheyAreRead(t *testing.T) {
	for _, c := range []struct{ chord, written, read string }{
		{"C7", "Gb4 G4", "F#4 G4"},
		{"C7", "D#4 D4", "Eb4 D4"},
		{"C7", "D#4 E4", "D#4 E4"},
		{"G7", "Bb4 B4", "A#4 B4"},
		{"F7", "Ab4 A4", "G#4 A4"},
		{"Bb7b5", "Fb4 F4", "E4 F4"},  // the flat fifth is written as the white key it is
		{"Db7b9", "Ebb4 D4", "D4 D4"}, // and the flat ninth
		{"Abm", "Cb4 B4", "Cb4 Cb5"},  // but the third of a minor chord keeps its letter
	} {
		p, err := form.Read("| "+c.chord+" |", 4, form.Key{})
		require.NoError(t, err)
		s := score.Score{Progression: p, In: neck.Standard()}
		for i, name := range strings.Fields(c.written) {
			n, err := pitch.ParsePitch(name)
			require.NoError(t, err)
			s.Notes = append(s.Notes, score.Note{Start: i * 480, Length: 480, Pitch: n})
		}
		s.Respell()
		var got []string
		for _, n := range s.Notes {
			got = append(got, n.Pitch.String())
		}
		assert.Equal(t, c.read, strings.Join(got, " "), c.chord)
	}
}
