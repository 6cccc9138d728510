package form

import (
	"slices"
	"strings"

	"undaris/core/pitch"
	"undaris/core/say"
)

// Key is a tonic, major unless Minor. A blues in dominant sevenths counts as major.
type Key struct {
	Tonic pitch.Name
	Minor bool
}

// ParseKey reads "C", "Bb", "Bm", "F# minor", "Eb major".
func ParseKey(text string) (Key, error) {
	s := strings.TrimSpace(text)
	n, size, ok := pitch.ReadName(s)
	if ok && slices.Contains(pitch.Roots, n) {
		switch strings.TrimSpace(s[size:]) {
		case "", "major", "maj":
			return Key{n, false}, nil
		case "m", "minor", "min", "-":
			return Key{n, true}, nil
		}
	}
	return Key{}, say.Errorf("%q is no key; write a tonic such as C, Bb or F#, with m behind it for minor", text)
}

// String writes the key in plain letters: "C", "Bm".
func (k Key) String() string {
	if k.Minor {
		return k.Tonic.String() + "m"
	}
	return k.Tonic.String()
}

// Printed writes the key as it is printed: "B♭m".
func (k Key) Printed() string {
	if k.Minor {
		return k.Tonic.Printed() + "m"
	}
	return k.Tonic.Printed()
}

// fifths counts the key signature of a tonic in sharps, or in flats when negative.
func (k Key) fifths() int {
	n := [...]int{0, 2, 4, -1, 1, 3, 5}[k.Tonic.Letter] + 7*k.Tonic.Alter
	if k.Minor {
		n -= 3
	}
	return n
}

// Signature is the key signature in sharps, or in flats when negative, −7 to 7.
// A key with more accidentals (D♯ major) takes the signature of its other
// spelling (E♭ major).
func (k Key) Signature() int {
	switch n := k.fifths(); {
	case n > 7:
		return n - 12
	case n < -7:
		return n + 12
	default:
		return n
	}
}

// KeyOf finds the key of a signature, −7 to 7.
func KeyOf(signature int, minor bool) (Key, bool) {
	for _, tonic := range pitch.Roots {
		if k := (Key{tonic, minor}); k.fifths() == signature && signature >= -7 && signature <= 7 {
			return k, true
		}
	}
	return Key{}, false
}

// spelling is how the twelve half steps above a tonic are named where no chord
// says otherwise.
var spelling = [12]pitch.Interval{
	{}, {Letters: 1, HalfSteps: 1}, {Letters: 1, HalfSteps: 2}, {Letters: 2, HalfSteps: 3}, {Letters: 2, HalfSteps: 4}, {Letters: 3, HalfSteps: 5},
	{Letters: 4, HalfSteps: 6}, {Letters: 4, HalfSteps: 7}, {Letters: 5, HalfSteps: 8}, {Letters: 5, HalfSteps: 9}, {Letters: 6, HalfSteps: 10}, {Letters: 6, HalfSteps: 11},
}

// AllKeys are the twelve keys of a mode round the circle of fifths, from five flats
// to six sharps.
func AllKeys(minor bool) (keys []Key) {
	for signature := -5; signature <= 6; signature++ {
		if k, ok := KeyOf(signature, minor); ok {
			keys = append(keys, k)
		}
	}
	return keys
}

// Spell names a pitch class 0–11 in the key, without double accidentals.
func (k Key) Spell(class int) pitch.Name {
	n := k.Tonic.Up(spelling[pitch.Class(class-k.Tonic.Class())])
	if n.Alter < -1 || n.Alter > 1 {
		return n.Simpler()
	}
	return n
}

// Scale names the seven notes of the key from its tonic: major, or natural minor.
func (k Key) Scale() []pitch.Name {
	steps := []int{0, 2, 4, 5, 7, 9, 11}
	if k.Minor {
		steps = []int{0, 2, 3, 5, 7, 8, 10}
	}
	out := make([]pitch.Name, len(steps))
	for i, s := range steps {
		out[i] = k.Spell(k.Tonic.Class() + s)
	}
	return out
}
