package server

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/lick"
	"undaris/core/score"
	"undaris/formats/midi"
	"undaris/formats/musicxml"
	"undaris/formats/tabtext"
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
func (s *server) imported(ctx context.Context, name string, chart uint, data []byte) (o onPaper, err error) {
	player, err := s.store.Player()
	if err != nil {
		return o, err
	}
	in, hand, err := playerNeck(player.Player)
	if err != nil {
		return o, err
	}
	base := score.Score{In: in, Tempo: 100, Progression: form.Progression{Beats: 4}}
	feel := ""
	if chart != 0 {
		c, err := s.chart(chart)
		if err != nil {
			return o, err
		}
		if base.Progression, base.Key, err = progression(c); err != nil {
			return o, err
		}
		feel = c.Feel
		base.Swing = band.Swings(feel)
	}
	refuse := func(err error) error { return at("body", name, err) }
	var got score.Score
	switch kind := kindOf(name, data); kind {
	case "musicxml":
		f, err := musicxml.Read(ctx, data)
		if err != nil {
			return o, refuse(err)
		}
		if f.In != nil && f.In.Tuning() != in.Tuning() {
			f.Said = append(f.Said, fmt.Sprintf("it is written for a neck tuned %s; places were found on yours", f.In.Tuning()))
		}
		got, o.Said = f.Score, f.Said
	case "midi":
		f, err := midi.Read(ctx, data)
		if err != nil {
			return o, refuse(err)
		}
		if got, o.Said, err = f.Line(base); err != nil {
			return o, refuse(err)
		}
	case "tab":
		if got, o.Said, err = tabtext.Read(ctx, data, in); err != nil {
			return o, refuse(err)
		}
		if got.In.Tuning() != in.Tuning() || got.In.Capo != in.Capo {
			o.Said = append(o.Said, fmt.Sprintf("it is written for a neck tuned %s; places were found on yours", got.In.Tuning()))
		}
	default:
		return o, refuse(errors.New("this is no MusicXML, MIDI or tablature text; a file ends in .musicxml, .mxl, .xml, .mid or .txt"))
	}
	if chart != 0 && silent(got.Progression) { // the file has no chords: the chart's are laid under
		for i := range got.Bars {
			if i < len(base.Bars) {
				got.Bars[i].Changes = base.Bars[i].Changes
			}
		}
		got.Key = base.Key
	}
	if got.Title == "" {
		got.Title = clean(strings.TrimSuffix(name, "."+ending(name)))
	}
	if got.Tempo < minTempo || got.Tempo > maxTempo {
		o.Said = append(o.Said, fmt.Sprintf("a tempo of %d cannot be played; it was set to the nearest that can", got.Tempo))
		got.Tempo = min(maxTempo, max(minTempo, got.Tempo))
	}
	if feel == "" {
		feel = map[bool]string{true: "shuffle", false: "straight"}[got.Swing]
	}
	got.In = in
	w := edit.Around(got)
	if odd := got.MarkOdd(); odd > 0 {
		o.Said = append(o.Said, fmt.Sprintf("%d notes stand in divisions that cannot be written here, such as fives or sevens; they sound where they were and are drawn at the nearest place", odd))
	}
	o.Line = edit.Line{Score: got, Hand: hand, Window: w, Said: o.Said}
	o = onPaper{Line: o.Line, body: LineBody{Title: got.Title, Key: got.Key.String(), Feel: feel, Tempo: got.Tempo, Beats: got.Beats, Low: w.Low, High: w.High, Tuning: player.Tuning, Frets: player.Frets, Capo: player.Capo}}
	lick.Separate(o.Notes, len(o.Bars)*o.Bar())
	o.LeaveOut()
	if err := o.SettleMarked(); err != nil {
		return o, at("body.notes", nil, err)
	}
	o.Window = edit.Around(o.Score)
	// Read anew, it is a line like any other.
	again, err := s.read(o.line())
	again.Said = o.Said
	return again, err
}

func silent(p form.Progression) bool {
	for _, place := range p.Places() {
		if !place.Chord.None {
			return false
		}
	}
	return true
}

func ending(name string) string {
	if i := strings.LastIndexByte(name, '.'); i >= 0 {
		return name[i+1:]
	}
	return ""
}

// kindOf tells what a file is, by its beginning before its name.
func kindOf(name string, data []byte) string {
	head := strings.TrimSpace(string(data[:min(len(data), 400)]))
	switch {
	case strings.HasPrefix(head, "MThd"):
		return "midi"
	case musicxml.Compressed(data):
		return "musicxml"
	case strings.Contains(head, "<score-partwise") || strings.HasPrefix(head, "<?xml") || strings.HasPrefix(head, "<!DOCTYPE score"):
		return "musicxml"
	}
	switch strings.ToLower(ending(name)) {
	case "musicxml", "mxl", "xml":
		return "musicxml"
	case "mid", "midi":
		return "midi"
	case "txt", "tab":
		return "tab"
	}
	return ""
}
