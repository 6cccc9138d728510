package chart

import (
	"undaris/core/arpeggio"
	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
)

// Layer is what a map of the neck can show over a chord.
type Layer struct {
	ID, Name string
	at       func(c Chart, chord harmony.Chord, class int) (name pitch.Name, d harmony.Degree, ok bool)
}

// Layers lists them. Every layer holds what its name says on every string and fret, and nothing else.
var Layers = []Layer{
	{"tones", "chord tones", func(_ Chart, chord harmony.Chord, class int) (pitch.Name, harmony.Degree, bool) {
		t, ok := chord.ToneAt(class)
		return t.Name, t.Degree, ok
	}},
	{"scale", "the chord’s scale", func(_ Chart, chord harmony.Chord, class int) (pitch.Name, harmony.Degree, bool) {
		for _, t := range chord.Scale() {
			if t.Name.Class() == class {
				return t.Name, t.Degree, true
			}
		}
		return pitch.Name{}, "", false
	}},
	{"key", "the key’s scale", func(c Chart, chord harmony.Chord, class int) (pitch.Name, harmony.Degree, bool) {
		for _, n := range c.Key.Scale() {
			if n.Class() == class {
				return n, blend.Sounds(chord)[chord.Above(class)].Degree, true
			}
		}
		return pitch.Name{}, "", false
	}},
	{"names", "every note", func(c Chart, chord harmony.Chord, class int) (pitch.Name, harmony.Degree, bool) {
		name := c.Key.Spell(class)
		if t, ok := chord.ToneAt(class); ok {
			name = t.Name
		}
		return name, blend.Sounds(chord)[chord.Above(class)].Degree, true
	}},
}

// Layer lists, for each of the chart's chords in the order of its map, the places of a layer on the whole neck. It is an error when
// there is no such layer.
func (c Chart) Layer(id string) (all [][]arpeggio.Note, err error) {
	for _, l := range Layers {
		if l.ID != id {
			continue
		}
		chords, _ := form.Different(c.Solo.Places())
		for _, chord := range chords {
			list := []arpeggio.Note{}
			for s := 1; s <= c.In.Strings() && !chord.None; s++ {
				for f := 0; f <= c.In.Last(); f++ {
					at := neck.Placement{String: s, Fret: f}
					midi := c.In.MIDI(at)
					if name, d, ok := l.at(c, chord, midi%12); ok {
						list = append(list, arpeggio.Note{Placement: at, Pitch: pitch.At(midi, name), Degree: d})
					}
				}
			}
			all = append(all, list)
		}
		return all, nil
	}
	return nil, say.Errorf("there is no map of %q", id)
}
