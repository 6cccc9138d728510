package ear

import (
	"cmp"
	"math"
	"slices"

	"undaris/core/judge"
)

// rang is the note before a stroke, and the pitch that it sounded; 0 is none.
func (l *Listener) rang(i int) (before note, pitch float64) {
	if i == 0 {
		return note{}, 0
	}
	before = l.notes[i-1]
	return before, cmp.Or(before.furthest, before.settled)
}

// pitches decides what a stroke sounded: nothing where it was but noise, two notes
// of a double stop. meant tells that they were to be played.
func (l *Listener) pitches(i int) (pitches []float64, meant bool) {
	n := l.notes[i]
	before, ringing := l.rang(i)
	if !n.weighed && n.settled == 0 {
		return nil, false
	}
	near := l.near(n.at)
	meant = slices.ContainsFunc(near, func(e judge.Expected) bool { return e.Holds(n.settled) })
	// What several strings share sounds like a lower note that nobody played.
	if !meant && n.settled != 0 && n.weighed && n.struck && n.strength(n.settled) < leastOwn {
		n.settled, n.furthest = 0, 0
	}
	p := cmp.Or(n.furthest, n.settled)
	same := ringing != 0 && n.settled != 0 && math.Abs(n.settled-ringing) < in
	// Struck again, where it was to be: another note of that pitch is nearer to this stroke than to the one before.
	again := slices.ContainsFunc(near, func(e judge.Expected) bool {
		return e.Holds(ringing) && math.Abs(e.At-n.at) < min(math.Abs(e.At-before.at), reach/2)
	})
	if n.weighed && (n.fresh < leastNew || same && n.fresh < leastSame && !(again && n.fresh > leastAgain)) {
		return nil, false
	}
	for _, e := range near {
		if n.settled != 0 && e.Holds(n.settled) {
			return append([]float64{p}, l.beside(n, e, near)...), true
		}
	}
	for _, e := range near {
		if e.Dead {
			return []float64{e.Pitch}, true
		}
		if !n.brought(e.Fretted) {
			continue
		}
		// Only the pitch settles the octave; but what rang already lends its upper one to the ear.
		if n.settled != 0 && octaves(n.settled, e.Fretted) && !(e.Holds(ringing) && n.settled > e.Fretted) && !n.doubled(e.Fretted) {
			return []float64{p}, false
		}
		own := e.Fretted
		if n.furthest != 0 && n.settled != 0 {
			own += n.furthest - n.settled
		}
		return append([]float64{own}, l.beside(n, e, near)...), true
	}
	switch {
	case n.settled != 0:
		return []float64{p}, false
	case n.fresh > leastSame:
		return n.stranger(near), false
	}
	return nil, false
}

// doubled tells that a pitch settled an octave beneath a note, and is its period taken twice: it is hardly clear, and the stroke
// brought the note itself far more.
func (n note) doubled(midi float64) bool {
	return n.settled < midi && n.clarity < vague && n.strength(midi) == 1 && n.strength(n.settled) < leastTwice
}

// stranger is a note without a settled pitch that was not to be played: it must be
// far stronger than what was, else nobody can tell.
func (n note) stranger(near []judge.Expected) []float64 {
	for _, c := range n.candidates {
		for _, e := range near {
			if n.strength(e.Fretted) >= leastOwn || slices.Contains(partials, float64(c.MIDI)-e.Fretted) {
				return nil
			}
		}
		if n.brought(float64(c.MIDI)) && c.Strength >= leastOwn {
			return []float64{float64(c.MIDI)}
		}
	}
	return nil
}

// beside lists the other notes of a double stop that were brought too.
func (l *Listener) beside(n note, e judge.Expected, near []judge.Expected) (more []float64) {
	for _, other := range near {
		if other.At == e.At && other.Pitch != e.Pitch && n.strength(other.Fretted) >= 0.35 {
			more = append(more, other.Fretted)
		}
	}
	return more
}

func octaves(a, b float64) bool {
	off := math.Abs(a - b)
	return off > 6 && math.Abs(math.Mod(off+6, 12)-6) <= in
}

// thirds tells that one of two pitches has three times the period of the other.
func thirds(a, b float64) bool { return math.Abs(math.Abs(a-b)-19) <= in }

func (n note) strength(midi float64) float64 {
	for _, c := range n.candidates {
		if math.Abs(float64(c.MIDI)-midi) <= in {
			return c.Strength
		}
	}
	return 0
}

// partials are half steps from a note to the next ones of its harmonics: what rings
// there belongs to it as likely as not.
var partials = []float64{12, 19, 24, 28, 31, 34, 36}

// brought tells that a stroke brought a note: nothing but its octaves and partials
// is much stronger.
func (n note) brought(midi float64) bool {
	own := n.strength(midi)
	if own == 0 {
		return false
	}
	for _, c := range n.candidates {
		off := float64(c.MIDI) - midi
		if own < rival*c.Strength && math.Mod(off, 12) != 0 && !slices.Contains(partials, off) {
			return false
		}
	}
	return true
}
