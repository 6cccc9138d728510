package server

import (
	"context"
	"errors"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/chart"
	"undaris/core/crossing"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
)

// FormSpan is a stretch of the form worth being led through at once.
type FormSpan struct {
	Name   string   `json:"name" doc:"the last two bars, ii7–V7–I"`
	Bar    int      `json:"bar" doc:"where it begins, from 0"`
	Chords []string `json:"chords"`
}

func wireFormSpan(s form.Span) FormSpan {
	return FormSpan{s.Name, s.Bar, each(s.Chords, harmony.Chord.String)}
}

// ChainTone is what one voice plays over a chord.
type ChainTone struct {
	Place
	ToneName
	MIDI int `json:"midi"`
	Move int `json:"move" doc:"half steps from this voice's tone before; 0 is held, or the first"`
}

// ChainLink is what is played over one chord, the highest voice first.
type ChainLink struct {
	Chord string      `json:"chord"`
	Tones []ChainTone `json:"tones"`
}

// Chain is a way through several chords at the least movement.
type Chain struct {
	Links       []ChainLink `json:"links"`
	HalfSteps   int         `json:"halfSteps" doc:"of all voices together"`
	Millimetres float64     `json:"mm" doc:"travel of the hand"`
}

// OtherArpeggio is the arpeggio of one chord played over another.
type OtherArpeggio struct {
	Chord     string      `json:"chord"`
	Degree    string      `json:"degree" doc:"of its root over the chord that sounds"`
	KeyStep   int         `json:"keyStep,omitempty" doc:"of the key that it stands on, from 1"`
	Raised    bool        `json:"raised,omitempty" doc:"with the raised seventh of a minor key"`
	ScaleStep int         `json:"scaleStep,omitempty" doc:"of the chord's scale that it stands on, from 1"`
	Tones     []OtherTone `json:"tones"`
	Rests     int         `json:"rests" doc:"how many of its tones rest"`
	Colours   int         `json:"colours"`
	Moves     int         `json:"moves" doc:"how many want to move on"`
	Says      string      `json:"says" doc:"what it brings and leaves out"`
	Run       Run         `json:"run" doc:"in the region; its degrees are over the chord that sounds"`
	Octave    []Note      `json:"octave" doc:"of the run, from its lowest root to the next"`
}

// OtherArpeggios are the arpeggios that can be played over a chord, and its scale.
type OtherArpeggios struct {
	Scale     []ToneName      `json:"scale" doc:"of the chord, from its root"`
	Places    []Place         `json:"places" doc:"of the scale in the region"`
	Arpeggios []OtherArpeggio `json:"arpeggios" doc:"those that clash least and bring most first"`
}

// OtherTone is one of its tones.
type OtherTone struct {
	Note   string `json:"note"`
	Degree string `json:"degree" doc:"over the chord that sounds"`
	Class  string `json:"class" enum:"chord tone,extension,blue note,tension,passing"`
}

func (s *server) chains(api huma.API) {
	get(s, api, "/api/chains", "chains", "Ways through several chords at once in a region, one or more tones at a time, the least movement first",
		func(ctx context.Context, in *struct {
			NeckRegion
			Chords []string `query:"chords,explode" required:"true" maxItems:"32"`
			Voices int      `query:"voices" default:"1" minimum:"1" maximum:"3" doc:"tones at once"`
			Roles  string   `query:"roles" maxLength:"60" doc:"such as third,seventh; any where none is said"`
			From   string   `query:"from" maxLength:"8" doc:"string:fret where the hand is"`
		}) ([]Chain, error) {
			on, err := in.read()
			if err != nil {
				return nil, err
			}
			chords, err := readChords("query.chords", in.Chords)
			if err != nil {
				return nil, err
			}
			ask := crossing.Ask{Region: on.w, Hand: on.hand, Voices: in.Voices}
			if ask.Allowed, err = harmony.ParseRoles(in.Roles); err != nil {
				return nil, at("query.roles", in.Roles, err)
			}
			if ask.From, err = readPlace(on.in, in.From); err != nil {
				return nil, at("query.from", in.From, err)
			}
			list, err := crossing.Chains(ctx, on.in, chords, ask)
			var none *crossing.NoLink
			if errors.As(err, &none) {
				return nil, at("query.chords", in.Chords[none.Chord], err)
			}
			if err != nil {
				return nil, at("query", in.Chords, err)
			}
			return each(list, func(c crossing.Chain) Chain { return wireChain(c, chords) }), nil
		})

	get(s, api, "/api/arpeggios", "other-arpeggios", "Other arpeggios over a chord: the seventh chords of the key and of the chord's scale, each with what its tones are",
		func(_ context.Context, in *struct {
			NeckRegion
			Key   string `query:"key" required:"true"`
			Chord string `query:"chord" required:"true"`
		}) (out OtherArpeggios, err error) {
			on, err := in.read()
			if err != nil {
				return out, err
			}
			key, err := readKey("query.key", in.Key)
			if err != nil {
				return out, err
			}
			over, err := readChord("query.chord", in.Chord)
			if err != nil {
				return out, err
			}
			out.Scale = each(over.Scale(), wireTone)
			out.Places = each(chart.ScaleIn(on.in, over, on.w), func(p neck.Placement) Place { return Place(p) })
			out.Arpeggios = each(chart.Others(on.in, on.hand, key, over, on.w), func(o chart.Other) OtherArpeggio { return wireOther(o, over) })
			return out, nil
		})
}

// readPlace reads string:fret; nothing is no place.
func readPlace(in *neck.Instrument, text string) (*neck.Placement, error) {
	if text == "" {
		return nil, nil
	}
	var p neck.Placement
	if n, err := fmt.Sscanf(text, "%d:%d", &p.String, &p.Fret); err != nil || n != 2 {
		return nil, say.Errorf("%q is no place; it is written string:fret, such as 3:8", text)
	}
	return &p, in.CheckPlacement(p)
}

func wireChain(c crossing.Chain, chords []harmony.Chord) Chain {
	return Chain{each(c.Links, func(l crossing.Link) ChainLink {
		return ChainLink{chords[l.Chord].String(), each(l.Tones, func(t crossing.Target) ChainTone {
			return ChainTone{Place(t.Placement), wireTone(t.Tone), t.MIDI, t.Move}
		})}
	}), c.Cost.HalfSteps, tenth(c.Cost.Travel)}
}

func wireOther(o chart.Other, over harmony.Chord) OtherArpeggio {
	out := OtherArpeggio{Chord: o.Chord.String(), Degree: string(o.Degree), KeyStep: o.KeyStep, Raised: o.Raised, ScaleStep: o.ScaleStep,
		Rests: o.Rests(), Colours: o.Colours(), Moves: o.Moves(), Says: o.Says(over), Run: wireRun(o.Run), Octave: each(o.Octave, wireNote)}
	for i, t := range o.Chord.Tones {
		out.Tones = append(out.Tones, OtherTone{t.Name.String(), string(o.Sounds[i].Degree), string(o.Sounds[i].Class)})
	}
	return out
}
