package call

import (
	"math/rand/v2"
	"slices"

	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// spot is a place within the window and the strings of a call.
func (w Wish) spot(rng *rand.Rand, c Call) neck.Placement {
	return neck.Placement{String: one(rng, w.In.On(c.Region.Strings)), Fret: c.Region.Low + rng.IntN(c.Region.High-c.Region.Low+1)}
}

// place asks which degree a place is; one in three is bent.
func (w Wish) place(rng *rand.Rand, c Call) (Call, bool) {
	c.Given = w.spot(rng, c)
	if _, is := c.Chord.ToneAt(w.In.MIDI(c.Given) % 12); w.Plain && !is {
		return c, false
	}
	if limit := blend.Limit(w.In, c.Given, w.Advanced); !w.Plain && limit > 0 && rng.IntN(3) == 0 {
		c.Bent = 1 + rng.IntN(limit)
	}
	sounds := blend.Sounds(c.Chord)
	for _, s := range sounds {
		c.Options = append(c.Options, string(s.Degree))
	}
	c.Answer = string(sounds[c.Chord.Above(w.In.MIDI(c.Given)+c.Bent)].Degree)
	return c, true
}

// bend asks how far a place must be bent to become a tone of the chord.
func (w Wish) bend(rng *rand.Rand, c Call) (Call, bool) {
	c.Given = w.spot(rng, c)
	var goals []int
	for h := 0; h <= blend.Limit(w.In, c.Given, w.Advanced); h++ {
		if _, ok := c.Chord.ToneAt((w.In.MIDI(c.Given) + h) % 12); ok {
			goals = append(goals, h)
		}
	}
	if w.Plain { // a bend that is one, to where no finger needs help
		goals = slices.DeleteFunc(goals, func(h int) bool { return h == 0 || h > 2 })
	}
	if len(goals) == 0 || blend.Limit(w.In, c.Given, w.Advanced) == 0 {
		return c, false
	}
	by := one(rng, goals)
	c.Goal, _ = c.Chord.ToneAt((w.In.MIDI(c.Given) + by) % 12)
	c.Options = []string{"0", "1", "2", "3"}
	c.Answer = c.Options[by]
	return c, true
}

// sound is what a pitch is over the chord of a call: its degree, and its name by that.
func (c Call) sound(midi int) harmony.Tone {
	if tone, ok := c.Chord.ToneAt(midi % 12); ok {
		return tone
	}
	degree := blend.Sounds(c.Chord)[c.Chord.Above(midi)].Degree
	up, _ := degree.Interval()
	return harmony.Tone{Degree: degree, Interval: up, Name: c.Chord.Root.Up(up).Simpler()}
}

// written asks for a note that stands on the staff, wherever it may be found.
func (w Wish) written(rng *rand.Rand, c Call) (Call, bool) {
	midi := w.In.MIDI(w.spot(rng, c))
	n := Note{Tone: c.sound(midi), MIDI: midi, Places: w.within(c, midi)}
	if w.Plain && !c.Chord.HasDegree(n.Tone.Degree) {
		return c, false
	}
	reads := pitch.At(midi, n.Tone.Name)
	c.Notes, c.Reads = []Note{n}, &reads
	for _, s := range blend.Sounds(c.Chord) {
		c.Options = append(c.Options, string(s.Degree))
	}
	return c, true
}

// fewest is how many places there are at least where every one is asked for.
const fewest = 2

// every asks for all places of a degree, or of a note by its name, each as a note of its own.
func (w Wish) every(rng *rand.Rand, c Call) (Call, bool) {
	c.Named, c.Free = rng.IntN(2) == 0, true
	var above []int
	for i, s := range blend.Sounds(c.Chord) {
		_, tone := c.Chord.ToneAt((c.Chord.Root.Class() + i) % 12)
		if (tone || !w.Plain) && (len(w.Starts) == 0 || slices.Contains(w.Starts, s.Degree.Role())) {
			above = append(above, i)
		}
	}
	class := (c.Chord.Root.Class() + one(rng, above)) % 12
	if len(above) == 0 {
		return c, false
	}
	for _, str := range slices.Backward(slices.Sorted(slices.Values(w.In.On(c.Region.Strings)))) {
		for fret := c.Region.Low; fret <= c.Region.High; fret++ {
			at := neck.Placement{String: str, Fret: fret}
			if midi := w.In.MIDI(at); midi%12 == class && w.In.CheckPlacement(at) == nil {
				c.Notes = append(c.Notes, Note{Tone: c.sound(midi), MIDI: midi, Places: []neck.Placement{at}})
			}
		}
	}
	return c, len(c.Notes) >= fewest
}
