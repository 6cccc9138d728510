package record

import (
	"cmp"
	"math"
	"slices"
)

// Sounded is a note that a model of mixed sound tells: which notes sound when, of all that play.
type Sounded struct {
	At, Length float64 // seconds
	MIDI       int
	Strength   float64 // how strongly it sounds, 0 to 1
	Onset      float64 // how clearly it begins, 0 to 1
}

// What of mixed sound is taken for the lead. Of what studio guitars of two makers rang or played above a band, the model was
// hardly ever less sure where it was right, and mostly where it was not.
const (
	sameOnset = 0.07 // seconds that the two may hear a note apart
	certain   = 0.88
	plausible = 0.3 // of an onset, that bears out what the ear heard
	believed  = 0.5
	covered   = 0.6  // how much stronger another note has to be that begins with it, for it to be the other's partial
	retold    = 0.09 // seconds within which the same pitch is told twice
	bySelf    = 0.8
	agreeing  = 0.25 // that both are surer than each
)

// A lead lies above what accompanies it. Under most of what is about it lies, by more than a sixth, hardly a note of a lead, and
// most of what a band's bass and chords leave in it (of 14 takes of two makers' guitars above a band none and 62 of 198).
const (
	about   = 1.2 // seconds to either side
	most    = 0.6 // of what is about, that lies beneath what is called the line there
	beneath = 9.5 // half steps
)

// Mixed makes one list of what the ear and the model tell of ringing or mixed sound: where both agree it is surer, what the
// model hears clearly is added, and what only the ear hears stays where the ear is sure.
func (l Listening) Mixed(heard []Guess, sounded []Sounded) []Guess {
	by := l.Cents / 100
	var out []Guess
	used := make([]bool, len(sounded))
	near := func(g Guess) int {
		best := -1
		for i, s := range sounded {
			off := float64(s.MIDI) - by - float64(g.Pitch)
			if used[i] || math.Abs(s.At-g.At) > sameOnset || math.Abs(off) > 0.6 && math.Abs(off-g.Bend) > 0.6 {
				continue
			}
			if best < 0 || s.Onset > sounded[best].Onset {
				best = i
			}
		}
		return best
	}
	for _, g := range heard {
		switch i := near(g); {
		case i >= 0 && sounded[i].Onset >= plausible:
			used[i] = true
			g.Sure = min(1, g.Sure+agreeing)
			out = append(out, g)
		case i >= 0 && g.Sure >= bySelf:
			used[i] = true
			out = append(out, g)
		case g.Sure >= bySelf:
			out = append(out, g)
		}
	}
	for i, s := range sounded {
		g := s.guess(by)
		if used[i] || s.Onset < certain || s.Strength < believed || g.Pitch < l.Lowest || g.Pitch > l.Highest || l.known(g) || s.partial(sounded) {
			continue
		}
		twice := slices.ContainsFunc(out, func(o Guess) bool {
			return math.Abs(o.At-g.At) < retold && (o.Pitch == g.Pitch || float64(o.Pitch)+o.Bend == float64(g.Pitch))
		})
		if !twice {
			out = append(out, g)
		}
	}
	if l.Lead {
		out = l.leading(out)
	}
	slices.SortStableFunc(out, func(a, b Guess) int { return cmp.Or(cmp.Compare(a.At, b.At), cmp.Compare(a.Pitch, b.Pitch)) })
	for i := range out {
		out[i].ID = i + 1
	}
	return out
}

// leading are the guesses that are not far beneath those about them, and the lower of an octave that is played at once.
func (l Listening) leading(all []Guess) (out []Guess) {
	known := slices.Concat(all, l.Settled)
	for _, g := range all {
		var others []float64
		octave := false
		for _, o := range known {
			if o.At == g.At && o.Pitch == g.Pitch || math.Abs(o.At-g.At) > about {
				continue
			}
			others = append(others, sounds(o))
			octave = octave || math.Abs(o.At-g.At) < sameOnset && sounds(o)-sounds(g) == 12
		}
		slices.Sort(others)
		if octave || len(others) == 0 || sounds(g) >= others[int(most*float64(len(others)))]-beneath {
			out = append(out, g)
		}
	}
	return out
}

// guess is the note on the neck.
func (s Sounded) guess(by float64) Guess {
	g := Guess{At: s.At, Length: s.Length, Pitch: int(math.Round(float64(s.MIDI) - by)), Sure: math.Round(100*min(1, 0.3+0.5*s.Onset+0.2*s.Strength)) / 100}
	return g
}

// partial tells that a note is likely a partial of a lower, stronger one that begins with it.
func (s Sounded) partial(all []Sounded) bool {
	return slices.ContainsFunc(all, func(o Sounded) bool {
		up := s.MIDI - o.MIDI
		return (up == 12 || up == 19 || up == 24) && math.Abs(o.At-s.At) < sameOnset && o.Onset*covered > s.Onset
	})
}
