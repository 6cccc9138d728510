package practice

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// Where extensions are asked for, a 9, 11 or 13 that the chord bears is what counts, held or moving to a tone by step; no chord
// tone does, nor a note that wants to move away. Over each note of the octave and each kind of chord.
func TestExtensionsAreLeanedOn(t *testing.T) {
	m, err := ModeByID("extensions")
	require.NoError(t, err)
	counted := 0
	for _, quality := range []string{"7", "m7", "maj7", "6", "m", ""} {
		key, err := form.ParseKey("C")
		require.NoError(t, err)
		p, err := form.Read("| G"+quality+" | C"+quality+" |", 4, key)
		require.NoError(t, err)
		over := edit.Line{Score: score.Score{Key: key, Progression: p, In: neck.Standard(), Tempo: 90}, Palette: blend.Palettes[0], Hand: neck.UsualHand, Region: neck.Region{Low: 5, High: 9}}
		chord := p.Bars[1].Changes[0].Chord
		for class := range 12 {
			midi := 60 + class
			for _, heard := range [][]judge.Heard{
				{{At: 0, Length: 1900, Pitch: 67}, {At: 3840, Length: 3000, Pitch: float64(midi)}},
			} {
				f, err := m.Judge(over, 0, heard, 90, 0.5)
				require.NoError(t, err)
				last := f.Landings[len(f.Landings)-1]
				sound := blend.Sounds(chord)[class]
				want := sound.Class == blend.Colour && sound.Degree.Role() == harmony.Extension
				_, tone := chord.ToneAt(pitch.Class(midi))
				if tone {
					assert.False(t, last.Counts, "%s over %s is a tone of it", sound.Degree, chord)
					continue
				}
				assert.False(t, last.Counts && !want, "%s over %s: %s", sound.Degree, chord, last.Says)
				if last.Counts {
					counted++
				}
			}
		}
	}
	assert.Greater(t, counted, 8)
}
