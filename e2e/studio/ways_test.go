package studio_test

import (
	"os"
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/form"
	"undaris/core/judge"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
	"undaris/e2e/studio"
)

// figure is a note of a bar: when in eighths, string, fret, and how it is played.
type figure struct {
	at, string, fret int
	how              score.Ornaments
}

// ways are bars that are played over and over up the neck.
var ways = map[string][]figure{
	"repeated": {{0, 3, 7, score.Ornaments{}}, {1, 3, 7, score.Ornaments{}}, {2, 3, 7, score.Ornaments{}}, {3, 3, 7, score.Ornaments{}}, {4, 2, 8, score.Ornaments{}}, {5, 2, 8, score.Ornaments{}}, {6, 2, 8, score.Ornaments{}}, {7, 2, 8, score.Ornaments{}}},
	"hammered": {{0, 3, 5, score.Ornaments{}}, {1, 3, 7, score.Ornaments{Join: score.Hammer}}, {2, 2, 5, score.Ornaments{}}, {3, 2, 8, score.Ornaments{Join: score.Hammer}}, {4, 2, 5, score.Ornaments{Join: score.PullOff}}, {6, 3, 5, score.Ornaments{}}},
	"slid":     {{0, 3, 5, score.Ornaments{}}, {1, 3, 7, score.Ornaments{Join: score.Slide}}, {4, 2, 5, score.Ornaments{}}, {5, 2, 8, score.Ornaments{Join: score.Slide}}},
	"bent":     {{0, 3, 7, score.Ornaments{Bend: 4}}, {2, 2, 5, score.Ornaments{}}, {4, 2, 8, score.Ornaments{Bend: 4}}, {6, 2, 5, score.Ornaments{}}, {7, 3, 7, score.Ornaments{Bend: 2}}},
	"doubled":  {{0, 1, 5, score.Ornaments{}}, {0, 2, 5, score.Ornaments{}}, {2, 2, 5, score.Ornaments{}}, {2, 3, 6, score.Ornaments{}}, {4, 3, 5, score.Ornaments{}}, {4, 4, 7, score.Ornaments{}}, {6, 1, 5, score.Ornaments{}}},
}

func TestTheEarHearsWaysToPlay(t *testing.T) {
	in := neck.Standard()
	for name, bar := range ways {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			tempi := []int{120, 80}
			if os.Getenv("EVERY") == "" {
				tempi = tempi[:1]
			}
			for _, tempo := range tempi {
				key := form.Key{Tonic: pitch.Name{}}
				s := score.Score{Key: key, Tempo: tempo, Progression: form.Forms[0].In(key), In: in}
				var strokes []studio.Stroke
				second := func(ticks int) float64 { return lead + float64(ticks)/score.Tick*60/float64(tempo) }
				for b := range s.Bars {
					for i, f := range bar {
						n := score.Note{Start: s.At(b) + f.at*480, Length: 480, Placement: neck.Placement{String: f.string, Fret: f.fret + b%5}, Ornaments: f.how}
						for _, next := range bar[i+1:] {
							if next.at > f.at {
								n.Length = (next.at - f.at) * 480
								break
							}
						}
						n.Pitch = pitch.At(in.MIDI(n.Placement), key.Spell(in.MIDI(n.Placement)%12))
						s.Notes = append(s.Notes, n)
						strokes = append(strokes, studio.Stroke{At: second(n.Start), Length: second(n.End()) - second(n.Start), MIDI: float64(n.Pitch.MIDI()), String: f.string,
							Bend: float64(f.how.Bend) / 2, Legato: f.how.Join == score.Hammer || f.how.Join == score.PullOff, Slide: f.how.Join == score.Slide})
					}
				}
				score.Sort(s.Notes)
				take := studio.Take{Sound: studio.Clean, Rate: 48000, Tempo: float64(tempo), Strokes: strokes, Length: second(s.At(12)) + 1, Seed: 9}
				var sum tally
				verdicts := listen(t, s, take, tempo)
				sum.add(verdicts, judge.Erred{})
				bends, bent := 0, 0
				for i, v := range verdicts.Verdicts {
					if s.Notes[i].Bend > 0 && v.Is == judge.Right {
						bent++
						if v.Bend == judge.True {
							bends++
						}
					}
				}
				t.Logf("%s at %d: %d of %d right, %d strangers, %d of %d bends true", name, tempo, sum.right, sum.notes, sum.strangers, bends, bent)
				assert.GreaterOrEqual(t, float64(sum.right), 0.92*float64(sum.notes))
				assert.Equal(t, bent, bends)
			}
		})
	}
}
