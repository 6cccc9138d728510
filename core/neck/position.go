package neck

import (
	"math"
	"slices"

	"undaris/core/pitch"
)

// Position is one of the five places of the hand for a key.
type Position struct {
	Number int    // 1 to 5, low to high; an octave repeat has the number of its shape
	Shape  string // the tonic's movable open shape, "" on tunings where it means nothing
	Region
	Octave bool // the same position twelve frets from the one that bears its number first
	Nut    bool // played at the nut, its window slid up to 0–4
}

// shapes gives the window of each shape around r, the tonic's fret on string 6.
var shapes = []struct {
	name      string
	low, high int
}{{"G", -4, 0}, {"E", -1, 3}, {"D", 1, 5}, {"C", 4, 8}, {"A", 6, 10}}

// Positions lists the positions of a tonic (pitch class 0–11) up the whole
// neck, lowest first. A shape whose window would begin one fret behind the nut
// is played with the open strings: its window is slid to 0–4, which keeps every
// chord complete, and is marked Nut. That is the open position of E, A, D and G.
func (in *Instrument) Positions(tonic int) []Position {
	named := in.standardShape()
	reference := Placement{String: in.Strings()}
	if named {
		reference.String = 6
	}
	r := pitch.Class(tonic - in.MIDI(reference))
	var all []Position
	for _, s := range shapes {
		for octave := -12; octave <= 24; octave += 12 {
			w := Region{Low: r + octave + s.low, High: r + octave + s.high}
			nut := w.Low == -1
			if nut {
				w = Region{Low: 0, High: 4}
			}
			if in.CheckRegion(w) == nil {
				all = append(all, Position{Shape: s.name, Region: w, Nut: nut})
			}
		}
	}
	slices.SortStableFunc(all, func(a, b Position) int {
		if a.Low != b.Low {
			return a.Low - b.Low
		}
		return boolOrder(b.Nut, a.Nut)
	})
	number(all)
	if !named {
		for i := range all {
			all[i].Shape = ""
		}
	}
	return all
}

// Says tells a position as it is called everywhere: by its frets, then by its shape.
func (p Position) Says() string {
	text := p.Region.Says()
	if p.Shape != "" {
		text += ", " + p.Shape + " shape"
	}
	return text
}

// widestShape is how far apart the first and the last fret of a region are at most in
// which a chord takes one shape.
const widestShape = 7

// Shape names the movable open shape that a chord on a root (pitch class 0–11) takes in a
// region: of the five, the one that shares most frets with it, whether the neck holds all
// of it or ends before. It is empty where none shares three whole ones, in a region wider than a
// hand's, and on tunings where shapes mean nothing.
func (in *Instrument) Shape(root int, r Region) (best string) {
	if r.High-r.Low > widestShape || !in.standardShape() {
		return ""
	}
	at := pitch.Class(root - in.MIDI(Placement{String: 6}))
	most := 5 // half frets: a shape slid up to the nut has half a fret less
	for _, s := range shapes {
		for octave := -24; octave <= 36; octave += 12 {
			low, high, slid := at+octave+s.low, at+octave+s.high, 0
			if low == -1 {
				low, high, slid = 0, 4, 1
			}
			if shared := 2*(min(r.High, high)-max(r.Low, low)+1) - slid; shared > most {
				best, most = s.name, shared
			}
		}
	}
	return best
}

// Numbered is the position of a tonic (pitch class) that bears a number, 1 to 5, first; ok is false where the neck has none.
func (in *Instrument) Numbered(tonic, number int) (p Position, ok bool) {
	for _, p = range in.Positions(tonic) {
		if p.Number == number && !p.Octave {
			return p, true
		}
	}
	return Position{}, false
}

// Narrow is the lowest position of a tonic (pitch class) in which every fret is within a hand's comfort: where a hand that
// is cold begins. Where none is, it is the highest.
func (in *Instrument) Narrow(tonic int, hand Hand) (p Position, ok bool) {
	for _, p = range in.Positions(tonic) {
		if ok = true; p.Low > 0 && math.Round(in.Reach(p.Low, p.High)) <= hand.Comfort {
			break
		}
	}
	return p, ok
}

func boolOrder(a, b bool) int {
	switch {
	case a == b:
		return 0
	case a:
		return -1
	}
	return 1
}

// number counts the shapes in the order in which their first whole window comes.
func number(all []Position) {
	numbers := map[string]int{}
	for i, p := range all {
		if p.Nut {
			continue
		}
		if _, known := numbers[p.Shape]; known {
			all[i].Octave = true
		} else {
			numbers[p.Shape] = len(numbers) + 1
		}
		all[i].Number = numbers[p.Shape]
	}
	for i, p := range all {
		if p.Nut {
			if _, known := numbers[p.Shape]; !known { // the neck is too short for the whole window
				numbers[p.Shape] = len(numbers) + 1
			}
			all[i].Number = numbers[p.Shape]
		}
	}
}

// standardShape tells whether the six highest strings stand in the intervals of
// standard tuning, on which the shape names depend.
func (in *Instrument) standardShape() bool {
	if in.Strings() < 6 {
		return false
	}
	for i, gap := range []int{5, 4, 5, 5, 5} {
		if in.MIDI(Placement{i + 1, 0})-in.MIDI(Placement{i + 2, 0}) != gap {
			return false
		}
	}
	return true
}
