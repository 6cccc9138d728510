package band

import (
	"slices"

	"undaris/core/form"
	"undaris/core/harmony"
)

// comp plays the chords of a bar in the rhythm of the phrase. The first stroke
// after a change is always played, so that the change is heard.
func (s *session) comp(here []form.Place) {
	type stroke struct{ at, strength, place int }
	var strokes []stroke
	s.pulse(s.rhythm, func(step, strength int) {
		strokes = append(strokes, stroke{s.g.at(step), strength, 0})
	})
	for i := range strokes {
		for j, p := range here {
			if strokes[i].at >= p.Beat*Tick {
				strokes[i].place = j
			}
		}
		if i == 0 || strokes[i].place != strokes[i-1].place {
			strokes[i].strength = 2 // a change is struck as what it is
		}
	}
	for j, p := range here {
		if !slices.ContainsFunc(strokes, func(k stroke) bool { return k.place == j }) {
			strokes = append(strokes, stroke{p.Beat * Tick, 2, j})
		}
	}
	slices.SortFunc(strokes, func(a, b stroke) int { return a.at - b.at })
	for i, k := range strokes {
		chord := here[k.place].Chord
		if chord.None {
			continue
		}
		end := s.ticks()
		if i+1 < len(strokes) {
			end = strokes[i+1].at
		}
		if k.place+1 < len(here) {
			end = min(end, here[k.place+1].Beat*Tick)
		}
		length := max(Tick/8, int(float64(end-k.at)*s.g.hold))
		s.strike(chord, k.at, length, k.strength)
	}
}

// A strummed chord is spread by so many ticks from string to string: a few milliseconds.
const spread = 7

// strike plays a chord at a tick of the bar. A plectrum goes down on the beat, up off it.
func (s *session) strike(chord harmony.Chord, at, length, strength int) {
	s.voicing = s.voice(chord, strength < 2)
	hand := s.human(Note{Start: s.start + at, Length: length, Velocity: 50 + 14*strength})
	for i, midi := range s.voicing {
		n := Note{Start: hand.Start, Length: length, MIDI: midi, Velocity: hand.Velocity}
		if s.comper.Strums {
			order := i
			if at%Tick != 0 {
				order = len(s.voicing) - 1 - i
			}
			n.Start += order * spread
			n.Length = max(1, length-order*spread)
			n.Velocity = max(1, n.Velocity-3*order)
		}
		s.chords = append(s.chords, n)
	}
}
