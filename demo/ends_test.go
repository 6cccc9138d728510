package demo

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/lick"
	"undaris/core/score"
)

// Licks end where players end them: about half on 1, on 3 or on the and of 2, and not all where a bar is full.
func TestLicksEndWherePlayersEndThem(t *testing.T) {
	settled, full := 0, 0
	for _, l := range licks {
		notes, err := lick.Parse(l.text)
		require.NoError(t, err, l.title)
		last := notes[len(notes)-1]
		switch last.Start % (4 * score.Tick) {
		case 0, 2 * score.Tick, 3 * score.Tick / 2:
			settled++
		}
		if (last.Start+last.Length)%(4*score.Tick) == 0 {
			full++
		}
	}
	part := float64(settled) / float64(len(licks))
	assert.True(t, part >= 0.45 && part <= 0.6, "%d of %d", settled, len(licks))
	assert.LessOrEqual(t, 10*full, 6*len(licks), "%d of %d end where the bar does", full, len(licks))
}

// No two licks are all but the same: told by the tones and their lengths that would have to be changed to make one of the other.
func TestLicksAreToldApart(t *testing.T) {
	type tone struct {
		degree string
		length int
	}
	tones := func(text string) (out []tone) {
		notes, err := lick.Parse(text)
		require.NoError(t, err, text)
		for _, n := range notes {
			out = append(out, tone{string(n.Degree), n.Length})
		}
		return out
	}
	apart := func(a, b []tone) float64 { // of the longer one's tones
		costs := make([]float64, len(b)+1)
		for j := range costs {
			costs[j] = float64(j)
		}
		for i, x := range a {
			before := costs[0]
			costs[0] = float64(i + 1)
			for j, y := range b {
				other := 1.0
				switch {
				case x == y:
					other = 0
				case x.degree == y.degree:
					other = 0.5
				}
				before, costs[j+1] = costs[j+1], min(before+other, costs[j]+1, costs[j+1]+1)
			}
		}
		return costs[len(b)] / float64(max(len(a), len(b)))
	}
	for i, l := range licks {
		for _, other := range licks[:i] {
			d := apart(tones(l.text), tones(other.text))
			assert.GreaterOrEqual(t, d, 0.25, "%s and %s", l.title, other.title)
		}
	}
}
