package server

import (
	"context"
	"fmt"
	"net/http"
	"strings"
	"unicode"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/formats/midi"
)

// download is a file for the player to keep.
type download struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

func (s *server) exports(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "chart-midi", Method: http.MethodGet, Path: "/api/charts/{id}/midi",
		Summary: "The band playing a chart, as a Standard MIDI File",
		Responses: map[string]*huma.Response{"200": {Description: "a MIDI file of format 1",
			Content: map[string]*huma.MediaType{"audio/midi": {Schema: &huma.Schema{Type: "string", Format: "binary"}}}}}},
		func(_ context.Context, in *struct {
			ChartID
			Choruses   int    `query:"choruses" default:"3"`
			Seed       uint64 `query:"seed" default:"1" doc:"the same seed gives the same file"`
			CountIn    bool   `query:"countIn" default:"true"`
			Organ      bool   `query:"organ" doc:"organ instead of guitar"`
			DropChords bool   `query:"dropChords" doc:"no chords in every second chorus"`
		}) (*download, error) {
			c, err := s.store.Chart(in.ID)
			if err != nil {
				return nil, missing(err)
			}
			p, _, err := progression(c)
			if err != nil {
				return nil, err
			}
			groove, err := band.GrooveOf(c.Feel)
			if err != nil {
				return nil, err
			}
			perf, err := band.Play(p, groove, band.Options{Choruses: in.Choruses, Seed: in.Seed, CountIn: in.CountIn, Organ: in.Organ, DropChords: in.DropChords})
			if err != nil {
				return nil, at("query.choruses", in.Choruses, err)
			}
			return &download{"audio/midi", fmt.Sprintf("attachment; filename=%q", fileName(c.Title)+".mid"), midi.Write(perf, c.Title, c.Tempo)}, nil
		})
}

// fileName makes a plain name of a title.
func fileName(title string) string {
	name := strings.Map(func(r rune) rune {
		switch {
		case r < unicode.MaxASCII && (unicode.IsLetter(r) || unicode.IsDigit(r)):
			return unicode.ToLower(r)
		case r == ' ' || r == '-':
			return '-'
		}
		return -1
	}, title)
	if name = strings.Trim(name, "-"); name == "" {
		return "chart"
	}
	return name
}
