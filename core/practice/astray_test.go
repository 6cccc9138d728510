package practice_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/practice"
)

// Who errs is not told to be lost: of choruses with a tenth of their notes wrong none are, with a quarter hardly any; and of those who
// lose the form for a few bars a fifth at least still is, out of what they play alone.
func TestWhoErrsIsNotLost(t *testing.T) {
	told := func(p judge.Player, lost bool) (told, all int) {
		for _, f := range form.Forms[:6] {
			for seed := range uint64(20) {
				l := over(f, c)
				w := line.Wish{Region: neck.Region{Low: 7, High: 11}, Palette: blend.Palettes[0], Rhythm: "eighths", Density: 3, Approach: true, Seed: seed, ChordTones: lost && seed%2 == 0}
				if seed%2 == 1 {
					w.Targets = []harmony.Role{harmony.Third}
				}
				notes, err := line.Write(context.Background(), l.Score, w, neck.UsualHand)
				require.NoError(t, err)
				l.Notes = notes
				p.Seed, p.Spread = seed, 12
				heard, erred := p.Play(l.Score, 96, 0.6)
				if lost && len(erred.Lost) == 0 {
					continue
				}
				l.Notes = nil
				got, err := practice.Judge(l, heard, 96, 0.6, practice.Modes[0].Stages[0])
				require.NoError(t, err)
				if all++; len(got.Lost) > 0 {
					told++
				}
			}
		}
		return told, all
	}
	for wrong, most := range map[float64]float64{0: 0, 0.1: 0, 0.25: 0.02, 0.4: 0.05} {
		n, of := told(judge.Player{Wrong: wrong, Late: wrong / 2}, false)
		assert.LessOrEqual(t, float64(n)/float64(of), most, "%d of %d with %v wrong", n, of, wrong)
	}
	n, of := told(judge.Player{Lost: 0.15}, true)
	assert.GreaterOrEqual(t, float64(n)/float64(of), 0.18, "%d of %d who were lost", n, of)
}
