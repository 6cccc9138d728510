// Package learner simulates players who learn and forget, by whom plans are tried. Each kind is of another structure, and none
// is of the form of planner's model, from which everything about them is hidden.
package learner

import (
	"math"
	"time"

	"undaris/core/planner"
)

// Learner is one of them.
type Learner interface {
	// Chance is how likely an ask succeeds by a time, whatever the mood and however tired: 0 to 1.
	Chance(a planner.Ask, at time.Time) float64
	// Try plays an ask, learns from it, and tells whether it went well.
	Try(a planner.Ask, at time.Time) bool
	// Comes tells that this one practises on a day.
	Comes(day int) bool
}

// Kind is a structure that learners have.
type Kind struct {
	ID, About string
	New       func(seed uint64) Learner
}

// Kinds lists them.
var Kinds = []Kind{
	{"halving", "strengths of places and degrees fade by half-lives that grow with spaced success; neighbours gain", func(seed uint64) Learner { return NewHalving(seed) }},
	{"tracing", "each playing leaves a trace that fades by a power law, the faster the fresher the memory was", func(seed uint64) Learner { return NewTracing(seed) }},
	{"stages", "steps and plateaus, similar shapes get in each other's way, and a hand tires; days are missed", func(seed uint64) Learner { return NewStages(seed) }},
}

// Level is how likely one succeeds on average of a list, and in the worst tenth of it.
func Level(l Learner, asks []planner.Ask, at time.Time) (mean, worst float64) {
	all := make([]float64, len(asks))
	for i, a := range asks {
		all[i] = l.Chance(a, at)
		mean += all[i] / float64(len(asks))
	}
	return mean, worstTenth(all)
}

func logistic(x float64) float64 { return 1 / (1 + math.Exp(-x)) }
