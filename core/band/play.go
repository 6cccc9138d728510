package band

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"

	"undaris/core/form"
	"undaris/core/say"
	"undaris/core/score"
)

// Note is a sound of a track. Start and Length are in ticks from the top.
type Note struct {
	Start, Length int
	MIDI          int
	Velocity      int    // 1 to 127
	Bends         []Bend // of the lead, in order
	Within        bool   // a stroke within a written note, as of a trill
}

// Track is one player's part.
type Track struct {
	Name    string
	Channel int // 0 to 15; 9 is drums
	Program int // General MIDI, from 0; of no meaning for drums
	Notes   []Note
}

// What is marked beside bars, choruses and sections: the bars before the first chorus, and the last chord.
const (
	LeadIn    = "lead-in"
	LastChord = "last chord"
)

// Marker is a name at a tick.
type Marker struct {
	At   int
	Name string
}

// Metre is how many beats the bars have from a tick on.
type Metre struct{ At, Beats int }

// Performance is a chart as played.
type Performance struct {
	Metres  []Metre // the first at the top, and where it changes
	Bars    int     // with the count-in
	Ticks   int     // in all
	Tracks  []Track
	Markers []Marker // choruses, sections and bars
	Chords  []Marker // of the first chorus, where they begin
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
		return Performance{}, say.Errorf("there are no bars to play")
	}
	if o.Choruses < 1 || o.Choruses > MaxChoruses || o.Choruses*len(p.Bars) > maxBars {
		return Performance{}, say.Errorf("%d choruses of %d bars; between 1 and %d choruses and at most %d bars can be played", o.Choruses, len(p.Bars), MaxChoruses, maxBars)
	}
	if o.Intensity < 0 || o.Intensity > MaxIntensity {
		return Performance{}, say.Errorf("an intensity of %d; it goes from 1 to %d", o.Intensity, MaxIntensity)
	}
	o.Intensity = cmp.Or(o.Intensity, 3)
	if o.Swing != 0 {
		if !(o.Swing >= SwingRange[0] && o.Swing <= SwingRange[1]) {
			return Performance{}, say.Errorf("a swing of %g; the second eighth can fall from %g (straight) to %g of the beat", o.Swing, SwingRange[0], SwingRange[1])
		}
		g.Swing = o.Swing
	} else {
		g.Swing = g.SwingAt(o.Tempo)
	}
	if o.Arc != "" && !slices.ContainsFunc(Arcs, func(a Arc) bool { return a.ID == o.Arc }) {
		return Performance{}, say.Errorf("there is no arc %q", o.Arc)
	}
	comper, err := ComperByID(o.Comp)
	if err != nil {
		return Performance{}, err
	}
	bass, err := g.BassByID(o.Bass)
	if err != nil {
		return Performance{}, err
	}
	click, err := ClickByID(o.Click)
	if err != nil {
		return Performance{}, err
	}
	course, err := CourseByID(o.Course)
	if err != nil {
		return Performance{}, err
	}
	ending, err := EndingByID(o.Ending)
	if err != nil {
		return Performance{}, err
	}
	intro, err := IntroByID(o.Intro)
	if err != nil {
		return Performance{}, err
	}
	pickup := -p.Pickup.Beats
	for _, n := range o.Lead {
		pickup = min(pickup, n.Start)
	}
	o.CountIn = o.CountIn || pickup < 0 // a pickup lies in the count-in
	s := &session{p: p, g: g, o: o, comper: comper, bass: bass, clicking: click, rng: rand.New(rand.NewPCG(o.Seed, 0x75_6e_64_61))}
	if o.CountIn {
		s.countIn()
	}
	if from := intro.from(p, o.Key); from < len(p.Bars) {
		s.p = form.Progression{Beats: p.Beats, Bars: into(p.Bars[from:], p)}
		s.chorus(0, Courses[0], LeadIn)
		s.p = p
	} else {
		s.leadIn()
	}
	s.top = s.start
	s.harmony = append(s.over(), s.harmony...)
	for chorus := range o.Choruses {
		if ctx.Err() != nil {
			return Performance{}, ctx.Err()
		}
		s.o.Intensity = min(MaxIntensity, max(1, o.Intensity+arcOf(o.Arc, chorus, o.Choruses)))
		if chorus == o.Choruses-1 && ending.chords != "" {
			s.p = ended(p, o.Key)
		}
		s.chorus(chorus, course, fmt.Sprintf("chorus %d", chorus+1))
	}
	if ending.chords != "" {
		s.stop(ending)
	}
	if err := s.playLead(); err != nil {
		return Performance{}, err
	}
	return s.done(), nil
}

// session is a performance as it is being played.
type session struct {
	p                     form.Progression
	g                     Groove
	o                     Options
	comper                Comper
	bass                  Bass
	clicking              Click
	lastRoot, stays, root int // the bass: its class, for how many bars it has stayed, and where its figure stands
	voiced                map[string][][]int
	rng                   *rand.Rand
	start                 int // tick of the bar in hand
	bars, beats           int // begun so far; of the bar in hand
	metres                []Metre
	drums, low, chords    []Note
	count, clicks         []Note
	solo, second          []Note
	markers, harmony      []Marker
	lastBass, lastFill    int
	voicing               []int
	chosen                map[string]chosen
	ground                map[string][12]int // what each pitch class is to a bass, by chord
	top                   int                // tick of the first chorus
	rhythm                string             // the comping rhythm of the phrase
}

// bar begins a bar of so many beats, and writes the metre down where it is another.
func (s *session) bar(beats int) {
	s.beats = beats
	s.bars++
	if n := len(s.metres); n == 0 || s.metres[n-1].Beats != beats {
		s.metres = append(s.metres, Metre{s.start, beats})
	}
}

// ticks is how long the bar in hand is.
func (s *session) ticks() int { return s.beats * Tick }

func (s *session) countIn() {
	s.bar(s.p.Beats)
	for beat := range s.beats {
		s.count = append(s.count, Note{Start: beat * Tick, Length: Tick / 8, MIDI: stick, Velocity: 96})
	}
	s.markers = append(s.markers, Marker{0, "count-in"})
	s.start = s.ticks()
}

// playLead puts the lead over the band, swung as the band swings.
func (s *session) playLead() error {
	var starts []int
	for _, n := range s.o.Lead {
		if !n.Within {
			starts = append(starts, n.Start)
		}
	}
	second := s.g.Eighths(s.o.Tempo)
	if s.o.Swing != 0 {
		second = s.o.Swing
	}
	swings := score.Swings(starts, second)
	bent := slices.DeleteFunc(slices.Clone(s.o.Lead), func(n Note) bool { return len(n.Bends) == 0 })
	for _, n := range s.o.Lead {
		from, to := s.top+swings.Round(n.Start), s.top+swings.Round(n.Start+n.Length)
		if n.MIDI < LeadRange[0] || n.MIDI > LeadRange[1] || from < 0 || to <= from || from >= s.start {
			return say.Errorf("a note %d of the lead at beat %g cannot be played", n.MIDI, 1+float64(n.Start)/Tick)
		}
		note := Note{Start: from, Length: to - from, MIDI: n.MIDI, Velocity: cmp.Or(n.Velocity, 100), Bends: n.Bends}
		// A note beside a bent one is played on a channel of its own, which stays in tune.
		if beside(n, bent) {
			s.second = append(s.second, note)
			continue
		}
		s.solo = append(s.solo, note)
	}
	return nil
}

// beside tells that a note sounds while a bent one does: of two that are bent the later, or the
// higher where they begin together.
func beside(n Note, bent []Note) bool {
	return slices.ContainsFunc(bent, func(m Note) bool {
		if m.Start >= n.Start+n.Length || n.Start >= m.Start+m.Length || m.Start == n.Start && m.MIDI == n.MIDI {
			return false
		}
		return len(n.Bends) == 0 || m.Start < n.Start || m.Start == n.Start && m.MIDI < n.MIDI
	})
}

// chorus plays the form once.
func (s *session) chorus(chorus int, course Course, called string) {
	begins := s.start
	places := s.p.Places()
	next := 0
	starts := make([]int, len(s.p.Bars))
	for i, at := 0, s.start; i < len(starts); i++ {
		starts[i] = at
		at += s.p.BeatsOf(i) * Tick
	}
	s.bassLine(places, starts)
	for i, b := range s.p.Bars {
		name := fmt.Sprintf("bar %d", i+1)
		switch {
		case i == 0:
			name = called
		case b.Section != "":
			name = b.Section
		}
		s.bar(s.p.BeatsOf(i))
		s.markers = append(s.markers, Marker{s.start, name})
		s.drumBar(i, chorus)
		if s.o.Metronome {
			s.click(i)
		}
		if i%4 == 0 {
			s.rhythm = s.draw()
		}
		var here []form.Place
		for ; next < len(places) && places[next].Bar == i; next++ {
			here = append(here, places[next])
			if chorus == 0 && called != LeadIn {
				s.harmony = append(s.harmony, Marker{s.start + places[next].Beat*Tick, places[next].Chord.String()})
			}
		}
		if !s.o.DropChords || chorus%2 == 0 {
			following := places[0]
			if next < len(places) {
				following = places[next]
			}
			s.comp(here, following)
		}
		s.start += s.ticks()
	}
	for i := range s.p.Bars {
		s.set(course.scene(s.p, chorus, i), begins, begins+s.p.BeatsOf(i)*Tick)
		begins += s.p.BeatsOf(i) * Tick
	}
}

// draw is the comping rhythm of a phrase; figures on the low strings are a guitar's.
func (s *session) draw() string {
	all := slices.DeleteFunc(slices.Clone(s.g.chords), func(r string) bool { return !s.comper.Strums && strings.Contains(r, "5") })
	return all[s.rng.IntN(len(all))]
}

// swell is how much louder the band plays at a tick: it breathes in over two bars and out
// over two.
func (s *session) swell(tick int) int {
	const most = 4
	return int(math.Round(-most * math.Cos(2*math.Pi*float64(tick)/float64(4*s.p.Beats*Tick))))
}

// human moves a note a little in time and strength. A note on a beat is never
// early, so that bars and changes can be looped cleanly.
func (s *session) human(n Note) Note {
	n.Start = max(n.Start-n.Start%Tick, n.Start+s.rng.IntN(2*MaxShift+1)-MaxShift)
	n.Velocity = min(127, max(1, n.Velocity+7*(s.o.Intensity-3)+s.swell(n.Start)+s.rng.IntN(2*MaxVelocity+1)-MaxVelocity))
	return n
}

// pulse walks a pattern through the bar: 2 for a hit, 1 for a soft one.
func (s *session) pulse(pattern string, hit func(step, strength int)) {
	for step := range s.beats * s.g.Steps {
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
	cut := s.beats * s.g.Steps
	if fill {
		cut -= s.g.Steps
	}
	drums := s.g.drums
	if n := len(s.g.ghosts); n > 0 {
		drums = append(slices.Clip(drums), s.g.ghosts[s.rng.IntN(n)])
	}
	for _, d := range drums {
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
	p := Performance{Metres: s.metres, Bars: s.bars, Ticks: s.start, Markers: s.markers, Chords: s.harmony}
	for _, t := range []Track{
		{"drums", 9, 0, s.drums}, {"bass", 0, bass, s.low}, {"chords", 1, s.comper.Program, s.chords},
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
