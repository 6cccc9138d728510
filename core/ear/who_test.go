package ear_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/ear"
	"undaris/core/judge"
)

// strokes plays pitches, a quarter apart; told hears what else is noticed of each.
func strokes(l *ear.Listener, pitches []float64, told func(seq int, tick float64) []ear.Observation) {
	seq := 1
	for i, p := range pitches {
		tick := float64(i) * quarter
		l.Hear(ear.Observation{Seq: seq, Kind: ear.Attack, Tick: tick})
		of := seq
		l.Hear(ear.Observation{Seq: seq + 1, Kind: ear.Settled, Of: of, Tick: tick + 40, MIDI: p, Clarity: 1})
		l.Hear(ear.Observation{Seq: seq + 2, Kind: ear.Salience, Of: of, Tick: tick + 80, Fresh: 1, Level: -20, Candidates: []ear.Candidate{{MIDI: int(p + 0.5), Strength: 1}}})
		seq += 3
		if told == nil {
			continue
		}
		for _, o := range told(of, tick) {
			o.Seq = seq
			seq++
			l.Hear(o)
		}
	}
}

// Before an instrument is known to play, what was not to be played is nobody's; then it is the player's, from the first note on.
// Whatever it is tuned to, it is known; a voice is not, and who was known in one take is known in the next.
func TestWhoPlays(t *testing.T) {
	var expected []judge.Expected
	for i := range 12 {
		expected = append(expected, at(float64(i)*quarter, 60))
	}
	wrong := func(n int, detuned float64) (list []float64) {
		for i := range n {
			list = append(list, []float64{60, 63, 65}[i%3]+detuned) // one in three is right
		}
		return list
	}
	for name, c := range map[string]struct {
		pitches []float64
		known   int
		told    func(int, float64) []ear.Observation
		heard   int
	}{
		"three notes tell nothing yet":               {wrong(3, 0), 0, nil, 1},
		"twelve do":                                  {wrong(12, 0), 0, nil, 12},
		"a guitar that is 30 cents flat":             {wrong(12, -0.3), 0, nil, 12},
		"who was known before is known at once":      {wrong(2, 0), 12, nil, 2},
		"talk, but for what happens to be right":     {[]float64{60.4, 57.8, 63.6, 55.1, 61.3, 58.45, 64.9, 56.6, 59.7, 62.2, 57.35, 60.05}, 0, nil, 3},
		"one tone that feeds back, whatever strikes": {[]float64{63, 63, 63, 63, 63, 63, 63, 63, 63, 60, 63, 63}, 0, nil, 1},
		"what sways in every note is right where it is so": {wrong(12, 0), 0, func(of int, tick float64) (list []ear.Observation) {
			for i := range 6 {
				list = append(list, ear.Observation{Kind: ear.Bend, Of: of, Tick: tick + float64(100+i*20), MIDI: 60.4})
			}
			return append(list, ear.Observation{Kind: ear.Sway, Of: of, Tick: tick + 300, Width: 0.5})
		}, 4},
	} {
		t.Run(name, func(t *testing.T) {
			l := ear.Listen(expected)
			l.Known(c.known)
			strokes(l, c.pitches, c.told)
			assert.Len(t, l.Heard(), c.heard)
		})
	}
	one := ear.Listen(expected)
	strokes(one, wrong(12, 0), nil)
	assert.Positive(t, one.InTune())
	next := ear.Listen(expected)
	next.Known(one.InTune())
	strokes(next, []float64{63}, nil)
	assert.Len(t, next.Heard(), 1)
	talk := ear.Listen(expected)
	strokes(talk, []float64{60.4, 57.8, 63.6, 55.1, 61.3, 58.45}, nil)
	assert.Zero(t, talk.InTune())
	talk.Known(-5)
	talk.Known(1 << 40)
	assert.NotPanics(t, func() { talk.Heard() })
}

// Beside a band that is told, strokes no louder than its own are nobody's; louder ones are the player's.
func TestTheBandAloneIsNobody(t *testing.T) {
	var expected, band []judge.Expected
	for i := range 12 {
		expected = append(expected, at(float64(i)*quarter, 60))
		band = append(band, at(float64(i)*quarter, 48))
	}
	for _, c := range []struct {
		level float64 // of what is no note of the band's
		heard int
	}{{-20, 0}, {-10, 4}} {
		l := ear.Listen(expected)
		l.Beside(band)
		seq := 1
		for i := range 12 {
			tick, pitch, level := float64(i)*quarter, 48.0, -20.0
			if i%3 == 2 { // a stroke between the band's
				tick, pitch, level = tick+quarter*0.4, []float64{61, 63, 65, 66}[i/3], c.level
			}
			l.Hear(ear.Observation{Seq: seq, Kind: ear.Attack, Tick: tick})
			l.Hear(ear.Observation{Seq: seq + 1, Kind: ear.Settled, Of: seq, Tick: tick + 20, MIDI: pitch, Clarity: 1})
			l.Hear(ear.Observation{Seq: seq + 2, Kind: ear.Salience, Of: seq, Tick: tick + 30, Fresh: 1, Level: level, Candidates: []ear.Candidate{{MIDI: int(pitch), Strength: 1}}})
			seq += 3
		}
		assert.Len(t, l.Heard(), c.heard, "at %g dB", c.level)
	}
}
