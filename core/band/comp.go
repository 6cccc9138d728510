package band

import (
	"slices"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
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
		end := s.bar()
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
	s.voicing = s.voice(chord)
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

// voice chooses a shell for the chord: its third and seventh, with one tone more
// on top, moving as little as it can from the voicing before. A chord without a
// third or a seventh takes what it has.
func (s *session) voice(c harmony.Chord) []int {
	reach := s.comper.Range
	core, extra := shell(c)
	var best []int
	least := 1 << 30
	for low := reach[0]; low <= reach[1]-12; low++ {
		for _, first := range core {
			if low%12 != first {
				continue
			}
			v := stack(low, core, extra)
			if v[len(v)-1] > reach[1] {
				continue
			}
			if m := s.movement(v, reach); m < least {
				best, least = v, m
			}
		}
	}
	return best
}

// shell splits a chord into the classes every voicing has and those it may add.
func shell(c harmony.Chord) (core, extra []int) {
	eleventh := c.HasDegree("11") && c.HasDegree("3")
	for _, t := range c.Tones {
		switch role := t.Degree.Role(); {
		case eleventh && role == harmony.Third:
			// it would rub against the 11, which is what the chord is called by
		case role == harmony.Third || role == harmony.Seventh || eleventh && t.Degree == "11":
			core = append(core, t.Name.Class())
		default:
			extra = append(extra, t.Name.Class())
		}
	}
	if c.Diminished() { // without its root it is the dominant a half step below
		return append(core, c.Root.Class()), slices.DeleteFunc(extra, func(class int) bool { return class == c.Root.Class() })
	}
	if len(core) < 2 { // triads and fifths need their root to be understood
		core = append(core, c.Root.Class())
		extra = slices.DeleteFunc(extra, func(class int) bool { return class == c.Root.Class() })
	}
	return core, extra
}

// stack builds a close voicing upwards from a note of the core: the rest of the
// core, then the highest-ranking tone left over.
func stack(low int, core, extra []int) []int {
	v := []int{low}
	above := func(class int) int {
		top := v[len(v)-1]
		return top + pitch.Class(class-top)
	}
	for _, class := range core {
		if class != low%12 {
			v = append(v, above(class))
		}
	}
	slices.Sort(v)
	if len(extra) > 0 {
		v = append(v, above(extra[len(extra)-1]))
	}
	return v
}

// movement is how far a voicing lies from the one before; the first takes the
// middle of the register.
func (s *session) movement(v []int, reach [2]int) int {
	if len(s.voicing) == 0 {
		return distance(v[0], (reach[0]+reach[1])/2-5)
	}
	sum := 0
	for i, midi := range v {
		sum += distance(midi, s.voicing[min(i, len(s.voicing)-1)])
	}
	return sum + max(0, reach[0]+4-v[0]) // stay off the very bottom
}
