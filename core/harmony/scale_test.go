package harmony

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/pitch"
)

func TestScalesOfChords(t *testing.T) {
	for symbol, want := range map[string]string{
		"C7": "R 9 3 11 5 13 b7", "C9": "R 9 3 11 5 13 b7", "C13": "R 9 3 11 5 13 b7", "C7#11": "R 9 3 #11 5 13 b7",
		"C7b9": "R b9 3 11 5 b13 b7", "C7#9": "R #9 3 11 5 13 b7", "C7alt": "R b9 #9 3 b5 #5 b7", "C7#5": "R 9 3 11 #5 13 b7", "C7b5": "R 9 3 11 b5 13 b7",
		"C": "R 9 3 11 5 13 7", "C6": "R 9 3 11 5 6 7", "Cmaj7": "R 9 3 11 5 13 7", "Cmaj7#11": "R 9 3 #11 5 13 7", "Caug": "R 9 3 #11 #5 13 7",
		"Cm": "R 9 b3 11 5 13 b7", "Cm7": "R 9 b3 11 5 13 b7", "Cm6": "R 9 b3 11 5 6 b7", "CmMaj7": "R 9 b3 11 5 13 7",
		"Cm7b5": "R 9 b3 11 b5 b13 b7", "Cdim7": "R 9 b3 11 b5 b13 6 7", "C7sus4": "R 9 3 11 5 13 b7", "C5": "R 9 3 11 5 13 b7",
	} {
		for _, root := range pitch.Roots {
			c := MustParse(symbol).On(root)
			scale := c.Scale()
			var got []string
			classes := map[int]bool{}
			for i, s := range scale {
				got = append(got, string(s.Degree))
				classes[s.Name.Class()] = true
				assert.Equal(t, pitch.Class(root.Class()+s.Interval.HalfSteps), s.Name.Class(), "%s %s", c, s.Degree)
				assert.True(t, i == 0 || scale[i-1].Interval.HalfSteps < s.Interval.HalfSteps, "%s goes up", c)
			}
			assert.Equal(t, want, strings.Join(got, " "), c.String())
			assert.Len(t, classes, len(scale), c.String())
			for _, tone := range c.Tones {
				assert.True(t, classes[tone.Name.Class()], "%s holds its %s", c, tone.Degree)
			}
		}
	}
}
