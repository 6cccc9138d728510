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

func (s *server) player(api huma.API) {
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
