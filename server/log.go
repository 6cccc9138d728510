package server

import (
	"cmp"
	"context"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"io"
	"iter"
	"math"
	"net/http"
	"slices"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/neck"
	"undaris/core/planner"
	"undaris/core/practice"
	"undaris/core/score"
	"undaris/store"
)

// LogQuery is which part of the log is looked at.
type LogQuery struct {
	Chart  uint   `query:"chart" maximum:"4294967295" doc:"of one chart alone"`
	Tuning string `query:"tuning" maxLength:"80" doc:"of one instrument alone"`
	Weeks  int    `query:"weeks" minimum:"0" maximum:"1000" doc:"of the last so many weeks; 0 is all"`
}

// since is the first day of what is looked at; 0 is all.
func (q LogQuery) since() int {
	if q.Weeks == 0 {
		return 0
	}
	return planner.Since(q.Weeks, time.Now())
}

func (q LogQuery) tallied(player uint) store.Tallied {
	return store.Tallied{Player: player, Chart: q.Chart, Tuning: q.Tuning, Since: q.since()}
}

func (q LogQuery) lines(player uint) store.LogAsk {
	return store.LogAsk{Player: player, Chart: q.Chart, Tuning: q.Tuning, Since: q.since()}
}

// LogRow is a line of the log.
type LogRow struct {
	ID      uint      `json:"id"`
	At      time.Time `json:"at"`
	Kind    string    `json:"kind" enum:"call,take,rung,skip,ear"`
	Title   string    `json:"title"`
	Chart   uint      `json:"chart,omitempty"`
	Line    uint      `json:"line,omitempty" doc:"that was played"`
	Take    uint      `json:"take,omitempty" doc:"that was kept of it"`
	Tempo   int       `json:"tempo,omitempty"`
	Seconds float64   `json:"seconds"`
	Asked   int       `json:"asked" doc:"how many things"`
	Right   int       `json:"right" doc:"of them, that went right at once"`
	Went    float64   `json:"went" doc:"how well, of 1"`
}

func logRow(e store.Entry) LogRow {
	r := LogRow{e.ID, e.At, e.Kind, e.Title, e.Chart, e.Line, e.Take, e.Tempo, e.Seconds, len(e.Trials), 0, 0}
	for _, t := range e.Trials {
		if r.Went += t.Success / float64(len(e.Trials)); t.Success == 1 {
			r.Right++
		}
	}
	return r
}

// LogPage is a stretch of the log.
type LogPage struct {
	Rows  []LogRow `json:"rows"`
	Total int      `json:"total"`
	Lost  int      `json:"lost" doc:"lines that cannot be read"`
	Ahead int      `json:"ahead" doc:"lines that bore a day to come and were set to the time before them, since the program began"`
}

// Noting is what a page says of any line of the log. It may come late, since a page notes
// what it could not send when it can.
type Noting struct {
	Ref    string    `json:"ref,omitempty" maxLength:"64" doc:"of the page: what comes twice under one reference is noted once"`
	Player uint      `json:"player,omitempty" maximum:"4294967295" doc:"whose it is; of whose turn it is where it is not said"`
	At     time.Time `json:"at,omitzero" doc:"when it was; now where it is not said"`
}

func (n Noting) noting() Noting { return n }

// oldest is how late a line may come.
const oldest = 366 * 24 * time.Hour

// into says it of an entry: whose it is, and when it was, as far as that can be.
func (n Noting) into(e *store.Entry) {
	e.Ref, e.Player = n.Ref, n.Player
	if now := time.Now(); !n.At.IsZero() && n.At.Before(now) && now.Sub(n.At) < oldest {
		e.At = n.At
	}
}

// CallLog is a call as it went.
type CallLog struct {
	Noting
	Chart  uint        `json:"chart" maximum:"4294967295"`
	Kind   string      `json:"kind" maxLength:"20"`
	Key    string      `json:"key" maxLength:"10"`
	Chord  string      `json:"chord" maxLength:"40"`
	Degree string      `json:"degree" maxLength:"4" doc:"that was asked for: to start from, to name, or to bend to"`
	Down   bool        `json:"down,omitempty"`
	Device string      `json:"device,omitempty" maxLength:"20"`
	Window store.Frets `json:"window"`
	Given  *store.Spot `json:"given,omitempty"`
	Says   string      `json:"says" maxLength:"300"`
	How    string      `json:"how" enum:"right,uneven,late,shown,passed,skipped" doc:"skipped was let go on purpose, and tells nothing of how well it is known"`
	Took   float64     `json:"took,omitempty" minimum:"0" maximum:"3600000" doc:"milliseconds"`

	By      string      `json:"by,omitempty" enum:"name,neck,play" doc:"how it was answered"`
	Asked   string      `json:"asked,omitempty" maxLength:"4" doc:"where something else was answered first: the degree that was asked for then"`
	Said    string      `json:"said,omitempty" maxLength:"4" doc:"and the degree that was named"`
	Pressed *store.Spot `json:"pressed,omitempty" doc:"or the place that was pressed"`
	Played  float64     `json:"played,omitempty" minimum:"0" maximum:"127" doc:"or the note that was heard"`
}

// took is the degree that something was taken for; nothing where it was not.
func (b CallLog) took(in *neck.Instrument, chord harmony.Chord) string {
	midi := int(math.Round(b.Played))
	switch {
	case b.Said != "":
		if _, ok := harmony.Degree(b.Said).Interval(); !ok {
			return ""
		}
		return b.Said
	case b.Pressed != nil:
		if p := neck.Placement(*b.Pressed); in.CheckPlacement(p) == nil {
			midi = in.MIDI(p)
		}
	}
	if midi == 0 || chord.None {
		return ""
	}
	return string(blend.Sounds(chord)[chord.Above(midi)].Degree)
}

// skipped is how a call went that the player did not want to be asked.
const skipped = "skipped"

// callEntry makes a line of the log of a call.
func (s *server) callEntry(b CallLog) (e store.Entry, err error) {
	player, err := s.store.PlayerByID(b.Player)
	if err != nil {
		return e, missing("player", err)
	}
	in, _, err := playerNeck(player.Player)
	if err != nil {
		return e, err
	}
	key, err := readKey("body.key", b.Key)
	if err != nil {
		return e, err
	}
	chord, err := harmony.Parse(b.Chord)
	if err != nil {
		return e, at("body.chord", b.Chord, err)
	}
	device := b.Kind
	if b.Device != "" && b.Device != "plain" {
		device += " " + b.Device
	}
	t := store.Trial{Key: key.Tonic.Class(), Position: planner.PositionOf(in, key.Tonic.Class(), b.Window.Region()), Quality: chord.Suffix(), Degree: harmony.Degree(b.Degree).Role().String(),
		Down: b.Down, Device: device, Chord: b.Chord, Success: planner.Outcomes[b.How], Ms: b.Took}
	if b.Given != nil {
		t.String = b.Given.String
	}
	if t.By = b.By; b.Asked != "" {
		if t.Said = b.took(in, chord); t.Said != "" {
			t.Wanted = string(harmony.Degree(b.Asked))
		}
	}
	if b.How == skipped {
		return store.Entry{At: time.Now(), Kind: store.LoggedSkip, Title: b.Says, Chart: b.Chart, Tuning: in.Tuning(), Trials: []store.Trial{}}, nil
	}
	return store.Entry{At: time.Now(), Kind: store.LoggedCall, Title: b.Says, Chart: b.Chart, Tuning: in.Tuning(), Seconds: b.Took / 1000, Trials: []store.Trial{t}}, nil
}

// TakeLog is a take as it was heard.
type TakeLog struct {
	Noting
	Chart uint        `json:"chart,omitempty" maximum:"4294967295"`
	Of    uint        `json:"of,omitempty" maximum:"4294967295" doc:"the kept line that was played"`
	Title string      `json:"title" maxLength:"160"`
	Mode  string      `json:"mode,omitempty" maxLength:"40" doc:"empty where a line was played"`
	With  uint        `json:"with,omitempty" maximum:"4294967295" doc:"the lick that the mode was made of"`
	Pass  int         `json:"pass,omitempty" minimum:"0"`
	Line  LineBody    `json:"line" doc:"what was to be played, or the chords alone"`
	Tempo int         `json:"tempo" minimum:"30" maximum:"300"`
	Swing float64     `json:"swing,omitempty" minimum:"0" maximum:"0.75"`
	Heard []HeardNote `json:"heard" maxItems:"4096"`

	Played *PlayedSpan `json:"played,omitempty" doc:"how far; all of it where it is not said"`
}

// takeEntry judges a take once more and makes a line of the log of it.
func (s *server) takeEntry(b TakeLog) (e store.Entry, err error) {
	heard := each(b.Heard, func(h HeardNote) judge.Heard { return judge.Heard(h) })
	var trials []planner.Trial
	var o lineIn
	if b.Mode == "" {
		if o, err = s.read(b.Line); err != nil {
			return e, err
		}
		o.Score, _ = b.Played.core().Of(o.Score)
		take := judge.Prescribed(o.Score, heard, b.Tempo, o.swing(b.Swing, b.Tempo))
		trials = planner.FromTake(take, o.Line, b.Tempo)
		for _, v := range take.Verdicts {
			if e.Notes++; v.Is == judge.Right {
				e.Good++
			}
		}
	} else {
		var m practice.Mode
		if o, m, err = s.over(b.Line, b.Mode); err != nil {
			return e, err
		}
		f, err := m.JudgeSpan(o.Line, b.Pass, heard, b.Played.core(), b.Tempo, o.swing(b.Swing, b.Tempo))
		if err != nil {
			return e, at("body.heard", len(heard), err)
		}
		trials = planner.FromFree(f, m, b.Pass, heard, b.Tempo)
		if m.With == practice.Lick {
			e.Lick = b.With
		}
	}
	e.At, e.Kind, e.Title, e.Chart, e.Line, e.Tuning, e.Tempo = time.Now(), store.LoggedTake, clean(b.Title), b.Chart, b.Of, o.In.Tuning(), b.Tempo
	e.Seconds = float64(o.Length()) * 60 / float64(b.Tempo)
	if p := b.Played; p != nil {
		e.Seconds = min(e.Seconds, max(0, p.To-p.From)/score.Tick*60/float64(b.Tempo))
	}
	if e.Swung = judge.Swing(heard); e.Swung > 0 {
		e.Swing = o.swing(b.Swing, b.Tempo)
	}
	e.Trials = each(trials, store.TrialOf)
	return e, nil
}

// RungLog is a tempo that was reached on a ladder.
type RungLog struct {
	Noting
	Chart uint   `json:"chart,omitempty" maximum:"4294967295"`
	Line  uint   `json:"line,omitempty" maximum:"4294967295"`
	Title string `json:"title" maxLength:"160"`
	Tempo int    `json:"tempo" minimum:"30" maximum:"300"`
}

// ByEarLog is time that was spent with a recording while it sounded, or while its player answered it.
type ByEarLog struct {
	Noting
	Chart   uint    `json:"chart,omitempty" maximum:"4294967295" doc:"that it plays"`
	Title   string  `json:"title" maxLength:"160" doc:"of the recording"`
	Seconds float64 `json:"seconds" minimum:"1" maximum:"3600"`
}

// logging registers what adds a line to the log.
func logging[B interface{ noting() Noting }](s *server, api huma.API, path, id, summary string, entry func(B) (store.Entry, error)) {
	register(s, api, operation(http.MethodPost, path, id, summary, http.StatusCreated),
		body(queued(s, func(_ context.Context, in *struct{ Body B }) (LogRow, error) {
			e, err := entry(in.Body)
			if err != nil {
				return LogRow{}, err
			}
			in.Body.noting().into(&e)
			if err = s.store.Log(&e); err == nil { // which gives it its number
				s.follow()
			}
			return logRow(e), err
		})))
}

func (s *server) logs(api huma.API) {
	logging(s, api, "/api/log/calls", "log-call", "Note how a call went", s.callEntry)
	logging(s, api, "/api/log/takes", "log-take", "Note how a take went", s.takeEntry)
	logging(s, api, "/api/log/rungs", "log-rung", "Note a tempo that was reached", func(b RungLog) (store.Entry, error) {
		return store.Entry{At: time.Now(), Kind: store.LoggedRung, Title: clean(b.Title), Chart: b.Chart, Line: b.Line, Tempo: b.Tempo, Trials: []store.Trial{}}, nil
	})
	logging(s, api, "/api/log/ears", "log-by-ear", "Note time spent with a recording", func(b ByEarLog) (store.Entry, error) {
		return store.Entry{At: time.Now(), Kind: store.LoggedByEar, Title: clean(b.Title), Chart: b.Chart, Seconds: b.Seconds, Trials: []store.Trial{}}, nil
	})
	register(s, api, operation(http.MethodPut, "/api/log/{id}/take", "log-kept", "Note which kept take is behind a line of the log", http.StatusNoContent),
		func(_ context.Context, in *struct {
			ByID
			Body struct {
				Take uint `json:"take" maximum:"4294967295"`
			}
		}) (struct{}, error) {
			err := s.store.LogTake(in.ID, in.Body.Take)
			return struct{}{}, missing("line in the log", err)
		})
	register(s, api, operation(http.MethodDelete, "/api/log/{id}", "unlog", "Take a line out of the log; it can be put back", http.StatusNoContent),
		func(_ context.Context, in *ByID) (struct{}, error) { return struct{}{}, s.unlog(in.ID, true) })
	register(s, api, operation(http.MethodPost, "/api/log/{id}/restore", "relog", "Put a line back into the log", http.StatusNoContent),
		func(_ context.Context, in *ByID) (struct{}, error) { return struct{}{}, s.unlog(in.ID, false) })
	get(s, api, "/api/log", "log", "The log, the newest first",
		func(_ context.Context, in *struct {
			LogQuery
			PageQuery
			ID     []uint `query:"id,explode" maxItems:"50" doc:"these lines alone"`
			Before uint   `query:"before" maximum:"4294967295" doc:"lines of smaller numbers alone: how to go on, at any depth"`
		}) (p LogPage, err error) {
			p.Rows = []LogRow{}
			var asked store.LogAsk
			err = s.picture(func(now *planner.Picture) error {
				counted, err := s.counted(in.LogQuery)
				if err != nil {
					return err
				}
				p.Total, p.Lost, p.Ahead, asked = counted.Lines, now.Lost, s.journal.repaired, in.lines(s.journal.player)
				return nil
			})
			if err != nil {
				return p, err
			}
			asked.Only, asked.Before, asked.Newest, asked.Limit, asked.Offset = in.ID, in.Before, true, cmp.Or(in.Limit, len(in.ID)), in.Offset
			for l, err := range s.store.Logged(asked) {
				if err != nil {
					return p, err
				}
				if !l.Lost {
					p.Rows = append(p.Rows, logRow(l.Entry))
				}
			}
			if len(in.ID) > 0 {
				p.Total = len(p.Rows)
			}
			return p, nil
		})
	get(s, api, "/api/log/maps", "log-maps", "The log as maps: keys and positions, strings, changes, starts, weeks, ladders, timing",
		func(_ context.Context, in *LogQuery) (LogMaps, error) { return s.logMaps(*in) })
	files(s, api, "/api/log", "log-file", "The log as a file", []leaving[LogFile, streamed]{
		{"csv", "text/csv; charset=utf-8", s.logTable},
		{"json", "application/json", s.logWhole},
	})
}

// LogFile says what of the log leaves as a file.
type LogFile struct {
	InFormat
	LogQuery
}

// logFile is a file of the log, written while it is read.
func (s *server) logFile(of LogQuery, mime, ending string, write func(io.Writer, iter.Seq[store.Entry]) error) (streamed, error) {
	var ask store.LogAsk
	if err := s.picture(func(*planner.Picture) error { ask = of.lines(s.journal.player); return nil }); err != nil {
		return streamed{}, err
	}
	return writing(mime, "undaris log", ending, func(w io.Writer) error {
		var failed error
		err := write(w, func(yield func(store.Entry) bool) {
			for l, err := range s.store.Logged(ask) {
				if failed = err; err != nil || !l.Lost && !yield(l.Entry) {
					return
				}
			}
		})
		return cmp.Or(failed, err)
	}), nil
}

// columns are those of the log as a table: of a line, then of one thing that was asked in it, which a line without any has none of.
var columns = []string{"line", "at", "kind", "title", "chart", "played line", "lick", "take", "tuning", "tempo", "seconds", "swing asked", "swing played", "notes", "right notes",
	"bar", "key", "position", "quality", "chord", "from", "degree", "down", "device", "string", "met", "on", "success", "ms", "timed", "answered by", "wanted", "said"}

// logTable is the log, whole, with a row for each thing asked, and one for each line in which nothing was.
func (s *server) logTable(_ context.Context, in LogFile) (streamed, error) {
	return s.logFile(in.LogQuery, "text/csv; charset=utf-8", "csv", func(to io.Writer, log iter.Seq[store.Entry]) error {
		w := csv.NewWriter(to)
		_ = w.Write(columns)
		n := func(x uint) string { return strconv.FormatUint(uint64(x), 10) }
		f := func(x float64) string { return strconv.FormatFloat(x, 'g', -1, 64) }
		for e := range log {
			line := []string{n(e.ID), e.At.Format(time.RFC3339), e.Kind, e.Title, n(e.Chart), n(e.Line), n(e.Lick), n(e.Take), e.Tuning, strconv.Itoa(e.Tempo), f(e.Seconds), f(e.Swing), f(e.Swung), strconv.Itoa(e.Notes), strconv.Itoa(e.Good)}
			if len(e.Trials) == 0 {
				_ = w.Write(append(line, make([]string, len(columns)-len(line))...))
			}
			for _, t := range e.Trials {
				_ = w.Write(append(slices.Clip(line), strconv.Itoa(t.Bar), planner.KeyName(t.Key).String(), strconv.Itoa(t.Position+1), t.Quality, t.Chord, t.From, t.Degree,
					strconv.FormatBool(t.Down), t.Device, strconv.Itoa(t.String), t.Met, t.On, f(t.Success), f(t.Ms), strconv.FormatBool(t.Timed), t.By, t.Wanted, t.Said))
			}
		}
		w.Flush()
		return w.Error()
	})
}

// logWhole is the log with everything in it.
func (s *server) logWhole(_ context.Context, in LogFile) (streamed, error) {
	return s.logFile(in.LogQuery, "application/json", "json", func(w io.Writer, log iter.Seq[store.Entry]) error {
		before := "{\n \"log\": ["
		for e := range log {
			text, err := json.MarshalIndent(e, "  ", " ")
			if err == nil {
				_, err = fmt.Fprintf(w, "%s\n  %s", before, text)
			}
			if before = ","; err != nil {
				return err
			}
		}
		if before != "," {
			_, _ = io.WriteString(w, before)
		}
		_, err := io.WriteString(w, "\n ],\n \"version\": 1\n}")
		return err
	})
}
