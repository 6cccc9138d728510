package server

import (
	"cmp"
	"encoding/json"
	"errors"
	"io"
	"math"
	"net/http"
	"reflect"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"
	"github.com/gorilla/websocket"

	"undaris/core/ear"
	"undaris/core/judge"
	"undaris/core/practice"
	"undaris/core/score"
)

// Observation is what the ear of the page noticed. It comes in batches, over a
// socket; the rest of the wire stands in said and told.
type Observation struct {
	Seq        int          `json:"seq"`
	Kind       ear.Kind     `json:"kind"`
	Of         int          `json:"of"`
	Tick       float64      `json:"tick"`
	MIDI       float64      `json:"midi"`
	Width      float64      `json:"width"`
	Rate       float64      `json:"rate"`
	Uneven     float64      `json:"uneven"`
	Low        float64      `json:"low"`
	Clarity    float64      `json:"clarity"`
	Level      float64      `json:"level"`
	Fresh      float64      `json:"fresh"`
	Candidates [][2]float64 `json:"candidates"`
}

func (o Observation) core() ear.Observation {
	to := ear.Observation{Seq: o.Seq, Kind: o.Kind, Of: o.Of, Tick: o.Tick, MIDI: o.MIDI, Width: o.Width, Rate: o.Rate, Uneven: o.Uneven, Low: o.Low, Clarity: o.Clarity, Level: o.Level, Fresh: o.Fresh}
	for _, c := range o.Candidates[:min(len(o.Candidates), mostWeighed)] {
		to.Candidates = append(to.Candidates, ear.Candidate{MIDI: int(c[0]), Strength: c[1]})
	}
	return to
}

// said is what the page says: first what is to be played, then what was noticed and
// where the band is, at last that it is over.
type said struct {
	Line         json.RawMessage `json:"line"`  // nothing where anything may be played
	Mode         string          `json:"mode"`  // where nothing is written, and only the chords of the line are there
	Pass         int             `json:"pass"`  // of the mode
	Hold         *Holding        `json:"hold"`  // limits that are held to besides
	Band         [][2]float64    `json:"band"`  // what the band plays meanwhile: ticks and MIDI numbers
	Known        int             `json:"known"` // strokes that were in tune before, of the same player; what needs no ear is known at once
	Tempo        int             `json:"tempo"`
	Swing        float64         `json:"swing"`
	Observations []Observation   `json:"observations"`
	Now          float64         `json:"now"` // tick that is heard
	End          bool            `json:"end"`
	Played       *PlayedSpan     `json:"played"` // at the end: how far; all of it where it is not said
}

// told is what the page is told.
type told struct {
	From     int           `json:"from"`               // the first of the notes that changed
	Heard    []HeardNote   `json:"heard,omitempty"`    // the notes from there on
	Verdicts []Verdict     `json:"verdicts,omitempty"` // of notes that were judged anew
	Landings []FreeLanding `json:"landings,omitempty"` // of a mode: changes that were judged anew
	Take     *Take         `json:"take,omitempty"`     // at the end
	Free     *FreeTake     `json:"free,omitempty"`     // at the end of a pass of a mode
	Written  *LineBody     `json:"written,omitempty"`  // at the end: what was played, written down
	InTune   int           `json:"inTune,omitempty"`   // at the end: strokes that were in tune, to be told with the next take
	Error    string        `json:"error,omitempty"`
}

// Limits of a socket.
const (
	mostSaid    = 2 << 20 // bytes in one message: the longest line
	mostNoticed = 100000  // observations in one take
	mostStrokes = 16000   // notes in one, four times the longest line
	mostWeighed = 24      // notes that one stroke may have brought
	certain     = 12      // strokes that a player is known by
	mostEars    = 32      // takes that are listened to at once
	silentFor   = time.Minute
	writesFor   = 5 * time.Second
	settles     = 0.6 * score.Tick // ticks after which a note that was not heard is told so
)

var upgrader = websocket.Upgrader{ReadBufferSize: 4096, WriteBufferSize: 4096}

// ears listens to takes: one socket for each.
func (s *server) ears(engine *gin.Engine) {
	places := make(chan struct{}, mostEars)
	engine.GET("/api/ear", func(c *gin.Context) {
		select {
		case places <- struct{}{}:
			defer func() { <-places }()
		default:
			refuse(c.Writer, http.StatusServiceUnavailable, "Undaris listens to as many takes as it can already; end one of them")
			return
		}
		conn, err := upgrader.Upgrade(c.Writer, c.Request, nil)
		if err != nil {
			return // it was answered
		}
		defer func() { _ = conn.Close() }()
		conn.SetReadLimit(mostSaid)
		l := listening{server: s}
		for {
			_ = conn.SetReadDeadline(time.Now().Add(silentFor))
			var in said
			_, message, err := conn.ReadMessage()
			if err == nil && deeper(message, maxDepth) {
				err = &json.SyntaxError{Offset: int64(len(message))}
			} else if err == nil {
				err = json.Unmarshal(message, &in)
			}
			if err != nil {
				var syntax *json.SyntaxError
				var kind *json.UnmarshalTypeError
				if errors.As(err, &syntax) || errors.As(err, &kind) || errors.Is(err, io.ErrUnexpectedEOF) {
					_ = conn.SetWriteDeadline(time.Now().Add(writesFor))
					_ = conn.WriteJSON(told{Error: "this is not what an ear notices: " + err.Error()})
				}
				return
			}
			var out *told
			over := false
			if err := s.inTurn(c.Request.Context(), func() error { out, over = l.hear(in); return nil }); err != nil {
				out, over = &told{Error: err.Error()}, true
			}
			if out == nil {
				continue
			}
			_ = conn.SetWriteDeadline(time.Now().Add(writesFor))
			if conn.WriteJSON(out) != nil || over {
				return
			}
		}
	})
}

// listening is one take that is listened to.
type listening struct {
	server   *server
	line     *lineIn
	ear      *ear.Listener
	tempo    int
	swing    float64
	noticed  int
	now      float64        // tick that was heard the last time
	mode     *practice.Mode // where one is practised
	pass     int
	holds    []practice.Hold
	heard    []judge.Heard
	landings map[int]FreeLanding
	follow   *judge.Follow
	verdicts []judge.Verdict
}

// hear takes what the page said. over tells that nothing more is expected of it.
func (l *listening) hear(in said) (out *told, over bool) {
	begins := len(in.Line) > 0 && string(in.Line) != "null"
	if begins {
		if err := l.begin(in); err != nil {
			return &told{Error: err.Error()}, true
		}
	}
	if l.ear == nil {
		l.ear = ear.Listen(nil)
		l.ear.Known(certain) // whatever is played is told, and nothing judged
	}
	if in.Known > 0 {
		l.ear.Known(in.Known)
	}
	if l.noticed += len(in.Observations); l.noticed > mostNoticed {
		return &told{Error: "this take is too long to be listened to; play a part of it"}, true
	}
	for _, o := range in.Observations {
		l.ear.Hear(o.core())
	}
	heard := l.ear.Heard()
	if l.ear.Strokes() > mostStrokes {
		return &told{Error: "this take has too many notes to be listened to; play a part of it"}, true
	}
	out = &told{From: common(l.heard, heard)}
	since := firstTick(l.heard[out.From:], heard[out.From:])
	out.Heard = each(heard[out.From:], func(h judge.Heard) HeardNote { return HeardNote(h) })
	l.heard = heard
	if in.End {
		out.InTune = l.ear.InTune()
	}
	switch {
	case l.mode != nil:
		var f practice.Free
		var err error
		if in.End {
			f, err = l.mode.JudgeSpan(l.line.Line, l.pass, heard, in.Played.core(), l.tempo, l.swing)
			f.Hold(l.holds)
		} else { // also what was met by silence since the last time
			f, err = l.mode.Lately(l.line.Line, l.pass, heard, min(since, l.now), l.tempo, l.swing)
		}
		l.now = in.Now
		if err != nil {
			return &told{Error: err.Error()}, true
		}
		w := wireFree(f, l.mode.Stage(l.pass))
		if out.Landings = l.met(w.Landings, in.Now); in.End {
			out.Free, out.Written = &w, &w.Line
		}
	case l.line != nil:
		if !in.End {
			out.Verdicts = l.anew(l.follow.Now(heard, since), in.Now)
		} else {
			t := l.line.played(heard, in.Played.core(), l.tempo, l.swing)
			out.Take, out.Verdicts = &t, t.Verdicts
			if w, err := practice.Written(l.line.Line, heard, l.swing); err == nil {
				body := wireBody(w)
				out.Written = &body
			}
		}
	}
	if len(out.Heard) == 0 && len(out.Verdicts) == 0 && len(out.Landings) == 0 && !in.End && !begins {
		return nil, false
	}
	return out, in.End
}

// begin takes what is to be played. The line is checked as in any other question.
func (l *listening) begin(in said) error {
	var value any
	var body LineBody
	err := errors.Join(json.Unmarshal(in.Line, &value), json.Unmarshal(in.Line, &body))
	if err != nil {
		return err
	}
	if errs := huma.NewModelValidator().Validate(reflect.TypeFor[LineBody](), value); len(errs) > 0 {
		return problem(http.StatusUnprocessableEntity, "validation failed", errs...)
	}
	if in.Tempo < 0 || in.Tempo > 300 || in.Swing != 0 && (in.Swing < 0.5 || in.Swing > 0.75) {
		return errors.New("a tempo is 30 to 300 beats a minute, swing 0.5 to 0.75")
	}
	var o lineIn
	if in.Mode == "" {
		o, err = l.server.read(body)
	} else {
		var m practice.Mode
		o, m, err = l.server.over(body, in.Mode)
		l.mode, l.pass, l.landings = &m, in.Pass, map[int]FreeLanding{}
	}
	l.line, l.tempo, l.swing = &o, cmp.Or(in.Tempo, o.Tempo), o.swing(in.Swing, in.Tempo)
	if err == nil && l.mode != nil {
		l.holds, err = in.Hold.over(o.Line, *l.mode, in.Pass)
	}
	if err != nil {
		return err
	}
	l.follow = judge.Following(o.Score, l.tempo, l.swing)
	l.ear = ear.Listen(judge.Sounding(o.Score, l.swing))
	l.ear.Beside(each(in.Band, func(n [2]float64) judge.Expected { return judge.Expected{At: n[0], Pitch: n[1], Fretted: n[1]} }))
	return nil
}

// met lists the landings that changed, of changes that are over.
func (l *listening) met(landings []FreeLanding, now float64) (list []FreeLanding) {
	for _, x := range landings {
		if now < float64(x.end)+settles && !x.Counts || l.landings[x.At] == x {
			continue
		}
		l.landings[x.At] = x
		list = append(list, x)
	}
	return list
}

// firstTick is when the first of two lists of notes begins.
func firstTick(a, b []judge.Heard) float64 {
	first := math.Inf(1)
	for _, list := range [][]judge.Heard{a, b} {
		if len(list) > 0 {
			first = min(first, list[0].At)
		}
	}
	return first
}

// common is how many notes two lists begin with alike.
func common(a, b []judge.Heard) (n int) {
	for n < min(len(a), len(b)) && a[n] == b[n] {
		n++
	}
	return n
}

// anew lists the verdicts that changed, of notes that are over or were heard.
func (l *listening) anew(verdicts []judge.Verdict, now float64) (list []Verdict) {
	if l.verdicts == nil {
		l.verdicts = make([]judge.Verdict, len(verdicts))
	}
	for i, v := range verdicts {
		if v.Is == judge.Unheard && now < float64(l.line.Notes[i].Start)+settles || v.Is == l.verdicts[i].Is && v.When == l.verdicts[i].When && v.Bend == l.verdicts[i].Bend {
			continue
		}
		l.verdicts[i] = v
		w := wireVerdict(v)
		w.Note = l.line.Notes[i].ID
		list = append(list, w)
	}
	return list
}
