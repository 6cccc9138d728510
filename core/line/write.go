package line

import (
	"context"
	"math"
	"slices"
	"strconv"

	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// candidate is a place a slot's note may take.
type candidate struct {
	neck.Placement
	midi    int
	class   blend.Class
	wished  bool    // it is no chord tone, but what is to be landed on
	outside bool    // not in the palette: it must move on by a fret to a chord tone
	cost    float64 // of taking it, whatever comes before and after

	way    score.Ornaments // how it is played; midi is what is heard
	under  neck.Placement  // a second tone under it; string 0 is none
	bend   int             // of the second tone, in quarter tones
	curled bool            // it may rest, as it is
	leaned bool            // on a strong beat: it must resolve within it
}

// weights of the cost of a line. A whole line's cost is the sum over its notes
// of what they are, where they lie and how they are reached; see unary and pair.
var (
	// classes is what a note costs by what it is, inside the palette.
	classes = map[blend.Class]float64{blend.ChordTone: 0, blend.Colour: 0.5, blend.Blue: 0.7, blend.Tension: 1.1, blend.Passing: 1.6}
	// intervals is what a step costs by its size in half steps.
	intervals = [...]float64{2.2, 0, 0, 0.2, 0.3, 0.7, 2.2, 1.3, 2.4, 2.8, 4, 5, 3}
)

const (
	farther    = 6.0   // an interval beyond an octave
	foreign    = 1.5   // a note from outside the palette
	wish       = 0.6   // each place in the order of targets
	off        = 0.045 // each half step squared away from the contour
	jitter     = 1.3   // the most that the seed adds
	jumping    = 0.35  // each string jumped over
	unresolved = 2.5   // a blue note or a tension left by more than a step
	led        = -0.9  // an approach by a fret into a change
	enclosed   = -0.6  // the notes a fret below and above, and then the change
	overrun    = 0.7   // each note that goes on in one direction beyond four
	leapOn     = 1.2   // going on in the direction of a leap
	dither     = 0.8   // a small step and a small step back
	seldom     = 0.6   // a bend where few are wished, for each that is missing to three
	clashing   = 8.0   // a bend directly after one of another fret
	scooped    = 3.0   // a note slid into directly after another that is
	zigzag     = 1.8   // each turn round beyond the second in a row; the second costs a third of it
)

// Write fills the bars of a score with a line at the least cost, and fingers it.
// Notes of locked bars, and of bars outside From and To, stay. The cost is the
// exact minimum for the rhythm that the seed has drawn, by dynamic programming.
func Write(ctx context.Context, s score.Score, w Wish, hand neck.Hand) ([]score.Note, error) {
	if w.Rhythm == OwnRhythm {
		w.Rhythm = RhythmOf(w.Word, s.Feel)
	}
	if err := w.check(s.In); err != nil {
		return nil, err
	}
	if len(s.Bars) == 0 {
		return nil, say.Errorf("there are no bars to write")
	}
	w.Locked = lockedOutside(s, w)
	slots, layers, way, err := search(ctx, s, w)
	if err != nil {
		return nil, err
	}
	if w.echoes(s, slots, layers, way) {
		if again, _ := cheapest(ctx, slots, layers); again != nil {
			way = again
		}
	}
	for w.Spice.Bends >= bendsMuch && !w.ChordTones && !bends(layers, way) && w.Spice.Bends < MostSpice {
		w.Spice.Bends = min(MostSpice, w.Spice.Bends+1) // a chorus that was to have bends has one
		if slots, layers, way, err = search(ctx, s, w); err != nil {
			return nil, err
		}
	}
	if way == nil {
		return nil, say.Errorf("these wishes cannot all be met in this window; widen it or allow more tones")
	}
	var notes []score.Note
	for i, k := range slots {
		if k.fixed != nil {
			continue
		}
		c := layers[i][way[i]]
		n := score.Note{Start: k.start, Length: k.length, Placement: c.Placement, Ornaments: c.way}
		next := -1
		if i+1 < len(slots) {
			next = layers[i+1][way[i+1]].midi
		}
		fretted := s.In.MIDI(c.Placement)
		n.Pitch = pitch.At(fretted, spelled(s, w, k.chord, fretted, next))
		if i > 0 && slots[i].slur > 0 && slots[i-1].fixed == nil {
			n.Join = slurs(&slots[i-1], &slots[i], &layers[i-1][way[i-1]], &c)
		}
		if before := i - 1; k.slid && before >= 0 && slots[before].fixed == nil && layers[before][way[before]].String == c.String && c.way.Bend == 0 {
			n.Join, n.Scoop = score.Slide, 0
		}
		notes = append(notes, n)
		if c.under.String > 0 {
			low := s.In.MIDI(c.under)
			n := score.Note{Start: k.start, Length: k.length, Placement: c.under, Pitch: pitch.At(low, spelled(s, w, k.chord, low, -1))}
			n.Bend = c.bend
			notes = append(notes, n)
		}
	}
	if s.Swing {
		score.Straighten(notes)
	}
	fresh := s
	fresh.Notes = notes
	fresh.Respell()
	for _, n := range s.Notes {
		pickup := n.Start < 0 && (w.Spice == (Spice{}) || w.Locked[0]) // a line that has its own begins anew
		if pickup || n.Start >= 0 && w.Locked[s.BarOf(n.Start)] {
			notes = append(notes, n)
		}
	}
	score.Sort(notes)
	dress(s, notes, w)
	struckAgain(notes)
	score.Finger(s.In, notes, hand)
	s.Notes = notes
	lick.Label(s)
	return notes, nil
}

// search draws a rhythm and finds the cheapest notes for it; way is nil where there is none.
func search(ctx context.Context, s score.Score, w Wish) (slots []slot, layers [][]candidate, way []int, err error) {
	slots = plan(s, w)
	if len(slots) == 0 {
		return nil, nil, nil, say.Errorf("there is nothing to write: every bar is locked or silent")
	}
	layers = make([][]candidate, len(slots))
	steps := 0
	for i, k := range slots {
		if ctx.Err() != nil {
			return nil, nil, nil, ctx.Err()
		}
		layers[i] = candidates(s, w, k)
		if i > 0 {
			steps += len(layers[i-1]) * len(layers[i])
		}
		if steps > maxSteps {
			return nil, nil, nil, say.Errorf("%d notes with as many places as these frets and strings hold are too many to weigh at once: it gets as far as bar %d. Write fewer bars, or in fewer frets", len(slots), max(1, s.BarOf(k.start)+1))
		}
		if len(layers[i]) == 0 {
			return nil, nil, nil, say.Errorf("no tone of %s lies in %s", k.chord, w.Region.Says())
		}
	}
	way, _ = cheapest(ctx, slots, layers)
	return slots, layers, way, ctx.Err()
}

// bendsMuch is from how much on a chorus is to have a bend.
const bendsMuch = 3

// bends tells that some note of a way is bent.
func bends(layers [][]candidate, way []int) bool {
	for i, at := range way {
		if layers[i][at].way.Bend > 0 {
			return true
		}
	}
	return len(way) == 0
}

// lockedOutside locks the bars that are not to be written.
func lockedOutside(s score.Score, w Wish) map[int]bool {
	locked := map[int]bool{}
	for b := range s.Bars {
		locked[b] = w.Locked[b] || w.To > 0 && (b < w.From || b >= w.To)
	}
	return locked
}

// candidates are the places a slot's note may take, each with its own cost.
func candidates(s score.Score, w Wish, k slot) (out []candidate) {
	if k.fixed != nil {
		return []candidate{{Placement: k.fixed.Placement, midi: k.fixed.Pitch.MIDI(), class: blend.ChordTone}}
	}
	on := s.In.On(w.Region.Strings)
	low, span := w.lowest(s), w.span(s)
	table := blend.Sounds(k.chord)
	rule := w.Rule.Over(s.Key, k.chord)
	inside := [12]bool{}
	for _, m := range w.Palette.Notes(s.Key, k.chord) {
		inside[m.Name.Class()] = true
	}
	var best [2][neck.MaxStrings + 1][128]int // fretted and bent, for each string and pitch heard, the cheapest way to it, from 1
	add := func(c candidate) {
		at := &best[min(1, c.way.Bend/2)][c.String][c.midi]
		switch {
		case *at == 0:
			out = append(out, c)
			*at = len(out)
		case c.cost < out[*at-1].cost:
			out[*at-1] = c
		}
	}
	for _, str := range on {
		for fret := w.Region.Low; fret <= w.Region.High; fret++ {
			p := neck.Placement{String: str, Fret: fret}
			midi := s.In.MIDI(p)
			sound := table[k.chord.Above(midi)]
			c := candidate{Placement: p, midi: midi, class: sound.Class}
			c.outside = sound.Class != blend.ChordTone && !inside[midi%12]
			c.leaned = sound.Class != blend.ChordTone && k.strong && leans(w, k, sound)
			c.wished = k.change && sound.Class != blend.ChordTone && w.landsOn(sound)
			asked := c.wished || k.meets(w, midi, sound.Class)
			if asked {
				c.outside, c.leaned = false, false
			}
			rests := sound.Class != blend.ChordTone && !c.outside && w.mayRest(s, k, rule, sound)
			if !asked && !rests && sound.Class != blend.ChordTone && (w.ChordTones || k.strong && !c.leaned || k.rests || c.outside && !w.Approach && !c.leaned) {
				continue
			}
			weigh := func(c *candidate, sound blend.Sound) {
				c.cost = classes[sound.Class]
				switch {
				case c.leaned:
					c.cost, c.outside = leaning.worth(w, &k, w.Spice.Blue), false
				case c.outside:
					c.cost = foreign
				case rests:
					c.cost += resting.worth(w, &k, usually)
				}
				if k.change {
					c.cost += wish * float64(harmony.UsualOrder.Place(sound.Degree.Role()))
				}
				height := float64(c.midi-low) - k.height*span
				c.cost += off*height*height + jitter*chance(w.Seed, k.key, string(sound.Degree), c.midi)
			}
			weigh(&c, sound)
			if k.asks.is && k.key >= closingIdea { // a closing's figure stays as it is
				add(c)
				continue
			}
			for _, let := range letDown(s, w, k, c, &inside) {
				add(let)
			}
			if w.Spice != (Spice{}) && !k.octaves {
				c = c.vary(s, w, k, sound)
			}
			add(c)
			for up := 1; up <= 2 && w.Spice.Bends > 0 && !w.ChordTones && !k.octaves; up++ {
				b, ok := bent(s, w, k, p, up, &inside)
				if !ok {
					continue
				}
				heard := table[k.chord.Above(b.midi)]
				b.leaned = heard.Class != blend.ChordTone && k.strong
				if b.leaned && !leans(w, k, heard) {
					continue
				}
				weigh(&b, heard)
				b.cost += bending.worth(w, &k, w.Spice.Bends) + seldom*float64(max(0, 3-w.Spice.Bends))
				add(b)
			}
		}
	}
	if k.asks.is {
		met := slices.DeleteFunc(slices.Clone(out), func(c candidate) bool { return !k.meets(w, c.midi, c.class) })
		if len(met) > 0 {
			if k.octaves {
				return w.inOctaves(s, met)
			}
			return met // what is asked of one note goes before what is wished of all
		}
	}
	if k.octaves {
		out = w.inOctaves(s, out)
	}
	if k.change && len(w.Targets) > 0 {
		wanted := slices.DeleteFunc(slices.Clone(out), func(c candidate) bool {
			return !w.landsOn(table[k.chord.Above(c.midi)])
		})
		if len(wanted) > 0 {
			return wanted
		}
	}
	return out
}

// chance is the seed's liking for a degree at a place of an idea, 0 to 1.
func chance(seed, key uint64, degree string, midi int) float64 {
	var room [64]byte
	text := strconv.AppendUint(room[:0], seed, 10)
	text = strconv.AppendUint(append(text, ' '), key, 10)
	text = append(append(append(text, ' '), degree...), ' ')
	x := uint64(14695981039346656037) // FNV-1a
	for _, b := range strconv.AppendInt(text, int64(midi/12), 10) {
		x = (x ^ uint64(b)) * 1099511628211
	}
	x ^= x >> 31
	x *= 0x9E3779B97F4A7C15
	return float64(x>>11) / (1 << 53)
}

// pair is the cost of going from one note to the next, infinite when it is
// ruled out.
func pair(from, to *slot, a, b *candidate) float64 {
	d := size(b.midi - a.midi)
	resolves := d == 1 && b.class == blend.ChordTone
	var cost float64
	switch {
	case a.outside && !resolves, a.leaned && !resolved(from, to, a, b):
		return math.Inf(1)
	case a.outside && to.change:
		cost += led
	case !a.curled && (a.class == blend.Tension || a.class == blend.Passing || a.class == blend.Blue) && (d > 2 || d == 0):
		cost += unresolved
	}
	step := farther
	if d < len(intervals) {
		step = intervals[d]
	}
	if d == 0 {
		step -= to.again
	}
	if d >= to.leap[0] && d <= to.leap[1] && d > 0 {
		step = -leaping.reward
	}
	if a.way.Bend > 1 && b.way.Bend > 1 && a.Placement != b.Placement && from.pause < score.Tick {
		step += clashing
	}
	if a.way.Scoop > 0 && b.way.Scoop > 0 && from.pause < score.Tick {
		step += scooped
	}
	if to.slid && a.String != b.String {
		step += farther
	}
	if to.slur > 0 && slurs(from, to, a, b) != score.Picked {
		cost -= to.slur
	}
	if from.pause >= score.Tick {
		step /= 3
	}
	cost += step
	if jump := size(a.String - b.String); jump > 1 {
		cost += jumping * float64(jump-1)
	}
	return cost
}

// spelled names a note: as a tone of its chord, as a note of the palette, or as
// what leads to the next note.
func spelled(s score.Score, w Wish, chord harmony.Chord, midi, next int) pitch.Name {
	if t, ok := chord.ToneAt(midi % 12); ok {
		return t.Name
	}
	for _, m := range w.Palette.Notes(s.Key, chord) {
		if m.Name.Class() == midi%12 {
			if m.Name.Alter < -1 || m.Name.Alter > 1 {
				return m.Name.Simpler() // nobody reads B𝄫 in a line
			}
			return m.Name
		}
	}
	if next == midi+1 { // from below, on the letter below
		for _, n := range pitch.Roots {
			up := s.Key.Spell(next % 12)
			if n.Class() == midi%12 && (n.Letter+1)%7 == up.Letter {
				return n
			}
		}
	}
	return s.Key.Spell(midi % 12)
}

// struckAgain strikes a note that is held bent a second time where the line bends to it once more.
func struckAgain(notes []score.Note) {
	for i := 1; i < len(notes); i++ {
		a, b := notes[i-1], &notes[i]
		if a.Bend > 1 && !a.Release && a.Placement == b.Placement && a.Bend == b.Bend && !b.PreBend && a.End() == b.Start {
			b.Again = true
		}
	}
}

// dress plays a line as a hand would: a step up a string from the beat is
// hammered, a step down pulled off, a held note sways,
// unless it is bent.
func dress(s score.Score, notes []score.Note, w Wish) {
	for i := range notes {
		n := &notes[i]
		if n.Start < 0 || w.Locked[s.BarOf(n.Start)] {
			continue
		}
		if n.Length >= held && n.Bend != 1 && !n.Release { // a bend that is held sways at its top
			n.Vibrato = true
		}
		if w.Spice != (Spice{}) || i == 0 || n.Start%score.Tick == 0 || n.Fret == 0 && notes[i-1].Fret == 0 {
			continue
		}
		before := notes[i-1]
		d := n.Fret - before.Fret
		if before.String != n.String || before.End() < n.Start || size(d) > 2 || d == 0 || before.Bend > 0 {
			continue
		}
		if chance(w.Seed, uint64(n.Start), "join", 0) < 0.5 {
			n.Join = score.Hammer
			if d < 0 {
				n.Join = score.PullOff
			}
		}
	}
}
