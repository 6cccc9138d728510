package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/arpeggio"
)

// layers are maps of more than chord tones, over each chord of a chart.
func (s *server) layers(api huma.API) {
	register(s, api, operation(http.MethodGet, "/api/charts/{id}/layers/{layer}", "chart-layer", "For each chord of a chart, the places of a scale or of every note on the whole neck", 0),
		body(func(_ context.Context, in *struct {
			ByID
			Layer string `path:"layer" enum:"tones,scale,key,names"`
		}) ([][]Note, error) {
			c, err := s.store.Chart(in.ID)
			if err != nil {
				return nil, missing("chart", err)
			}
			player, err := s.store.Player()
			if err != nil {
				return nil, err
			}
			on, err := onTheNeck(c, player.Player)
			if err != nil {
				return nil, err
			}
			all, err := on.Layer(in.Layer)
			if err != nil {
				return nil, err
			}
			return each(all, func(notes []arpeggio.Note) []Note { return each(notes, wireNote) }), nil
		}))
}
