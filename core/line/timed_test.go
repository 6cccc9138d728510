package line

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/harmony"
	"undaris/core/neck"
)

// The phrasing that is timed to the next root comes out on it wherever a phrase of four beats leads on: in every word, over
// every chart, on a guitar and a bass, in each position; on what is wished to be landed on where that is said.
func TestTimedPhrasesComeOutOnTheNextRoot(t *testing.T) {
	runs, missed := 0, map[string]int{}
	for _, c := range charts {
		for _, tuning := range []string{"standard", "bass"} {
			s := empty(t, c.form, c.key)
			u := neck.Tunings[slices.IndexFunc(neck.Tunings, func(u neck.Tuning) bool { return u.ID == tuning })]
			var err error
			s.In, err = neck.New(u.Open, u.Frets, u.Scale, 0)
			require.NoError(t, err)
			for i, word := range Words {
				for _, phrasing := range []string{"fill", "fill-third"} {
					w := wished(t, s, uint64(i))
					w.Region = s.In.Positions(s.Key.Tonic.Class())[i%3].Region
					w.Phrasing, w.Rhythm, w.Spice, w.ChordTones, w.Targets = phrasing, Rhythms[i%len(Rhythms)].ID, word.Spice, word.ChordTones, [][]harmony.Role{nil, {harmony.Seventh}}[i%2]
					out := w.line(t, s, fmt.Sprint("timed over ", c.form, ", ", word.ID))
					for bar := 1; bar+1 < len(s.Bars); bar += 2 {
						next, sounds := s.ChordAt(s.At(bar + 1))
						if s.BeatsOf(bar) != 4 || !sounds {
							continue
						}
						runs++
						met := false
						for _, n := range out.Notes {
							if n.Start == s.At(bar+1) && n.Heard()%12 == w.goal(next) {
								met = true
							}
						}
						if !met {
							missed[fmt.Sprint(tuning, " ", phrasing)]++
						}
					}
				}
			}
		}
	}
	t.Log(runs, "runs", missed)
	assert.Greater(t, runs, 500)
	assert.Empty(t, missed)
}
