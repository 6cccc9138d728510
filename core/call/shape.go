package call

import (
	"math/rand/v2"
	"slices"

	"undaris/core/approach"
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

// Device is what leads into the first tone: an ID of [approach.Ways], or plain.
type Device struct{ ID, Name string }

// Devices lists them.
var Devices = devices()

func devices() []Device {
	list := []Device{{"plain", "plainly"}}
	for _, w := range approach.Ways {
		list = append(list, Device{w.ID, w.Says()})
	}
	return list
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
	if c.Leans {
		text += say.F(", and on to the %s", c.Notes[len(c.Notes)-1].Tone.Degree.Printed())
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
	way, _ := approach.ByID(d.ID)
	for _, midi := range way.To(to.MIDI, c.Chord) {
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
	if slices.Contains(w.Ends, harmony.Extension) && c.Notes[len(c.Notes)-1].Tone.Degree.Role() != harmony.Extension {
		to, ok := w.leaning(c)
		if !ok {
			return c, false
		}
		c.Notes, c.Leans = append(c.Notes, to), true
	}
	lead, ok := w.lead(c, c.Notes[0], device)
	c.Notes, c.Lead = append(lead, c.Notes...), len(lead)
	return c, ok && w.ends(c)
}

// leaning is the 9, 11 or 13 nearest to the last tone that the chord bears as a colour.
func (w Wish) leaning(c Call) (best Note, ok bool) {
	last := c.Notes[len(c.Notes)-1].MIDI
	for above, sound := range blend.Sounds(c.Chord) {
		if sound.Class != blend.Colour || sound.Degree.Role() != harmony.Extension {
			continue
		}
		for midi := last - 11; midi < last+12; midi++ {
			if midi <= 0 || c.Chord.Above(midi) != above {
				continue
			}
			places := w.within(c, midi)
			if len(places) > 0 && (!ok || size(midi-last) < size(best.MIDI-last)) {
				tone, _ := sound.Degree.Interval()
				best, ok = Note{Tone: harmony.Tone{Degree: sound.Degree, Interval: tone, Name: c.Chord.Root.Up(tone).Simpler()}, MIDI: midi, Places: places}, true
			}
		}
	}
	return best, ok
}

func size(n int) int { return max(n, -n) }

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
