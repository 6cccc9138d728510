package blend

import (
	"slices"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
)

// Other is the arpeggio of one chord played over another.
type Other struct {
	Chord     harmony.Chord
	KeyStep   int  // of the key that it stands on, from 1; 0 is none
	Raised    bool // with the raised seventh of a minor key
	ScaleStep int  // of the sounding chord's scale, from 1; 0 is none
	Degree    harmony.Degree
	Sounds    []Sound // what each of its tones is over the chord that sounds
}

// Rests, Colours and Moves count its tones by what they do over the chord.
func (o Other) Rests() int   { return o.count(ChordTone) }
func (o Other) Colours() int { return o.count(Colour) }
func (o Other) Moves() int   { return len(o.Sounds) - o.Rests() - o.Colours() }

func (o Other) count(c Class) (n int) {
	for _, s := range o.Sounds {
		if s.Class == c {
			n++
		}
	}
	return n
}

// Says tells what it brings to the chord that sounds.
func (o Other) Says(over harmony.Chord) string {
	if o.Chord.String() == over.String() {
		return say.F("%s itself", over)
	}
	var brings, lacks []string
	has := map[harmony.Degree]bool{}
	for _, s := range o.Sounds {
		has[s.Degree] = true
		if s.Class != ChordTone {
			brings = append(brings, s.Degree.Printed())
		}
	}
	for _, t := range over.Tones {
		if !has[t.Degree] {
			lacks = append(lacks, t.Degree.Printed())
		}
	}
	switch {
	case len(brings) == 0:
		return say.F("tones of %s alone, without %s", over, say.List(lacks, "and"))
	case len(lacks) == 0:
		return say.F("the whole of %s, with %s", over, say.List(brings, "and"))
	}
	return say.F("brings %s, leaves out %s", say.List(brings, "and"), say.List(lacks, "and"))
}

// Others lists the seventh chords of the steps of a key and of the sounding chord's own
// scale, each with what its tones are over that chord: those that clash least and bring
// most first. In a minor key the dominant of the raised seventh is one of them.
func Others(key form.Key, over harmony.Chord) (all []Other) {
	if over.None {
		return nil
	}
	sounds := Sounds(over)
	find := func(c harmony.Chord) *Other {
		if c.String() != over.String() {
			c = sounding(c)
		}
		i := slices.IndexFunc(all, func(o Other) bool { return o.Chord.String() == c.String() })
		if i < 0 {
			o := Other{Chord: c, Degree: sounds[over.Above(c.Root.Class())].Degree}
			for _, t := range c.Tones {
				o.Sounds = append(o.Sounds, sounds[over.Above(t.Name.Class())])
			}
			i, all = len(all), append(all, o)
		}
		return &all[i]
	}
	scale := key.Scale()
	for step := range scale {
		if c, ok := harmony.Stacked(scale, step, 4); ok {
			find(c).KeyStep = step + 1
		}
	}
	if key.Minor {
		five := find(harmony.MustParse(scale[4].String() + "7"))
		five.KeyStep, five.Raised = 5, true
	}
	names := make([]pitch.Name, 0, 8)
	for _, t := range over.Scale() {
		names = append(names, t.Name)
	}
	for step := range names {
		if c, ok := harmony.Stacked(names, step, 4); ok {
			find(c).ScaleStep = step + 1
		}
	}
	slices.SortStableFunc(all, func(a, b Other) int {
		if a.Moves() != b.Moves() {
			return a.Moves() - b.Moves()
		}
		return b.Rests() - a.Rests()
	})
	return all
}

// sounding names a chord by what sounds, where its own letters would take a double sign: C♯°7, and not D♭°7 with a C♭♭.
func sounding(c harmony.Chord) harmony.Chord {
	doubled := func(c harmony.Chord) (n int) {
		for _, t := range c.Tones {
			if t.Name.Alter < -1 || t.Name.Alter > 1 {
				n++
			}
		}
		return n
	}
	best := c
	for _, root := range pitch.Roots {
		if other := c.On(root); root.Class() == c.Root.Class() && doubled(other) < doubled(best) {
			best = other
		}
	}
	return best
}

// implied names the scale that an extension makes of a chord, by the chord's row in the
// tables; and the degree that contradicts it.
var implied = map[string]map[harmony.Degree]string{
	"minor":           {"13": "Dorian", "b13": "natural minor", "b9": "Phrygian"},
	"dominant":        {"#11": "Lydian with the flat seventh", "b13": "the fifth mode of melodic minor", "b9": "the fifth mode of harmonic minor"},
	"major":           {"#11": "Lydian"},
	"major seventh":   {"#11": "Lydian"},
	"half-diminished": {"9": "Locrian with the natural 9"},
}

var contradicts = map[harmony.Degree]harmony.Degree{"13": "b13", "b13": "13", "9": "b9", "b9": "9", "11": "#11", "#11": "11"}

// Implies tells what a degree makes of the chord that sounds: 13 over a minor seventh is
// Dorian. Where a chord of the chart has the note that contradicts it, that is said. It
// is empty where the degree says nothing about the scale.
func Implies(over harmony.Chord, d harmony.Degree, chart []harmony.Chord) string {
	mode := implied[family(over)][d]
	if over.None || mode == "" || over.HasDegree(contradicts[d]) {
		return ""
	}
	says := say.F("%s over %s is %s", d, over, mode)
	step, known := contradicts[d].Interval()
	if !known {
		return says
	}
	class := pitch.Class(over.Root.Class() + step.HalfSteps)
	for _, c := range chart {
		if t, has := c.ToneAt(class); has && !c.None && c.String() != over.String() {
			return says + say.F("; but %s has %s, the %s here", c, t.Name, flatSix(contradicts[d]))
		}
	}
	return says
}

// flatSix calls the thirteenth a sixth where it is a step of the scale.
func flatSix(d harmony.Degree) harmony.Degree {
	if d == "b13" {
		return "b6"
	}
	return d
}
