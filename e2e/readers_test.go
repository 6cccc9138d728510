package e2e

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/band"
	"undaris/core/form"
)

// The files must be understood by readers of other makes.
func TestOtherReadersUnderstandTheFiles(t *testing.T) {
	p := sit(t, true)
	p.visit("/test/readers.html")
	p.until(`window.loaded`)

	chart, err := form.Read("| C7 | F7 | C7 | % | F7 | % | C7 | % | G7 | F7 | C7 | G7 |", 4, form.Key{})
	require.NoError(t, err)
	groove, err := band.GrooveOf("shuffle")
	require.NoError(t, err)
	perf, err := band.Play(t.Context(), chart, groove, band.Options{Choruses: 2, Seed: 3, CountIn: true})
	require.NoError(t, err)
	midi := evalLater[struct {
		Ticks   int
		Tempo   []float64
		Markers int
		Tracks  []struct {
			Name  string
			Notes int
		}
	}](p, `readMIDI('/api/charts/6/midi?choruses=2&seed=3')`)
	assert.Equal(t, band.Tick, midi.Ticks)
	require.NotEmpty(t, midi.Tempo)
	assert.InDelta(t, 96, slices.Min(midi.Tempo), 0.01) // it puts its own 120 beside it
	assert.Equal(t, len(perf.Markers), midi.Markers)
	require.Len(t, midi.Tracks, len(perf.Tracks)+1)
	for i, track := range perf.Tracks {
		assert.Equal(t, track.Name, midi.Tracks[i+1].Name)
		assert.InDelta(t, len(track.Notes), midi.Tracks[i+1].Notes, 6, track.Name) // a pitch struck twice at once is written once
	}

	for _, of := range []string{"thread", "run", "crossing"} {
		query := fmt.Sprintf("of=%s&low=7&high=11&step=1", of)
		written := evalLater[struct {
			Measures []struct{ Strokes []struct{ Notes []int } }
			Notes    []struct {
				ID   int
				Note string
			}
		}](p, fmt.Sprintf(`fetch('/api/charts/6/score?%s').then(r => r.json())`, query))
		engraved := evalLater[struct {
			Measures, Staves, Drawn int
			Sounding                []struct {
				Step   string
				Octave int
				Sharp  string
			}
		}](p, fmt.Sprintf(`engrave('/api/charts/6/musicxml?%s')`, query))
		assert.Equal(t, len(written.Measures), engraved.Measures, of)
		assert.Equal(t, 2, engraved.Staves, of)
		named := map[int]string{}
		for _, n := range written.Notes {
			named[n.ID] = n.Note
		}
		i := 0
		for _, m := range written.Measures {
			drawn := map[string]string{} // accidentals of the bar
			for _, k := range m.Strokes {
				for _, n := range k.Notes {
					require.Less(t, i, len(engraved.Sounding), of)
					got, name := engraved.Sounding[i], named[n]
					place := fmt.Sprint(got.Step, got.Octave)
					if got.Sharp != "" {
						drawn[place] = strings.ReplaceAll(got.Sharp, "n", "")
					}
					assert.Equal(t, strings.ToUpper(name), strings.ToUpper(got.Step)+strings.ToUpper(drawn[place])+fmt.Sprint(got.Octave), "note %d of the %s", i, of)
					i++
				}
			}
		}
		assert.Len(t, engraved.Sounding, i, of)
		assert.Greater(t, engraved.Drawn, 20, of)
	}
}
