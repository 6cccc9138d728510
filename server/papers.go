package server

import (
	"context"
	"errors"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/band"
	"undaris/core/chart"
	"undaris/core/form"
	"undaris/core/score"
	"undaris/formats/charttext"
	"undaris/formats/midi"
	"undaris/formats/musicxml"
	"undaris/store"
)

// PaperQuery says what of a chart is to be written down.
type PaperQuery struct {
	ByID
	RegionQuery
	Of   string `query:"of" enum:"run,crossing,thread,chords" default:"thread"`
	Step int    `query:"step" doc:"for a run or a crossing: which chord of the form, from 0"`
	ReadingQuery
}

// ReadingQuery says in which pitch players read.
type ReadingQuery struct {
	Reading string `query:"reading" maxLength:"20" doc:"of the catalogue's readings: concert, bb, eb or a capo"`
}

func (q ReadingQuery) reading() (form.Reading, error) {
	r, err := form.ReadingByID(q.Reading)
	return r, at("query.reading", q.Reading, err)
}

// Leaf is a chart's chords on paper.
type Leaf struct {
	Title  string `json:"title"`
	Key    string `json:"key" doc:"as it is written"`
	Sounds string `json:"sounds" doc:"the key that sounds"`
	Feel   string `json:"feel" doc:"its name"`
	Tempo  int    `json:"tempo"`
	Beats  int    `json:"beats"`
	Sheet  Sheet  `json:"sheet"`

	Remarks string `json:"remarks,omitempty"`
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

// song is a kept chart as it is written.
func (s *server) song(c store.Chart) (form.Song, error) {
	key, err := form.ParseKey(c.Key)
	if err != nil {
		return form.Song{}, spoilt("chart", err)
	}
	song, _, err := form.ReadSong(c.Text, c.Beats, key)
	return song, spoilt("chart", err)
}

func (s *server) papers(api huma.API) {
	get(s, api, "/api/charts/{id}/score", "chart-score", "A run, a crossing or the thread of a chart on staff and tablature",
		func(ctx context.Context, in *PaperQuery) (Score, error) {
			_, sc, err := s.paper(ctx, *in)
			if err != nil {
				return Score{}, err
			}
			r, err := in.reading()
			return wireScore(sc.Read(r)), err
		})
	get(s, api, "/api/charts/{id}/leaf", "chart-leaf", "The chords of a chart, as players of a reading write them",
		func(_ context.Context, in *struct {
			ByID
			ReadingQuery
			Of string `query:"of" enum:"band,solo" default:"band" doc:"solo: with the bars that only the soloist follows"`
		}) (Leaf, error) {
			r, err := in.reading()
			if err != nil {
				return Leaf{}, err
			}
			on, c, err := s.handed(in.ID)
			if err != nil {
				return Leaf{}, err
			}
			p, key := on.Band, on.Key
			if in.Of == "solo" {
				p = on.Solo
			}
			feel, _ := form.FeelByID(c.Feel)
			return Leaf{c.Title, r.Key(key).String(), key.String(), feel.Name, c.Tempo, c.Beats, wireSheet(r.Chords(p, key), r.Key(key)), c.Remarks}, nil
		})
	files(s, api, "/api/charts/{id}", "chart-file", "A chart as a file", []leaving[ChartFile, download]{
		{"text", plainText, s.chartText("txt", charttext.Write)},
		{"chordpro", plainText, s.chartText("cho", charttext.WriteChordPro)},
		{"midi", "audio/midi", s.chartPlayed},
		{"score-midi", "audio/midi", func(ctx context.Context, in ChartFile) (none download, err error) {
			c, sc, err := s.paper(ctx, in.paper())
			if err != nil {
				return none, err
			}
			in.as("", "")
			return in.play(ctx, sc.Progression, c.Feel, midi.Head{Title: sc.Title, Tempo: sc.Tempo, Key: sc.Key}, band.Lead(sc))
		}},
		{sheets[0].ending, sheets[0].kind, s.chartOn(sheets[0])},
		{sheets[1].ending, sheets[1].kind, s.chartOn(sheets[1])},
	})
}

// plainText is what a file of letters is.
const plainText = "text/plain; charset=utf-8"

// ChartFile says what of a chart leaves as a file, and how; each format heeds what concerns it.
type ChartFile struct {
	ByID
	InFormat
	BandQuery
	Of      string `query:"of" enum:"run,crossing,thread,chords" default:"thread" doc:"what is on paper"`
	Step    int    `query:"step" doc:"for a run or a crossing: which chord of the form, from 0"`
	Lead    string `query:"lead" enum:"thread" doc:"thread: its targets are played over the band"`
	Low     int    `query:"low" minimum:"0" maximum:"27" doc:"with high: the window of what is on paper, or of the thread"`
	High    int    `query:"high"`
	Strings string `query:"strings" maxLength:"20" doc:"of it, such as 5,2"`
	ReadingQuery
}

func (q ChartFile) paper() PaperQuery {
	return PaperQuery{q.ByID, RegionQuery{q.Low, q.High, q.Strings}, q.Of, q.Step, q.ReadingQuery}
}

// chartText writes a chart as text, which is read again as it is, or as a ChordPro song with one grid.
func (s *server) chartText(ending string, write func(charttext.Chart) []byte) func(context.Context, ChartFile) (download, error) {
	return func(_ context.Context, in ChartFile) (none download, err error) {
		c, err := s.chart(in.ID)
		if err != nil {
			return none, err
		}
		song, err := s.song(c)
		if err != nil {
			return none, err
		}
		key, err := form.ParseKey(c.Key)
		if err != nil {
			return none, err
		}
		feel, _ := form.FeelByID(c.Feel)
		return file(plainText, c.Title, ending, write(charttext.Chart{Title: c.Title, Key: key, Tempo: c.Tempo, Feel: feel, Song: song, Beside: beside(c)})), nil
	}
}

// beside is what a kept chart holds beside its bars.
func beside(c store.Chart) form.Beside {
	return form.Beside{Swing: c.Swing, Remarks: c.Remarks, Tags: c.Tags, Intro: c.Intro, Ending: c.Ending, Reading: c.Reading}
}

// chartOn writes what is on paper as a file of MusicXML.
func (s *server) chartOn(k sheet) func(context.Context, ChartFile) (download, error) {
	return func(ctx context.Context, in ChartFile) (none download, err error) {
		c, sc, err := s.paper(ctx, in.paper())
		if err != nil {
			return none, err
		}
		r, err := in.reading()
		if err != nil {
			return none, err
		}
		sc.Feel = c.Feel
		if in.Of == "chords" { // as it is written, with its repeats
			song, err := s.song(c)
			if err != nil {
				return none, err
			}
			sc.Progression = song.Flat()
			return k.file(sc.Title, musicxml.WriteSong(sc.Read(r), each(song.Bars, func(w form.Written) form.Signs { return w.Signs }), beside(c)))
		}
		return k.file(sc.Title, musicxml.Write(sc.Read(r)))
	}
}
