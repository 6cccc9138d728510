package arpeggio

import (
	"cmp"
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Grip is a chord held at once.
type Grip struct {
	Notes []Note // the lowest string first, with fingers
	Muted []int  // strings that do not sound, between the highest and the lowest of the instrument
	Barre int    // the fret that one finger lies flat over; 0 is none
}

// What a grip is chosen by, most first: tones that tell the chord, the root in the
// bass, strings that sound, no muted string between two that sound, and a hand that is
// not spread. The fifth tells little.
const (
	perTelling  = 40
	perTone     = 12
	perFifth    = 4
	perRoot     = 30
	perSounding = 6
	perGap      = 9
	perFret     = 4 // that the hand is spread over
)

// Hold finds a grip of a chord in a region: a tone or none on each string, held by the
// hand. Without the tones that tell it (third and seventh, where it has them), or where
// no hand holds it, ok is false.
func Hold(in *neck.Instrument, c harmony.Chord, r neck.Region, hand neck.Hand) (g Grip, ok bool) {
	type choice struct {
		notes []Note
		score int
	}
	choices := []choice{{}}
	for str := in.Strings(); str >= 1; str-- {
		var more []choice
		for _, before := range choices {
			more = append(more, before) // muted
			for fret := r.Low; fret <= r.High; fret++ {
				at := neck.Placement{String: str, Fret: fret}
				tone, is := c.ToneAt(in.MIDI(at) % 12)
				if !is || !r.Has(at) {
					continue
				}
				n := Note{Placement: at, Pitch: pitch.At(in.MIDI(at), tone.Name), Degree: tone.Degree}
				if inReach(in, before.notes, at, hand) {
					more = append(more, choice{append(slices.Clip(before.notes), n), 0})
				}
			}
		}
		choices = more
	}
	for i := range choices {
		choices[i].score = worth(c, choices[i].notes)
	}
	slices.SortStableFunc(choices, func(a, b choice) int { return cmp.Compare(b.score, a.score) })
	for _, x := range choices {
		if len(x.notes) < 2 || !tells(c, x.notes) {
			continue
		}
		places := make([]neck.Placement, len(x.notes))
		for i, n := range x.notes {
			places[i] = n.Placement
		}
		fingers, can := in.Grip(places, nil, hand)
		if !can {
			continue
		}
		for i := range x.notes {
			x.notes[i].Finger = fingers[i]
		}
		return held(in, x.notes), true
	}
	return g, false
}

// inReach tells that a place lies within the hand's reach of those that are held.
func inReach(in *neck.Instrument, held []Note, at neck.Placement, hand neck.Hand) bool {
	low, high := at.Fret, at.Fret
	for _, n := range held {
		if n.Fret > 0 {
			if low == 0 {
				low = n.Fret
			}
			low, high = min(low, n.Fret), max(high, n.Fret)
		}
	}
	return at.Fret == 0 || in.Reach(low, high) <= 1.2*hand.Comfort
}

func has(notes []Note, d harmony.Degree) bool {
	return slices.ContainsFunc(notes, func(n Note) bool { return n.Degree == d })
}

// tells that a grip holds what tells its chord from others.
func tells(c harmony.Chord, notes []Note) bool {
	for _, t := range c.Tones {
		if role := t.Degree.Role(); (role == harmony.Third || role == harmony.Seventh) && !has(notes, t.Degree) {
			return false
		}
	}
	return true
}

func worth(c harmony.Chord, notes []Note) (score int) {
	for _, t := range c.Tones {
		if !has(notes, t.Degree) {
			continue
		}
		switch t.Degree.Role() {
		case harmony.Third, harmony.Seventh:
			score += perTone + perTelling
		case harmony.Fifth:
			score += perFifth
		default:
			score += perTone
		}
	}
	low, high := 0, 0
	for i, n := range notes {
		score += perSounding
		if n.Fret > 0 {
			if low == 0 {
				low = n.Fret
			}
			low, high = min(low, n.Fret), max(high, n.Fret)
		}
		if i == 0 && n.Degree == "R" {
			score += perRoot
		}
		if i > 0 {
			score -= perGap * (notes[i-1].String - n.String - 1)
		}
	}
	return score - perFret*(high-low)
}

func held(in *neck.Instrument, notes []Note) (g Grip) {
	g.Notes = notes
	for str := in.Strings(); str >= 1; str-- {
		if !slices.ContainsFunc(notes, func(n Note) bool { return n.String == str }) {
			g.Muted = append(g.Muted, str)
		}
	}
	for i, n := range notes {
		if n.Finger > 0 && slices.ContainsFunc(notes[:i], func(o Note) bool { return o.Finger == n.Finger }) {
			g.Barre = n.Fret
		}
	}
	return g
}

// SameFingering tells that two runs are played alike: the same strings and fingers, as
// far apart, perhaps elsewhere on the neck.
func (r Run) SameFingering(o Run) bool {
	return len(r.Notes) > 0 && slices.EqualFunc(r.Notes, o.Notes, func(a, b Note) bool {
		return a.String == b.String && a.Finger == b.Finger && a.Fret-r.Notes[0].Fret == b.Fret-o.Notes[0].Fret && (a.Fret == 0) == (b.Fret == 0)
	})
}
