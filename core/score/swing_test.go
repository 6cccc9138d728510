package score

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
)

func TestSwungEighthsAreWrittenStraight(t *testing.T) {
	// Swung, swung out of a rest, a triplet, and a long note let go on the swing.
	notes := []Note{at(0, 640), at(640, 320), at(960+640, 320), at(1920, 320), at(2240, 320), at(2560, 320), at(2880, 640)}
	assert.Equal(t, 2, Straighten(notes))
	var got [][2]int
	for _, n := range notes {
		got = append(got, [2]int{n.Start, n.Length})
	}
	assert.Equal(t, [][2]int{{0, 480}, {480, 480}, {1440, 480}, {1920, 320}, {2240, 320}, {2560, 320}, {2880, 480}}, got)
	assert.Zero(t, Straighten(notes), "what is straight stays")
}

func TestPlayedSwingIsMadeEven(t *testing.T) {
	for _, swing := range []int{560, 585, 640, 680} {
		var notes []Note
		for beat := range 8 {
			wobble := []int{0, 9, -7, 4}[beat%4] // as a hand plays
			notes = append(notes, at(beat*960+max(0, wobble), swing-20), at(beat*960+swing+wobble, 960-swing-10))
		}
		notes = append(notes, at(8*960, 320), at(8*960+320, 320), at(8*960+640, 320), at(9*960, 1900))
		require.True(t, Unswing(notes), "second eighths at %d", swing)
		s := Score{Progression: form.Progression{Beats: 4, Bars: make([]form.Bar, 3)}, Notes: notes}
		s.Quantise()
		for i, n := range s.Notes[:16] {
			assert.Equal(t, i*480, n.Start, "second eighths at %d, note %d", swing, i)
		}
		assert.Equal(t, []int{8 * 960, 8*960 + 320, 8*960 + 640}, []int{s.Notes[16].Start, s.Notes[17].Start, s.Notes[18].Start}, "a triplet stays one")
	}
	for _, short := range [][]Note{
		{at(0, 600), at(610, 350), at(960, 960)},
		{at(0, 640), at(640, 320), at(960, 640), at(1600, 320), at(1920, 960)},
	} {
		require.True(t, Unswing(short), "a lick with few eighths")
		assert.Equal(t, []int{480, 960}, []int{short[1].Start, short[2].Start})
	}
	for what, notes := range map[string][]Note{
		"a little late":  {at(0, 400), at(520, 400), at(960, 400), at(1480, 400), at(1920, 400)},
		"half a triplet": {at(0, 320), at(320, 320), at(640, 320), at(1600, 320)},
		"straight":       {at(0, 480), at(480, 480), at(960, 480), at(1440, 480), at(1920, 480), at(2400, 480)},
		"triplets":       {at(0, 320), at(320, 320), at(640, 320), at(960, 320), at(1280, 320), at(1600, 320), at(1920, 320), at(2240, 320), at(2560, 320)},
		"dotted":         {at(0, 720), at(720, 240), at(960, 720), at(1680, 240), at(1920, 720), at(2640, 240)},
		"sixteenths":     {at(0, 240), at(240, 240), at(480, 240), at(720, 240), at(960, 240), at(1200, 240), at(1440, 240), at(1680, 240)},
	} {
		before := slices.Clone(notes)
		assert.False(t, Unswing(notes), what)
		assert.Equal(t, before, notes, what)
	}
}
