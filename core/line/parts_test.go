package line_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// Every note of a line that is written is in one part, in order; parts are cut at breaths or at bar lines, have at most four bars
// and a little, and none is a mere crumb.
func TestPartsAreCutAtBreaths(t *testing.T) {
	cut, pieces := 0, 0
	for k, f := range form.Forms {
		for seed := range uint64(4) {
			key := form.Key{Tonic: pitch.Roots[(k+int(seed))%12], Minor: f.Minor}
			in := neck.Standard()
			s := score.Score{Key: key, Tempo: 100, Progression: f.In(key), In: in}
			notes, err := line.Write(t.Context(), s, line.Wish{Region: in.Positions(key.Tonic.Class())[1].Region, Palette: blend.Palettes[0], Rhythm: "eighths", Density: 2 + int(seed), Approach: true, Seed: seed}, neck.UsualHand)
			require.NoError(t, err)
			s.Notes = notes
			next := 0
			for next < len(notes) && notes[next].Start < 0 {
				next++
			}
			parts := line.Parts(s)
			for i, p := range parts {
				require.Equal(t, next, p.From, "part %d of %s", i, f.ID)
				require.GreaterOrEqual(t, p.To, p.From)
				next = p.To + 1
				assert.LessOrEqual(t, p.BehindBar-p.Bar, 4, "part %d of %s", i, f.ID)
				for _, n := range notes[p.From : p.To+1] {
					assert.GreaterOrEqual(t, n.Start, s.At(p.Bar))
					assert.LessOrEqual(t, n.End(), s.At(p.BehindBar))
				}
				if i > 0 {
					before, first := notes[p.From-1], notes[p.From]
					breath := first.Start-before.End() >= score.Tick || before.Length >= 2*score.Tick
					bar := s.BarOf(first.Start) > s.BarOf(before.Start)
					assert.True(t, breath || bar, "part %d of %s begins in the middle of a phrase", i, f.ID)
					if cut++; !breath {
						pieces++
					}
				}
			}
			require.Equal(t, len(notes), next, f.ID)
		}
	}
	assert.Greater(t, cut, 60)
	assert.Zero(t, pieces, "those breathe often enough")
	assert.Empty(t, line.Parts(score.Score{}))
}

// A line that never breathes is cut at bar lines, every two bars; a crumb goes with what is beside it, and a pickup with nothing.
func TestALineWithoutBreathsIsCutAtBars(t *testing.T) {
	s := score.Score{Progression: form.Forms[0].In(form.Key{}), In: neck.Standard()}
	for at := -score.Tick; at < s.End(); at += score.Tick / 2 {
		s.Notes = append(s.Notes, score.Note{Start: at, Length: score.Tick / 2, Pitch: pitch.At(60, pitch.Name{})})
	}
	parts := line.Parts(s)
	require.Len(t, parts, 6)
	for i, p := range parts {
		assert.Equal(t, []int{2 * i, 2*i + 2}, []int{p.Bar, p.BehindBar})
		assert.Equal(t, 0, s.InBar(s.Notes[p.From].Start))
	}
	assert.Equal(t, 2, parts[0].From)
	s.Notes = []score.Note{{Start: 0, Length: 480}, {Start: 3 * score.Tick, Length: 480}, {Start: 3*score.Tick + 480, Length: 480}, {Start: 8 * score.Tick, Length: 3 * score.Tick}}
	parts = line.Parts(s)
	require.Len(t, parts, 2)
	assert.Equal(t, []int{0, 2, 0, 1}, []int{parts[0].From, parts[0].To, parts[0].Bar, parts[0].BehindBar})
}
