package studio_test

import (
	"encoding/json"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/ear"
	"undaris/core/form"
	"undaris/core/judge"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
	"undaris/e2e/studio"
)

// noticed is an observation as the ear of the page writes it.
type noticed struct {
	Seq, Frame, Of              int
	Kind                        ear.Kind
	Level, MIDI, Clarity, Fresh float64
	Width, Rate, Uneven, Low    float64
	Candidates                  [][2]float64
}

// room is a way that a take is recorded.
type room struct {
	name string
	studio.Take
	least float64 // of right verdicts
}

var rooms = []room{
	{"clean", studio.Take{Sound: studio.Clean}, 0.97},
	{"jazz", studio.Take{Sound: studio.Jazz}, 0.97},
	{"driven", studio.Take{Sound: studio.Driven}, 0.93},
	{"reverb", studio.Take{Sound: studio.Clean, Reverb: true}, 0.93},
	{"hum", studio.Take{Sound: studio.Clean, Hum: true}, 0.93},
	{"ringing", studio.Take{Sound: studio.Clean, Ringing: true}, 0.93},
	{"band at -30", studio.Take{Sound: studio.Clean, Band: -30}, 0.97},
	{"band at -20", studio.Take{Sound: studio.Clean, Band: -20}, 0.95},
	{"band at -12", studio.Take{Sound: studio.Clean, Band: -12}, 0.90},
	{"beside talk", studio.Take{Sound: studio.Clean, Voice: studio.Talk}, 0.90},
	{"beside a singer", studio.Take{Sound: studio.Clean, Voice: studio.Singer}, 0.90},
	{"beside feedback", studio.Take{Sound: studio.Driven, Voice: studio.Feedback}, 0.90},
}

// solo is a line at a tempo, with a note in seven played wrong.
func solo(t testing.TB, k, tempo int, rhythm string) (score.Score, []judge.Heard, judge.Erred) {
	return soloOn(t, neck.Standard(), k, tempo, rhythm)
}

// soloOn is one on an instrument.
func soloOn(t testing.TB, instrument *neck.Instrument, k, tempo int, rhythm string) (score.Score, []judge.Heard, judge.Erred) {
	f := form.Forms[0]
	tonic := pitch.Roots[(5*k)%len(pitch.Roots)]
	key := form.Key{Tonic: tonic, Minor: f.Minor}
	w := instrument.Positions(tonic.Class())[k%3].Region
	s := score.Score{Key: key, Tempo: tempo, Progression: f.In(key), In: instrument}
	notes, err := line.Write(t.Context(), s, line.Wish{Region: w, Palette: blend.Palettes[0], Rhythm: rhythm, Density: 3, Approach: true, Seed: uint64(k)}, neck.UsualHand)
	require.NoError(t, err)
	s.Notes = notes
	heard, erred := judge.Player{Wrong: 0.14, Spread: 8, Seed: uint64(k)}.Play(s, tempo, 0.5)
	return s, heard, erred
}

const lead = 1.0 // seconds before the first bar

func strokes(s score.Score, heard []judge.Heard, tempo int) (out []studio.Stroke, length float64) {
	second := func(tick float64) float64 { return lead + tick/score.Tick*60/float64(tempo) }
	for i, h := range heard {
		out = append(out, studio.Stroke{At: second(h.At), Length: second(h.At+h.Length) - second(h.At), MIDI: math.Round(h.Pitch), String: s.Notes[i].String})
	}
	return out, second(float64(s.End())) + 1
}

// how a line is played.
type how struct {
	tempo  int
	rhythm string
}

// takes lists what is recorded in the k-th room: a line, or with EVERY=1 eight.
func takes(k int) (list []how) {
	for _, tempo := range []int{160, 100, 60, 140} {
		for _, rhythm := range []string{"triplets", "eighths"} {
			list = append(list, how{tempo, rhythm})
		}
	}
	if os.Getenv("EVERY") == "" {
		return list[k%2*3 : k%2*3+1]
	}
	return list
}

// tally counts verdicts.
type tally struct{ notes, right, wrong, accepted, strangers, red int }

// Guitars of three sounds, in rooms and with a band: what was played right is called
// right, what was played wrong is not.
func TestTheEarHearsGuitars(t *testing.T) {
	for k, r := range rooms {
		t.Run(r.name, func(t *testing.T) {
			t.Parallel()
			var sum tally
			for i, how := range takes(k) {
				s, heard, erred := solo(t, i+k, how.tempo, how.rhythm)
				take := r.Take
				take.Rate, take.Tempo, take.Seed = []int{48000, 44100}[(i+k)%2], float64(how.tempo), uint64(i)
				take.Strokes, take.Length = strokes(s, heard, how.tempo)
				sum.add(listen(t, s, take, how.tempo), erred)
			}
			right, accepted := float64(sum.right)/float64(sum.notes), float64(sum.accepted)/float64(sum.notes)
			t.Logf("%d notes, %.3f right; %d right ones called wrong, %d of %d wrong ones accepted, %d strangers", sum.notes, right, sum.red, sum.accepted, sum.wrong, sum.strangers)
			assert.GreaterOrEqual(t, right, r.least)
			assert.LessOrEqual(t, accepted, 0.02)
			beside := 0.1 // of the notes, that are heard besides; nobody is told of them as of mistakes
			if r.Voice != studio.Nobody {
				beside = 0.45
			}
			assert.LessOrEqual(t, float64(sum.strangers), beside*float64(sum.notes))
			assert.LessOrEqual(t, float64(sum.red), max(3, mostRed*float64(sum.notes))) // of forty notes three may be anything
		})
	}
}

func (c *tally) add(take judge.Take, erred judge.Erred) {
	c.strangers += len(take.Strangers)
	for n, v := range take.Verdicts {
		c.notes++
		if erred.Wrong[n] {
			c.wrong++
			if v.Is == judge.Right {
				c.accepted++
			}
		}
		if erred.Wrong[n] != (v.Is == judge.Right) {
			c.right++
		} else if v.Is == judge.Wrong || v.Is == judge.Octave {
			c.red++
		}
	}
}

// noticing has the page's ear listen to a recording.
func noticing(t testing.TB, take studio.Take, tempo int) []ear.Observation {
	return noticingFrom(t, neck.Standard(), take, tempo)
}

// noticingFrom has it listen to an instrument, beneath which there is nothing to hear.
func noticingFrom(t testing.TB, in *neck.Instrument, take studio.Take, tempo int) (all []ear.Observation) {
	path := filepath.Join(t.TempDir(), "take.wav")
	require.NoError(t, os.WriteFile(path, studio.WAV(take.Render(), take.Rate), 0o600))
	out, err := exec.Command("node", "../../web/node_modules/.ear/hear.js", path, strconv.Itoa(lowest(in)), strconv.Itoa(highest(in))).Output()
	require.NoError(t, err, "npm run ear builds what listens")
	var list []noticed
	require.NoError(t, json.Unmarshal(out, &list))
	for _, o := range list {
		to := ear.Observation{Seq: o.Seq, Kind: o.Kind, Of: o.Of, MIDI: o.MIDI, Clarity: o.Clarity, Level: o.Level, Fresh: o.Fresh, Width: o.Width, Rate: o.Rate, Uneven: o.Uneven, Low: o.Low}
		to.Tick = tick(float64(o.Frame)/float64(take.Rate), tempo)
		for _, c := range o.Candidates {
			to.Candidates = append(to.Candidates, ear.Candidate{MIDI: int(c[0]), Strength: c[1]})
		}
		all = append(all, to)
	}
	return all
}

// lowest is a half step below the lowest string, as the page tells it.
func lowest(in *neck.Instrument) int {
	low := 127
	for _, p := range in.Open {
		low = min(low, p.MIDI()+in.Capo-1)
	}
	return low
}

// highest is a whole step and a half above its last fret, where one may bend to.
func highest(in *neck.Instrument) int {
	high := 0
	for _, p := range in.Open {
		high = max(high, p.MIDI()+in.Frets+3)
	}
	return high
}

// tick is where a second of a recording lies in the line.
func tick(second float64, tempo int) float64 {
	return (second - lead) * float64(tempo) / 60 * score.Tick
}

// listen judges what the page's ear noticed of a recording.
func listen(t testing.TB, s score.Score, take studio.Take, tempo int) judge.Take {
	l := ear.Listen(judge.Sounding(s, 0.5))
	l.Beside(beside(take, tempo))
	for _, o := range noticingFrom(t, s.In, take, tempo) {
		l.Hear(o)
	}
	return judge.Prescribed(s, l.Heard(), tempo, 0.5)
}

// Where nothing is written, a band in the microphone is not taken for the player, who
// is heard none the less.
func TestAFreePlayerBesideABand(t *testing.T) {
	for _, level := range []float64{-30, -20, -12} {
		played, found, strangers, unaided := 0, 0, 0, 0
		for i, how := range takes(1) {
			s, heard, _ := solo(t, i, how.tempo, how.rhythm)
			take := studio.Take{Sound: studio.Clean, Band: level, Rate: 48000, Tempo: float64(how.tempo), Seed: uint64(i)}
			take.Strokes, take.Length = strokes(s, heard, how.tempo)
			all := noticing(t, take, how.tempo)
			for _, told := range []bool{false, true} {
				l := ear.Listen(nil)
				if told {
					var band []judge.Expected
					for _, n := range take.BandNotes() {
						band = append(band, judge.Expected{At: tick(n.At, how.tempo), Pitch: n.MIDI, Fretted: n.MIDI})
					}
					l.Beside(band)
				}
				for _, o := range all {
					l.Hear(o)
				}
				got := l.Heard()
				matched := 0
				for _, h := range heard {
					for _, g := range got {
						if math.Abs(g.At-h.At) < score.Tick/4 && math.Abs(g.Pitch-h.Pitch) < 0.5 {
							matched++
							break
						}
					}
				}
				if told {
					played, found, strangers = played+len(heard), found+matched, strangers+len(got)-matched
				} else {
					unaided += len(got) - matched
				}
			}
		}
		t.Logf("band at %.0f dB: %d of %d notes heard, %d of the band's beside them (%d where the band is not known)", level, found, played, strangers, unaided)
		assert.GreaterOrEqual(t, float64(found), 0.85*float64(played))
		assert.LessOrEqual(t, float64(strangers), 0.65*float64(unaided))
	}
}
