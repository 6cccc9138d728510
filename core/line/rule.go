package line

import (
	"slices"

	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/say"
)

// Rule is what may rest over a chord.
type Rule struct {
	ID, Name string
	colours  []harmony.Degree // beside the chord's tones, where they colour it
	scale    bool             // every note of the chord's scale
}

// Rules lists them, from strict to wide.
var Rules = []Rule{
	{"strict", "chord tones only", nil, false},
	{"usual", "chord tones, 9 and 13", []harmony.Degree{"9", "13", "6"}, false},
	{"wide", "every note of the chord's scale", nil, true},
}

// Usual is the rule where the player has set none.
var Usual = Rules[1]

// RuleByID finds a rule; the usual one by no name.
func RuleByID(id string) (Rule, error) {
	if id == "" {
		return Usual, nil
	}
	i := slices.IndexFunc(Rules, func(r Rule) bool { return r.ID == id })
	if i < 0 {
		return Rule{}, say.Errorf("there is no rule %q of what may rest", id)
	}
	return Rules[i], nil
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
