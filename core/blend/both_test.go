package blend

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// In every key: the joined palettes are their two boxes and nothing else; major is
// proposed over the one, minor over the four, with the tone that tells it.
func TestBothBoxes(t *testing.T) {
	up := func(n pitch.Name, letters, halfSteps int) pitch.Name {
		return n.Up(pitch.Interval{Letters: letters, HalfSteps: halfSteps})
	}
	for _, id := range []string{"both-boxes", "both-blues"} {
		p, err := PaletteByID(id)
		require.NoError(t, err)
		for _, tonic := range pitch.Roots {
			key := form.Key{Tonic: tonic}
			one := harmony.MustParse(tonic.String() + "7")
			four := one.On(up(tonic, 3, 5))
			seen := map[Of]int{}
			for _, m := range p.Notes(key, one) {
				require.NotEmpty(t, m.Box, m.Degree)
				seen[m.Box]++
			}
			if id == "both-boxes" {
				assert.Equal(t, map[Of]int{BothBoxes: 2, MinorBox: 3, MajorBox: 3}, seen)
			}
			box, why := p.Turn(key, one)
			assert.Equal(t, MajorBox, box, tonic)
			assert.Contains(t, why, up(tonic, 2, 4).Printed()+" is the 3 of "+one.Printed())
			box, why = p.Turn(key, four)
			assert.Equal(t, MinorBox, box, tonic)
			assert.Contains(t, why, up(tonic, 2, 3).Printed()+" is the ♭7 of "+four.Printed())
		}
	}
	plain, err := PaletteByID("minor-pentatonic")
	require.NoError(t, err)
	box, why := plain.Turn(form.Key{}, harmony.MustParse("C7"))
	assert.Empty(t, box)
	assert.Empty(t, why)
	for _, m := range plain.Notes(form.Key{}, harmony.MustParse("C7")) {
		assert.Empty(t, m.Box)
	}
}
