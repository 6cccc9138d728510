package score

import (
	"fmt"
	"slices"

	"undaris/core/say"
)

// Way is one way to play a note: everything the program knows of it. A new way is
// a field of [Ornaments] and an entry in [Ways]; what bends a string while it
// sounds is heard in core/band too.
type Way struct {
	ID     string   // of its field, as it travels
	Name   string   // as players say it
	Key    string   // that enters it, and enters it otherwise
	Values []Choice // what the key goes through
	Least  int      // the least it can be; 0 but for what goes both ways
	Limit  int      // the most it can be; 0 is one of its values
	Adorns bool     // it is added to a plain line, whose notes stay where they are
	On     string   // the way it is a part of: without that one it is not there

	field func(*Ornaments) any // *bool, *int, *Join or *PickingHand

	// Needs says what is missing for a hand to do it; empty where nothing is.
	// The notes of the score are in order.
	Needs func(s Score, i int) string

	Sound Sound
	Text  Sign // behind the fret in tablature text
	Lick  Sign // behind the length in the text of a lick
	XML   Element
}

// Choice is one of the ways a way can be: what its field is then, in words, and
// how it is drawn.
type Choice struct {
	Is   any // true, an int, a Join or a PickingHand
	Name string
	Draw Draw
}

// Draw is the sign of a way.
type Draw struct {
	Kind DrawKind
	Text string // of words above; the engraver's name of a sign at the head
}

// DrawKind is where and how a sign is drawn.
type DrawKind string

// The kinds of signs. What has none is drawn by hand: joins, bends and vibrato.
const (
	ByHand  DrawKind = ""
	Words   DrawKind = "words"   // above the tablature
	Head    DrawKind = "head"    // at the head on the staff
	In      DrawKind = "in"      // a line that leads into the fret, from below or above
	Out     DrawKind = "out"     // a line that leaves it
	Back    DrawKind = "back"    // a line on to a fret and back
	Adorned DrawKind = "adorned" // a sign over the head, of the engraver
	Raked   DrawKind = "rake"    // crosses on the strings before it
)

// Sound is what a way does to a note beyond its pitch.
type Sound struct {
	Louder int // in MIDI velocity
	Part   int // of its length that sounds, in per cent; 0 is all
	Most   int // ticks that it sounds at most; 0 is no limit
}

// Sign is a sign in text, with what number behind it.
type Sign struct {
	Mark   string
	Number Number
}

// Number is what a number behind a sign counts.
type Number int

// A number may be the value as it is, the fret that so many frets lead to, or the
// fret that sounds like it, in quarter tones.
const (
	None Number = iota
	Count
	Frets
	Quarters
)

// Element is how MusicXML writes a way: an element of a group of notations, or
// words among the other technical signs, with %d for the value.
type Element struct {
	Group, Tag string
	Words      string
}

// yes are the values of what is there or not.
func yes(d Draw) []Choice { return []Choice{{true, "", d}} }

// Ways lists the ways to play a note, in the order in which they are shown and
// written.
var Ways = []Way{
	{ID: "join", Name: "hammer-on", Key: "h", Values: []Choice{{Is: Hammer}}, field: func(o *Ornaments) any { return &o.Join },
		Needs: joinUp("a hammer-on", 1), Sound: Sound{Louder: -16}},
	{ID: "join", Name: "pull-off", Key: "p", Values: []Choice{{Is: PullOff}}, field: func(o *Ornaments) any { return &o.Join },
		Needs: joinUp("a pull-off", -1), Sound: Sound{Louder: -16}},
	{ID: "join", Name: "slide", Key: "s", Values: []Choice{{Is: Slide}}, field: func(o *Ornaments) any { return &o.Join },
		Needs: joinUp("a slide", 0)},
	{ID: "scoop", Name: "slide in", Key: "g", Values: numbers(In, 1, 2, -1), Least: -5, Limit: 5, field: func(o *Ornaments) any { return &o.Scoop },
		Needs: reaches(false, func(o Ornaments) int { return -o.Scoop }), XML: Element{Words: "slide in over %d frets"}},
	{ID: "slideBack", Name: "slide & back", Key: "u", Values: numbers(Back, 1, 2, -2), Least: -5, Limit: 5, field: func(o *Ornaments) any { return &o.SlideBack },
		Needs: reaches(false, func(o Ornaments) int { return o.SlideBack }), Text: Sign{"s", Frets}, Lick: Sign{"b", Count}, XML: Element{Words: "slide on %d frets and back"}},
	{ID: "slideOut", Name: "slide out", Key: "o", Values: numbers(Out, -3, 3), Least: -5, Limit: 5, field: func(o *Ornaments) any { return &o.SlideOut },
		Needs: reaches(false, func(o Ornaments) int { return o.SlideOut }), Text: Sign{"o", Frets}, Lick: Sign{"o", Count}, XML: Element{Words: "slide out over %d frets"}},
	{ID: "bend", Name: "bend", Key: "b", Values: []Choice{{1, "¼", Draw{}}, {2, "½", Draw{}}, {4, "1", Draw{}}, {6, "1½", Draw{}}}, Limit: 6, field: func(o *Ornaments) any { return &o.Bend },
		Needs: bendable, Text: Sign{"b", Quarters}},
	{ID: "preBend", Name: "pre-bend", Key: "e", Values: yes(Draw{}), On: "bend", field: func(o *Ornaments) any { return &o.PreBend },
		Text: Sign{"e", None}, Lick: Sign{"!", None}},
	{ID: "again", Name: "struck while bent", Key: "w", Values: yes(Draw{}), On: "bend", field: func(o *Ornaments) any { return &o.Again },
		Needs: stillBent, Text: Sign{"=", None}, Lick: Sign{"=", None}, XML: Element{Words: "struck while bent"}},
	{ID: "release", Name: "release", Key: "r", Values: yes(Draw{}), On: "bend", field: func(o *Ornaments) any { return &o.Release },
		Text: Sign{"r", None}, Lick: Sign{"_", None}},
	{ID: "releaseTo", Name: "stays bent by", Key: "f", Values: []Choice{{1, "¼", Draw{}}, {2, "½", Draw{}}, {4, "1", Draw{}}}, On: "release", Limit: 5, field: func(o *Ornaments) any { return &o.ReleaseTo },
		Needs: func(s Score, i int) string {
			if n := s.Notes[i]; n.ReleaseTo >= n.Bend {
				return "a bend is let down to less than it was"
			}
			return ""
		}, Text: Sign{"_", Quarters}, Lick: Sign{":", Count}},
	{ID: "vibrato", Name: "vibrato", Key: "v", Values: yes(Draw{}), field: func(o *Ornaments) any { return &o.Vibrato },
		Needs: fretted("vibrato"), Text: Sign{"~", None}, Lick: Sign{"~", None}},
	{ID: "vibratoWidth", Name: "width", Key: "i", Values: []Choice{{10, "narrow", Draw{Words, "narrow"}}, {40, "wide", Draw{Words, "wide"}}, {70, "very wide", Draw{Words, "very wide"}}}, On: "vibrato", Limit: 100,
		field: func(o *Ornaments) any { return &o.Width }, Text: Sign{"w", Count}, Lick: Sign{"w", Count}, XML: Element{Words: "vibrato %d cents wide"}},
	{ID: "vibratoSpeed", Name: "speed", Key: "j", Values: []Choice{{3, "slow", Draw{Words, "slow"}}, {7, "fast", Draw{Words, "fast"}}}, On: "vibrato", Limit: 9,
		field: func(o *Ornaments) any { return &o.Speed }, Text: Sign{"f", Count}, Lick: Sign{"f", Count}, XML: Element{Words: "vibrato %d a second"}},
	{ID: "trill", Name: "trill", Key: "t", Values: numbers(ByHand, 1, 2, 3), Limit: 4, Adorns: true, field: func(o *Ornaments) any { return &o.Trill },
		Needs: reaches(true, func(o Ornaments) int { return o.Trill }), Text: Sign{"tr", Frets}, Lick: Sign{"%", Count}},
	{ID: "turn", Name: "turn", Key: "c", Values: adorned("turn", 1, 2), Limit: 2, Adorns: true, field: func(o *Ornaments) any { return &o.Turn },
		Needs: func(s Score, i int) string {
			if n := s.Notes[i]; n.Fret < n.Turn || n.Fret+n.Turn > s.In.Last() {
				return say.F("a turn of %d half steps goes to frets %d and %d", n.Turn, n.Fret+n.Turn, n.Fret-n.Turn)
			}
			return ""
		}, Text: Sign{"tn", Frets}, Lick: Sign{"&", Count}, XML: Element{Words: "turn over %d half steps"}},
	{ID: "double", Name: "hammered double", Key: "q", Values: adorned("mordent", 1, 2, 3), Limit: 4, Adorns: true, field: func(o *Ornaments) any { return &o.Double },
		Needs: reaches(true, func(o Ornaments) int { return o.Double }), Text: Sign{"dd", Frets}, Lick: Sign{"*", Count}, XML: Element{Words: "hammered double over %d half steps"}},
	{ID: "rake", Name: "rake", Key: "k", Values: numbers(Raked, 1, 2, 3), Limit: 4, field: func(o *Ornaments) any { return &o.Rake },
		Needs: func(s Score, i int) string {
			if n := s.Notes[i]; n.String+n.Rake > s.In.Strings() {
				return say.F("a rake over %d strings begins below string %d; there are %d strings", n.Rake, n.String, s.In.Strings())
			}
			return ""
		}, Text: Sign{"k", Count}, Lick: Sign{"k", Count}, XML: Element{Words: "rake over %d strings"}},
	{ID: "palmMute", Name: "palm mute", Key: "m", Values: yes(Draw{Words, "P.M."}), field: func(o *Ornaments) any { return &o.PalmMute },
		Sound: Sound{Louder: -8, Most: Tick / 4}, Text: Sign{"m", None}, Lick: Sign{"m", None}, XML: Element{Words: "palm mute"}},
	{ID: "staccato", Name: "staccato", Key: ".", Values: yes(Draw{Head, "a."}), field: func(o *Ornaments) any { return &o.Staccato },
		Sound: Sound{Part: 50}, Text: Sign{".", None}, Lick: Sign{"'", None}, XML: Element{Group: "articulations", Tag: "staccato"}},
	{ID: "accent", Name: "accent", Key: "a", Values: yes(Draw{Head, "a>"}), field: func(o *Ornaments) any { return &o.Accent },
		Sound: Sound{Louder: 18}, Text: Sign{">", None}, Lick: Sign{">", None}, XML: Element{Group: "articulations", Tag: "accent"}},
	{ID: "dead", Name: "dead note", Key: "x", Values: yes(Draw{}), field: func(o *Ornaments) any { return &o.Dead },
		Sound: Sound{Louder: -44, Most: Tick / 12}, Lick: Sign{"x", None}},
	{ID: "stroke", Name: "stroke", Key: "d", Values: []Choice{{DownStroke, "down", Draw{Head, "am"}}, {UpStroke, "up", Draw{Head, "a|"}}, {ByFinger, "finger", Draw{Words, "i"}}, {ByThumb, "thumb", Draw{Words, "p"}}},
		field: func(o *Ornaments) any { return &o.Stroke }, Text: Sign{"d", Count}, Lick: Sign{"d", Count}},
}

// Plain is how a note is played without what adorns it.
func (o Ornaments) Plain() Ornaments {
	for _, w := range Ways {
		if w.Adorns {
			w.Put(&o, 0)
		}
	}
	return o
}

// WayByID finds a way.
func WayByID(id string) Way {
	return Ways[slices.IndexFunc(Ways, func(w Way) bool { return w.ID == id })]
}

func (w Way) most() int {
	if w.Limit > 0 {
		return w.Limit
	}
	return len(w.Values)
}

// Within is the nearest that a way can be.
func (w Way) Within(v int) int { return max(w.Least, min(w.most(), v)) }

// Of is how a note has it: 0 is not, 1 is so, else the number, or which of its
// values from 1.
func (w Way) Of(o Ornaments) int {
	switch f := w.field(&o).(type) {
	case *bool:
		if *f {
			return 1
		}
	case *int:
		return *f
	case *Join:
		return 1 + slices.IndexFunc(w.Values, func(v Choice) bool { return v.Is == any(*f) })
	case *PickingHand:
		return 1 + slices.IndexFunc(w.Values, func(v Choice) bool { return v.Is == any(*f) })
	}
	return 0
}

// Put makes a note have it as [Way.Of] counts.
func (w Way) Put(o *Ornaments, v int) {
	switch f := w.field(o).(type) {
	case *bool:
		*f = v != 0
	case *int:
		*f = v
	case *Join:
		*f = Picked
		if v > 0 && v <= len(w.Values) {
			*f = w.Values[v-1].Is.(Join)
		}
	case *PickingHand:
		*f = ""
		if v > 0 && v <= len(w.Values) {
			*f = w.Values[v-1].Is.(PickingHand)
		}
	}
}

// Drawn is the sign of a way on a note, and how much of it.
type Drawn struct {
	Draw
	Value int
}

// Signs lists what is drawn at a note that is not drawn by hand.
func (o Ornaments) Signs() (signs []Drawn) {
	if o == (Ornaments{}) { // as most notes are
		return nil
	}
	for _, w := range Ways {
		v := w.Of(o)
		if v == 0 {
			continue
		}
		nearest := slices.MinFunc(w.Values, func(a, b Choice) int { return w.far(a, v) - w.far(b, v) })
		if nearest.Draw.Kind != ByHand {
			signs = append(signs, Drawn{nearest.Draw, v})
		}
	}
	return signs
}

// far is how far a choice is from a value.
func (w Way) far(c Choice, v int) int {
	is, ok := c.Is.(int)
	if !ok {
		is = 1 + slices.IndexFunc(w.Values, func(o Choice) bool { return o.Is == c.Is })
	}
	return max(is-v, v-is)
}

// Undoable lists what no hand can do as it stands, and leaves it out: what is
// said names the note and the reason.
func (s Score) Undoable() (said []string) {
	for i := range s.Notes {
		o := &s.Notes[i].Ornaments
		if *o == (Ornaments{}) {
			continue
		}
		for _, w := range Ways {
			if w.Of(*o) == 0 {
				continue
			}
			why := ""
			switch {
			case w.On != "" && WayByID(w.On).Of(*o) == 0:
				why = say.F("%s goes with a %s", w.Name, w.On)
			case w.Needs != nil:
				why = w.Needs(s, i)
			}
			if why == "" {
				continue
			}
			w.Put(o, 0)
			n := s.Notes[i]
			said = append(said, say.F("%s of %s in bar %d was left out: %s", w.Name, n.Pitch, s.BarOf(n.Start)+1, why))
		}
	}
	return said
}

func numbers(kind DrawKind, values ...int) (list []Choice) {
	for _, v := range values {
		list = append(list, Choice{v, fmt.Sprint(v), Draw{Kind: kind}})
	}
	return list
}

func adorned(sign string, values ...int) (list []Choice) {
	for _, v := range values {
		list = append(list, Choice{v, fmt.Sprint(v), Draw{Adorned, sign}})
	}
	return list
}

// joinUp asks for a note before on the string, lower (up 1), higher (−1) or just
// elsewhere (0).
func joinUp(what string, up int) func(Score, int) string {
	return func(s Score, i int) string {
		n := s.Notes[i]
		before, ok := s.Before(i)
		switch {
		case !ok:
			return say.F("%s comes from a note before it on its string", what)
		case up > 0 && n.Fret <= before.Fret:
			return say.F("%s goes up, and fret %d is not above fret %d", what, n.Fret, before.Fret)
		case up < 0 && n.Fret >= before.Fret:
			return say.F("%s goes down, and fret %d is not below fret %d", what, n.Fret, before.Fret)
		case up == 0 && n.Fret == before.Fret:
			return say.F("%s goes to another fret", what)
		}
		return ""
	}
}

// reaches asks for a fret so far away, and for a stopped string unless an open
// one will do.
func reaches(open bool, by func(Ornaments) int) func(Score, int) string {
	return func(s Score, i int) string {
		n := s.Notes[i]
		to := n.Fret + by(n.Ornaments)
		if n.Fret == 0 && !open {
			return "an open string cannot be slid on"
		}
		if to < 1 || to > s.In.Last() {
			return say.F("there is no fret %d", to)
		}
		return ""
	}
}

func fretted(what string) func(Score, int) string {
	return func(s Score, i int) string {
		if s.Notes[i].Fret == 0 {
			return what + " needs a finger on the string, and this one is open"
		}
		return ""
	}
}

func bendable(s Score, i int) string {
	n := s.Notes[i]
	most := s.In.Bendable(n.Placement)
	switch {
	case n.Fret == 0:
		return "an open string cannot be bent"
	case (n.Bend+1)/2 > most:
		return say.F("string %d bears a bend of %d half steps at fret %d", n.String, most, n.Fret)
	}
	return ""
}

func stillBent(s Score, i int) string {
	n := s.Notes[i]
	before, ok := s.Before(i)
	if !ok || before.Fret != n.Fret || before.Bend == 0 || before.Heard() == before.Pitch.MIDI() && before.Bend > 1 {
		return "the note before it on its string is not held bent at the same fret"
	}
	return ""
}
