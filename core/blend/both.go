package blend

import (
	"slices"
	"strings"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/say"
)

// Of tells which of two joined boxes a note is from.
type Of string

// The two boxes, and what both have. A palette that joins none has notes of no box.
const (
	MinorBox  Of = "minor"
	MajorBox  Of = "major"
	BothBoxes Of = "both"
)

// boxOf tells which box of a palette has a step.
func (p Palette) boxOf(step string) Of {
	minor, major := slices.Contains(strings.Fields(p.Minor), step), slices.Contains(strings.Fields(p.Major), step)
	switch {
	case minor && major:
		return BothBoxes
	case minor:
		return MinorBox
	case major:
		return MajorBox
	}
	return ""
}

// What a note of a box is worth over a chord: a tone that tells the chord, another
// tone, a colour; a blue note neither helps nor hurts, the others rub.
var worths = map[Class]int{ChordTone: 3, Colour: 1, Blue: 0, Tension: -1, Passing: -2}

func worth(n Note) int {
	w := worths[n.Class]
	if r := n.Sound.Degree.Role(); n.Class == ChordTone && (r == harmony.Third || r == harmony.Seventh) {
		w++
	}
	return w
}

// Turn proposes which of the two boxes of a palette to be in over a chord: the one
// whose notes suit it better, with the reason. It is empty where the palette joins
// none. Blue notes ornament a box and do not decide.
func (p Palette) Turn(key form.Key, chord harmony.Chord) (box Of, why string) {
	if p.Minor == "" || chord.None {
		return "", ""
	}
	plain, err := PaletteByID("both-boxes")
	if err != nil {
		return "", ""
	}
	sums := map[Of]int{}
	best, worst := map[Of]Note{}, map[Of]Note{}
	for _, n := range Over(key, plain, chord).Notes {
		if n.Box == BothBoxes {
			continue // it tells neither from the other
		}
		sums[n.Box] += worth(n)
		if b, ok := best[n.Box]; !ok || worth(n) > worth(b) {
			best[n.Box] = n
		}
		if w, ok := worst[n.Box]; !ok || worth(n) < worth(w) {
			worst[n.Box] = n
		}
	}
	box, other := MinorBox, MajorBox
	if sums[MajorBox] > sums[MinorBox] {
		box, other = MajorBox, MinorBox
	}
	b, w := best[box], worst[other]
	why = say.F("%s is the %s of %s", b.Name, b.Sound.Degree, chord)
	if worth(w) < worth(b) {
		why += say.F("; %s of the %s box is its %s, %s", w.Name, string(other), w.Sound.Degree, string(w.Class))
	}
	return box, why
}
