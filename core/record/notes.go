package record

import (
	"cmp"
	"math"
	"slices"

	"undaris/core/ear"
	"undaris/core/judge"
	"undaris/core/score"
)

// second is how many ticks of the ear there are to one of a recording's seconds.
const second = 2 * score.Tick

// What of a pitch is a bend, and how a finger reaches a note without a stroke.
const (
	bendsFrom  = 0.35 // half steps
	bendsUpTo  = 4.5
	hammersTo  = 4 // half steps that a finger hammers or pulls off at most; further it slides
	shortest   = 0.045
	ringsOn    = 4.0  // seconds that a note sounds at most where nothing ends it
	sameNote   = 0.09 // seconds within which a guess is a settled note heard again
	clearFrom  = 0.86 // clarity of which nothing is sure
	clearTo    = 0.985
	freshly    = 0.5 // of what sounds, that a sure stroke brings
	neverClear = 0.35
)

// Listening is how notes are made of what an ear noticed.
type Listening struct {
	Cents           float64 // that the recording lies above instruments in tune
	Lowest, Highest int     // MIDI numbers that the instrument has
	Settled         []Guess // notes that a player has settled: they help, and are not told again
	Lead            bool    // others play beneath it: what lies far under the line is theirs
}

// Notes makes guesses of what an ear noticed; observations have seconds in place of ticks.
func (l Listening) Notes(noticed []ear.Observation) []Guess {
	hears := ear.Listen(l.expected())
	hears.Music()
	by := l.Cents / 100
	for _, o := range noticed {
		o.Tick *= second
		if o.MIDI != 0 {
			o.MIDI -= by
		}
		if o.Low != 0 {
			o.Low -= by
		}
		hears.Hear(o)
	}
	notes := hears.Notes()
	var out []Guess
	for i, n := range notes {
		g, ok := l.guess(n)
		if !ok {
			continue
		}
		until := g.At + ringsOn
		for _, next := range notes[i+1:] {
			if next.At > n.At {
				until = min(until, next.At/second)
				break
			}
		}
		if g.Length == 0 || g.At+g.Length > until {
			g.Length = until - g.At
		}
		g.Length = max(g.Length, shortest)
		if n.Unstruck && len(out) > 0 {
			g.Join = joined(out[len(out)-1], g)
		}
		if !l.known(g) {
			out = append(out, g)
		}
	}
	for i := range out {
		out[i].ID = i + 1
	}
	return out
}

// expected are the settled notes, as what was to be played.
func (l Listening) expected() (out []judge.Expected) {
	for _, s := range l.Settled {
		out = append(out, judge.Expected{At: s.At * second, Pitch: float64(s.Pitch) + s.Bend, Fretted: float64(s.Pitch), Bent: s.Bend > 0, Joined: s.Join != score.Picked})
	}
	slices.SortStableFunc(out, func(a, b judge.Expected) int { return cmp.Compare(a.At, b.At) })
	return out
}

// known tells that a guess is a note which its player has settled.
func (l Listening) known(g Guess) bool {
	return slices.ContainsFunc(l.Settled, func(s Guess) bool { return math.Abs(s.At-g.At) < sameNote })
}

// guess is what a note may be on the neck; ok is false where the instrument has no such note.
func (l Listening) guess(n ear.Note) (g Guess, ok bool) {
	g = Guess{At: n.At / second, Length: n.Length / second, Pitch: int(math.Round(n.Pitch)), Vibrato: n.Sways(), Sure: sure(n)}
	if up := n.Pitch - n.Struck; n.Struck > 0 && !n.Unstruck && up >= bendsFrom && up <= bendsUpTo {
		g.Pitch = int(math.Round(n.Struck))
		g.Bend = math.Round(2*(n.Pitch-float64(g.Pitch))) / 2
		if whole := math.Round(g.Bend); math.Abs(n.Pitch-float64(g.Pitch)-whole) < 0.36 {
			g.Bend = whole // a bend that comes near to a half step is meant for it
		}
		g.Bend = max(0, g.Bend)
	}
	return g, g.Pitch >= l.Lowest && g.Pitch <= l.Highest
}

// joined is how a note without a stroke is reached.
func joined(before, n Guess) score.Join {
	switch up := n.Pitch - before.Pitch; {
	case up == 0:
		return score.Picked
	case up > hammersTo || up < -hammersTo:
		return score.Slide
	case up > 0:
		return score.Hammer
	}
	return score.PullOff
}

// sure is how sure the ear can be of a note: by how clear its pitch was, and how much of what sounded was new.
func sure(n ear.Note) float64 {
	if n.Struck == 0 {
		return neverClear
	}
	clear := max(0, min(1, (n.Clarity-clearFrom)/(clearTo-clearFrom)))
	fresh := 1.0
	if !n.Unstruck {
		fresh = min(1, n.Fresh/freshly)
	}
	return math.Round(100*(0.25+0.45*clear+0.3*fresh)) / 100
}
