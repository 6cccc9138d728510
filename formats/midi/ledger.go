package midi

import (
	"slices"
	"strings"

	"undaris/core/say"
)

// The ledger: every message of a file is used, is known not to matter to a line with its chords,
// or is lost and told with the bar where it comes first.

// messages are what is lost, in the order in which it is told.
type message string

const (
	sustained  message = "the pedal that holds notes"
	sostenuto  message = "the pedal that holds the notes in hand"
	softened   message = "the soft pedal"
	swelled    message = "swells of a note"
	swayed     message = "vibrato by the modulation wheel"
	breathed   message = "breath control"
	glided     message = "glides by portamento"
	pressed    message = "pressure on a key"
	sung       message = "words that are sung"
	cued       message = "cue points"
	texted     message = "texts"
	rekeyed    message = "changes of key"
	controlled message = "controllers that are not known here"
	strange    message = "events that cannot be read"
)

var messages = []message{sustained, sostenuto, softened, swelled, swayed, breathed, glided, pressed, sung, cued, texted, rekeyed, controlled, strange}

// From which value on a controller does something.
const on = 64

// controllers are those whose loss is told; moves tells that only a change while a note sounds is one.
var controllers = map[byte]struct {
	lost  message
	from  byte
	moves bool
}{
	1: {swayed, 1, true}, 2: {breathed, 1, true}, 11: {swelled, 0, true},
	65: {glided, on, false}, 84: {glided, 0, false},
	64: {sustained, on, false}, 66: {sostenuto, on, false}, 67: {softened, on, false}, 69: {sustained, on, false}, 68: {glided, on, false},
}

// span is a row of controllers.
type span struct {
	why         string
	first, last byte
}

// idle are the controllers that say nothing of the notes, first and last of each kind, by the reason.
var idle = []span{
	{"which bank of sounds", 0, 0}, {"which bank of sounds", 32, 32},
	{"a value that belongs to another message", 6, 6}, {"a value that belongs to another message", 96, 101},
	{"the fine part of what has a coarse part", 33, 63},
	{"how fast another program glides", 5, 5},
	{"how loud and where another program plays", 7, 8}, {"how loud and where another program plays", 10, 10},
	{"effects of another program", 12, 13}, {"effects of another program", 91, 95},
	{"a pedal or button whose use is its owner's", 4, 4}, {"a pedal or button whose use is its owner's", 16, 19}, {"a pedal or button whose use is its owner's", 80, 83},
	{"the tone of another program's sounds", 70, 79},
	{"how notes are struck and let go, finer", 88, 88},
	{"all notes off, and modes", 120, 127},
}

// idleMeta are the meta events that say nothing of the notes, by the reason.
var idleMeta = map[byte]string{
	0x00: "the number of a pattern", 0x02: "who made it", 0x04: "which instrument plays", 0x08: "which sounds are meant", 0x09: "which device plays",
	0x20: "which channel texts are for", 0x21: "which port plays", 0x54: "when it begins in a film", 0x7F: "for one program alone",
}

// lossOf is what is lost, on which channel; −1 is none.
type lossOf struct {
	channel int
	what    message
}

// tally is how often, and at which tick first.
type tally struct {
	times, first int
	text         string
}

// lose notes that something is lost.
func (r *trackReader) lose(channel int, what message, text string) {
	key := lossOf{channel, what}
	t := r.f.lost[key]
	if t.times++; t.times == 1 || r.now < t.first {
		t.first, t.text = r.now, text
	}
	if r.f.lost == nil {
		r.f.lost = map[lossOf]tally{}
	}
	r.f.lost[key] = t
}

// control accounts for a controller.
func (r *trackReader) control(channel int, number, value byte) {
	c, known := controllers[number]
	was := r.controls[channel][number]
	r.controls[channel][number] = value
	switch {
	case known && (value < c.from || c.moves && (r.held[channel] == 0 || value == was)):
	case known:
		r.lose(channel, c.lost, "")
	case !slices.ContainsFunc(idle, func(k span) bool { return number >= k.first && number <= k.last }):
		r.lose(channel, controlled, "")
	}
}

// told is what was lost of a melody: on its channels, and in the file as a whole. bar numbers a tick.
func (f File) told(m melody, bar func(tick int) int) (said []string) {
	channels := []int{-1}
	for _, i := range m.tracks {
		channels = append(channels, f.Tracks[i].Channel)
	}
	for _, what := range messages {
		var all tally
		for _, c := range slices.Compact(slices.Sorted(slices.Values(channels))) {
			t := f.lost[lossOf{c, what}]
			if t.times > 0 && (all.times == 0 || t.first < all.first) {
				all.first, all.text = t.first, t.text
			}
			all.times += t.times
		}
		where := say.F("bar %d", max(1, bar(all.first)))
		if text := brief(all.text); text != "" {
			where += say.F(": “%s”", text)
		}
		switch {
		case all.times == 1:
			said = append(said, say.F("%s: left out, once, in %s", what, where))
		case all.times > 1:
			said = append(said, say.F("%s: left out, %d times, the first in %s", what, all.times, where))
		}
	}
	return said
}

// brief is a text as it is told.
func brief(text string) string {
	words := []rune(strings.Join(strings.Fields(strings.ToValidUTF8(text, "?")), " "))
	return string(words[:min(len(words), 40)])
}
