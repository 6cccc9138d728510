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
	moved.Notes = slices.Clone(s.Notes)
	for i := range moved.Notes {
		n := &moved.Notes[i]
		n.Pitch, n.Placement, n.Finger = s.carried(*n, by, to), neck.Placement{}, 0
	}
	return moved, 0
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
