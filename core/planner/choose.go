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

// What makes an ask worth practising; found on the learners of cmd/year, see docs/planner.md.
const (
	easier     = 1.3 // powers of the chance of success and of failure: it is worth most where it succeeds nearly half of the time,
	harder     = 1.6 // since what neither goes well nor fails teaches most (Guadagnoli and Lee 2004)
	doubt      = 0.2 // worth of a standard deviation that is not known
	neverAsked = 3.0 // times as much is what was never asked to the letter
	justAsked  = 0.2 // and this much what was asked just now,
	askedAgain = 11  // up to all of it after so many days: what is spaced lasts (Cepeda and others 2006),
	spacedOut  = 0.6 // each time that it went well on another day longer, by this power of two
	mostSpaced = 6   // times
)

// interest is 1 for a chance of success at which an ask teaches most, and 0 where it always fails or always succeeds.
func interest(p float64) float64 {
	best := easier / (easier + harder)
	return math.Pow(p/best, easier) * math.Pow((1-p)/(1-best), harder)
}

// spaced is how far an ask to the letter is due by a time.
func (m *Model) spaced(a Ask, at time.Time) float64 {
	w, known := m.skills[a.Whole()]
	if !known {
		return neverAsked
	}
	days := max(0, at.Sub(w.Seen).Hours()/24)
	return justAsked + (1-justAsked)*min(1, days/(askedAgain*math.Exp2(spacedOut*float64(min(mostSpaced, w.Row)))))
}

// Worth is what practising an ask is worth by a time: most where it neither goes well
// nor fails, more where it fades, is due or is not known, and far more where it starves.
func (m *Model) Worth(a Ask, at time.Time) float64 {
	p, sd := m.Predict(a, at)
	due, starved := 0.0, 0.0
	for _, s := range a.Skills() {
		if s.Kind == Whole {
			continue
		}
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
	return (interest(p)+doubt*sd)*(0.6+0.6*due)*m.spaced(a, at) + 2*starved
}

// fresh is how few items lie between two of the same key or position.
const fresh = 2

// Choose picks so many asks to practise one after the other, the most worth first,
// with keys and positions in turn. The same seed picks the same.
func (m *Model) Choose(asks []Ask, count int, at time.Time, seed uint64) (chosen []Ask) {
	rng := rand.New(rand.NewPCG(seed, 43))
	type rated struct {
		ask         Ask
		worth, like float64 // like is what is left of it beside what was chosen before the last few
	}
	all := make([]rated, len(asks))
	for i, a := range asks {
		all[i] = rated{a, m.Worth(a, at) * (1 + 0.1*rng.Float64()), 1}
	}
	slices.SortStableFunc(all, func(a, b rated) int { return cmp.Compare(b.worth, a.worth) })
	for len(chosen) < count && len(all) > 0 {
		best, most := 0, math.Inf(-1)
		lately := chosen[max(0, len(chosen)-fresh):]
		for i, r := range all[:min(len(all), 80)] {
			worth := r.worth * r.like
			for _, c := range lately {
				worth *= beside(r.ask, c, 1)
			}
			if worth > most {
				best, most = i, worth
			}
		}
		chosen = append(chosen, all[best].ask)
		all = slices.Delete(all, best, best+1)
		if k := len(chosen) - 1 - fresh; k >= 0 {
			for i := range all {
				all[i].like *= beside(all[i].ask, chosen[k], longAgo)
			}
		}
	}
	return chosen
}

// longAgo is how much of what one item takes from those that are like it is left after a few others.
const longAgo = 0.35

// beside is what is left of the worth of an ask beside another that is like it.
func beside(a, other Ask, near float64) float64 {
	left := 1.0
	switch {
	case other.Key == a.Key && other.Position == a.Position:
		left = 1 - 0.8*near
	case other.Key == a.Key || other.Position == a.Position:
		left = 1 - 0.3*near
	}
	if other.Degree == a.Degree && other.Down == a.Down {
		left *= 1 - 0.3*near
	}
	return left
}

// Mixed is how many asks come in turn in one item.
const Mixed = 9

// Interleaved asks so often what was chosen: some of it at a time, in turn and never in the same order twice.
func Interleaved(asks []Ask, trials int, seed uint64) (out []Ask) {
	rng := rand.New(rand.NewPCG(seed, 59))
	groups := max(1, (len(asks)+Mixed-1)/Mixed)
	for g := range groups {
		group := slices.Clone(asks[g*Mixed : min(len(asks), (g+1)*Mixed)])
		for n := trials*(g+1)/groups - trials*g/groups; n > 0 && len(group) > 0; {
			rng.Shuffle(len(group), func(i, j int) { group[i], group[j] = group[j], group[i] })
			for _, a := range group[:min(n, len(group))] {
				out = append(out, a)
				n--
			}
		}
	}
	return out
}
