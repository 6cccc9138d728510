package judge_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/judge"
	"undaris/core/pitch"
)

// A take that is judged note by note while it is played ends as the whole is judged, for players
// who play wrong, late, too much and too little, at every size of a step; and all but the last
// beats are judged so already while they are played.
func TestWhatIsJudgedWhileItIsPlayed(t *testing.T) {
	same, all, early, soon := 0, 0, 0, 0
	for seed := range uint64(8 * len(form.Forms)) {
		s := written(t, form.Forms[int(seed)%len(form.Forms)], pitch.Roots[int(seed)%len(pitch.Roots)], rhythms[int(seed)%len(rhythms)], seed)
		p := judge.Player{Wrong: 0.02 * float64(seed%10), Late: 0.03 * float64(seed%7), Missed: 0.02 * float64(seed%9), Spread: float64(seed % 40), Tendency: float64(seed%5)*20 - 40, Seed: seed}
		heard, _ := p.Play(s, 96, 0.6)
		heard = judge.InOrder(heard)
		whole := judge.Prescribed(s, heard, 96, 0.6)
		f := judge.Following(s, 96, 0.6)
		step := 1 + int(seed%6)
		var now []judge.Verdict
		for from := 0; from < len(heard); from += step {
			now = f.Now(heard[:min(from+step, len(heard))], heard[from].At)
			for i, v := range now {
				if at := float64(s.Notes[i].Start); at < heard[from].At-4*960 {
					soon++
					if v.Is == whole.Verdicts[i].Is && v.Heard == whole.Verdicts[i].Heard {
						early++
					}
				}
			}
		}
		require.Len(t, now, len(whole.Verdicts))
		for i := range now {
			all++
			if now[i] == whole.Verdicts[i] {
				same++
			}
		}
	}
	require.Greater(t, all, 2000)
	assert.Equal(t, all, same, "at the end")
	assert.GreaterOrEqual(t, float64(early)/float64(soon), 0.999, "four beats later")
	t.Logf("%d of %d verdicts at the end, %d of %d four beats later", same, all, early, soon)
}

// What is taken back, and what comes late, is judged anew from where it was.
func TestWhatComesLateIsJudgedAnew(t *testing.T) {
	s := written(t, form.Forms[0], pitch.Roots[0], "eighths", 5)
	heard, _ := judge.Player{Seed: 3}.Play(s, 96, 0.5)
	heard = judge.InOrder(heard)
	f := judge.Following(s, 96, 0.5)
	without := slices.Delete(slices.Clone(heard), 10, 11)
	f.Now(without, 0)
	got := slices.Clone(f.Now(heard, heard[10].At))
	assert.Equal(t, judge.Prescribed(s, heard, 96, 0.5).Verdicts, got)
	got = f.Now(without, heard[10].At)
	assert.Equal(t, judge.Prescribed(s, without, 96, 0.5).Verdicts, got)
	assert.Equal(t, judge.Prescribed(s, nil, 96, 0.5).Verdicts, f.Now(nil, 0), "nothing was heard after all")
}
