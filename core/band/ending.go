package band

import "undaris/core/harmony"

// ending is a bar more: the chord that the form begins with, struck together on its first
// beat and held. A song in silence ends in silence.
func (s *session) ending() {
	var home harmony.Chord
	for _, p := range s.p.Places() {
		if !p.Chord.None {
			home = p.Chord
			break
		}
	}
	s.bar(s.p.Beats)
	s.markers = append(s.markers, Marker{s.start, "ending"})
	if len(home.Tones) > 0 {
		root := s.near(home.Bass.Class(), s.lastBass)
		s.low = append(s.low, s.human(Note{Start: s.start, Length: s.ticks(), MIDI: root, Velocity: 92}))
		s.strike(home, 0, s.ticks(), 2)
		for _, drum := range []int{kick, crash} {
			s.drums = append(s.drums, s.human(Note{Start: s.start, Length: Tick, MIDI: drum, Velocity: 96}))
		}
	}
	s.start += s.ticks()
}
