package crossing

import (
	"cmp"
	"slices"

	"undaris/core/approach"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Enclosure is two tones of one chord that lie next to a tone of the next on either
// side, each by a half step or by that chord's scale: played one after the other, in
// either order, they lead to it.
type Enclosure struct {
	Below, Above harmony.Tone
	To           harmony.Tone
}

// Enclosures lists those between two chords of a tone that is new, the closest first and
// then in the order of the second one's tones.
func Enclosures(a, b harmony.Chord) (list []Enclosure) {
	for _, to := range b.Tones {
		if _, stays := a.ToneAt(to.Name.Class()); stays {
			continue
		}
		below, low := beside(a, b, to, -1)
		above, high := beside(a, b, to, 1)
		if low && high {
			list = append(list, Enclosure{below, above, to})
		}
	}
	slices.SortStableFunc(list, func(x, y Enclosure) int { return x.width() - y.width() })
	return list
}

// beside is the tone of a chord next to one of the chord that follows, above or below:
// by a half step, else by that chord's scale.
func beside(a, b harmony.Chord, to harmony.Tone, by int) (harmony.Tone, bool) {
	for _, scale := range []bool{false, true} {
		midi := approach.Step{By: by, Scale: scale}.To(to.Name.Class()+12, b)
		if tone, ok := a.ToneAt(midi % 12); ok {
			return tone, true
		}
	}
	return harmony.Tone{}, false
}

// width is how many half steps lie between the two tones.
func (e Enclosure) width() int { return pitch.Class(e.Above.Name.Class() - e.Below.Name.Class()) }

// Places finds the tones of an enclosure around a place of the tone that they lead to,
// in a region and under the same hand: nearest to it, on its own string if it can be.
func (e Enclosure) Places(in *neck.Instrument, to neck.Placement, r neck.Region) (below, above neck.Placement, ok bool) {
	midi := in.MIDI(to)
	below, low := nearestTo(in, midi-pitch.Class(midi-e.Below.Name.Class()), to, r)
	above, high := nearestTo(in, midi+pitch.Class(e.Above.Name.Class()-midi), to, r)
	return below, above, low && high
}

func nearestTo(in *neck.Instrument, midi int, to neck.Placement, r neck.Region) (best neck.Placement, ok bool) {
	for _, p := range in.Find(midi, r) {
		if near := cmp.Or(cmp.Compare(Travel(in, p, to), Travel(in, best, to)), cmp.Compare(across(p, to), across(best, to))); !ok || near < 0 {
			best, ok = p, true
		}
	}
	return best, ok
}

func across(a, b neck.Placement) int { return max(a.String-b.String, b.String-a.String) }
