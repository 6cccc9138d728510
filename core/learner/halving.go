package learner

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"time"

	"undaris/core/planner"
)

// Halving is one whose strengths fade by half-lives: each key in each position has a strength of its own, on top of what keys and
// positions are like for guitarists; days differ by mood; what was learned in a hurry fades.
type Halving struct {
	rng     *rand.Rand
	skill   map[planner.Skill]*habit
	quick   float64 // how quickly this one learns
	faith   float64 // how well this one remembers
	general float64
	mood    float64
	day     int
}

// habit is one hidden strength.
type habit struct {
	floor, value float64
	half         float64 // days
	seen         time.Time
}

const cap = 2.2 // that a strength cannot pass

// pace is how much one try teaches of each kind of skill: what is in every try is
// learned slowly.
var pace = map[planner.Kind]float64{planner.Place: 0.014, planner.Degree: 0.0018, planner.Chord: 0.0002, planner.Device: 0.0002, planner.Tempo: 0.0002}

// easy is how much easier each key is on a guitar, from C in half steps.
var easy = [12]float64{0.4, -0.6, 0.5, -0.4, 0.6, 0.1, -0.7, 0.6, -0.5, 0.6, -0.1, -0.2}

// NewHalving makes the learner of a seed.
func NewHalving(seed uint64) *Halving {
	rng := rand.New(rand.NewPCG(seed, 41))
	l := &Halving{rng: rng, skill: map[planner.Skill]*habit{}, quick: math.Exp(0.35 * rng.NormFloat64()), faith: math.Exp(0.3 * rng.NormFloat64()), general: -1.3 + 0.5*rng.NormFloat64(), day: -1}
	var positions [planner.Positions]float64
	for i := range positions {
		positions[i] = []float64{0.6, 0, -0.2, -0.3, -0.1}[i] + 0.3*rng.NormFloat64()
	}
	for key := range 12 {
		own := easy[key] + 0.3*rng.NormFloat64()
		for p := range planner.Positions {
			l.set(planner.Skill{Kind: planner.Place, Key: key, Position: p}, own+positions[p]+0.5*rng.NormFloat64())
		}
	}
	for i, d := range planner.Degrees {
		for _, way := range []string{"up", "down"} {
			x := []float64{0.7, 0, -0.1, -0.3}[i] + 0.3*rng.NormFloat64()
			if way == "down" {
				x -= 0.5
			}
			l.set(planner.Skill{Kind: planner.Degree, Value: d + " " + way}, x)
		}
	}
	return l
}

func (l *Halving) set(s planner.Skill, x float64) {
	l.skill[s] = &habit{floor: x, value: x, half: 4 * l.faith}
}

// habit finds a strength; one that was never met is drawn now.
func (l *Halving) habit(s planner.Skill) *habit {
	if l.skill[s] == nil {
		x := 0.4 * l.rng.NormFloat64()
		if s.Kind == planner.Tempo {
			var tempo int
			_, _ = fmt.Sscan(s.Value, &tempo)
			x = 0.5 - float64(tempo-80)/60
		}
		l.set(s, x)
	}
	return l.skill[s]
}

func (h *habit) at(t time.Time) float64 {
	if h.seen.IsZero() {
		return h.value
	}
	days := max(0, t.Sub(h.seen).Hours()/24)
	return h.floor + (h.value-h.floor)*math.Exp2(-days/h.half)
}

// Odds are the log odds of success, whatever the mood.
func (l *Halving) Odds(a planner.Ask, at time.Time) float64 {
	odds := l.general
	for _, s := range drawn(a) {
		odds += l.habit(s).at(at)
	}
	return odds
}

// Try plays an ask, learns from it, and tells whether it went well.
func (l *Halving) Try(a planner.Ask, at time.Time) bool {
	if day := at.YearDay() + 400*at.Year(); day != l.day {
		l.day, l.mood = day, 0.35*l.rng.NormFloat64()
	}
	p := logistic(l.Odds(a, at) + l.mood)
	well := l.rng.Float64() < p
	lesson := l.quick * (0.25 + 3*p*(1-p)) // what is neither too easy nor too hard teaches most
	if well {
		lesson *= 1.3
	}
	for _, s := range drawn(a) {
		h, worth := l.habit(s), lesson*pace[s.Kind]
		days := 0.0
		if !h.seen.IsZero() {
			days = at.Sub(h.seen).Hours() / 24
		}
		h.learn(worth, at)
		if well {
			h.half = min(400, h.half*(1+0.3*min(1, days/h.half)))
		}
		// Part of it lasts for good.
		h.floor += 0.12 * worth * (cap - h.floor) / cap
		for _, n := range s.Neighbours() {
			l.habit(n).learn(0.2*worth, at)
		}
	}
	return well
}

func (h *habit) learn(worth float64, at time.Time) {
	now := h.at(at)
	h.value, h.seen = now+worth*max(0, cap-now), at
}

// Chance is how likely an ask succeeds, whatever the mood.
func (l *Halving) Chance(a planner.Ask, at time.Time) float64 { return logistic(l.Odds(a, at)) }

// Comes tells that this one practises on a day: on five of seven.
func (l *Halving) Comes(day int) bool { return day%7 < 5 }

// worstTenth is the mean of the lowest tenth of a list.
func worstTenth(list []float64) (mean float64) {
	slices.Sort(list)
	n := max(1, len(list)/10)
	for _, x := range list[:n] {
		mean += x / float64(n)
	}
	return mean
}

// drawn are the skills that an ask draws on here: nothing is known to the letter.
func drawn(a planner.Ask) []planner.Skill {
	return slices.DeleteFunc(a.Skills(), func(s planner.Skill) bool { return s.Kind == planner.Whole })
}
