package studio

import (
	"math"
	"math/rand/v2"
)

// What the band plays, in C unless it is transposed: a root for each bar, and the bass over it, beat by beat; the
// chords stand over the root on the second and fourth beat.
var (
	roots = []float64{36, 41, 36, 36, 41, 41, 36, 36, 43, 41, 36, 43}
	walks = []float64{0, 4, 7, 9}
	chord = []float64{16, 22, 26}
)

// Note is a note of the band: when, in seconds, and which.
type Note struct{ At, MIDI float64 }

// BandNotes lists what the band of a take plays, without its drums.
func (t Take) BandNotes() (notes []Note) {
	beat := 60 / t.Tempo
	for b := 0; float64(b)*beat < t.Length; b++ {
		root := roots[(b/4)%12] + t.Transposed
		notes = append(notes, Note{float64(b) * beat, root + walks[b%4]})
		if b%2 == 1 {
			for _, over := range chord {
				notes = append(notes, Note{float64(b) * beat, root + over})
			}
		}
	}
	return notes
}

// band is drums, a walking bass and chords over C7, F7 and G7.
func (t Take) band(n int, rng *rand.Rand) []float64 {
	out := make([]float64, n)
	rate := float64(t.Rate)
	beat := 60 / t.Tempo
	add := func(at, length float64, f func(since float64) float64) {
		for i, k := int(at*rate), 0; i < n && float64(k) < length*rate; i, k = i+1, k+1 {
			if i >= 0 {
				out[i] += f(float64(k) / rate)
			}
		}
	}
	tone := func(midi, decay float64, partials ...float64) func(float64) float64 {
		w := 2 * math.Pi * hertz(midi)
		return func(s float64) float64 {
			y := 0.0
			for h, a := range partials {
				y += a * math.Sin(w*float64(h+1)*s)
			}
			return y * math.Exp(-s/decay) * math.Min(1, s/0.004)
		}
	}
	for b := 0; float64(b)*beat < t.Length; b++ {
		at := float64(b) * beat
		if at < t.Enters {
			continue
		}
		root := roots[(b/4)%12] + t.Transposed
		walk := walks[b%4]
		add(at, beat, scaled(0.5, tone(root+walk, 0.5, 1, 0.5, 0.25, 0.1)))
		if b%2 == 0 { // bass drum
			add(at, 0.2, func(s float64) float64 {
				return 0.9 * math.Sin(2*math.Pi*(50*s+1.5*(1-math.Exp(-s/0.03)))) * math.Exp(-s/0.07)
			})
		} else { // snare
			add(at, 0.15, func(s float64) float64 { return 0.35 * rng.NormFloat64() * math.Exp(-s/0.05) })
			for _, tone12 := range chord {
				add(at, 0.3, scaled(0.16, tone(root+tone12, 0.2, 1, 0.6, 0.4, 0.3, 0.2)))
			}
		}
		for _, part := range []float64{0, 0.667} { // cymbal
			last := 0.0
			add(at+part*beat, 0.08, func(s float64) float64 {
				x := rng.NormFloat64()
				y := x - last
				last = x
				return 0.08 * y * math.Exp(-s/0.03)
			})
		}
	}
	return out
}

func scaled(by float64, f func(float64) float64) func(float64) float64 {
	return func(s float64) float64 { return by * f(s) }
}
