package midi

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/score"
)

// during is a file of a note on C that lasts four beats, with events while it sounds, a beat after its beginning.
func during(events ...string) []byte {
	body := "\x00\x90\x3c\x50"
	first := "\x83\x60" // 480 ticks
	for _, e := range events {
		body += first + e
		first = "\x00"
	}
	if len(events) == 0 {
		body += first
	} else {
		body += "\x83\x60"
	}
	body += "\x80\x3c\x00\x00\xff\x2f\x00"
	return []byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x01\xe0MTrk" + string([]byte{0, 0, byte(len(body) >> 8), byte(len(body))}) + body)
}

func lostOf(t *testing.T, data []byte) string {
	t.Helper()
	f, err := Read(t.Context(), data)
	require.NoError(t, err)
	_, said, err := f.Line(score.Score{})
	require.NoError(t, err)
	var out []string
	for _, s := range said {
		if strings.Contains(s, "left out") {
			out = append(out, s)
		}
	}
	return strings.Join(out, "; ")
}

// Each of the 128 controllers is told where it does something, or stands in the table of those that do not matter; so many of each.
func TestEveryControllerIsAccountedFor(t *testing.T) {
	silent, told, unknown := 0, 0, 0
	for n := range byte(128) {
		said := lostOf(t, during("\xb0"+string([]byte{n, 100})))
		listed := 0
		for _, k := range idle {
			if n >= k.first && n <= k.last {
				listed++
			}
		}
		c, known := controllers[n]
		switch {
		case known:
			told++
			assert.Zero(t, listed, n)
			assert.Equal(t, string(c.lost)+": left out, once, in bar 1", said)
			if c.from > 0 {
				assert.Empty(t, lostOf(t, during("\xb0"+string([]byte{n, 0}))), n)
			}
		case listed > 0:
			silent++
			assert.Equal(t, 1, listed, n)
			assert.Empty(t, said, n)
		default:
			unknown++
			assert.Equal(t, string(controlled)+": left out, once, in bar 1", said, n)
		}
	}
	assert.Equal(t, []int{79, 10, 39}, []int{silent, told, unknown})
}

// Each of the 256 kinds of meta event is used, told, or stands in the table of those that do not matter.
func TestEveryMetaEventIsAccountedFor(t *testing.T) {
	used := map[int]string{0x03: "name", 0x06: "marker", 0x2F: "", 0x51: "\x07\xa1\x20", 0x58: "\x04\x02\x18\x08", 0x59: "\x00\x00"}
	told := map[int]message{0x01: texted, 0x05: sung, 0x07: cued}
	for kind := range 256 {
		body, isUsed := used[kind]
		if kind == 0x2F {
			continue // the end
		}
		if !isUsed {
			body = "la"
		}
		said := lostOf(t, during("\xff"+string([]byte{byte(kind), byte(len(body))})+body))
		switch what := told[kind]; {
		case what != "":
			assert.Equal(t, string(what)+": left out, once, in bar 1: “la”", said)
		case isUsed || idleMeta[byte(kind)] != "":
			assert.Empty(t, said, "%x", kind)
		default:
			assert.Equal(t, string(strange)+": left out, once, in bar 1", said, "%x", kind)
		}
	}
	for _, bad := range []string{"\xff\x51\x01\x00", "\xff\x51\x03\x00\x00\x00", "\xff\x58\x01\x04", "\xff\x58\x04\x00\x02\x18\x08", "\xff\x59\x00"} {
		assert.Contains(t, lostOf(t, during(bad)), string(strange), "%x", bad)
	}
	assert.Len(t, idleMeta, 9)
}

// What does nothing is not told: a pedal that is let go, a wheel that stands where it stood, pressure while nothing sounds; what is
// done on another channel belongs to another part; what comes again is counted, with the bar where it comes first.
func TestWhatDoesNothingIsNotTold(t *testing.T) {
	assert.Empty(t, lostOf(t, during()))
	assert.Empty(t, lostOf(t, during("\xb0\x40\x00", "\xb0\x01\x00", "\xd0\x00")))
	assert.Empty(t, lostOf(t, during("\xb1\x40\x7f")))
	assert.Equal(t, "the pedal that holds notes: left out, 2 times, the first in bar 1", lostOf(t, during("\xb0\x40\x7f", "\xb0\x40\x00", "\xb0\x40\x7f")))
	assert.Equal(t, "vibrato by the modulation wheel: left out, once, in bar 1", lostOf(t, during("\xb0\x01\x40", "\xb0\x01\x40")))
	assert.Equal(t, "pressure on a key: left out, once, in bar 1", lostOf(t, during("\xd0\x40")))
	assert.Equal(t, "pressure on a key: left out, once, in bar 1", lostOf(t, during("\xa0\x3c\x40")))
	assert.Equal(t, "changes of key: left out, once, in bar 1", lostOf(t, during("\xff\x59\x02\x00\x00", "\xff\x59\x02\x01\x00", "\xff\x59\x02\x01\x00")))
}
