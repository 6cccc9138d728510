package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/formats/midi"
	"undaris/formats/tabtext"
)

// lineFiles registers how lines leave as files, and as sound.
func (s *server) lineFiles(api huma.API) {
	type posted struct {
		BandQuery
		Body LineBody
	}
	kinds := []struct {
		name, mime string
		write      func(ctx context.Context, o lineIn, q BandQuery) (download, error)
	}{
		{"midi", "audio/midi", func(ctx context.Context, o lineIn, q BandQuery) (download, error) {
			return q.play(ctx, o.Progression, o.Feel, midi.Head{Title: o.Title, Tempo: o.Tempo, Key: o.Key}, band.Lead(o.Score))
		}},
		{"musicxml", "application/vnd.recordare.musicxml+xml", func(_ context.Context, o lineIn, _ BandQuery) (download, error) { return musicXML(o.Score), nil }},
		{"tab", "text/plain; charset=utf-8", func(_ context.Context, o lineIn, _ BandQuery) (download, error) {
			return file("text/plain; charset=utf-8", o.Title, "txt", tabtext.Write(o.Score)), nil
		}},
	}
	for _, k := range kinds {
		deliver(s, api, "/api/lines/{id}/"+k.name, "line-"+k.name, "A kept line as a file", k.mime, func(ctx context.Context, in *struct {
			ByID
			BandQuery
		}) (none download, err error) {
			l, err := s.store.Line(in.ID)
			if err != nil {
				return none, huma.Error404NotFound("there is no such line; it may have been deleted")
			}
			o, err := s.read(wireLine(l).LineBody)
			if err != nil {
				return none, err
			}
			return k.write(ctx, o, in.BandQuery)
		})
	}
	op := delivery("/api/lines/midi", "play-line", "The band playing a line that need not be kept", "audio/midi")
	op.Method = http.MethodPost
	register(s, api, op, queued(s, func(ctx context.Context, in *posted) (none download, err error) {
		o, err := s.read(in.Body)
		if err != nil {
			return none, err
		}
		return kinds[0].write(ctx, o, in.BandQuery)
	}))
}
