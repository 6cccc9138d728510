package score

import (
	"slices"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Move takes a line with its chords to another key of the same mode, up or down by
// at most six half steps. With shape every note keeps its string and its finger and
// frets says how far the hand goes; where that runs off the neck it goes the octave
// the other way. Else, or where neither way fits, String is 0 and places are to be found.
func (s Score) Move(to form.Key, shape bool) (moved Score, frets int) {
	by := (to.Tonic.Class() - s.Key.Tonic.Class() + 18) % 12
	by -= 6
	moved = s
	moved.Key, moved.Progression = to, s.Transpose(s.Key, to)
	if shape {
		ways := []int{by, by + 12}
		if by > 0 {
			ways[1] = by - 12
		}
		for _, way := range ways {
			if notes, ok := s.slid(way, to); ok {
				moved.Notes = notes
				return moved, way
			}
		}
	}
	// In place: the octave in which most of it lies on this neck, the nearer one of
	// two, and what still lies beyond an octave up or down.
	best, most := by, -1
	for _, way := range []int{by, by + 12, by - 12} {
		held := 0
		for _, n := range s.Notes {
			if s.onNeck(n.Pitch.MIDI() + way) {
				held++
			}
		}
		if held > most {
			best, most = way, held
		}
	}
	moved.Notes = slices.Clone(s.Notes)
	for i := range moved.Notes {
		n := &moved.Notes[i]
		n.Pitch, n.Placement, n.Finger = s.carried(*n, best, to), neck.Placement{}, 0
		for _, octave := range []int{1, -1} {
			if !s.onNeck(n.Pitch.MIDI()) && s.onNeck(n.Pitch.MIDI()+12*octave) {
				n.Pitch.Octave += octave
			}
		}
	}
	return moved, 0
}

// Read is the score as players of another reading write it: what is written is moved, the
// places on the neck stay.
func (s Score) Read(r form.Reading) Score {
	to := r.Key(s.Key)
	if to == s.Key {
		return s
	}
	out := s
	out.Key, out.Progression = to, r.Chords(s.Progression, s.Key)
	out.Notes = slices.Clone(s.Notes)
	for i, n := range s.Notes {
		out.Notes[i].Pitch = s.carried(n, r.Up, to)
	}
	return out
}

// onNeck tells whether a pitch can be played at all.
func (s Score) onNeck(midi int) bool {
	return len(s.In.Find(midi, neck.Region{Low: 0, High: s.In.Last()})) > 0
}

// slid moves every note along its string.
func (s Score) slid(frets int, to form.Key) ([]Note, bool) {
	notes := slices.Clone(s.Notes)
	for i := range notes {
		n := &notes[i]
		open := n.Fret == 0
		n.Fret += frets
		if n.Pitch = s.carried(*n, frets, to); s.In.CheckPlacement(n.Placement) != nil || s.In.MIDI(n.Placement) != n.Pitch.MIDI() {
			return nil, false
		}
		if open != (n.Fret == 0) {
			n.Finger = 0
		}
	}
	return notes, true
}

// carried is a pitch so many half steps away, spelled in the new key as it was in
// the old one, but without double accidentals.
func (s Score) carried(n Note, by int, to form.Key) pitch.Pitch {
	name := to.Tonic.Up(s.Key.Tonic.To(n.Pitch.Name))
	return pitch.At(n.Pitch.MIDI()+by, name.Simpler())
}
