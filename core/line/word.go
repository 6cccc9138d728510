package line

import (
	"slices"

	"undaris/core/say"
)

// Spice is how much a line has of each way of playing, 0 to 10: 0 is none, 5 is what a
// player of the style does, 10 is as often as it can be borne.
type Spice struct {
	Bends       int // half and whole to a chord tone or a blue note, and curls
	Slides      int // scoops into a note from below, slides from note to note
	Legato      int // hammer-ons and pull-offs inside a position
	Repeats     int // the same note again
	DoubleStops int // a second chord tone under a note that is held
	Blue        int // ♭3, 4 and ♭5 on a strong beat, resolved within the beat
	Pushes      int // a change that is met an eighth before it
	Rests       int // silence
	Height      int // the line climbs to a high point about two thirds through
	Offbeat     int // phrases that begin elsewhere than on beat 1
	Octaves     int // phrases in octaves
}

// MostSpice is the most of each.
const MostSpice = 10

// Taste is one of the spices by its name, for sliders and for messages.
type Taste struct {
	ID, Name, About string
	of              func(*Spice) *int
}

// Tastes lists the spices.
var Tastes = []Taste{
	{"bends", "bends", "half and whole steps up to a chord tone or a blue note; curls", func(s *Spice) *int { return &s.Bends }},
	{"slides", "slides", "scoops into a note from below", func(s *Spice) *int { return &s.Slides }},
	{"legato", "hammer-ons and pull-offs", "a step on one string that is not picked", func(s *Spice) *int { return &s.Legato }},
	{"repeats", "repeated notes", "the same note again", func(s *Spice) *int { return &s.Repeats }},
	{"doubleStops", "double stops", "a second chord tone under a held note", func(s *Spice) *int { return &s.DoubleStops }},
	{"blue", "blue notes on the beat", "♭3, 4 or ♭5 on a strong beat, resolved within it", func(s *Spice) *int { return &s.Blue }},
	{"pushes", "pushes", "a change met an eighth early", func(s *Spice) *int { return &s.Pushes }},
	{"rests", "silence", "bars that breathe", func(s *Spice) *int { return &s.Rests }},
	{"height", "a high point", "most lines climb to their highest in the last third; some begin high and fall", func(s *Spice) *int { return &s.Height }},
	{"octaves", "octaves", "a phrase with the octave under it, and back", func(s *Spice) *int { return &s.Octaves }},
	{"offbeat", "beginning off the beat", "phrases begin on 2, on 4 or between the beats", func(s *Spice) *int { return &s.Offbeat }},
}

// TasteByID finds a spice by its name.
func TasteByID(id string) (Taste, bool) {
	i := slices.IndexFunc(Tastes, func(t Taste) bool { return t.ID == id })
	if i < 0 {
		return Taste{}, false
	}
	return Tastes[i], true
}

// Of is how much of a taste there is.
func (t Taste) Of(s Spice) int { return *t.of(&s) }

// Set sets it.
func (t Taste) Set(s *Spice, n int) { *t.of(s) = n }

// Word is a style in one word: what it sets, in a sentence.
type Word struct {
	Option
	Spice      Spice
	Density    int
	Phrasing   string
	ChordTones bool
}

// Words lists the styles, the plain one first.
var Words = []Word{
	{Option{"plain", "plain", "picked notes, every strong beat a chord tone; nothing is bent"}, Spice{}, 3, "free", false},
	{Option{"chord-tones", "chord tones", "chord tones and nothing else, for the ear and the fingers to know them"}, Spice{Legato: 2, Height: 3, Offbeat: 4}, 3, "free", true},
	{Option{"box-blues", "box blues", "a box and its bends: calls and answers, blue notes that resolve, a high point, room to breathe"},
		Spice{Bends: 4, Slides: 5, Legato: 6, Repeats: 4, DoubleStops: 2, Blue: 5, Pushes: 4, Rests: 4, Height: 6, Offbeat: 7}, 3, "call", false},
	{Option{"jazz-blues", "jazz blues", "longer lines that lead into the changes, slid and slurred more than bent"},
		Spice{Bends: 1, Slides: 6, Legato: 7, Repeats: 3, Blue: 3, Pushes: 8, Rests: 3, Height: 5, Offbeat: 7}, 4, "call", false},
	{Option{"rock", "rock", "whole-step bends, repeated notes and double stops, high on the neck"},
		Spice{Bends: 4, Slides: 5, Legato: 6, Repeats: 5, DoubleStops: 5, Blue: 4, Pushes: 3, Rests: 3, Height: 8, Offbeat: 7}, 3, "call", false},
	{Option{"slow-and-few", "slow and few", "few notes, each bent, slid into or left to ring"},
		Spice{Bends: 3, Slides: 6, Legato: 10, Repeats: 4, DoubleStops: 3, Blue: 4, Pushes: 4, Rests: 8, Height: 6, Offbeat: 7}, 2, "call", false},
}

// fitting are the words that fit a feel best.
var fitting = map[string]string{"shuffle": "box-blues", "slow-12-8": "slow-and-few", "straight": "rock", "funk": "rock", "rumba": "box-blues", "jazz": "jazz-blues", "ballad": "slow-and-few"}

// WordFor is the word that fits a feel; the plain one where none does.
func WordFor(feel string) string {
	if id, ok := fitting[feel]; ok {
		return id
	}
	return Words[0].ID
}

// WordByID finds a word; the plain one by no name.
func WordByID(id string) (Word, error) {
	if id == "" {
		return Words[0], nil
	}
	i := slices.IndexFunc(Words, func(w Word) bool { return w.ID == id })
	if i < 0 {
		return Word{}, say.Errorf("there is no word %q for a line", id)
	}
	return Words[i], nil
}

// check says which spice is too much.
func (s Spice) check() error {
	for _, t := range Tastes {
		if n := t.Of(s); n < 0 || n > MostSpice {
			return say.Errorf("%s: %d; it goes from 0 to %d", t.Name, n, MostSpice)
		}
	}
	return nil
}

// part is a spice as a part of the most, 0 to 1.
func part(n int) float64 { return float64(n) / MostSpice }
