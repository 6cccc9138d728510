package lick

import (
	"cmp"
	"slices"

	"undaris/core/crossing"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// Home is where a lick was written: the chord that it was played over, on which neck, and the place of each note. The zero value
// is no home.
type Home struct {
	Chord  string // its symbol; of a lick of a key its tonic chord
	Tuning string // as [neck.New] reads it
	Frets  int
	Capo   int
	Places []neck.Placement // note by note
}

// anyScale is the scale of a neck that is asked for its notes alone, in millimetres.
const anyScale = 648

// HomeOf is where some notes lie that are played over a chord.
func HomeOf(notes []score.Note, chord harmony.Chord, in *neck.Instrument) Home {
	h := Home{Chord: chord.String(), Tuning: in.Tuning(), Frets: in.Frets, Capo: in.Capo}
	for _, n := range notes {
		h.Places = append(h.Places, n.Placement)
	}
	return h
}

// Lies tells that a home is one of this lick: each of its places sounds the note that stands there, all in one octave.
func (l Lick) Lies(h Home) bool {
	in, err := neck.New(h.Tuning, h.Frets, anyScale, h.Capo)
	if err != nil || len(h.Places) != len(l.Notes) || len(l.Notes) == 0 {
		return false
	}
	chord, err := harmony.Parse(h.Chord)
	if err != nil || chord.None {
		return false
	}
	base := 0
	for i, p := range h.Places {
		if in.CheckPlacement(p) != nil {
			return false
		}
		root := in.MIDI(p) - l.Notes[i].above()
		if i == 0 {
			base = root
		}
		if root != base {
			return false
		}
	}
	return pitch.Class(base) == chord.Root.Class()
}

// AtHome lays the lick where it was written, with its first beat at a tick, on a neck on which those places sound the same; ok is
// false on another, and where the home is none of this lick.
func (l Lick) AtHome(h Home, at int, in *neck.Instrument, hand neck.Hand) (notes []score.Note, chord harmony.Chord, ok bool) {
	if !l.Lies(h) {
		return nil, chord, false
	}
	own, _ := neck.New(h.Tuning, h.Frets, anyScale, h.Capo)
	chord = harmony.MustParse(h.Chord)
	for i, n := range l.Notes {
		p := h.Places[i]
		if in.CheckPlacement(p) != nil || in.MIDI(p) != own.MIDI(p) {
			return nil, chord, false
		}
		step, _ := n.Degree.Interval()
		notes = append(notes, score.Note{Start: at + n.Start, Length: n.Length, Pitch: pitch.At(in.MIDI(p), chord.Root.Up(step)), Placement: p,
			Degree: string(n.Degree), Ornaments: n.Ornaments})
	}
	score.Finger(in, notes, hand)
	return notes, chord, true
}

// Frets are the lowest and the highest fret that is pressed; 0 where all strings are open.
func Frets(notes []score.Note) (low, high int) {
	low, high, _ = ofFrets(notes)
	return low, high
}

// ofFrets are the lowest and the highest fret that notes lie on, open strings apart; ok is false where all are open.
func ofFrets(notes []score.Note) (low, high int, ok bool) {
	for _, n := range notes {
		if n.Fret == 0 {
			continue
		}
		if !ok {
			low, high, ok = n.Fret, n.Fret, true
		}
		low, high = min(low, n.Fret), max(high, n.Fret)
	}
	return low, high, ok
}

// Around is the region that notes lie in, with a fret to either side.
func Around(in *neck.Instrument, notes []score.Note) neck.Region {
	low, high, ok := ofFrets(notes)
	if !ok {
		return neck.Region{Low: 0, High: min(4, in.Last())}
	}
	if slices.ContainsFunc(notes, func(n score.Note) bool { return n.Fret == 0 }) {
		low = 0
	}
	return neck.Region{Low: max(0, low-1), High: min(in.Last(), high+1)}
}

// Spread is one of the places on the neck where a lick can be had over a chord.
type Spread struct {
	Notes  []score.Note
	Travel float64 // of the hand from where the lick was written, in millimetres
	Home   bool    // it is the shape of that place
}

// Places are all places where a lick can be had over a chord, its own shape first and then the nearest: those that a hand holds as
// it stands, each once.
func (l Lick) Places(from []score.Note, to harmony.Chord, g Ground) (list []Spread) {
	stood := fretted(from)
	add := func(notes []score.Note, home bool) {
		if slices.ContainsFunc(list, func(s Spread) bool { return sameSpots(s.Notes, notes) }) {
			return
		}
		s := Spread{Notes: notes, Home: home}
		if here := fretted(notes); here.Fret > 0 && stood.Fret > 0 {
			s.Travel = crossing.Travel(g.In, stood, here)
		}
		list = append(list, s)
	}
	for _, notes := range l.shapes(from, to, 0, g) {
		add(notes, true)
	}
	own := len(list)
	nears := []int{0}
	if len(from) > 0 && len(l.Notes) <= long {
		nears = append(nears, middle(from)-12, middle(from)+12)
	}
	for low := 0; low+span <= g.In.Last(); low += 1 + len(l.Notes)/long {
		g.Region = neck.Region{Low: low, High: low + span, Strings: g.Region.Strings}
		for _, near := range nears {
			g.Near = near
			notes, err := l.Realise(to, 0, g)
			if err == nil && len(l.Lost(notes)) == 0 {
				add(notes, false)
			}
		}
	}
	byTravel := func(a, b Spread) int { return cmp.Compare(a.Travel, b.Travel) }
	slices.SortStableFunc(list[:own], byTravel)
	slices.SortStableFunc(list[own:], byTravel)
	return list
}

// long is a lick for which not every place is looked at, but one in two, in three, as it gets longer.
const long = 32

// span is how many frets a place reaches over beyond its first.
const span = 4

func sameSpots(a, b []score.Note) bool {
	return slices.EqualFunc(a, b, func(x, y score.Note) bool { return x.Placement == y.Placement })
}
