package lick

import (
	"cmp"
	"slices"
	"strings"

	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Explanation is a chord over which notes make sense, and why.
type Explanation struct {
	Chord harmony.Chord
	Lands harmony.Degree // what the last note is of it
	Why   string
	worth float64
}

// explained are the kinds of chord that are tried on every root; those that players of blues meet
// most stand first, and win where two explain as much.
var explained = []string{"7", "m7", "maj7", "m7b5"}

// What notes are worth over a chord, by what they are of it: for each beat that they last, for
// beginning on a beat, and for being the last. A tone of the chord in every beat explains most; a note that
// the kind of chord contradicts is a rub.
var (
	perBeat = map[blend.Class]float64{blend.ChordTone: 2, blend.Colour: 0.4, blend.Blue: 0.3, blend.Tension: -0.5, blend.Passing: -2}
	onBeat  = map[blend.Class]float64{blend.ChordTone: 1.5, blend.Colour: 0.1, blend.Blue: -0.3, blend.Tension: -1, blend.Passing: -2}
	landing = map[harmony.Role]float64{harmony.Root: 4, harmony.Third: 4, harmony.Fifth: 3, harmony.Seventh: 2.5}
)

// offLanding is what a last note is worth that is no tone of the chord, and told what each further kind costs.
const (
	offLanding = -4
	rarer      = 0.1
)

// longestBeat is how long a note counts at most, in beats.
const longestBeat = 2.0

// Explain names the chords over which notes make most sense, the best first, at most so many, of
// roots of their own. Notes without an end to land on explain nothing: none is named.
func Explain(notes []score.Note, most int) (list []Explanation) {
	notes = slices.DeleteFunc(slices.Clone(notes), func(n score.Note) bool { return n.Dead })
	score.Sort(notes)
	if len(notes) == 0 {
		return nil
	}
	for rarity, kind := range explained {
		for class := range 12 {
			c := harmony.MustParse(rootOf(class, notes).String() + kind)
			e := explain(c, notes)
			e.worth -= rarer * float64(rarity)
			list = append(list, e)
		}
	}
	slices.SortStableFunc(list, func(a, b Explanation) int { return cmp.Compare(b.worth, a.worth) })
	var out []Explanation
	for _, e := range list {
		if len(out) < most && !slices.ContainsFunc(out, func(o Explanation) bool { return o.Chord.Root.Class() == e.Chord.Root.Class() }) {
			out = append(out, e)
		}
	}
	return out
}

// rootOf names a pitch class as the notes do, else as chords are usually called.
func rootOf(class int, notes []score.Note) pitch.Name {
	for _, n := range notes {
		if n.Pitch.Class() == class && n.Pitch.Alter >= -1 && n.Pitch.Alter <= 1 {
			return n.Pitch.Name
		}
	}
	for _, n := range pitch.Roots {
		if n.Class() == class && n.Alter <= 0 {
			return n
		}
	}
	return pitch.Roots[0]
}

func explain(c harmony.Chord, notes []score.Note) (e Explanation) {
	e.Chord = c
	sounds := blend.Sounds(c)
	of := func(n score.Note) blend.Sound { return sounds[pitch.Class(n.Heard()-c.Root.Class())] }
	var tones, rubs []string
	for _, n := range notes {
		s := of(n)
		e.worth += perBeat[s.Class] * min(longestBeat, float64(n.Length)/score.Tick)
		if n.Start%score.Tick == 0 {
			e.worth += onBeat[s.Class]
		}
		list := &tones
		if s.Class == blend.Passing || s.Class == blend.Tension {
			list = &rubs
		} else if s.Class != blend.ChordTone {
			continue
		}
		if d := say.F("%s", s.Degree); !slices.Contains(*list, d) {
			*list = append(*list, d)
		}
	}
	last := notes[len(notes)-1]
	s := of(last)
	e.Lands = s.Degree
	if s.Class == blend.ChordTone {
		e.worth += landing[s.Degree.Role()]
	} else {
		e.worth += offLanding
	}
	e.worth /= float64(len(notes)) // of long and short ones alike
	e.Why = say.F("lands on %s", s.Degree)
	if len(tones) > 0 {
		e.Why += ", rests on " + strings.Join(tones, " ")
	}
	if len(rubs) > 0 {
		e.Why += ", rubs on " + strings.Join(rubs, " ")
	}
	return e
}
