package line

import (
	"undaris/core/neck"
	"undaris/core/score"
)

// scales counts runs of at least seven notes in one direction, without a rest,
// that turn and go back as far. A note struck twice, as at the turn, goes neither way.
func scales(s score.Score) (n int) {
	const long = 6 // steps
	up, length, before := 0, 0, 0
	for i := 1; i < len(s.Notes); i++ {
		step := s.Notes[i].Heard() - s.Notes[i-1].Heard()
		dir := min(1, max(-1, step))
		if s.Notes[i].Start-s.Notes[i-1].End() >= score.Tick/2 || size(step) > 5 {
			up, length, before = 0, 0, 0
			continue
		}
		if dir == 0 {
			continue
		}
		if dir != up {
			up, before, length = dir, length, 0
		}
		if length++; length == long && before >= long {
			n++
		}
	}
	return n
}

// far finds a note for which the hand moves more than four frets while the same
// pitch lies within the four frets where it is; −1 is none.
func far(s score.Score) (note int, near neck.Placement) {
	var touches []neck.Touch // found where a note is far enough for it to matter
	for i := 1; i < len(s.Notes); i++ {
		a, b := s.Notes[i-1], s.Notes[i]
		if size(a.Fret-b.Fret) <= 4 {
			continue
		}
		if touches == nil {
			if touches = score.Hands(s.In, s.Notes, neck.UsualHand); touches == nil {
				return -1, near
			}
		}
		hand := touches[i-1].Hand
		if a.Fret == 0 || b.Fret == 0 || b.Join == score.Slide || b.Start-a.End() >= score.Tick || b.Fret >= hand-4 && b.Fret <= hand+8 {
			continue
		}
		if near := s.In.Find(b.Pitch.MIDI(), neck.Region{Low: max(1, hand), High: min(s.In.Last(), hand+3)}); len(near) > 0 {
			return i, near[0]
		}
	}
	return -1, near
}

// short finds the last note of a phrase that ends within a beat before a change
// which then is silent; −1 is none.
func short(s score.Score, l Landing) int {
	if l.When != Silent || l.At == 0 {
		return -1
	}
	for i, n := range s.Notes {
		if n.Start < l.At && n.End() <= l.At && l.At-n.End() <= score.Tick {
			if next, ok := s.After(i); (!ok || s.Notes[next].Start > l.At) && i > 0 && n.Start-s.Notes[i-1].End() < score.Tick/2 {
				return i
			}
		}
	}
	return -1
}
