package server

import (
	"context"
	"errors"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/chart"
	"undaris/core/score"
	"undaris/formats/midi"
	"undaris/store"
)

// PaperQuery says what of a chart is to be written down.
type PaperQuery struct {
	ByID
	RegionQuery
	Of   string `query:"of" enum:"run,crossing,thread" default:"thread"`
	Step int    `query:"step" doc:"for a run or a crossing: which chord of the form, from 0"`
}

// paper writes a run, a crossing or the thread of a chart.
func (s *server) paper(ctx context.Context, q PaperQuery) (c store.Chart, sc score.Score, err error) {
	on, c, err := s.handed(q.ID)
	if err != nil {
		return c, sc, err
	}
	w, err := q.region(on.In)
	if err != nil {
		return c, sc, err
	}
	sc, err = on.Paper(ctx, q.Of, q.Step, w)
	if errors.Is(err, chart.ErrNoStep) {
		return c, sc, at("query.step", q.Step, err)
	}
	return c, sc, at("query.of", q.Of, err)
}

// handed is a kept chart in the player's hands.
func (s *server) handed(id uint) (on chart.Chart, c store.Chart, err error) {
	if c, err = s.chart(id); err != nil {
		return on, c, err
	}
	player, err := s.store.Player()
	if err != nil {
		return on, c, err
	}
	on, err = onTheNeck(c, player.Player)
	return on, c, err
}

func (s *server) papers(api huma.API) {
	get(s, api, "/api/charts/{id}/score", "chart-score", "A run, a crossing or the thread of a chart on staff and tablature",
		func(ctx context.Context, in *PaperQuery) (Score, error) {
			_, sc, err := s.paper(ctx, *in)
			if err != nil {
				return Score{}, err
			}
			return wireScore(sc), nil
		})
	deliver(s, api, "/api/charts/{id}/score/midi", "chart-score-midi", "The same, played over the band", "audio/midi",
		func(ctx context.Context, in *struct {
			PaperQuery
			BandQuery
		}) (none download, err error) {
			c, sc, err := s.paper(ctx, in.PaperQuery)
			if err != nil {
				return none, err
			}
			return in.play(ctx, sc.Progression, c.Feel, midi.Head{Title: sc.Title, Tempo: sc.Tempo, Key: sc.Key}, band.Lead(sc))
		})
	deliver(s, api, "/api/charts/{id}/musicxml", "chart-musicxml", "The same as a MusicXML file", "application/vnd.recordare.musicxml+xml",
		func(ctx context.Context, in *PaperQuery) (none download, err error) {
			_, sc, err := s.paper(ctx, *in)
			if err != nil {
				return none, err
			}
			return musicXML(sc), nil
		})
}
