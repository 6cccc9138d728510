package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/neck"
	"undaris/store"
)

// playerNeck builds the instrument and hand of the saved settings.
func playerNeck(p store.Player) (*neck.Instrument, neck.Hand, error) {
	return NeckQuery{p.Tuning, p.Frets, p.Scale, p.Capo, p.Comfort, p.Habit}.neck("body.")
}

// Tones is where chords lie on the player's whole neck.
type Tones struct {
	Instrument Instrument   `json:"instrument"`
	Chords     []ChordTones `json:"chords"`
}

// ChordTones are the places of one chord's tones.
type ChordTones struct {
	Symbol string `json:"symbol"`
	Notes  []Note `json:"notes"`
}

func (s *server) player(api huma.API) {
	get(api, "/api/tones", "tones", "Where the tones of chords lie on the player's neck",
		func(in *struct {
			Chords []string `query:"chords,explode" required:"true"`
		}) (Tones, error) {
			p, err := s.store.Player()
			if err != nil {
				return Tones{}, err
			}
			inst, _, err := playerNeck(p)
			if err != nil {
				return Tones{}, err
			}
			out := Tones{Instrument: wireInstrument(inst, p.Left), Chords: []ChordTones{}}
			for _, symbol := range in.Chords {
				c, err := readChord("query.chords", symbol)
				if err != nil {
					return Tones{}, err
				}
				out.Chords = append(out.Chords, ChordTones{c.String(), wholeNeck(inst, c)})
			}
			return out, nil
		})

	get(api, "/api/player", "player", "The player's instrument and habits",
		func(*struct{}) (store.Player, error) { return s.store.Player() })

	huma.Register(api, huma.Operation{OperationID: "set-player", Method: http.MethodPut, Path: "/api/player", Summary: "Save the instrument and habits"},
		func(_ context.Context, in *struct{ Body store.Player }) (*out[store.Player], error) {
			if _, _, err := playerNeck(in.Body); err != nil {
				return nil, err
			}
			return &out[store.Player]{in.Body}, s.store.SetPlayer(in.Body)
		})
}
