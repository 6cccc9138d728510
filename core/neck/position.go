package neck

import (
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
