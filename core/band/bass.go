package band

import (
	"slices"

	"undaris/core/form"
	"undaris/core/harmony"
)

// bassUnder plays the bass of one chord, and its last note leads into the next.
func (s *session) bassUnder(here, next form.Place) {
	if here.Chord.None {
		s.lastBass = 0
		return
	}
	start := s.start + here.Beat*Tick
	root := s.near(here.Chord.Bass.Class(), s.lastBass)
	changes := !next.Chord.None && next.Chord.Bass.Class() != here.Chord.Bass.Class()
	play := func(at, length, midi, velocity int) {
		s.bass = append(s.bass, s.human(Note{Start: at, Length: length, MIDI: midi, Velocity: velocity}))
		s.lastBass = midi
	}
	switch s.g.bass {
	case walking:
		for beat := range here.Length {
			midi := root
			switch {
			case beat == 0:
			case beat == here.Length-1 && changes:
				midi = s.lead(next.Chord)
			default:
				midi = s.walk(here.Chord, root)
			}
			play(start+beat*Tick, Tick*9/10, midi, 88)
		}
	case driving:
		for half := range here.Length * 2 {
			midi := root
			if changes && half == here.Length*2-1 {
				midi = s.lead(next.Chord)
			}
			play(start+half*Tick/2, Tick*2/5, midi, 82+6*((half+1)%2))
		}
	case twoBeat:
		for beat := 0; beat < here.Length; beat += 2 {
			midi := root
			if beat > 0 {
				midi = s.near(s.fifth(here.Chord), s.lastBass)
			}
			length := min(2, here.Length-beat)
			if changes && length == 2 && beat+2 >= here.Length {
				play(start+beat*Tick, Tick*3/2, midi, 86)
				play(start+(beat+2)*Tick-Tick/3, Tick/3, s.lead(next.Chord), 74)
				continue
			}
			play(start+beat*Tick, length*Tick*9/10, midi, 86)
		}
	case onTheOne:
		sixteenth := Tick / 4
		for beat := range here.Length {
			at := start + beat*Tick
			switch beat % 4 {
			case 0:
				play(at, Tick/2, root, 96)
				play(at+3*sixteenth, sixteenth, root, 74)
			case 1:
				if s.rng.IntN(2) == 0 {
					play(at+2*sixteenth, sixteenth, s.near(s.seventh(here.Chord), root), 78)
				}
			case 2:
				play(at+sixteenth, sixteenth, s.near(s.fifth(here.Chord), root), 76)
				play(at+2*sixteenth, sixteenth, s.near(s.seventh(here.Chord), root), 80)
			case 3:
				midi := root
				if changes && beat == here.Length-1 {
					midi = s.lead(next.Chord)
				}
				play(at+2*sixteenth, sixteenth, midi, 78)
			}
		}
	case syncopated:
		for beat := range here.Length {
			switch beat % 4 {
			case 0:
				play(start+beat*Tick, Tick*2/3, root, 92)
			case 1:
				play(start+beat*Tick+Tick/2, Tick/3, s.near(s.fifth(here.Chord), root), 78)
			case 2:
				play(start+beat*Tick+Tick/2, Tick/3, root, 80)
			case 3:
				midi := s.near(s.other(here.Chord), s.lastBass)
				if changes && beat == here.Length-1 {
					midi = s.lead(next.Chord)
				}
				play(start+beat*Tick+Tick/2, Tick/3, midi, 76)
			}
		}
	}
}

// near finds a pitch class close to the last note, in the bass's range; from
// nothing it starts around the A string.
func (s *session) near(class, last int) int {
	if last == 0 {
		last = 36
	}
	best := 0
	for midi := BassRange[0]; midi <= BassRange[1]; midi++ {
		if midi%12 == class && (best == 0 || distance(midi, last) < distance(best, last)) {
			best = midi
		}
	}
	// Left to itself a line drifts; the top and the bottom are for passing through.
	if best > BassRange[1]-7 {
		best -= 12
	}
	return best
}

// other is a chord tone beside the one just played, as a pitch class.
func (s *session) other(c harmony.Chord) int {
	n := s.rng.IntN(len(c.Tones))
	for range c.Tones {
		class := c.Tones[n%len(c.Tones)].Name.Class()
		if class != s.lastBass%12 && c.Tones[n%len(c.Tones)].Degree.Role() != harmony.Extension {
			return class
		}
		n++
	}
	return c.Root.Class()
}

// walk is the next step of a walking bass: a chord tone, or on the way a step of the
// scale or a half step between, never the note just played.
func (s *session) walk(c harmony.Chord, root int) int {
	if s.rng.IntN(3) > 0 {
		return s.near(s.other(c), s.lastBass)
	}
	up := s.lastBass <= root || s.rng.IntN(2) == 0 && s.lastBass < BassRange[1]-7
	for by := 1; by <= 2; by++ {
		midi := s.lastBass + by
		if !up {
			midi = s.lastBass - by
		}
		inScale := slices.ContainsFunc(c.Scale(), func(t harmony.Tone) bool { return t.Name.Class() == midi%12 })
		if midi >= BassRange[0] && midi <= BassRange[1] && (inScale || by == 1 && s.rng.IntN(4) == 0) {
			return midi
		}
	}
	return s.near(s.other(c), s.lastBass)
}

// seventh is the chord's seventh or sixth, or else its root.
func (s *session) seventh(c harmony.Chord) int {
	for _, t := range c.Tones {
		if t.Degree.Role() == harmony.Seventh {
			return t.Name.Class()
		}
	}
	return c.Root.Class()
}

func (s *session) fifth(c harmony.Chord) int {
	for _, t := range c.Tones {
		if t.Degree.Role() == harmony.Fifth {
			return t.Name.Class()
		}
	}
	return c.Root.Class()
}

// lead is a note a half step from the next bass note, from the side the line
// comes from, or its fifth.
func (s *session) lead(next harmony.Chord) int {
	goal := s.near(next.Bass.Class(), s.lastBass)
	switch {
	case s.rng.IntN(4) == 0:
		return s.near((goal+7)%12, s.lastBass)
	case goal > s.lastBass && goal-1 >= BassRange[0]:
		return goal - 1
	case goal+1 <= BassRange[1]:
		return goal + 1
	}
	return goal
}

func distance(a, b int) int { return max(a-b, b-a) }
