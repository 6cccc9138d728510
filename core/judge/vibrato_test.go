package judge_test

import (
	"cmp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/form"
	"undaris/core/judge"
	"undaris/core/pitch"
	"undaris/core/score"
)

// A note that was to sway and stood still is right, and told where it lasts long enough for anybody to tell.
func TestVibratoIsAskedFor(t *testing.T) {
	f, _ := form.FormByID("quick-change")
	for _, tempo := range []int{60, 100, 180, 260} {
		s := written(t, f, pitch.Roots[0], "eighths", 2)
		asked := 0
		for i := range s.Notes {
			if s.Notes[i].Vibrato = s.Notes[i].Length >= score.Tick/2; s.Notes[i].Vibrato && s.Notes[i].Length*60000/tempo/score.Tick >= 600 {
				asked++
			}
		}
		if tempo <= 100 {
			require.Positive(t, asked)
		}
		for _, still := range []bool{true, false} {
			heard, _ := judge.Player{Still: still}.Play(s, tempo, 0.5)
			stood := 0
			for _, v := range judge.Prescribed(s, heard, tempo, 0.5).Verdicts {
				require.Equal(t, judge.Right, v.Is)
				if v.Sways != "" {
					stood++
					assert.Equal(t, "right, on time; its vibrato is missing", v.Says())
				}
			}
			assert.Equal(t, map[bool]int{true: asked, false: 0}[still], stood, "at %d", tempo)
		}
	}
}

// held is one note with vibrato as it is written, and as it is played.
func held(width, speed int, played judge.Heard) judge.Verdict {
	n := score.Note{Length: 3 * score.Tick, Pitch: pitch.At(64, pitch.Name{Letter: 2}), Ornaments: score.Ornaments{Vibrato: true, Width: width, Speed: speed}}
	s := score.Score{Tempo: 80, Notes: []score.Note{n}, Progression: form.Progression{Beats: 4, Bars: []form.Bar{{}}}}
	played.Length = 3 * score.Tick
	return judge.Prescribed(s, []judge.Heard{played}, 80, 0.5).Verdicts[0]
}

// Vibrato is heard by its width, its rate, its evenness and where it comes back to, against what is written.
func TestVibratoAgainstWhatIsWritten(t *testing.T) {
	const e = 64
	for _, c := range []struct {
		width, speed int
		played       judge.Heard
		says         string
	}{
		{0, 0, judge.Heard{Sway: 0.2, Rate: 5, Low: e}, ""},
		{0, 0, judge.Heard{Sway: 0.2, Rate: 5, Low: e + 0.4}, "stays 40 cents above the note"},
		{0, 0, judge.Heard{Sway: 0.2, Rate: 5, Low: e, Uneven: 0.5}, "is uneven"},
		{0, 0, judge.Heard{Sway: 0.2, Rate: 2.6, Low: e}, "is slow: 2.6 sways a second"},
		{0, 0, judge.Heard{Sway: 0.2, Rate: 9.5, Low: e}, "is fast: 9.5 sways a second"},
		{0, 0, judge.Heard{Sway: 0.9, Rate: 5, Low: e}, "is wide: 90 cents either way"},
		{0, 0, judge.Heard{Sway: 0.03}, "is missing"},
		{0, 0, judge.Heard{Sway: 0.2}, ""}, // by MIDI, where no more is known
		{10, 0, judge.Heard{Sway: 0.1, Rate: 5, Low: e}, ""},
		{10, 0, judge.Heard{Sway: 0.3, Rate: 5, Low: e}, "is wide: 30 cents either way"},
		{70, 0, judge.Heard{Sway: 0.2, Rate: 5, Low: e}, "is narrow: 20 cents either way"},
		{0, 3, judge.Heard{Sway: 0.2, Rate: 5, Low: e}, "is fast: 5.0 sways a second"},
		{0, 7, judge.Heard{Sway: 0.2, Rate: 4, Low: e}, "is slow: 4.0 sways a second"},
		{0, 7, judge.Heard{Sway: 0.2, Rate: 7, Low: e}, ""},
		{0, 1, judge.Heard{}, ""}, // as slow as nobody can hear it
	} {
		c.played.Pitch = e
		v := held(c.width, c.speed, c.played)
		assert.Equal(t, judge.Right, v.Is)
		assert.Equal(t, c.says, v.Sways, "%+v", c)
		assert.True(t, v.Good(), "it is a part of how it sounds, and no wrong note")
	}
}

// Whoever plays what is written, as well as a hand does, is not found fault with: an eighth wider or narrower, faster or slower, a few
// cents off, the whole guitar out of tune.
func TestVibratoAsItIsWritten(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		width, speed := rapid.SampledFrom([]int{0, 10, 20, 40, 70, 100}).Draw(t, "width"), rapid.SampledFrom([]int{0, 3, 4, 5, 7, 9}).Draw(t, "speed")
		near := func(v float64, name string) float64 { return v * rapid.Float64Range(0.88, 1.13).Draw(t, name) }
		h := judge.Heard{Pitch: 64 + rapid.Float64Range(-0.4, 0.4).Draw(t, "tuning"), Sway: near(float64(max(width, 10))/100, "width"), Rate: near(float64(cmp.Or(speed, 5)), "rate")}
		h.Uneven = rapid.Float64Range(0, 0.25).Draw(t, "uneven")
		h.Low = h.Pitch - rapid.Float64Range(-0.2, 2*h.Sway).Draw(t, "low")
		assert.Empty(t, held(width, speed, h).Sways)
	})
}
