package server

import (
	"bytes"
	stdjson "encoding/json"
	"errors"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/segmentio/encoding/json"

	"undaris/core/say"
	"undaris/store"
)

// Results are what came of an assignment, as they travel in a file.
type Results struct {
	Kind       string       `json:"kind" enum:"undaris results"`
	Version    int          `json:"version"`
	Ref        string       `json:"ref" minLength:"1" maxLength:"64" doc:"of these results"`
	Assignment string       `json:"assignment" minLength:"1" maxLength:"64" doc:"the ref of the assignment"`
	Title      string       `json:"title" maxLength:"120"`
	Pupil      string       `json:"pupil" maxLength:"60"`
	Words      string       `json:"words,omitempty" maxLength:"4000"`
	Began      time.Time    `json:"began"`
	Returned   time.Time    `json:"returned"`
	Minutes    float64      `json:"minutes" doc:"played since it began, of whatever was asked"`
	Aims       []ResultAim  `json:"aims" maxItems:"60"`
	Played     []ResultRow  `json:"played" maxItems:"500" doc:"what was played of it, the newest first"`
	Takes      []ResultTake `json:"takes" maxItems:"20" doc:"that were kept of it, the newest first"`
}

// ResultAim is an aim in results, with how far it came.
type ResultAim struct {
	Says  string `json:"says" maxLength:"400"`
	Kind  string `json:"kind" maxLength:"20" doc:"of the catalogue's aims"`
	Times int    `json:"times,omitempty"`
	AimProgress
}

// ResultRow is a line of the log in results.
type ResultRow struct {
	At      time.Time `json:"at"`
	Title   string    `json:"title" maxLength:"300"`
	Tempo   int       `json:"tempo,omitempty"`
	Seconds float64   `json:"seconds"`
	Asked   int       `json:"asked"`
	Went    float64   `json:"went"`
}

// ResultTake is a take in results.
type ResultTake struct {
	At      time.Time `json:"at"`
	Title   string    `json:"title" maxLength:"160"`
	Tempo   int       `json:"tempo" minimum:"30" maximum:"300"`
	Changes int       `json:"changes"`
	Landed  int       `json:"landed"`
	Good    string    `json:"good" maxLength:"400"`
	Try     string    `json:"try" maxLength:"400"`
	Bars    int       `json:"bars"`
	Line    LineBody  `json:"line" doc:"what was played, written down"`
}

// Most that go into results.
const (
	mostPlayed = 500
	mostTakes  = 20
)

// results are those of an assignment, as of now.
func (s *server) results(a store.Assignment, said string) (r Results, err error) {
	d, err := written(a)
	if err != nil {
		return r, err
	}
	player, err := s.store.Player()
	if err != nil {
		return r, err
	}
	aims, err := s.aims(d, a)
	if err != nil {
		return r, err
	}
	r = Results{Kind: resultsKind, Version: documentVersion, Ref: reference(), Assignment: d.Ref, Title: d.Title, Pupil: player.Name, Words: said,
		Began: a.CreatedAt.UTC().Truncate(time.Second), Returned: time.Now().UTC().Truncate(time.Second), Aims: []ResultAim{}, Played: []ResultRow{}, Takes: []ResultTake{}}
	for _, aim := range aims {
		r.Aims = append(r.Aims, ResultAim{aim.Says, aim.Kind, aim.Times, aim.AimProgress})
	}
	about := append(slices.Clone(a.Things.Lines), a.Things.Exercises...)
	about = slices.DeleteFunc(about, func(id uint) bool { return id == 0 })
	charts := slices.DeleteFunc(slices.Clone(a.Things.Charts), func(id uint) bool { return id == 0 })
	if r.Minutes, err = s.store.MinutesSince(player.ID, a.Since); err != nil || len(about)+len(charts) == 0 {
		return r, err
	}
	for l, err := range s.store.Logged(store.LogAsk{Player: player.ID, After: a.Since, Charts: charts, Lines: about, Newest: true}) {
		e := l.Entry
		if err != nil {
			return r, err
		}
		if l.Lost {
			continue
		}
		if len(r.Played) >= mostPlayed && len(r.Takes) >= mostTakes {
			break
		}
		if row := logRow(e); len(r.Played) < mostPlayed {
			r.Played = append(r.Played, ResultRow{e.At.UTC(), e.Title, e.Tempo, e.Seconds, row.Asked, row.Went})
		}
		if e.Take == 0 || len(r.Takes) >= mostTakes {
			continue
		}
		if t, err := s.store.Take(e.Take); err == nil {
			r.Takes = append(r.Takes, ResultTake{t.CreatedAt.UTC(), t.Title, t.Tempo, t.Changes, t.Landed, t.Good, t.Try, t.Line.Bars, wireLine(t.Line).LineBody})
		}
	}
	return r, nil
}

// readResults reads results that came back, and keeps them with what they are of.
func (s *server) readResults(api huma.API, data []byte) (Lesson, error) {
	r, said, err := document[Results](api, data, resultsKind)
	if err != nil {
		return Lesson{}, err
	}
	player, err := s.store.Player()
	if err != nil {
		return Lesson{}, err
	}
	known, err := s.store.AssignmentsOf(r.Assignment)
	if err != nil {
		return Lesson{}, err
	}
	i := slices.IndexFunc(known, func(a store.Assignment) bool { return !a.Given && a.Player == player.ID })
	if i < 0 {
		if i = slices.IndexFunc(known, func(a store.Assignment) bool { return !a.Given }); i >= 0 {
			return Lesson{}, at("body", nil, errors.New("another player made this assignment; it is for them to read what came of it"))
		}
		return Lesson{}, at("body", nil, say.Errorf("these are results of “%s”, which was not made here, or was deleted", clean(r.Title)))
	}
	// What was left out of the file is left out of what is kept, too.
	r.Aims = slices.DeleteFunc(r.Aims, func(a ResultAim) bool { return a.Kind == "" })
	r.Played = slices.DeleteFunc(r.Played, func(p ResultRow) bool { return p.At.IsZero() })
	r.Takes = slices.DeleteFunc(r.Takes, func(t ResultTake) bool {
		if t.Title == "" {
			return true
		}
		if _, err := s.read(t.Line); err != nil {
			said = append(said, say.F("the take “%s” is left out: %v", clean(t.Title), err))
			return true
		}
		return false
	})
	text, err := json.Marshal(r)
	if err != nil {
		return Lesson{}, err
	}
	if err := s.store.KeepResults(&store.Results{AssignmentID: known[i].ID, Ref: r.Ref, Document: string(text)}); err != nil {
		return Lesson{}, err
	}
	l, err := s.lesson(known[i])
	l.Said = append(words(said), l.Said...)
	return l, err
}

// readable sets JSON out in lines.
func readable(text []byte) []byte {
	var out bytes.Buffer
	if stdjson.Indent(&out, text, "", "  ") != nil {
		return text
	}
	return append(out.Bytes(), '\n')
}
