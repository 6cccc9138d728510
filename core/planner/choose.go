package planner

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
	"time"
)

// Starving is how many days a skill may go unseen before it comes first, whatever
// else there is to gain.
var Starving = map[Kind]float64{Place: 35, Degree: 10}

// Worth is what practising an ask is worth by a time: most where it neither goes well
// nor fails, more where it fades or is not known, and far more where it starves.
func (m *Model) Worth(a Ask, at time.Time) float64 {
	p, sd := m.Predict(a, at)
	worth := 4*p*(1-p) + 0.15*sd
	due, starved := 0.0, 0.0
	for _, s := range a.Skills() {
		k, known := m.skills[s]
		if !known || k.Trials == 0 {
			due = max(due, 0.5)
			continue
		}
		days := max(0, at.Sub(k.Seen).Hours()/24)
		due = max(due, min(1, days/(2*k.Half)))
		if limit, ok := Starving[s.Kind]; ok && days > 0.7*limit {
			starved += days / limit
		}
	}
	return worth*(0.6+0.6*due) + 2*starved
}

// fresh is how few items lie between two of the same key or position.
const fresh = 2

// Choose picks so many asks to practise one after the other, the most worth first,
// with keys and positions in turn. The same seed picks the same.
func (m *Model) Choose(asks []Ask, count int, at time.Time, seed uint64) (chosen []Ask) {
	rng := rand.New(rand.NewPCG(seed, 43))
	type rated struct {
		ask   Ask
		worth float64
	}
	all := make([]rated, len(asks))
	for i, a := range asks {
		all[i] = rated{a, m.Worth(a, at) * (1 + 0.1*rng.Float64())}
	}
	slices.SortStableFunc(all, func(a, b rated) int { return cmp.Compare(b.worth, a.worth) })
	for len(chosen) < count && len(all) > 0 {
		best, most := 0, math.Inf(-1)
		for i, r := range all[:min(len(all), 80)] {
			worth := r.worth
			for k, c := range chosen {
				near := 1.0
				if k < len(chosen)-fresh {
					near = 0.35
				}
				switch {
				case c.Key == r.ask.Key && c.Position == r.ask.Position:
					worth *= 1 - 0.8*near
				case c.Key == r.ask.Key || c.Position == r.ask.Position:
					worth *= 1 - 0.3*near
				}
				if c.Degree == r.ask.Degree && c.Down == r.ask.Down {
					worth *= 1 - 0.3*near
				}
			}
			if worth > most {
				best, most = i, worth
			}
		}
		chosen = append(chosen, all[best].ask)
		all = slices.Delete(all, best, best+1)
	}
	return chosen
}
