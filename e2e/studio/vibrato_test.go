package studio_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/form"
	"undaris/core/judge"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
	"undaris/e2e/studio"
)

// What is told of a vibrato through the ear is what was played: as it is written nothing, too slow, too fast, too narrow, too wide
// and staying sharp by their names.
func TestTheEarHearsVibrato(t *testing.T) {
	in := neck.Standard()
	const tempo = 80
	for _, c := range []struct {
		name               string
		width, speed       int     // written
		sway, sways, stays float64 // played
		says               string
		others             int // notes of which something else may be said
	}{
		{"usual", 0, 0, 0.2, 5, 0, "", 1},
		{"none", 0, 0, 0, 0, 0, "is missing", 0},
		{"wide and slow, as written", 40, 3, 0.4, 3, 0, "", 1},
		{"narrow and fast, as written", 10, 7, 0.12, 7, 0, "", 2},
		{"slow", 0, 7, 0.2, 4, 0, "is slow", 1},
		{"fast", 0, 3, 0.2, 6, 0, "is fast", 1},
		{"narrow", 70, 0, 0.15, 5, 0, "is narrow", 1},
		{"wide", 10, 0, 0.4, 5, 0, "is wide", 1},
		{"sharp", 0, 0, 0.2, 5, 0.4, "stays", 2},
	} {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			key := form.Key{Tonic: pitch.Name{}}
			s := score.Score{Key: key, Tempo: tempo, Progression: form.Forms[0].In(key), In: in}
			take := studio.Take{Sound: studio.Clean, Rate: 48000, Tempo: tempo, Seed: 5}
			for b := range s.Bars {
				at := neck.Placement{String: 2 + b%3, Fret: 5 + b%5}
				n := score.Note{Start: s.At(b), Length: 3 * score.Tick, Placement: at, Ornaments: score.Ornaments{Vibrato: true, Width: c.width, Speed: c.speed}}
				n.Pitch = pitch.At(in.MIDI(at), key.Spell(in.MIDI(at)%12))
				s.Notes = append(s.Notes, n)
				take.Strokes = append(take.Strokes, studio.Stroke{At: lead + float64(n.Start)/score.Tick*60/tempo, Length: 3 * 60. / tempo, MIDI: float64(n.Pitch.MIDI()), String: at.String, Sway: c.sway, Sways: c.sways, Stays: c.stays})
			}
			take.Length = lead + 12*4*60./tempo + 1
			others, right := 0, 0
			for _, v := range listen(t, s, take, tempo).Verdicts {
				if v.Is != judge.Right {
					continue
				}
				right++
				if c.says == "" && v.Sways != "" || !strings.HasPrefix(v.Sways, c.says) {
					others++
					t.Log(v.Says())
				}
			}
			assert.GreaterOrEqual(t, right, 11, "whatever it does, the note is right")
			assert.LessOrEqual(t, others, c.others)
		})
	}
}
