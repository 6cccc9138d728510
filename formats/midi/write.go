package midi

import (
	"bytes"
	"cmp"
	"encoding/binary"
	"fmt"
	"slices"

	"undaris/core/band"
	"undaris/core/form"
	"undaris/core/neck"
)

// event is a message at a tick. Ends come before beginnings at the same tick.
type event struct {
	at    int
	order int
	data  []byte
}

// chordMark begins a text that names the chord from there on. Files have no event for chords.
const (
	chordMark = "chord "
	feelMark  = "feel "
	neckMark  = "neck "
)

// Head is what a file says of itself before its tracks.
type Head struct {
	Title string
	Tempo int // beats a minute; a beat is a quarter note
	Key   form.Key
	Feel  string           // an ID of [form.Feels]; "" is not told
	In    *neck.Instrument // that the lead is written for; nil is not told
}

// Write turns a performance into a Standard MIDI File.
func Write(p band.Performance, h Head) []byte {
	var out bytes.Buffer
	out.WriteString("MThd")
	for _, v := range []any{uint32(6), uint16(1), uint16(1 + len(p.Tracks)), uint16(band.Tick)} {
		binary.Write(&out, binary.BigEndian, v)
	}
	micros := 60_000_000 / h.Tempo
	minor := byte(0)
	if h.Key.Minor {
		minor = 1
	}
	head := []event{
		{0, 0, meta(0x03, []byte(h.Title))},
		{0, 1, meta(0x51, []byte{byte(micros >> 16), byte(micros >> 8), byte(micros)})},
	}
	for _, m := range p.Metres {
		head = append(head, event{m.At, 1, meta(0x58, []byte{byte(m.Beats), 2, 24, 8})})
	}
	head = append(head, event{0, 1, meta(0x59, []byte{byte(int8(h.Key.Signature())), minor})})
	for _, m := range p.Markers {
		head = append(head, event{m.At, 2, meta(0x06, []byte(m.Name))})
	}
	if h.Feel != "" {
		head = append(head, event{0, 2, meta(0x01, []byte(feelMark+h.Feel))})
	}
	if h.In != nil {
		head = append(head, event{0, 2, meta(0x01, fmt.Appendf(nil, neckMark+"%s capo %d frets %d", h.In.Tuning(), h.In.Capo, h.In.Frets))})
	}
	for _, c := range p.Chords {
		head = append(head, event{c.At, 2, meta(0x01, []byte(chordMark+c.Name))})
	}
	writeTrack(&out, head, p.Ticks)
	for _, t := range p.Tracks {
		events := []event{{0, 0, meta(0x03, []byte(t.Name))}}
		if t.Channel != 9 {
			events = append(events, event{0, 1, []byte{0xC0 | byte(t.Channel), byte(t.Program)}})
		}
		bent := slices.ContainsFunc(t.Notes, func(n band.Note) bool { return len(n.Bends) > 0 })
		if bent {
			events = append(events, bendRange(t.Channel)...)
		}
		for _, n := range once(t.Notes) {
			if bent {
				events = append(events, wheel(t.Channel, n)...)
			}
			events = append(events,
				event{n.Start, 5, []byte{0x90 | byte(t.Channel), byte(n.MIDI), byte(n.Velocity)}},
				event{n.Start + n.Length, 3, []byte{0x80 | byte(t.Channel), byte(n.MIDI), 64}})
		}
		if bent { // what comes next on this channel is in tune
			events = append(events, rest(t.Channel, p.Ticks))
		}
		writeTrack(&out, events, p.Ticks)
	}
	return out.Bytes()
}

// bendRange sets the wheel of a channel to an octave either way: registered
// parameter 0 of the MIDI specification.
func bendRange(channel int) (out []event) {
	for _, c := range [][2]byte{{101, 0}, {100, 0}, {6, band.MaxCents / 100}, {38, 0}} {
		out = append(out, event{0, 1, []byte{0xB0 | byte(channel), c[0], c[1]}})
	}
	return out
}

// wheel turns a note's bends into positions of the wheel. It is set anew at the
// start of each note, and not at an end, where the string still rings.
func wheel(channel int, n band.Note) (out []event) {
	to := func(at, cents int) {
		v := min(16383, max(0, 8192+cents*8192/band.MaxCents))
		out = append(out, event{at, 4, []byte{0xE0 | byte(channel), byte(v & 0x7F), byte(v >> 7)}})
	}
	if len(n.Bends) == 0 || n.Bends[0].At > 0 {
		to(n.Start, 0)
	}
	for _, b := range n.Bends {
		to(n.Start+min(b.At, n.Length-1), b.Cents)
	}
	return out
}

// rest has the wheel of a channel at its middle from a tick on.
func rest(channel, at int) event {
	return event{at, 4, []byte{0xE0 | byte(channel), 0, 64}}
}

// once shortens a note that would still sound when its own pitch is struck again.
func once(notes []band.Note) []band.Note {
	out := slices.Clone(notes)
	slices.SortStableFunc(out, func(a, b band.Note) int { return a.Start - b.Start })
	last := map[int]int{}
	kept := out[:0]
	for _, n := range out {
		if i, sounding := last[n.MIDI]; sounding && kept[i].Start+kept[i].Length > n.Start {
			if kept[i].Start == n.Start {
				continue
			}
			kept[i].Length = n.Start - kept[i].Start
		}
		last[n.MIDI] = len(kept)
		kept = append(kept, n)
	}
	return kept
}

func meta(kind byte, data []byte) []byte {
	return append(append([]byte{0xFF, kind}, varint(len(data))...), data...)
}

func writeTrack(out *bytes.Buffer, events []event, end int) {
	slices.SortStableFunc(events, func(a, b event) int { return cmp.Or(a.at-b.at, a.order-b.order) })
	var body []byte
	now := 0
	for _, e := range append(events, event{max(end, events[len(events)-1].at), 9, meta(0x2F, nil)}) {
		body = append(append(body, varint(e.at-now)...), e.data...)
		now = e.at
	}
	out.WriteString("MTrk")
	binary.Write(out, binary.BigEndian, uint32(len(body)))
	out.Write(body)
}

// varint is MIDI's variable-length number, seven bits to the byte.
func varint(n int) []byte {
	out := []byte{byte(n & 0x7F)}
	for n >>= 7; n > 0; n >>= 7 {
		out = append([]byte{byte(n&0x7F) | 0x80}, out...)
	}
	return out
}
