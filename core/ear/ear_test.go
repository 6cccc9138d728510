package ear_test

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/blend"
	"undaris/core/ear"
	"undaris/core/form"
	"undaris/core/judge"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

const quarter = score.Tick

// stroke is what an ear notices of one: its pitch (0 where it stays unknown) and
// what it brought.
func stroke(l *ear.Listener, seq int, tick, midi, fresh float64, brought ...ear.Candidate) {
	l.Hear(ear.Observation{Seq: seq, Kind: ear.Attack, Tick: tick})
	if midi != 0 {
		l.Hear(ear.Observation{Seq: seq + 1, Kind: ear.Settled, Of: seq, Tick: tick + 30, MIDI: midi})
	}
	l.Hear(ear.Observation{Seq: seq + 2, Kind: ear.Salience, Of: seq, Tick: tick + 90, Fresh: fresh, Level: -20, Candidates: brought})
}

func at(tick, midi float64) judge.Expected {
	return judge.Expected{At: tick, Pitch: midi, Fretted: midi}
}

func TestWhatAStrokeIs(t *testing.T) {
	bent := judge.Expected{At: quarter, Pitch: 62, Fretted: 60, Bent: true}
	slid := judge.Expected{At: quarter, Pitch: 62, Fretted: 62, Joined: true}
	for name, c := range map[string]struct {
		expected []judge.Expected
		hear     func(*ear.Listener)
		want     []float64
	}{
		"what settled is what it is": {nil, func(l *ear.Listener) { stroke(l, 1, 0, 60.1, 0.9, ear.Candidate{60, 1}) }, []float64{60.1}},
		"a wrong note stays wrong": {[]judge.Expected{at(0, 64)}, func(l *ear.Listener) {
			stroke(l, 1, 0, 62.02, 0.9, ear.Candidate{62, 1}, ear.Candidate{64, 0.5})
		}, []float64{62.02}},
		"unsettled, what was to be played and was brought": {[]judge.Expected{at(0, 64)}, func(l *ear.Listener) {
			stroke(l, 1, 0, 0, 0.9, ear.Candidate{76, 1}, ear.Candidate{64, 0.9}, ear.Candidate{57, 0.7})
		}, []float64{64}},
		"unsettled, and a rival is stronger": {[]judge.Expected{at(0, 64)}, func(l *ear.Listener) {
			stroke(l, 1, 0, 0, 0.9, ear.Candidate{62, 1}, ear.Candidate{64, 0.5})
		}, []float64{62}},
		"unsettled, and nobody can tell": {[]judge.Expected{at(0, 64)}, func(l *ear.Listener) {
			stroke(l, 1, 0, 0, 0.9, ear.Candidate{62, 1}, ear.Candidate{64, 0.8})
		}, nil},
		"only the pitch settles the octave": {[]judge.Expected{at(0, 64)}, func(l *ear.Listener) {
			stroke(l, 1, 0, 52, 0.9, ear.Candidate{52, 1}, ear.Candidate{64, 0.9})
		}, []float64{52}},
		"what strings share is no note": {[]judge.Expected{at(0, 64)}, func(l *ear.Listener) {
			stroke(l, 1, 0, 40, 0.9, ear.Candidate{64, 1}, ear.Candidate{40, 0.3})
		}, []float64{64}},
		"swaying is no bend": {nil, func(l *ear.Listener) {
			stroke(l, 1, 0, 60, 0.9, ear.Candidate{60, 1})
			l.Hear(ear.Observation{Seq: 4, Kind: ear.Bend, Of: 1, Tick: 300, MIDI: 60.5})
			l.Hear(ear.Observation{Seq: 5, Kind: ear.Sway, Of: 1, Tick: 400, Width: 0.3})
			l.Hear(ear.Observation{Seq: 6, Kind: ear.Bend, Of: 1, Tick: 500, MIDI: 60.6})
		}, []float64{60}},
		"a bend may sway at its goal": {[]judge.Expected{bent}, func(l *ear.Listener) {
			stroke(l, 1, quarter, 60, 0.9, ear.Candidate{60, 1})
			l.Hear(ear.Observation{Seq: 4, Kind: ear.Bend, Of: 1, Tick: quarter + 300, MIDI: 62})
			l.Hear(ear.Observation{Seq: 5, Kind: ear.Sway, Of: 1, Tick: quarter + 700, Width: 0.3})
		}, []float64{62}},
		"noise brings nothing": {[]judge.Expected{at(0, 64)}, func(l *ear.Listener) { stroke(l, 1, 0, 0, 0.05, ear.Candidate{64, 1}) }, nil},
		"a drum while a note rings": {nil, func(l *ear.Listener) {
			stroke(l, 1, 0, 60, 0.9, ear.Candidate{60, 1})
			stroke(l, 4, quarter, 60, 0.3, ear.Candidate{45, 1}, ear.Candidate{60, 0.7})
		}, []float64{60}},
		"struck again": {nil, func(l *ear.Listener) {
			stroke(l, 1, 0, 60, 0.9, ear.Candidate{60, 1})
			stroke(l, 4, quarter, 60, 0.6, ear.Candidate{60, 1})
		}, []float64{60, 60}},
		"struck again softly, where it was to be": {[]judge.Expected{at(0, 60), at(quarter, 60)}, func(l *ear.Listener) {
			stroke(l, 1, 0, 60, 0.9, ear.Candidate{60, 1})
			stroke(l, 4, quarter, 60, 0.3, ear.Candidate{79, 1}, ear.Candidate{60, 0.6})
		}, []float64{60, 60}},
		"a drum, where the note that rings is the only one of its pitch": {[]judge.Expected{at(0, 60), at(quarter, 62)}, func(l *ear.Listener) {
			stroke(l, 1, 0, 60, 0.9, ear.Candidate{60, 1})
			stroke(l, 4, quarter/2, 60, 0.3, ear.Candidate{79, 1}, ear.Candidate{60, 0.6})
		}, []float64{60}},
		"what rang lends its octave": {[]judge.Expected{at(0, 60), at(quarter, 60)}, func(l *ear.Listener) {
			stroke(l, 1, 0, 60, 0.9, ear.Candidate{60, 1})
			stroke(l, 4, quarter, 72, 0.6, ear.Candidate{72, 1}, ear.Candidate{60, 0.8})
		}, []float64{60, 60}},
		"two notes of a double stop": {[]judge.Expected{at(0, 64), at(0, 69)}, func(l *ear.Listener) {
			stroke(l, 1, 0, 0, 0.9, ear.Candidate{64, 1}, ear.Candidate{69, 0.8})
		}, []float64{64, 69}},
		"one of them alone": {[]judge.Expected{at(0, 64), at(0, 69)}, func(l *ear.Listener) {
			stroke(l, 1, 0, 64, 0.9, ear.Candidate{64, 1})
		}, []float64{64}},
		"a bend comes to rest": {[]judge.Expected{bent}, func(l *ear.Listener) {
			stroke(l, 1, quarter, 60, 0.9, ear.Candidate{60, 1})
			l.Hear(ear.Observation{Seq: 9, Kind: ear.Bend, Of: 1, Tick: quarter + 200, MIDI: 61.9})
		}, []float64{61.9}},
		"a slide to what was to be slid to": {[]judge.Expected{at(0, 60), slid}, func(l *ear.Listener) {
			stroke(l, 1, 0, 60, 0.9, ear.Candidate{60, 1})
			l.Hear(ear.Observation{Seq: 9, Kind: ear.Bend, Of: 1, Tick: quarter, MIDI: 62})
		}, []float64{60, 62}},
		"no finger jumps an octave": {nil, func(l *ear.Listener) {
			stroke(l, 1, 0, 48, 0.9, ear.Candidate{60, 1}, ear.Candidate{48, 0.7})
			l.Hear(ear.Observation{Seq: 9, Kind: ear.Slide, Of: 1, Tick: 100, MIDI: 60})
		}, []float64{60}},
		"what is not a number is not heard": {nil, func(l *ear.Listener) {
			stroke(l, 1, math.NaN(), 60, 0.9, ear.Candidate{60, 1})
			l.Hear(ear.Observation{Seq: 7, Kind: ear.Settled, Of: 99, MIDI: 60})
		}, nil},
	} {
		t.Run(name, func(t *testing.T) {
			l := ear.Listen(c.expected)
			l.Known(12)
			c.hear(l)
			var pitches []float64
			for _, h := range l.Heard() {
				pitches = append(pitches, h.Pitch)
			}
			assert.Equal(t, c.want, pitches)
		})
	}
}

// A quiet stranger is the band, once it is known how loud the player is.
func TestTheBandIsNoStranger(t *testing.T) {
	var expected []judge.Expected
	for i := range 6 {
		expected = append(expected, at(float64(i)*quarter, 60))
	}
	l := ear.Listen(expected)
	for i := range 6 {
		stroke(l, 1+3*i, float64(i)*quarter, 60, 0.9, ear.Candidate{60, 1})
	}
	l.Hear(ear.Observation{Seq: 100, Kind: ear.Attack, Tick: 5.5 * quarter})
	l.Hear(ear.Observation{Seq: 101, Kind: ear.Settled, Of: 100, Tick: 5.5 * quarter, MIDI: 43})
	assert.Len(t, l.Heard(), 7, "not yet weighed")
	l.Hear(ear.Observation{Seq: 102, Kind: ear.Salience, Of: 100, Tick: 5.6 * quarter, Fresh: 0.9, Level: -34, Candidates: []ear.Candidate{{43, 1}}})
	assert.Len(t, l.Heard(), 6)
}

func written(t require.TestingT, f form.Form, tonic pitch.Name, seed uint64) score.Score {
	key := form.Key{Tonic: tonic, Minor: f.Minor}
	in := neck.Standard()
	s := score.Score{Key: key, Tempo: 100, Progression: f.In(key), In: in}
	notes, err := line.Write(context.Background(), s, line.Wish{Region: in.Positions(tonic.Class())[0].Region, Palette: blend.Palettes[0], Rhythm: "eighths", Density: 3, Seed: seed}, neck.UsualHand)
	require.NoError(t, err)
	s.Notes = notes
	return s
}

// What a simulated player plays is judged alike whether it was told or heard; heard
// twice, in pieces and over again, it is the same.
func TestWhatIsToldAndWhatIsHeardAreOne(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f := rapid.SampledFrom(form.Forms).Draw(t, "form")
		s := written(t, f, rapid.SampledFrom(pitch.Roots).Draw(t, "tonic"), rapid.Uint64Range(0, 9).Draw(t, "seed"))
		told, _ := judge.Player{Wrong: 0.1, Missed: 0.05, Spread: 10, Seed: rapid.Uint64().Draw(t, "player")}.Play(s, 100, 0.5)
		expected := judge.Sounding(s, 0.5)
		l := ear.Listen(expected)
		all := ear.Noticed(told, expected)
		for i, o := range all {
			l.Hear(o)
			l.Hear(all[i/2])
		}
		a, b := judge.Prescribed(s, told, 100, 0.5), judge.Prescribed(s, l.Heard(), 100, 0.5)
		for i := range a.Verdicts {
			if a.Verdicts[i].Is != b.Verdicts[i].Is {
				t.Fatalf("note %d: told %s, heard %s", i, a.Verdicts[i].Is, b.Verdicts[i].Is)
			}
		}
	})
}

// Whatever a page sends, there is an answer.
func FuzzHear(f *testing.F) {
	f.Add([]byte{0, 1, 2, 3, 4, 5, 60, 200, 7, 3})
	f.Fuzz(func(t *testing.T, data []byte) {
		l := ear.Listen([]judge.Expected{at(0, 60), at(480, 64)})
		for i := 0; i+5 < len(data); i += 6 {
			d := data[i : i+6]
			l.Hear(ear.Observation{Seq: int(d[0]), Kind: ear.Kinds[int(d[1])%len(ear.Kinds)], Of: int(d[2]), Tick: float64(int8(d[3])) * 100, MIDI: float64(d[4]) / 2,
				Fresh: float64(d[5]) / 255, Candidates: []ear.Candidate{{int(d[4]), float64(d[5]) / 255}}})
		}
		for _, h := range l.Heard() {
			assert.False(t, math.IsNaN(h.Pitch) || math.IsNaN(h.At) || h.Length < 0)
		}
	})
}

// Asked after every observation or once at the end, a listener has heard the same, whatever was
// observed: what was decided before is decided anew where it changes.
func TestWhatWasHeardDoesNotDependOnWhenItIsAsked(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		expected := rapid.SliceOfN(rapid.Custom(func(t *rapid.T) judge.Expected {
			e := at(float64(rapid.IntRange(0, 16).Draw(t, "at"))*quarter/2, float64(rapid.IntRange(55, 70).Draw(t, "pitch")))
			e.Joined, e.Bent, e.Dead = rapid.Bool().Draw(t, "joined"), rapid.Bool().Draw(t, "bent"), rapid.IntRange(0, 9).Draw(t, "dead") == 0
			if e.Bent {
				e.Pitch = e.Fretted + 2
			}
			return e
		}), 0, 12).Draw(t, "expected")
		band := rapid.SliceOfN(rapid.Custom(func(t *rapid.T) judge.Expected {
			return at(float64(rapid.IntRange(0, 16).Draw(t, "at"))*quarter/2, float64(rapid.IntRange(40, 70).Draw(t, "pitch")))
		}), 0, 8).Draw(t, "band")
		often, once := ear.Listen(expected), ear.Listen(expected)
		often.Beside(band)
		once.Beside(band)
		var strokes []int
		tick := 0.0
		for seq := 1; seq <= 60; seq++ {
			tick += float64(rapid.IntRange(-60, 300).Draw(t, "later"))
			o := ear.Observation{Seq: seq, Kind: rapid.SampledFrom(ear.Kinds).Draw(t, "kind"), Tick: tick, MIDI: float64(rapid.IntRange(110, 140).Draw(t, "midi")) / 2,
				Level: float64(rapid.IntRange(-60, -10).Draw(t, "level")), Fresh: rapid.Float64Range(0, 1).Draw(t, "fresh"), Width: rapid.Float64Range(0, 1).Draw(t, "width")}
			if o.Kind == ear.Attack {
				strokes = append(strokes, seq)
			} else if len(strokes) > 0 {
				o.Of = rapid.SampledFrom(strokes).Draw(t, "of")
				o.Candidates = []ear.Candidate{{MIDI: rapid.IntRange(50, 75).Draw(t, "candidate"), Strength: 1}, {MIDI: 60, Strength: rapid.Float64Range(0, 1).Draw(t, "strength")}}
			}
			often.Hear(o)
			once.Hear(o)
			often.Heard()
		}
		require.Equal(t, once.Heard(), often.Heard())
	})
}
