package server

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// PaletteNote is a note of the palette over a chord.
type PaletteNote struct {
	Note   string   `json:"note"`
	Step   string   `json:"step" doc:"its degree in the palette"`
	Degree string   `json:"degree" doc:"over the chord"`
	Class  string   `json:"class" enum:"chord tone,extension,blue note,tension,passing"`
	Wants  []string `json:"wants,omitempty" doc:"chord tones it leads to"`
	Reason string   `json:"reason"`
}

// AddedTarget is a chord tone that the palette lacks.
type AddedTarget struct {
	ToneName
	Places []Place `json:"places"`
}

// PalettePlace is where a note of the palette lies.
type PalettePlace struct {
	Place
	Index int `json:"index" doc:"of the palette's note"`
}

// Bend raises a palette note to a chord tone, or curls it.
type Bend struct {
	PalettePlace
	HalfSteps int    `json:"halfSteps" doc:"1 to 3; 0 is a quarter-tone curl"`
	Degree    string `json:"degree,omitempty" doc:"reached, of the chord"`
	Note      string `json:"note,omitempty"`
}

// Blend is a palette over one chord.
type Blend struct {
	Notes  []PaletteNote  `json:"notes"`
	Added  []AddedTarget  `json:"added" doc:"chord tones that the palette lacks"`
	Places []PalettePlace `json:"places"`
	Bends  []Bend         `json:"bends"`
}

func wireBlend(in *neck.Instrument, key form.Key, p blend.Palette, chord harmony.Chord, w neck.Window, advanced bool) Blend {
	b := blend.Over(key, p, chord)
	out := Blend{Notes: []PaletteNote{}, Added: []AddedTarget{}, Places: []PalettePlace{}, Bends: []Bend{}}
	index := map[string]int{}
	for i, n := range b.Notes {
		note := PaletteNote{Note: n.Name.String(), Step: n.Member.Degree, Degree: string(n.Sound.Degree), Class: string(n.Class), Reason: n.Reason()}
		for _, d := range n.Wants {
			note.Wants = append(note.Wants, string(d))
		}
		out.Notes = append(out.Notes, note)
		index[note.Note] = i
		for _, at := range blend.Places(in, n.Name.Class(), w) {
			out.Places = append(out.Places, PalettePlace{Place(at), i})
		}
	}
	for _, t := range b.Added {
		target := AddedTarget{wireTone(t), []Place{}}
		for _, at := range blend.Places(in, t.Name.Class(), w) {
			target.Places = append(target.Places, Place(at))
		}
		out.Added = append(out.Added, target)
	}
	for _, bend := range blend.Bends(in, b, chord, w, advanced) {
		wire := Bend{PalettePlace{Place(bend.From), index[bend.Name.String()]}, bend.HalfSteps, "", ""}
		if bend.HalfSteps > 0 {
			wire.Degree, wire.Note = string(bend.To.Degree), bend.To.Name.String()
		}
		out.Bends = append(out.Bends, wire)
	}
	return out
}

// PlaceReading is what one place is over a chord, plain and bent.
type PlaceReading struct {
	Chord  string   `json:"chord"`
	Degree string   `json:"degree"`
	Class  string   `json:"class"`
	Reason string   `json:"reason"`
	Bent   []BentTo `json:"bent"`
}

// BentTo is a chord tone that a bend reaches.
type BentTo struct {
	ToneName
	HalfSteps int `json:"halfSteps"`
}

func (s *server) blends(api huma.API) {
	get(s, api, "/api/blend", "blend", "A palette over a chord in a window: what rests, what moves, what to add and to bend",
		func(_ context.Context, in *struct {
			NeckWindow
			Key      string `query:"key" required:"true"`
			Palette  string `query:"palette" required:"true"`
			Chord    string `query:"chord" required:"true"`
			Advanced bool   `query:"advanced" doc:"bends of three half steps too"`
		}) (Blend, error) {
			on, err := in.read()
			if err != nil {
				return Blend{}, err
			}
			key, err := readKey("query.key", in.Key)
			if err != nil {
				return Blend{}, err
			}
			p, err := blend.PaletteByID(in.Palette)
			if err != nil {
				return Blend{}, at("query.palette", in.Palette, err)
			}
			c, err := readChord("query.chord", in.Chord)
			if err != nil {
				return Blend{}, err
			}
			return wireBlend(on.in, key, p, c, on.w, in.Advanced), nil
		})

	get(s, api, "/api/places", "place", "One fret over several chords, plain and bent",
		func(_ context.Context, in *struct {
			NeckQuery
			String   int      `query:"string" required:"true"`
			Fret     int      `query:"fret" required:"true"`
			Chords   []string `query:"chords,explode" required:"true"`
			Advanced bool     `query:"advanced"`
		}) ([]PlaceReading, error) {
			inst, _, err := in.neck("query.")
			if err != nil {
				return nil, err
			}
			p := neck.Placement{String: in.String, Fret: in.Fret}
			if err := inst.CheckPlacement(p); err != nil {
				return nil, at("query.fret", p, err)
			}
			var chords []harmony.Chord
			for _, symbol := range in.Chords {
				c, err := readChord("query.chords", symbol)
				if err != nil {
					return nil, err
				}
				chords = append(chords, c)
			}
			return wireReadings(blend.OnePlace(inst, p, chords, in.Advanced)), nil
		})
}

func wireReadings(readings []blend.Reading) []PlaceReading {
	list := []PlaceReading{}
	for _, r := range readings {
		wire := PlaceReading{r.Chord.String(), string(r.Degree), string(r.Class), r.Reason(), []BentTo{}}
		for _, b := range r.Bent {
			wire.Bent = append(wire.Bent, BentTo{wireTone(b.To), b.HalfSteps})
		}
		list = append(list, wire)
	}
	return list
}
