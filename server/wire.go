package server

import (
	"undaris/core/arpeggio"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/store"
)

// each makes a list of another; a list without anything in it is [], not null.
func each[A, B any](list []A, wire func(A) B) []B {
	out := make([]B, len(list))
	for i, a := range list {
		out[i] = wire(a)
	}
	return out
}

// words is a list of sentences; without any it is [], not null.
func words(list []string) []string { return append([]string{}, list...) }

// Tone is a tone of a chord.
type Tone struct {
	Degree    string `json:"degree" doc:"R b3 3 b5 5 #5 6 b7 7 b9 9 #9 11 #11 b13 13"`
	Note      string `json:"note" doc:"spelled by its degree, such as Bb"`
	Simpler   string `json:"simpler,omitempty" doc:"the plainer name of the same sound, where there is one"`
	HalfSteps int    `json:"halfSteps" doc:"above the root"`
}

// Chord is the reading of a symbol.
type Chord struct {
	Symbol string `json:"symbol" doc:"in plain letters; reads back to the same chord"`
	Root   string `json:"root"`
	Bass   string `json:"bass,omitempty" doc:"where it is not the root"`
	None   bool   `json:"none,omitempty" doc:"N.C., silence"`
	Tones  []Tone `json:"tones"`
}

func wireChord(c harmony.Chord) Chord {
	w := Chord{Symbol: c.String(), None: c.None, Tones: []Tone{}}
	if c.None {
		return w
	}
	w.Root = c.Root.String()
	if c.Slash() {
		w.Bass = c.Bass.String()
	}
	w.Tones = each(c.Tones, func(t harmony.Tone) Tone {
		tone := Tone{Degree: string(t.Degree), Note: t.Name.String(), HalfSteps: t.Interval.HalfSteps}
		if s := t.Name.Simpler(); s != t.Name {
			tone.Simpler = s.String()
		}
		return tone
	})
	return w
}

// Note is a chord tone on the neck.
type Note struct {
	String int    `json:"string" doc:"1 is the highest"`
	Fret   int    `json:"fret" doc:"0 is the open string"`
	Finger int    `json:"finger,omitempty" doc:"1 to 4; absent on an open string and on alternatives"`
	Note   string `json:"note"`
	MIDI   int    `json:"midi"`
	Degree string `json:"degree"`
}

// Span is a reach of the hand.
type Span struct {
	Low         int     `json:"low"`
	High        int     `json:"high"`
	Millimetres float64 `json:"mm"`
	Comfortable bool    `json:"comfortable"`
}

// Run is one arpeggio through a window, low to high.
type Run struct {
	Notes        []Note   `json:"notes"`
	Alternatives []Note   `json:"alternatives" doc:"other places of the same pitches in the window"`
	Missing      []string `json:"missing,omitempty" doc:"chord tones in between that the window does not hold"`
	Lacks        []Lack   `json:"lacks,omitempty" doc:"tones that the region holds in no octave, with the nearest place of each"`
	Widest       Span     `json:"widest" doc:"the widest reach without moving the hand"`
}

func wireNote(n arpeggio.Note) Note {
	return Note{n.String, n.Fret, n.Finger, n.Pitch.Name.String(), n.Pitch.MIDI(), string(n.Degree)}
}

func wireSpan(s neck.Span) Span {
	return Span{s.Low, s.High, tenth(s.Millimetres), s.Comfortable}
}

func wireRun(r arpeggio.Run) Run {
	w := Run{Notes: each(r.Notes, wireNote), Alternatives: each(r.Alternatives, wireNote), Widest: wireSpan(r.Widest)}
	for _, l := range r.Lacks {
		w.Lacks = append(w.Lacks, Lack{wireTone(l.Tone), store.Spot(l.Nearest)})
	}
	if len(r.Missing) > 0 {
		w.Missing = each(r.Missing, pitch.Pitch.String)
	}
	return w
}

// Lack is a tone that a region does not hold.
type Lack struct {
	ToneName
	Nearest store.Spot `json:"nearest"`
}

// Position is a place of the hand on the neck.
type Position struct {
	Number  int    `json:"number" doc:"1 to 5; 0 for a region of the player's own"`
	Shape   string `json:"shape,omitempty" doc:"the tonic's movable open shape"`
	Name    string `json:"name,omitempty" doc:"of a region of a way to divide the neck"`
	Low     int    `json:"low"`
	High    int    `json:"high"`
	Strings []int  `json:"strings,omitempty" doc:"that it is on, the lowest first; all where none is said"`
	Octave  bool   `json:"octave,omitempty" doc:"twelve frets above the one that bears its number first"`
	Nut     bool   `json:"nut,omitempty" doc:"played with open strings, its window slid up to 0-4"`
}

func wirePosition(p neck.Position) Position {
	w := wireRegion(p.Region)
	w.Number, w.Shape, w.Octave, w.Nut = p.Number, p.Shape, p.Octave, p.Nut
	return w
}

// wireRegion is a region that is no position of the key.
func wireRegion(r neck.Region) Position {
	return Position{Low: r.Low, High: r.High, Strings: r.Strings.List()}
}

func (p Position) region() neck.Region {
	return neck.Region{Low: p.Low, High: p.High, Strings: neck.StringsOf(p.Strings...)}
}
