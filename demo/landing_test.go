package demo

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/lick"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/score"
)

// Sent through a twelve-bar blues as they are written, licks meet most changes on a tone of the chord.
func TestLicksLandAsTheyAreWritten(t *testing.T) {
	f, _ := form.FormByID("slow-change")
	landed, all := 0, 0
	for _, l := range licks {
		notes, err := lick.Parse(l.text)
		require.NoError(t, err, l.title)
		k := lick.Lick{Chord: l.chord, Notes: notes}
		if mode, ok := strings.CutPrefix(l.chord, "key"); ok {
			k.OfKey, k.Chord = true, strings.TrimSpace(mode)
		}
		mine, of := 0, 0
		for _, tonic := range []string{"A", "C", "Eb", "G"} {
			key, err := form.ParseKey(tonic)
			require.NoError(t, err)
			s := score.Score{Key: key, Progression: f.In(key), In: neck.Standard(), Tempo: 96}
			laid, err := k.Through(t.Context(), s.Progression, key, lick.Aim{Ground: lick.Ground{In: s.In, Region: neck.Region{Low: 0, High: 15}, Hand: neck.UsualHand}})
			require.NoError(t, err, l.title)
			s.Notes = laid.Notes
			for _, at := range line.Check(s, blend.Palettes[0], line.Usual).Landings[1:] {
				of++
				if at.Landed() {
					mine++
				}
			}
		}
		if mine < of {
			t.Logf("%-22s %3d of %d  %s", l.title, mine, of, l.text)
		}
		landed, all = landed+mine, all+of
	}
	t.Logf("%d of %d changes", landed, all)
	assert.GreaterOrEqual(t, 10*landed, 7*all)
}
