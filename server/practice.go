package server

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"fmt"
	"math"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/line"
	"undaris/core/practice"
	"undaris/core/score"
	"undaris/store"
)

// FreeTake is a pass of free playing, judged.
type FreeTake struct {
	Line     LineBody      `json:"line" doc:"what was played, written down"`
	Landings []FreeLanding `json:"landings"`
	Asked    string        `json:"asked" doc:"what the pass asked for"`
	Landed   int           `json:"landed" doc:"changes that count"`
	Outside  int           `json:"outside" doc:"notes that the pass does not allow"`
	Held     []FreeHeld    `json:"held,omitempty" doc:"limits that were held to, or not"`
	Broken   int           `json:"broken,omitempty" doc:"notes, bars, beginnings and changes that did not hold to them"`
	Good     string        `json:"good"`
	Try      string        `json:"try"`
	Said     []string      `json:"said" doc:"what could not be written down"`
	Partial  bool          `json:"partial,omitempty" doc:"it was stopped before its end, or begun in the middle; what was not reached is not judged"`
}

// FreeLanding is what became of a change.
type FreeLanding struct {
	At     int    `json:"at" doc:"ticks"`
	Chord  string `json:"chord"`
	Degree string `json:"degree,omitempty"`
	When   string `json:"when"`
	Word   string `json:"word" doc:"the same, or that it was another tone than is asked for"`
	Counts bool   `json:"counts" doc:"landed, on what the pass asks for"`
	Says   string `json:"says"`
	end    int    // tick by which it is over
}

// FreeHeld is a limit with how it was held to.
type FreeHeld struct {
	Says string `json:"says"`
	From int    `json:"from" doc:"ticks"`
	To   int    `json:"to"`
	Kept int    `json:"kept"`
	Of   int    `json:"of"`
}

func wireFree(f practice.Free, stage practice.Stage) FreeTake {
	w := FreeTake{Partial: f.Partial, Broken: f.Broken(), Held: each(f.Held, func(h practice.Held) FreeHeld { return FreeHeld{h.Says, h.From, h.To, h.Kept, h.Asked} }), Line: wireBody(f.Line), Asked: stage.Says, Outside: f.Outside, Good: f.Good, Try: f.Try, Said: append([]string{}, f.Line.Said...)}
	w.Landings = each(f.Landings, func(l practice.Landing) FreeLanding {
		if l.Counts {
			w.Landed++
		}
		return FreeLanding{l.At, l.Chord.String(), string(l.Degree), l.When, l.Word(), l.Counts, l.Says, l.End}
	})
	return w
}

// PracticeGround is what a mode is played over.
type PracticeGround struct {
	Line    LineBody           `json:"line" doc:"its chords, with what is to be played where the mode writes it"`
	Bars    [][]PracticeChange `json:"bars"`
	Lengths []int              `json:"lengths,omitempty" doc:"the beats of each bar, where they differ"`
	Lead    *LineBody          `json:"lead,omitempty" doc:"what the band plays first, where it does"`
	Shown   *Score             `json:"shown,omitempty" doc:"what is to be played, engraved, where it is not to be found by ear"`
	// Band tells that the band plays it too.
	Band bool `json:"band" doc:"the band plays it, in the place of the chart"`
}

// PracticeChange is a chord of the ground.
type PracticeChange struct {
	At    int    `json:"at" doc:"ticks"`
	Chord string `json:"chord"`
}

// over reads what a mode is played over. Where the mode writes what is to be played,
// the line that comes back from the page is that already.
func (s *server) over(b LineBody, mode string) (o lineIn, m practice.Mode, err error) {
	if o, err = s.read(b); err != nil {
		return o, m, err
	}
	if m, err = practice.ModeByID(mode); err != nil {
		return o, m, at("body.mode", mode, err)
	}
	if !m.Writes() {
		o.Progression, o.Notes = m.Over(o.Progression, o.Key), nil
	}
	return o, m, nil
}

// written adds what a mode writes to its ground.
func (s *server) written(ctx context.Context, g *PracticeGround, o lineIn, m practice.Mode, ask practice.Ask, with uint) error {
	if m.With == practice.Lick {
		kept, err := s.store.Lick(with)
		if err != nil {
			return missing("lick", err)
		}
		ask.Lick = kept.Phrase()
	}
	lead, own, err := m.Line(ctx, o.Line, ask)
	if err != nil {
		return at("body.with", with, err)
	}
	g.Line = wireBody(own)
	if m.ByEar {
		body := wireBody(lead)
		g.Lead = &body
		return nil
	}
	shown := o.with(own).study().Score
	g.Shown = &shown
	return nil
}

func wireGround(chart, own lineIn, m practice.Mode) PracticeGround {
	g := PracticeGround{Line: wireBody(own.Line), Band: !m.InMind && chart.Text() != own.Text(), Lengths: own.Lengths()}
	for bar, b := range own.Bars {
		g.Bars = append(g.Bars, each(b.Changes, func(c form.Change) PracticeChange {
			return PracticeChange{own.At(bar) + c.Beat*score.Tick, c.Chord.String()}
		}))
	}
	return g
}

// TakeBody is a take as a player keeps it.
type TakeBody struct {
	Title   string      `json:"title" maxLength:"160"`
	Mode    string      `json:"mode,omitempty" maxLength:"40" doc:"how it was practised; empty where a line was played"`
	Stage   int         `json:"stage,omitempty" minimum:"0" maximum:"99"`
	Tempo   int         `json:"tempo" minimum:"30" maximum:"300"`
	Changes int         `json:"changes" minimum:"0" maximum:"100000"`
	Landed  int         `json:"landed" minimum:"0" maximum:"100000"`
	Good    string      `json:"good" maxLength:"400"`
	Try     string      `json:"try" maxLength:"400"`
	Line    LineBody    `json:"line" doc:"what was played, written down"`
	Heard   []HeardNote `json:"heard" maxItems:"4096"`
}

// KeptTake is a take that is kept.
type KeptTake struct {
	ID      uint      `json:"id"`
	Version store.Tag `json:"version"`
	TakeBody
	Bars    int       `json:"bars" doc:"of its line"`
	Lengths []int     `json:"lengths,omitempty" doc:"the beats of each bar, where they differ"`
	Created time.Time `json:"created"`
}

// TakeRow is a take in a list.
type TakeRow struct {
	ID      uint      `json:"id"`
	Version store.Tag `json:"version"`
	Title   string    `json:"title"`
	Mode    string    `json:"mode"`
	Stage   int       `json:"stage"`
	Tempo   int       `json:"tempo"`
	Changes int       `json:"changes"`
	Landed  int       `json:"landed"`
	Notes   int       `json:"notes" doc:"that were heard"`
	Good    string    `json:"good"`
	Sound   bool      `json:"sound" doc:"it is kept as it sounded, too"`
	Created time.Time `json:"created"`
	Problem string    `json:"problem,omitempty"`
}

func wireTake(t store.Take) KeptTake {
	body := TakeBody{t.Title, t.Mode, t.Stage, t.Tempo, t.Changes, t.Landed, t.Good, t.Try, wireLine(t.Line).LineBody, t.Heard}
	var lengths []int
	if key, err := form.ParseKey(t.Line.Key); err == nil {
		p, _ := form.Read(t.Line.Text, t.Line.Beats, key)
		lengths = p.Lengths()
	}
	return KeptTake{t.ID, t.Tag, body, t.Line.Bars, lengths, t.CreatedAt}
}

func (s *server) storedTake(_ context.Context, b TakeBody) (store.Take, error) {
	player, err := s.store.Player()
	if err != nil {
		return store.Take{}, err
	}
	return storedTake(player.Player, b)
}

func storedTake(player store.Player, b TakeBody) (store.Take, error) {
	if clean(b.Title) == "" {
		return store.Take{}, at("body.title", b.Title, errors.New("a take needs a title"))
	}
	if b.Mode != "" {
		if _, err := practice.ModeByID(b.Mode); err != nil {
			return store.Take{}, at("body.mode", b.Mode, err)
		}
	}
	l, err := storedLine(player, b.Line)
	if err != nil {
		return store.Take{}, err
	}
	return store.Take{Title: b.Title, Mode: b.Mode, Stage: b.Stage, Tempo: b.Tempo, Changes: b.Changes, Landed: b.Landed, Good: b.Good, Try: b.Try, Line: l, Heard: b.Heard}, nil
}

// isWAV tells that a file begins as a WAV does (RIFF, Microsoft and IBM 1991).
func isWAV(b []byte) bool {
	return len(b) > 44 && string(b[:4]) == "RIFF" && string(b[8:12]) == "WAVE"
}

func (s *server) practice(api huma.API) {
	keeping[TakeBody, store.Take, store.TakeSummary, KeptTake, TakeRow]{
		name: "take", path: "/api/takes", wire: wireTake, tag: func(t store.Take) store.Tag { return t.Tag },
		row: func(t store.TakeSummary) TakeRow {
			return TakeRow{t.ID, t.Tag, t.Title, t.Mode, t.Stage, t.Tempo, t.Changes, t.Landed, t.Sounding, t.Good, t.Sound, t.CreatedAt, t.Problem}
		},
		stored: s.storedTake, put: func(old *store.Take, now store.Take) { old.Title = now.Title },
		list: s.store.Takes, count: s.store.CountTakes, one: s.store.Take, create: s.store.CreateTake,
		change: s.store.ChangeTake, remove: s.store.DeleteTake, restore: s.store.RestoreTake,
	}.serve(s, api)

	register(s, api, operation(http.MethodPut, "/api/takes/{id}/sound", "keep-sound", "Keep how a take sounded: a WAV that begins with the first bar", http.StatusNoContent),
		func(_ context.Context, in *struct {
			ByID
			RawBody []byte `contentType:"audio/wav"`
		}) (struct{}, error) {
			if !isWAV(in.RawBody) {
				return struct{}{}, problem(http.StatusUnprocessableEntity, "this is no sound that can be kept; a WAV is")
			}
			return struct{}{}, missing("take", s.store.KeepSound(in.ID, bytes.NewReader(in.RawBody)))
		})
	register(s, api, delivery("/api/takes/{id}/sound", "sound", "How a take sounded", "audio/wav"),
		func(_ context.Context, in *ByID) (streamed, error) {
			wav, err := s.store.Sound(in.ID)
			if err != nil {
				return streamed{}, missing("sound", err)
			}
			return stream("audio/wav", fmt.Sprintf("take %d", in.ID), "wav", wav), nil
		})

	type Over struct {
		Over  LineBody `json:"over" doc:"the chords, with what is to be played where the mode writes it"`
		Tempo int      `json:"tempo,omitempty" minimum:"0" maximum:"300"`
		Swing float64  `json:"swing,omitempty" minimum:"0" maximum:"0.75"`
	}
	post(s, api, "/api/practice/over", "practice-over", "What a mode is played over, for the chords of a chart",
		func(ctx context.Context, in *struct {
			Body struct {
				Over  LineBody `json:"over" doc:"the chart's chords; its notes are left out"`
				Mode  string   `json:"mode" maxLength:"40"`
				With  uint     `json:"with,omitempty" maximum:"4294967295" doc:"the lick or line of a mode that is made of one; a line comes in the place of the chart"`
				Chord string   `json:"chord,omitempty" maxLength:"40" doc:"one chord that is looped in the place of the chart"`
				Easy  bool     `json:"easy,omitempty" doc:"what is easier on the hand, where there is such a choice"`
				Seed  uint64   `json:"seed,omitempty" doc:"another one writes something else"`
			}
		}) (PracticeGround, error) {
			m, err := practice.ModeByID(in.Body.Mode)
			if err != nil {
				return PracticeGround{}, at("body.mode", in.Body.Mode, err)
			}
			if m.With == practice.Tune && in.Body.With > 0 {
				kept, err := s.store.Line(in.Body.With)
				if err != nil {
					return PracticeGround{}, missing("line", err)
				}
				in.Body.Over = wireLine(kept).LineBody
			}
			chart, err := s.read(in.Body.Over)
			if err != nil {
				return PracticeGround{}, err
			}
			own := chart
			own.Progression, own.Notes = m.Over(chart.Progression, chart.Key), nil
			if in.Body.Chord != "" {
				chord, err := harmony.Parse(in.Body.Chord)
				if err != nil {
					return PracticeGround{}, at("body.chord", in.Body.Chord, err)
				}
				own.Progression = m.On(chart.Progression, chord, chart.Key)
			}
			g := wireGround(chart, own, m)
			g.Band = g.Band || in.Body.Chord != ""
			if m.Writes() && (m.With == "" || in.Body.With > 0) {
				err = s.written(ctx, &g, own, m, practice.Ask{Tune: chart.Notes, Seed: in.Body.Seed, Easy: in.Body.Easy}, in.Body.With)
			}
			return g, err
		})
	s.holds(api)
	post(s, api, "/api/practice/judge", "judge-practice", "A pass of free playing over chords: written down, and judged by what the pass asks for",
		func(_ context.Context, in *struct {
			Body struct {
				Over
				Mode  string      `json:"mode" maxLength:"40"`
				Pass  int         `json:"pass,omitempty" minimum:"0"`
				Hold  *Holding    `json:"hold,omitempty" doc:"limits that are held to besides"`
				Heard []HeardNote `json:"heard" maxItems:"4096"`
			}
		}) (FreeTake, error) {
			o, m, err := s.over(in.Body.Over.Over, in.Body.Mode)
			if err != nil {
				return FreeTake{}, err
			}
			heard := each(in.Body.Heard, func(h HeardNote) judge.Heard { return judge.Heard(h) })
			holds, err := in.Body.Hold.over(o.Line, m, in.Body.Pass)
			if err != nil {
				return FreeTake{}, at("body.hold", in.Body.Hold, err)
			}
			f, err := m.Judge(o.Line, in.Body.Pass, heard, cmp.Or(in.Body.Tempo, o.Tempo), o.swing(in.Body.Swing, in.Body.Tempo))
			f.Hold(holds)
			return wireFree(f, m.Stage(in.Body.Pass)), err
		})
	post(s, api, "/api/practice/simulate", "simulate-practice", "What a simulated player plays: the line where it has notes, else one of its own from chord tone to chord tone",
		func(ctx context.Context, in *struct {
			Body struct {
				Over
				Mode  string  `json:"mode,omitempty" maxLength:"40" doc:"what it is played for: its changes are aimed at as that asks"`
				Pass  int     `json:"pass,omitempty" minimum:"0" maximum:"1000000"`
				Wrong float64 `json:"wrong,omitempty" minimum:"0" maximum:"1" doc:"how often a neighbouring note is played"`
				Late  float64 `json:"late,omitempty" minimum:"0" maximum:"1"`
				Lost  float64 `json:"lost,omitempty" minimum:"0" maximum:"1" doc:"how often, from bar to bar, the form is lost"`
				Seed  uint64  `json:"seed,omitempty"`
			}
		}) ([]HeardNote, error) {
			o, err := s.read(in.Body.Over.Over)
			if err != nil {
				return nil, err
			}
			if len(o.Notes) == 0 {
				wish := line.Wish{Region: o.Region, Palette: blend.Palettes[0], Rhythm: "eighths", Density: 3, Approach: true, Rule: o.Rule, Seed: in.Body.Seed}
				aimed := wish
				if in.Body.Mode != "" {
					mode, err := practice.ModeByID(in.Body.Mode)
					if err != nil {
						return nil, at("body.mode", in.Body.Mode, err)
					}
					stage := mode.Stage(in.Body.Pass)
					aimed.Targets, aimed.ChordTones = stage.Land, stage.Play == practice.Tones
				}
				if o.Notes, err = line.Write(ctx, o.Score, aimed, o.Hand); err != nil { // not all of it lies in these frets
					if o.Notes, err = line.Write(ctx, o.Score, wish, o.Hand); err != nil {
						return nil, err
					}
				}
			}
			heard, _ := judge.Player{Wrong: in.Body.Wrong, Late: in.Body.Late, Lost: in.Body.Lost, Spread: 12, Seed: in.Body.Seed}.
				Play(o.Score, cmp.Or(in.Body.Tempo, o.Tempo), o.swing(in.Body.Swing, in.Body.Tempo))
			return each(heard, func(h judge.Heard) HeardNote { h.At = math.Max(-46080, h.At); return HeardNote(h) }), nil
		})
}
