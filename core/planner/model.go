package planner

import (
	"math"
	"time"
)

// Params are what the model is fitted by; see [Fitted].
type Params struct {
	Base   float64 // log odds of success where nothing is known
	Spread float64 // of a skill that is not known: the variance of its strength
	Drift  float64 // variance that a day without practice adds
	Noise  float64 // variance that practising adds, since it changes the player
	Learn  float64 // strength that practising once adds, where half of it succeeds
	Half   float64 // days in which a new strength fades by half
	Grow   float64 // how much longer it lasts after a success, when it was due
	Shrink float64 // what is left of that after a failure, of 1
	Borrow float64 // part of what a place gains that its neighbours gain
	Own    float64 // variance of what is asked to the letter, where it is not known
}

// Fitted are the parameters found on simulated learners (cmd/year -fit).
var Fitted = Params{Base: -2.7, Spread: 0.3, Drift: 0.0000052, Noise: 0.00004, Learn: 0.0009, Half: 30, Grow: 3.4, Shrink: 0.8, Borrow: 0.2, Own: 0.0088}

// Strength is what is known of a skill.
type Strength struct {
	Mean, Var float64
	Half      float64 // days
	Seen      time.Time
	Trials    int
	Row       int // days in a row on which it went well when it was asked again
}

// Model is the picture of one player. Strengths are added up, in log odds: a Rasch
// model (Rasch 1960) of several factors, followed by an extended Kalman filter as
// ratings of chess players are (Glickman 1999). Forgetting by half-lives that grow
// with spaced success follows Settles and Meeder 2016.
type Model struct {
	p      Params
	skills map[Skill]*Strength
}

// New begins a picture in which nothing is known.
func New(p Params) *Model { return &Model{p, map[Skill]*Strength{}} }

// now is a strength as it is by a time. A clock that went backwards changes nothing.
func (m *Model) now(s Skill, at time.Time) Strength {
	k, ok := m.skills[s]
	if !ok {
		return Strength{Var: m.p.spread(s), Half: m.p.Half}
	}
	days := max(0, at.Sub(k.Seen).Hours()/24)
	now := *k
	if now.Mean > 0 {
		now.Mean *= math.Exp2(-days / k.Half)
	}
	now.Var = min(m.p.spread(s), k.Var+m.p.Drift*days)
	return now
}

// spread is the variance of a skill that is not known.
func (p Params) spread(s Skill) float64 {
	if s.Kind == Whole {
		return p.Own
	}
	return p.Spread
}

// Strength is what is known of a skill by a time.
func (m *Model) Strength(s Skill, at time.Time) Strength { return m.now(s, at) }

// Predict is how likely an ask succeeds, and how uncertain that is: the standard
// deviation of its log odds.
func (m *Model) Predict(a Ask, at time.Time) (p, sd float64) {
	odds, v := m.p.Base, 0.0
	for _, s := range a.Skills() {
		k := m.now(s, at)
		odds += k.Mean
		v += k.Var
	}
	return logistic(odds / math.Sqrt(1+math.Pi*v/8)), math.Sqrt(v)
}

// Learn takes how an ask went: 1 is success, 0 failure, what lies between is half of
// one and half of the other.
func (m *Model) Learn(a Ask, success float64, at time.Time) {
	skills := a.Skills()
	now := make([]Strength, len(skills))
	odds, v := m.p.Base, 0.0
	for i, s := range skills {
		now[i] = m.now(s, at)
		now[i].Var = min(m.p.spread(s), now[i].Var+m.p.Noise)
		odds += now[i].Mean
		v += now[i].Var
	}
	p := logistic(odds)
	h := p * (1 - p)
	for i, s := range skills {
		k := now[i]
		gain := k.Var * h / (h*h*v + h)
		delta := gain*(success-p) + m.p.Learn*4*h*(0.5+success/2)
		k.Mean += delta
		k.Var = max(0.001, k.Var-gain*h*k.Var)
		days := 0.0
		if old, ok := m.skills[s]; ok {
			days = max(0, at.Sub(old.Seen).Hours()/24)
		}
		switch {
		case success < 0.5:
			k.Row = 0
		case k.Trials == 0 || days > 0.5:
			k.Row++
		}
		if success >= 0.5 {
			k.Half = min(365, k.Half*(1+m.p.Grow*min(1, days/k.Half)))
		} else {
			k.Half = max(m.p.Half, k.Half*m.p.Shrink)
		}
		if k.Seen.Before(at) {
			k.Seen = at
		}
		k.Trials++
		m.skills[s] = &k
		for _, n := range s.Neighbours() {
			if m.skills[n] == nil {
				m.skills[n] = &Strength{Var: m.p.Spread, Half: m.p.Half, Seen: at}
			}
			m.skills[n].Mean += m.p.Borrow * delta
		}
	}
}

func logistic(x float64) float64 { return 1 / (1 + math.Exp(-x)) }
