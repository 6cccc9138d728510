package demo

import (
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/edit"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// Every lick of the shelf on every tonic, for four tunings and two hands: where it is shown each note has a finger, no bend
// of a whole step is the first or the little finger's, a finger is there for what adorns a note, and a stretch is told.
func TestTheHandPlaysTheShelf(t *testing.T) {
	t.Parallel()
	_, shelf := filled(t)
	notes, bends, little, wide, refused := 0, 0, 0, 0, 0
	for i, tuning := range []string{"E2,A2,D3,G3,B3,E4", "Eb2,Ab2,Db3,Gb3,Bb3,Eb4", "D2,A2,D3,G3,A3,D4", "B1,E2,A2,D3,G3,B3,E4"} {
		in, err := neck.New(tuning, 22, 648, 0)
		require.NoError(t, err)
		for _, comfort := range []float64{100, 75} {
			if i > 0 && comfort < 100 && os.Getenv("EVERY") == "" {
				continue
			}
			hand := neck.Hand{Comfort: comfort}
			for _, l := range shelf {
				for _, tonic := range pitch.Roots {
					shown, err := edit.Show(l.Phrase(), l.Title, tonic.String(), in, hand)
					if err != nil {
						refused++
						continue
					}
					require.True(t, score.Done(in, shown.Notes, hand), "%s on %s, %s", l.Title, tonic, tuning)
					for _, n := range shown.Notes {
						notes++
						require.Equal(t, n.Fret == 0, n.Finger == 0, "%s on %s, %s", l.Title, tonic, tuning)
						if n.Bend > 1 {
							bends++
							if n.Finger == 4 {
								little++
							}
						}
						if n.Bend >= 4 {
							require.NotContains(t, []int{1, 4}, n.Finger, "%s on %s, %s", l.Title, tonic, tuning)
						}
					}
					if len(score.Stretches(in, shown.Notes, hand)) > 0 {
						wide++
						require.NotEmpty(t, shown.Wide())
					}
				}
			}
		}
	}
	t.Log(notes, "notes,", bends, "bends,", little, "of them the little finger's;", wide, "licks with a stretch, all told;", refused, "not shown on that neck")
	assert.Greater(t, bends, 500)
	assert.LessOrEqual(t, 20*little, bends)
}
