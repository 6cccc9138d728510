package main

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/learner"
	"undaris/core/planner"
)

// A few learners of each kind: whoever follows the plan knows more in the end than whoever practises what is easy, nothing starves, and
// what is predicted is no nonsense. The whole comparison is made by the command.
func TestThePlanBeatsWhatIsEasy(t *testing.T) {
	easy := Policies[len(Policies)-1]
	require.Equal(t, "only what is easy", easy.Name)
	for _, kind := range learner.Kinds {
		for seed := range uint64(2) {
			plan, other := Live(seed, kind, Policies[0], planner.Fitted, 120), Live(seed, kind, easy, planner.Fitted, 120)
			require.NotEmpty(t, plan.Level, kind.ID)
			for m := range plan.Level {
				assert.GreaterOrEqual(t, plan.Level[m], other.Level[m]-0.05, "%s, seed %d, mark %d", kind.ID, seed, m)
				assert.GreaterOrEqual(t, plan.Worst[m], other.Worst[m]-0.05)
			}
			assert.LessOrEqual(t, plan.Unseen[planner.Place], 70, "nothing starves")
			assert.Less(t, Brier(plan.Guesses, func(g Guess) float64 { return g.P }), 0.25, kind.ID)
		}
	}
}

// Every policy asks as often as it is asked to, and boxes ask again what failed before what went well.
func TestPoliciesAsk(t *testing.T) {
	for _, kind := range learner.Kinds {
		for _, policy := range Policies {
			y := Live(3, kind, policy, planner.Fitted, 10)
			days := 0
			l := kind.New(3)
			for day := range 10 {
				if l.Comes(day) {
					days++
				}
			}
			assert.Len(t, y.Guesses, days*Session*perMinute, "%s, %s", kind.ID, policy.Name)
		}
	}
}
