package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/say"
	"undaris/core/score"
	"undaris/formats/midi"
	"undaris/formats/musicxml"
	"undaris/formats/tabtext"
)

// Level is in which of its forms a line is asked for.
type Level struct {
	Plain  bool `query:"plain" doc:"without turns, hammered doubles and trills"`
	Unbent bool `query:"unbent" doc:"every bend's goal fretted"`
}

func (l Level) of(o lineIn) lineIn {
	if l.Plain {
		o = o.with(o.Plain())
	}
	if l.Unbent {
		o = o.with(o.Unbent())
	}
	return o
}

// lineFormat is a format in which a line leaves.
type lineFormat struct {
	name, mime string
	write      func(context.Context, lineIn, BandQuery, form.Reading) (download, error)
}

// lineFormats are all of them; licks leave as a line does.
var lineFormats = []lineFormat{
	{"midi", "audio/midi", func(ctx context.Context, o lineIn, q BandQuery, _ form.Reading) (download, error) {
		q.as("", band.EndingOf(o.Closing))
		return q.play(ctx, o.Progression, o.Feel, midi.Head{Title: o.Title, Tempo: o.Tempo, Key: o.Key, In: o.In}, band.Lead(o.Score))
	}},
	{"tab", plainText, func(_ context.Context, o lineIn, _ BandQuery, _ form.Reading) (download, error) {
		return file(plainText, o.Title, "txt", tabtext.Write(o.felt())), nil
	}},
	{sheets[0].ending, sheets[0].kind, onSheet(sheets[0])},
	{sheets[1].ending, sheets[1].kind, onSheet(sheets[1])},
}

func onSheet(k sheet) func(context.Context, lineIn, BandQuery, form.Reading) (download, error) {
	return func(_ context.Context, o lineIn, _ BandQuery, r form.Reading) (download, error) {
		return k.file(o.Title, musicxml.Write(o.felt().Read(r)))
	}
}

// lineFiles registers how lines and licks leave as files, and as sound.
func (s *server) lineFiles(api huma.API) {
	type LineFile struct {
		ByID
		InFormat
		BandQuery
		Level
		ReadingQuery
	}
	files(s, api, "/api/lines/{id}", "line-file", "A kept line as a file", each(lineFormats, func(k lineFormat) leaving[LineFile, download] {
		return leaving[LineFile, download]{k.name, k.mime, func(ctx context.Context, in LineFile) (none download, err error) {
			o, r, err := s.lineFor(in.ID, in.Level, in.ReadingQuery)
			if err != nil {
				return none, err
			}
			return k.write(ctx, o, in.BandQuery, r)
		}}
	}))
	type LicksFile struct {
		InFormat
		IDs []uint `query:"id,explode" required:"true" minItems:"1" maxItems:"100"`
		BandQuery
	}
	files(s, api, "/api/licks", "licks-file", "Licks as a file, one behind the other", each(lineFormats, func(k lineFormat) leaving[LicksFile, download] {
		return leaving[LicksFile, download]{k.name, k.mime, func(ctx context.Context, in LicksFile) (none download, err error) {
			o, err := s.licksAsLine(in.IDs)
			if err != nil {
				return none, err
			}
			return k.write(ctx, o, in.BandQuery, form.Reading{})
		}}
	}))
	get(s, api, "/api/lines/{id}/score", "line-score", "A kept line on paper, as players of a reading write it",
		func(_ context.Context, in *struct {
			ByID
			Level
			ReadingQuery
		}) (none Score, err error) {
			o, r, err := s.lineFor(in.ID, in.Level, in.ReadingQuery)
			if err != nil {
				return none, err
			}
			return wireScore(o.Score.Read(r)), nil
		})
	op := delivery("/api/lines/midi", "play-line", "The band playing a line that need not be kept", "audio/midi")
	op.Method = http.MethodPost
	register(s, api, op, queued(s, func(ctx context.Context, in *struct {
		BandQuery
		Level
		Body LineBody
	}) (none download, err error) {
		o, err := s.read(in.Body)
		if err != nil {
			return none, err
		}
		return lineFormats[0].write(ctx, in.of(o), in.BandQuery, form.Reading{})
	}))
}

// licksAsLine lays licks on the player's neck, one behind the other.
func (s *server) licksAsLine(ids []uint) (o lineIn, err error) {
	var lines []edit.Line
	for _, id := range ids {
		l, err := s.store.Lick(id)
		if err != nil {
			return o, missing("lick", err)
		}
		shown, err := s.show(l)
		if err != nil {
			return o, at("query.id", id, err)
		}
		lines = append(lines, shown)
	}
	title := lines[0].Title
	if len(lines) > 1 {
		title = say.F("%d licks", len(lines))
	}
	return lineIn{Line: edit.Joined(title, lines)}, nil
}

// felt is the line's score with its feel.
func (o lineIn) felt() score.Score {
	s := o.Score
	s.Feel = o.Line.Feel
	return s
}

// lineFor finds a kept line, at a level and for players of a reading.
func (s *server) lineFor(id uint, level Level, q ReadingQuery) (o lineIn, r form.Reading, err error) {
	l, err := s.store.Line(id)
	if err != nil {
		return o, r, huma.Error404NotFound("there is no such line; it may have been deleted")
	}
	if r, err = q.reading(); err != nil {
		return o, r, err
	}
	o, err = s.read(wireLine(l).LineBody)
	return level.of(o), r, err
}
