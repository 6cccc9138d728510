package band

import (
	"slices"
	"strings"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/say"
)

// Ending is how the band stops: what it plays over its last two bars, of four beats each, in eighths. Until a track's first sign that
// is not t it keeps time as ever; then
//
//	x - .     strikes, holds, is silent
//	R b7 5 …  the bass: a degree of the key
//	f         the drums fill
//
// In other metres it keeps time until the last bar and strikes its first beat.
type Ending struct {
	ID, Name, About string
	closing         string // of a line (an ID of line.Closings) that stops in the same way
	chords          string
	bass            string
	drums           string
	over            map[int]string // chords from an eighth on, of the key; else the chart's own
	lands           int            // the eighth at which it is home
}

// time is a bar in which the band plays on.
const time = "t t t t t t t t   "

// Endings lists them; the first is none.
var Endings = []Ending{
	{ID: "none", Name: "none", About: "it stops where the last chorus does"},
	{ID: "held", Name: "a held last chord", About: "the last chord struck and held, and the drums fill under it", closing: "held-sixth held-ninth held-six-nine",
		chords: time + "x - - - - - - -", bass: time + "R - - - - - - -", drums: time + "x . f f f f x .", lands: 8},
	{ID: "hit", Name: "stop on 1", About: "the last bar's first beat, short; then silence",
		chords: time + "x . . . . . . .", bass: time + "R . . . . . . .", drums: time + "x . . . . . . .", lands: 8},
	{ID: "walk-down", Name: "walking home", About: "all together ♭7 6 ♭6 5 down to the one", closing: "walk-home",
		chords: "t t t t x x - x   x . x - - - - -", bass: "t t t t b7 6 - b13   5 . R - - - - -", drums: "t t t t x x . x   x . x . . . . .",
		over: map[int]string{8: "V7", 10: "I"}, lands: 10},
	{ID: "half-step", Name: "from a half step above", About: "the one, the chord a half step above it, and the one with its ninth", closing: "half-step-above",
		chords: "t t t t . x - x   x - - - - - . .", bass: "t t t t . R - b9   R - - - - - . .", drums: "t t t t . x . x   x . . . . . . .",
		over: map[int]string{7: "bII9", 8: "I9"}, lands: 8},
	{ID: "stop-time", Name: "stop-time", About: "a stop on 1, a bar for whoever plays alone, and the last chord",
		chords: "x . . . . . . .   x - - - . . . .", bass: "R . . . . . . .   R - - - . . . .", drums: "x . . . . . . .   x . . . . . . .", lands: 8},
}

// EndingByID finds an ending; none by no name.
func EndingByID(id string) (Ending, error) {
	if id == "" {
		return Endings[0], nil
	}
	i := slices.IndexFunc(Endings, func(e Ending) bool { return e.ID == id })
	if i < 0 {
		return Ending{}, say.Errorf("there is no ending %q", id)
	}
	return Endings[i], nil
}

// EndingOf is the ending that goes with how a line closes; none where it closes on nothing.
func EndingOf(closing string) string {
	for _, e := range Endings {
		if slices.Contains(strings.Fields(e.closing), closing) {
			return e.ID
		}
	}
	return ""
}

// ended is the chart as the last chorus has it. A chart that comes home in its last bar ends in its last two; else two bars of
// the one follow. A song in silence ends in silence.
func ended(p form.Progression, key *form.Key) form.Progression {
	home, ok := homeOf(p, key)
	if !ok {
		return p
	}
	n := len(p.Bars)
	at := func(bar int) (c form.Change, single bool) {
		changes := p.Bars[bar].Changes
		return changes[len(changes)-1], len(changes) == 1
	}
	if n >= 3 {
		end, _ := at(n - 1)
		before, _ := at(n - 2)
		if end.Chord.Root.Class() == home.Root.Class() && !end.Chord.None && !before.Chord.None && p.BeatsOf(n-1) == p.Beats && p.BeatsOf(n-2) == p.Beats {
			return p
		}
	}
	out := form.Progression{Beats: p.Beats, Bars: slices.Clone(p.Bars)}
	for i := range 2 {
		b := form.Bar{Changes: []form.Change{{Chord: home}}}
		if i == 0 {
			b.Section = "ending"
		}
		out.Bars = append(out.Bars, b)
	}
	return out
}

// homeOf is the chord of the one: the chart's own where it has one, else one of the key, or without a key the first that sounds.
func homeOf(p form.Progression, key *form.Key) (home harmony.Chord, ok bool) {
	for _, place := range p.Places() {
		switch c := place.Chord; {
		case c.None:
		case key != nil && c.Root.Class() == key.Tonic.Class() && !c.Slash():
			return c, true
		case !ok:
			home, ok = c, true
		}
	}
	if ok && key != nil {
		kind := map[bool]string{true: "m7", false: "7"}[key.Minor]
		if own, err := harmony.Parse(key.Tonic.String() + kind); err == nil {
			return own, true
		}
	}
	return home, ok
}

// stop plays an ending in place of what was played in the last two bars of a performance.
func (s *session) stop(e Ending) {
	home, ok := homeOf(s.p, s.o.Key)
	if !ok || len(s.p.Bars) < 2 {
		return
	}
	n := len(s.p.Bars)
	top := s.start - (s.p.BeatsOf(n-1)+s.p.BeatsOf(n-2))*Tick
	chords, bass, drums, over, lands := strings.Fields(e.chords), strings.Fields(e.bass), strings.Fields(e.drums), e.over, e.lands
	if s.p.BeatsOf(n-1) != 4 || s.p.BeatsOf(n-2) != 4 {
		chords = plainly(s.p.BeatsOf(n-2), s.p.BeatsOf(n-1), "x", "-")
		bass, drums = plainly(s.p.BeatsOf(n-2), s.p.BeatsOf(n-1), "R", "-"), plainly(s.p.BeatsOf(n-2), s.p.BeatsOf(n-1), "x", ".")
		over, lands = nil, 2*s.p.BeatsOf(n-2)
	}
	at := func(eighth int) int { return top + eighth/2*Tick + eighth%2*int(s.g.Eighths(s.o.Tempo)*Tick+0.5) }
	cut := func(notes []Note, signs []string) []Note {
		from := at(slices.IndexFunc(signs, func(t string) bool { return t != "t" })) - MaxShift - spread*6
		notes = slices.DeleteFunc(notes, func(n Note) bool { return n.Start >= from })
		for i := range notes {
			notes[i].Length = max(1, min(notes[i].Length, from-notes[i].Start))
		}
		return notes
	}
	s.drums, s.low, s.chords = cut(s.drums, drums), cut(s.low, bass), cut(s.chords, chords)
	held := func(signs []string, i int) int {
		j := i + 1
		for j < len(signs) && signs[j] == "-" {
			j++
		}
		return at(j) - at(i)
	}
	begin := s.start
	defer func() { s.start = begin }()
	s.start = top
	for i, sign := range chords {
		if sign == "x" {
			s.strike(s.voice(s.chordAt(i, over, home, top, at(i)), false, s.bars), at(i)-top, held(chords, i), 2, usual)
		}
	}
	before := s.lastBass
	for i, sign := range bass {
		if step, known := harmony.Degree(sign).Interval(); known {
			class := home.Root.Class() + step.HalfSteps
			if sign == "R" {
				class = s.chordAt(i, over, home, top, at(i)).Bass.Class()
			}
			before = s.near(class%12, before)
			s.low = append(s.low, s.human(Note{Start: at(i), Length: max(Tick/4, held(bass, i)), MIDI: before, Velocity: 92}))
		}
	}
	fill := slices.Index(drums, "f")
	for i, sign := range drums {
		switch sign {
		case "x":
			for _, drum := range []int{kick, crash} {
				if drum == crash && i < lands {
					drum = snare
				}
				s.drums = append(s.drums, s.human(Note{Start: at(i), Length: Tick / 2, MIDI: drum, Velocity: 96}))
			}
		case "f":
			toms := []int{snare, highTom, midTom, lowTom}
			s.drums = append(s.drums, s.human(Note{Start: at(i), Length: Tick / 8, MIDI: toms[min(i-fill, len(toms)-1)], Velocity: 80 + 4*(i-fill)}))
		}
	}
	s.markers = append(s.markers, Marker{at(lands), LastChord})
}

// plainly keeps time for a bar and strikes the first beat of the next.
func plainly(first, second int, strike, hold string) (out []string) {
	for range 2 * first {
		out = append(out, "t")
	}
	out = append(out, strike)
	for range 2*second - 1 {
		out = append(out, hold)
	}
	return out
}

// chordAt is what an ending strikes at an eighth: its own chord, else the chart's.
func (s *session) chordAt(eighth int, over map[int]string, home harmony.Chord, top, tick int) harmony.Chord {
	own := ""
	for i := range eighth + 1 {
		if c, ok := over[i]; ok {
			own = c
		}
	}
	root := home.Root
	up := func(letters, halfSteps int, kind string) harmony.Chord {
		name := s.spell(root.Class() + halfSteps)
		if c, err := harmony.Parse(name + kind); err == nil {
			return c
		}
		return home
	}
	switch own {
	case "V7":
		return up(4, 7, "7")
	case "bII9":
		return up(1, 1, "9")
	case "I9":
		return ninth(home)
	case "I":
		return home
	}
	at := top
	for bar := len(s.p.Bars) - 2; bar < len(s.p.Bars); bar++ {
		for _, c := range slices.Backward(s.p.Bars[bar].Changes) {
			if from := at + c.Beat*Tick; from <= tick && tick < at+s.p.BeatsOf(bar)*Tick && !c.Chord.None {
				return c.Chord
			}
		}
		at += s.p.BeatsOf(bar) * Tick
	}
	return home
}

func (s *session) spell(class int) string {
	key := form.Key{}
	if s.o.Key != nil {
		key = *s.o.Key
	}
	return key.Spell(class % 12).String()
}

// ninth is a chord with its ninth, where it is one that can have it.
func ninth(c harmony.Chord) harmony.Chord {
	minor, cut := strings.CutPrefix(c.Suffix(), "m")
	kind := map[string]string{"": "6/9", "6": "6/9", "7": "9"}[minor]
	if kind == "" || c.Slash() {
		return c
	}
	if cut {
		kind = "m" + map[string]string{"6/9": "6", "9": "9"}[kind]
	}
	if to, err := harmony.Parse(c.Root.String() + kind); err == nil {
		return to
	}
	return c
}
