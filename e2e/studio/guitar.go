// Package studio renders guitars, bands and rooms for the tests of the ear: plucked
// strings by delay lines (Karplus and Strong 1983), which has nothing in common
// with the synthesiser that players hear.
package studio

import (
	"math"
	"math/rand/v2"
)

// Stroke is one note of a performance.
type Stroke struct {
	At     float64 // seconds
	Length float64 // seconds that it is held
	MIDI   float64 // where it is fretted
	String int     // 1 and on; a string sounds one note at a time
	Bend   float64 // half steps that it is bent up by, over a tenth of a second
	Legato bool    // reached on the string without a stroke: hammered, pulled
	Slide  bool    // reached on the string by a slide
	Sway   float64 // half steps either way of its vibrato, which goes up from the pitch and comes back to it,
	Sways  float64 // so often a second,
	Stays  float64 // but so many half steps above it
}

// Sound is a way to sound.
type Sound string

// The sounds of a guitar.
const (
	Clean  Sound = "clean"
	Jazz   Sound = "jazz"
	Driven Sound = "driven"
)

// Take is a recording to be made.
type Take struct {
	Rate    int
	Strokes []Stroke
	Sound   Sound
	Reverb  bool
	Hum     bool
	Ringing bool // strings ring on until they are struck again
	Band    float64
	// Beats a minute of the band; Band is its level beneath the guitar in decibels, 0 for no band.
	Tempo  float64
	Enters float64 // seconds in which the band is still silent
	// Half steps by which the band plays in another key than C.
	Transposed float64
	Length     float64 // seconds in all
	Seed       uint64
	Voice      Voice     // who else is in the room
	Dry        []float64 // what plays the strokes, where it is not the studio's own guitar
}

// Render makes the sound, −1 to 1.
func (t Take) Render() []float64 {
	rng := rand.New(rand.NewPCG(t.Seed, 7))
	out := make([]float64, int(t.Length*float64(t.Rate)))
	copy(out, t.Dry)
	for s := 1; s <= 8 && t.Dry == nil; s++ {
		var own []Stroke
		for _, n := range t.Strokes {
			if n.String == s {
				own = append(own, n)
			}
		}
		t.pluck(out, own, rng)
	}
	switch t.Sound {
	case Jazz:
		lowpass(out, 1600, t.Rate)
		lowpass(out, 2600, t.Rate)
	case Driven:
		for i, x := range out {
			out[i] = math.Tanh(9*x) * 0.5
		}
		highpass(out, 80, t.Rate)
		lowpass(out, 4200, t.Rate)
	}
	level(out, 0.12)
	if t.Reverb {
		reverb(out, t.Rate)
	}
	if t.Voice != Nobody {
		for i, y := range t.voice(len(out), rng) {
			out[i] += y
		}
	}
	if t.Band != 0 {
		band := t.band(len(out), rng)
		level(band, 0.12*math.Pow(10, t.Band/20))
		for i := range out {
			out[i] += band[i]
		}
	}
	for i := range out {
		if t.Hum {
			at := 2 * math.Pi * float64(i) / float64(t.Rate)
			out[i] += 0.0006*math.Sin(50*at) + 0.0004*math.Sin(100*at) + 0.0003*math.Sin(150*at+1) + 0.0002*math.Sin(250*at)
		}
		out[i] += 0.0001 * rng.NormFloat64()
	}
	return out
}

// pluck plays what is played on one string.
func (t Take) pluck(out []float64, strokes []Stroke, rng *rand.Rand) {
	rate := float64(t.Rate)
	line := make([]float64, t.Rate/25)
	var pos int
	var last, dc float64
	pitch := 0.0
	for k, n := range strokes {
		begin, end := int(n.At*rate), int((n.At+n.Length)*rate)
		stop := len(out)
		if k+1 < len(strokes) {
			stop = min(stop, int(strokes[k+1].At*rate))
		}
		from := pitch
		if !n.Legato && !n.Slide {
			period := int(rate/hertz(n.MIDI) + 1)
			burst := make([]float64, period)
			soft := 0.0
			strength := 0.75 + 0.25*rng.Float64()
			for i := range burst {
				soft += 0.55 * (rng.Float64()*2 - 1 - soft)
				burst[i] = soft * strength
			}
			comb := period / 5 // struck a fifth along the string
			for i := range line {
				line[i] *= 0.08
			}
			for i := range period {
				x := burst[i]
				if i >= comb {
					x -= 0.85 * burst[i-comb]
				}
				line[(pos+len(line)-period+i)%len(line)] += x
			}
			from = n.MIDI
		}
		damp := 1.0
		for i := begin; i < stop; i++ {
			since := float64(i-begin) / rate
			pitch = n.MIDI
			switch {
			case n.Slide && since < 0.07:
				pitch = from + (n.MIDI-from)*since/0.07
			case n.Legato && since < 0.004:
				pitch = from + (n.MIDI-from)*since/0.004
			}
			if n.Bend != 0 {
				pitch += n.Bend * math.Min(1, math.Max(0, (since-0.05)/0.12))
			}
			if n.Sway != 0 && since > 0.2 {
				pitch += n.Stays*math.Min(1, (since-0.2)/0.2) + n.Sway*(1-math.Cos(2*math.Pi*n.Sways*(since-0.2)))
			}
			if i > end && !t.Ringing {
				damp = min(0.97, math.Pow(10, -3/(0.6*hertz(n.MIDI)))) // a finger stills it within 0.6 s, however long its period is
			}
			delay := rate/hertz(pitch) - 0.5
			whole := int(delay)
			part := delay - float64(whole)
			a, b := line[(pos+len(line)-whole)%len(line)], line[(pos+len(line)-whole-1+len(line))%len(line)]
			x := a + (b-a)*part
			y := (0.5*x + 0.5*last) * (0.9975 - 0.0012*math.Max(0, pitch-52)/30) * damp
			last = x
			line[pos%len(line)] = y
			pos = (pos + 1) % len(line)
			dc += 0.002 * (y - dc)
			out[i] += y - dc
		}
	}
}

func hertz(midi float64) float64 { return 440 * math.Pow(2, (midi-69)/12) }

func lowpass(x []float64, hz float64, rate int) {
	a := 1 - math.Exp(-2*math.Pi*hz/float64(rate))
	y := 0.0
	for i := range x {
		y += a * (x[i] - y)
		x[i] = y
	}
}

func highpass(x []float64, hz float64, rate int) {
	low := append([]float64(nil), x...)
	lowpass(low, hz, rate)
	for i := range x {
		x[i] -= low[i]
	}
}

// level brings what sounds to a root mean square.
func level(x []float64, rms float64) {
	sum, n := 0.0, 0
	for _, v := range x {
		if math.Abs(v) > 1e-5 {
			sum += v * v
			n++
		}
	}
	if n == 0 {
		return
	}
	by := rms / math.Sqrt(sum/float64(n))
	for i := range x {
		x[i] *= by
	}
}

// reverb is a small room after Schroeder.
func reverb(x []float64, rate int) {
	wet := make([]float64, len(x))
	for _, ms := range []float64{29.7, 37.1, 41.1, 43.7} {
		d := int(ms * float64(rate) / 1000)
		comb := make([]float64, len(x))
		for i := range x {
			comb[i] = x[i]
			if i >= d {
				comb[i] += 0.72 * comb[i-d]
			}
			wet[i] += comb[i] / 4
		}
	}
	for _, ms := range []float64{5, 1.7} {
		d := int(ms * float64(rate) / 1000)
		pass := make([]float64, len(x))
		for i := range wet {
			pass[i] = -0.7 * wet[i]
			if i >= d {
				pass[i] += wet[i-d] + 0.7*pass[i-d]
			}
		}
		wet = pass
	}
	for i := range x {
		x[i] += 0.18 * wet[i]
	}
}
