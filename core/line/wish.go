package line

import (
	"slices"

	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
)

// Wish is what a line should be like.
type Wish struct {
	Region     neck.Region
	Palette    blend.Palette
	Word       string         // an ID of Words, whose rhythms are its own; "" is none
	Rhythm     string         // an ID of Rhythms, or OwnRhythm
	Density    int            // 1 to 5
	Contour    string         // an ID of Contours
	Phrasing   string         // an ID of Phrasings
	Targets    []harmony.Role // allowed on each change; none is any, the third liked best
	ChordTones bool           // nothing but chord tones
	Approach   bool           // notes from outside the palette may lead into chord tones
	Seed       uint64         // the same seed gives the same line
	Rule       Rule           // what may rest; the usual where none is said
	Locked     map[int]bool   // bars, from 0, whose notes stay
	Spice      Spice          // how it is played; none is picked and plain
	Closing    string         // an ID of Closings
	Lift       int            // higher, or lower when negative, in tenths of the region
	From, To   int            // bars, from 0, To excluded, that are written; both 0 is all
}

// Option is a choice with its name.
type Option struct{ ID, Name, About string }

// Rhythm is a vocabulary of figures, each two beats long: x begins a note, -
// holds it, . is silence.
type Rhythm struct {
	Option
	PerBeat int
	figures []string
}

// Rhythms lists the vocabularies offered.
var Rhythms = []Rhythm{
	{Option{"eighths", "eighths", "swung where the band swings"}, 2,
		[]string{"x---", "x-x-", "xxx-", "x-xx", "xxxx", ".xxx", ".xx-", "x-.x", "..xx", "x-..", ".x--", "xx--"}},
	{Option{"triplets", "triplets", "three to the beat"}, 3,
		[]string{"x-----", "x-xx-x", "x--x-x", "xxxx--", "xxxxxx", "x-xxxx", "..xx-x", "x-x...", "x--xxx", "..xxxx", "x--..x"}},
	{Option{"sixteenths", "sixteenths", "four to the beat"}, 4,
		[]string{"x-------", "x---x---", "x-x-x---", "x-xxx---", "xxxxx---", "x--xx-x-", "x-x-xxxx", "xxxxxxxx", "....xxxx", "x---..xx", "..x-x-x-", "x-..xxx-"}},
	{Option{"mixed", "mixed", "eighths with a triplet now and then"}, 6,
		[]string{"x-----------", "x--x--x-----", "x--x--x--x--", "x-x-x-x-----", "x-x-x-x--x--", "x-----x-x-x-", "...x--x--x--", "x-----...x--", "......x-x-x-", "x--x--......"}},
	{Option{"calls", "short calls", "a few eighths, and room"}, 2,
		[]string{"xx-.", "x-..", ".xx.", "x-x.", "xxx.", "..xx", ".x-x", "x---", ".xxx", "x.xx"}},
	{Option{"lines", "long lines", "eighths that run on, over the bar line, with a triplet now and then"}, 6,
		[]string{"x--x--x--x--", "...x--x--x--", "x-x-x-x--x--", "x--x--x-x-x-", "x--x--x--...", "......x--x--", "x-----x--x--", "...x--x-x-x-", "x-----------"}},
	{Option{"syncopated", "straight, off the beat", "eighths that come before the beat and are held over it"}, 2,
		[]string{"x-.x", ".x-x", "xx-x", "x--x", ".x--", "xxxx", "x-x-", ".xxx", "x---"}},
	{Option{"pickups", "held, with pickups", "long notes, and sixteenths that lead into them"}, 4,
		[]string{"x-------", "x-----xx", "....xxxx", "x---....", "......xx", "x---x---", "x-----..", "x---..xx", "x---xxxx"}},
	{Option{"flowing", "threes that flow", "three to the beat, on and on"}, 3,
		[]string{"xxxxxx", "x-xxxx", "xxxx--", "x-xx-x", "..xxxx", "x--xxx", "x-----", "xxx...", "...xxx"}},
	{Option{"rolling", "threes and twos", "a beat of three beside a beat of two"}, 6,
		[]string{"x-x-x-x--x--", "x--x--x-x-x-", "..x-x-x--x--", "...x--x-x-x-", "x-x-x-x-----", "x-----x-x-x-", "x-x-x-x-x-x-", "x-x-x-......"}},
	{Option{"loping", "threes, off the beat", "long and short, and held over the beat"}, 3,
		[]string{"x-x--x", "..x--x", "x-xx-x", "..xx-x", "x-x..x", "..xxxx", "x----x", "x-x---"}},
}

// OwnRhythm is the rhythm that the word and the feel ask for.
const OwnRhythm = "own"

// ownRhythms are those of a word, and over a feel of their own.
var ownRhythms = map[string]string{"box-blues": "calls", "jazz-blues": "lines", "rock": "syncopated", "slow-and-few": "pickups", "": "eighths"}

// RhythmOf is the rhythm of a word over a feel: threes where the beat has three.
func RhythmOf(word, feel string) string {
	own, known := ownRhythms[word]
	switch {
	case feel == "slow-12-8" && word == "jazz-blues":
		return "rolling"
	case feel == "slow-12-8" && word == "rock":
		return "loping"
	case feel == "slow-12-8" && known && word != "":
		return "flowing"
	case feel == "slow-12-8":
		return "triplets"
	case known:
		return own
	}
	return ownRhythms[""]
}

// Contours lists where a phrase may go, as heights from 0 to 1 at its start, its
// middle and its end; an empty list is left to the seed.
var Contours = []struct {
	Option
	heights []float64
}{
	{Option{"free", "as it comes", "each phrase goes its own way"}, nil},
	{Option{"arch", "arch", "up and down again"}, []float64{0.25, 0.8, 0.3}},
	{Option{"valley", "valley", "down and up again"}, []float64{0.75, 0.25, 0.7}},
	{Option{"rise", "rising", ""}, []float64{0.15, 0.5, 0.85}},
	{Option{"fall", "falling", ""}, []float64{0.85, 0.5, 0.15}},
}

// Phrasings lists how bars are grouped.
var Phrasings = []Option{
	{"free", "two-bar phrases", "a breath at the end of every second bar"},
	{"call", "call and response", "two bars ask, two bars answer and end longer"},
	{"aab", "A A B", "one idea, the same over the next chords, then an answer"},
	{"fill", "timed to the next root", "a figure twice, then a run reckoned back so that it comes out on the next root"},
	{"fill-third", "timed to the next third", "a figure twice, then a run reckoned back so that it comes out on the next third"},
	{"study", "without a rest", "for practice: every figure filled"},
}

// timed tells that phrases are timed to come out on a tone of the chord that follows, and on which.
func (w Wish) timed() (harmony.Role, bool) {
	switch w.Phrasing {
	case "fill":
		return harmony.Root, true
	case "fill-third":
		return harmony.Third, true
	}
	return harmony.Root, false
}

func (w Wish) rhythm() (Rhythm, error) {
	for _, r := range Rhythms {
		if r.ID == w.Rhythm || w.Rhythm == "" {
			return r, nil
		}
	}
	return Rhythm{}, say.Errorf("there is no rhythm %q", w.Rhythm)
}

// check says what in a wish cannot be met.
func (w Wish) check(in *neck.Instrument) error {
	if err := in.CheckRegion(w.Region); err != nil {
		return err
	}
	if _, err := w.rhythm(); err != nil {
		return err
	}
	if size(w.Lift) > 10 {
		return say.Errorf("a lift of %d; it goes from -10 to 10", w.Lift)
	}
	if err := w.Spice.check(); err != nil {
		return err
	}
	if _, err := ClosingByID(w.Closing); err != nil {
		return err
	}
	if w.Density < 1 || w.Density > 5 {
		return say.Errorf("a density of %d; it goes from 1 to 5", w.Density)
	}
	for _, c := range Contours {
		if c.ID == w.Contour || w.Contour == "" {
			for _, p := range Phrasings {
				if p.ID == w.Phrasing || w.Phrasing == "" {
					return nil
				}
			}
			return say.Errorf("there is no phrasing %q", w.Phrasing)
		}
	}
	return say.Errorf("there is no contour %q", w.Contour)
}

// landsOn tells that a sound is wished for on a change: a tone of the chord by its role, or a 9, 11 or 13 that its scale has
// and that is leaned on as a colour.
func (w Wish) landsOn(s blend.Sound) bool {
	role := s.Degree.Role()
	return (s.Class == blend.ChordTone || s.Class == blend.Colour && role == harmony.Extension) && slices.Contains(w.Targets, role)
}
