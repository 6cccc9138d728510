package lick

import (
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/core/score"
)

// Note is one note of a lick.
type Note struct {
	Start  int            // ticks from the lick's first beat, 960 to the quarter; negative in a pickup
	Length int            // ticks
	Degree harmony.Degree // above the root of the chord, or of the key
	Octave int            // octaves above the lick's own root
	String int            // where it would rather lie; 0 is no wish
	score.Ornaments
}

// Lick is a phrase kept as degrees.
type Lick struct {
	// Chord is the kind of chord it was made over, as the suffix of a symbol: "7",
	// "m7", "". For a lick of a key it is "" or "m", the key's mode.
	Chord string
	OfKey bool   // degrees are counted from the key, whatever chord sounds
	Notes []Note // by Start, then from the lowest
}

// Limits of a lick.
const (
	MaxNotes = 256
	MaxTicks = 16 * 4 * score.Tick // to the end of the last note
	MaxEarly = 12 * score.Tick     // of a pickup
)

// Check says what in a lick cannot be kept.
func (l Lick) Check() error {
	if len(l.Notes) == 0 {
		return say.Errorf("a lick needs at least one note")
	}
	if len(l.Notes) > MaxNotes {
		return say.Errorf("a lick of %d notes; %d can be kept", len(l.Notes), MaxNotes)
	}
	if _, err := harmony.Parse("C" + l.Chord); err != nil {
		return say.Errorf("%q is no kind of chord: %w", l.Chord, err)
	}
	for i, n := range l.Notes {
		if _, ok := n.Degree.Interval(); !ok {
			return say.Errorf("%q in note %d is no degree; write R, b3, 3, 11, b5, 5, 6, b7 and so on", n.Degree, i+1)
		}
		if n.Start < -MaxEarly || n.Start > MaxTicks || n.Length > MaxTicks || n.Start+n.Length > MaxTicks {
			return say.Errorf("note %d goes from beat %d over %d beats; a lick begins at most %d beats before its first and lasts %d", i+1, n.Start/score.Tick+1, n.Length/score.Tick, MaxEarly/score.Tick, MaxTicks/score.Tick)
		}
		if n.Length <= 0 || i > 0 && n.Start < l.Notes[i-1].Start {
			return say.Errorf("note %d begins before the one it follows, or has no length", i+1)
		}
		if n.Octave < -3 || n.Octave > 4 || n.String < 0 || n.String > neck.MaxStrings {
			return say.Errorf("note %d is %d octaves away on string %d; that is beyond a neck", i+1, n.Octave, n.String)
		}
		if err := n.Ornaments.Check(); err != nil {
			return say.Errorf("note %d: %w", i+1, err)
		}
	}
	return nil
}

// End is the tick at which the last note is over.
func (l Lick) End() int {
	end := 0
	for _, n := range l.Notes {
		end = max(end, n.Start+n.Length)
	}
	return end
}

// Leans lists the extensions that the lick leans on, from the lowest: those that last a beat or more, are the last note, or
// stand where a beat of 1 or 3 begins. What is bent counts as what it is bent to, since degrees are.
func (l Lick) Leans() (list []harmony.Degree) {
	chord, err := harmony.Parse("C" + l.Chord)
	for i, n := range l.Notes {
		if n.Degree.Role() != harmony.Extension || err == nil && !l.OfKey && chord.HasDegree(n.Degree) || slices.Contains(list, n.Degree) {
			continue
		}
		if n.Length >= score.Tick || i == len(l.Notes)-1 || n.Start%(2*score.Tick) == 0 {
			list = append(list, n.Degree)
		}
	}
	slices.SortFunc(list, func(a, b harmony.Degree) int {
		x, _ := a.Interval()
		y, _ := b.Interval()
		return x.HalfSteps - y.HalfSteps
	})
	return list
}

// above is a note's distance from the lick's root in half steps.
func (n Note) above() int {
	i, _ := n.Degree.Interval()
	return i.HalfSteps + 12*n.Octave
}

// Settled is the lick with its octaves counted so that the lowest note lies
// within an octave of the root: two licks that sound alike are equal.
func (l Lick) Settled() Lick {
	l.Notes = slices.Clone(l.Notes)
	low := 1 << 20
	for _, n := range l.Notes {
		low = min(low, n.Octave)
	}
	for i := range l.Notes {
		l.Notes[i].Octave -= low
	}
	return l
}

// Of keeps written notes as a lick over one chord, or over the key's tonic when
// key is set. Ticks are counted from zero. A note that is no degree of the chord
// takes the degree of its sound.
func Of(notes []score.Note, root harmony.Chord, zero int, ofKey bool) Lick {
	l := Lick{Chord: root.Suffix(), OfKey: ofKey}
	if ofKey {
		l.Chord = ""
		if root.Minor() {
			l.Chord = "m"
		}
	}
	for _, n := range notes {
		d := degreeOf(n, root)
		i, _ := d.Interval()
		above := n.Pitch.MIDI() - root.Root.Class() - i.HalfSteps
		l.Notes = append(l.Notes, Note{Start: n.Start - zero, Length: n.Length, Degree: d, Octave: above / 12, String: n.String, Ornaments: n.Ornaments})
	}
	return l.Settled()
}

// plainDegrees name the twelve half steps above a root where no chord says
// otherwise.
var plainDegrees = [12]harmony.Degree{"R", "b9", "9", "b3", "3", "11", "b5", "5", "b13", "6", "b7", "7"}

// degreeOf is the degree of a note over a chord: by its spelling where that is a
// degree, else by its sound.
func degreeOf(n score.Note, chord harmony.Chord) harmony.Degree {
	class := chord.Above(n.Pitch.MIDI())
	if t, ok := chord.ToneAt(n.Pitch.MIDI() % 12); ok {
		return t.Degree
	}
	for _, d := range []harmony.Degree{"b9", "9", "b3", "#9", "3", "11", "b5", "#11", "5", "#5", "b13", "6", "b7", "7"} {
		if i, _ := d.Interval(); i.HalfSteps == class && chord.Root.Up(i) == n.Pitch.Name {
			return d
		}
	}
	return plainDegrees[class]
}
