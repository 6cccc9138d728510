package demo

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/store"
)

func TestTheShelfHoldsPlayableLicks(t *testing.T) {
	s, err := store.Open(t.TempDir())
	require.NoError(t, err)
	defer s.Close()
	require.NoError(t, Fill(s))
	rows, err := s.Licks(store.All)
	require.NoError(t, err)
	shelf := make([]store.Lick, len(rows))
	for i, row := range rows {
		shelf[i], err = s.Lick(row.ID)
		require.NoError(t, err)
	}
	assert.GreaterOrEqual(t, len(shelf), 40)
	covered := map[string]bool{}
	for _, l := range shelf {
		for _, tag := range l.Tags {
			covered[tag] = true
		}
		core := lick.Lick{Chord: l.Chord, OfKey: l.OfKey, Notes: l.Notes}
		require.NoError(t, core.Check(), l.Title)
		// Somewhere on the neck it can be played exactly as written.
		exact := false
		for low := 2; low <= 12 && !exact; low++ {
			notes, err := core.Realise(harmony.MustParse("C"+l.Chord), 0, lick.Ground{In: neck.Standard(), Window: neck.Window{Low: low, High: low + 4}, Hand: neck.UsualHand})
			exact = err == nil
			for i := range notes {
				exact = exact && notes[i].Join == core.Notes[i].Join
			}
		}
		assert.True(t, exact, "%s is joined as no hand can", l.Title)
		for _, root := range []string{"C", "F", "G", "Bb"} {
			_, err := core.Realise(harmony.MustParse(root+l.Chord), 0, lick.Ground{In: neck.Standard(), Window: neck.Window{Low: 3, High: 14}, Hand: neck.UsualHand})
			assert.NoError(t, err, "%s over %s", l.Title, root)
		}
	}
	for _, tag := range []string{"box", "blend", "arpeggio", "enclosure", "chromatic", "double-stop", "turnaround", "ending"} {
		assert.True(t, covered[tag], tag)
	}
	lines, err := s.Lines(store.All)
	require.NoError(t, err)
	assert.Len(t, lines, 4)
}
