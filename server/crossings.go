package server

import (
	"context"
	"math"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/crossing"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// Place is a place on the neck.
type Place struct {
	String int `json:"string"`
	Fret   int `json:"fret"`
}

// Step is a tone of one chord going to a near tone of the next.
type Step struct {
	From      ToneName `json:"from"`
	To        ToneName `json:"to"`
	HalfSteps int      `json:"halfSteps" doc:"up is positive"`
	Kind      string   `json:"kind" enum:"hold,half step,whole step,leap"`
	Guide     bool     `json:"guide,omitempty" doc:"between third and seventh"`
}

// Move is a step with the places where it lies.
type Move struct {
	Step
	Places []MovePlace `json:"places" doc:"shortest way of the hand first"`
}

// ToneName is a degree and the note it is.
type ToneName struct {
	Degree string `json:"degree"`
	Note   string `json:"note"`
}

// MovePlace is where a move lies.
type MovePlace struct {
	From        Place   `json:"from"`
	To          Place   `json:"to"`
	Millimetres float64 `json:"mm" doc:"travel of the hand along the neck"`
}

func wireTone(t harmony.Tone) ToneName { return ToneName{string(t.Degree), t.Name.String()} }

func tenth(mm float64) float64 { return math.Round(mm*10) / 10 }

func wireStep(m crossing.Move) Step {
	return Step{wireTone(m.From), wireTone(m.To), m.HalfSteps, string(m.Kind), m.Guide}
}

func wirePlace(p crossing.Place) MovePlace {
	return MovePlace{Place(p.From), Place(p.To), tenth(p.Travel)}
}

// RankQuery says which moves come first.
type RankQuery struct {
	Targets string `query:"targets" doc:"roles, most wanted first; the default is third,seventh,root,fifth"`
	Nearest bool   `query:"nearest" doc:"rank by distance"`
}

func (q RankQuery) ranking(location string) (crossing.Ranking, error) {
	order, err := harmony.ParseOrder(q.Targets)
	if err != nil {
		return crossing.Ranking{}, at(location, q.Targets, err)
	}
	return crossing.Ranking{Order: order, Nearest: q.Nearest}, nil
}

// onNeck is the neck, hand and window that a question is about.
type onNeck struct {
	in   *neck.Instrument
	hand neck.Hand
	w    neck.Region
}

// NeckRegion is a question about a window of a neck.
type NeckRegion struct {
	NeckQuery
	RegionQuery
}

func (q NeckRegion) read() (onNeck, error) {
	in, hand, err := q.neck("query.")
	if err != nil {
		return onNeck{}, err
	}
	w, err := q.region(in)
	return onNeck{in, hand, w}, err
}

func (s *server) crossings(api huma.API) {
	get(s, api, "/api/crossings", "crossings", "What moves where from one chord to the next in a window, ranked",
		func(_ context.Context, in *struct {
			NeckRegion
			RankQuery
			From string `query:"from" required:"true"`
			To   string `query:"to" required:"true"`
		}) ([]Move, error) {
			on, err := in.read()
			if err != nil {
				return nil, err
			}
			from, err := readChord("query.from", in.From)
			if err != nil {
				return nil, err
			}
			to, err := readChord("query.to", in.To)
			if err != nil {
				return nil, err
			}
			by, err := in.ranking("query.targets")
			if err != nil {
				return nil, err
			}
			return each(crossing.Between(on.in, from, to, on.w, by), func(m crossing.Move) Move {
				return Move{wireStep(m), each(m.Places, wirePlace)}
			}), nil
		})
}
