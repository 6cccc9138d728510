package crossing

import (
	"cmp"

	"undaris/core/harmony"
	"undaris/core/neck"
)

// Enclosure is two tones of one chord that lie a half step on either side of a tone of
// the next: played one after the other they lead to it.
type Enclosure struct {
	Below, Above harmony.Tone
	To           harmony.Tone
}

// Enclosures lists those between two chords, in the order of the second one's tones.
func Enclosures(a, b harmony.Chord) (list []Enclosure) {
	for _, to := range b.Tones {
		below, low := a.ToneAt((to.Name.Class() + 11) % 12)
		above, high := a.ToneAt((to.Name.Class() + 1) % 12)
		if low && high {
			list = append(list, Enclosure{below, above, to})
		}
	}
	return list
}

// Places finds the tones of an enclosure around a place of the tone that they lead to,
// in a region and under the same hand: nearest to it, on its own string if it can be.
func (e Enclosure) Places(in *neck.Instrument, to neck.Placement, r neck.Region) (below, above neck.Placement, ok bool) {
	midi := in.MIDI(to)
	below, low := nearestTo(in, midi-1, to, r)
	above, high := nearestTo(in, midi+1, to, r)
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
