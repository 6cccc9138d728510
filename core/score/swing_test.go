package score

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestSwungEighthsAreWrittenStraight(t *testing.T) {
	// Swung, swung out of a rest, a triplet, and a long note let go on the swing.
	notes := []Note{at(0, 640), at(640, 320), at(960+640, 320), at(1920, 320), at(2240, 320), at(2560, 320), at(2880, 640)}
	assert.True(t, Swung(notes))
	assert.Equal(t, 2, Straighten(notes))
	var got [][2]int
	for _, n := range notes {
		got = append(got, [2]int{n.Start, n.Length})
	}
	assert.Equal(t, [][2]int{{0, 480}, {480, 480}, {1440, 480}, {1920, 320}, {2240, 320}, {2560, 320}, {2880, 480}}, got)
	assert.False(t, Swung(notes))
	assert.Zero(t, Straighten(notes), "what is straight stays")
	assert.False(t, Swung([]Note{at(0, 320), at(320, 320), at(640, 320)}), "triplets do not swing")
}
