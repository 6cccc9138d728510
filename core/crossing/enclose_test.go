package crossing_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/crossing"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// The four chord's seventh and root lie a fret either side of the one chord's third, in
// every key; the five chord's third and seventh enclose nothing of it.
func TestTonesThatEnclose(t *testing.T) {
	for _, tonic := range pitch.Roots {
		one := harmony.MustParse(tonic.String() + "7")
		four := one.On(tonic.Up(pitch.Interval{Letters: 3, HalfSteps: 5}))
		list := crossing.Enclosures(four, one)
		if assert.Len(t, list, 1, tonic) {
			assert.Equal(t, []harmony.Degree{"b7", "R", "3"}, []harmony.Degree{list[0].Below.Degree, list[0].Above.Degree, list[0].To.Degree})
		}
		for _, e := range crossing.Enclosures(one, four) {
			assert.Equal(t, (e.To.Name.Class()+11)%12, e.Below.Name.Class())
			assert.Equal(t, (e.To.Name.Class()+1)%12, e.Above.Name.Class())
		}
		assert.Empty(t, crossing.Enclosures(one, one))
	}
}
