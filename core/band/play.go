package band

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"math/rand/v2"
	"slices"

	"undaris/core/form"
)

// Note is a sound of a track. Start and Length are in ticks from the top.
type Note struct {
	Start, Length int
	MIDI          int
	Velocity      int    // 1 to 127
	Bends         []Bend // of the lead, in order
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
	BassRange = [2]int{28, 55} // E1 to G3
	LeadRange = [2]int{16, 100}
)

// Programs, General MIDI from 0.
const (
	uprightBass, fingeredBass, cleanGuitar = 32, 33, 27
)

// Play writes the performance of a progression.
func Play(ctx context.Context, p form.Progression, g Groove, o Options) (Performance, error) {
	if len(p.Bars) == 0 {
		return Performance{}, errors.New("there are no bars to play")
	}
	if o.Choruses < 1 || o.Choruses > MaxChoruses || o.Choruses*len(p.Bars) > maxBars {
		return Performance{}, fmt.Errorf("%d choruses of %d bars; between 1 and %d choruses and at most %d bars can be played", o.Choruses, len(p.Bars), MaxChoruses, maxBars)
	}
	if o.Intensity < 0 || o.Intensity > MaxIntensity {
		return Performance{}, fmt.Errorf("an intensity of %d; it goes from 1 to %d", o.Intensity, MaxIntensity)
	}
	o.Intensity = cmp.Or(o.Intensity, 3)
	if o.Swing != 0 {
		if !(o.Swing >= SwingRange[0] && o.Swing <= SwingRange[1]) {
			return Performance{}, fmt.Errorf("a swing of %g; the second eighth can fall from %g (straight) to %g of the beat", o.Swing, SwingRange[0], SwingRange[1])
		}
		g.Swing = o.Swing
	}
	if o.Arc != "" && !slices.ContainsFunc(Arcs, func(a Arc) bool { return a.ID == o.Arc }) {
		return Performance{}, fmt.Errorf("there is no arc %q", o.Arc)
	}
	comper, err := ComperByID(o.Comp)
	if err != nil {
		return Performance{}, err
	}
	s := &session{p: p, g: g, o: o, comper: comper, rng: rand.New(rand.NewPCG(o.Seed, 0x75_6e_64_61))}
	if o.CountIn {
		s.countIn()
	}
	top := s.start
	for chorus := range o.Choruses {
		if ctx.Err() != nil {
			return Performance{}, ctx.Err()
		}
		s.o.Intensity = min(MaxIntensity, max(1, o.Intensity+arcOf(o.Arc, chorus, o.Choruses)))
		s.chorus(chorus)
	}
	if o.Ending {
		s.ending()
	}
	if err := s.playLead(top); err != nil {
		return Performance{}, err
	}
	return s.done(), nil
}

// session is a performance as it is being played.
type session struct {
	p                   form.Progression
	g                   Groove
	o                   Options
	comper              Comper
	rng                 *rand.Rand
	start               int // tick of the bar in hand
	bars                int
	drums, bass, chords []Note
	count, clicks       []Note
	solo, second        []Note
	markers             []Marker
	lastBass, lastFill  int
	voicing             []int
	rhythm              string // the comping rhythm of the phrase
}

func (s *session) bar() int { return s.p.Beats * Tick }

func (s *session) countIn() {
	for beat := range s.p.Beats {
		s.count = append(s.count, Note{Start: beat * Tick, Length: Tick / 8, MIDI: stick, Velocity: 96})
	}
	s.markers = append(s.markers, Marker{0, "count-in"})
	s.start, s.bars = s.bar(), 1
}

func (s *session) click() {
	for beat := range s.p.Beats {
		click := Note{Start: s.start + beat*Tick, Length: Tick / 8, MIDI: lowBlock, Velocity: 88}
		if beat == 0 {
			click.MIDI, click.Velocity = highBlock, 108
		}
		s.clicks = append(s.clicks, click)
	}
}

// playLead puts the lead over the band, swung as the band swings.
func (s *session) playLead(top int) error {
	for _, n := range s.o.Lead {
		from, to := top+s.g.swung(n.Start), top+s.g.swung(n.Start+n.Length)
		if n.MIDI < LeadRange[0] || n.MIDI > LeadRange[1] || n.Start < 0 || to <= from || from >= s.start {
			return fmt.Errorf("a note %d of the lead at beat %g cannot be played", n.MIDI, 1+float64(n.Start)/Tick)
		}
		note := Note{from, to - from, n.MIDI, cmp.Or(n.Velocity, 100), n.Bends}
		// A note beside a bent one is played on a channel of its own, which stays in tune.
		if len(n.Bends) == 0 && slices.ContainsFunc(s.o.Lead, func(m Note) bool { return m.Start == n.Start && len(m.Bends) > 0 }) {
			s.second = append(s.second, note)
			continue
		}
		s.solo = append(s.solo, note)
	}
	return nil
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
		if s.o.Metronome {
			s.click()
		}
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

// human moves a note a little in time and strength. A note on a beat is never
// early, so that bars and changes can be looped cleanly.
func (s *session) human(n Note) Note {
	n.Start = max(n.Start-n.Start%Tick, n.Start+s.rng.IntN(2*MaxShift+1)-MaxShift)
	n.Velocity = min(127, max(1, n.Velocity+7*(s.o.Intensity-3)+s.rng.IntN(2*MaxVelocity+1)-MaxVelocity))
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
	most := fillAt(s.p, bar)
	fills := fills[s.g.Steps]
	fill := most > phraseEnd || most > 0 && s.rng.IntN(5) < s.o.Intensity-1
	cut := s.p.Beats * s.g.Steps
	if fill {
		cut -= s.g.Steps
	}
	for _, d := range s.g.drums {
		s.pulse(d.pattern, func(step, strength int) {
			if step >= cut && d.note != kick || strength == 1 && s.o.Intensity == 1 {
				return
			}
			s.drums = append(s.drums, s.human(Note{Start: s.start + s.g.at(step), Length: Tick / 8, MIDI: d.note, Velocity: 46 + 24*strength}))
		})
	}
	if fill {
		// Not the one that was played last: nothing is filled twice alike.
		pick := (s.lastFill + 1 + s.rng.IntN(min(most, len(fills))-1)) % min(most, len(fills))
		s.lastFill = pick
		for i, note := range fills[pick] {
			if note > 0 {
				s.drums = append(s.drums, s.human(Note{Start: s.start + s.g.at(cut+i), Length: Tick / 8, MIDI: note, Velocity: 84 + 6*i}))
			}
		}
	}
	if bar == 0 && chorus > 0 || s.p.Bars[bar].Section != "" && s.o.Intensity > 3 {
		s.drums = append(s.drums, s.human(Note{Start: s.start, Length: Tick, MIDI: crash, Velocity: 92}))
	}
}

func (s *session) done() Performance {
	bass := fingeredBass
	if s.g.upright {
		bass = uprightBass
	}
	p := Performance{Beats: s.p.Beats, Bars: s.bars, Ticks: s.start, Markers: s.markers}
	for _, t := range []Track{
		{"drums", 9, 0, s.drums}, {"bass", 0, bass, s.bass}, {"chords", 1, s.comper.Program, s.chords},
		{"count-in", 9, 0, s.count}, {"metronome", 9, 0, s.clicks}, {"lead", 2, cleanGuitar, s.solo},
		{"lead beside", 3, cleanGuitar, s.second},
	} {
		optional := t.Name == "count-in" || t.Name == "metronome" || t.Channel > 1 && t.Channel < 9
		if slices.Contains(s.o.Without, t.Name) || optional && len(t.Notes) == 0 {
			continue
		}
		slices.SortStableFunc(t.Notes, func(a, b Note) int { return a.Start - b.Start })
		for i := range t.Notes {
			n := &t.Notes[i]
			n.Length = max(1, min(n.Length, p.Ticks-n.Start)) // nothing hangs over the end
		}
		p.Tracks = append(p.Tracks, t)
	}
	return p
}
