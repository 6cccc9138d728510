package musicxml

import (
	"encoding/xml"
	"maps"
	"slices"

	"undaris/core/harmony"
	"undaris/core/score"
)

// leads takes a first measure that is shorter than its time signature for a pickup: all that was read of it lies before the
// first bar. It is one of the form where chords stand over it.
func (r *reader) leads(m xml.StartElement, length int) {
	if !implicit(m) && attribute(m, "number") != "0" {
		r.f.say("the first bar has %g beats of %d: it was taken for a pickup", float64(length)/score.Tick, r.beats)
	}
	r.lead, r.led = length, r.beats
	for i := range r.f.Notes {
		r.f.Notes[i].Start -= length
	}
	r.fingers, r.signed = earlier(r.fingers, length), earlier(r.signed, length)
	for _, at := range slices.Sorted(maps.Keys(r.chords)) {
		if at >= length {
			break
		}
		r.f.Progression.Pickup.Lead(r.beats, r.beats+floor(at-length), r.chords[at])
		delete(r.chords, at)
	}
	rest := map[int]harmony.Chord{}
	for at, c := range r.chords {
		rest[at-length] = c
	}
	r.chords = rest
}

func earlier[V any](list map[[2]int]V, by int) map[[2]int]V {
	out := map[[2]int]V{}
	for k, v := range list {
		out[[2]int{k[0] - by, k[1]}] = v
	}
	return out
}

// floor is the beat in which a tick lies.
func floor(tick int) int { return -((score.Tick - 1 - tick) / score.Tick) }
