package server

import (
	"cmp"
	"context"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/edit"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/line"
	"undaris/core/say"
	"undaris/store"
)

// WishBody is what a written line should be like.
type WishBody struct {
	Rhythm     string     `json:"rhythm,omitempty" maxLength:"40" doc:"eighths, triplets, sixteenths or mixed"`
	Density    int        `json:"density,omitempty" minimum:"0" maximum:"5" doc:"1 to 5; 0 is 3"`
	Contour    string     `json:"contour,omitempty" maxLength:"40"`
	Phrasing   string     `json:"phrasing,omitempty" maxLength:"40"`
	Targets    string     `json:"targets,omitempty" maxLength:"100" doc:"roles allowed on each change, such as third; empty is any, thirds liked best"`
	ChordTones bool       `json:"chordTones,omitempty" doc:"nothing but chord tones"`
	Approach   bool       `json:"approach,omitempty" doc:"notes from outside the palette may lead into chord tones"`
	Word       string     `json:"word,omitempty" maxLength:"40" doc:"a style: what it sets where nothing else is said"`
	Spice      *SpiceBody `json:"spice,omitempty" doc:"how much of each way of playing, 0 to 10; the word's where it is not said"`
	Closing    string     `json:"closing,omitempty" maxLength:"40" doc:"how the last two bars go, of the catalogue's closings"`
	Lift       int        `json:"lift,omitempty" minimum:"-10" maximum:"10" doc:"higher, or lower when negative, in tenths of the region"`
	Seed       uint64     `json:"seed,omitempty"`
	From       int        `json:"from,omitempty" minimum:"0" maximum:"1024" doc:"first bar to write, from 1; 0 is all"`
	To         int        `json:"to,omitempty" minimum:"0" maximum:"1024"`
}

// SpiceBody is how much a line has of each way of playing, by its name, 0 to 10.
type SpiceBody map[string]int

func (o lineIn) wish(b WishBody) (line.Wish, error) {
	w := line.Wish{Rhythm: b.Rhythm, Contour: b.Contour, Approach: b.Approach, Seed: b.Seed, Lift: b.Lift, Closing: b.Closing}
	word, err := line.WordByID(b.Word)
	if err != nil {
		return w, at("body.wish.word", b.Word, err)
	}
	w.Spice, w.Density, w.Phrasing, w.ChordTones = word.Spice, cmp.Or(b.Density, word.Density), cmp.Or(b.Phrasing, word.Phrasing), b.ChordTones || word.ChordTones
	if b.Spice != nil {
		for name, n := range *b.Spice {
			taste, ok := line.TasteByID(name)
			if !ok || n < 0 || n > line.MostSpice {
				return w, at("body.wish.spice."+name, n, say.Errorf("%q: %d; there are %s, each 0 to %d", name, n, tastes(), line.MostSpice))
			}
			taste.Set(&w.Spice, n)
		}
	}
	if w.Targets, err = harmony.ParseRoles(b.Targets); err != nil {
		return w, at("body.wish.targets", b.Targets, err)
	}
	if err := o.CheckBars(b.From, b.To); err != nil {
		return w, at("body.from", b.From, err)
	}
	if b.From > 0 {
		w.From, w.To = b.From-1, b.To
	}
	return w, nil
}

// tastes names the ways of playing.
func tastes() string {
	return strings.Join(each(line.Tastes, func(t line.Taste) string { return t.ID }), ", ")
}

// Fix is a proposal that makes a landing come true.
type Fix struct {
	Says []string         `json:"says" doc:"one edit or two"`
	Cost float64          `json:"cost"`
	Gone []int            `json:"gone" doc:"notes that go, by their numbers"`
	Put  []store.LineNote `json:"put" doc:"notes that come, or take the place of those of their numbers"`
}

// Fixes are the proposals for one change.
type Fixes struct {
	Fixes []Fix  `json:"fixes" doc:"the smallest first"`
	Why   string `json:"why" doc:"why there is none"`
}

func wireFixes(fixes []edit.Fix, why string) Fixes {
	return Fixes{each(fixes, func(f edit.Fix) Fix {
		return Fix{f.Says, tenth(f.Cost), append([]int{}, f.Gone...), store.LineNotes(f.Put)}
	}), why}
}

// Turned is a line that was re-aimed.
type Turned struct {
	Study Study  `json:"study"`
	Turns []Turn `json:"turns"`
}

// Turn is a note that was changed.
type Turn struct {
	Note int    `json:"note" doc:"its number"`
	From string `json:"from"`
	To   string `json:"to"`
	Why  string `json:"why"`
}

func (s *server) lines(api huma.API) {
	keeping[LineBody, store.Line, store.LineSummary, Line, LineRow]{
		name: "line", path: "/api/lines", wire: wireLine, row: lineRow, tag: func(l store.Line) store.Tag { return l.Tag }, stored: s.stored,
		put:  func(old *store.Line, now store.Line) { now.Kept, *old = old.Kept, now },
		list: s.store.Lines, count: s.store.CountLines, one: s.store.Line, create: s.store.CreateLine,
		change: s.store.ChangeLine, remove: s.store.DeleteLine, restore: s.store.RestoreLine,
	}.serve(s, api)

	post(s, api, "/api/lines/study", "study-line", "A line on paper, checked note by note and change by change",
		func(_ context.Context, in *struct{ Body LineBody }) (Study, error) {
			o, err := s.read(in.Body)
			if err != nil {
				return Study{}, err
			}
			return o.study(), nil
		})

	post(s, api, "/api/lines/write", "write-line", "The core writes bars of a line; locked bars stay",
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
			if err := o.Write(ctx, w); err != nil {
				return Study{}, at("body.wish", in.Body.Wish.Seed, err)
			}
			return o.study(), nil
		})

	post(s, api, "/api/lines/fit", "fit-line", "The smallest edits that make a change land",
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
			fixes, why, err := o.Fixes(ctx, in.Body.At)
			if err != nil {
				return Fixes{}, at("body.at", in.Body.At, err)
			}
			return wireFixes(fixes, why), nil
		})

	post(s, api, "/api/lines/lead", "lead-line", "What may lead into a note from the one before it",
		func(ctx context.Context, in *struct {
			Body struct {
				Line LineBody `json:"line"`
				Note int      `json:"note" doc:"its number"`
			}
		}) (Fixes, error) {
			o, err := s.read(in.Body.Line)
			if err != nil {
				return Fixes{}, err
			}
			fixes, why, err := o.Leads(ctx, in.Body.Note)
			if err != nil {
				return Fixes{}, at("body.note", in.Body.Note, err)
			}
			return wireFixes(fixes, why), nil
		})

	post(s, api, "/api/lines/adorn", "adorn-line", "Turns, hammered doubles and trills added to a line; every note stays in its place",
		func(_ context.Context, in *struct {
			Body struct {
				Line   LineBody `json:"line"`
				Amount float64  `json:"amount" minimum:"0" maximum:"1" doc:"of the notes that bear one; 0 takes all away"`
				Seed   uint64   `json:"seed,omitempty"`
			}
		}) (Study, error) {
			o, err := s.read(in.Body.Line)
			if err != nil {
				return Study{}, err
			}
			o.Adorn(in.Body.Amount, in.Body.Seed)
			return o.study(), nil
		})

	post(s, api, "/api/lines/pick", "pick-line", "The picking hand proposed for a line",
		func(_ context.Context, in *struct {
			Body struct {
				Line    LineBody `json:"line"`
				Picking string   `json:"picking" maxLength:"20" doc:"of the catalogue's pickings"`
			}
		}) (Study, error) {
			o, err := s.read(in.Body.Line)
			if err != nil {
				return Study{}, err
			}
			if err := o.Pick(in.Body.Picking); err != nil {
				return Study{}, at("body.picking", in.Body.Picking, err)
			}
			return o.study(), nil
		})

	post(s, api, "/api/lines/blend", "blend-line", "The line re-aimed at the chords, from all box to all chord tones",
		func(ctx context.Context, in *struct {
			Body struct {
				Line   LineBody `json:"line"`
				Amount float64  `json:"amount" minimum:"0" maximum:"1"`
				Bends  bool     `json:"bends,omitempty" doc:"every note stays on its fret, and only how far it is bent changes"`
			}
		}) (Turned, error) {
			o, err := s.read(in.Body.Line)
			if err != nil {
				return Turned{}, err
			}
			turns, err := o.Reaim(ctx, in.Body.Amount, in.Body.Bends)
			if err != nil {
				return Turned{}, at("body.line", nil, err)
			}
			return Turned{o.study(), each(turns, func(t lick.Turn) Turn {
				return Turn{o.Notes[t.Note].ID, t.From.String(), t.To.String(), t.Why}
			})}, nil
		})

	post(s, api, "/api/lines/move", "move-line", "A line taken to another key with its chords",
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
				return Study{}, at("body.key", in.Body.Key, say.Errorf("a line in %s moves to keys of its own mode; %s is of the other", o.Key, key))
			}
			moved, err := o.Move(key, in.Body.Shape)
			if err != nil {
				return Study{}, at("body.line", nil, err)
			}
			return o.with(moved).study(), nil
		})

	post(s, api, "/api/lines/lick", "lick-line", "A lick put into a line: at a bar, or through the changes",
		func(ctx context.Context, in *struct {
			Body struct {
				Line    LineBody `json:"line"`
				Lick    uint     `json:"lick"`
				Bar     int      `json:"bar,omitempty" minimum:"0" maximum:"1024" doc:"from 1; with no bars 0 sends it through the changes"`
				Bars    []int    `json:"bars,omitempty" maxItems:"200" minimum:"1" maximum:"1024" doc:"from 1, several"`
				Join    string   `json:"join,omitempty" maxLength:"20" doc:"how each is led into, of the catalogue's connectors; not at all by none"`
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
			bars := in.Body.Bars
			if in.Body.Bar > 0 {
				bars = append(bars, in.Body.Bar)
			}
			if len(bars) > 0 {
				err = at("body.bar", bars, o.PutLicks(ctx, l.Phrase(), bars, in.Body.Follow, in.Body.Join))
			} else {
				err = at("body.lick", l.Title, o.Through(ctx, l.Phrase(), in.Body.Land, in.Body.Follow, order))
			}
			if err != nil {
				return Study{}, err
			}
			return o.study(), nil
		})

	post(s, api, "/api/lines/drill", "drill-line", "An exercise over the chords of a line",
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
			if err := o.Drill(ctx, in.Body.Task.task()); err != nil {
				return Study{}, at("body.task", in.Body.Task.Drill, err)
			}
			return o.study(), nil
		})

	post(s, api, "/api/lines/lay", "lay-line", "A line laid on the player's instrument, with what that changes",
		func(_ context.Context, in *struct{ Body LineBody }) (Laying, error) {
			o, err := s.read(in.Body)
			if err != nil {
				return Laying{}, err
			}
			player, err := s.store.Player()
			if err != nil {
				return Laying{}, err
			}
			inst, hand, err := playerNeck(player.Player)
			if err != nil {
				return Laying{}, err
			}
			laid, done, err := edit.Lay(o.Line, inst, hand)
			if err != nil {
				return Laying{}, at("body.notes", nil, err)
			}
			return Laying{o.with(laid).study(), done.Says()}, nil
		})

	s.lineFiles(api)
}

// Laying is a line laid on another instrument.
type Laying struct {
	Study Study  `json:"study"`
	Says  string `json:"says" doc:"what moves and what changes its octave"`
}

// with is the same line after something was done to it.
func (o lineIn) with(l edit.Line) lineIn {
	o.Line = l
	return o
}

// DrillBody says which exercise.
type DrillBody struct {
	Drill    string `json:"drill" maxLength:"40"`
	Pace     string `json:"pace" maxLength:"40"`
	From     string `json:"from,omitempty" maxLength:"10" doc:"a degree to start from"`
	Order    int    `json:"order,omitempty" minimum:"0" maximum:"24" doc:"1 to 24, of four tones"`
	Cell     []int  `json:"cell,omitempty" maxItems:"16" doc:"steps of the scale from 1, for the cell that is carried through it"`
	Down     bool   `json:"down,omitempty"`
	Approach string `json:"approach,omitempty" maxLength:"40" doc:"what leads into each tone; the tone comes on the beat"`
	Offset   int    `json:"offset,omitempty" minimum:"0" maximum:"15" doc:"sixteenths after each chord begins"`
	Double   bool   `json:"double,omitempty" doc:"the second half of each chord goes at twice the pace"`
	Until    int    `json:"until,omitempty" minimum:"0" maximum:"12" doc:"the beat of its last bar after which each chord rests"`
	HighStr  int    `json:"highString,omitempty" minimum:"0" maximum:"8" doc:"with lowString: what older exercises are on; the region tells it"`
	LowStr   int    `json:"lowString,omitempty" minimum:"0" maximum:"8"`
	Strings  []int  `json:"strings,omitempty" maxItems:"8" minimum:"1" maximum:"8" doc:"of the region those that it is on, also apart"`
}
