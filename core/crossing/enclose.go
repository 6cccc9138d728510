package crossing

import "undaris/core/harmony"

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
