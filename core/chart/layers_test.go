package chart_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/chart"
	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// A layer is every place of what its name says and none else: over every form, in every key, on every tuning in turn.
func TestLayersAreWhole(t *testing.T) {
	places := 0
	for i, f := range form.Forms {
		for k, tonic := range pitch.Roots {
			key := form.Key{Tonic: tonic, Minor: f.Minor}
			u := neck.Tunings[(i+k)%len(neck.Tunings)]
			in, err := neck.New(u.Open, u.Frets, u.Scale, 0)
			require.NoError(t, err)
			c := chart.Chart{In: in, Key: key, Solo: f.In(key)}
			chords, _ := form.Different(c.Solo.Places())
			for _, l := range chart.Layers {
				all, err := c.Layer(l.ID)
				require.NoError(t, err)
				require.Len(t, all, len(chords))
				for j, list := range all {
					belongs := map[int]bool{}
					for class := range 12 {
						switch l.ID {
						case "tones":
							_, belongs[class] = chords[j].ToneAt(class)
						case "names":
							belongs[class] = true
						}
					}
					if l.ID == "scale" {
						for _, s := range chords[j].Scale() {
							belongs[s.Name.Class()] = true
						}
					}
					if l.ID == "key" {
						for _, n := range key.Scale() {
							belongs[n.Class()] = true
						}
					}
					want := 0
					for s := 1; s <= in.Strings() && !chords[j].None; s++ {
						for fret := 0; fret <= in.Last(); fret++ {
							if belongs[in.MIDI(neck.Placement{String: s, Fret: fret})%12] {
								want++
							}
						}
					}
					require.Len(t, list, want, "%s over %s in %s", l.ID, chords[j], key)
					for _, n := range list {
						require.Equal(t, in.MIDI(n.Placement), n.Pitch.MIDI())
						require.True(t, belongs[n.Pitch.MIDI()%12])
						step, ok := n.Degree.Interval()
						require.True(t, ok)
						require.Equal(t, chords[j].Above(n.Pitch.MIDI()), step.HalfSteps%12, "%s over %s", n.Degree, chords[j])
						places++
					}
				}
			}
		}
	}
	assert.Greater(t, places, 100_000)
	_, err := chart.Chart{}.Layer("moon")
	assert.Error(t, err)
}
