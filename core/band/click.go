package band

import (
	"slices"

	"undaris/core/say"
)

// Click is what a metronome marks: so many clicks to the beat, on some beats, in some bars.
type Click struct {
	ID, Name string
	perBeat  int
	on       func(bar, beat int) bool
}

// Clicks lists them; the first is the default.
var Clicks = []Click{
	{"beats", "every beat", 1, everywhere},
	{"eighths", "eighths", 2, everywhere},
	{"triplets", "triplets", 3, everywhere},
	{"sixteenths", "sixteenths", 4, everywhere},
	{"backbeat", "2 and 4", 1, func(_, beat int) bool { return beat%2 == 1 }},
	{"bars", "1 of each bar", 1, func(_, beat int) bool { return beat == 0 }},
	{"top", "bar 1 only", 1, func(bar, _ int) bool { return bar == 0 }},
}

func everywhere(int, int) bool { return true }

// ClickByID finds what a metronome marks; every beat by no name.
func ClickByID(id string) (Click, error) {
	if id == "" {
		return Clicks[0], nil
	}
	i := slices.IndexFunc(Clicks, func(c Click) bool { return c.ID == id })
	if i < 0 {
		return Click{}, say.Errorf("there is no click called %q", id)
	}
	return Clicks[i], nil
}

// click marks a bar of the form, from 0.
func (s *session) click(bar int) {
	for beat := range s.beats {
		if !s.clicking.on(bar, beat) {
			continue
		}
		for part := range s.clicking.perBeat {
			n := Note{Start: s.start + beat*Tick + part*Tick/s.clicking.perBeat, Length: Tick / 8, MIDI: lowBlock, Velocity: 88}
			switch {
			case part > 0:
				n.Velocity = 58
			case beat == 0:
				n.MIDI, n.Velocity = highBlock, 108
			}
			s.clicks = append(s.clicks, n)
		}
	}
}
