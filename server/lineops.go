package server

import (
	"context"
	"errors"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/exercise"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/score"
	"undaris/store"
)

// WishBody is what a written line should be like.
type WishBody struct {
	Rhythm     string `json:"rhythm,omitempty" maxLength:"40" doc:"eighths, triplets, sixteenths or mixed"`
	Density    int    `json:"density,omitempty" minimum:"0" maximum:"5" doc:"1 to 5; 0 is 3"`
	Contour    string `json:"contour,omitempty" maxLength:"40"`
	Phrasing   string `json:"phrasing,omitempty" maxLength:"40"`
	Targets    string `json:"targets,omitempty" maxLength:"100" doc:"roles allowed on each change, such as third; empty is any, thirds liked best"`
	ChordTones bool   `json:"chordTones,omitempty" doc:"nothing but chord tones"`
	Approach   bool   `json:"approach,omitempty" doc:"notes from outside the palette may lead into chord tones"`
	HighStr    int    `json:"highString,omitempty" minimum:"0" maximum:"8"`
	LowStr     int    `json:"lowString,omitempty" minimum:"0" maximum:"8"`
	Seed       uint64 `json:"seed,omitempty"`
	From       int    `json:"from,omitempty" minimum:"0" maximum:"1024" doc:"first bar to write, from 1; 0 is all"`
	To         int    `json:"to,omitempty" minimum:"0" maximum:"1024"`
}

func (o onPaper) wish(b WishBody) (line.Wish, error) {
	w := line.Wish{Window: o.window, HighStr: b.HighStr, LowStr: b.LowStr, Palette: o.palette, Rhythm: b.Rhythm, Density: b.Density, Contour: b.Contour,
		Phrasing: b.Phrasing, ChordTones: b.ChordTones, Approach: b.Approach, Seed: b.Seed, Locked: o.locked()}
	if w.Density == 0 {
		w.Density = 3
	}
	if b.Targets != "" {
		roles, err := roleList(b.Targets)
		if err != nil {
			return w, at("body.wish.targets", b.Targets, err)
		}
		w.Targets = roles
	}
	if err := o.checkBars(b.From, b.To); err != nil {
		return w, err
	}
	if b.From > 0 {
		w.From, w.To = b.From-1, b.To
	}
	return w, nil
}

// Fix is a proposal that makes a landing come true.
type Fix struct {
	Says  []string `json:"says" doc:"one edit or two"`
	Cost  float64  `json:"cost"`
	Study Study    `json:"study" doc:"the line with it"`
}

// Fixes are the proposals for one change.
type Fixes struct {
	Fixes []Fix  `json:"fixes" doc:"the smallest first"`
	Why   string `json:"why" doc:"why there is none"`
}

// Turned is a line that was re-aimed.
type Turned struct {
	Study Study      `json:"study"`
	Turns []TurnSeen `json:"turns"`
}

// TurnSeen is a note that was changed.
type TurnSeen struct {
	Note int    `json:"note"`
	From string `json:"from"`
	To   string `json:"to"`
	Why  string `json:"why"`
}

func (s *server) lines(api huma.API) {
	keeping[LineBody, store.Line, store.LineSummary, Line, LineRow]{
		name: "line", path: "/api/lines", wire: wireLine, row: lineRow, version: func(l store.Line) uint { return l.Version }, stored: s.stored,
		put:  func(old *store.Line, now store.Line) { now.Kept, *old = old.Kept, now },
		list: s.store.Lines, count: s.store.CountLines, one: s.store.Line, create: s.store.CreateLine,
		change: s.store.ChangeLine, remove: s.store.DeleteLine, restore: s.store.RestoreLine,
	}.serve(s, api)

	pose(s, api, "/api/lines/study", "study-line", "A line on paper, checked note by note and change by change",
		func(_ context.Context, in *struct{ Body LineBody }) (Study, error) {
			o, err := s.read(in.Body)
			if err != nil {
				return Study{}, err
			}
			return o.study(), nil
		})

	pose(s, api, "/api/lines/write", "write-line", "The core writes bars of a line; locked bars stay",
		func(ctx context.Context, in *struct {
			Body struct {
				Line LineBody `json:"line"`
				Wish WishBody `json:"wish"`
			}
		}) (Study, error) {
			o, err := s.read(in.Body.Line)
			if err != nil {
				return Study{}, err
			}
			w, err := o.wish(in.Body.Wish)
			if err != nil {
				return Study{}, err
			}
			if o.Notes, err = line.Write(ctx, o.Score, w, o.hand); err != nil {
				return Study{}, at("body.wish", in.Body.Wish.Seed, err)
			}
			return o.study(), nil
		})

	pose(s, api, "/api/lines/fit", "fit-line", "The smallest edits that make a change land",
		func(ctx context.Context, in *struct {
			Body struct {
				Line LineBody `json:"line"`
				At   int      `json:"at" maximum:"12000000" doc:"tick of the change"`
			}
		}) (Fixes, error) {
			o, err := s.read(in.Body.Line)
			if err != nil {
				return Fixes{}, err
			}
			return o.fixes(ctx, in.Body.At)
		})

	pose(s, api, "/api/lines/blend", "blend-line", "The line re-aimed at the chords, from all box to all chord tones",
		func(ctx context.Context, in *struct {
			Body struct {
				Line   LineBody `json:"line"`
				Amount float64  `json:"amount" minimum:"0" maximum:"1"`
			}
		}) (Turned, error) {
			o, err := s.read(in.Body.Line)
			if err != nil {
				return Turned{}, err
			}
			notes, turns, err := lick.Reaim(ctx, o.Score, in.Body.Amount, o.window, o.hand)
			if err != nil {
				return Turned{}, at("body.line", nil, err)
			}
			o.Notes = notes
			out := Turned{Study: o.study(), Turns: []TurnSeen{}}
			for _, t := range turns {
				out.Turns = append(out.Turns, TurnSeen{t.Note, t.From.String(), t.To.String(), t.Why})
			}
			return out, nil
		})

	pose(s, api, "/api/lines/move", "move-line", "A line taken to another key with its chords",
		func(_ context.Context, in *struct {
			Body struct {
				Line  LineBody `json:"line"`
				Key   string   `json:"key" doc:"of the same mode"`
				Shape bool     `json:"shape,omitempty" doc:"the hand moves along the neck and every note keeps its string; else places are found where the hand is"`
			}
		}) (Study, error) {
			o, err := s.read(in.Body.Line)
			if err != nil {
				return Study{}, err
			}
			key, err := readKey("body.key", in.Body.Key)
			if err != nil {
				return Study{}, err
			}
			if key.Minor != o.Key.Minor {
				return Study{}, at("body.key", in.Body.Key, fmt.Errorf("a line in %s moves to keys of its own mode; %s is of the other", o.Key, key))
			}
			return s.moved(o, key, in.Body.Shape)
		})

	pose(s, api, "/api/lines/lick", "lick-line", "A lick put into a line: at a bar, or through the changes",
		func(ctx context.Context, in *struct {
			Body struct {
				Line    LineBody `json:"line"`
				Lick    uint     `json:"lick"`
				Bar     int      `json:"bar,omitempty" minimum:"0" maximum:"1024" doc:"from 1; 0 sends it through the changes"`
				Land    bool     `json:"land,omitempty" doc:"each version ends on the next change"`
				Follow  bool     `json:"follow,omitempty" doc:"degrees follow the kind of chord"`
				Targets string   `json:"targets,omitempty" doc:"which tones to land on, most wanted first"`
			}
		}) (Study, error) {
			o, err := s.read(in.Body.Line)
			if err != nil {
				return Study{}, err
			}
			l, err := s.store.Lick(in.Body.Lick)
			if err != nil {
				return Study{}, missing("lick", err)
			}
			order, err := harmony.ParseOrder(in.Body.Targets)
			if err != nil {
				return Study{}, at("body.targets", in.Body.Targets, err)
			}
			ground := lick.Ground{In: o.In, Window: o.window, Hand: o.hand, Follow: in.Body.Follow}
			if in.Body.Bar == 0 {
				var said []string
				o.Notes, said, err = coreLick(l).Through(ctx, o.Progression, o.Key, lick.Aim{Land: in.Body.Land, Order: order, Ground: ground})
				if err != nil {
					return Study{}, at("body.lick", l.Title, err)
				}
				o.said = append(o.said, said...)
				return o.study(), nil
			}
			if err := o.putLick(coreLick(l), in.Body.Bar, ground); err != nil {
				return Study{}, err
			}
			return o.study(), nil
		})

	pose(s, api, "/api/lines/drill", "drill-line", "An exercise over the chords of a line",
		func(ctx context.Context, in *struct {
			Body struct {
				Line LineBody  `json:"line"`
				Task DrillBody `json:"task"`
			}
		}) (Study, error) {
			o, err := s.read(in.Body.Line)
			if err != nil {
				return Study{}, err
			}
			t := in.Body.Task
			o.Notes, err = exercise.Over(ctx, o.Progression, exercise.Task{In: o.In, Hand: o.hand, Window: o.window, HighStr: t.HighStr, LowStr: t.LowStr,
				Drill: t.Drill, Pace: t.Pace, From: t.From, Order: t.Order, Down: t.Down, Dress: t.Dress})
			if err != nil {
				return Study{}, at("body.task", t.Drill, err)
			}
			lick.Label(o.Score)
			return o.study(), nil
		})

	s.lineFiles(api)
}

// DrillBody says which exercise.
type DrillBody struct {
	Drill   string `json:"drill" maxLength:"40"`
	Pace    string `json:"pace" maxLength:"40"`
	From    string `json:"from,omitempty" maxLength:"10" doc:"a degree to start from"`
	Order   int    `json:"order,omitempty" minimum:"0" maximum:"24" doc:"1 to 24, of four tones"`
	Down    bool   `json:"down,omitempty"`
	Dress   string `json:"dress,omitempty" maxLength:"40" doc:"what leads into each tone"`
	HighStr int    `json:"highString,omitempty" minimum:"0" maximum:"8"`
	LowStr  int    `json:"lowString,omitempty" minimum:"0" maximum:"8"`
}

// fixes finds the phrase that leads to a change and proposes how it may land.
func (o onPaper) fixes(ctx context.Context, tick int) (Fixes, error) {
	if tick < 0 || tick >= len(o.Bars)*o.Bar() {
		return Fixes{}, at("body.at", tick, errors.New("there is no such beat in this line"))
	}
	chord, _ := o.ChordAt(tick)
	from, to := o.phraseInto(tick)
	l := lick.Landing{At: tick, Chord: chord, Key: o.Key.Spell, Ground: lick.Ground{In: o.In, Window: o.window, Hand: o.hand}}
	proposals, why := l.Fit(ctx, o.Notes[from:to])
	out := Fixes{Fixes: []Fix{}, Why: why}
	for _, p := range proposals {
		fixed := o
		fixed.Notes = append(append([]score.Note(nil), o.Notes[:from]...), p.Notes...)
		end := fixed.Notes[len(fixed.Notes)-1].End()
		for _, n := range o.Notes[to:] { // what the longer phrase now covers gives way
			if n.Start >= end || n.Start > tick {
				fixed.Notes = append(fixed.Notes, n)
			}
		}
		score.Sort(fixed.Notes)
		lick.Separate(fixed.Notes, len(o.Bars)*o.Bar())
		if fixed.Notes[0].Start < -o.Bar() || fixed.Check() != nil {
			continue
		}
		score.Finger(o.In, fixed.Notes, o.hand)
		lick.Label(fixed.Score)
		out.Fixes = append(out.Fixes, Fix{p.Says, tenth(p.Cost), fixed.study()})
	}
	return out, nil
}

// phraseInto are the notes of the phrase that comes to a tick: back to the last
// breath of half a beat, and on to the note nearest to the tick.
func (o onPaper) phraseInto(tick int) (from, to int) {
	for to < len(o.Notes) && o.Notes[to].Start <= tick+score.Tick/2 {
		to++
	}
	for to > 1 && o.Notes[to-1].Start > tick && tick-o.Notes[to-2].Start < o.Notes[to-1].Start-tick {
		to--
	}
	from = to
	for from > 0 && (from == to || o.Notes[from].Start-o.Notes[from-1].End() < score.Tick/2) && tick-o.Notes[from-1].Start <= 8*score.Tick {
		from--
	}
	return from, to
}

// putLick lays a lick at a bar, over the chord that sounds there, in place of
// what stood there.
func (o *onPaper) putLick(l lick.Lick, bar int, g lick.Ground) error {
	if err := o.checkBars(bar, bar); err != nil {
		return err
	}
	at0 := (bar - 1) * o.Bar()
	chord, sounds := o.ChordAt(at0)
	if l.OfKey {
		chord, sounds = harmony.MustParse(o.Key.Tonic.String()+l.Chord), true
	}
	if !sounds {
		return at("body.bar", bar, errors.New("the band is silent there"))
	}
	notes, err := l.Realise(chord, at0, g)
	if err != nil {
		return at("body.lick", bar, err)
	}
	total := len(o.Bars) * o.Bar()
	first, last := notes[0].Start, min(total, at0+l.End())
	var kept []score.Note
	for _, n := range o.Notes {
		if n.Start < first || n.Start >= last {
			kept = append(kept, n)
		}
	}
	for _, n := range notes {
		if n.Start < total && n.Start >= -o.Bar() {
			kept = append(kept, n)
		}
	}
	o.Notes = kept
	score.Sort(o.Notes)
	lick.Separate(o.Notes, total)
	score.Finger(o.In, o.Notes, o.hand)
	lick.Label(o.Score)
	return nil
}

// moved takes a line to another key; its window goes with the hand.
func (s *server) moved(o onPaper, key form.Key, shape bool) (Study, error) {
	sc, frets := o.Move(key, shape)
	if low := o.window.Low + frets; shape && frets == 0 && key.Tonic.Class() != o.Key.Tonic.Class() {
		o.said = append(o.said, "the shape runs off the neck either way; places were found where the hand is")
	} else if o.In.CheckWindow(neck.Window{Low: low, High: o.window.High + frets}) == nil {
		o.body.Low, o.body.High = low, o.window.High+frets
	}
	o.Score, o.body.Key = sc, key.String()
	again, err := s.read(o.line())
	if err != nil {
		return Study{}, err
	}
	if out := again.outside(); !shape && out > 0 {
		o.said = append(o.said, fmt.Sprintf("beyond frets %[3]d to %[4]d in this key: %[1]d of %[2]d notes; the hand goes where they lie", out, len(again.Notes), again.window.Low, again.window.High))
		w := around(again.Score)
		again.window, again.body.Low, again.body.High = w, w.Low, w.High
	}
	again.said = append(o.said, again.said...)
	return again.study(), nil
}

// outside counts the fretted notes beyond the window.
func (o onPaper) outside() (out int) {
	for _, n := range o.Notes {
		if n.Fret > 0 && (n.Fret < o.window.Low || n.Fret > o.window.High) {
			out++
		}
	}
	return out
}
