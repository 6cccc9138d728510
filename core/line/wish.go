package line

import (
	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
)

// Wish is what a line should be like.
type Wish struct {
	Region     neck.Region
	Palette    blend.Palette
	Rhythm     string         // an ID of Rhythms
	Density    int            // 1 to 5
	Contour    string         // an ID of Contours
	Phrasing   string         // an ID of Phrasings
	Targets    []harmony.Role // allowed on each change; none is any, the third liked best
	ChordTones bool           // nothing but chord tones
	Approach   bool           // notes from outside the palette may lead into chord tones
	Seed       uint64         // the same seed gives the same line
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
	{"fill", "figure and run", "a figure twice, then a run that comes out on the next root"},
	{"study", "without a rest", "for practice: every figure filled"},
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
