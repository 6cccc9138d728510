package server

import (
	"context"
	"net/http"
	"path"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/score"
	"undaris/formats"
	_ "undaris/formats/midi"
	_ "undaris/formats/musicxml"
	_ "undaris/formats/tabtext"
)

func (s *server) imports(api huma.API) {
	register(s, api, operation(http.MethodPost, "/api/lines/import", "import-line", "A line from a file: MusicXML, MIDI or tablature text", 0),
		body(queued(s, func(ctx context.Context, in *struct {
			Name    string `query:"name" maxLength:"300" doc:"of the file; its ending tells what it is"`
			Chart   uint   `query:"chart" maximum:"4294967295" doc:"a chart to lay it over, where the file has no chords"`
			RawBody []byte `contentType:"application/octet-stream"`
		}) (Study, error) {
			o, err := s.imported(ctx, in.Name, in.Chart, in.RawBody)
			if err != nil {
				return Study{}, err
			}
			return o.study(), nil
		})))
}

// imported reads a file as a line on the player's neck.
func (s *server) imported(ctx context.Context, name string, chart uint, data []byte) (o lineIn, err error) {
	player, err := s.store.Player()
	if err != nil {
		return o, err
	}
	in, hand, err := playerNeck(player.Player)
	if err != nil {
		return o, err
	}
	under := score.Score{In: in, Tempo: 100, Progression: form.Progression{Beats: 4}}
	feel := ""
	if chart != 0 {
		c, err := s.chart(chart)
		if err != nil {
			return o, err
		}
		if under.Progression, under.Key, err = progression(c); err != nil {
			return o, err
		}
		feel = c.Feel
		under.Swing = band.Swings(feel)
	}
	read, said, err := formats.Read(ctx, name, data, under)
	if err != nil {
		return o, at("body", name, err)
	}
	if read.Title == "" {
		read.Title = clean(strings.TrimSuffix(name, path.Ext(name)))
	}
	if feel == "" {
		feel = band.FeelOf(read.Swing)
	}
	l, err := edit.Import(read, said, under, hand)
	if err != nil {
		return o, at("body.notes", nil, err)
	}
	// Read anew, it is a line like any other.
	l.Feel = feel
	again, err := s.read(wireBody(l))
	again.Said = l.Said
	return again, err
}
