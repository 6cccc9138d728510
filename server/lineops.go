package server

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/edit"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/say"
	"undaris/store"
)

// LineAsk is the frame in which all comes that is asked of a line: the line itself, and what is asked beside it.
type LineAsk struct {
	Line LineBody `json:"line"`
}

func (a LineAsk) line() LineBody  { return a.Line }
func (b LineBody) line() LineBody { return b }

// lineOp is one thing that can be done to a line, or asked of it. Nothing is stored by it.
type lineOp func(*server, huma.API)

// asked makes one of what it answers.
func asked[Q interface{ line() LineBody }, A any](name, summary string, answer func(context.Context, *server, lineIn, Q) (A, error)) lineOp {
	return func(s *server, api huma.API) {
		post(s, api, "/api/lines/"+name, name+"-line", summary, func(ctx context.Context, in *struct{ Body Q }) (none A, err error) {
			o, err := s.read(in.Body.line())
			if err != nil {
				return none, err
			}
			return answer(ctx, s, o, in.Body)
		})
	}
}

// changed makes one of what it does to the line, which is answered as it is then.
func changed[Q interface{ line() LineBody }](name, summary string, do func(context.Context, *server, *lineIn, Q) error) lineOp {
	return asked(name, summary, func(ctx context.Context, s *server, o lineIn, q Q) (Study, error) {
		if err := do(ctx, s, &o, q); err != nil {
			return Study{}, err
		}
		return o.study(), nil
	})
}

// lineOps are all of them.
var lineOps = []lineOp{
	changed("study", "A line on paper, checked note by note and change by change",
		func(context.Context, *server, *lineIn, LineBody) error { return nil }),
	changed("write", "The core writes bars of a line; locked bars stay",
		func(ctx context.Context, _ *server, o *lineIn, q WriteAsk) error {
			w, err := o.wish(q.Wish)
			if err != nil {
				return err
			}
			return at("body.wish", q.Wish.Seed, o.Write(ctx, w))
		}),
	changed("adorn", "Turns, hammered doubles and trills added to a line; every note stays in its place",
		func(_ context.Context, _ *server, o *lineIn, q AdornAsk) error {
			o.Adorn(q.Amount, q.Seed)
			return nil
		}),
	changed("octaves", "A line doubled in octaves, where a hand holds them",
		func(_ context.Context, _ *server, o *lineIn, _ LineAsk) error {
			o.Octaves()
			return nil
		}),
	changed("pick", "The picking hand proposed for a line",
		func(_ context.Context, _ *server, o *lineIn, q PickAsk) error {
			return at("body.picking", q.Picking, o.Pick(q.Picking))
		}),
	changed("move", "A line taken to another key with its chords", moveLine),
	changed("lick", "A lick put into a line: at a bar, or through the changes", lickIntoLine),
	changed("drill", "An exercise over the chords of a line",
		func(ctx context.Context, _ *server, o *lineIn, q DrillAsk) error {
			task, err := q.Task.task()
			if err != nil {
				return at("body.task", q.Task.Drill, err)
			}
			return at("body.task", q.Task.Drill, o.Drill(ctx, task))
		}),
	asked("blend", "The line re-aimed at the chords, from all box to all chord tones", blendLine),
	asked("lay", "A line laid on the player's instrument, with what that changes", layLine),
	asked("fit", "The smallest edits that make a change land",
		func(ctx context.Context, _ *server, o lineIn, q FitAsk) (Fixes, error) {
			fixes, why, err := o.Fixes(ctx, q.At)
			return wireFixes(fixes, why), at("body.at", q.At, err)
		}),
	asked("lead", "What may lead into a note from the one before it",
		func(ctx context.Context, _ *server, o lineIn, q LeadAsk) (Fixes, error) {
			fixes, why, err := o.Leads(ctx, q.Note)
			return wireFixes(fixes, why), at("body.note", q.Note, err)
		}),
	asked("judge", "What was heard set against what is written, note by note", judgeLine),
	asked("simulate", "What a simulated player makes of a line", simulateLine),
}

// WriteAsk is how a line is to be written.
type WriteAsk struct {
	LineAsk
	Wish WishBody `json:"wish"`
}

// AdornAsk is how much is added to a line.
type AdornAsk struct {
	LineAsk
	Amount float64 `json:"amount" minimum:"0" maximum:"1" doc:"of the notes that bear one; 0 takes all away"`
	Seed   uint64  `json:"seed,omitempty"`
}

// PickAsk is how a line is picked.
type PickAsk struct {
	LineAsk
	Picking string `json:"picking" maxLength:"20" doc:"of the catalogue's pickings"`
}

// DrillAsk is the exercise that comes over a line's chords.
type DrillAsk struct {
	LineAsk
	Task DrillBody `json:"task"`
}

// FitAsk is the change that is to land.
type FitAsk struct {
	LineAsk
	At int `json:"at" maximum:"12000000" doc:"tick of the change"`
}

// LeadAsk is the note that is to be led into.
type LeadAsk struct {
	LineAsk
	Note int `json:"note" doc:"its number"`
}

// MoveAsk is where a line goes.
type MoveAsk struct {
	LineAsk
	Key   string `json:"key" doc:"of the same mode"`
	Shape bool   `json:"shape,omitempty" doc:"the hand moves along the neck and every note keeps its string; else places are found where the hand is"`
}

func moveLine(_ context.Context, _ *server, o *lineIn, q MoveAsk) error {
	key, err := readKey("body.key", q.Key)
	if err != nil {
		return err
	}
	if key.Minor != o.Key.Minor {
		return at("body.key", q.Key, say.Errorf("a line in %s moves to keys of its own mode; %s is of the other", o.Key, key))
	}
	o.Line, err = o.Move(key, q.Shape)
	return at("body.line", nil, err)
}

// LickAsk is the lick that comes into a line, and how.
type LickAsk struct {
	LineAsk
	Lick    uint     `json:"lick"`
	Bar     int      `json:"bar,omitempty" minimum:"0" maximum:"1024" doc:"from 1; with no bars 0 sends it through the changes"`
	Bars    []int    `json:"bars,omitempty" maxItems:"200" minimum:"1" maximum:"1024" doc:"from 1, several"`
	Join    string   `json:"join,omitempty" maxLength:"20" doc:"how each is led into, of the catalogue's connectors; not at all by none"`
	Land    bool     `json:"land,omitempty" doc:"each version ends on the next change"`
	Shape   bool     `json:"shape,omitempty" doc:"the same shape goes along the neck; else places are found in the line's region"`
	Follow  bool     `json:"follow,omitempty" doc:"degrees follow the kind of chord"`
	Targets []string `json:"targets,omitempty" maxItems:"5" enum:"root,third,fifth,seventh,extension" doc:"which tones to land on, most wanted first"`
}

func lickIntoLine(ctx context.Context, s *server, o *lineIn, q LickAsk) error {
	l, err := s.store.Lick(q.Lick)
	if err != nil {
		return missing("lick", err)
	}
	order, err := harmony.OrderOf(q.Targets...)
	if err != nil {
		return at("body.targets", q.Targets, err)
	}
	bars := q.Bars
	if q.Bar > 0 {
		bars = append(bars, q.Bar)
	}
	if len(bars) > 0 {
		return at("body.bar", bars, o.PutLicks(ctx, l.Phrase(), bars, q.Follow, q.Join))
	}
	return at("body.lick", l.Title, o.Through(ctx, l.Phrase(), edit.Sending{Land: q.Land, Follow: q.Follow, Shape: q.Shape, Wanted: order, Home: l.Home.Lick()}))
}

// BlendAsk is how far a line is re-aimed.
type BlendAsk struct {
	LineAsk
	Amount float64 `json:"amount" minimum:"0" maximum:"1"`
	Bends  bool    `json:"bends,omitempty" doc:"every note stays on its fret, and only how far it is bent changes"`
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

func blendLine(ctx context.Context, _ *server, o lineIn, q BlendAsk) (Turned, error) {
	turns, err := o.Reaim(ctx, q.Amount, q.Bends)
	if err != nil {
		return Turned{}, at("body.line", nil, err)
	}
	return Turned{o.study(), each(turns, func(t lick.Turn) Turn {
		return Turn{o.Notes[t.Note].ID, t.From.String(), t.To.String(), t.Why}
	})}, nil
}

// Laying is a line laid on another instrument.
type Laying struct {
	Study Study  `json:"study"`
	Says  string `json:"says" doc:"what moves and what changes its octave"`
}

func layLine(_ context.Context, s *server, o lineIn, _ LineBody) (Laying, error) {
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
