package server

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/arpeggio"
	"undaris/core/chart"
	"undaris/core/neck"
	"undaris/store"
)

// Division is how a neck can be divided: ways along its frets, and sets of strings.
type Division struct {
	Ways    []DivisionWay    `json:"ways"`
	Strings []DivisionString `json:"strings"`
}

// DivisionWay is a way to divide a neck.
type DivisionWay struct {
	ID      string           `json:"id"`
	Name    string           `json:"name"`
	Says    string           `json:"says"`
	Regions []DivisionRegion `json:"regions" doc:"low to high"`
}

// DivisionRegion is a region of a way.
type DivisionRegion struct {
	Name    string       `json:"name"`
	Low     int          `json:"low"`
	High    int          `json:"high"`
	Strings string       `json:"strings,omitempty" doc:"such as 3,2,1; all where none is said"`
	Places  []store.Spot `json:"places,omitempty" doc:"of a shape with so many notes on a string"`
	Unisons []store.Spot `json:"unisons,omitempty" doc:"other places of the same pitches in its frets"`
}

// DivisionString is a set of strings.
type DivisionString struct {
	Strings string `json:"strings" doc:"such as 5,2; empty for all"`
	Name    string `json:"name"`
	Says    string `json:"says"`
}

func wireGrip(g arpeggio.Grip) Grip {
	return Grip{each(g.Notes, wireNote), append([]int{}, g.Muted...), g.Barre}
}

// Grip is a chord held at once.
type Grip struct {
	Notes []Note `json:"notes" doc:"the lowest string first; none where no hand holds what tells the chord"`
	Muted []int  `json:"muted" doc:"strings that do not sound"`
	Barre int    `json:"barre,omitempty" doc:"the fret that a finger lies flat over"`
}

func (s *server) regions(api huma.API) {
	get(s, api, "/api/regions", "regions", "The ways to divide a neck in a key, each with its regions, and sets of strings",
		func(_ context.Context, in *struct {
			NeckQuery
			Key string `query:"key" required:"true"`
		}) (d Division, err error) {
			inst, _, err := in.neck("query.")
			if err != nil {
				return d, err
			}
			k, err := readKey("query.key", in.Key)
			if err != nil {
				return d, err
			}
			spots := func(list []neck.Placement) []store.Spot {
				return each(list, func(p neck.Placement) store.Spot { return store.Spot(p) })
			}
			d.Ways = each(chart.Divide(inst, k), func(w chart.Division) DivisionWay {
				return DivisionWay{w.ID, w.Name, w.Says, each(w.Regions, func(r neck.Named) DivisionRegion {
					return DivisionRegion{r.Name, r.Low, r.High, r.Strings.String(), spots(r.Places), spots(inst.Unisons(r))}
				})}
			})
			d.Strings = each(neck.StringSets(inst.Strings()), func(s neck.StringSet) DivisionString {
				name := s.Strings.Says()
				if name == "" {
					name = "all strings"
				}
				return DivisionString{s.Strings.String(), name, s.Says}
			})
			return d, nil
		})
}
