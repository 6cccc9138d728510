package line_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/exercise"
	"undaris/core/form"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// Every exercise that bends strains, no other does, nor does any way to write; and a line that trills on every note.
func TestWhatStrainsAHand(t *testing.T) {
	in := neck.Standard()
	for _, f := range form.Forms {
		key := form.Key{Tonic: pitch.Roots[0], Minor: f.Minor}
		over := score.Score{Key: key, Tempo: 80, Progression: f.In(key), In: in}
		region := in.Positions(0)[1].Region
		for _, d := range exercise.Drills {
			s := over
			var err error
			s.Notes, _, err = exercise.Over(t.Context(), over.Progression, exercise.Task{In: in, Hand: neck.UsualHand, Region: region, Key: key, Drill: d.ID, Pace: "eighths"})
			if d.Group != "bends" && err != nil {
				continue // it does not fit over these chords
			}
			strained := line.Strain(s)
			if d.Group == "bends" {
				require.NoError(t, err, "%s over %s", d.ID, f.ID)
				assert.NotEmpty(t, strained, "%s over %s", d.ID, f.ID)
				assert.Less(t, len(strained), len(s.Notes), "each is fretted first")
			} else {
				assert.Empty(t, strained, "%s over %s", d.ID, f.ID)
			}
		}
		for _, way := range line.Words {
			for seed := range uint64(3) {
				notes, err := line.Write(t.Context(), over, line.Wish{Region: region, Palette: blend.Palettes[0], Rhythm: "eighths", Density: 3, Approach: true, Seed: seed, Word: way.ID, Spice: way.Spice}, neck.UsualHand)
				require.NoError(t, err)
				s := over
				s.Notes = notes
				assert.Empty(t, line.Strain(s), "%s over %s", way.ID, f.ID)
			}
		}
	}
	s := score.Score{}
	for i := range 8 {
		s.Notes = append(s.Notes, score.Note{Start: i * score.Tick, Length: score.Tick, Ornaments: score.Ornaments{Trill: 2}})
	}
	assert.Len(t, line.Strain(s), 8)
	s.Notes[3].Trill, s.Notes[4].Trill = 0, 0
	assert.Len(t, line.Strain(s), 6)
	assert.Empty(t, line.Strain(score.Score{}))
}
