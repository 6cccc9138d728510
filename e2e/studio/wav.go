package studio

import (
	"bytes"
	"encoding/binary"
	"math"
)

// WAV writes sound with 16 bits and one channel.
func WAV(x []float64, rate int) []byte { return Sides(rate, x) }

// Sides writes as many sides as a WAV file of 16 bits a sample; all are as long as the first.
func Sides(rate int, sides ...[]float64) []byte {
	var b bytes.Buffer
	k := uint16(len(sides))
	n := 2 * uint32(k) * uint32(len(sides[0]))
	b.WriteString("RIFF")
	for _, v := range []any{36 + n, []byte("WAVEfmt "), uint32(16), uint16(1), k, uint32(rate), 2 * uint32(k) * uint32(rate), 2 * k, uint16(16), []byte("data"), n} {
		_ = binary.Write(&b, binary.LittleEndian, v) // a buffer takes everything
	}
	out := make([]byte, 0, n)
	for i := range sides[0] {
		for _, side := range sides {
			out = binary.LittleEndian.AppendUint16(out, uint16(int16(math.Max(-1, math.Min(1, side[i]))*32767)))
		}
	}
	b.Write(out)
	return b.Bytes()
}
