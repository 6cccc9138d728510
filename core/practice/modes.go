package practice

import (
	"cmp"
	"context"
	"slices"

	"undaris/core/blend"
	"undaris/core/edit"
	"undaris/core/exercise"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/line"
	"undaris/core/say"
	"undaris/core/score"
)

// Playing is what may be played between the changes.
type Playing string

// From strict to wide.
const (
	Tones     Playing = "tones"     // chord tones alone
	Scale     Playing = "scale"     // every note of the chord's scale
	Chromatic Playing = "chromatic" // everything that leads on to a chord tone
	Anything  Playing = "anything"
)

// Stage is what is asked of one pass.
type Stage struct {
	Land []harmony.Role // what counts as landed; empty where every chord tone does
	Play Playing
	Says string
}

// Mode is a way to practise over a band. The last stage stays.
type Mode struct {
	ID, Name   string
	Says       string
	Stages     []Stage
	DropChords bool // the band leaves the chords out in every other chorus
	// ground is what is played over in the place of a chart's chords; nil is those.
	ground func(form.Progression, form.Key) form.Progression
	InMind bool // the ground is the player's alone: the band plays the chart
	// part writes what is to be played; nil where anything may be.
	part func(context.Context, edit.Line, Ask) (Part, error)
	// judge judges a pass of what is written; nil where every note of it counts.
	judge func(l edit.Line, heard []judge.Heard, swing float64) (Free, error)
	ByEar bool // the part is heard and not shown
	With  With // what it is made of
	// Most is how many choruses of it are enough for a hand, one after the other; 0 where nothing strains. Easier is what is
	// asked instead of it by who chooses so, in words; "" where there is no such choice.
	Most   int
	Easier string
}

// With is something kept that a mode is made of.
type With string

// A lick, or a line that brings its own chords.
const (
	Lick With = "lick"
	Tune With = "line"
)

// Writes tells that a mode writes what is to be played.
func (m Mode) Writes() bool { return m.part != nil }

// Over is what a mode is played over, for a chart's chords.
func (m Mode) Over(p form.Progression, key form.Key) form.Progression {
	if m.ground == nil {
		return p
	}
	return m.ground(p, key)
}

// imagined is a turnaround in the place of a chart's last bars.
func imagined(p form.Progression, key form.Key) form.Progression {
	id := "three-six-two-five"
	if key.Minor {
		id = "minor-two-five"
	}
	i := slices.IndexFunc(form.Turnarounds, func(t form.Turnaround) bool { return t.ID == id })
	tail := form.Turnarounds[i].In(key)
	if !p.Ends(tail) || len(p.Bars) <= len(tail.Bars) {
		return p
	}
	return p.ReplaceEnd(tail)
}

// vampBars are how many one chord is looped for.
const vampBars = 4

// On is what a mode is played over where one chord of a chart is looped.
func (m Mode) On(p form.Progression, c harmony.Chord, key form.Key) form.Progression {
	vamp := Vamp(p.Beats, c, vampBars)
	if m.InMind { // there is nothing to imagine another end of
		return vamp
	}
	return m.Over(vamp, key)
}

func roundTheCircle(p form.Progression, _ form.Key) form.Progression {
	return exercise.Ground(p, "twelve-keys")
}

// Modes lists them.
var Modes = []Mode{
	{ID: "land", Name: "Land on chord tones", Says: "Play what you like; be on a tone of the chord when it changes.",
		Stages: []Stage{{Play: Anything, Says: "any chord tone on every change"}}},
	{ID: "thirds", Name: "Land on thirds", Says: "Play what you like; be on the third when the chord changes.",
		Stages: []Stage{{Land: []harmony.Role{harmony.Third}, Play: Anything, Says: "the third on every change"}}},
	{ID: "roots", Name: "Land on roots", Says: "Play what you like; be on the root when the chord changes.",
		Stages: []Stage{{Land: []harmony.Role{harmony.Root}, Play: Anything, Says: "the root on every change"}}},
	{ID: "fifths", Name: "Land on fifths", Says: "Play what you like; be on the fifth when the chord changes.",
		Stages: []Stage{{Land: []harmony.Role{harmony.Fifth}, Play: Anything, Says: "the fifth on every change"}}},
	{ID: "sevenths", Name: "Land on sevenths", Says: "Be on the seventh when the chord changes, the sixth where there is none; on any tone of a plain triad.",
		Stages: []Stage{{Land: []harmony.Role{harmony.Seventh}, Play: Anything, Says: "the seventh on every change"}}},
	{ID: "extensions", Name: "Lean on extensions", Says: "Be on a 9, 11 or 13 of the chord when it changes: held, or moving to its tone by step.",
		Stages: []Stage{{Land: []harmony.Role{harmony.Extension}, Play: Anything, Says: "a 9, 11 or 13 on every change"}}},
	{ID: "tones", Name: "Chord tones only", Says: "Nothing but tones of the chord of the moment.",
		Stages: []Stage{{Play: Tones, Says: "nothing but chord tones"}}},
	{ID: "dropped", Name: "Without the chords", Says: "The band drops the chords in every other chorus; keep telling them.", DropChords: true,
		Stages: []Stage{{Play: Anything, Says: "the chords can be heard in what you play"}}},
	{ID: "root-first", Name: "Root first", Says: "Over one chord: the band rests on the root, then you; then both on the third, the fifth, the seventh. With vibrato on each.",
		ground: looped, part: restful, judge: rests, ByEar: true,
		Stages: []Stage{{Play: Anything, Says: "rest where the band rested: root, third, fifth, seventh"}}},
	{ID: "widening", Name: "Widening", Says: "Chord tones first, then the chord's scale, then what lies between.",
		Stages: []Stage{
			{Play: Tones, Says: "nothing but chord tones"},
			{Play: Scale, Says: "the chord's scale"},
			{Play: Chromatic, Says: "what lies between, if it leads on"},
		}},
	{ID: "twelve-keys", Name: "Through the twelve keys", Says: "The chart's first chord round the circle of fourths, a bar each: nothing but its tones.", ground: roundTheCircle,
		Stages: []Stage{{Play: Tones, Says: "nothing but chord tones"}}},
	{ID: "imagined", Name: "An imagined turnaround", Says: "The band plays the chart; you play a turnaround of your own over its last two bars.", ground: imagined, InMind: true,
		Stages: []Stage{{Play: Anything, Says: "a chord tone on every change, the imagined ones too"}}},
	{ID: "out", Name: "Come out on the root", Says: "As a bass player plans a run: its last note comes out on the next root.",
		Stages: []Stage{{Land: []harmony.Role{harmony.Root}, Play: Anything, Says: "the root on every change"}}},
	{ID: "fours", Name: "Trading fours", Says: "The band plays four bars; you play them again, by ear, over the same chords.", ground: answered, part: trade, ByEar: true,
		Stages: []Stage{{Play: Anything, Says: "the band's four bars, as you heard them"}}},
	{ID: "tune", Name: "A tune by ear", Says: "A line that is kept: the band plays four bars of it, you play them again, by ear.", ground: answered, part: tune, ByEar: true, With: Tune,
		Stages: []Stage{{Play: Anything, Says: "the band's four bars, as you heard them"}}},
	{ID: "lick", Name: "One lick through the changes", Says: "The same lick over every chord, turned so that it lands on the next.", part: through, With: Lick,
		Stages: []Stage{{Play: Anything, Says: "the lick, over every chord"}}},
	{ID: "bends", Name: "Bends in tune", Says: "A chord tone fretted, then bent to from below: the two must sound the same.", part: bends, Most: 3, Easier: "half steps alone",
		Stages: []Stage{{Play: Anything, Says: "each tone fretted, then bent to"}}},
}

// ModeByID finds a mode.
func ModeByID(id string) (Mode, error) {
	i := slices.IndexFunc(Modes, func(m Mode) bool { return m.ID == id })
	if i < 0 {
		return Mode{}, say.Errorf("there is no way to practise called %q", id)
	}
	return Modes[i], nil
}

// Judge judges a pass over a line: the mode's own where it writes one.
func (m Mode) Judge(l edit.Line, pass int, heard []judge.Heard, tempo int, swing float64) (Free, error) {
	return m.JudgeSpan(l, pass, heard, judge.Span{}, tempo, swing)
}

// JudgeSpan judges a pass by what of it was played.
func (m Mode) JudgeSpan(l edit.Line, pass int, heard []judge.Heard, played judge.Span, tempo int, swing float64) (f Free, err error) {
	whole := true
	switch {
	case m.judge != nil:
		f, err = m.judge(l, heard, swing)
	case m.Writes():
		l.Score, whole = played.Of(l.Score)
		f, err = Prescribed(l, heard, tempo, swing)
	default:
		f, err = Judge(l, heard, tempo, swing, m.Stage(pass))
	}
	all := len(f.Landings)
	f.Landings = slices.DeleteFunc(f.Landings, func(x Landing) bool { return !played.Has(x.At) })
	if f.Partial = !whole || len(f.Landings) < all; f.Partial && m.judge == nil && !m.Writes() && err == nil {
		f.tell(m.Stage(pass))
	}
	f.played = played
	return f, err
}

// Beats before a tick that are heard beside what comes after it, and of those the ones whose
// landings are told, so that none is judged without what led to it.
const (
	beside = 8 * score.Tick
	told   = 4 * score.Tick
)

// Lately judges a pass while it is played: the changes from shortly before a tick on, by what was
// heard about them. heard is in order of time. What a mode judges as a whole is judged so.
func (m Mode) Lately(l edit.Line, pass int, heard []judge.Heard, since float64, tempo int, swing float64) (Free, error) {
	if m.judge != nil {
		return m.Judge(l, pass, heard, tempo, swing)
	}
	first, _ := slices.BinarySearchFunc(heard, since-beside, func(h judge.Heard, at float64) int { return cmp.Compare(h.At, at) })
	f, err := m.Judge(l, pass, heard[first:], tempo, swing)
	f.Landings = slices.DeleteFunc(f.Landings, func(x Landing) bool { return float64(x.At) < since-told })
	return f, err
}

// Stage is what a pass asks, counted from 0.
func (m Mode) Stage(pass int) Stage {
	return m.Stages[min(max(0, pass), len(m.Stages)-1)]
}

// allows tells that a note may be played.
func (p Playing) allows(chord harmony.Chord, r line.Reading) bool {
	switch p {
	case Tones:
		return r.Class == blend.ChordTone
	case Scale:
		return wide.Allows(chord, r.Sound)
	case Chromatic:
		return wide.Allows(chord, r.Sound) || !r.Fault
	}
	return true
}

var wide = line.Rules[len(line.Rules)-1]

// counts tells that a landing on a degree is what a stage asks for. A sixth chord
// has its sixth in the place of the seventh.
func (s Stage) counts(c harmony.Chord, d harmony.Degree) bool {
	if len(s.Land) == 0 {
		return true
	}
	role := d.Role()
	if role == harmony.Extension && slices.ContainsFunc(c.Tones, func(t harmony.Tone) bool { return t.Degree == d }) &&
		!slices.ContainsFunc(c.Tones, func(t harmony.Tone) bool { return t.Degree.Role() == harmony.Seventh }) {
		role = harmony.Seventh
	}
	return slices.Contains(s.Land, role)
}

// bears tells that a chord has what a stage asks for; over one that has not, every tone counts.
func (s Stage) bears(c harmony.Chord) bool {
	return slices.Contains(s.Land, harmony.Extension) || slices.ContainsFunc(c.Tones, func(t harmony.Tone) bool { return s.counts(c, t.Degree) })
}

// leans tells that a stage that asks for extensions has one leaned on: a colour of the chord, and no other note.
func (s Stage) leans(l line.Landing) bool {
	if l.Leaned == "" || !slices.Contains(s.Land, harmony.Extension) {
		return false
	}
	step, _ := l.Leaned.Interval()
	sound := blend.Sounds(l.Chord)[step.HalfSteps%12]
	return sound.Class == blend.Colour && sound.Degree.Role() == harmony.Extension
}
