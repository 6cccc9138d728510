package call

import (
	"math/rand/v2"
	"strings"

	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
)

// Kind is how a call asks: how it is drawn, what it says, and what is asked for.
type Kind struct {
	ID, Name, About string
	Paced           bool // it is played in time, where that is wished for
	Sought          bool // it is found on the neck, pressed or played; there is no name for what is asked

	draw   func(Wish, *rand.Rand, Call) (Call, bool)
	says   func(Call) string // in words, without its chord
	spoken func(Call) string // for the ear, behind its chord
	degree func(Call) harmony.Degree

	answer func(Call) []Answer
}

// The kinds by ID.
const (
	Tones    = "tones"
	Place    = "place"
	Material = "exercise"
	Bend     = "bend"
	Written  = "written"
	Every    = "every"
)

// Kinds lists them.
var Kinds = []Kind{
	{
		ID: Tones, Name: "tones from a start", About: "a chord's tones in order, from the degree that is asked for", Paced: true,
		answer: byDegree,
		draw:   Wish.tones,
		says:   func(c Call) string { return say.F("its tones %s, from the %s", c.way(), c.start()) + c.how() },
		spoken: func(c Call) string {
			return ", " + c.way() + " from the " + spokenDegrees[c.start()] + aloud.Replace(c.how())
		},
		degree: Call.start,
	},
	{
		ID: Place, Name: "which degree is it", About: "a place on the neck, plain or bent, over a chord",
		answer: byDegree,
		draw:   Wish.place,
		says: func(c Call) string {
			if c.Bent > 0 {
				return say.F("string %d, fret %d, bent up %s: which degree?", c.Given.String, c.Given.Fret, halves[c.Bent])
			}
			return say.F("string %d, fret %d: which degree?", c.Given.String, c.Given.Fret)
		},
		spoken: func(c Call) string {
			text := say.F(", string %d, fret %d", c.Given.String, c.Given.Fret)
			if c.Bent > 0 {
				text += ", bent " + halves[c.Bent]
			}
			return text + ". Which degree?"
		},
		degree: func(c Call) harmony.Degree { return harmony.Degree(c.Answer) },
	},
	{
		ID: Material, Name: "an exercise", About: "the first notes of an exercise over the chord, in order", Paced: true,
		answer: byDegree,
		draw:   Wish.material,
		says: func(c Call) string {
			return say.F("the first %d notes of the exercise “%s”, from the %s", len(c.Notes), c.Drill, c.start()) + c.how()
		},
		spoken: func(c Call) string { return ". " + aloud.Replace(c.Drill) + ", from the " + spokenDegrees[c.start()] },
		degree: Call.start,
	},
	{
		ID: Bend, Name: "how far to bend", About: "a place on the neck, and the chord tone it is to become",
		answer: byAmount,
		draw:   Wish.bend,
		says: func(c Call) string {
			return say.F("string %d, fret %d: how far up to the %s?", c.Given.String, c.Given.Fret, c.Goal.Degree)
		},
		spoken: func(c Call) string {
			return say.F(", string %d, fret %d. How far to the ", c.Given.String, c.Given.Fret) + spokenDegrees[c.Goal.Degree] + "?"
		},
		degree: func(c Call) harmony.Degree { return c.Goal.Degree },
	},
	{
		ID: Written, Name: "a written note", About: "a note on the staff, to be found where the hand is",
		answer: byDegree,
		draw:   Wish.written,
		says:   func(Call) string { return "find the written note" },
		spoken: func(Call) string { return ", the written note" },
		degree: func(c Call) harmony.Degree { return c.Notes[0].Tone.Degree },
	},
	{
		ID: Every, Name: "every place", About: "all the places of a degree or of a note, in any order", Sought: true,
		answer: func(Call) []Answer { return nil },
		draw:   Wish.every,
		says: func(c Call) string {
			if c.Named {
				return say.F("every %s: %d places", c.Notes[0].Tone.Name, len(c.Notes))
			}
			return say.F("every %s: %d places", c.Notes[0].Tone.Degree, len(c.Notes))
		},
		spoken: func(c Call) string {
			if c.Named {
				return ", every " + spokenName(c.Notes[0].Tone.Name)
			}
			return ", every " + spokenDegrees[c.Notes[0].Tone.Degree]
		},
		degree: func(c Call) harmony.Degree { return c.Notes[0].Tone.Degree },
	},
}

// kind is the entry of a call's kind; the zero one where there is none.
func (c Call) kind() (k Kind) {
	for _, k := range Kinds {
		if k.ID == c.Kind {
			return k
		}
	}
	return k
}

// Sought tells that what is asked is pressed or played, and has no name to be told by.
func (c Call) Sought() bool { return c.kind().Sought }

// Answer is one of what may be answered: a degree, or where it has one by its name, and the key of
// the keyboard that gives it; "" where none is left.
type Answer struct{ Is, Name, Key string }

// Answers are what may be answered, in the order of [Call.Options].
func (c Call) Answers() []Answer { return c.kind().answer(c) }

// twelve are the keys for all twelve degrees, by how many half steps they lie above the root.
const twelve = "1234567890-="

// byDegree answers a chord's degrees by their figure, the ninth, eleventh and thirteenth an octave
// lower; all twelve by half steps.
func byDegree(c Call) (all []Answer) {
	taken := map[string]bool{}
	for i, o := range c.Options {
		if len(c.Options) == len(twelve) {
			all = append(all, Answer{Is: o, Key: twelve[i : i+1]})
			continue
		}
		key := strings.TrimLeft(o, "b#")
		switch key {
		case "R":
			key = "1"
		case "9":
			key = "2"
		case "11":
			key = "4"
		case "13":
			key = "6"
		}
		if taken[key] {
			key = ""
		}
		taken[key] = true
		all = append(all, Answer{Is: o, Key: key})
	}
	return all
}

// byAmount answers how far by the number of half steps.
func byAmount(c Call) (all []Answer) {
	for i, o := range c.Options {
		name := halves[i]
		if i == 0 {
			name = "not at all"
		}
		all = append(all, Answer{o, name, o})
	}
	return all
}

// way is in which direction tones are asked for.
func (c Call) way() string {
	if c.Down {
		return "downward"
	}
	return "upward"
}

// start is the degree that tones begin with, behind what leads into it.
func (c Call) start() harmony.Degree { return c.Notes[c.Lead].Tone.Degree }

// halves are amounts of a bend in words.
var halves = []string{"", "a half step", "a whole step", "one and a half steps"}

// Says tells the call in words, without its chord.
func (c Call) Says() string { return c.kind().says(c) }

// spokenDegrees are degrees as they are read out.
var spokenDegrees = map[harmony.Degree]string{
	"R": "root", "b9": "flat nine", "9": "nine", "#9": "sharp nine", "b3": "flat third", "3": "third", "11": "eleven", "#11": "sharp eleven",
	"b5": "flat fifth", "5": "fifth", "#5": "sharp fifth", "b13": "flat thirteen", "13": "thirteen", "6": "sixth", "b7": "flat seventh", "7": "seventh",
}

// spokenName is a note's name as it is read out.
func spokenName(n pitch.Name) string {
	sign := map[int]string{-2: " double flat", -1: " flat", 1: " sharp", 2: " double sharp"}
	return pitch.Name{Letter: n.Letter}.String() + sign[n.Alter]
}

// aloud is how signs in a name are read out.
var aloud = strings.NewReplacer("♭", "flat ", "♯", "sharp ", "°", " diminished")

// numerals are steps of the key as they are read out.
var numerals = []struct{ is, spoken string }{
	{"VII", "seven"}, {"III", "three"}, {"VI", "six"}, {"IV", "four"}, {"II", "two"}, {"V", "five"}, {"I", "one"},
	{"vii", "seven"}, {"iii", "three"}, {"vi", "six"}, {"iv", "four"}, {"ii", "two"}, {"v", "five"}, {"i", "one"},
}

// Spoken is the call for the ear: your five-chord, upward from the fifth.
func (c Call) Spoken() string {
	chord := "this chord"
	for _, n := range numerals {
		if strings.HasPrefix(c.Numeral, n.is) {
			chord = "your " + n.spoken + " chord"
			break
		}
	}
	return chord + c.kind().spoken(c)
}
