package server

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/arpeggio"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// NeckQuery is the instrument and hand that a question may name.
type NeckQuery struct {
	Tuning  string  `query:"tuning" default:"E2,A2,D3,G3,B3,E4" doc:"open strings, low to high"`
	Frets   int     `query:"frets" default:"22"`
	Scale   float64 `query:"scale" default:"648" doc:"millimetres"`
	Capo    int     `query:"capo" default:"0"`
	Comfort float64 `query:"comfort" default:"100" doc:"widest comfortable reach in millimetres"`
	Habit   string  `query:"habit" default:"stay" doc:"stay or shift"`
}

func (q NeckQuery) neck(where string) (*neck.Instrument, neck.Hand, error) {
	in, err := neck.New(q.Tuning, q.Frets, q.Scale, q.Capo)
	if err != nil {
		return nil, neck.Hand{}, at(where+instrumentField(q), q.Tuning, err)
	}
	hand, err := neck.NewHand(q.Comfort, q.Habit)
	if err != nil {
		field := "comfort"
		if _, ok := neck.Habits[q.Habit]; !ok {
			field = "habit"
		}
		return nil, neck.Hand{}, at(where+field, q.Comfort, err)
	}
	return in, hand, nil
}

// instrumentField finds which field an instrument was refused for, by putting
// usual values in the others.
func instrumentField(q NeckQuery) string {
	if _, err := neck.New(q.Tuning, 22, 648, 0); err != nil {
		return "tuning"
	}
	if _, err := neck.New(q.Tuning, q.Frets, 648, 0); err != nil {
		return "frets"
	}
	if _, err := neck.New(q.Tuning, q.Frets, q.Scale, 0); err != nil {
		return "scale"
	}
	return "capo"
}

// RegionQuery is a region of a neck.
type RegionQuery struct {
	Low     int    `query:"low" required:"true"`
	High    int    `query:"high" required:"true"`
	Strings string `query:"strings" maxLength:"20" doc:"such as 5,2; all where none is said"`
}

func (q RegionQuery) region(in *neck.Instrument) (r neck.Region, err error) {
	r = neck.Region{Low: q.Low, High: q.High}
	if r.Strings, err = neck.ParseStrings(q.Strings); err != nil {
		return r, at("query.strings", q.Strings, err)
	}
	if err := in.CheckRegion(r); err != nil {
		field, value := "query.high", any(q.High)
		switch near := in.Nearest(r); {
		case q.Low < 0 || q.Low > in.Last():
			field, value = "query.low", q.Low
		case near.Strings != r.Strings && near.High == r.High:
			field, value = "query.strings", q.Strings
		}
		return r, at(field, value, err)
	}
	return r, nil
}

func readChord(location, symbol string) (harmony.Chord, error) {
	c, err := harmony.Parse(symbol)
	if err != nil {
		return c, at(location, symbol, err)
	}
	return c, nil
}

func readChords(location string, symbols []string) ([]harmony.Chord, error) {
	chords := make([]harmony.Chord, len(symbols))
	for i, symbol := range symbols {
		var err error
		if chords[i], err = readChord(location, symbol); err != nil {
			return nil, err
		}
	}
	return chords, nil
}

func readKey(location, text string) (form.Key, error) {
	k, err := form.ParseKey(text)
	if err != nil {
		return k, at(location, text, err)
	}
	return k, nil
}

func (s *server) questions(api huma.API) {
	get(s, api, "/api/chords", "read-chord", "What a chord symbol says",
		func(_ context.Context, in *struct {
			Symbol string `query:"symbol" required:"true"`
		}) (Chord, error) {
			c, err := readChord("query.symbol", in.Symbol)
			return wireChord(c), err
		})

	get(s, api, "/api/positions", "positions", "The positions of a key up the neck",
		func(_ context.Context, in *struct {
			NeckQuery
			Key string `query:"key" required:"true"`
		}) ([]Position, error) {
			inst, _, err := in.neck("query.")
			if err != nil {
				return nil, err
			}
			k, err := readKey("query.key", in.Key)
			if err != nil {
				return nil, err
			}
			return wirePositions(inst, k), nil
		})

	get(s, api, "/api/runs", "run", "One chord through one window, low to high, with fingers",
		func(_ context.Context, in *struct {
			NeckQuery
			RegionQuery
			Chord string `query:"chord" required:"true"`
		}) (Run, error) {
			inst, hand, err := in.neck("query.")
			if err != nil {
				return Run{}, err
			}
			c, err := readChord("query.chord", in.Chord)
			if err != nil {
				return Run{}, err
			}
			w, err := in.region(inst)
			if err != nil {
				return Run{}, err
			}
			return wireRun(arpeggio.Make(inst, c, w, hand, nil)), nil
		})
}

func wirePositions(in *neck.Instrument, k form.Key) []Position {
	return each(in.Positions(k.Tonic.Class()), wirePosition)
}
