package neck

import (
	"math"

	"undaris/core/say"
)

// Hand is the player's hand.
type Hand struct {
	Comfort float64 // widest comfortable reach in millimetres
	Habit   Habit
}

// Habit is what a player rather does when a note is out of reach.
type Habit int

const (
	Stay  Habit = iota // stretch, and keep the hand in place
	Shift              // move, and keep the hand relaxed
)

// UsualHand reaches four frets anywhere and five from the fifth fret up.
var UsualHand = Hand{Comfort: 100, Habit: Stay}

// Habits lists the habits by their names.
var Habits = map[string]Habit{"stay": Stay, "shift": Shift}

// NewHand checks a comfort of 50 to 250 mm and a habit's name.
func NewHand(comfort float64, habit string) (Hand, error) {
	h, ok := Habits[habit]
	if !ok {
		return Hand{}, say.Errorf("%q is no habit of the hand; it is stay or shift", habit)
	}
	if !(comfort >= 50 && comfort <= 250) {
		return Hand{}, say.Errorf("a comfortable reach of %g mm; between 50 and 250 can be judged", comfort)
	}
	return Hand{comfort, h}, nil
}

// Touch is a placement with the finger on it: 1 to 4, 0 for an open string.
// Hand is the fret under the first finger, 0 while no finger has been put down.
type Touch struct {
	Placement
	Finger, Hand int
}

// weights of the fingering cost, in millimetres of stretch.
var weights = [...]struct {
	stretch   float64 // per mm outside one finger a fret
	move      float64 // per mm the hand moves
	moving    float64 // per move, however short
	beyond    float64 // per mm of span beyond comfort
	neighbour float64 // one finger on neighbouring strings at different frets
	roll      float64 // one finger on neighbouring strings at one fret
	swap      float64 // two fingers in turn on neighbouring strings at one fret
	slide     float64 // one finger on two frets of a string in turn
	weak      float64 // the fourth finger, where another would do
}{
	Stay:  {stretch: 1, move: 1.5, moving: 40, beyond: 2, neighbour: 90, roll: 6, swap: 12, slide: 90, weak: 1},
	Shift: {stretch: 3, move: 0.5, moving: 6, beyond: 6, neighbour: 90, roll: 6, swap: 12, slide: 90, weak: 1},
}

// Finger chooses, for notes played in order, one of the placements offered for
// each and a finger for it, at the least cost to the hand. Strings never go
// backwards (the string number never rises). One finger a fret is free; the
// first may reach one fret below its place and the fourth one above; the hand
// may move at any note; a higher fret on a string never takes a lower finger.
// The result is the exact minimum of the stated cost, by dynamic programming.
// It is nil when no choice keeps the strings in order.
func (in *Instrument) Finger(notes [][]Placement, hand Hand) ([]Touch, float64) {
	return search(notes, func(options []Placement, _ int, before []state) []state {
		return in.layer(options, Ask{}, before, hand, func(a, b Touch) float64 {
			if b.String > a.String {
				return math.Inf(1)
			}
			return in.step(a, b, hand)
		})
	})
}

// search finds the cheapest way through the layers that grow makes.
func search[T any](asks []T, grow func(ask T, i int, before []state) []state) ([]Touch, float64) {
	if len(asks) == 0 {
		return nil, 0
	}
	layers := make([][]state, len(asks))
	var before []state
	for i, ask := range asks {
		layers[i] = grow(ask, i, before)
		if before = layers[i]; len(before) == 0 {
			return nil, 0
		}
	}
	return trace(layers)
}

// state is one way to have played a note, with the least cost of getting there.
type state struct {
	Touch
	cost float64
	from int
}

// layer finds the cheapest way to each touch of a note that is asked for; before is nil for the
// first note, and step is the cost of coming from a touch of the note before.
func (in *Instrument) layer(options []Placement, ask Ask, before []state, hand Hand, step func(a, b Touch) float64) []state {
	first := before == nil
	out := make([]state, 0, len(options)*len(grips))
	add := func(t Touch) {
		s := state{Touch: t, cost: in.grip(t, hand) + in.adorned(t, ask), from: -1}
		if first {
			out = append(out, s)
			return
		}
		best := math.Inf(1)
		for i := range before {
			if before[i].cost >= best { // a step costs something or nothing
				continue
			}
			if c := before[i].cost + step(before[i].Touch, t); c < best {
				best, s.from = c, i
			}
		}
		if s.from >= 0 {
			s.cost += best
			out = append(out, s)
		}
	}
	for _, p := range options {
		if p.Fret > 0 {
			for _, g := range grips {
				if h := p.Fret - g.offset; h >= 1 && (ask.Finger == 0 || ask.Finger == g.finger) {
					add(Touch{p, g.finger, h})
				}
			}
			continue
		}
		seen := map[int]bool{}
		if first {
			add(Touch{p, 0, 0})
		}
		for _, b := range before {
			if !seen[b.Hand] {
				seen[b.Hand] = true
				add(Touch{p, 0, b.Hand})
			}
		}
	}
	return out
}

// grips are the frets a finger can take, counted from the first finger's fret.
var grips = []struct{ finger, offset int }{{1, 0}, {2, 1}, {3, 2}, {4, 3}, {1, -1}, {4, 4}}

// grip is the cost of a touch by itself.
func (in *Instrument) grip(t Touch, hand Hand) float64 {
	w := &weights[hand.Habit]
	var cost float64
	switch {
	case t.Finger == 1 && t.Fret < t.Hand:
		cost = w.stretch*in.Reach(t.Fret, t.Hand) + w.beyond*max(0, in.Reach(t.Fret, t.Hand+3)-hand.Comfort)
	case t.Finger == 4:
		cost = w.weak + w.beyond*max(0, in.Reach(t.Hand, t.Fret)-hand.Comfort)
		if t.Fret == t.Hand+4 {
			cost += w.stretch * in.Reach(t.Fret-1, t.Fret)
		}
	}
	return cost
}

// step is the cost of going from one touch to the next, infinite when it is ruled out.
func (in *Instrument) step(a, b Touch, hand Hand) float64 {
	w := &weights[hand.Habit]
	if b.Finger == 0 && b.Hand != a.Hand { // the hand stays put over an open string
		return math.Inf(1)
	}
	var cost float64
	if a.Hand != b.Hand && a.Hand != 0 && b.Hand != 0 {
		cost += w.moving + w.move*in.Reach(a.Hand, b.Hand)
	}
	if a.Finger == 0 || b.Finger == 0 {
		return cost
	}
	if apart := a.Fret - b.Fret; a.Hand == b.Hand && (apart > 4 || apart < -4) { // from below its place to above it: it moves
		cost += cannot
	}
	if beside := a.String == b.String+1 || a.String == b.String-1; beside && a.Fret == b.Fret && a.Finger != b.Finger {
		cost += w.swap
	}
	switch {
	case a.String == b.String && (a.Fret < b.Fret && a.Finger > b.Finger || a.Fret > b.Fret && a.Finger < b.Finger):
		return math.Inf(1)
	case a.Finger != b.Finger:
	case a.String == b.String && a.Fret != b.Fret:
		cost += w.slide
	case (a.String == b.String+1 || a.String == b.String-1) && a.Fret != b.Fret:
		cost += w.neighbour
	case a.String == b.String+1 || a.String == b.String-1:
		cost += w.roll
	}
	return cost
}

func trace(layers [][]state) ([]Touch, float64) {
	last := layers[len(layers)-1]
	if len(last) == 0 {
		return nil, 0
	}
	at := 0
	for i := range last {
		if last[i].cost < last[at].cost {
			at = i
		}
	}
	cost := last[at].cost
	out := make([]Touch, len(layers))
	for i := len(layers) - 1; i >= 0; i-- {
		out[i] = layers[i][at].Touch
		at = layers[i][at].from
	}
	return out, cost
}

// Span is how wide the hand lies.
type Span struct {
	Low, High   int     // frets
	Millimetres float64 // between them
	Comfortable bool    // within the hand's comfort
}

// Held are touches, from one to another, that the hand plays in one place.
type Held struct {
	From, To int // indexes, both included
	Span
}

// Held divides a fingering by the places of the hand. Open strings belong to the place before them, or to the first. A hand
// that reaches below its place at one time and above it at another turns between the two: there it is as wide as the wider
// of them, or as two notes that follow each other lie apart.
func (in *Instrument) Held(touches []Touch, hand Hand) (list []Held) {
	for i := 0; i < len(touches); {
		h := Held{From: i}
		place, j := 0, i
		for ; j < len(touches) && (place == 0 || touches[j].Hand == place || touches[j].Fret == 0); j++ {
			if t := touches[j]; t.Fret > 0 {
				place = t.Hand
			}
		}
		h.To, i = j-1, j
		h.Span = in.span(touches[h.From:j], place)
		h.Comfortable = math.Round(h.Millimetres) <= hand.Comfort // as it is told: the usual hand spans frets 5 to 9
		list = append(list, h)
	}
	return list
}

// span is the widest of touches in one place of the hand.
func (in *Instrument) span(touches []Touch, place int) (widest Span) {
	low, high, before := 0, 0, 0
	wider := func(a, b int) {
		if mm := in.Reach(a, b); a > 0 && mm > widest.Millimetres {
			widest = Span{Low: min(a, b), High: max(a, b), Millimetres: mm}
		}
	}
	for _, t := range touches {
		if t.Fret == 0 {
			before = 0
			continue
		}
		if low == 0 || t.Fret < low {
			low = t.Fret
		}
		high = max(high, t.Fret)
		wider(before, t.Fret)
		before = t.Fret
	}
	if low > 0 {
		wider(low, min(high, place+3))
		wider(max(low, place), high)
	}
	if widest.High == 0 {
		widest.Low, widest.High = low, high
	}
	return widest
}

// Widest finds the widest span that the hand holds without moving.
func (in *Instrument) Widest(touches []Touch, hand Hand) Span {
	widest := Span{Comfortable: true}
	for _, h := range in.Held(touches, hand) {
		if h.Millimetres > widest.Millimetres {
			widest = h.Span
		}
	}
	return widest
}
