package server

import (
	"context"
	"errors"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/practice"
)

// Holding is what a player holds to, whatever the way to practise asks.
type Holding struct {
	Kinds []string `json:"kinds" maxItems:"8" maxLength:"60" doc:"limits; behind a colon one of their options, else they are drawn"`
	Every int      `json:"every,omitempty" minimum:"0" maximum:"64" doc:"bars after which others are drawn; 0 is never"`
	Seed  uint64   `json:"seed,omitempty" doc:"the same seed draws the same"`
}

// over lists what is held to in a pass of a mode; nothing where a mode writes what is to be played, or nothing is chosen.
func (h *Holding) over(l edit.Line, m practice.Mode, pass int) ([]practice.Hold, error) {
	if h == nil || m.Writes() {
		return nil, nil
	}
	if len(h.Kinds) > len(practice.HoldKinds) || h.Every < 0 || len(l.Bars) > form.MaxBars {
		return nil, errors.New("there are no limits of that kind")
	}
	return practice.Holding{Kinds: h.Kinds, Every: h.Every, Seed: h.Seed}.Over(l, pass)
}

// HoldKind is a kind of limit.
type HoldKind struct {
	CatalogueOption
	Options []CatalogueChoice `json:"options" doc:"what it may be; it is drawn where none is chosen"`
}

// Hold is a limit over some bars.
type Hold struct {
	Kind string `json:"kind"`
	Says string `json:"says"`
	From int    `json:"from" doc:"ticks"`
	To   int    `json:"to"`
}

// Holds are the limits that there are, and those of a pass.
type Holds struct {
	Kinds []HoldKind `json:"kinds"`
	Holds []Hold     `json:"holds"`
}

func (s *server) holds(api huma.API) {
	post(s, api, "/api/practice/holds", "holds", "The limits that can be held to over a chart, and those of a pass, in order",
		func(_ context.Context, in *struct {
			Body struct {
				Over LineBody `json:"over"`
				Mode string   `json:"mode" maxLength:"40"`
				Pass int      `json:"pass,omitempty" minimum:"0"`
				Hold Holding  `json:"hold"`
			}
		}) (out Holds, err error) {
			o, m, err := s.over(in.Body.Over, in.Body.Mode)
			if err != nil {
				return out, err
			}
			list, err := in.Body.Hold.over(o.Line, m, in.Body.Pass)
			if err != nil {
				return out, at("body.hold", in.Body.Hold, err)
			}
			out.Kinds = each(practice.HoldKinds, func(k practice.HoldKind) HoldKind {
				return HoldKind{CatalogueOption{CatalogueChoice{k.ID, k.Name}, k.About},
					each(k.Options(o.Line), func(x practice.HoldOption) CatalogueChoice { return CatalogueChoice{x.ID, x.Says} })}
			})
			out.Holds = each(list, func(h practice.Hold) Hold { return Hold{h.Kind, h.Says, h.From, h.To} })
			return out, nil
		})
}
