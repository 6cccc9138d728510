package midi

import (
	"bytes"
	"cmp"
	"context"
	"encoding/binary"
	"errors"
	"fmt"

	"undaris/core/band"
	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/say"
)

// File is what was read.
type File struct {
	Ticks    int // to the quarter
	Title    string
	Feel     string           // an ID of [form.Feels], where a text of ours names it
	In       *neck.Instrument // where a text of ours names it
	Tempo    float64          // beats a minute, the first one given; 120 without
	Beats    int              // quarters in a bar, by the first signature given; 4 without
	Metre    string           // that signature, such as 6/8
	Odd      bool             // a bar of it is no whole number of quarters; Beats is 4 then
	Threes   bool             // all bars are of beats of three eighths, and Ticks, Tempo and Beats count those
	Metres   []Metre          // what follows and is another
	Pickup   int              // ticks before the first bar, where the file begins with a shorter one
	Tempi    int              // tempi that follow and are others
	Key      form.Key
	Keyed    bool // the file says its key
	Markers  []band.Marker
	Chords   []band.Marker // named by texts, as [Write] names them
	End      int           // the last tick of all tracks
	Tracks   []band.Track  // those with notes, or a name
	Unclosed int           // notes that were never ended; they last to the end of their track

	events, notes, bends int // met so far
	lost                 map[lossOf]tally
	keyNow               form.Key
	beats                int  // of three eighths, by the first signature
	first                int  // ticks of a bar of it
	timed                bool // a tempo was given
	chunks               int  // that have notes
}

// Limits that keep hostile files cheap.
const (
	maxEvents = 1_000_000
	maxNotes  = 60_000 // of all tracks
	maxBends  = 400    // positions of the wheel that are kept for a note
	maxWheel  = 1 << 20
	maxTracks = 1000
)

var errLong = errors.New("this MIDI file is longer than can be read")

// Read reads a Standard MIDI File of format 0 or 1.
func Read(ctx context.Context, data []byte) (File, error) {
	f := File{Tempo: 120, Beats: 4}
	if len(data) < 14 || string(data[:4]) != "MThd" || binary.BigEndian.Uint32(data[4:]) < 6 {
		return f, errors.New("this is no MIDI file: its head is missing")
	}
	format, division := binary.BigEndian.Uint16(data[8:]), binary.BigEndian.Uint16(data[12:])
	switch {
	case format > 1:
		return f, say.Errorf("a MIDI file of format %d; formats 0 and 1 can be read", format)
	case division&0x8000 != 0 || division == 0:
		return f, errors.New("this MIDI file counts film frames; only beats can be read")
	}
	f.Ticks = int(division)
	rest := data[8+min(int(binary.BigEndian.Uint32(data[4:])), len(data)-8):]
	for len(rest) >= 8 {
		size := int(binary.BigEndian.Uint32(rest[4:]))
		if size > len(rest)-8 {
			return f, say.Errorf("track %d ends early; the file is cut off", len(f.Tracks)+1)
		}
		if string(rest[:4]) == "MTrk" {
			if len(f.Tracks) > maxTracks {
				return f, errLong
			}
			r := trackReader{ctx: ctx, data: rest[8 : 8+size], f: &f, sounding: map[[2]int]begun{}, byChannel: map[int]*band.Track{}}
			if err := r.read(); err != nil {
				return f, err
			}
		}
		rest = rest[8+size:]
	}
	f.leads()
	f.inThrees()
	return f, nil
}

// trackReader walks the events of one track.
type trackReader struct {
	ctx       context.Context
	data      []byte
	f         *File
	now       int
	status    byte
	name      string
	order     []int
	byChannel map[int]*band.Track
	sounding  map[[2]int]begun // by channel and pitch
	turns     [16][]turn       // of a channel's wheel, while a note sounds on it
	held      [16]int          // how many do
	wheel     [16]int          // cents that a channel is pushed
	span      [16]int          // half steps of its wheel; 0 is the usual 2
	controls  [16][128]byte    // where a channel's controllers stand
	parameter [16][2]byte      // the registered parameter that data goes to, high and low, from 1; 0 is none
}

// begun is a note that sounds, with the turns of the wheel before it.
type begun struct {
	band.Note
	from int
}

// turn is a place of the wheel at a tick.
type turn struct{ at, cents int }

var errCut = errors.New("an event is cut off; the file is damaged")

func (r *trackReader) read() error {
	for len(r.data) > 0 {
		delta, err := r.number()
		if err != nil {
			return err
		}
		r.now += delta
		if r.f.events++; r.f.events > maxEvents || r.now > 1<<30 {
			return errLong
		}
		if r.f.events%4096 == 0 && r.ctx.Err() != nil {
			return r.ctx.Err()
		}
		if done, err := r.event(); err != nil || done {
			r.close()
			return err
		}
	}
	r.close()
	return nil
}

// number reads a variable-length number of at most four bytes.
func (r *trackReader) number() (int, error) {
	n := 0
	for i := range 4 {
		if i >= len(r.data) {
			return 0, errCut
		}
		n = n<<7 | int(r.data[i]&0x7F)
		if r.data[i]&0x80 == 0 {
			r.data = r.data[i+1:]
			return n, nil
		}
	}
	return 0, errCut
}

func (r *trackReader) event() (end bool, err error) {
	if len(r.data) == 0 {
		return false, errCut
	}
	status := r.status
	if r.data[0]&0x80 != 0 {
		status, r.data = r.data[0], r.data[1:]
	}
	switch {
	case status < 0x80:
		return false, errors.New("an event has no status; the file is damaged")
	case status == 0xFF:
		return r.metaEvent()
	case status >= 0xF0: // system messages carry their length
		_, err := r.bytes()
		return false, err
	}
	r.status = status
	size := 2
	if kind := status & 0xF0; kind == 0xC0 || kind == 0xD0 {
		size = 1
	}
	if len(r.data) < size {
		return false, errCut
	}
	err = r.message(status, r.data[:size])
	r.data = r.data[size:]
	return false, err
}

func (r *trackReader) bytes() ([]byte, error) {
	n, err := r.number()
	if err != nil || n > len(r.data) {
		return nil, errCut
	}
	data := r.data[:n]
	r.data = r.data[n:]
	return data, nil
}

func (r *trackReader) metaEvent() (end bool, err error) {
	if len(r.data) == 0 {
		return false, errCut
	}
	kind := r.data[0]
	r.data = r.data[1:]
	data, err := r.bytes()
	if err != nil {
		return false, err
	}
	switch {
	case kind == 0x2F:
		return true, nil
	case kind == 0x03:
		r.name = string(data)
		if r.f.Title == "" {
			r.f.Title = r.name
		}
	case kind == 0x01 && bytes.HasPrefix(data, []byte(feelMark)):
		if feel, ok := form.FeelNamed(string(data[len(feelMark):])); ok {
			r.f.Feel = feel.ID
		}
	case kind == 0x01 && bytes.HasPrefix(data, []byte(neckMark)):
		r.f.In = neckOf(string(data[len(neckMark):]))
	case kind == 0x01 && bytes.HasPrefix(data, []byte(chordMark)):
		if len(r.f.Chords) > form.MaxChanges {
			return false, errLong
		}
		r.f.Chords = append(r.f.Chords, band.Marker{At: r.now, Name: string(data[len(chordMark):])})
	case kind == 0x06:
		if len(r.f.Markers) > 10_000 {
			return false, errLong
		}
		r.f.Markers = append(r.f.Markers, band.Marker{At: r.now, Name: string(data)})
	case kind == 0x51 && len(data) == 3:
		if micros := int(data[0])<<16 | int(data[1])<<8 | int(data[2]); micros > 0 {
			r.f.tempo(60_000_000 / float64(micros))
		} else {
			r.lose(-1, strange, "")
		}
	case kind == 0x59 && len(data) >= 2:
		key, ok := form.KeyOf(int(int8(data[0])), data[1] == 1)
		switch {
		case !ok:
			r.lose(-1, strange, "")
		case !r.f.Keyed:
			r.f.Key, r.f.Keyed = key, true
		case key != r.f.keyNow:
			r.lose(-1, rekeyed, "")
		}
		r.f.keyNow = key
	case kind == 0x58 && len(data) >= 2 && data[0] > 0 && data[1] <= 6:
		r.f.metre(r.now, int(data[0]), 1<<data[1])
	case kind == 0x01:
		r.lose(-1, texted, string(data))
	case kind == 0x05:
		r.lose(-1, sung, string(data))
	case kind == 0x07:
		r.lose(-1, cued, string(data))
	case idleMeta[kind] == "":
		r.lose(-1, strange, "")
	}
	return false, nil
}

// track is the part of a channel within this track.
func (r *trackReader) track(channel int) *band.Track {
	t, met := r.byChannel[channel]
	if !met {
		t = &band.Track{Name: r.name, Channel: channel}
		r.byChannel[channel] = t
		r.order = append(r.order, channel)
	}
	return t
}

func (r *trackReader) message(status byte, data []byte) error {
	channel := int(status & 0x0F)
	switch status & 0xF0 {
	case 0xC0:
		r.track(channel).Program = int(data[0] & 0x7F)
	case 0xA0, 0xD0:
		if r.held[channel] > 0 && data[len(data)-1] > 0 {
			r.lose(channel, pressed, "")
		}
	case 0xB0:
		r.control(channel, data[0]&0x7F, data[1]&0x7F)
		switch data[0] & 0x7F {
		case 100, 101: // in either order; only the wheel's range is of interest: parameter 0 of 0
			r.parameter[channel][101-int(data[0]&0x7F)] = data[1]&0x7F + 1
		case 98, 99: // a parameter that is not registered
			r.parameter[channel] = [2]byte{}
		case 6:
			if r.parameter[channel] == [2]byte{1, 1} {
				r.span[channel] = int(data[1] & 0x7F)
			}
		}
	case 0xE0:
		span := cmp.Or(r.span[channel], 2)
		r.wheel[channel] = (int(data[1]&0x7F)<<7 | int(data[0]&0x7F) - 8192) * span * 100 / 8192
		if r.held[channel] > 0 {
			if r.f.bends++; r.f.bends > maxWheel {
				return errLong
			}
			r.turns[channel] = append(r.turns[channel], turn{r.now, r.wheel[channel]})
		}
	case 0x90, 0x80:
		key := [2]int{channel, int(data[0] & 0x7F)}
		if n, sounding := r.sounding[key]; sounding {
			r.end(channel, n)
			delete(r.sounding, key)
		}
		if status&0xF0 == 0x90 && data[1]&0x7F > 0 {
			if r.f.notes++; r.f.notes > maxNotes {
				return say.Errorf("this MIDI file has more than the %d notes that can be read", maxNotes)
			}
			n := begun{band.Note{Start: r.now, MIDI: key[1], Velocity: int(data[1] & 0x7F)}, len(r.turns[channel])}
			if r.wheel[channel] != 0 {
				n.Bends = []band.Bend{{Cents: r.wheel[channel]}}
			}
			r.sounding[key] = n
			r.held[channel]++
		}
	}
	return nil
}

// end gives a note its length and the turns of the wheel while it sounded.
func (r *trackReader) end(channel int, n begun) {
	n.Length = r.now - n.Start
	turns := r.turns[channel][n.from:]
	room := min(len(turns), maxBends-len(n.Bends), max(0, maxWheel-r.f.bends))
	for _, t := range turns[:room] {
		n.Bends = append(n.Bends, band.Bend{At: t.at - n.Start, Cents: t.cents})
	}
	r.f.bends += room
	r.track(channel).Notes = append(r.track(channel).Notes, n.Note)
	if r.held[channel]--; r.held[channel] == 0 {
		r.turns[channel] = r.turns[channel][:0]
	}
}

// close ends what still sounds and hands the parts over.
func (r *trackReader) close() {
	r.f.End = max(r.f.End, r.now)
	for key, n := range r.sounding {
		r.end(key[0], n)
		r.f.Unclosed++
	}
	if len(r.order) > 0 {
		r.f.chunks++
	}
	for _, channel := range r.order {
		r.f.Tracks = append(r.f.Tracks, *r.byChannel[channel])
	}
}

// neckOf is the instrument that a text of ours names; nil where it is none.
func neckOf(text string) *neck.Instrument {
	var tuning string
	var capo, frets int
	if n, err := fmt.Sscanf(text, "%s capo %d frets %d", &tuning, &capo, &frets); n != 3 || err != nil {
		return nil
	}
	like, err := neck.Tuned(tuning, 0)
	if err != nil {
		return nil
	}
	in, err := neck.New(tuning, frets, like.Scale, capo)
	if err != nil {
		return nil
	}
	return in
}
