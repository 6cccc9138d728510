package crossing_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/approach"
	"undaris/core/crossing"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// The four chord's seventh and root lie a fret either side of the one chord's third, in
// every key, and come before its wider ones; a chord encloses nothing of itself.
func TestTonesThatEnclose(t *testing.T) {
	for _, tonic := range pitch.Roots {
		one := harmony.MustParse(tonic.String() + "7")
		four := one.On(tonic.Up(pitch.Interval{Letters: 3, HalfSteps: 5}))
		list := crossing.Enclosures(four, one)
		degrees := [][3]harmony.Degree{}
		for _, e := range list {
			degrees = append(degrees, [3]harmony.Degree{e.Below.Degree, e.Above.Degree, e.To.Degree})
		}
		assert.Equal(t, [][3]harmony.Degree{{"b7", "R", "3"}, {"3", "5", "b7"}, {"R", "3", "5"}}, degrees, tonic)
		assert.Empty(t, crossing.Enclosures(one, one))
	}
}

// Over every pair of a seventh chord's neighbours: the tones are the first chord's, each a half step or a step of the
// second's scale away, and what they lead to is new.
func TestWhatEnclosesIsNextToIt(t *testing.T) {
	one, found := harmony.MustParse("F7"), 0
	for _, root := range pitch.Roots {
		for _, quality := range []string{"7", "m7", "maj7", "", "m", "m7b5", "dim7", "9", "6", "7alt"} {
			next := harmony.MustParse(root.String() + quality)
			for _, e := range crossing.Enclosures(one, next) {
				to := e.To.Name.Class() + 60
				below, above := to-pitch.Class(to-e.Below.Name.Class()), to+pitch.Class(e.Above.Name.Class()-to)
				assert.True(t, approach.Enclose(below, above, to, next), "%s: %v", next, e)
				assert.True(t, approach.Enclose(above, below, to, next), "%s: %v", next, e)
				_, stays := one.ToneAt(e.To.Name.Class())
				assert.False(t, stays)
				for _, tone := range []harmony.Tone{e.Below, e.Above} {
					own, ok := one.ToneAt(tone.Name.Class())
					assert.True(t, ok && own == tone)
				}
				found++
			}
		}
	}
	assert.Greater(t, found, 150)
	// E♭ and C over F7 lead into the third of B♭.
	for _, e := range crossing.Enclosures(one, harmony.MustParse("Bb")) {
		if e.To.Degree == "3" {
			assert.Equal(t, []string{"C", "Eb"}, []string{e.Below.Name.String(), e.Above.Name.String()})
			return
		}
	}
	assert.Fail(t, "the third of B♭ is enclosed")
}
