package record

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
)

// band is a made-up measure of a band: strokes of drums at its beats and chords in its bars, with some noise.
func band(rng *rand.Rand, first, seconds float64, beat func(n int) float64, chords []string) (Onsets, Tones) {
	o := Onsets{Rate: 100, All: make([]float64, int(seconds*100)), Low: make([]float64, int(seconds*100)), High: make([]float64, int(seconds*100))}
	tn := Tones{Rate: 10, All: make([][12]float64, int(seconds*10)), Bass: make([][12]float64, int(seconds*10))}
	for i := range o.All {
		o.All[i], o.Low[i], o.High[i] = 4*rng.Float64(), 4*rng.Float64(), 4*rng.Float64()
	}
	hit := func(list []float64, at, strength float64) {
		for d, part := range []float64{1, 0.6, 0.2} {
			if i := int(math.Round(at*100)) + d; i >= 0 && i < len(list) {
				list[i] += strength * part
			}
		}
	}
	for n := 0; first+beat(n) < seconds; n++ {
		at, next := first+beat(n), first+beat(n+1)
		hit(o.All, at, 100)
		hit(o.All, at+(next-at)*2/3, 45) // it swings
		if n%2 == 0 {
			hit(o.Low, at, 120)
		} else {
			hit(o.High, at, 120)
		}
		chord := harmony.MustParse(chords[n/4%len(chords)])
		for f := int(at * 10); f < min(int(next*10), len(tn.All)); f++ {
			for _, tone := range chord.Tones {
				tn.All[f][tone.Name.Class()] += 60 + 20*rng.Float64()
			}
			tn.Bass[f][chord.Root.Class()] += 80
		}
	}
	return o, tn
}

var blues = []string{"C7", "F7", "C7", "C7", "F7", "F7", "C7", "C7", "G7", "F7", "C7", "G7"}

// A band with drums, in any usual tempo, beginning anywhere: its tempo and the first beat of its bars.
func TestABeatIsFound(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 2))
	for tempo := 58.0; tempo <= 172; tempo += 6 {
		for _, first := range []float64{0, 0.37, 2.21} {
			o, tn := band(rng, first, 45, func(n int) float64 { return float64(n) * 60 / tempo }, blues)
			pulses := o.Pulses(4, tn)
			require.NotEmpty(t, pulses, tempo)
			p := pulses[0]
			assert.InDelta(t, tempo, p.Tempo, 0.01*tempo, "%.0f from %.2f", tempo, first)
			off := p.Grid.Beat(first)
			assert.InDelta(t, 0, off-4*math.Round(off/4), 0.12, "%.0f from %.2f", tempo, first)
			assert.LessOrEqual(t, len(pulses), mostPulses)
			assert.Len(t, p.Grid.Anchors, 2, "an even tempo needs no more")
			sure := 0.0
			for i, p := range pulses {
				sure += p.Sure
				assert.NotEmpty(t, p.Says)
				require.NoError(t, p.Grid.Check())
				if i > 0 {
					assert.LessOrEqual(t, p.Sure, pulses[i-1].Sure)
				}
			}
			assert.LessOrEqual(t, sure, 1.0001)
		}
	}
}

// A tempo that goes up by a tenth is followed: each beat within a twentieth of a second.
func TestADriftIsFollowed(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 4))
	beat := func(n int) float64 { // from 100 up to 110 over a hundred beats
		at := 0.0
		for i := range n {
			at += 60 / (100 + 10*float64(min(i, 100))/100)
		}
		return at
	}
	o, tn := band(rng, 0.5, 55, beat, blues)
	pulses := o.Pulses(4, tn)
	require.NotEmpty(t, pulses)
	g := pulses[0].Grid
	assert.Greater(t, len(g.Anchors), 4)
	assert.Contains(t, pulses[0].Says, "drifts")
	for n := 4; n < 88; n++ {
		off := g.Beat(0.5 + beat(n))
		assert.InDelta(t, 0, (off-math.Round(off))*0.57, 0.05, n)
	}
}

// Silence, one crack, and what is too short have no beat; noise gets no certain one. Nothing of it fails.
func TestWhatHasNoBeat(t *testing.T) {
	tones := Tones{Rate: 10}
	for name, o := range map[string]Onsets{
		"nothing": {Rate: 100},
		"silence": {Rate: 100, All: make([]float64, 3000), Low: make([]float64, 3000), High: make([]float64, 3000)},
		"short":   {Rate: 100, All: make([]float64, 300), Low: make([]float64, 300), High: make([]float64, 300)},
	} {
		assert.Empty(t, o.Pulses(4, tones), name)
	}
	crack := Onsets{Rate: 100, All: make([]float64, 3000), Low: make([]float64, 3000), High: make([]float64, 3000)}
	crack.All[700] = 255
	for _, p := range crack.Pulses(4, tones) {
		require.NoError(t, p.Grid.Check())
	}
	rng := rand.New(rand.NewPCG(5, 6))
	noise := Onsets{Rate: 100}
	for range 6000 {
		noise.All, noise.Low, noise.High = append(noise.All, rng.Float64()), append(noise.Low, rng.Float64()), append(noise.High, rng.Float64())
	}
	for _, p := range noise.Pulses(4, tones) {
		require.NoError(t, p.Grid.Check())
	}
}

// The chords of a blues in every key, and of a minor one; its key; where nothing sounds none is.
func TestChordsAreHeard(t *testing.T) {
	rng := rand.New(rand.NewPCG(7, 8))
	for _, minor := range []bool{false, true} {
		for _, f := range form.Forms {
			if f.Minor != minor || len(f.In(form.Key{Minor: minor}).Bars) > 16 {
				continue
			}
			for _, key := range form.AllKeys(minor) {
				p := f.In(key)
				if !p.Even() || p.Beats != 4 {
					continue
				}
				var symbols []string
				plain := true
				for _, b := range p.Bars {
					plain = plain && len(b.Changes) == 1
					symbols = append(symbols, b.Changes[0].Chord.String())
				}
				if !plain {
					continue
				}
				_, tn := band(rng, 0, 40, func(n int) float64 { return float64(n) * 0.6 }, symbols)
				list, keys := tn.Chords(Even(4, 0, 100, 40), 0, 4*16, nil)
				right, all := 0, 0
				for _, c := range list {
					if c.Beat == 0 {
						all++
						if c.Agrees(harmony.MustParse(symbols[c.Bar%len(symbols)])) {
							right++
						}
					}
					assert.NotEmpty(t, c.Says)
					assert.LessOrEqual(t, len(c.Rivals), 2)
					assert.Greater(t, c.Sure, 0.0)
				}
				assert.GreaterOrEqual(t, float64(right), 0.85*float64(all), "%s in %s", f.ID, key)
				require.NotEmpty(t, keys)
				text := Text(list, 4)
				back, err := form.Read(text, 4, keys[0].Key)
				require.NoError(t, err, text)
				assert.Len(t, back.Bars, 16)
			}
		}
	}
	quiet := Tones{Rate: 10, All: make([][12]float64, 100), Bass: make([][12]float64, 100)}
	list, keys := quiet.Chords(Even(4, 0, 100, 10), 0, 16, nil)
	assert.Empty(t, keys)
	for _, c := range list {
		assert.True(t, c.Chord.None, fmt.Sprint(c))
		assert.Equal(t, "nothing sounds", c.Says)
	}
}

// What is known of the key names the chords by it, and helps.
func TestAKnownKeyNamesTheChords(t *testing.T) {
	rng := rand.New(rand.NewPCG(9, 9))
	key, err := form.ParseKey("Gb")
	require.NoError(t, err)
	_, tn := band(rng, 0, 20, func(n int) float64 { return float64(n) * 0.6 }, []string{"Gb7", "Cb7"})
	list, _ := tn.Chords(Even(4, 0, 100, 20), 0, 16, &key)
	for _, c := range list {
		assert.Contains(t, []string{"Gb7", "Cb7"}, c.Chord.String())
	}
}
