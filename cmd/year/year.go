package main

import (
	"math"
	"math/rand/v2"
	"slices"
	"time"

	"undaris/core/learner"
	"undaris/core/planner"
)

// A simulated year: how learners fare who practise by one policy or another.
const (
	Session   = 20 // minutes a day that one practises
	perItem   = 3  // minutes
	perMinute = 3  // trials
	Days      = 365
)

// Marks are the minutes after which levels are looked at.
var Marks = []int{300, 900, 3000}

// Guess is one prediction with what came of it, and what somebody who knew the learner would have said.
type Guess struct {
	P, Usual, Known float64
	Well            bool
}

// Year is what became of one learner.
type Year struct {
	Level, Worst []float64            // at each of [Marks]: of everything, and of its worst tenth
	Unseen       map[planner.Kind]int // the most days that a place, a key, a position or a degree went unseen, after the first weeks
	Guesses      []Guess
}

// Kinds of what may starve, beside planner's own.
const (
	keys      planner.Kind = "key"
	positions planner.Kind = "position"
)

// settling is how many days pass before starvation is counted.
const settling = 60

// running is how many of the last outcomes a running mean is made of.
const running = 50

// Live has a learner practise for so many days by a policy.
func Live(seed uint64, kind learner.Kind, policy Policy, p planner.Params, days int) Year {
	l, model, asks := kind.New(seed), planner.New(p), planner.Everything()
	picking := policy.New(asks, rand.New(rand.NewPCG(seed, 47)), l, model)
	out := Year{Unseen: map[planner.Kind]int{}}
	seen := map[planner.Kind]map[string]int{}
	saw := func(day int, kind planner.Kind, value string) {
		if seen[kind] == nil {
			seen[kind] = map[string]int{}
		}
		if last, ok := seen[kind][value]; ok && day > settling {
			out.Unseen[kind] = max(out.Unseen[kind], day-max(last, settling))
		}
		seen[kind][value] = day
	}
	start := time.Date(2026, 1, 5, 18, 0, 0, 0, time.UTC)
	minutes, usual := 0, 0.5
	for day := 0; day < days && len(out.Level) < len(Marks); day++ {
		if !l.Comes(day) {
			continue
		}
		at := start.AddDate(0, 0, day)
		for _, a := range picking.Pick(at, Session*perMinute) {
			guess, _ := model.Predict(a, at)
			known := l.Chance(a, at)
			well := l.Try(a, at)
			out.Guesses = append(out.Guesses, Guess{guess, usual, known, well})
			success := 0.0
			if well {
				success = 1
			}
			usual += (success - usual) / running
			model.Learn(a, success, at)
			picking.Told(a, well, at)
			at = at.Add(time.Minute / perMinute)
			saw(day, keys, string(rune('a'+a.Key)))
			saw(day, positions, string(rune('a'+a.Position)))
			saw(day, planner.Place, string([]rune{'a' + rune(a.Key), 'a' + rune(a.Position)}))
			saw(day, planner.Degree, a.Skills()[1].Value)
		}
		minutes += Session
		if minutes >= Marks[len(out.Level)] {
			// By the next evening: what is left of it then counts.
			mean, worst := learner.Level(l, asks, start.AddDate(0, 0, day+1))
			out.Level, out.Worst = append(out.Level, mean), append(out.Worst, worst)
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
func Brier(guesses []Guess, said func(Guess) float64) float64 {
	sum := 0.0
	for _, g := range guesses {
		x := 0.0
		if g.Well {
			x = 1
		}
		sum += (x - said(g)) * (x - said(g))
	}
	return sum / float64(len(guesses))
}

// Tenth is a tenth of what was said, with what came true of it.
type Tenth struct {
	Said, True float64
	Times      int
}

// Calibration is how what was said came true, by tenths.
func Calibration(guesses []Guess) (tenths [10]Tenth) {
	for _, g := range guesses {
		t := &tenths[min(9, int(g.P*10))]
		t.Times++
		t.Said += g.P
		if g.Well {
			t.True++
		}
	}
	for i := range tenths {
		tenths[i].Said /= max(1, float64(tenths[i].Times))
		tenths[i].True /= max(1, float64(tenths[i].Times))
	}
	return tenths
}

// paired is the mean of what one list has more than another, and the half width of its 95 % interval.
func paired(a, b []float64) (more, half float64) {
	d := slices.Clone(a)
	for i := range d {
		d[i] -= b[i]
		more += d[i] / float64(len(d))
	}
	v := 0.0
	for _, x := range d {
		v += (x - more) * (x - more)
	}
	return more, 1.96 * math.Sqrt(v/float64(max(1, len(d)-1))/float64(len(d)))
}
