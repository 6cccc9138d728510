package line

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/score"
)

// Over bars of other lengths, in every rhythm, word and phrasing: each change is met where it
// lies, and the line fills its bars and no more.
func TestLinesOverBarsOfAnotherLength(t *testing.T) {
	for _, text := range []string{
		"| C7 | 2/4 F7 | 4/4 C7 | % | 3/4 F7 | % | 4/4 C7 | 1/4 A7 | 4/4 D7 | G7 | C7 A7 | D7 G7 |",
		"| 1/4 G7 | 4/4 C7 | % | F7 | C7 | 3/4 G7 |",
		"| 5/4 C7 . . F7 . | C7 | 4/4 F7 | 6/4 G7 . . . C7 . |",
	} {
		key, err := form.ParseKey("C")
		require.NoError(t, err)
		p, err := form.Read(text, 4, key)
		require.NoError(t, err)
		s := score.Score{Key: key, Tempo: 96, Progression: p, In: neck.Standard()}
		for _, r := range Rhythms {
			for _, word := range Words {
				for _, phrasing := range Phrasings {
					w := wished(t, s, 3)
					w.Rhythm, w.Phrasing, w.Spice, w.ChordTones = r.ID, phrasing.ID, word.Spice, word.ChordTones
					where := fmt.Sprint(text, " ", r.ID, ", ", word.ID, ", ", phrasing.ID)
					out := w.line(t, s, where)
					require.Less(t, out.Notes[len(out.Notes)-1].Start, s.End(), where)
					measures := out.Engrave()
					last := measures[len(measures)-1]
					length := 0
					for _, k := range last.Strokes {
						length += k.Value.Ticks()
					}
					assert.Equal(t, s.BarTicks(len(p.Bars)-1), length, where)
				}
			}
		}
	}
}
