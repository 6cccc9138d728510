package edit

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/score"
)

// In any line each note that is doubled has its octave above it, with a string between them that is silenced, under one hand; every other
// note stays; and a second time nothing is doubled.
func TestOctavesLieUnderTheHand(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		key := rapid.SampledFrom(form.AllKeys(false)).Draw(t, "key")
		p := form.Forms[0].In(key)
		in := neck.Standard()
		low := rapid.IntRange(0, 12).Draw(t, "low")
		r := neck.Region{Low: low, High: low + 4}
		l := Line{Score: score.Score{Key: key, Progression: p, In: in, Tempo: 96}, Hand: neck.UsualHand, Region: r, Palette: blend.Palettes[0], Locked: map[int]bool{3: true}}
		notes, err := line.Write(context.Background(), l.Score, line.Wish{Region: r, Palette: l.Palette, Rhythm: "eighths", Density: 3, Seed: rapid.Uint64().Draw(t, "seed")}, l.Hand)
		if err != nil {
			t.Skip("it cannot be written here")
		}
		for i := range notes {
			notes[i].ID = i + 1
		}
		l.Notes = notes
		before := map[int]score.Note{}
		for _, n := range notes {
			before[n.ID] = n
		}
		l.Octaves()
		ids, at := map[int]bool{}, map[int][]score.Note{}
		for _, n := range l.Notes {
			require.False(t, ids[n.ID], "numbers are given once")
			ids[n.ID] = true
			at[n.Start] = append(at[n.Start], n)
			if was, known := before[n.ID]; known {
				require.Equal(t, []any{was.Start, was.Placement, was.Pitch}, []any{n.Start, n.Placement, n.Pitch})
			}
			require.LessOrEqual(t, n.End(), p.Length()*score.Tick)
		}
		require.Subset(t, ids, map[int]bool{1: true, len(notes): true})
		for _, n := range l.Notes {
			if _, known := before[n.ID]; known {
				continue
			}
			pair := at[n.Start]
			require.Len(t, pair, 2)
			low, high := pair[0], pair[1]
			if low.Pitch.MIDI() > high.Pitch.MIDI() {
				low, high = high, low
			}
			require.Equal(t, 12, high.Pitch.MIDI()-low.Pitch.MIDI())
			require.Equal(t, in.MIDI(n.Placement), n.Pitch.MIDI())
			require.GreaterOrEqual(t, low.String-high.String, 2)
			require.LessOrEqual(t, max(low.Fret-high.Fret, high.Fret-low.Fret), 3)
			require.NotEqual(t, 3, l.BarOf(n.Start), "a locked bar stays")
		}
		again := l
		again.Octaves()
		assert.Len(t, again.Notes, len(l.Notes))
	})
}
