package planner

import (
	"fmt"
	"math"
	"math/rand/v2"
	"time"
)

// Learner is a simulated player who learns and forgets. What makes one up is hidden
// from the model, and is not of the model's form: each key in each position has a
// strength of its own, on top of what keys and positions are like for guitarists;
// days differ by mood; what was learned in a hurry fades.
type Learner struct {
	rng     *rand.Rand
	skill   map[Skill]*habit
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
var pace = map[Kind]float64{Place: 0.014, Degree: 0.0018, Chord: 0.0002, Device: 0.0002, Tempo: 0.0002}

// easy is how much easier each key is on a guitar, from C in half steps.
var easy = [12]float64{0.4, -0.6, 0.5, -0.4, 0.6, 0.1, -0.7, 0.6, -0.5, 0.6, -0.1, -0.2}

// NewLearner makes the learner of a seed.
func NewLearner(seed uint64) *Learner {
	rng := rand.New(rand.NewPCG(seed, 41))
	l := &Learner{rng: rng, skill: map[Skill]*habit{}, quick: math.Exp(0.35 * rng.NormFloat64()), faith: math.Exp(0.3 * rng.NormFloat64()), general: -1.3 + 0.5*rng.NormFloat64(), day: -1}
	var positions [Positions]float64
	for i := range positions {
		positions[i] = []float64{0.6, 0, -0.2, -0.3, -0.1}[i] + 0.3*rng.NormFloat64()
	}
	for key := range 12 {
		own := easy[key] + 0.3*rng.NormFloat64()
		for p := range Positions {
			l.set(Skill{Kind: Place, Key: key, Position: p}, own+positions[p]+0.5*rng.NormFloat64())
		}
	}
	for i, d := range Degrees {
		for _, way := range []string{"up", "down"} {
			x := []float64{0.7, 0, -0.1, -0.3}[i] + 0.3*rng.NormFloat64()
			if way == "down" {
				x -= 0.5
			}
			l.set(Skill{Kind: Degree, Value: d + " " + way}, x)
		}
	}
	return l
}

func (l *Learner) set(s Skill, x float64) { l.skill[s] = &habit{floor: x, value: x, half: 4 * l.faith} }

// habit finds a strength; one that was never met is drawn now.
func (l *Learner) habit(s Skill) *habit {
	if l.skill[s] == nil {
		x := 0.4 * l.rng.NormFloat64()
		if s.Kind == Tempo {
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
func (l *Learner) Odds(a Ask, at time.Time) float64 {
	odds := l.general
	for _, s := range a.Skills() {
		odds += l.habit(s).at(at)
	}
	return odds
}

// Try plays an ask, learns from it, and tells whether it went well.
func (l *Learner) Try(a Ask, at time.Time) bool {
	if day := at.YearDay() + 400*at.Year(); day != l.day {
		l.day, l.mood = day, 0.35*l.rng.NormFloat64()
	}
	p := logistic(l.Odds(a, at) + l.mood)
	well := l.rng.Float64() < p
	lesson := l.quick * (0.25 + 3*p*(1-p)) // what is neither too easy nor too hard teaches most
	if well {
		lesson *= 1.3
	}
	for _, s := range a.Skills() {
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
		for _, n := range s.neighbours() {
			l.habit(n).learn(0.2*worth, at)
		}
	}
	return well
}

func (h *habit) learn(worth float64, at time.Time) {
	now := h.at(at)
	h.value, h.seen = now+worth*max(0, cap-now), at
}

// Level is how likely this one succeeds at what is asked on average, of a list.
func (l *Learner) Level(asks []Ask, at time.Time) float64 {
	sum := 0.0
	for _, a := range asks {
		sum += logistic(l.Odds(a, at))
	}
	return sum / float64(len(asks))
}
