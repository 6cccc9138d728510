package line

import (
	"slices"
	"strings"

	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
)

// Rule is what may rest over a chord. It can be another over some chords of the form.
type Rule struct {
	ID, Name string
	colours  []harmony.Degree // beside the chord's tones, where they colour it
	scale    bool             // every note of the chord's scale
	over     map[int]Rule     // by the half steps from the tonic up to the chord's root
}

// Rules lists them, from strict to wide.
var Rules = []Rule{
	{"strict", "chord tones only", nil, false, nil},
	{"usual", "chord tones, 9 and 13", []harmony.Degree{"9", "13", "6"}, false, nil},
	{"wide", "every note of the chord's scale", nil, true, nil},
}

// Place is a chord's place in its key.
type Place struct {
	ID, Name string
	up       int // half steps from the tonic to its root
}

// Places lists those that may have a rule of their own.
var Places = []Place{{"one", "the one", 0}, {"four", "the four", 5}, {"five", "the five", 7}}

// Usual is the rule where the player has set none.
var Usual = Rules[1]

// RuleByID finds a rule; the usual one by no name. Rules over places of the key follow the first: "strict,five:wide".
func RuleByID(id string) (Rule, error) {
	first, more, _ := strings.Cut(id, ",")
	r, err := ruleByID(first)
	if err != nil || more == "" {
		return r, err
	}
	r.ID, r.over = id, map[int]Rule{}
	for part := range strings.SplitSeq(more, ",") {
		where, rule, _ := strings.Cut(part, ":")
		i := slices.IndexFunc(Places, func(p Place) bool { return p.ID == where })
		if i < 0 || rule == "" {
			return Rule{}, say.Errorf("%q is no rule of what may rest over one, four or five; write five:wide", part)
		}
		at := Places[i]
		if _, twice := r.over[at.up]; twice {
			return Rule{}, say.Errorf("what may rest over %s is said twice", at.Name)
		}
		there, err := ruleByID(rule)
		if err != nil {
			return Rule{}, err
		}
		there.Name = say.F("over %s %s", at.Name, there.Name)
		r.over[at.up] = there
	}
	return r, nil
}

func ruleByID(id string) (Rule, error) {
	if id == "" {
		return Usual, nil
	}
	i := slices.IndexFunc(Rules, func(r Rule) bool { return r.ID == id })
	if i < 0 {
		return Rule{}, say.Errorf("there is no rule %q of what may rest", id)
	}
	return Rules[i], nil
}

// Over is the rule over a chord of a key. The zero rule is the usual one.
func (r Rule) Over(k form.Key, c harmony.Chord) Rule {
	if r.ID == "" {
		r = Usual
	}
	if there, other := r.over[pitch.Class(c.Root.Class()-k.Tonic.Class())]; other {
		return there
	}
	return r
}

// Allows tells whether a note of the chord or beside it may be rested on.
func (r Rule) Allows(c harmony.Chord, s blend.Sound) bool {
	switch {
	case s.Class == blend.ChordTone:
		return true
	case r.scale:
		i, _ := s.Degree.Interval()
		return slices.ContainsFunc(c.Scale(), func(t harmony.Tone) bool { return t.Interval.HalfSteps == i.HalfSteps })
	}
	return s.Class == blend.Colour && slices.Contains(r.colours, s.Degree)
}
