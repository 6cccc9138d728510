package chart

import (
	"undaris/core/arpeggio"
	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// Other is the arpeggio of another chord in a region; the degrees of its notes are those
// over the chord that sounds.
type Other struct {
	blend.Other
	Run    arpeggio.Run
	Octave []arpeggio.Note // of the run, from its lowest root to the next
}

// Others lays the arpeggios that can be played over a chord in a region; see [blend.Others].
func Others(in *neck.Instrument, hand neck.Hand, key form.Key, over harmony.Chord, r neck.Region) (list []Other) {
	for _, o := range blend.Others(key, over) {
		run := arpeggio.Make(in, o.Chord, r, hand, nil)
		octave := named(run.Octave(), over)
		run.Notes = named(run.Notes, over)
		list = append(list, Other{o, run, octave})
	}
	return list
}

// named names notes by their degrees over a chord.
func named(notes []arpeggio.Note, chord harmony.Chord) []arpeggio.Note {
	sounds := blend.Sounds(chord)
	out := make([]arpeggio.Note, len(notes))
	for i, n := range notes {
		n.Degree = sounds[chord.Above(n.Pitch.MIDI())].Degree
		out[i] = n
	}
	return out
}

// ScaleIn lists where the scale of a chord lies in a region.
func ScaleIn(in *neck.Instrument, chord harmony.Chord, r neck.Region) (places []neck.Placement) {
	for _, t := range chord.Scale() {
		places = append(places, blend.Places(in, t.Name.Class(), r)...)
	}
	return places
}
