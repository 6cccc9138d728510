package line

import (
	"math"
	"strings"

	"undaris/core/blend"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// device is a way of playing, weighed: what it costs beyond the plain note, and what it
// takes off where the seed likes it; often is at how many places of a hundred that is,
// with as much of its spice as can be.
type device struct {
	name         string
	cost, reward float64
	often        float64
}

// The devices. That they are spread over a line is left to the seed, where they fit best
// to the search.
var (
	bending   = device{"bend", 2.3, 2.6, 0.28}
	letting   = device{"let down", 3.4, 1.6, 0.22}    // bent and let down again
	before    = device{"bent before", 3.6, 1.9, 0.14} // bent before it is struck, and let down
	curling   = device{"curl", 1.0, 1.4, 0.5}
	scooping  = device{"scoop", 1.0, 0.6, 0.3}
	doubling  = device{"double", 1.2, 0.6, 0.4}
	unison    = device{"unison", 2.6, 0.8, 0.15}  // a second tone bent up to the same
	oblique   = device{"oblique", 2.4, 1.0, 0.18} // a second tone bent up to another of the chord, under a note that is held
	leaning   = device{"lean", 1.8, 1.2, 0.5}
	slurring  = device{"slur", 0, 1.1, 0.7}   // a hammer-on or a pull-off
	repeating = device{"same", 0, 2.4, 0.5}   // the same note again
	resting   = device{"rest", 1.0, 0.9, 0.5} // on a note that may rest though it is no chord tone
	leaping   = device{"leap", 0, 2, 0.22}    // a fifth, a sixth or an octave
)

// usually is as much of a device as a player of any style has.
const usually = 4

// likes tells that the seed likes the device at a place of an idea.
func (d device) likes(w Wish, k *slot, spice int) bool {
	return spice > 0 && chance(w.Seed, k.key, d.name, 0) < d.often*part(spice)
}

// worth is what the device adds to the cost of a note at a place.
func (d device) worth(w Wish, k *slot, spice int) float64 {
	switch {
	case spice == 0:
		return math.Inf(1)
	case d.likes(w, k, spice):
		return -d.reward
	}
	return d.cost
}

// off is what a step between two notes that can have the device costs less there.
func (d device) off(w Wish, k *slot, spice int) float64 {
	if d.likes(w, k, spice) {
		return d.reward
	}
	return 0
}

// leaps are the sizes in half steps that a leap is drawn from, those that players take most the more often.
var leaps = [...][2]int{{7, 7}, {7, 7}, {8, 9}, {8, 9}, {12, 12}}

// leap is the size of a leap that the seed likes at a place of an idea, from and to; none is nothing.
func (w Wish) leap(k *slot) (size [2]int) {
	if leaping.likes(w, k, min(6, w.Spice.Height)) {
		size = leaps[int(float64(len(leaps))*chance(w.Seed, k.key, "leap of", 0))]
	}
	return size
}

// GaveWay tells which wishes contradict others, and which of them gave way.
func (w Wish) GaveWay(s score.Score) (said []string) {
	in := s.In
	on := in.On(w.Region.Strings)
	bendable := false
	for _, str := range on {
		for fret := max(1, w.Region.Low); fret <= min(w.Region.High, in.Last()); fret++ {
			bendable = bendable || in.Bendable(neck.Placement{String: str, Fret: fret}) > 0
		}
	}
	for _, c := range []struct {
		clash bool
		says  string
	}{
		{w.ChordTones && w.Spice.Bends > 0, "bends gave way: nothing but chord tones was wished, and a bend begins on another note"},
		{w.ChordTones && w.Spice.Blue > 0, "blue notes on the beat gave way: nothing but chord tones was wished"},
		{!w.ChordTones && w.Spice.Bends > 0 && !bendable, "bends gave way: no note in these frets and on these strings can be bent"},
		{w.Spice.Rests > 0 && w.Phrasing == "study", "silence gave way: without a rest was wished"},
		{w.Spice.DoubleStops > 0 && len(on) == 1, "double stops gave way: there is one string"},
		{w.Spice.Octaves > 0 && len(on) < 3, "octaves gave way: they lie on strings with one between, and these are fewer than three"},
		{strings.HasPrefix(w.Phrasing, "fill") && s.Beats != 4, "figures and runs gave way: they are of four beats"},
		{w.shuts() && !closable(s), "how it closes gave way: the figures are of four beats"},
		{w.ending() && !atHome(s), "how it closes gave way: an ending goes home, and the last bar does not hold the one; take a turnaround, or end the chart on the one"},
		{w.shuts() && closable(s) && !w.Closes(s) && (!w.ending() || atHome(s)), "how it closes gave way: the last two bars are locked, or not all written"},
		{w.shuts() && w.ChordTones && w.Closes(s), "how it closes gave way where it is not of chord tones, which alone were wished"},
		{w.Spice.Blue > 0 && len(w.Targets) > 0, "blue notes gave way on the changes: what to land on was wished"},
	} {
		if c.clash {
			said = append(said, c.says)
		}
	}
	return said
}

// vary plays a plain candidate as the hand may, and takes the cheapest way: scooped,
// curled, or with a second tone under it.
func (c candidate) vary(s score.Score, w Wish, k slot, sound blend.Sound) candidate {
	plain := c.cost
	take := func(cost float64, as candidate) {
		if plain+cost < c.cost {
			as.cost = plain + cost
			c = as
		}
	}
	long := k.length >= score.Tick/2
	if long && c.Fret > 1 && c.class == blend.ChordTone && c.Fret-1 >= w.Region.Low {
		as := c
		as.way = score.Ornaments{Scoop: 1 + int(2*chance(w.Seed, k.key, "from", c.midi))}
		if as.way.Scoop > c.Fret-w.Region.Low {
			as.way.Scoop = 1
		}
		take(scooping.worth(w, &k, w.Spice.Slides), as)
	}
	if long && sound.Class == blend.Blue && (sound.Degree == "#9" || sound.Degree == "b3") && s.In.Bends(c.Placement) > 0 {
		as := c
		as.way = score.Ornaments{Bend: 1}
		as.curled = true
		take(curling.worth(w, &k, w.Spice.Bends), as)
	}
	if k.length >= score.Tick && c.class == blend.ChordTone && w.Spice.DoubleStops > 0 && w.Spice.Bends > 0 && !w.ChordTones {
		if under, ok := w.unison(s, c); ok {
			as := c
			as.under, as.bend = under, 4
			take(unison.worth(w, &k, w.Spice.DoubleStops), as)
		}
		if under, up, ok := w.bentUnder(s, k, c); ok {
			as := c
			as.under, as.bend = under, 2*up
			take(oblique.worth(w, &k, w.Spice.DoubleStops), as)
		}
	}
	if k.length >= score.Tick && c.class == blend.ChordTone && w.Spice.DoubleStops > 0 {
		if under, ok := w.under(s, k, c); ok {
			as := c
			as.under = under
			take(doubling.worth(w, &k, w.Spice.DoubleStops), as)
		}
	}
	return c
}

// unison is a place on the next string down from which a whole step's bend comes to the same pitch, under the hand that holds it.
func (w Wish) unison(s score.Score, c candidate) (neck.Placement, bool) {
	if c.Fret == 0 || c.way != (score.Ornaments{}) || c.String >= s.In.Strings() {
		return neck.Placement{}, false
	}
	at := neck.Placement{String: c.String + 1}
	at.Fret = c.midi - 2 - s.In.MIDI(at)
	return at, c.Fret >= 5 && at.Fret > c.Fret && at.Fret <= c.Fret+2 && w.Region.Has(at) && s.In.Bends(at) >= 4
}

// bentUnder is a place on the next string down from which a bend of so many half steps comes to another chord tone, a third to a
// sixth under a note that is held: by the finger below the one that holds, or by those above the first.
func (w Wish) bentUnder(s score.Score, k slot, c candidate) (at neck.Placement, up int, ok bool) {
	if c.Fret == 0 || c.way != (score.Ornaments{}) || c.String >= s.In.Strings() {
		return at, 0, false
	}
	for _, fret := range []int{c.Fret - 1, c.Fret + 2, c.Fret + 1} {
		at = neck.Placement{String: c.String + 1, Fret: fret}
		for up = 2; up >= 1; up-- {
			if fret < 1 || !w.Region.Has(at) || s.In.Bends(at) < 2*up {
				continue
			}
			midi := s.In.MIDI(at) + up
			if _, tone := k.chord.ToneAt(pitch.Class(midi)); tone && c.midi-midi >= 3 && c.midi-midi <= 9 {
				return at, up, true
			}
		}
	}
	return at, 0, false
}

// under is a chord tone on the next string down that the hand holds with a note.
func (w Wish) under(s score.Score, k slot, c candidate) (neck.Placement, bool) {
	for _, fret := range []int{c.Fret, c.Fret + 1, c.Fret - 1, c.Fret + 2, c.Fret - 2} {
		at := neck.Placement{String: c.String + 1, Fret: fret}
		if at.String > s.In.Strings() || fret <= 0 || c.Fret == 0 || !w.Region.Has(at) {
			continue
		}
		midi := s.In.MIDI(at)
		if _, tone := k.chord.ToneAt(midi % 12); tone && c.midi-midi >= 3 && c.midi-midi <= 9 {
			return at, true
		}
	}
	return neck.Placement{}, false
}

// bent is a note that is reached by bending a note of the palette below it up to a chord
// tone or a blue note; ok is false where it is none that the hand can bend so.
func bent(s score.Score, w Wish, k slot, from neck.Placement, up int, inside *[12]bool) (c candidate, ok bool) {
	midi := s.In.MIDI(from)
	if !inside[midi%12] || s.In.Bends(from) < 2*up || from.Fret == 0 || k.length < score.Tick/2 {
		return c, false
	}
	sound := blend.Sounds(k.chord)[k.chord.Above(midi+up)]
	if sound.Class != blend.ChordTone && sound.Class != blend.Blue || k.rests && sound.Class != blend.ChordTone {
		return c, false
	}
	return candidate{Placement: from, midi: midi + up, class: sound.Class, way: score.Ornaments{Bend: 2 * up}}, true
}

// letDown are the ways to come to a note from above on its own fret: bent up to a tone and let down again, or bent before it is
// struck.
func letDown(s score.Score, w Wish, k slot, c candidate, inside *[12]bool) (out []candidate) {
	if w.Spice.Bends == 0 || w.ChordTones || k.octaves || c.Fret == 0 || c.way != (score.Ornaments{}) || k.length < score.Tick*2/3 || c.class != blend.ChordTone {
		return nil
	}
	sounds := blend.Sounds(k.chord)
	for up := 1; up <= 2 && s.In.Bends(c.Placement) >= 2*up; up++ {
		over := sounds[k.chord.Above(c.midi+up)]
		if over.Class != blend.ChordTone && !(inside[(c.midi+up)%12] && over.Class != blend.Passing) {
			continue
		}
		for _, way := range []struct {
			device
			pre bool
		}{{letting, false}, {before, true}} {
			as := c
			as.way = score.Ornaments{Bend: 2 * up, Release: true, PreBend: way.pre}
			as.cost += way.worth(w, &k, w.Spice.Bends)
			out = append(out, as)
		}
	}
	return out
}

// slurs tells how a note is joined to the one before on its string, where it is off the
// beat and the hand need not move; "" where it is picked.
func slurs(from, to *slot, a, b *candidate) score.Join {
	d := b.Fret - a.Fret
	if a.String != b.String || d == 0 || from.pause > 0 || to.start%score.Tick == 0 || a.Fret == 0 && b.Fret == 0 ||
		a.way.Bend > 0 || b.way.Bend > 0 || b.way.Scoop > 0 || a.under.String > 0 || b.under.String > 0 {
		return score.Picked
	}
	switch {
	case size(d) > 2:
		return score.Picked
	case d > 0:
		return score.Hammer
	}
	return score.PullOff
}

// leans tells that a note on a strong beat that is no chord tone may stand there: blue or
// a tension, it moves on within the beat.
func leans(w Wish, k slot, sound blend.Sound) bool {
	if w.Spice.Blue == 0 || w.ChordTones || k.rests || k.length > score.Tick/2 || k.change && len(w.Targets) > 0 {
		return false
	}
	switch sound.Degree {
	case "#9", "b3", "11", "#11", "b5":
		return sound.Class == blend.Blue || sound.Class == blend.Tension
	}
	return false
}

// mayRest tells that the line may come to rest on a note that is no chord tone: where it is held or before a silence, by the
// player's rule; not on a change, nor at the very end.
func (w Wish) mayRest(s score.Score, k slot, rule Rule, sound blend.Sound) bool {
	return k.rests && !k.change && !w.ChordTones && (w.Spice != (Spice{}) || !k.strong) && k.start+k.length+k.pause < s.End() && rule.Allows(k.chord, sound)
}

// resolved tells that a leaned note moves on to a chord tone by step, within the beat.
func resolved(from, to *slot, a, b *candidate) bool {
	d := size(b.midi - a.midi)
	return b.class == blend.ChordTone && (d == 1 || d == 2) && to.start-from.start <= score.Tick && from.pause == 0
}

// Arcs, as heights from 0 to 1 at parts of a line's way: most lines climb to a high point in their last third, some begin high and fall.
var (
	climbing = []point{{0, 0.58}, {0.55, 0.7}, {0.8, 1}, {1, 0.64}}
	falling  = []point{{0, 1}, {0.15, 0.95}, {0.5, 0.7}, {1, 0.58}}
)

type point struct{ at, height float64 }

const (
	falls   = 0.16 // how many lines begin high
	wanders = 0.12 // how far the high point may lie to either side
)

// arc is how high a line stands at a part of its way, 0 to 1.
func (w Wish) arc(at float64) float64 {
	points := climbing
	if chance(w.Seed, 0, "falls", 0) < falls {
		points = falling
	} else if at > 0 && at < 1 { // the top lies a little elsewhere in each
		at = math.Pow(at, math.Log(points[2].at)/math.Log(points[2].at+wanders*(2*chance(w.Seed, 0, "top", 0)-1)))
	}
	for i, to := range points[1:] {
		if from := points[i]; at <= to.at {
			return from.height + (to.height-from.height)*(at-from.at)/(to.at-from.at)
		}
	}
	return points[len(points)-1].height
}
