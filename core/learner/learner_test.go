package learner_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"undaris/core/learner"
	"undaris/core/planner"
)

var monday = time.Date(2026, 3, 2, 18, 0, 0, 0, time.UTC)

// Every kind of learner: chances are chances, the same seed learns the same, practice helps, time without it does not, and what is
// spread over days lasts longer than what is done at once.
func TestLearners(t *testing.T) {
	a := planner.Ask{Key: 2, Position: 1, Quality: "7", Degree: "third", Device: "tones", Tempo: 80}
	for _, kind := range learner.Kinds {
		spaced, massed := 0.0, 0.0
		for seed := range uint64(20) {
			l, same := kind.New(seed), kind.New(seed)
			before := l.Chance(a, monday)
			assert.InDelta(t, before, same.Chance(a, monday), 1e-12, kind.ID)
			assert.True(t, before >= 0 && before <= 1, kind.ID)
			at := monday
			for range 60 {
				at = at.Add(20 * time.Second)
				assert.Equal(t, l.Try(a, at), same.Try(a, at), kind.ID)
			}
			after := l.Chance(a, at)
			assert.Greater(t, after, before, kind.ID)
			assert.LessOrEqual(t, l.Chance(a, at.AddDate(0, 0, 60)), after+1e-9, kind.ID)

			s, m := kind.New(seed), kind.New(seed)
			for day := range 10 {
				for i := range 3 {
					s.Try(a, monday.AddDate(0, 0, 2*day).Add(time.Duration(i)*20*time.Minute))
				}
			}
			for i := range 30 {
				m.Try(a, monday.AddDate(0, 0, 18).Add(time.Duration(i)*20*time.Second))
			}
			spaced += s.Chance(a, monday.AddDate(0, 0, 60))
			massed += m.Chance(a, monday.AddDate(0, 0, 60))
		}
		assert.Greater(t, spaced, massed, kind.ID)
	}
}

// Some days are missed by those who miss days, and by nobody all.
func TestDays(t *testing.T) {
	for _, kind := range learner.Kinds {
		for seed := range uint64(10) {
			l, n := kind.New(seed), 0
			for day := range 365 {
				if l.Comes(day) {
					n++
				}
			}
			assert.Greater(t, n, 120, kind.ID)
			assert.Less(t, n, 262, kind.ID)
		}
	}
}
