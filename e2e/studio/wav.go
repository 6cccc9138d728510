package studio

import (
	"bytes"
	"encoding/binary"
	"math"
)

// WAV writes sound with 16 bits and one channel.
func WAV(x []float64, rate int) []byte {
	var b bytes.Buffer
	n := uint32(2 * len(x))
	b.WriteString("RIFF")
	for _, v := range []any{36 + n, []byte("WAVEfmt "), uint32(16), uint16(1), uint16(1), uint32(rate), uint32(2 * rate), uint16(2), uint16(16), []byte("data"), n} {
		_ = binary.Write(&b, binary.LittleEndian, v) // a buffer takes everything
	}
	out := make([]byte, 0, n)
	for _, v := range x {
		out = binary.LittleEndian.AppendUint16(out, uint16(int16(math.Max(-1, math.Min(1, v))*32767)))
	}
	b.Write(out)
	return b.Bytes()
}
