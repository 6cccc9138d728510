package exercise

import (
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/score"
)

// Every exercise for hands, necks and regions that it was not made for: what is written has a finger for every note, says
// how wide the hand lies where that is beyond its comfort, and where it leaves the frets that were asked for; else it is
// refused with what would fit. Two frets, the nut, a short neck, three strings in hand, a hand of 60 mm and a bass.
func TestWhatAHandCannotIsSaid(t *testing.T) {
	t.Parallel()
	necks := []struct {
		tuning string
		frets  int
		scale  float64
	}{{"E2,A2,D3,G3,B3,E4", 22, 648}, {"E2,A2,D3,G3,B3,E4", 12, 610}, {"D2,A2,D3,G3,A3,D4", 22, 648}, {"E1,A1,D2,G2", 20, 864}}
	regions := []neck.Region{{Low: 0, High: 1}, {Low: 0, High: 4}, {Low: 5, High: 6}, {Low: 5, High: 9}, {Low: 7, High: 12}, {Low: 7, High: 11, Strings: neck.StringsOf(1, 2, 3)}}
	charts := []string{"| C7 | F7 | C7 | G7 |", "| Am7 | D7 | Gmaj7 | Bm7b5 E7 |"}
	if os.Getenv("EVERY") == "" {
		charts = charts[:1]
	}
	cases, refused, wide, beyond := 0, 0, 0, 0
	for _, n := range necks {
		in, err := neck.New(n.tuning, n.frets, n.scale, 0)
		require.NoError(t, err)
		for _, comfort := range []float64{60, 100} {
			for _, text := range charts {
				key := form.Key{}
				p, err := form.Read(text, 4, key)
				require.NoError(t, err)
				for _, d := range Drills {
					for i, region := range regions {
						x := Task{In: in, Hand: neck.Hand{Comfort: comfort}, Region: region, Key: key, Drill: d.ID, Pace: "eighths", Approach: led(cases + i)}
						notes, said, err := Over(t.Context(), Ground(p, d.ID), x)
						what := fmt.Sprintf("%s on %s, %d frets, %.0f mm, %s, %q", d.ID, n.tuning, n.frets, comfort, region.Says(), x.Approach)
						cases++
						if err != nil {
							refused++
							require.Greater(t, len(err.Error()), 20, "%s: %v", what, err)
							continue
						}
						text := strings.Join(said, "; ")
						low, high := region.Low, region.High
						for _, note := range notes {
							require.Equal(t, note.Fret == 0, note.Finger == 0, "%s: %v has no finger", what, note.Placement)
							if note.Fret > 0 {
								low, high = min(low, note.Fret), max(high, note.Fret)
							}
						}
						if low < region.Low || high > region.High {
							beyond++
							require.Contains(t, text, "it goes beyond", what)
						}
						touches := score.Hands(in, notes, x.Hand)
						for k := 1; k < len(touches); k++ {
							a, b := touches[k-1], touches[k]
							if a.Fret > 0 && b.Fret > 0 && a.Hand == b.Hand && in.Reach(a.Fret, b.Fret) > comfort+0.5 {
								wide++
								require.Contains(t, text, "its widest reach is", what)
								break
							}
						}
					}
				}
			}
		}
	}
	t.Log(cases, "cases,", refused, "refused,", wide, "wide,", beyond, "beyond their frets")
	assert.Greater(t, wide, 100)
	assert.Greater(t, beyond, 100)
	assert.Less(t, refused, cases/2)
}
