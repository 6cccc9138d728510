package edit

import (
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/score"
)

// octaveReach is how many frets an octave that is held lies apart at most; between its strings one or two are silenced.
const octaveReach = 3

// Octaves doubles a line in octaves: each note that sounds alone gets the one above it, two strings higher or three, where a hand holds
// both. Notes that are bent or stand in locked bars stay as they are, and so does what has no octave under the hand; that is said.
// What is doubled already is not doubled again.
func (l *Line) Octaves() {
	together, fresh, alone, doubled := map[int]int{}, 0, 0, 0
	for _, n := range l.Notes {
		together[n.Start]++
		fresh = max(fresh, n.ID)
	}
	var more []score.Note
	for _, n := range l.Notes {
		if together[n.Start] > 1 {
			continue
		}
		place, ok := l.octave(n)
		if !ok {
			alone++
			continue
		}
		fresh++
		doubled++
		above := n
		above.ID, above.Placement, above.Finger = fresh, place, 0
		above.Pitch.Octave++
		above.Ornaments = score.Ornaments{}
		above.Ornaments.Vibrato = n.Ornaments.Vibrato
		more = append(more, above)
	}
	if doubled == 0 {
		l.say("there is nothing to double")
		return
	}
	l.Notes = append(l.Notes, more...)
	score.Sort(l.Notes)
	lick.Separate(l.Notes, l.Length()*score.Tick)
	score.Finger(l.In, l.Notes, l.Hand)
	lick.Label(l.Score)
	if alone > 0 {
		l.say("%[1]d of %[2]d notes stay single: no octave of them lies under the hand", alone, alone+doubled)
	}
}

// octave is where the octave above a note is held with it.
func (l Line) octave(n score.Note) (best neck.Placement, ok bool) {
	if n.Bend != 0 || l.Locked[l.BarOf(n.Start)] {
		return best, false
	}
	for _, p := range l.In.Find(n.Pitch.MIDI()+12, l.whole()) {
		strings, frets := n.String-p.String, p.Fret-n.Fret
		if (strings == 2 || strings == 3) && max(frets, -frets) <= octaveReach && (!ok || strings == 2) {
			best, ok = p, true
		}
	}
	return best, ok
}
