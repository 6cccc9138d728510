package formats

import (
	"bytes"
	"unicode/utf16"
	"unicode/utf8"
)

// Decoded is a text as UTF-8: from UTF-16 where it begins with its mark, and where it is no UTF-8
// from Latin-1.
func Decoded(data []byte) []byte { return lined(decoded(data)) }

// lined ends lines in one way.
func lined(data []byte) []byte {
	if !bytes.ContainsRune(data, '\r') {
		return data
	}
	return bytes.ReplaceAll(bytes.ReplaceAll(data, []byte("\r\n"), []byte("\n")), []byte("\r"), []byte("\n"))
}

func decoded(data []byte) []byte {
	switch {
	case bytes.HasPrefix(data, []byte{0xEF, 0xBB, 0xBF}):
		return data[3:]
	case bytes.HasPrefix(data, []byte{0xFF, 0xFE}), bytes.HasPrefix(data, []byte{0xFE, 0xFF}):
		low := 0
		if data[0] == 0xFE {
			low = 1
		}
		units := make([]uint16, 0, len(data)/2)
		for i := 2; i+1 < len(data); i += 2 {
			units = append(units, uint16(data[i+low])|uint16(data[i+1-low])<<8)
		}
		return []byte(string(utf16.Decode(units)))
	case !utf8.Valid(data):
		out := make([]rune, len(data))
		for i, b := range data {
			out[i] = rune(b)
		}
		return []byte(string(out))
	}
	return data
}
