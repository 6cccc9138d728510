package line

import (
	"undaris/core/blend"
	"undaris/core/neck"
	"undaris/core/score"
)

// adornments are what may be added to a note of a plain line, the largest first: how long
// the note has to be, and how often it is chosen among what else would fit.
var adornments = []struct {
	way   string
	least int // ticks
	often float64
	both  bool // it goes below the note too
}{
	{"trill", 2 * score.Tick, 0.25, false},
	{"turn", score.Tick, 0.5, true},
	{"double", score.Tick / 2, 1, false},
}

// Adorn adds turns, hammered doubles and trills to notes of a line: amount is which part of
// the notes that bear one, 0 (none) to 1. Every note stays where it begins and rests where
// it rested; neighbours are notes of the chord, the palette or the chord's scale. What was
// added before is taken away first. Notes of locked bars stay.
func Adorn(s score.Score, p blend.Palette, hand neck.Hand, amount float64, seed uint64, locked map[int]bool) []score.Note {
	touches := score.Hands(s.In, s.Notes, hand)
	notes := append([]score.Note(nil), s.Notes...)
	stays := func(n score.Note) bool { return locked[s.BarOf(max(0, n.Start))] }
	last := -1
	for i := range notes {
		n := &notes[i]
		if stays(*n) {
			continue
		}
		n.Ornaments = n.Plain()
		together := i > 0 && notes[i-1].Start == n.Start || i+1 < len(notes) && notes[i+1].Start == n.Start
		next, follows := s.After(i)
		joined := follows && s.Notes[next].Join != score.Picked
		if together || joined || n.Bend > 0 || n.Dead || n.Join != score.Picked || n.Scoop != 0 || last == i-1 && last >= 0 || chance(seed, uint64(n.Start)+1<<33, "adorned", 0) >= amount {
			continue
		}
		for _, a := range adornments {
			up := neighbour(s, p, i, touches, a.both)
			if n.Length < a.least || up == 0 || chance(seed, uint64(n.Start)+1<<33, a.way, 0) >= a.often {
				continue
			}
			n.Vibrato = n.Vibrato && a.way == "turn"
			score.WayByID(a.way).Put(&n.Ornaments, up)
			last = i
			break
		}
	}
	return notes
}

// neighbour is how many half steps above a note its neighbour lies, 1 or 2: a note of its
// chord, of the palette or of the chord's scale. With both there is one as far below. 0 is none.
func neighbour(s score.Score, p blend.Palette, i int, touches []neck.Touch, both bool) int {
	n := s.Notes[i]
	chord, sounds := s.ChordAt(n.Start)
	if !sounds {
		return 0
	}
	inside := membership{key: s.Key, palette: p}
	belongs := func(midi int) bool {
		if _, tone := chord.ToneAt(midi % 12); tone || inside.has(chord, midi) {
			return true
		}
		for _, t := range chord.Scale() {
			if t.Name.Class() == midi%12 {
				return true
			}
		}
		return false
	}
	midi := n.Pitch.MIDI()
	for _, up := range []int{2, 1} {
		reach := s.In.CheckPlacement(neck.Placement{String: n.String, Fret: n.Fret + up}) == nil && (!both || n.Fret >= up) && free(touches, i, up, both)
		if reach && belongs(midi+up) && (!both || belongs(midi-up)) {
			return up
		}
	}
	return 0
}

// free tells whether the hand, as it lies, has a finger left for a neighbour so many frets above a note, and for one below
// where that is wanted. Of a line that has no fingers nothing is free.
func free(touches []neck.Touch, i, up int, both bool) bool {
	return touches != nil && touches[i].Reaches(up) && (!both || touches[i].Reaches(-up))
}
