package main

import (
	"sync"

	"undaris/core/learner"
	"undaris/core/planner"
)

// fitDays are the first of a learner, in which there is most to find out.
const fitDays = 84

// Fit searches the parameters that predict simulated learners best, one at a time:
// each is made larger and smaller as long as that helps.
func Fit(seeds []uint64, p planner.Params, rounds int, tell func(loss float64, p planner.Params)) planner.Params {
	loss := func(p planner.Params) float64 {
		losses := make([]float64, len(seeds))
		var wait sync.WaitGroup
		for i, seed := range seeds {
			wait.Go(func() {
				// What is chosen must not depend on what is fitted.
				losses[i] = Loss(Live(seed, learner.Kinds[seed%2], Policies[1+seed/2%2], p, fitDays).Guesses)
			})
		}
		wait.Wait()
		sum := 0.0
		for _, l := range losses {
			sum += l / float64(len(seeds))
		}
		return sum
	}
	best := loss(p)
	for range rounds {
		for _, field := range []func(*planner.Params) *float64{
			func(p *planner.Params) *float64 { return &p.Base }, func(p *planner.Params) *float64 { return &p.Spread }, func(p *planner.Params) *float64 { return &p.Drift },
			func(p *planner.Params) *float64 { return &p.Noise }, func(p *planner.Params) *float64 { return &p.Learn }, func(p *planner.Params) *float64 { return &p.Half },
			func(p *planner.Params) *float64 { return &p.Grow }, func(p *planner.Params) *float64 { return &p.Shrink }, func(p *planner.Params) *float64 { return &p.Borrow }, func(p *planner.Params) *float64 { return &p.Own },
		} {
			for _, by := range []float64{1.5, 1 / 1.5} {
				for {
					try := p
					*field(&try) *= by
					if try.Shrink > 1 || try.Half > 60 || try.Drift > 0.05 || try.Grow > 4 { // beyond what days can tell apart
						break
					}
					l := loss(try)
					if l >= best-1e-6 {
						break
					}
					best, p = l, try
				}
			}
		}
		tell(best, p)
	}
	return p
}
