package call

import (
	"math/rand/v2"
	"slices"

	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
)

// Order is the order in which a chord's tones are asked for.
type Order struct {
	ID, Name string
	at       []int // of the tones that follow the start
}

// Orders lists them.
var Orders = []Order{
	{"row", "in a row", []int{0, 1, 2, 3}},
	{"skips", "by skips", []int{0, 2, 1, 3}},
	{"back", "there and back", []int{0, 1, 2, 1}},
}

// Device is what leads into the first tone.
type Device struct {
	ID, Name string
	from     []step
}

// step is a note beside the first tone: half steps off, or the next note of the
// chord's scale above it.
type step struct {
	by         int
	scaleAbove bool
}

// Devices lists them.
var Devices = []Device{
	{"plain", "plainly", nil},
	{"below", "from a half step below", []step{{by: -1}}},
	{"above", "from the scale's note above", []step{{scaleAbove: true}}},
	{"enclosed", "enclosed from above and below", []step{{scaleAbove: true}, {by: -1}}},
}

// Pace is how close the tones follow each other when they are played.
type Pace struct {
	ID, Name string
	perBeat  float64 // 0 leaves it to the player
}

// Paces lists them.
var Paces = []Pace{
	{"free", "in your own time", 0},
	{"quarters", "in quarters", 1},
	{"eighths", "in even eighths", 2},
	{"triplets", "in triplets", 3},
}

// slack is the part of a gap between two tones that it may be longer or shorter.
const slack = 0.3

// Gap is how many milliseconds lie between two tones at a tempo, and how far off it
// may be; 0 where the time is the player's own.
func (c Call) Gap() (ms, give float64) {
	i := slices.IndexFunc(Paces, func(p Pace) bool { return p.ID == c.Pace })
	if i < 0 || Paces[i].perBeat == 0 || c.Tempo == 0 {
		return 0, 0
	}
	ms = 60000 / float64(c.Tempo) / Paces[i].perBeat
	return ms, max(60, slack*ms)
}

// how tells order, device and pace in words; nothing of what is usual.
func (c Call) how() (text string) {
	if c.Order != "" && c.Order != Orders[0].ID {
		text += ", " + name(Orders, c.Order, func(o Order) (string, string) { return o.ID, o.Name })
	}
	if c.Device != "" && c.Device != Devices[0].ID {
		text += ", " + name(Devices, c.Device, func(d Device) (string, string) { return d.ID, d.Name })
	}
	if ms, _ := c.Gap(); ms > 0 {
		text += say.F(", %s at %d", name(Paces, c.Pace, func(p Pace) (string, string) { return p.ID, p.Name }), c.Tempo)
	}
	return text
}

func name[T any](list []T, id string, of func(T) (id, name string)) string {
	for _, x := range list {
		if own, name := of(x); own == id {
			return name
		}
	}
	return ""
}

// lead finds the notes that lead into a tone; ok is false where one has no place.
func (w Wish) lead(c Call, to Note, d Device) (notes []Note, ok bool) {
	sounds := blend.Sounds(c.Chord)
	for _, s := range d.from {
		midi := to.MIDI + s.by
		if s.scaleAbove {
			midi = above(c.Chord, to.MIDI)
		}
		sound := sounds[c.Chord.Above(midi)]
		n := Note{Tone: harmony.Tone{Degree: sound.Degree, Name: c.Key.Spell(midi % 12)}, MIDI: midi}
		if tone, is := c.Chord.ToneAt(midi % 12); is {
			n.Tone = tone
		}
		if n.Places = w.within(c, midi); len(n.Places) == 0 {
			return nil, false
		}
		notes = append(notes, n)
	}
	return notes, true
}

// above is the next note of a chord's scale above a pitch.
func above(c harmony.Chord, midi int) int {
	for up := 1; up <= 4; up++ {
		if slices.ContainsFunc(c.Scale(), func(t harmony.Tone) bool { return t.Name.Class() == (midi+up)%12 }) {
			return midi + up
		}
	}
	return midi + 2
}

// within lists the places of a pitch in a call's region.
func (w Wish) within(c Call, midi int) []neck.Placement { return w.In.Find(midi, c.Region) }

// shaped puts the tones of a run into an order, with what leads into the first, and
// tells whether they end where it is wished.
func (w Wish) shaped(rng *rand.Rand, c Call, run []Note) (Call, bool) {
	order, device := one(rng, allowed(Orders, w.Orders, func(o Order) string { return o.ID })), one(rng, allowed(Devices, w.Devices, func(d Device) string { return d.ID }))
	c.Order, c.Device = order.ID, device.ID
	for _, i := range order.at {
		c.Notes = append(c.Notes, run[i])
	}
	lead, ok := w.lead(c, c.Notes[0], device)
	c.Notes, c.Lead = append(lead, c.Notes...), len(lead)
	return c, ok && w.ends(c)
}

// ends tells that the last tone is one that is wished for.
func (w Wish) ends(c Call) bool {
	return len(w.Ends) == 0 || slices.Contains(w.Ends, c.Notes[len(c.Notes)-1].Tone.Degree.Role())
}

// allowed are the entries of a table that are wished for; the first alone where
// nothing is said.
func allowed[T any](list []T, ids []string, of func(T) string) (out []T) {
	for _, x := range list {
		if slices.Contains(ids, of(x)) {
			out = append(out, x)
		}
	}
	if len(out) == 0 {
		return list[:1]
	}
	return out
}
