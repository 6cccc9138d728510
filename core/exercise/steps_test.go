package exercise

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// Over each chord that a step of the key gives stands its name, up and down.
func TestTheChordsOfTheKeyAreNamedOverThem(t *testing.T) {
	for _, tonic := range pitch.Roots {
		for _, minor := range []bool{false, true} {
			key := form.Key{Tonic: tonic, Minor: minor}
			for _, d := range Drills {
				if d.names == 0 {
					continue
				}
				x := task(d.ID)
				x.Key = key
				p, err := form.Read("| "+key.String()+" | % | % | % |", 4, key)
				require.NoError(t, err)
				notes, _, err := Over(t.Context(), p, x)
				require.NoError(t, err, "%s in %s", d.ID, key)
				named := 0
				for i, n := range notes {
					if n.Named == "" || i+d.names > len(notes) {
						continue
					}
					named++
					chord := harmony.MustParse(n.Named)
					for _, m := range notes[i : i+d.names] {
						_, tone := chord.ToneAt(pitch.Class(m.Pitch.MIDI()))
						require.True(t, tone, "%s in %s: %s is no tone of %s", d.ID, key, m.Pitch, n.Named)
					}
				}
				assert.GreaterOrEqual(t, named, len(notes)/d.names-2, "%s in %s", d.ID, key)
			}
		}
	}
}

func TestTriadsOfChosenSteps(t *testing.T) {
	x := task("key-triads-145")
	x.Key, x.Cell = form.Key{}, []int{2, 5}
	seen := map[string]bool{}
	for _, n := range over(t, "| C7 | % |", x) {
		if n.Named != "" {
			seen[n.Named] = true
		}
	}
	assert.Equal(t, map[string]bool{"Dm": true, "G": true}, seen)
}
