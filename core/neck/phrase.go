package neck

import "math"

// Ask is a note of a phrase that wants a place and a finger.
type Ask struct {
	Places []Placement
	Same   bool // on the string of the note before: hammered, pulled or slid to
	Slid   bool // with the finger of the note before
	With   bool // sounds together with the note before
	Under  bool // the note before is held while it sounds
	Rest   bool // the hand has time to move before it
	Finger int  // the one that takes it; 0 is any
	Bend   int  // how far it is bent, in quarter tones
	// Frets above and below it that other fingers take while this one holds: of trills, turns, hammered doubles.
	Above, Below int
}

// cannot is the cost of what a finger does not do, in millimetres of stretch: the hand rather moves from one
// end of the neck to the other.
const cannot = 1000

// bending is what it costs each finger to bend, by how far. A whole step or more takes the third finger with the others
// behind it, or the second with the first; the first finger curls, or bends a half step; the little finger, backed by the
// others, bends a half step where the hand would have to move. So methods for lead guitar teach it.
var bending = [...]struct {
	most    int // quarter tones
	fingers [5]float64
}{
	{1, [5]float64{1: 0, 2: 0, 3: 0, 4: 110}},
	{3, [5]float64{1: 20, 2: 8, 3: 0, 4: 170}},
	{99, [5]float64{1: cannot, 2: 25, 3: 0, 4: cannot}},
}

// adorned is the cost of what a touch does beside being put down.
func (in *Instrument) adorned(t Touch, ask Ask) float64 {
	cost := in.bend(t, ask.Bend)
	if ask.Above > 0 && !t.Reaches(ask.Above) || ask.Below > 0 && !t.Reaches(-ask.Below) {
		cost += cannot
	}
	return cost
}

// Reaches tells whether another finger of the hand, as it lies, takes the fret so many above a touch, or below where it
// is less than none, while this finger holds: fingers come closer together than one a fret as they like, and reach a fret
// below the hand with the first and one above with the fourth. An open string needs no finger below it.
func (t Touch) Reaches(frets int) bool {
	to := t.Fret + frets
	switch {
	case frets < 0 && to == 0:
		return true
	case t.Hand == 0 || to < t.Hand-1 || to > t.Hand+4:
		return false
	case frets < 0:
		return t.Finger > 1
	}
	return t.Finger < 4
}

// Can tells whether a hand does what a touch asks for, coming from the touch before: a finger that bends so far, one that
// is left for what adorns it, and one that stays on the note that is held.
func (in *Instrument) Can(before, t Touch, ask Ask) bool {
	return in.adorned(t, ask) < cannot && !ask.letsGo(before, t)
}

// letsGo tells that the note before, which is to be held, cannot be.
func (ask Ask) letsGo(before, t Touch) bool {
	return ask.Under && (!before.holds(t) || ask.Bend > 0 && before.Finger == t.Finger && before.Finger > 0)
}

// bend is the cost of bending with a touch. Wound strings bend at a price that grows with the string.
func (in *Instrument) bend(t Touch, quarters int) float64 {
	if quarters == 0 {
		return 0
	}
	if t.Finger == 0 {
		return cannot
	}
	cost := 0.0
	for _, b := range bending {
		if quarters <= b.most {
			cost = b.fingers[t.Finger]
			break
		}
	}
	if over := quarters - in.Bends(t.Placement); over > 0 {
		cost += float64(20 * over)
	}
	return cost
}

// skipped is the cost of each string jumped over, in millimetres of stretch.
const skipped = 4

// holds tells that a touch can stay while another is put down on another string: fingers do not cross, and come closer
// together than one a fret, or a fret further apart.
func (t Touch) holds(other Touch) bool {
	if t.Finger == 0 || other.Finger == 0 {
		return true
	}
	low, high := t, other
	if high.Finger < low.Finger {
		low, high = high, low
	}
	fingers, frets := high.Finger-low.Finger, high.Fret-low.Fret
	if frets == 0 { // under one finger, or the lower one on the lower string
		return fingers == 0 || low.String > high.String
	}
	return fingers > 0 && frets > 0 && frets <= fingers+1
}

// FingerPhrase is Finger for notes that go up and down as they like. Notes that
// sound together take strings and fingers of their own, or lie under one finger
// at one fret. It is the exact minimum of the same cost, plus a little for every
// string jumped over; after a rest the hand moves for half. It is nil when no
// choice satisfies what is asked.
func (in *Instrument) FingerPhrase(asks []Ask, hand Hand) ([]Touch, float64) {
	return search(asks, func(ask Ask, _ int, before []state) []state {
		return in.layer(ask.Places, ask, before, hand, func(a, b Touch) float64 { return in.phraseStep(ask, a, b, hand) })
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
	if ask.letsGo(a, b) {
		cost += cannot
	}
	if math.IsInf(cost, 1) && ask.Rest && a.Finger > 0 && b.Finger > 0 && a.Hand != b.Hand { // it was off the strings: no finger passes another
		cost = w.moving + w.move*in.Reach(min(a.Hand, b.Hand), max(a.Hand, b.Hand))
	}
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
