package studio

import (
	"math"
	"math/rand/v2"
)

// Voice is somebody or something in the room that is no guitar.
type Voice string

// The voices.
const (
	Nobody   Voice = ""
	Talk     Voice = "talk"
	Singer   Voice = "singer"
	Feedback Voice = "feedback"
)

// Level of a voice in the recording, as a root mean square.
const voiced = 0.08

// vowels are the first three formants of some, in hertz.
var vowels = [][3]float64{{730, 1090, 2440}, {270, 2290, 3010}, {570, 840, 2410}, {530, 1840, 2480}, {300, 870, 2240}}

// voice sounds for so many samples.
func (t Take) voice(n int, rng *rand.Rand) []float64 {
	switch t.Voice {
	case Talk:
		return t.spoken(n, rng)
	case Singer:
		return t.sung(n, rng)
	case Feedback:
		out := make([]float64, n)
		for i := range out {
			s := float64(i) / float64(t.Rate)
			out[i] = math.Sin(2*math.Pi*622*s) * (0.6 + 0.4*math.Sin(2*math.Pi*0.2*s))
		}
		level(out, voiced)
		return out
	}
	return make([]float64, n)
}

// spoken is syllables, four or five a second, each of a vowel with a gliding pitch, some with a hiss before them, and pauses.
func (t Take) spoken(n int, rng *rand.Rand) []float64 {
	out := make([]float64, n)
	rate := float64(t.Rate)
	for at := 0.2; at < t.Length; {
		length := 0.12 + 0.14*rng.Float64()
		from, to := 100+70*rng.Float64(), 90+70*rng.Float64()
		if rng.IntN(3) == 0 {
			for i := range int(0.05 * rate) {
				if k := int(at*rate) + i; k < n {
					out[k] += 0.15 * rng.NormFloat64()
				}
			}
			at += 0.05
		}
		throat(out, at, length, rate, vowels[rng.IntN(len(vowels))], func(s float64) float64 { return from + (to-from)*s/length })
		at += length + 0.03
		if rng.IntN(6) == 0 {
			at += 0.4
		}
	}
	level(out, voiced)
	return out
}

// sung is long tones of a minor scale, with vibrato, slid into from below.
func (t Take) sung(n int, rng *rand.Rand) []float64 {
	out := make([]float64, n)
	scale := []float64{57, 60, 62, 64, 67, 69}
	for at := 0.3; at < t.Length; {
		length := 0.5 + rng.Float64()
		midi := scale[rng.IntN(len(scale))]
		throat(out, at, length, float64(t.Rate), vowels[rng.IntN(len(vowels))], func(s float64) float64 {
			return hertz(midi - 1.5*math.Exp(-s/0.06) + 0.5*math.Sin(2*math.Pi*5.5*s))
		})
		at += length + 0.1
	}
	level(out, voiced)
	return out
}

// throat adds a tone of pulses through three resonances.
func throat(out []float64, at, length, rate float64, vowel [3]float64, pitch func(since float64) float64) {
	phase := 0.0
	var state [3][2]float64
	for i := range int(length * rate) {
		k := int(at*rate) + i
		if k >= len(out) {
			return
		}
		s := float64(i) / rate
		phase += pitch(s) / rate
		pulse := 0.0
		if phase >= 1 {
			phase--
			pulse = 1
		}
		y := pulse
		for f := range vowel { // one resonance after another
			r := math.Exp(-math.Pi * (60 + 0.05*vowel[f]) / rate)
			a := 2 * r * math.Cos(2*math.Pi*vowel[f]/rate)
			y, state[f][1], state[f][0] = (1-a+r*r)*y+a*state[f][0]-r*r*state[f][1], state[f][0], 0
			state[f][0] = y
		}
		out[k] += y * math.Min(1, s/0.02) * math.Min(1, (length-s)/0.03)
	}
}
