package band

import (
	"cmp"
	"slices"

	"undaris/core/form"
)

// into is the bars of an intro with the pickup's chords at their end, where they lead to the first bar.
func into(bars []form.Bar, p form.Progression) []form.Bar {
	out := slices.Clone(bars)
	last := &out[len(out)-1]
	from := cmp.Or(last.Beats, p.Beats) - p.Pickup.Beats
	if p.Pickup.Beats == 0 || from <= 0 {
		return out
	}
	last.Changes = slices.DeleteFunc(slices.Clone(last.Changes), func(c form.Change) bool { return c.Beat >= from })
	for _, c := range p.Pickup.Changes {
		last.Changes = append(last.Changes, form.Change{Beat: from + c.Beat, Chord: c.Chord})
	}
	return out
}

// over are the pickup's chords where they begin, before the first chorus.
func (s *session) over() (out []Marker) {
	for _, c := range s.p.Pickup.Changes {
		out = append(out, Marker{s.top + (c.Beat-s.p.Pickup.Beats)*Tick, c.Chord.String()})
	}
	return out
}

// leadIn plays the pickup while the sticks count: each of its chords once, held to the next, over its bass.
func (s *session) leadIn() {
	p := s.p.Pickup
	for i, c := range p.Changes {
		if c.Chord.None {
			continue
		}
		end := p.Beats
		if i+1 < len(p.Changes) {
			end = p.Changes[i+1].Beat
		}
		at, length := (c.Beat-p.Beats)*Tick, (end-c.Beat)*Tick-Tick/8
		s.lastBass = s.near(c.Chord.Bass.Class(), s.lastBass)
		s.low = append(s.low, s.human(Note{Start: s.start + at, Length: length, MIDI: s.lastBass, Velocity: 86}))
		s.strike(s.voice(c.Chord, false, s.bars), at, length, 2, usual)
	}
}
