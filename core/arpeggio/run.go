package arpeggio

import (
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Note is a chord tone on the neck. Finger is 1 to 4, or 0 for an open string.
type Note struct {
	neck.Placement
	Finger int
	Pitch  pitch.Pitch
	Degree harmony.Degree
}

// Run is an arpeggio through a window, low to high.
type Run struct {
	Chord        harmony.Chord
	Region       neck.Region
	Notes        []Note
	Alternatives []Note        // other places of the same pitches, without fingers
	Missing      []pitch.Pitch // chord tones between the lowest and highest that a window on every string does not hold
	Lacks        []Lack        // tones of the chord that the region holds in no octave
	Widest       neck.Span     // the widest reach without moving the hand
}

// usual is how many notes a run through a position seldom exceeds.
const usual = 16

// Make lays a chord through a window of an instrument. Where a pitch lies on
// two strings the easier hand wins, unless one of the places is in prefer and
// the strings can keep their order with it. The window must lie on the neck.
// N.C. gives an empty run.
func Make(in *neck.Instrument, chord harmony.Chord, w neck.Region, hand neck.Hand, prefer []neck.Placement) Run {
	run := Run{Chord: chord, Region: w}
	tones := make([]Note, 0, usual) // one per pitch, not yet placed
	options := make([][]neck.Placement, 0, usual)
	for midi := in.MIDI(neck.Placement{String: in.Strings(), Fret: w.Low}); midi <= in.MIDI(neck.Placement{String: 1, Fret: w.High}); midi++ {
		tone, ok := chord.ToneAt(midi % 12)
		if !ok {
			continue
		}
		p := pitch.At(midi, tone.Name)
		places := in.Find(midi, w)
		if len(places) == 0 {
			if len(tones) > 0 && w.Strings == 0 {
				run.Missing = append(run.Missing, p)
			}
			continue
		}
		tones = append(tones, Note{Pitch: p, Degree: tone.Degree})
		options = append(options, places)
	}
	for len(run.Missing) > 0 && len(tones) > 0 && run.Missing[len(run.Missing)-1].MIDI() > tones[len(tones)-1].Pitch.MIDI() {
		run.Missing = run.Missing[:len(run.Missing)-1]
	}
	touches, _ := in.Finger(preferred(options, prefer), hand)
	if touches == nil {
		touches, _ = in.Finger(options, hand)
	}
	run.Notes = make([]Note, 0, len(touches))
	for i, t := range touches {
		n := tones[i]
		n.Placement, n.Finger = t.Placement, t.Finger
		run.Notes = append(run.Notes, n)
		for _, other := range options[i] {
			if other != t.Placement {
				n.Placement, n.Finger = other, 0
				run.Alternatives = append(run.Alternatives, n)
			}
		}
	}
	run.Widest = in.Widest(touches, hand)
	run.Lacks = lacks(in, chord, w, run.Notes)
	return run
}

// Lack is a tone that a region does not hold, with the place of it that is nearest.
type Lack struct {
	harmony.Tone
	Nearest neck.Placement
}

// acrossString is how far a string beside the region counts, in millimetres: as much
// as the string spacing of a guitar.
const acrossString = 10

// lacks looks for the tones of a chord that are missing, and where they lie nearest:
// so far along the neck and across the strings.
func lacks(in *neck.Instrument, chord harmony.Chord, r neck.Region, notes []Note) (list []Lack) {
	for _, t := range chord.Tones {
		if slices.ContainsFunc(notes, func(n Note) bool { return n.Pitch.Name.Class() == t.Name.Class() }) {
			continue
		}
		best, least := neck.Placement{}, -1.0
		for str := 1; str <= in.Strings(); str++ {
			across := in.Strings()
			for s := 1; s <= in.Strings(); s++ {
				if r.Strings.Has(s) {
					across = min(across, max(s-str, str-s))
				}
			}
			for fret := range in.Last() + 1 {
				at := neck.Placement{String: str, Fret: fret}
				if in.MIDI(at)%12 != t.Name.Class() {
					continue
				}
				along := in.Reach(fret, max(r.Low, min(r.High, fret)))
				if far := along + acrossString*float64(across); least < 0 || far < least {
					best, least = at, far
				}
			}
		}
		list = append(list, Lack{t, best})
	}
	return list
}

// preferred narrows each note's options to the preferred place, if it has one.
func preferred(options [][]neck.Placement, prefer []neck.Placement) [][]neck.Placement {
	if len(prefer) == 0 {
		return options
	}
	out := slices.Clone(options)
	for i, places := range options {
		for _, p := range places {
			if slices.Contains(prefer, p) {
				out[i] = []neck.Placement{p}
			}
		}
	}
	return out
}

// Octave is the run from its lowest root to the next, or to its end where that lies
// outside; all of it where it has no root.
func (r Run) Octave() []Note {
	from := slices.IndexFunc(r.Notes, func(n Note) bool { return n.Degree == "R" })
	if from < 0 {
		return r.Notes
	}
	to := slices.IndexFunc(r.Notes[from+1:], func(n Note) bool { return n.Degree == "R" })
	if to < 0 {
		return r.Notes[from:]
	}
	return r.Notes[from : from+to+2]
}

// Neck lists every place of a chord's tones on the whole neck, string 1 first,
// without fingers.
func Neck(in *neck.Instrument, c harmony.Chord) (list []Note) {
	for s := 1; s <= in.Strings(); s++ {
		for f := 0; f <= in.Last(); f++ {
			at := neck.Placement{String: s, Fret: f}
			if t, ok := c.ToneAt(in.MIDI(at) % 12); ok {
				list = append(list, Note{Placement: at, Pitch: pitch.At(in.MIDI(at), t.Name), Degree: t.Degree})
			}
		}
	}
	return list
}
