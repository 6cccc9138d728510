package planner

import (
	"math"
	"math/rand/v2"
	"time"
)

// A simulated year: how learners fare who practise by one policy or another.
const (
	Session   = 20  // minutes a day, on five days of seven
	perItem   = 2   // minutes
	perMinute = 3   // trials
	Goal      = 0.8 // the level that is to be reached
)

// Everything is what learners are to learn: every key in every position, from every
// degree, up and down.
func Everything() (asks []Ask) {
	for key := range 12 {
		for p := range Positions {
			for _, d := range Degrees {
				for _, down := range []bool{false, true} {
					asks = append(asks, Ask{Key: key, Position: p, Quality: "7", Degree: d, Down: down, Device: "tones", Tempo: 80})
				}
			}
		}
	}
	return asks
}

// Policy picks the items of a session.
type Policy struct {
	Name string
	pick func(y *year, at time.Time, count int) []Ask
}

// Policies are those that are set beside each other; the first is the plan.
var Policies = []Policy{
	{"the plan", func(y *year, at time.Time, count int) []Ask {
		return y.model.Choose(y.asks, count, at, y.seed+uint64(y.day))
	}},
	{"at random", func(y *year, _ time.Time, count int) (out []Ask) {
		for range count {
			out = append(out, y.asks[y.rng.IntN(len(y.asks))])
		}
		return out
	}},
	{"in rotation", func(y *year, _ time.Time, count int) (out []Ask) {
		for range count {
			out = append(out, y.asks[y.turn%len(y.asks)])
			y.turn++
		}
		return out
	}},
	{"only what is easy", func(y *year, at time.Time, count int) (out []Ask) {
		for range count {
			best, most := y.asks[0], -1.0
			for range 24 { // the easiest of what comes to mind
				if a := y.asks[y.rng.IntN(len(y.asks))]; logistic(y.learner.Odds(a, at)) > most {
					best, most = a, logistic(y.learner.Odds(a, at))
				}
			}
			out = append(out, best)
		}
		return out
	}},
}

type year struct {
	seed    uint64
	rng     *rand.Rand
	learner *Learner
	model   *Model
	asks    []Ask
	day     int
	turn    int
}

// Guess is one prediction with what came of it.
type Guess struct {
	P    float64
	Well bool
}

// Year is what became of one learner.
type Year struct {
	Minutes int // until the goal; those of the whole year where it was not reached
	Reached bool
	Level   float64      // in the end
	Unseen  map[Kind]int // the most days that a place, a key, a position or a degree went unseen, after the first weeks
	Guesses []Guess
}

// Kinds of what may starve, beside [Place] and [Degree].
const (
	keys      Kind = "key"
	positions Kind = "position"
)

// settling is how many days pass before starvation is counted.
const settling = 60

// Days are those of a year.
const Days = 365

// Live has a learner practise for so many days.
func Live(seed uint64, policy Policy, p Params, days int) Year {
	y := &year{seed: seed, rng: rand.New(rand.NewPCG(seed, 47)), learner: NewLearner(seed), model: New(p), asks: Everything()}
	out := Year{Unseen: map[Kind]int{}}
	seen := map[Kind]map[string]int{}
	saw := func(kind Kind, value string) {
		if seen[kind] == nil {
			seen[kind] = map[string]int{}
		}
		if last, ok := seen[kind][value]; ok && y.day > settling {
			out.Unseen[kind] = max(out.Unseen[kind], y.day-max(last, settling))
		}
		seen[kind][value] = y.day
	}
	start := time.Date(2026, 1, 5, 18, 0, 0, 0, time.UTC)
	minutes := 0
	for y.day = 0; y.day < days; y.day++ {
		if y.day%7 >= 5 {
			continue
		}
		at := start.AddDate(0, 0, y.day)
		for _, a := range policy.pick(y, at, Session/perItem) {
			for range perItem * perMinute {
				p, _ := y.model.Predict(a, at)
				well := y.learner.Try(a, at)
				out.Guesses = append(out.Guesses, Guess{p, well})
				success := 0.0
				if well {
					success = 1
				}
				y.model.Learn(a, success, at)
				at = at.Add(time.Minute / perMinute)
			}
			saw(keys, string(rune('a'+a.Key)))
			saw(positions, string(rune('a'+a.Position)))
			saw(Place, string([]rune{'a' + rune(a.Key), 'a' + rune(a.Position)}))
			saw(Degree, a.Skills()[1].Value)
		}
		if minutes += Session; !out.Reached {
			out.Minutes = minutes
			out.Reached = y.learner.Level(y.asks, at) >= Goal
		}
		out.Level = y.learner.Level(y.asks, at)
	}
	for kind, values := range seen { // and until the end of the year
		for _, last := range values {
			out.Unseen[kind] = max(out.Unseen[kind], days-1-max(last, settling))
		}
	}
	return out
}

// Loss is the mean log loss of predictions, in nats.
func Loss(guesses []Guess) float64 {
	sum := 0.0
	for _, g := range guesses {
		p := min(0.999, max(0.001, g.P))
		if !g.Well {
			p = 1 - p
		}
		sum -= math.Log(p)
	}
	return sum / float64(len(guesses))
}

// Brier is the mean square of how far predictions were off (Brier 1950).
func Brier(guesses []Guess) float64 {
	sum := 0.0
	for _, g := range guesses {
		x := 0.0
		if g.Well {
			x = 1
		}
		sum += (x - g.P) * (x - g.P)
	}
	return sum / float64(len(guesses))
}
