package midi

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/band"
	"undaris/core/form"
	"undaris/core/pitch"
	"undaris/core/score"
	"undaris/formats/scoretest"
)

// Bars of other lengths, the first of them too, and the pickup before it come back as they were, counted in or not.
func TestBarsOfAnyLengthComeBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f := rapid.SampledFrom(form.Forms).Draw(t, "form")
		key := form.Key{Tonic: rapid.SampledFrom(pitch.Roots).Draw(t, "tonic"), Minor: f.Minor}
		p := scoretest.Leads(t, scoretest.Uneven(t, f.In(key)))
		lead := []band.Note{{Start: 0, Length: 480, MIDI: 64}}
		played, err := band.Play(t.Context(), p, band.Grooves[0], band.Options{Choruses: 1, CountIn: rapid.Bool().Draw(t, "counted"), Lead: lead, Key: &key})
		require.NoError(t, err)
		file, err := Read(t.Context(), Write(played, Head{Title: "x", Tempo: 96, Key: key}))
		require.NoError(t, err)
		s, _, err := file.Line(score.Score{})
		require.NoError(t, err)
		scoretest.SameBars(t, p, s.Progression)
	})
}
