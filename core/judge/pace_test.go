package judge

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// running is a line of eighths that never repeats itself for long, over so many bars.
func running(bars int) score.Score {
	s := score.Score{In: neck.Standard(), Tempo: 96, Progression: form.Progression{Beats: 4}}
	for range bars {
		s.Bars = append(s.Bars, form.Bar{Changes: []form.Change{{Chord: harmony.MustParse("C7")}}})
	}
	rng, midi := rand.New(rand.NewPCG(7, 7)), 60
	for i := range bars * 8 {
		midi = 60 + (midi-60+1+rng.IntN(11))%12
		s.Notes = append(s.Notes, score.Note{Start: i * score.Tick / 2, Length: score.Tick / 2, Pitch: pitch.At(midi, form.Key{}.Spell(midi%12))})
	}
	return s
}

// A line that is played twice or half as fast, at any tempo and a little unevenly, is told so and nobody is called lost; one that is
// played as it is written, late as a whole, with wrong notes or somewhere else in the form is not.
func TestTwiceAndHalfAsFastAreTold(t *testing.T) {
	s := running(8)
	played := func(faster, by, uneven float64, bars int) (heard []Heard) {
		for i, n := range s.Notes {
			at := float64(n.Start)/faster + by + uneven*float64(i%5-2)
			if at < float64(bars*4*score.Tick) {
				heard = append(heard, Heard{At: at, Length: 300, Pitch: float64(n.Pitch.MIDI())})
			}
		}
		return heard
	}
	for _, tempo := range []int{40, 96, 180, 300} {
		for _, c := range []struct {
			faster, by, uneven float64
			want               string
		}{
			{1, 0, 0, ""}, {1, 0, 25, ""}, {1, 100, 10, ""}, {1, score.Tick, 0, ""}, {1, 4 * score.Tick, 0, ""}, {1, -2 * score.Tick, 10, ""},
			{2, 0, 0, "twice as fast"}, {2, 60, 20, "twice as fast"}, {0.5, 0, 0, "half as fast"}, {0.5, 60, 20, "half as fast"}, {0.5, -40, 30, "half as fast"},
			{1.3, 0, 0, ""}, {0.8, 0, 0, ""},
		} {
			take := Prescribed(s, played(c.faster, c.by, c.uneven, 8), tempo, 0.5)
			assert.Equal(t, c.want, take.Pace, "%v at %d", c, tempo)
			if c.want != "" {
				assert.Empty(t, take.Lost)
				assert.Contains(t, take.Try, c.want)
			}
		}
	}
	take := Prescribed(s, nil, 96, 0.5)
	assert.Empty(t, take.Pace)
	one := s
	one.Notes = append([]score.Note(nil), s.Notes...)
	for i := range one.Notes { // one note again and again fits everywhere
		one.Notes[i].Pitch = pitch.At(60, pitch.Roots[0])
	}
	require.Empty(t, Prescribed(one, played(1, 0, 0, 8), 96, 0.5).Pace)
}
