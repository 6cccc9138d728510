package band

import (
	"slices"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// struck is a stroke of a comping rhythm.
type struck struct {
	at, strength int
	place        int
	sign         byte // x and o strike the chord; 5, 6 and 7 are two low strings: the root with that tone
}

// comp plays the chords of a bar in the rhythm of the phrase. The first stroke after a change is always the chord, so that the
// change is heard; where the feel pushes, the last before one is mostly the next chord already.
func (s *session) comp(here []form.Place, next form.Place) {
	room := s.room()
	var strokes []struck
	for step := range s.beats * s.g.Steps {
		k := struck{at: s.g.at(step), strength: 2, sign: s.rhythm[step%len(s.rhythm)]}
		switch {
		case k.sign == '.', k.sign == 'o' && room == dense:
			continue
		case k.sign == 'o':
			k.strength = 1
		}
		for j, p := range here {
			if k.at >= p.Beat*Tick {
				k.place = j
			}
		}
		strokes = append(strokes, k)
	}
	for j, p := range here {
		first := slices.IndexFunc(strokes, func(k struck) bool { return k.place == j && !s.late(k, p) })
		if first < 0 {
			strokes = append(strokes, struck{p.Beat * Tick, 2, j, 'x'})
		} else {
			strokes[first].strength = 2 // a change is struck as what it is
		}
		whole := func(k struck) bool { return k.place == j && (k.sign == 'x' || k.sign == 'o') && !s.late(k, p) }
		if first >= 0 && (!slices.ContainsFunc(strokes, whole) || p.Chord.Diminished()) {
			for i := range strokes {
				if k := &strokes[i]; k.place == j && (i == first || p.Chord.Diminished()) && k.sign != 'o' {
					k.sign = 'x'
				}
			}
		}
	}
	slices.SortStableFunc(strokes, func(a, b struck) int { return a.at - b.at })
	for i, k := range strokes {
		place, following := here[k.place], next
		if k.place+1 < len(here) {
			following = here[k.place+1]
		}
		chord, bar := place.Chord, s.bars
		if chord.None {
			continue
		}
		end := s.ticks()
		if i+1 < len(strokes) {
			end = strokes[i+1].at
		}
		end = min(end, (place.Beat+place.Length)*Tick)
		if s.g.pushes && s.late(k, place) && !following.Chord.None && following.Chord.String() != chord.String() && s.rng.Float64() < pushing {
			chord, k.sign, k.strength, end = following.Chord, 'x', 2, end+Tick/2
			if k.place+1 == len(here) {
				bar++
			}
		}
		length := max(Tick/8, int(float64(end-k.at)*s.g.hold))
		if k.sign == 'x' || k.sign == 'o' {
			s.strike(s.voice(chord, k.strength < 2, bar), k.at, length, k.strength, room)
		} else {
			s.strike(s.dyad(chord, k.sign), k.at, length, k.strength, room)
		}
	}
}

// pushing is how often the last stroke takes the next chord.
const pushing = 0.75

// late tells that a stroke is within the last eighth of its chord.
func (s *session) late(k struck, p form.Place) bool {
	last := s.g.Steps - 1
	if s.g.Steps == 4 {
		last = 2
	}
	return k.at >= (p.Beat+p.Length-1)*Tick+s.g.at(last)
}

// dyad is a chord's root and another of its tones on the low strings.
func (s *session) dyad(c harmony.Chord, sign byte) []int {
	low := s.comper.Range[0] - lowered
	root := low + pitch.Class(c.Root.Class()-low)
	return []int{root, root + pitch.Class(degreeOf(c, sign)-root)}
}

// Room is what a lead leaves the band in a bar.
type room int

const (
	usual  room = iota
	dense       // it has much to say: softer, and no stroke that is not needed
	silent      // it rests: the band answers
)

// notes a bar from which on a lead is dense.
const crowded = 7

func (s *session) room() room {
	if len(s.o.Lead) == 0 {
		return usual
	}
	n, from := 0, s.start-s.top
	for _, l := range s.o.Lead {
		if l.Start >= from && l.Start < from+s.ticks() && !l.Within {
			n++
		}
	}
	switch {
	case n >= crowded:
		return dense
	case n == 0:
		return silent
	}
	return usual
}

// louder is how much more loudly the band plays for the room it has.
var louder = map[room]int{dense: -10, silent: 4}

// A strummed chord is spread by so many ticks from string to string: a few milliseconds.
const spread = 7

// strike plays a voicing at a tick of the bar. A plectrum goes down on the beat, up off it.
func (s *session) strike(voicing []int, at, length, strength int, room room) {
	hand := s.human(Note{Start: s.start + at, Length: length, Velocity: 50 + 14*strength + louder[room]})
	for i, midi := range voicing {
		n := Note{Start: hand.Start, Length: length, MIDI: midi, Velocity: hand.Velocity}
		if s.comper.Strums {
			order := i
			if at%Tick != 0 {
				order = len(voicing) - 1 - i
			}
			n.Start += order * spread
			n.Length = max(1, length-order*spread)
			n.Velocity = max(1, n.Velocity-3*order)
		}
		s.chords = append(s.chords, n)
	}
}
