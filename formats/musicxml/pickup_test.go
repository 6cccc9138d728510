package musicxml

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// A pickup comes back as long as it was, however many of the bars are shorter than it.
func TestAPickupIsLongerThanMostBars(t *testing.T) {
	for _, bars := range []string{"| 2/4 C7 | C7 | 2/4 C7 | C7 |", "| 2/4 C7 | 2/4 F7 | 2/4 C7 | 4/4 G7 |", "| C7 | 2/4 F7 | 2/4 C7 | 2/4 G7 |"} {
		for _, pickup := range []string{"1/4 G7", "2/4 G7 D7", "3/4 G7 . D7"} {
			p, err := form.Read("| pickup "+pickup+" "+bars, 4, form.Key{})
			require.NoError(t, err)
			place := neck.Placement{String: 2, Fret: 8}
			s := score.Score{Title: "x", Progression: p, In: neck.Standard(), Tempo: 96}
			s.Notes = []score.Note{{Length: score.Tick, Placement: place, Pitch: pitch.At(s.In.MIDI(place), pitch.Name{Letter: 4})}}
			f, err := Read(t.Context(), Write(s))
			require.NoError(t, err)
			assert.Equal(t, p.Pickup, f.Pickup, "%s before %s", pickup, bars)
			for i := range p.Bars {
				assert.Equal(t, p.BeatsOf(i), f.BeatsOf(i), "bar %d of %s", i+1, bars)
			}
		}
	}
}
