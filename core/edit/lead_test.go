package edit

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/lick"
	"undaris/core/line"
	"undaris/core/score"
)

// Licks laid on chosen bars are led into, each connector ending where the lick begins; what
// is proposed for a note can be played, keeps that note and can be applied.
func TestLicksAreLedInto(t *testing.T) {
	l := written(t, "slow-change", "A", 3)
	phrase, err := lick.Parse("R/e 3/e 5/e b7/e R'/q")
	require.NoError(t, err)
	k := lick.Lick{Chord: "7", Notes: phrase}
	for _, c := range line.Connectors {
		out := l
		out.Notes = nil
		require.NoError(t, out.PutLicks(t.Context(), k, []int{1, 3, 5, 9}, true, c.ID), c.ID)
		require.NoError(t, out.Check(), c.ID)
		at := map[int]bool{}
		for _, n := range out.Notes {
			at[n.Start] = true
		}
		for _, bar := range []int{1, 3, 5, 9} {
			start := l.At(bar - 1)
			assert.True(t, at[start], "%s: the lick in bar %d", c.ID, bar)
			assert.True(t, at[start-score.Tick/2], "%s: led into bar %d", c.ID, bar)
		}
	}
	out := l
	out.Notes = nil
	require.NoError(t, out.PutLicks(t.Context(), k, []int{2, 4}, true, ""))
	assert.Len(t, out.Notes, 10, "and nothing between them where nothing was asked")
	assert.ErrorIs(t, out.PutLicks(t.Context(), k, []int{2}, true, "elevator"), ErrNoConnector)
	assert.Error(t, out.PutLicks(t.Context(), k, []int{99}, true, ""))

	offered := 0
	for _, n := range l.Notes {
		fixes, why, err := l.Leads(t.Context(), n.ID)
		require.NoError(t, err)
		require.Equal(t, len(fixes) == 0, why != "")
		for _, f := range fixes {
			now := l.Apply(f)
			require.NoError(t, now.Check(), f.Says)
			stands := false
			for _, m := range now.Notes {
				stands = stands || m.Start == n.Start && m.Placement == n.Placement
			}
			assert.True(t, stands, "%s: %s still stands", f.Says, n.Pitch)
			offered++
		}
	}
	assert.Greater(t, offered, 10)
	_, _, err = l.Leads(t.Context(), 99_999)
	assert.ErrorIs(t, err, ErrNoNotes)
}
