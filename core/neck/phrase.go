package neck

import "math"

// Ask is a note of a phrase that wants a place and a finger.
type Ask struct {
	Places []Placement
	Same   bool // on the string of the note before: hammered, pulled or slid to
	Slid   bool // with the finger of the note before
	With   bool // sounds together with the note before
	Rest   bool // the hand has time to move before it
}

// skipped is the cost of each string jumped over, in millimetres of stretch.
const skipped = 4

// FingerPhrase is Finger for notes that go up and down as they like. Notes that
// sound together take strings and fingers of their own, or lie under one finger
// at one fret. It is the exact minimum of the same cost, plus a little for every
// string jumped over; after a rest the hand moves for half. It is nil when no
// choice satisfies what is asked.
func (in *Instrument) FingerPhrase(asks []Ask, hand Hand) ([]Touch, float64) {
	return search(asks, func(ask Ask, _ int, before []state) []state {
		return in.layer(ask.Places, before, hand, func(a, b Touch) float64 { return in.phraseStep(ask, a, b, hand) })
	})
}

func (in *Instrument) phraseStep(ask Ask, a, b Touch, hand Hand) float64 {
	w := &weights[hand.Habit]
	switch {
	case ask.Same && a.String != b.String:
		return math.Inf(1)
	case ask.With:
		if a.String == b.String || a.Finger != 0 && b.Finger != 0 && (a.Hand != b.Hand || a.Finger == b.Finger && a.Fret != b.Fret) {
			return math.Inf(1)
		}
		if a.Finger > 0 && a.Finger == b.Finger || b.Finger == 0 && b.Hand == a.Hand {
			return 0
		}
	}
	cost := in.step(a, b, hand)
	if math.IsInf(cost, 1) {
		if !ask.Slid || a.String != b.String || b.Finger == 0 {
			return cost
		}
		cost = 0
	}
	moved := a.Hand != b.Hand && a.Hand != 0 && b.Hand != 0
	switch {
	case ask.Slid && a.Finger == b.Finger && a.Finger != 0:
		// The slide carries the hand along.
		return w.moving/2 + w.move*in.Reach(min(a.Hand, b.Hand), max(a.Hand, b.Hand))/2
	case ask.Slid:
		cost += w.slide
	case ask.Rest && moved:
		cost /= 2
	}
	if jump := max(a.String-b.String, b.String-a.String); jump > 1 {
		cost += skipped * float64(jump-1)
	}
	return cost
}
