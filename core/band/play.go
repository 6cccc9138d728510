package band

import (
	"fmt"
	"math/rand/v2"
	"slices"

	"undaris/core/form"
)

// Note is a sound of a track. Start and Length are in ticks from the top.
type Note struct {
	Start, Length int
	MIDI          int
	Velocity      int // 1 to 127
}

// Track is one player's part.
type Track struct {
	Name    string
	Channel int // 0 to 15; 9 is drums
	Program int // General MIDI, from 0; of no meaning for drums
	Notes   []Note
}

// Marker is a name at a tick.
type Marker struct {
	At   int
	Name string
}

// Performance is a chart as played.
type Performance struct {
	Beats   int // in a bar
	Bars    int // with the count-in
	Ticks   int // in all
	Tracks  []Track
	Markers []Marker // choruses, sections and bars
}

// Humanising: no note is moved by more ticks or changed by more velocity than this.
const (
	MaxShift    = 14
	MaxVelocity = 9
)

// Ranges of the players, as MIDI numbers, both ends included.
var (
	BassRange   = [2]int{28, 55} // E1 to G3
	GuitarRange = [2]int{48, 74}
	OrganRange  = [2]int{52, 79}
)

// Play writes the performance of a progression.
func Play(p form.Progression, g Groove, o Options) (Performance, error) {
	if o.Choruses < 1 || o.Choruses > MaxChoruses || o.Choruses*len(p.Bars) > maxBars {
		return Performance{}, fmt.Errorf("%d choruses of %d bars; between 1 and %d choruses and at most %d bars can be played", o.Choruses, len(p.Bars), MaxChoruses, maxBars)
	}
	if len(p.Bars) == 0 {
		return Performance{}, fmt.Errorf("there are no bars to play")
	}
	s := &session{p: p, g: g, o: o, rng: rand.New(rand.NewPCG(o.Seed, 0x75_6e_64_61))}
	if o.CountIn {
		s.countIn()
	}
	for chorus := range o.Choruses {
		s.chorus(chorus)
	}
	return s.done(), nil
}

// session is a performance as it is being played.
type session struct {
	p                   form.Progression
	g                   Groove
	o                   Options
	rng                 *rand.Rand
	start               int // tick of the bar in hand
	bars                int
	drums, bass, chords []Note
	markers             []Marker
	lastBass            int
	voicing             []int
	rhythm              string // the comping rhythm of the phrase
}

func (s *session) bar() int { return s.p.Beats * Tick }

func (s *session) countIn() {
	for beat := range s.p.Beats {
		s.drums = append(s.drums, Note{beat * Tick, Tick / 8, stick, 96})
	}
	s.markers = append(s.markers, Marker{0, "count-in"})
	s.start, s.bars = s.bar(), 1
}

func (s *session) chorus(chorus int) {
	places := s.p.Places()
	next := 0
	for i, b := range s.p.Bars {
		name := fmt.Sprintf("bar %d", i+1)
		switch {
		case i == 0:
			name = fmt.Sprintf("chorus %d", chorus+1)
		case b.Section != "":
			name = b.Section
		}
		s.markers = append(s.markers, Marker{s.start, name})
		s.drumBar(i, chorus)
		if i%4 == 0 {
			s.rhythm = s.g.chords[s.rng.IntN(len(s.g.chords))]
		}
		var here []form.Place
		for ; next < len(places) && places[next].Bar == i; next++ {
			here = append(here, places[next])
		}
		for j, place := range here {
			following := places[0]
			if j+1 < len(here) {
				following = here[j+1]
			} else if next < len(places) {
				following = places[next]
			}
			s.bassUnder(place, following)
		}
		if !s.o.DropChords || chorus%2 == 0 {
			s.comp(here)
		}
		s.start += s.bar()
		s.bars++
	}
}

// human moves a note a little in time and strength. A note on the first beat of
// a performance is not moved before it.
func (s *session) human(n Note) Note {
	n.Start = max(0, n.Start+s.rng.IntN(2*MaxShift+1)-MaxShift)
	n.Velocity = min(127, max(1, n.Velocity+s.rng.IntN(2*MaxVelocity+1)-MaxVelocity))
	return n
}

// pulse walks a pattern through the bar: 2 for a hit, 1 for a soft one.
func (s *session) pulse(pattern string, hit func(step, strength int)) {
	for step := range s.p.Beats * s.g.Steps {
		switch pattern[step%len(pattern)] {
		case 'x':
			hit(step, 2)
		case 'o':
			hit(step, 1)
		}
	}
}

func (s *session) drumBar(bar, chorus int) {
	turn := bar == len(s.p.Bars)-1
	fill := turn || bar%4 == 3 && s.rng.IntN(2) == 0
	cut := s.p.Beats * s.g.Steps
	if fill {
		cut -= s.g.Steps
	}
	for _, d := range s.g.drums {
		s.pulse(d.pattern, func(step, strength int) {
			if step >= cut && d.note != kick {
				return
			}
			s.drums = append(s.drums, s.human(Note{s.start + s.g.at(step), Tick / 8, d.note, 46 + 24*strength}))
		})
	}
	if fill {
		for i, note := range []int{snare, highTom, midTom, lowTom}[:min(4, s.g.Steps+1)] {
			if i < s.g.Steps {
				s.drums = append(s.drums, s.human(Note{s.start + s.g.at(cut+i), Tick / 8, note, 84 + 6*i}))
			}
		}
	}
	if bar == 0 && chorus > 0 {
		s.drums = append(s.drums, s.human(Note{s.start, Tick, crash, 92}))
	}
}

func (s *session) done() Performance {
	program := 26 // jazz guitar
	name := "guitar"
	if s.o.Organ {
		program, name = 16, "organ"
	}
	p := Performance{Beats: s.p.Beats, Bars: s.bars, Ticks: s.start, Markers: s.markers, Tracks: []Track{
		{"drums", 9, 0, s.drums}, {"bass", 0, 32, s.bass}, {name, 1, program, s.chords},
	}}
	for _, t := range p.Tracks {
		slices.SortStableFunc(t.Notes, func(a, b Note) int { return a.Start - b.Start })
		for i := range t.Notes {
			n := &t.Notes[i]
			n.Length = max(1, min(n.Length, p.Ticks-n.Start)) // nothing hangs over the end
		}
	}
	return p
}
