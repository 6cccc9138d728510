package harmony_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// The chord that holds an extension is the plainest that does, on every root; one that nobody writes is none.
func TestAChordWithItsExtensions(t *testing.T) {
	for _, w := range []struct {
		chord   string
		degrees []harmony.Degree
		want    string
	}{
		{"7", []harmony.Degree{"9"}, "9"}, {"7", []harmony.Degree{"b9"}, "7b9"}, {"7", []harmony.Degree{"#9"}, "7#9"},
		{"7", []harmony.Degree{"13"}, "13"}, {"7", []harmony.Degree{"9", "13"}, "13"}, {"7", []harmony.Degree{"11"}, "11"},
		{"m7", []harmony.Degree{"9"}, "m9"}, {"m7", []harmony.Degree{"11"}, "m11"}, {"m7", []harmony.Degree{"13"}, "m13"},
		{"maj7", []harmony.Degree{"9"}, "maj9"}, {"6", []harmony.Degree{"9"}, "6/9"}, {"", []harmony.Degree{"9"}, "add9"}, {"m", []harmony.Degree{"9"}, "madd9"},
		{"dim7", []harmony.Degree{"9"}, ""}, {"7", []harmony.Degree{"7"}, ""},
	} {
		for _, root := range pitch.Roots {
			c := harmony.MustParse(root.String() + w.chord)
			with, ok := c.With(w.degrees...)
			if assert.Equal(t, w.want != "", ok, "%s with %v", c, w.degrees) && ok {
				assert.Equal(t, harmony.MustParse(root.String()+w.want).String(), with.String(), "%s with %v", c, w.degrees)
			}
		}
	}
}
