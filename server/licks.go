package server

import (
	"context"
	"errors"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/core/score"
	"undaris/store"
)

// LickNote is a note of a lick.
type LickNote lick.Note

func wireLickNotes(notes []lick.Note) []LickNote {
	list := make([]LickNote, len(notes))
	for i, n := range notes {
		list[i] = LickNote(n)
	}
	return list
}

// LickBody is what a player says of a lick.
type LickBody struct {
	Title string     `json:"title" maxLength:"120"`
	Chord string     `json:"chord" maxLength:"40" doc:"the kind of chord it was made over: 7, m7, or empty for a major triad; for a lick of a key m or empty"`
	OfKey bool       `json:"ofKey" doc:"its degrees are counted from the key, whatever chord sounds"`
	Notes []LickNote `json:"notes" maxItems:"256"`
	Tags  []string   `json:"tags" maxItems:"20"`
}

// LickRow is a lick in a list.
type LickRow struct {
	ID      uint      `json:"id"`
	Version uint      `json:"version"`
	Title   string    `json:"title"`
	Chord   string    `json:"chord"`
	OfKey   bool      `json:"ofKey"`
	Tags    []string  `json:"tags"`
	LandsOn string    `json:"landsOn"`
	Beats   float64   `json:"beats"`
	Updated time.Time `json:"updated"`
	Problem string    `json:"problem,omitempty" doc:"why it cannot be opened"`
}

func lickRow(l store.LickSummary) LickRow {
	if l.Tags == nil {
		l.Tags = []string{}
	}
	return LickRow{l.ID, l.Version, l.Title, l.Chord, l.OfKey, l.Tags, l.LandsOn, l.Length, l.UpdatedAt, l.Problem}
}

// maxTag is the longest tag in characters.
const maxTag = 40

// Lick is a lick on the shelf.
type Lick struct {
	ID      uint `json:"id"`
	Version uint `json:"version" doc:"its ETag, without the quotes"`
	LickBody
	LandsOn string    `json:"landsOn" doc:"the degree it ends on"`
	Beats   float64   `json:"beats" doc:"from its first beat to its end"`
	Line    *LineBody `json:"line,omitempty" doc:"on the player's neck, in the key of the chart opened last"`
	Score   *Score    `json:"score,omitempty"`
	Problem string    `json:"problem,omitempty" doc:"why it cannot be shown on this neck"`
	Updated time.Time `json:"updated"`
}

func coreLick(l store.Lick) lick.Lick {
	return lick.Lick{Chord: l.Chord, OfKey: l.OfKey, Notes: l.Notes}
}

func (b LickBody) stored() (store.Lick, error) {
	l := store.Lick{Title: clean(b.Title), Chord: b.Chord, OfKey: b.OfKey, Tags: []string{}}
	for _, n := range b.Notes {
		l.Notes = append(l.Notes, lick.Note(n))
	}
	if l.Title == "" {
		return l, at("body.title", b.Title, errors.New("a lick needs a title"))
	}
	for _, t := range b.Tags {
		if t = strings.ToLower(clean(t)); utf8.RuneCountInString(t) > maxTag {
			return l, at("body.tags", t, say.Errorf("a tag of more than %d characters", maxTag))
		} else if t != "" && !slices.Contains(l.Tags, t) {
			l.Tags = append(l.Tags, t)
		}
	}
	if err := coreLick(l).Check(); err != nil {
		return l, at("body.notes", nil, err)
	}
	l.Notes = coreLick(l).Settled().Notes
	return l, nil
}

// Way is one way to play a moved lick.
type Way struct {
	Name    string   `json:"name"`
	Study   *Study   `json:"study,omitempty"`
	Travel  float64  `json:"travel" doc:"of the hand from where it was, in millimetres"`
	Problem string   `json:"problem,omitempty"`
	Said    []string `json:"said,omitempty" doc:"what has to be picked that was slid or hammered"`
}

// home is the chord a lick is shown over: its kind of chord on the tonic of the
// chart that was opened last.
func (s *server) home(l lick.Lick) harmony.Chord {
	tonic := "C"
	if charts, err := s.store.Charts(store.Page{Limit: 1}); err == nil && len(charts) > 0 {
		if key, err := form.ParseKey(charts[0].Key); err == nil {
			tonic = key.Tonic.String()
		}
	}
	return harmony.MustParse(tonic + l.Chord)
}

// over writes a lick over bars of one chord.
func (s *server) over(l lick.Lick, title string, chord harmony.Chord, notes []score.Note, w neck.Window, in *neck.Instrument, hand neck.Hand) onPaper {
	p := form.Progression{Beats: 4}
	bars := max(1, (l.End()+4*score.Tick-1)/(4*score.Tick))
	for range bars {
		p.Bars = append(p.Bars, form.Bar{Changes: []form.Change{{Chord: chord}}})
	}
	key := form.Key{Tonic: chord.Root, Minor: chord.Minor()}
	o := onPaper{Line: edit.Line{Hand: hand, Window: w}, body: LineBody{Key: key.String(), Feel: "shuffle", Tempo: 96, Beats: 4, Low: w.Low, High: w.High, Tuning: in.Tuning(), Frets: in.Frets, Capo: in.Capo}}
	o.Score = score.Score{Title: title, Key: key, Tempo: 96, Swing: true, Progression: p, In: in, Notes: notes}
	lick.Label(o.Score)
	return o
}

// shown lays a lick on the player's neck over its home, in the lowest window of five
// frets from the fifth on that suits the hand best.
func (s *server) shown(t store.Lick) Lick {
	l := coreLick(t)
	w := Lick{ID: t.ID, Version: t.Version, LickBody: LickBody{t.Title, t.Chord, t.OfKey, wireLickNotes(t.Notes), t.Tags}, Beats: t.Length, LandsOn: t.LandsOn, Updated: t.UpdatedAt}
	player, err := s.store.Player()
	if err != nil {
		return w
	}
	in, hand, err := playerNeck(player.Player)
	if err != nil {
		return w
	}
	home := s.home(l)
	for _, window := range []neck.Window{{Low: 7, High: 11}, {Low: 5, High: 10}, {Low: 2, High: 8}, {Low: 7, High: 14}, {Low: 0, High: 14}} {
		window.High = min(window.High, in.Last())
		notes, err := l.Realise(home, 0, lick.Ground{In: in, Window: window, Hand: hand})
		if err != nil {
			w.Problem = err.Error()
			continue
		}
		o := s.over(l, t.Title, home, notes, window, in, hand)
		body, sc := o.line(), wireScore(o.Score)
		w.Line, w.Score, w.Problem = &body, &sc, ""
		break
	}
	return w
}

func (s *server) licks(api huma.API) {
	keeping[LickBody, store.Lick, store.LickSummary, Lick, LickRow]{
		name: "lick", path: "/api/licks", wire: s.shown, row: lickRow, version: func(l store.Lick) uint { return l.Version },
		stored: func(_ context.Context, b LickBody) (store.Lick, error) { return b.stored() },
		put:    func(old *store.Lick, now store.Lick) { now.Kept, *old = old.Kept, now },
		list:   s.store.Licks, count: s.store.CountLicks, one: s.store.Lick, create: s.store.CreateLick,
		change: s.store.ChangeLick, remove: s.store.DeleteLick, restore: s.store.RestoreLick,
	}.serve(s, api)

	get(s, api, "/api/licks/{id}/ways", "lick-ways", "A lick over another chord: the same shape along the neck, and a nearer one in place",
		func(_ context.Context, in *struct {
			ByID
			Chord  string `query:"chord" default:"F7"`
			Low    int    `query:"low" default:"7"`
			High   int    `query:"high" default:"11"`
			Follow bool   `query:"follow" doc:"degrees follow the kind of chord"`
		}) ([]Way, error) {
			t, err := s.store.Lick(in.ID)
			if err != nil {
				return nil, missing("lick", err)
			}
			player, err := s.store.Player()
			if err != nil {
				return nil, err
			}
			inst, hand, err := playerNeck(player.Player)
			if err != nil {
				return nil, err
			}
			chord, err := readChord("query.chord", in.Chord)
			if err != nil {
				return nil, err
			}
			w, err := (WindowQuery{in.Low, in.High}).window(inst)
			if err != nil {
				return nil, err
			}
			l := coreLick(t)
			shown := s.shown(t)
			var from []score.Note
			if shown.Line != nil {
				o, err := s.read(*shown.Line)
				if err != nil {
					return nil, err
				}
				from = o.Notes
			}
			list := []Way{}
			for _, way := range l.Ways(from, chord, 0, lick.Ground{In: inst, Window: w, Hand: hand, Follow: in.Follow}) {
				seen := Way{Name: way.Name, Travel: tenth(way.Travel), Said: way.Said}
				if way.Err != nil {
					seen.Problem = way.Err.Error()
				} else {
					st := s.over(l, t.Title, chord, way.Notes, w, inst, hand).study()
					seen.Study = &st
				}
				list = append(list, seen)
			}
			return list, nil
		})

	post(s, api, "/api/licks/read", "read-lick", "A lick written as text, such as R/q b3/es 3/e 5/h",
		func(_ context.Context, in *struct {
			Body struct {
				Text string `json:"text" maxLength:"4000"`
			}
		}) ([]LickNote, error) {
			notes, err := lick.Parse(in.Body.Text)
			if err != nil {
				return nil, at("body.text", in.Body.Text, err)
			}
			return wireLickNotes(notes), nil
		})

	post(s, api, "/api/licks/keep", "keep-lick", "Bars of a line made into a lick",
		func(_ context.Context, in *struct {
			Body struct {
				Line  LineBody `json:"line"`
				From  int      `json:"from" minimum:"0" maximum:"8000" doc:"index of the first note"`
				To    int      `json:"to" minimum:"0" maximum:"8000" doc:"index of the last"`
				OfKey bool     `json:"ofKey,omitempty"`
			}
		}) (LickBody, error) {
			o, err := s.read(in.Body.Line)
			if err != nil {
				return LickBody{}, err
			}
			if in.Body.From < 0 || in.Body.To < in.Body.From || in.Body.To >= len(o.Notes) {
				return LickBody{}, at("body.from", in.Body.From, errors.New("there are no such notes in the line"))
			}
			notes := o.Notes[in.Body.From : in.Body.To+1]
			zero := max(0, notes[0].Start) / o.Bar() * o.Bar()
			chord, sounds := o.ChordAt(notes[0].Start)
			if in.Body.OfKey || !sounds {
				chord = harmony.MustParse(o.Key.String())
			}
			l := lick.Of(notes, chord, zero, in.Body.OfKey)
			return LickBody{Title: o.Title, Chord: l.Chord, OfKey: l.OfKey, Notes: wireLickNotes(l.Notes), Tags: []string{}}, nil
		})
}
