package blend

import (
	"slices"
	"strings"
	"sync"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// Class is what a note is over the chord of the moment.
type Class string

// The classes, from rest to passing.
const (
	ChordTone Class = "chord tone"
	Colour    Class = "extension"
	Blue      Class = "blue note"
	Tension   Class = "tension"
	Passing   Class = "passing"
)

// Sound is a note over a chord.
type Sound struct {
	Degree harmony.Degree
	Class  Class
	Wants  []harmony.Degree // chord tones that it leads to; none for a note that may rest
}

// Reason says in a few words what to do with the note.
func (s Sound) Reason() string {
	wants := make([]string, len(s.Wants))
	for i, d := range s.Wants {
		wants[i] = d.Printed()
	}
	to := strings.Join(wants, " or ")
	switch s.Class {
	case ChordTone:
		return "rest here"
	case Colour:
		return "colour: lean on it, or go on"
	case Blue:
		return "bend, slide or pass: wants " + to
	case Tension:
		return "wants " + to
	}
	return "pass on to " + to
}

// tables give degree and class of the twelve half steps over a root, by the
// kind of chord. The chord's own tones rest whatever its table says. c colours,
// b is blue, t is a tension, p passes. The dominant and minor rows are the
// practice of blues players; the others follow from the same reasoning: a half
// step above a chord tone passes, a whole step above colours.
var tables = map[string]string{
	"dominant":        "R b9:p 9:c #9:b 3:c 11:t #11:b 5:p b13:p 13:c b7:c 7:p",
	"minor":           "R b9:p 9:c b3:c 3:p 11:c b5:b 5:p b13:p 13:c b7:c 7:p",
	"major":           "R b9:p 9:c b3:b 3:c 11:p #11:p 5:p b13:p 13:c b7:b 7:c",
	"minor sixth":     "R b9:p 9:c b3:c 3:p 11:c b5:b 5:p b13:p 13:c b7:p 7:p",
	"major seventh":   "R b9:p 9:c #9:b 3:c 11:p #11:c 5:p b13:p 13:c b7:p 7:c",
	"half-diminished": "R b9:p 9:c b3:c 3:p 11:c b5:c 5:p b13:c 13:p b7:c 7:p",
	"diminished":      "R b9:p 9:c b3:c 3:p 11:c b5:c 5:p b13:c 6:c b7:p 7:c",
	"augmented":       "R b9:p 9:c #9:b 3:c 11:p #11:c 5:p #5:c 13:p b7:c 7:p",
	"suspended":       "R b9:p 9:c #9:b 3:t 11:c #11:p 5:c b13:p 13:c b7:c 7:p",
	"power":           "R b9:p 9:c b3:c 3:c 11:c #11:b 5:c b13:p 13:c b7:c 7:p",
}

// family names the chord's row in the tables.
func family(c harmony.Chord) string {
	switch {
	case c.Minor() && c.HasDegree("b5") && c.HasDegree("b7"):
		return "half-diminished"
	case c.Diminished():
		return "diminished"
	case c.Minor() && !c.HasDegree("b7") && (c.HasDegree("6") || c.HasDegree("7")):
		return "minor sixth" // and with the major seventh: the flat one contradicts both
	case c.Minor():
		return "minor"
	case c.Dominant():
		return "dominant"
	case c.HasDegree("3") && c.HasDegree("#5"):
		return "augmented"
	case c.HasDegree("3") && c.HasDegree("7"):
		return "major seventh"
	case c.HasDegree("3"):
		return "major"
	case c.HasDegree("11") || c.HasDegree("9"):
		return "suspended"
	}
	return "power"
}

// rows are the tables, split once.
var rows = func() map[string][]string {
	m := map[string][]string{}
	for k, v := range tables {
		m[k] = strings.Fields(v)
	}
	return m
}()

var classes = map[string]Class{"c": Colour, "b": Blue, "t": Tension, "p": Passing}

// Sounds says what each of the twelve half steps above the root is over a chord,
// which must not be N.C. What is returned is shared: it is for reading.
func Sounds(c harmony.Chord) [12]Sound {
	key := kind{suffix: c.Suffix()}
	for _, t := range c.Tones {
		key.tones |= 1 << t.Interval.HalfSteps
	}
	if known, ok := sounds.Load(key); ok {
		return *known.(*[12]Sound)
	}
	out := reckon(c)
	if len(key.suffix) <= 12 { // so that there are not many
		sounds.Store(key, &out)
	}
	return out
}

// kind is all that the sounds over a chord depend on.
type kind struct {
	suffix string
	tones  int // a bit for each half step
}

// sounds remembers what was reckoned, by kind: a line asks for every note.
var sounds sync.Map

func reckon(c harmony.Chord) [12]Sound {
	var out [12]Sound
	var tone [12]bool
	for _, t := range c.Tones {
		h := t.Interval.HalfSteps
		tone[h] = true
		out[h] = Sound{Degree: t.Degree, Class: ChordTone}
	}
	for h, entry := range rows[family(c)] {
		if tone[h] {
			continue
		}
		degree, class, _ := strings.Cut(entry, ":")
		s := Sound{Degree: harmony.Degree(degree), Class: classes[class]}
		if class == "" || namedAltered(c, s.Degree) {
			s.Class = Passing
		}
		if s.Class != Colour {
			s.Wants = neighbours(c, h, s.Class)
		}
		out[h] = s
	}
	return out
}

// namedAltered tells that the chord names another form of a natural extension
// or fifth, which the natural one would contradict.
func namedAltered(c harmony.Chord, d harmony.Degree) bool {
	altered := map[harmony.Degree][]harmony.Degree{"9": {"b9", "#9"}, "13": {"b13", "#5"}, "11": {"#11"}, "5": {"b5", "#5"}}[d]
	return slices.ContainsFunc(altered, c.HasDegree)
}

// neighbours are the chord tones nearest to a note: a half step away, or else a
// whole step. A tension and the blue third fall or rise to the third alone.
func neighbours(c harmony.Chord, half int, class Class) []harmony.Degree {
	for distance := 1; distance <= 3; distance++ {
		var out []harmony.Degree
		for _, h := range []int{half - distance, half + distance} {
			for _, t := range c.Tones {
				if t.Interval.HalfSteps == pitch.Class(h) {
					out = append(out, t.Degree)
				}
			}
		}
		if class == Tension {
			out = slices.DeleteFunc(out, func(d harmony.Degree) bool { return d.Role() != harmony.Third && len(out) > 1 })
		}
		if len(out) > 0 {
			return out
		}
	}
	return nil
}
