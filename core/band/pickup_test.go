package band

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
)

// After a pickup every chorus lasts what it should, and what is played before the first is the pickup's chords, once.
func TestAPickupIsPlayedOnce(t *testing.T) {
	for beats := form.MinBeats; beats <= 6; beats++ {
		for lead := 1; lead < beats; lead++ {
			text := fmt.Sprintf("| pickup %d/4 G7 | C7 | F7 | C7 |", lead)
			p, err := form.Read(text, beats, form.Key{})
			require.NoError(t, err)
			for _, g := range Grooves {
				for _, o := range []Options{{Choruses: 1}, {Choruses: 3, CountIn: true, Metronome: true}, {Choruses: 2, Intro: Intros[1].ID}} {
					perf, err := Play(t.Context(), p, g, o)
					require.NoError(t, err)
					var tops []int
					for _, m := range perf.Markers {
						if m.Name == "count-in" || len(m.Name) > 7 && m.Name[:7] == "chorus " {
							tops = append(tops, m.At)
						}
					}
					require.Len(t, tops, o.Choruses+1)
					for i := 2; i < len(tops); i++ {
						assert.Equal(t, 3*beats*Tick, tops[i]-tops[i-1], text)
					}
					assert.Equal(t, 3*beats*Tick, perf.Ticks-tops[len(tops)-1], text)
					top := tops[1]
					from := top - lead*Tick
					assert.Equal(t, Marker{from, "G7"}, perf.Chords[0])
					assert.Equal(t, Marker{top, "C7"}, perf.Chords[1])
					for _, track := range perf.Tracks[1:3] {
						heard := sounding(track, from, top)
						require.NotEmpty(t, heard, "%s in the pickup, %s, %+v", track.Name, g.Feel, o)
						assert.Contains(t, []int{7, 11, 2, 5}, heard[0]%12, "%s over G7", track.Name)
						if o.Intro == "" {
							assert.Empty(t, sounding(track, 0, from), "%s is silent while it is counted", track.Name)
						}
					}
				}
			}
		}
	}
}
