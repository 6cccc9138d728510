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
	"undaris/core/lick"
	"undaris/core/say"
	"undaris/store"
)

// LickBody is what a player says of a lick.
type LickBody struct {
	Title string           `json:"title" maxLength:"120"`
	Chord string           `json:"chord" maxLength:"40" doc:"the kind of chord it was made over: 7, m7, or empty for a major triad; for a lick of a key m or empty"`
	OfKey bool             `json:"ofKey" doc:"its degrees are counted from the key, whatever chord sounds"`
	Notes []store.LickNote `json:"notes" maxItems:"256"`
	Tags  []string         `json:"tags" maxItems:"20"`

	Home   *store.Home `json:"home,omitempty" doc:"where it was written; of other notes than these it is not kept"`
	Remark string      `json:"remark,omitempty" maxLength:"1000" doc:"the player's own"`
	Source string      `json:"source,omitempty" maxLength:"200" doc:"where it is from"`

	Heard *store.Passage `json:"heard,omitempty" doc:"the stretch of a recording that it was learned from"`
}

// LickRow is a lick in a list.
type LickRow struct {
	ID      uint      `json:"id"`
	Version store.Tag `json:"version"`
	Title   string    `json:"title"`
	Chord   string    `json:"chord"`
	OfKey   bool      `json:"ofKey"`
	Tags    []string  `json:"tags"`
	LandsOn string    `json:"landsOn"`
	Leans   []string  `json:"leans" doc:"the extensions that it leans on"`
	Beats   float64   `json:"beats"`
	Begins  string    `json:"begins" doc:"where in its bar: 1, and of 2, pickup on 4"`
	Level   float64   `json:"level" doc:"how hard it is, 1 to 10; 0 where it cannot be played on a guitar"`
	Hard    string    `json:"hard" doc:"what that comes from"`
	Updated time.Time `json:"updated"`
	Problem string    `json:"problem,omitempty" doc:"why it cannot be opened"`
}

func lickRow(l store.LickSummary) LickRow {
	if l.Tags == nil {
		l.Tags = []string{}
	}
	return LickRow{l.ID, l.Tag, l.Title, l.Chord, l.OfKey, l.Tags, l.LandsOn, leans(l.Leans), l.Length, l.Begins, l.Level, l.Hard, l.UpdatedAt, l.Problem}
}

// leans are the degrees of "leans on 9 leans on 13".
func leans(text string) []string { return strings.Fields(strings.ReplaceAll(text, "leans on", "")) }

// maxTag is the longest tag in characters.
const maxTag = 40

// Lick is a lick on the shelf.
type Lick struct {
	ID      uint      `json:"id"`
	Version store.Tag `json:"version" doc:"its ETag, without the quotes"`
	LickBody
	LandsOn string    `json:"landsOn" doc:"the degree it ends on"`
	Beats   float64   `json:"beats" doc:"from its first beat to its end"`
	Text    string    `json:"text,omitempty" doc:"as read-lick reads it; none where its rhythm cannot be written so"`
	Line    *LineBody `json:"line,omitempty" doc:"on the player's neck, in the key of the chart opened last"`
	Score   *Score    `json:"score,omitempty"`
	Levels  []Form    `json:"levels,omitempty" doc:"its forms from plain to as it is, a kind of device more each time; none where it is plain"`
	Leans   []string  `json:"leans" doc:"the extensions that it leans on"`
	Under   *LineBody `json:"under,omitempty" doc:"the same line over a chord that holds what it leans on"`
	Holds   string    `json:"holds,omitempty" doc:"that chord"`
	Wide    string    `json:"wide,omitempty" doc:"how wide the hand lies, where that is beyond the player's comfort"`
	Problem string    `json:"problem,omitempty" doc:"why it cannot be shown on this neck"`
	Updated time.Time `json:"updated"`
}

// Form is a form of a lick.
type Form struct {
	ID    string   `json:"id"`
	Name  string   `json:"name"`
	Line  LineBody `json:"line"`
	Score Score    `json:"score"`
}

func (b LickBody) stored() (store.Lick, error) {
	l := store.Lick{Title: clean(b.Title), Chord: b.Chord, OfKey: b.OfKey, Tags: []string{}, Notes: b.Notes, Remark: b.Remark, Source: clean(b.Source), Heard: b.Heard}
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
	if err := l.Phrase().Check(); err != nil {
		return l, at("body.notes", nil, err)
	}
	l.Notes = store.LickNotes(l.Phrase().Settled().Notes)
	if b.Home != nil && l.Phrase().Lies(b.Home.Lick()) {
		l.Home = *b.Home
	}
	return l, nil
}

// Way is one way to play a moved lick.
type Way struct {
	Name    string    `json:"name"`
	Line    *LineBody `json:"line,omitempty"`
	Score   *Score    `json:"score,omitempty"`
	Levels  []Form    `json:"levels,omitempty" doc:"its forms from plain to as it is, a kind of device more each time; none where it is plain"`
	Leans   []string  `json:"leans" doc:"the extensions that it leans on"`
	Under   *LineBody `json:"under,omitempty" doc:"the same line over a chord that holds what it leans on"`
	Holds   string    `json:"holds,omitempty" doc:"that chord"`
	Travel  float64   `json:"travel" doc:"of the hand from where it was, in millimetres"`
	Problem string    `json:"problem,omitempty"`
	Wide    string    `json:"wide,omitempty" doc:"how wide the hand lies, where that is beyond the player's comfort"`
	Said    []string  `json:"said,omitempty" doc:"what has to be picked that was slid or hammered"`
}

// tonic is that of the chart opened last: licks are shown there.
func (s *server) tonic() string {
	if charts, err := s.store.Charts(store.Page{Limit: 1}); err == nil && len(charts) > 0 {
		if key, err := form.ParseKey(charts[0].Key); err == nil {
			return key.Tonic.String()
		}
	}
	return "C"
}

// show lays a lick on the player's neck.
func (s *server) show(t store.Lick) (edit.Line, error) {
	player, err := s.store.Player()
	if err != nil {
		return edit.Line{}, err
	}
	in, hand, err := playerNeck(player.Player)
	if err != nil {
		return edit.Line{}, err
	}
	if home, ok := edit.AtHome(t.Phrase(), t.Home.Lick(), t.Title, in, hand); ok {
		return home, nil
	}
	return edit.Show(t.Phrase(), t.Title, s.tonic(), in, hand)
}

func lickBody(t store.Lick) LickBody {
	b := LickBody{Title: t.Title, Chord: t.Chord, OfKey: t.OfKey, Notes: t.Notes, Tags: t.Tags, Remark: t.Remark, Source: t.Source, Heard: t.Heard}
	if len(t.Home.Places) > 0 {
		b.Home = &t.Home
	}
	return b
}

func (s *server) shown(t store.Lick) Lick {
	w := Lick{ID: t.ID, Version: t.Tag, LickBody: lickBody(t), Beats: t.Length, LandsOn: t.LandsOn, Leans: leans(t.Leans), Updated: t.UpdatedAt}
	if text, ok := lick.Text(t.Phrase().Notes); ok {
		w.Text = text
	}
	l, err := s.show(t)
	if err != nil {
		w.Problem = err.Error()
		return w
	}
	body, sc := wireBody(l), wireScore(l.Score)
	w.Line, w.Score, w.Wide = &body, &sc, l.Wide()
	if levels := l.Levels(); len(levels) > 1 {
		w.Levels = each(levels, func(v edit.Level) Form { return Form{v.ID, v.Name, wireBody(v.Line), wireScore(v.Line.Score)} })
	}
	if under, symbol, ok := edit.Under(t.Phrase(), l); ok {
		body := wireBody(under)
		w.Under, w.Holds = &body, symbol
	}
	return w
}

func wireWay(m edit.Moved) Way {
	w := Way{Name: m.Name, Travel: tenth(m.Travel), Said: m.Said}
	if m.Err != nil {
		w.Problem = m.Err.Error()
		return w
	}
	body, sc := wireBody(m.Line), wireScore(m.Line.Score)
	w.Line, w.Score, w.Wide = &body, &sc, m.Line.Wide()
	return w
}

// LickPlace is one of the places where a lick can be had.
type LickPlace struct {
	Low    int      `json:"low" doc:"the lowest fret that is pressed; 0 where all strings are open"`
	High   int      `json:"high"`
	Travel float64  `json:"travel" doc:"of the hand from where the lick was written, in millimetres"`
	Shape  bool     `json:"shape,omitempty" doc:"the shape that it was written in"`
	Line   LineBody `json:"line"`
	Score  Score    `json:"score"`
}

func wireSpread(p edit.Spread) LickPlace {
	low, high := lick.Frets(p.Notes)
	return LickPlace{low, high, tenth(p.Travel), p.Home, wireBody(p.Line), wireScore(p.Line.Score)}
}

// LickTags are the tags on the shelf.
type LickTags struct {
	Total int            `json:"total" doc:"licks"`
	Tags  []store.Tagged `json:"tags"`
}

func (s *server) licks(api huma.API) {
	keeping[LickBody, store.Lick, store.LickSummary, Lick, LickRow]{
		name: "lick", path: "/api/licks", wire: s.shown, row: lickRow, tag: func(l store.Lick) store.Tag { return l.Tag },
		stored: func(_ context.Context, b LickBody) (store.Lick, error) { return b.stored() },
		put:    func(old *store.Lick, now store.Lick) { now.Kept, *old = old.Kept, now },
		list:   s.store.Licks, count: s.store.CountLicks, one: s.store.Lick, create: s.store.CreateLick,
		change: s.store.ChangeLick, remove: s.store.DeleteLick, restore: s.store.RestoreLick,
	}.serve(s, api)

	get(s, api, "/api/licks/tags", "lick-tags", "The tags that licks have, the most frequent first",
		func(context.Context, *struct{}) (t LickTags, err error) {
			if t.Tags, err = s.store.LickTags(); err == nil {
				t.Total, err = s.store.CountLicks(store.All)
			}
			return t, err
		})
	get(s, api, "/api/licks/{id}/ways", "lick-ways", "A lick over another chord: the same shape along the neck, and a nearer one in place",
		func(_ context.Context, in *struct {
			ByID
			Chord   string `query:"chord" default:"F7"`
			Low     int    `query:"low" default:"7"`
			High    int    `query:"high" default:"11"`
			Strings string `query:"strings" maxLength:"20" doc:"such as 5,2; all where none is said"`
			Follow  bool   `query:"follow" doc:"degrees follow the kind of chord"`
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
			w, err := (RegionQuery{in.Low, in.High, in.Strings}).region(inst)
			if err != nil {
				return nil, err
			}
			from, err := s.show(t)
			if err != nil {
				from.Notes = nil
			}
			g := lick.Ground{In: inst, Region: w, Hand: hand, Follow: in.Follow}
			return each(edit.Ways(t.Phrase(), from, chord, g), wireWay), nil
		})

	get(s, api, "/api/licks/{id}/places", "lick-places", "All places on the neck where a lick can be had over a chord: its own shape first, then the nearest",
		func(_ context.Context, in *struct {
			ByID
			Chord  string `query:"chord" default:"F7"`
			Follow bool   `query:"follow" doc:"degrees follow the kind of chord"`
		}) ([]LickPlace, error) {
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
			from, err := s.show(t)
			if err != nil {
				from.Notes = nil
			}
			return each(edit.Places(t.Phrase(), from, chord, lick.Ground{In: inst, Hand: hand, Follow: in.Follow}), wireSpread), nil
		})

	post(s, api, "/api/licks/read", "read-lick", "A lick written as text, such as R/q b3/es 3/e 5/h",
		func(_ context.Context, in *struct {
			Body struct {
				Text string `json:"text" maxLength:"4000"`
			}
		}) ([]store.LickNote, error) {
			notes, err := lick.Parse(in.Body.Text)
			if err != nil {
				return nil, at("body.text", in.Body.Text, err)
			}
			return store.LickNotes(notes), nil
		})

	post(s, api, "/api/licks/study", "study-lick", "A lick that need not be kept, as it would be shown",
		func(_ context.Context, in *struct{ Body LickBody }) (Lick, error) {
			l, err := in.Body.stored()
			if err != nil {
				return Lick{}, err
			}
			l.Measure()
			return s.shown(l), nil
		})

	post(s, api, "/api/licks/keep", "keep-lick", "Bars of a line made into a lick",
		func(_ context.Context, in *struct {
			Body struct {
				Line  LineBody `json:"line"`
				First int      `json:"first" doc:"the number of the first note"`
				Last  int      `json:"last" doc:"of the last"`
				OfKey bool     `json:"ofKey,omitempty"`
			}
		}) (LickBody, error) {
			o, err := s.read(in.Body.Line)
			if err != nil {
				return LickBody{}, err
			}
			l, lies, err := o.Keep(in.Body.First, in.Body.Last, in.Body.OfKey)
			if err != nil {
				return LickBody{}, at("body.first", in.Body.First, err)
			}
			return LickBody{Title: o.Title, Chord: l.Chord, OfKey: l.OfKey, Notes: store.LickNotes(l.Notes), Tags: []string{}, Home: homeOf(lies), Source: in.Body.Line.Source, Heard: in.Body.Line.Heard}, nil
		})
}
