package form

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/pitch"
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
	return Key{}, fmt.Errorf("%q is no key; write a tonic such as C, Bb or F#, with m behind it for minor", text)
}

// String writes the key in plain letters: "C", "Bm".
func (k Key) String() string {
	if k.Minor {
		return k.Tonic.String() + "m"
	}
	return k.Tonic.String()
}
