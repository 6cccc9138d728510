package neck

import (
	"math"
	"slices"
)

// Grip finds fingers for places that are held together: each finger on one place,
// or laid flat over one fret; no finger crosses another; what a flat finger
// covers sounds there. Open strings have finger 0. The reach must not be wider
// than half as much again as the hand's comfort. bends says by how many quarter
// tones each is bent while the others hold; nil is none. ok is false when no hand
// can hold it.
func (in *Instrument) Grip(places []Placement, bends []int, hand Hand) (fingers []int, ok bool) {
	low, high := 0, 0
	for i, p := range places {
		if slices.ContainsFunc(places[:i], func(q Placement) bool { return q.String == p.String }) {
			return nil, false
		}
		if p.Fret > 0 {
			if low == 0 || p.Fret < low {
				low = p.Fret
			}
			high = max(high, p.Fret)
		}
	}
	if in.Reach(low, high) > 1.5*hand.Comfort {
		return nil, false
	}
	now := make([]int, len(places))
	best := math.Inf(1)
	var put func(i int, cost float64)
	put = func(i int, cost float64) {
		if cost >= best {
			return
		}
		if i == len(places) {
			best, fingers = cost, slices.Clone(now)
			return
		}
		if places[i].Fret == 0 {
			now[i] = 0
			put(i+1, cost)
			return
		}
		for finger := 1; finger <= 4; finger++ {
			if now[i] = finger; !in.gripped(places, now, i) {
				continue
			}
			if bent := in.bentWhileHeld(places, now, bends, i); bent < cannot {
				put(i+1, cost+gripCost(places, now, i, low)+bent/stretchOfFret)
			}
		}
	}
	put(0, 0)
	return fingers, fingers != nil
}

// bentWhileHeld is the cost of bending the last place while those before it hold: no finger that bends lies on two strings.
func (in *Instrument) bentWhileHeld(places []Placement, fingers, bends []int, last int) float64 {
	if bends == nil {
		return 0
	}
	for i, f := range fingers[:last] {
		if f > 0 && f == fingers[last] && bends[i] != bends[last] {
			return cannot
		}
	}
	return in.bend(Touch{Placement: places[last], Finger: fingers[last]}, bends[last])
}

// stretchOfFret is about how many millimetres of stretch a finger off its fret costs.
const stretchOfFret = 30

// gripped tells whether the finger of the last place agrees with those before.
func (in *Instrument) gripped(places []Placement, fingers []int, last int) bool {
	p, f := places[last], fingers[last]
	for i, q := range places[:last] {
		g := fingers[i]
		switch {
		case g == 0:
		case g == f && q.Fret != p.Fret:
			return false
		case g < f && q.Fret > p.Fret || g > f && q.Fret < p.Fret:
			return false
		case g != f && q.Fret == p.Fret && (g < f) != (q.String > p.String): // the lower finger on the lower string
			return false
		case g == f && g != 1 && max(q.String-p.String, p.String-q.String) > 1: // only the first lies flat over strings between
			return false
		}
	}
	// A flat finger stops the strings between; none of them may sound lower.
	for i := range last + 1 {
		for j := range i {
			if fingers[i] == 0 || fingers[i] != fingers[j] {
				continue
			}
			a, b := min(places[i].String, places[j].String), max(places[i].String, places[j].String)
			for _, r := range places[:last+1] {
				if r.String > a && r.String < b && r.Fret < places[i].Fret {
					return false
				}
			}
		}
	}
	return true
}

// gripCost prefers a finger a fret, and fingers of their own to flat ones.
func gripCost(places []Placement, fingers []int, last, low int) float64 {
	off := float64(places[last].Fret - low - fingers[last] + 1)
	cost := math.Abs(off)
	for i := range last {
		if fingers[i] == fingers[last] && fingers[i] > 0 {
			cost += 0.6
		}
	}
	return cost
}
