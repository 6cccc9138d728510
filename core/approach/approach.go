// Package approach is what leads into a tone from beside it: by the scale or by half
// steps, from above, from below, or from both sides in either order.
package approach

import (
	"slices"

	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
)

// Step is a note beside a tone.
type Step struct {
	By    int  // above the tone, below it where negative: scale steps, or half steps
	Scale bool // by the scale of the chord that the tone belongs to
}

// The notes next to a tone.
var (
	halfBelow  = Step{By: -1}
	halfAbove  = Step{By: 1}
	scaleBelow = Step{By: -1, Scale: true}
	scaleAbove = Step{By: 1, Scale: true}
)

// Way is what leads into a tone: notes beside it in their order, and then the tone.
type Way struct {
	ID    string
	Steps []Step // one or two
}

// Ways lists them: each exercise, call and lead takes them from here.
var Ways = []Way{
	{"below", []Step{halfBelow}},
	{"below-scale", []Step{scaleBelow}},
	{"above-half", []Step{halfAbove}},
	{"above", []Step{scaleAbove}},
	{"enclosure", []Step{scaleAbove, halfBelow}},
	{"enclosure-scale", []Step{scaleAbove, scaleBelow}},
	{"enclosure-half", []Step{halfAbove, halfBelow}},
	{"enclosure-half-scale", []Step{halfAbove, scaleBelow}},
	{"enclosure-below", []Step{halfBelow, scaleAbove}},
	{"enclosure-below-half", []Step{halfBelow, halfAbove}},
	{"enclosure-below-scale", []Step{scaleBelow, scaleAbove}},
	{"enclosure-below-scale-half", []Step{scaleBelow, halfAbove}},
	{"double", []Step{{By: -2}, halfBelow}},
	{"double-above", []Step{{By: 2}, halfAbove}},
}

// ByID finds a way; ok is false where there is none.
func ByID(id string) (w Way, ok bool) {
	i := slices.IndexFunc(Ways, func(w Way) bool { return w.ID == id })
	if i < 0 {
		return w, false
	}
	return Ways[i], true
}

// Encloses tells that a way comes from both sides.
func (w Way) Encloses() bool { return len(w.Steps) == 2 && w.Steps[0].By*w.Steps[1].By < 0 }

// Name is what it plays, in a few words.
func (w Way) Name() string {
	switch {
	case w.Encloses():
		return say.F("enclosed: %s %s, %s %s", w.Steps[0].by(), w.Steps[0].side(), w.Steps[1].by(), w.Steps[1].side())
	case len(w.Steps) == 2:
		return say.F("two half steps %s", w.Steps[0].side())
	}
	return say.F("%s %s", map[bool]string{true: "the scale’s step", false: "a half step"}[w.Steps[0].Scale], w.Steps[0].side())
}

// Says is how a tone comes that is led into so.
func (w Way) Says() string {
	if w.Encloses() {
		return w.Name()
	}
	return "from " + w.Name()
}

func (s Step) by() string { return map[bool]string{true: "scale", false: "half step"}[s.Scale] }

func (s Step) side() string { return map[bool]string{true: "above", false: "below"}[s.By > 0] }

// To is the MIDI number of the note beside a tone of a chord.
func (s Step) To(midi int, c harmony.Chord) int {
	if !s.Scale {
		return midi + s.By
	}
	for near := midi + s.By; size(near-midi) < 12; near += s.By {
		if slices.ContainsFunc(c.Scale(), func(t harmony.Tone) bool { return t.Name.Class() == pitch.Class(near) }) {
			return near
		}
	}
	return midi + s.By // a chord without a scale
}

// To lists the MIDI numbers that lead to a tone of a chord, in the order they are played.
func (w Way) To(midi int, c harmony.Chord) (out []int) {
	for _, s := range w.Steps {
		out = append(out, s.To(midi, c))
	}
	return out
}

// Enclose tells whether two notes lie next to a tone of a chord on either side of it:
// each by a half or a whole step, or by the chord's scale.
func Enclose(a, b, midi int, c harmony.Chord) bool {
	return (a-midi)*(b-midi) < 0 && beside(a, midi, c) && beside(b, midi, c)
}

func beside(note, midi int, c harmony.Chord) bool {
	return size(note-midi) <= 2 || size(note-midi) <= 4 && (note == scaleAbove.To(midi, c) || note == scaleBelow.To(midi, c))
}

func size(n int) int { return max(n, -n) }
