package learner

import (
	"math"
	"math/rand/v2"
	"time"

	"undaris/core/planner"
)

// Stages is one who learns in steps: exercise adds up unseen, and what can be done rises from one plateau to the next. A thing done
// again at once teaches little, something else in between much (contextual interference: Shea and Morgan 1979; of musicians Carter and
// Grahn 2016). Shapes that are alike get in each other's way for a while after one of them was played. Within an evening the hand tires.
// Days are missed, and now and then two weeks.
type Stages struct {
	rng     *rand.Rand
	done    map[trace]float64 // what adds up
	lost    map[trace]time.Time
	last    []trace // what was played lately, to the letter
	played  map[trace]time.Time
	general float64
	steps   float64 // how high a step is
	tempo   float64 // how quickly this one gets there
	gone    map[int]bool
	day     int
	first   time.Time
}

// What of exercise stays: days in which half of what is above the plateau below is gone.
const stageHalf = 30

// NewStages makes the learner of a seed.
func NewStages(seed uint64) *Stages {
	rng := rand.New(rand.NewPCG(seed, 67))
	l := &Stages{rng: rng, done: map[trace]float64{}, lost: map[trace]time.Time{}, played: map[trace]time.Time{}, general: -1.7 + 0.4*rng.NormFloat64(), steps: 0.75 + 0.15*rng.NormFloat64(), tempo: math.Exp(0.3 * rng.NormFloat64()), gone: map[int]bool{}, day: -1}
	for from := 20 + rng.IntN(40); from < 400; from += 60 + rng.IntN(60) {
		for i := range 14 {
			l.gone[from+i] = true
		}
	}
	for day := range 400 {
		if rng.Float64() < 0.15 {
			l.gone[day] = true
		}
	}
	return l
}

// Comes tells that this one practises on a day.
func (l *Stages) Comes(day int) bool { return day%7 < 5 && !l.gone[day] }

// stairs rise from plateau to plateau: slowly along one, quickly up to the next.
func stairs(x float64) float64 {
	step := math.Floor(x)
	within := x - step
	return step + within*within*within*(within*(6*within-15)+10)
}

// Of what adds up: the place, the shape, the degree.
var stageWeights = map[int]float64{0: 1, 1: 0.5, 2: 0.8}

func stageParts(a planner.Ask) [3]trace {
	p := parts(a)
	return [3]trace{p[2], p[1], p[3]}
}

// have is what of a thing there is by a time: above the plateau below it fades.
func (l *Stages) have(t trace, at time.Time) float64 {
	x := l.done[t]
	seen, was := l.lost[t]
	if !was {
		return x
	}
	days := max(0, at.Sub(seen).Hours()/24)
	floor := math.Floor(x)
	return floor + (x-floor)*math.Exp2(-days/stageHalf)
}

// crossed is how much similar shapes that were played lately are in the way.
func (l *Stages) crossed(a planner.Ask, at time.Time) (cost float64) {
	for _, near := range []trace{{a.Key, a.Position - 1, ""}, {a.Key, a.Position + 1, ""}, {(a.Key + 1) % 12, a.Position, ""}, {(a.Key + 11) % 12, a.Position, ""}} {
		if seen, ok := l.played[near]; ok {
			cost += 0.35 * math.Exp2(-max(0, at.Sub(seen).Minutes())/60) / (1 + l.have(near, at))
		}
	}
	return cost
}

func (l *Stages) odds(a planner.Ask, at time.Time) float64 {
	sum := l.general + 0.4*easy[a.Key] + 0.3*[]float64{1.2, 0.2, 0, -0.2, 0}[a.Position]
	for i, t := range stageParts(a) {
		sum += l.steps * stageWeights[i] * stairs(l.have(t, at))
	}
	return sum
}

// Chance is how likely an ask succeeds when this one is rested and nothing is in the way.
func (l *Stages) Chance(a planner.Ask, at time.Time) float64 { return logistic(l.odds(a, at)) }

// Try plays an ask.
func (l *Stages) Try(a planner.Ask, at time.Time) bool {
	if day := at.YearDay() + 400*at.Year(); day != l.day {
		l.day, l.first, l.last = day, at, nil
	}
	tired := max(0, at.Sub(l.first).Minutes()-12) / 20
	well := l.rng.Float64() < logistic(l.odds(a, at)-l.crossed(a, at)-0.8*tired)
	whole := parts(a)[0]
	between := 6.0 // other things since this one
	for i := len(l.last) - 1; i >= 0 && i >= len(l.last)-6; i-- {
		if l.last[i] == whole {
			between = float64(len(l.last) - 1 - i)
			break
		}
	}
	lesson := l.tempo * 0.055 * (0.35 + 0.65*min(1, between/4)) * (1 - 0.4*min(1, tired))
	p := l.Chance(a, at)
	lesson *= 0.4 + 2.4*p*(1-p)
	for i, t := range stageParts(a) {
		rate := []float64{1, 0.45, 0.12}[i]
		l.done[t] = min(4, l.have(t, at)+rate*lesson)
		l.lost[t] = at
	}
	l.last = append(l.last, whole)
	l.played[trace{a.Key, a.Position, ""}] = at
	return well
}
