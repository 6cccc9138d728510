package harmony

import "undaris/core/pitch"

// Degree names a tone by its place on a chord, in plain letters: "R", "b3",
// "#11". The flat seventh of a seventh chord is "b7"; the seventh of a
// diminished seventh chord is called "6", as it sounds and as players count
// it, but spelled as the diminished seventh that it is.
type Degree string

// Printed writes the degree as it is printed: "♭3", "♯11".
func (d Degree) Printed() string { return print(string(d)) }

// degrees lists all of them in the order chords are stacked.
var degrees = []struct {
	name     Degree
	interval pitch.Interval
}{
	{"R", pitch.Interval{}},
	{"b3", pitch.Interval{Letters: 2, HalfSteps: 3}},
	{"3", pitch.Interval{Letters: 2, HalfSteps: 4}},
	{"b5", pitch.Interval{Letters: 4, HalfSteps: 6}},
	{"5", pitch.Interval{Letters: 4, HalfSteps: 7}},
	{"#5", pitch.Interval{Letters: 4, HalfSteps: 8}},
	{"6", pitch.Interval{Letters: 5, HalfSteps: 9}},
	{"b7", pitch.Interval{Letters: 6, HalfSteps: 10}},
	{"7", pitch.Interval{Letters: 6, HalfSteps: 11}},
	{"b9", pitch.Interval{Letters: 1, HalfSteps: 1}},
	{"9", pitch.Interval{Letters: 1, HalfSteps: 2}},
	{"#9", pitch.Interval{Letters: 1, HalfSteps: 3}},
	{"11", pitch.Interval{Letters: 3, HalfSteps: 5}},
	{"#11", pitch.Interval{Letters: 3, HalfSteps: 6}},
	{"b13", pitch.Interval{Letters: 5, HalfSteps: 8}},
	{"13", pitch.Interval{Letters: 5, HalfSteps: 9}},
}

var diminishedSeventh = pitch.Interval{Letters: 6, HalfSteps: 9}

// Interval returns the degree's distance above the root, within an octave.
// ok is false for a text that names no degree.
func (d Degree) Interval() (i pitch.Interval, ok bool) {
	for _, e := range degrees {
		if e.name == d {
			return e.interval, true
		}
	}
	return pitch.Interval{}, false
}

// order is the degree's place in a chord stacked from the root.
func (d Degree) order() int {
	for i, e := range degrees {
		if e.name == d {
			return i
		}
	}
	return len(degrees)
}
