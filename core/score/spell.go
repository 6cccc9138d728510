package score

import (
	"slices"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// Respell names the notes of a line that was worked out, not written by hand, as
// players read them: a note that is no tone of its chord and moves by a half step
// takes a letter of its own, F♯ before G and E♭ before D; and an altered tone is
// not written F♭, C♭, E♯ or B♯ where a white key is meant.
func (s Score) Respell() {
	for i := range s.Notes {
		s.respell(i)
	}
}

// RespellNew names, as Respell does, the notes that were not there before or
// sounded otherwise; they are known by their numbers.
func (s Score) RespellNew(before []Note) {
	was := make(map[int]int, len(before))
	for _, n := range before {
		was[n.ID] = n.Pitch.MIDI()
	}
	for i, n := range s.Notes {
		if midi, known := was[n.ID]; !known || midi != n.Pitch.MIDI() {
			s.respell(i)
		}
	}
}

func (s Score) respell(i int) {
	n := &s.Notes[i]
	chord, sounds := s.ChordAt(n.Start)
	if !sounds {
		return
	}
	tone, ok := chord.ToneAt(pitch.Class(n.Pitch.MIDI()))
	switch {
	case ok && !alteredTone(tone.Degree):
		n.Pitch = pitch.At(n.Pitch.MIDI(), tone.Name)
	case ok:
		n.Pitch = pitch.At(n.Pitch.MIDI(), tone.Name.Simpler())
	default:
		n.Pitch = pitch.At(n.Pitch.MIDI(), n.Pitch.Name.Simpler())
		if next, follows := s.After(i); follows {
			n.Pitch = pitch.At(n.Pitch.MIDI(), apart(n.Pitch, s.Notes[next].Pitch))
		}
	}
}

func alteredTone(d harmony.Degree) bool {
	return slices.Contains([]harmony.Degree{"b5", "#5", "b9", "#9", "#11", "b13"}, d)
}

// apart names a note so that it does not share its letter with the one a half
// step away that it moves to.
func apart(n, to pitch.Pitch) pitch.Name {
	step := to.MIDI() - n.MIDI()
	if step*step != 1 || n.Letter != to.Letter {
		return n.Name
	}
	for _, r := range pitch.Roots {
		if r.Letter == (to.Letter-step+7)%7 && r.Class() == pitch.Class(n.MIDI()) {
			return r
		}
	}
	return n.Name
}
