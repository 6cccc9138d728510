package line

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/score"
)

// Known strokes of ways that have fingers: octaves, double stops and skips.
func TestPickAndFingers(t *testing.T) {
	s := empty(t, "slow-change", "C")
	s.Tempo = 90
	s.Notes = []score.Note{
		note(s, 0, 480, 5, 3), note(s, 0, 480, 3, 5), // an octave
		note(s, 480, 480, 5, 3), note(s, 960, 480, 3, 5), note(s, 1440, 480, 4, 5), // a skip up, and back
		note(s, 1920, 480, 2, 5), note(s, 1920, 480, 1, 5), // a double stop
		note(s, 2400, 480, 3, 5),
	}
	for id, want := range map[string]string{
		"pick-and-fingers": "dfufddfu", "fingers": "tftftfff", "thumb": "tttttttt", "alternate": "ddududdu",
	} {
		notes, said, err := Pick(s, id, nil)
		require.NoError(t, err)
		got := ""
		for _, n := range notes {
			got += map[score.PickingHand]string{score.DownStroke: "d", score.UpStroke: "u", score.ByFinger: "f", score.ByThumb: "t"}[n.Stroke]
		}
		assert.Equal(t, want, got, id)
		assert.NotEmpty(t, said, id)
	}
	_, said, err := Pick(s, "alternate", nil)
	require.NoError(t, err)
	assert.Contains(t, said[0], "1 silent strings struck through")
}

// No stroke is written that comes sooner after the last of its tool than it can: counted by the clock alone, over every
// word, way and tempo.
func TestNoStrokeComesTooSoon(t *testing.T) {
	t.Parallel()
	least := map[score.PickingHand]float64{score.DownStroke: 75, score.UpStroke: 75, score.ByFinger: 70, score.ByThumb: 140}
	strokes, left := 0, 0
	for _, c := range charts[:4] {
		s := empty(t, c.form, c.key)
		for _, word := range Words {
			s.Notes = written(t, s, word, 5, s.In.Positions(s.Key.Tonic.Class())[1].Region)
			for _, tempo := range []int{40, 96, 160, 240, 300} {
				s.Tempo = tempo
				for _, p := range Pickings {
					notes, said, err := Pick(s, p.ID, nil)
					require.NoError(t, err)
					last := map[bool]int{}
					some := false
					for i, n := range notes {
						if n.Stroke == "" {
							if p.stroke != nil && n.Join == score.Picked {
								left++
								some = true
							}
							continue
						}
						strokes++
						finger := n.Stroke == score.ByFinger
						if at, ok := last[finger]; ok && at != n.Start {
							ms := float64(n.Start-at) * 60_000 / float64(tempo) / score.Tick
							require.GreaterOrEqual(t, ms, least[n.Stroke], "%s at %d, %s, note %d", word.ID, tempo, p.ID, i)
						}
						last[finger] = n.Start
						if p.ID == "fingers" {
							require.False(t, n.Stroke == score.ByThumb && n.String < 4, "the thumb plays string %d", n.String)
						}
					}
					require.Equal(t, some, len(said) > 1, "%s at %d by %s says %v", word.ID, tempo, p.ID, said)
				}
			}
		}
	}
	t.Log(strokes, "strokes,", left, "left to a slower tempo")
	assert.Greater(t, strokes, 10_000)
	assert.Greater(t, left, 0)
	assert.Less(t, left, strokes/5)
}
