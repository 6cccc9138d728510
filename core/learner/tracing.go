package learner

import (
	"math"
	"math/rand/v2"
	"time"

	"undaris/core/planner"
)

// Tracing is one whose memory is traces: whatever is played leaves one, in what is played to the letter, in the shape under the
// hand and in the place on the neck, and each fades by a power of its age (Anderson and Schooler 1991). A trace that is laid while
// the memory is fresh fades faster (Pavlik and Anderson 2005): so what is spaced lasts. Hours without practice count less than
// those with it. A thing succeeds when all its traces together rise above a threshold.
type Tracing struct {
	rng       *rand.Rand
	traces    map[trace]*memory
	threshold float64
	ease      map[trace]float64 // what this one finds easy
	quick     float64
	day       int
	mood      float64
}

// trace is what a trace is of: some of an ask's parts, the others are −1 or "".
type trace struct {
	key, position int
	degree        string
}

// memory is the traces of one thing.
type memory struct {
	at, decay []float64 // hours of this one's own, and powers
	// What was worked out last.
	when, active float64
}

// Of the sum: what is played to the letter, its shape, its place, its degree in any place.
var traceWeights = [4]float64{0.5, 0.45, 0.5, 0.2}

const (
	slowHours   = 0.03 // that an hour without practice is, of one with it
	decayFresh  = 0.2  // how much faster a trace fades for a memory that is fresh
	decayLeast  = 0.17
	sharpness   = 1.1  // logistic noise
	firstLesson = 0.35 // of a success, that a failure teaches
)

// NewTracing makes the learner of a seed.
func NewTracing(seed uint64) *Tracing {
	rng := rand.New(rand.NewPCG(seed, 61))
	l := &Tracing{rng: rng, traces: map[trace]*memory{}, ease: map[trace]float64{}, threshold: 4 + 0.4*rng.NormFloat64(), quick: math.Exp(0.25 * rng.NormFloat64()), day: -1}
	for _, a := range planner.Everything() { // what this one finds easy is so whatever is asked first
		for _, t := range parts(a) {
			l.natural(t)
		}
	}
	return l
}

// parts are the traces that an ask leaves.
func parts(a planner.Ask) [4]trace {
	degree := a.Degree
	if a.Down {
		degree += " down"
	}
	return [4]trace{{a.Key, a.Position, degree}, {-1, a.Position, degree}, {a.Key, a.Position, ""}, {-1, -1, degree}}
}

// hours is this one's own time: practice is an hour or so of a day.
func hours(at time.Time) float64 {
	days := at.Sub(time.Date(2026, 1, 1, 0, 0, 0, 0, time.UTC)).Hours() / 24
	whole := math.Floor(days)
	return whole*24*slowHours + (days-whole)*24*slowHours
}

// activation is the logarithm of all that is left of the traces of one thing, from 0 where there is none.
func (m *memory) activation(now float64) float64 {
	if m == nil {
		return 0
	}
	if m.when == now {
		return m.active
	}
	sum := 0.0
	for i, at := range m.at {
		sum += math.Pow(max(0.01, now-at), -m.decay[i])
	}
	m.when, m.active = now, math.Log1p(sum)
	return m.active
}

func (l *Tracing) natural(t trace) float64 {
	x, known := l.ease[t]
	if !known {
		x = 0.22 * l.rng.NormFloat64()
		switch {
		case t.key >= 0 && t.degree == "":
			x = 0.35*easy[t.key] + 0.15*[]float64{1.5, 0.3, 0, -0.3, 0}[t.position] + 0.2*l.rng.NormFloat64()
		case t.key < 0 && t.position < 0:
			x = map[string]float64{"root": 0.4, "third": 0, "fifth": 0, "seventh": -0.2, "root down": 0.1, "third down": -0.3, "fifth down": -0.3, "seventh down": -0.5}[t.degree]
		}
		l.ease[t] = x
	}
	return x
}

func (l *Tracing) odds(a planner.Ask, at time.Time) float64 {
	now := hours(at)
	sum := -l.threshold
	for i, t := range parts(a) {
		sum += traceWeights[i]*l.traces[t].activation(now) + 0.5*l.natural(t)
	}
	return sum / sharpness
}

// Chance is how likely an ask succeeds, whatever the mood.
func (l *Tracing) Chance(a planner.Ask, at time.Time) float64 { return logistic(l.odds(a, at)) }

// Try plays an ask.
func (l *Tracing) Try(a planner.Ask, at time.Time) bool {
	if day := at.YearDay() + 400*at.Year(); day != l.day {
		l.day, l.mood = day, 0.3*l.rng.NormFloat64()
	}
	well := l.rng.Float64() < logistic(l.odds(a, at)+l.mood)
	now := hours(at)
	for _, t := range parts(a) {
		m := l.traces[t]
		if m == nil {
			m = &memory{when: -1}
			l.traces[t] = m
		}
		fresh := m.activation(now)
		decay := decayLeast + decayFresh*math.Expm1(fresh/4)/l.quick
		if !well {
			decay += 0.25 * (1 - firstLesson)
		}
		m.at, m.decay, m.when = append(m.at, now), append(m.decay, min(1.5, decay)), -1
	}
	return well
}

// Comes tells that this one practises on a day: on five of seven.
func (l *Tracing) Comes(day int) bool { return day%7 < 5 }
