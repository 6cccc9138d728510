package crossing_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/crossing"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Where only extensions are allowed a thread goes from colour to colour: a 9, 11 or 13 that its chord bears, or holds, in every
// form, key and position.
func TestAThreadOfExtensions(t *testing.T) {
	in, leaned := neck.Standard(), 0
	for _, f := range form.Forms {
		for k, tonic := range pitch.Roots {
			key := form.Key{Tonic: tonic, Minor: f.Minor}
			region := in.Positions(tonic.Class())[k%5].Region
			var stops []crossing.Stop
			for _, p := range f.In(key).Places() {
				if !p.Chord.None {
					stops = append(stops, crossing.Stop{Chord: p.Chord, Allowed: []harmony.Role{harmony.Extension}})
				}
			}
			targets, _, err := crossing.Tie(t.Context(), in, stops, crossing.Range{Region: region})
			require.NoError(t, err, "%s in %s", f.ID, key)
			for i, g := range targets {
				chord := stops[i].Chord
				require.Equal(t, harmony.Extension, g.Tone.Degree.Role(), "%s in %s: %s over %s", f.ID, key, g.Tone.Degree, chord)
				require.Equal(t, g.MIDI%12, g.Tone.Name.Class())
				sound := blend.Sounds(chord)[chord.Above(g.MIDI)]
				_, own := chord.ToneAt(g.MIDI % 12)
				require.True(t, own || sound.Class == blend.Colour, "%s over %s", g.Tone.Degree, chord)
				leaned++
			}
		}
	}
	assert.Greater(t, leaned, 1000)
}
