package practice_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/planner"
	"undaris/core/practice"
	"undaris/core/score"
)

// Stopped in any bar, or begun in any: in every mode that leaves open what is played only the changes that were reached are judged
// and logged, as they would be in the whole; and what is whole is not called partial.
func TestAPassThatIsStoppedIsJudgedAsFarAsItWent(t *testing.T) {
	l := over(form.Forms[0], c)
	heard := meets(l, harmony.Third, 0)
	for _, m := range practice.Modes {
		if m.Writes() {
			continue
		}
		ground := l
		ground.Progression = m.Over(l.Progression, l.Key)
		whole, err := m.Judge(ground, 0, heard, 100, 0.5)
		require.NoError(t, err)
		assert.False(t, whole.Partial, m.ID)
		for bar := range ground.Bars {
			for _, span := range []judge.Span{{From: -960, To: float64(ground.At(bar)) + 100}, {From: float64(ground.At(bar)), To: float64(ground.End())}} {
				var played []judge.Heard
				for _, h := range heard {
					if h.At >= span.From && h.At < span.To {
						played = append(played, h)
					}
				}
				f, err := m.JudgeSpan(ground, 0, played, span, 100, 0.5)
				require.NoError(t, err)
				want := map[int]bool{}
				for _, x := range whole.Landings {
					if span.Has(x.At) {
						want[x.At] = x.Counts
					}
				}
				require.Len(t, f.Landings, len(want), "%s, bar %d", m.ID, bar+1)
				for _, x := range f.Landings {
					// A change that was led into from before the beginning may be met otherwise than in the whole, but never worse.
					require.True(t, x.Counts || !want[x.At], "%s, bar %d", m.ID, bar+1)
				}
				assert.Equal(t, len(want) < len(whole.Landings), f.Partial, m.ID)
				assert.Len(t, planner.FromFree(f, m, 0, played, 100), len(want))
			}
		}
		none, err := m.JudgeSpan(ground, 0, nil, judge.Span{From: -960, To: -score.Tick / 2}, 100, 0.5)
		require.NoError(t, err)
		assert.Empty(t, none.Landings)
	}
}

// Of what a mode writes only the notes that were reached are asked for.
func TestAWrittenPassThatIsStopped(t *testing.T) {
	l := over(form.Forms[0], c)
	l.Region.Low, l.Region.High = 7, 11
	m, err := practice.ModeByID("bends")
	require.NoError(t, err)
	_, own, err := m.Line(t.Context(), l, practice.Ask{})
	require.NoError(t, err)
	heard, _ := judge.Player{}.Play(own.Score, 100, 0.5)
	f, err := m.JudgeSpan(own, 0, heard[:8], judge.Span{From: 0, To: float64(own.At(4))}, 100, 0.5)
	require.NoError(t, err)
	require.True(t, f.Partial)
	require.NotEmpty(t, f.Landings)
	for _, x := range f.Landings {
		assert.Less(t, x.At, own.At(4))
		assert.True(t, x.Counts)
	}
}
