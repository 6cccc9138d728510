package crossing

import (
	"cmp"
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Kind is the size of a move.
type Kind string

// The kinds of move: 0, 1, 2 and more half steps.
const (
	Hold      Kind = "hold"
	HalfStep  Kind = "half step"
	WholeStep Kind = "whole step"
	Leap      Kind = "leap"
)

func kindOf(halfSteps int) Kind {
	switch max(halfSteps, -halfSteps) {
	case 0:
		return Hold
	case 1:
		return HalfStep
	case 2:
		return WholeStep
	}
	return Leap
}

// Move is a tone of one chord going to a near tone of the next.
type Move struct {
	From, To  harmony.Tone
	HalfSteps int // up is positive; −6 to 6
	Kind      Kind
	Guide     bool    // between third and seventh, the guide tones
	Places    []Place // inside the window, the shortest way of the hand first
}

// Place is where a move lies.
type Place struct {
	From, To neck.Placement
	Travel   float64 // of the hand along the neck, in millimetres
}

// Ranking says which moves come first.
type Ranking struct {
	Order   harmony.Order
	Nearest bool // by distance, the order only breaking ties
}

// Steps lists the moves between two chords, wherever they lie: every tone of a
// against the tones of b within a whole step, or the nearest where none is.
func Steps(a, b harmony.Chord, by Ranking) []Move {
	var moves []Move
	for _, from := range a.Tones {
		var near []Move
		for _, to := range b.Tones {
			h := signed(to.Name.Class() - from.Name.Class())
			roles := [2]harmony.Role{from.Degree.Role(), to.Degree.Role()}
			near = append(near, Move{From: from, To: to, HalfSteps: h, Kind: kindOf(h),
				Guide: roles == [2]harmony.Role{harmony.Third, harmony.Seventh} || roles == [2]harmony.Role{harmony.Seventh, harmony.Third}})
		}
		closest := 6
		for _, m := range near {
			closest = min(closest, size(m))
		}
		for _, m := range near {
			if size(m) <= max(2, closest) {
				moves = append(moves, m)
			}
		}
	}
	slices.SortStableFunc(moves, func(x, y Move) int {
		wanted := cmp.Compare(by.Order.Place(x.To.Degree.Role()), by.Order.Place(y.To.Degree.Role()))
		near := cmp.Compare(size(x), size(y))
		if by.Nearest {
			return cmp.Or(near, wanted)
		}
		return cmp.Or(wanted, near)
	})
	return moves
}

// Between is [Steps] with the places of each move inside a window. Moves that
// the window does not hold are left out.
func Between(in *neck.Instrument, a, b harmony.Chord, w neck.Region, by Ranking) []Move {
	var out []Move
	for _, m := range Steps(a, b, by) {
		if m.Places = Places(in, m, w); len(m.Places) > 0 {
			out = append(out, m)
		}
	}
	if by.Nearest {
		slices.SortStableFunc(out, func(x, y Move) int {
			return cmp.Or(cmp.Compare(size(x), size(y)), cmp.Compare(x.Places[0].Travel, y.Places[0].Travel))
		})
	}
	return out
}

// Places finds every place of the move's first tone in the window, each with the
// nearest place of the second, the shortest way first.
func Places(in *neck.Instrument, m Move, w neck.Region) []Place {
	out := make([]Place, 0, 4)
	class := m.From.Name.Class()
	for s := 1; s <= in.Strings(); s++ {
		if !w.Strings.Has(s) {
			continue
		}
		for fret := w.Low; fret <= w.High; fret++ {
			from := neck.Placement{String: s, Fret: fret}
			midi := in.MIDI(from)
			if midi%12 != class {
				continue
			}
			best := Place{Travel: -1}
			for str := in.Strings(); str >= 1; str-- {
				to := neck.Placement{String: str, Fret: midi + m.HalfSteps - in.MIDI(neck.Placement{String: str})}
				if !w.Has(to) {
					continue
				}
				t := Travel(in, from, to)
				if best.Travel < 0 || t < best.Travel || t == best.Travel && to.String == s {
					best = Place{from, to, t}
				}
			}
			if best.Travel >= 0 {
				out = append(out, best)
			}
		}
	}
	slices.SortStableFunc(out, func(x, y Place) int { return cmp.Compare(x.Travel, y.Travel) })
	return out
}

// Travel is how far the hand goes along the neck, in millimetres; an open string
// asks for no hand.
func Travel(in *neck.Instrument, from, to neck.Placement) float64 {
	if from.Fret == 0 || to.Fret == 0 {
		return 0
	}
	return in.Reach(from.Fret, to.Fret)
}

func size(m Move) int { return max(m.HalfSteps, -m.HalfSteps) }

// signed folds a difference of pitch classes into −5 to 6.
func signed(d int) int {
	d = pitch.Class(d)
	if d > 6 {
		d -= 12
	}
	return d
}
