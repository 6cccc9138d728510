package planner

import "sync"

// Fitted are the parameters found by [Fit] on the learners of seeds 1000 to 1011
// (cmd/year -fit).
var Fitted = Params{Base: -2.7, Spread: 0.45, Drift: 0.0003, Noise: 0.00006, Learn: 0.0009, Half: 45, Grow: 3.4, Shrink: 0.8, Borrow: 0.2}

// fitDays are the first of a learner, in which there is most to find out.
const fitDays = 84

// Fit searches the parameters that predict simulated learners best, one at a time:
// each is made larger and smaller as long as that helps.
func Fit(seeds []uint64, p Params, rounds int, tell func(loss float64, p Params)) Params {
	loss := func(p Params) float64 {
		losses := make([]float64, len(seeds))
		var wait sync.WaitGroup
		for i, seed := range seeds {
			wait.Go(func() {
				// What is chosen must not depend on what is fitted.
				losses[i] = Loss(Live(seed, Policies[1+seed%2], p, fitDays).Guesses)
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
		for _, field := range []func(*Params) *float64{
			func(p *Params) *float64 { return &p.Base }, func(p *Params) *float64 { return &p.Spread }, func(p *Params) *float64 { return &p.Drift },
			func(p *Params) *float64 { return &p.Noise }, func(p *Params) *float64 { return &p.Learn }, func(p *Params) *float64 { return &p.Half },
			func(p *Params) *float64 { return &p.Grow }, func(p *Params) *float64 { return &p.Shrink }, func(p *Params) *float64 { return &p.Borrow },
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
