package main

import (
	"cmp"
	"math/rand/v2"
	"slices"
	"time"

	"undaris/core/learner"
	"undaris/core/planner"
)

// Policy picks what is asked in a session, one thing after the other. Each is made anew for a learner, and told how everything went.
type Policy struct {
	Name string
	New  func(asks []planner.Ask, rng *rand.Rand, l learner.Learner, m *planner.Model) Picking
}

// Picking is a policy with one learner.
type Picking interface {
	// Pick is what is asked on a day, so often.
	Pick(at time.Time, trials int) []planner.Ask
	// Told is how one thing went.
	Told(a planner.Ask, well bool, at time.Time)
}

// Policies are those that are set beside each other; the first is the plan. All ask trial by trial, so that none is kept from turning
// between things.
var Policies = []Policy{
	{"the plan", func(asks []planner.Ask, rng *rand.Rand, _ learner.Learner, m *planner.Model) Picking {
		return &byPlan{asks: asks, model: m, seed: rng.Uint64()}
	}},
	{"at random", func(asks []planner.Ask, rng *rand.Rand, _ learner.Learner, _ *planner.Model) Picking {
		return byHand{func(time.Time) planner.Ask { return asks[rng.IntN(len(asks))] }}
	}},
	{"shuffled rotation", func(asks []planner.Ask, rng *rand.Rand, _ learner.Learner, _ *planner.Model) Picking {
		var round []planner.Ask
		return byHand{func(time.Time) planner.Ask {
			if len(round) == 0 {
				round = slices.Clone(asks)
				rng.Shuffle(len(round), func(i, j int) { round[i], round[j] = round[j], round[i] })
			}
			a := round[0]
			round = round[1:]
			return a
		}}
	}},
	{"weakest first", func(asks []planner.Ask, rng *rand.Rand, _ learner.Learner, _ *planner.Model) Picking {
		return &byWeakness{asks: asks, rng: rng, right: map[planner.Ask]float64{}, tried: map[planner.Ask]float64{}}
	}},
	{"spaced boxes", func(asks []planner.Ask, rng *rand.Rand, _ learner.Learner, _ *planner.Model) Picking {
		fresh := slices.Clone(asks)
		rng.Shuffle(len(fresh), func(i, j int) { fresh[i], fresh[j] = fresh[j], fresh[i] })
		return &byBoxes{fresh: fresh, box: map[planner.Ask]int{}, due: map[planner.Ask]time.Time{}}
	}},
	{"only what is easy", func(asks []planner.Ask, rng *rand.Rand, l learner.Learner, _ *planner.Model) Picking {
		return byHand{func(at time.Time) planner.Ask {
			best, most := asks[0], -1.0
			for range 24 { // the easiest of what comes to mind
				if a := asks[rng.IntN(len(asks))]; l.Chance(a, at) > most {
					best, most = a, l.Chance(a, at)
				}
			}
			return best
		}}
	}},
}

// byPlan is the plan: items of some asks each, which come in turn.
type byPlan struct {
	asks  []planner.Ask
	model *planner.Model
	seed  uint64
	day   uint64
}

func (p *byPlan) Pick(at time.Time, trials int) []planner.Ask {
	p.day++
	return planner.Interleaved(p.model.Choose(p.asks, trials*planner.Mixed/perItem/perMinute, at, p.seed+p.day), trials, p.seed+p.day)
}
func (p *byPlan) Told(planner.Ask, bool, time.Time) {}

// byHand asks one thing after the other, whatever comes of it.
type byHand struct {
	next func(at time.Time) planner.Ask
}

func (p byHand) Pick(at time.Time, trials int) (out []planner.Ask) {
	for range trials {
		out = append(out, p.next(at))
	}
	return out
}
func (byHand) Told(planner.Ask, bool, time.Time) {}

// byWeakness asks what went worst so far, three times each, in turn; what was never tried counts as one of two.
type byWeakness struct {
	asks         []planner.Ask
	rng          *rand.Rand
	right, tried map[planner.Ask]float64
}

func (p *byWeakness) Pick(_ time.Time, trials int) (out []planner.Ask) {
	list := slices.Clone(p.asks)
	p.rng.Shuffle(len(list), func(i, j int) { list[i], list[j] = list[j], list[i] })
	share := func(a planner.Ask) float64 { return (p.right[a] + 1) / (p.tried[a] + 2) }
	slices.SortStableFunc(list, func(a, b planner.Ask) int { return cmp.Compare(share(a), share(b)) })
	list = list[:max(1, trials/3)]
	for i := range trials {
		out = append(out, list[i%len(list)])
	}
	return out
}

func (p *byWeakness) Told(a planner.Ask, well bool, _ time.Time) {
	if p.tried[a]++; well {
		p.right[a]++
	}
}

// byBoxes are cards in boxes (Leitner 1972): what went well goes on a box, and comes again after twice as many days; what did not begins
// anew. What is due comes first, the longest overdue first; then new cards.
type byBoxes struct {
	fresh []planner.Ask
	box   map[planner.Ask]int
	due   map[planner.Ask]time.Time
}

func (p *byBoxes) Pick(at time.Time, trials int) (out []planner.Ask) {
	for a, t := range p.due {
		if !t.After(at) {
			out = append(out, a)
		}
	}
	slices.SortFunc(out, func(a, b planner.Ask) int {
		return cmp.Or(p.due[a].Compare(p.due[b]), cmp.Compare(a.Key, b.Key), cmp.Compare(a.Position, b.Position), cmp.Compare(a.Degree, b.Degree), cmp.Compare(way(a), way(b)))
	})
	out = out[:min(len(out), trials)]
	for len(out) < trials && len(p.fresh) > 0 {
		out = append(out, p.fresh[0])
		p.fresh = p.fresh[1:]
	}
	for i := 0; len(out) < trials && len(out) > 0; i++ { // the same once more
		out = append(out, out[i])
	}
	return out
}

func (p *byBoxes) Told(a planner.Ask, well bool, at time.Time) {
	if !well {
		p.box[a] = 0
	} else if p.due[a].IsZero() || !p.due[a].After(at) {
		p.box[a]++
	}
	p.due[a] = at.Truncate(24*time.Hour).AddDate(0, 0, 1<<min(6, p.box[a]))
}

func way(a planner.Ask) int {
	if a.Down {
		return 1
	}
	return 0
}
