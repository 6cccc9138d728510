package server

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/form"
	"undaris/store"
)

// Tempi that can be played, in beats a minute.
const minTempo, maxTempo = 30, 300

// ChartBody is what a player says of a chart.
type ChartBody struct {
	Title string `json:"title" maxLength:"120"`
	Key   string `json:"key"`
	Feel  string `json:"feel"`
	Tempo int    `json:"tempo" doc:"beats a minute, 30 to 300"`
	Beats int    `json:"beats" doc:"in a bar, 2 to 12"`
	Text  string `json:"text" maxLength:"60000" doc:"| C7 | F7 | C7 | % |"`
}

// Chart is a stored chart.
type Chart struct {
	ID uint `json:"id"`
	ChartBody
	Plan     store.Plan `json:"plan"`
	Bars     int        `json:"bars"`
	FeelName string     `json:"feelName"`
	Updated  time.Time  `json:"updated"`
}

// ChartID is the path of one chart.
type ChartID struct {
	ID uint `path:"id"`
}

func wireChart(c store.Chart) Chart {
	p, _, _ := progression(c)
	return wireChartOf(c, len(p.Bars))
}

func wireChartOf(c store.Chart, bars int) Chart {
	feel, _ := form.FeelByID(c.Feel)
	return Chart{c.ID, ChartBody{c.Title, c.Key, c.Feel, c.Tempo, c.Beats, c.Text}, c.Plan, bars, feel.Name, c.UpdatedAt}
}

// progression reads a stored chart.
func progression(c store.Chart) (form.Progression, form.Key, error) {
	key, err := form.ParseKey(c.Key)
	if err != nil {
		return form.Progression{}, key, err
	}
	p, err := form.Read(c.Text, c.Beats, key)
	return p, key, err
}

// stored checks what a player says and writes the text as Undaris does, so that
// numerals become the chords they are in the key.
func (b ChartBody) stored() (store.Chart, error) {
	c := store.Chart{Title: strings.TrimSpace(b.Title), Key: b.Key, Feel: b.Feel, Tempo: b.Tempo, Beats: b.Beats}
	if c.Title == "" {
		return c, at("body.title", b.Title, errors.New("a chart needs a title"))
	}
	key, err := readKey("body.key", b.Key)
	if err != nil {
		return c, err
	}
	c.Key = key.String()
	if _, ok := form.FeelByID(b.Feel); !ok {
		return c, at("body.feel", b.Feel, fmt.Errorf("there is no feel %q", b.Feel))
	}
	if b.Tempo < minTempo || b.Tempo > maxTempo {
		return c, at("body.tempo", b.Tempo, fmt.Errorf("a tempo of %d; between %d and %d beats a minute can be played", b.Tempo, minTempo, maxTempo))
	}
	p, err := form.Read(b.Text, b.Beats, key)
	var problems form.Problems
	if errors.As(err, &problems) {
		details := make([]error, len(problems))
		for i, p := range problems {
			details[i] = &huma.ErrorDetail{Message: p.Message, Location: "body.text", Value: Problem(p)}
		}
		return c, huma.Error422UnprocessableEntity(problems[0].Message, details...)
	}
	c.Text = p.Text()
	return c, nil
}

// missing turns the store's answer into the API's.
func missing(err error) error {
	if errors.Is(err, store.ErrNotFound) {
		return huma.Error404NotFound("there is no such chart; it may have been deleted")
	}
	return err
}

func (s *server) charts(api huma.API) {
	op := func(method, path, id, summary string, status int) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: path, Summary: summary, DefaultStatus: status}
	}
	get(api, "/api/charts", "charts", "All charts, the one opened last first",
		func(*struct{}) ([]Chart, error) {
			all, err := s.store.Charts()
			list := make([]Chart, len(all))
			for i, c := range all {
				list[i] = wireChart(c)
			}
			return list, err
		})
	get(api, "/api/charts/{id}", "chart", "One chart",
		func(in *ChartID) (Chart, error) {
			c, err := s.store.Chart(in.ID)
			return wireChart(c), missing(err)
		})
	huma.Register(api, op(http.MethodPost, "/api/charts", "create-chart", "Make a chart", http.StatusCreated),
		func(_ context.Context, in *struct{ Body ChartBody }) (*out[Chart], error) {
			c, err := in.Body.stored()
			if err != nil {
				return nil, err
			}
			err = s.store.CreateChart(&c)
			return &out[Chart]{wireChart(c)}, err
		})
	huma.Register(api, op(http.MethodPut, "/api/charts/{id}", "update-chart", "Change a chart", http.StatusOK),
		func(_ context.Context, in *struct {
			ChartID
			Body ChartBody
		}) (*out[Chart], error) {
			c, err := in.Body.stored()
			if err != nil {
				return nil, err
			}
			old, err := s.store.Chart(in.ID)
			if err != nil {
				return nil, missing(err)
			}
			c.ID, c.Plan, c.CreatedAt = old.ID, fitted(old.Plan, c), old.CreatedAt
			err = s.store.UpdateChart(&c)
			return &out[Chart]{wireChart(c)}, missing(err)
		})
	huma.Register(api, op(http.MethodPut, "/api/charts/{id}/plan", "set-plan", "Save what the player decided about a chart", http.StatusOK),
		func(_ context.Context, in *struct {
			ChartID
			Body store.Plan
		}) (*out[Chart], error) {
			c, err := s.store.Chart(in.ID)
			if err != nil {
				return nil, missing(err)
			}
			if err := checkPlan(in.Body, c); err != nil {
				return nil, err
			}
			c.Plan = in.Body
			err = s.store.UpdateChart(&c)
			return &out[Chart]{wireChart(c)}, missing(err)
		})
	huma.Register(api, op(http.MethodPost, "/api/charts/{id}/opened", "open-chart", "Note that the player opened a chart", http.StatusNoContent),
		func(_ context.Context, in *ChartID) (*struct{}, error) {
			return nil, missing(s.store.OpenChart(in.ID, time.Now()))
		})
	huma.Register(api, op(http.MethodDelete, "/api/charts/{id}", "delete-chart", "Delete a chart; it can be restored", http.StatusNoContent),
		func(_ context.Context, in *ChartID) (*struct{}, error) {
			return nil, missing(s.store.DeleteChart(in.ID))
		})
	huma.Register(api, op(http.MethodPost, "/api/charts/{id}/restore", "restore-chart", "Take a deletion back", http.StatusOK),
		func(_ context.Context, in *ChartID) (*out[Chart], error) {
			c, err := s.store.RestoreChart(in.ID)
			return &out[Chart]{wireChart(c)}, missing(err)
		})
}
