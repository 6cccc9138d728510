package edit

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// An ending on the 6, on the 9 or on both closes on the chord of it, in every key: told, its last note one of that chord's tones.
// Where the last bar is locked or another chord stands there, the chart stays.
func TestAnEndingClosesOnItsChord(t *testing.T) {
	for _, key := range pitch.Roots {
		for _, minor := range []bool{false, true} {
			k := form.Key{Tonic: key, Minor: minor}
			kind := map[bool]string{true: "m"}[minor]
			one, four, five := k.Tonic.String()+kind, k.Spell(key.Class()+5).String()+kind, k.Spell(key.Class()+7).String()
			for closing, suffix := range map[string]string{"held-sixth": "6", "held-ninth": "9", "held-six-nine": "6/9", "walk-home": "7", "none": "7"} {
				for _, had := range []string{"7", ""} {
					p, err := form.Read("| "+one+"7 | "+four+"7 | "+five+"7 | "+one+had+" |", 4, k)
					require.NoError(t, err)
					l := Line{Hand: neck.UsualHand, Palette: blend.Palettes[0]}
					l.Score = score.Score{Key: k, Tempo: 96, Progression: p, In: neck.Standard()}
					l.Region = l.In.Positions(key.Class())[2].Region
					where := closing + " in " + k.String() + ", on " + one + had
					want := map[bool]string{true: suffix, false: had}[suffix != "7"]
					wish := line.Wish{Rhythm: "eighths", Density: 3, Approach: true, Closing: closing, Seed: 4}
					written := l
					require.NoError(t, written.Write(t.Context(), wish), where)
					last, _ := written.ChordAt(written.End() - 1)
					assert.Equal(t, one+want, last.String(), where)
					assert.Equal(t, suffix != "7", strings.Contains(strings.Join(written.Said, "; "), "which the ending closes on"), where)
					assert.NotEqual(t, "", l.Text())
					was, _ := l.ChordAt(l.End() - 1)
					assert.Equal(t, one+had, was.String(), "%s: what it was made of stays", where)
					if suffix != "7" {
						_, tone := last.ToneAt(pitch.Class(written.Notes[len(written.Notes)-1].Heard()))
						assert.True(t, tone, "%s: it rests on a tone of %s", where, last)
					}
					l.Lock([]int{4})
					require.NoError(t, l.Write(t.Context(), wish), where)
					last, _ = l.ChordAt(l.End() - 1)
					assert.Equal(t, one+had, last.String(), "%s, locked", where)
				}
			}
		}
	}
}
