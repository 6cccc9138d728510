package server

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/store"
)

// PaletteNote is a note of the palette over a chord.
type PaletteNote struct {
	Note   string   `json:"note"`
	Step   string   `json:"step" doc:"its degree in the palette"`
	Box    string   `json:"box,omitempty" enum:"minor,major,both" doc:"which of two joined boxes it is from"`
	Degree string   `json:"degree" doc:"over the chord"`
	Class  string   `json:"class" enum:"chord tone,extension,blue note,tension,passing"`
	Wants  []string `json:"wants,omitempty" doc:"chord tones it leads to"`
	Reason string   `json:"reason"`
	// Implies names the scale that an extension makes of the chord.
	Implies string `json:"implies,omitempty" doc:"the scale that it makes of the chord, and what in the chart contradicts it"`
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

// Slide is a way along one string.
type Slide struct {
	From Place `json:"from"`
	To   Place `json:"to"`
}

// Blend is a palette over one chord.
type Blend struct {
	Notes  []PaletteNote  `json:"notes"`
	Added  []AddedTarget  `json:"added" doc:"chord tones that the palette lacks"`
	Places []PalettePlace `json:"places"`
	Bends  []Bend         `json:"bends"`
	Slides []Slide        `json:"slides" doc:"from the flat third to the third, from one joined box into the other"`
	Box    string         `json:"box,omitempty" enum:"minor,major" doc:"which of two joined boxes is proposed over this chord"`
	Why    string         `json:"why,omitempty" doc:"why that box"`
}

func wireBlend(b blend.Laid) Blend {
	out := Blend{Notes: each(b.Notes, wirePaletteNote), Places: each(b.Places, wireSpot), Bends: each(b.Bends, wireBend), Slides: each(b.Slides, func(s blend.Slide) Slide { return Slide{Place(s.From), Place(s.To)} }), Box: string(b.Box), Why: b.Why}
	out.Added = each(b.Added, func(t harmony.Tone) AddedTarget { return AddedTarget{ToneName: wireTone(t)} })
	for i, places := range b.Reach {
		out.Added[i].Places = each(places, func(p neck.Placement) Place { return Place(p) })
	}
	return out
}

// implies says what the extensions among the notes make of the chord.
func (b Blend) implies(over harmony.Chord, chart []harmony.Chord) {
	for i, n := range b.Notes {
		b.Notes[i].Implies = blend.Implies(over, harmony.Degree(n.Degree), chart)
	}
}

func wirePaletteNote(n blend.Note) PaletteNote {
	note := PaletteNote{Note: n.Name.String(), Step: n.Member.Degree, Box: string(n.Box), Degree: string(n.Sound.Degree), Class: string(n.Class), Reason: n.Reason()}
	if len(n.Wants) > 0 {
		note.Wants = each(n.Wants, func(d harmony.Degree) string { return string(d) })
	}
	return note
}

func wireSpot(s blend.Spot) PalettePlace { return PalettePlace{Place(s.Placement), s.Of} }

func wireBend(b blend.Bend) Bend {
	w := Bend{PalettePlace{Place(b.From), b.Of}, b.HalfSteps, "", ""}
	if b.HalfSteps > 0 {
		w.Degree, w.Note = string(b.To.Degree), b.To.Name.String()
	}
	return w
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
			NeckRegion
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
			return wireBlend(blend.Lay(on.in, key, p, c, on.w, in.Advanced)), nil
		})

	get(s, api, "/api/places/about", "place-about", "One fret: its name, what it is in a key, and where else it lies",
		func(_ context.Context, in *struct {
			NeckQuery
			String int    `query:"string" required:"true"`
			Fret   int    `query:"fret" required:"true"`
			Key    string `query:"key" required:"true"`
		}) (PlaceAbout, error) {
			inst, _, err := in.neck("query.")
			if err != nil {
				return PlaceAbout{}, err
			}
			p := neck.Placement{String: in.String, Fret: in.Fret}
			if err := inst.CheckPlacement(p); err != nil {
				return PlaceAbout{}, at("query.fret", p, err)
			}
			key, err := readKey("query.key", in.Key)
			if err != nil {
				return PlaceAbout{}, err
			}
			a := blend.AboutPlace(inst, key, p)
			return PlaceAbout{a.Pitch.String(), string(a.Degree), each(a.Others, func(p neck.Placement) store.Spot { return store.Spot(p) })}, nil
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
			chords, err := readChords("query.chords", in.Chords)
			if err != nil {
				return nil, err
			}
			return each(blend.OnePlace(inst, p, chords, in.Advanced), wirePlaceReading), nil
		})
}

// PlaceAbout is what one place is, whatever chord sounds.
type PlaceAbout struct {
	Note   string       `json:"note" doc:"with its octave, spelled by the key"`
	Degree string       `json:"degree" doc:"in the key"`
	Others []store.Spot `json:"others" doc:"where else the pitch lies"`
}

func wirePlaceReading(r blend.Reading) PlaceReading {
	return PlaceReading{r.Chord.String(), string(r.Degree), string(r.Class), r.Reason(),
		each(r.Bent, func(b blend.Bend) BentTo { return BentTo{wireTone(b.To), b.HalfSteps} })}
}
