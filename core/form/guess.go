package form

import (
	"slices"
	"strings"

	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
)

// kind is what counts of a chord when its key is guessed.
type kind int

const (
	major kind = iota
	dominant
	minor
	halfDiminished
	diminished
	open // neither major nor minor
)

func kindOf(c harmony.Chord) kind {
	switch {
	case c.Diminished():
		return diminished
	case c.Minor() && c.HasDegree("b5"):
		return halfDiminished
	case c.Minor():
		return minor
	case c.Dominant():
		return dominant
	case c.HasDegree("3"):
		return major
	}
	return open
}

// belongs is how much a chord belongs to a key, 0 to 1, by how many half steps it lies above
// the tonic: in a blues or major key, and in a minor one. What is not here does not.
var belongs = map[bool]map[int]map[kind]float64{
	false: {
		0: {major: 1, dominant: 1, open: 0.9}, 5: {major: 0.85, dominant: 0.9, minor: 0.3, open: 0.8}, 7: {major: 0.85, dominant: 1, minor: 0.35, open: 0.85},
		2: {minor: 0.7, dominant: 0.4, halfDiminished: 0.3}, 9: {minor: 0.65, dominant: 0.45}, 4: {minor: 0.5, dominant: 0.25},
		10: {major: 0.5, dominant: 0.35, open: 0.4}, 3: {major: 0.35, dominant: 0.35, diminished: 0.3}, 8: {major: 0.3, dominant: 0.3},
		6: {diminished: 0.35, halfDiminished: 0.3}, 11: {halfDiminished: 0.4, diminished: 0.3}, 1: {dominant: 0.3, diminished: 0.3},
	},
	true: {
		0: {minor: 1, open: 0.9}, 5: {minor: 0.9, dominant: 0.4, major: 0.3, open: 0.8}, 7: {dominant: 1, minor: 0.7, major: 0.5, open: 0.8},
		8: {major: 0.8, dominant: 0.75}, 10: {major: 0.75, dominant: 0.7, open: 0.6}, 3: {major: 0.75, dominant: 0.3},
		2: {halfDiminished: 0.8, minor: 0.2}, 11: {diminished: 0.5}, 1: {dominant: 0.3, major: 0.3},
	},
}

// What speaks for a tonic beside the chords that belong: it begins, it ends, or its five ends
// and leads back to it; fives that go to it, and more so when the two comes before.
const (
	beginning = 0.23
	closing   = 0.15
	leading   = 0.05 // each, three at most
	cadence   = 0.15
)

// Guess is a key that chords may be in, and why.
type Guess struct {
	Key  Key
	Why  string
	Sure float64 // how much speaks for it; compared with other guesses
}

// GuessKeys lists the keys that a progression may be in, the likeliest first: each with what
// speaks for it. A progression without chords is in none.
func GuessKeys(p Progression) (out []Guess) {
	var places []Place
	for _, at := range p.Places() {
		if !at.Chord.None {
			places = append(places, at)
		}
	}
	if len(places) == 0 {
		return nil
	}
	for _, inMinor := range []bool{false, true} {
		for signature := -6; signature < 6; signature++ {
			key, _ := KeyOf(signature, inMinor)
			out = append(out, guess(places, key))
		}
	}
	slices.SortStableFunc(out, func(a, b Guess) int {
		switch {
		case a.Sure > b.Sure:
			return -1
		case a.Sure < b.Sure:
			return 1
		}
		return 0
	})
	return out
}

// Belongs is how much a chord belongs to a key: 1 is home, 0 not at all.
func Belongs(c harmony.Chord, key Key) float64 {
	return belongs[key.Minor][pitch.Class(c.Root.Class()-key.Tonic.Class())][kindOf(c)]
}

func guess(places []Place, key Key) Guess {
	table := belongs[key.Minor]
	above := func(c harmony.Chord) int { return pitch.Class(c.Root.Class() - key.Tonic.Class()) }
	home := func(c harmony.Chord) bool { return above(c) == 0 && table[0][kindOf(c)] > 0 }
	five := func(c harmony.Chord) bool {
		return above(c) == 7 && (kindOf(c) == dominant || kindOf(c) == major)
	}
	var worth, beats, outside float64
	led, fell := 0, false
	for i, at := range places {
		w := table[above(at.Chord)][kindOf(at.Chord)]
		worth += w * float64(at.Length)
		beats += float64(at.Length)
		if w == 0 {
			outside += float64(at.Length)
		}
		if i > 0 && five(places[i-1].Chord) && home(at.Chord) {
			led++
			before := i - 2
			fell = fell || before >= 0 && above(places[before].Chord) == 2 && kindOf(places[before].Chord) != major
		}
	}
	g := Guess{Key: key, Sure: worth/beats - 0.5*outside/beats + leading*float64(min(3, led))}
	first, last := places[0].Chord, places[len(places)-1].Chord
	var why []string
	if home(first) {
		g.Sure += beginning
		why = append(why, say.F("%s begins", first))
	}
	switch {
	case home(last):
		g.Sure += closing
		why = append(why, say.F("%s ends", last))
	case five(last) && (home(first) || above(first) == 5):
		g.Sure += closing
		why = append(why, say.F("%s leads back to the top", last))
	}
	if fell {
		g.Sure += cadence
	}
	switch {
	case fell:
		why = append(why, "its two and five go to its one")
	case led > 0:
		why = append(why, "its five goes to its one")
	}
	switch part := 100 - int(100*outside/beats+0.5); {
	case part == 100:
		why = append(why, "every chord belongs")
	default:
		why = append(why, say.F("%d %% of the beats belong", part))
	}
	g.Why = strings.Join(why, ", ")
	return g
}
