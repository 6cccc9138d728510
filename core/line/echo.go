package line

import (
	"undaris/core/blend"
	"undaris/core/neck"
	"undaris/core/score"
)

// echoes has what comes back in A A B come back degree for degree: the first A keeps the
// notes that were found for it, the second asks for the same degrees over its own chords, as
// high as the roots lie apart. It tells whether anything is to be searched anew.
func (w Wish) echoes(s score.Score, slots []slot, layers [][]candidate, way []int) bool {
	if w.Phrasing != "aab" || w.Spice == (Spice{}) || way == nil {
		return false
	}
	from, to := w.From, w.To
	if to == 0 {
		to = len(s.Bars)
	}
	plans := group(w.Phrasing, from, to)
	if len(plans) < 2 || plans[0].idea != plans[1].idea {
		return false
	}
	first, second := s.At(plans[0].from), s.At(plans[1].from)
	at := map[int]int{} // slots of the first A by where they begin in it
	for i, k := range slots {
		if k.start >= first && k.start < second && k.fixed == nil {
			at[k.start-first] = i
			layers[i] = []candidate{layers[i][way[i]]}
		}
	}
	found := false
	span := w.span(s)
	for i := range slots {
		k := &slots[i]
		j, comes := at[k.start-second]
		if !comes || k.start >= s.At(plans[1].to) || k.fixed != nil || k.asks.is {
			continue
		}
		was, c := &slots[j], layers[j][0]
		up := was.chord.Above(c.midi)
		if tone, ok := was.chord.ToneAt(c.midi % 12); ok {
			for _, t := range k.chord.Tones {
				if t.Degree.Role() == tone.Degree.Role() && tone.Degree.Role() != 0 {
					up = t.Interval.HalfSteps
				}
			}
		}
		class := k.chord.Root.Class() + up
		if _, tone := k.chord.ToneAt(ask(class).class); !tone && (k.change || k.rests) {
			continue
		}
		k.asks = ask(class)
		moved := (k.chord.Root.Class() - was.chord.Root.Class() + 18) % 12 // up to a tritone either way
		k.height = min(1, max(0, float64(c.midi+moved-6-w.lowest(s))/span))
		layers[i] = candidates(s, w, *k)
		found = true
	}
	return found
}

// lowest and span are where the region lies, in MIDI numbers.
func (w Wish) lowest(s score.Score) int {
	on := s.In.On(w.Region.Strings)
	return s.In.MIDI(neck.Placement{String: on[len(on)-1], Fret: w.Region.Low})
}

func (w Wish) span(s score.Score) float64 {
	return max(1, float64(s.In.MIDI(neck.Placement{String: s.In.On(w.Region.Strings)[0], Fret: w.Region.High})-w.lowest(s)))
}

// inOctaves puts the octave under each candidate that has one under the hand, and leaves the
// others out, unless none has.
func (w Wish) inOctaves(s score.Score, all []candidate) []candidate {
	var out []candidate
	for _, c := range all {
		if c.way != (score.Ornaments{}) || c.Fret == 0 {
			continue
		}
		for str := c.String + 2; str <= min(c.String+3, s.In.Strings()); str++ {
			at := neck.Placement{String: str}
			at.Fret = c.midi - 12 - s.In.MIDI(at)
			if at.Fret > 0 && size(at.Fret-c.Fret) <= 3 && w.Region.Has(at) {
				c.under = at
				out = append(out, c)
				break
			}
		}
	}
	if len(out) == 0 {
		return all
	}
	return out
}

// meets tells that a note is what a slot asks for.
func (k slot) meets(w Wish, midi int, class blend.Class) bool {
	return k.asks.is && midi%12 == k.asks.class && (class == blend.ChordTone || !w.ChordTones)
}
