package life

import (
	"encoding/binary"
	"math"
	"math/rand/v2"

	"undaris/core/judge"
	"undaris/core/score"
)

// rate is how often a second the sound of a take is sampled.
const rate = 22050

// sounded is a WAV of notes as a string that is plucked sounds: noise that goes round a loop of one period's length and is
// smoothed each time (Karplus and Strong 1983).
func sounded(notes []judge.Heard, tempo int) []byte {
	tick := 60 / float64(tempo) / score.Tick
	last := 0.0
	for _, n := range notes {
		last = max(last, n.At+n.Length)
	}
	mix := make([]float64, int((last*tick+1.5)*rate))
	rng := rand.New(rand.NewPCG(3, 5))
	for _, n := range notes {
		period := rate / (440 * math.Exp2((n.Pitch-69)/12))
		loop := make([]float64, int(period))
		for i := range loop {
			loop[i] = 2*rng.Float64() - 1
		}
		from := int(math.Max(0, n.At*tick) * rate)
		length := int(math.Max(0.12, n.Length*tick) * rate)
		at, before := 0, 0.0
		for i := 0; i < length && from+i < len(mix); i++ {
			x := loop[at]
			loop[at] = 0.996 * (x + before) / 2
			before = x
			at = (at + 1) % len(loop)
			end := math.Min(1, float64(length-i)/(0.02*rate)) // it is damped, and does not click
			mix[from+i] += 0.3 * x * end
		}
	}
	out := make([]byte, 44, 44+2*len(mix))
	copy(out, "RIFF....WAVEfmt ")
	binary.LittleEndian.PutUint32(out[4:], uint32(36+2*len(mix)))
	for i, v := range []uint32{16, 1 | 1<<16, rate, 2 * rate, 2 | 16<<16} {
		binary.LittleEndian.PutUint32(out[16+4*i:], v)
	}
	copy(out[36:], "data")
	binary.LittleEndian.PutUint32(out[40:], uint32(2*len(mix)))
	for _, x := range mix {
		out = binary.LittleEndian.AppendUint16(out, uint16(int16(32767*math.Max(-1, math.Min(1, x)))))
	}
	return out
}
