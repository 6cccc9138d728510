package server

import (
	"cmp"
	"context"
	"net/http"
	"slices"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/neck"
	"undaris/core/planner"
	"undaris/store"
)

// Today is a plan.
type Today struct {
	Items   []TodayItem `json:"items"`
	Known   int         `json:"known" doc:"how many things the plan knows of"`
	Ready   []Ready     `json:"ready" doc:"where charts must be safe by a day: how far they are"`
	Evening string      `json:"evening,omitempty" doc:"where charts must be safe by a day: what of this plan is for it"`
	Left    []string    `json:"left" doc:"what of the log was not counted, or otherwise than it was noted"`
}

// Ready is how far a chart is.
type Ready struct {
	Chart   uint        `json:"chart"`
	Title   string      `json:"title"`
	Safe    int         `json:"safe" doc:"changes that are met, and can be left"`
	Weak    []ReadyWeak `json:"weak" doc:"changes that are not safe yet, the weakest first"`
	Untried []ReadyWeak `json:"untried" doc:"changes that were hardly tried"`
	Bars    []int       `json:"bars" doc:"in which safe changes come, from 1"`
	Open    []int       `json:"open" doc:"in which the others come"`
}

// ReadyWeak is a change of a chart.
type ReadyWeak struct {
	From    string  `json:"from"`
	To      string  `json:"to"`
	Success float64 `json:"success"`
	Right   int     `json:"right" doc:"of the trials, that were met"`
	Trials  int     `json:"trials"`
}

func ready(r planner.Readiness) Ready {
	return Ready{r.Tune.ID, r.Tune.Title, r.Safe,
		each(r.Weak, func(w planner.Weak) ReadyWeak { return ReadyWeak{w.From, w.To, w.Success, w.Right, w.Trials} }),
		each(r.Untried, func(c [2]string) ReadyWeak { return ReadyWeak{From: c[0], To: c[1]} }),
		append([]int{}, r.Bars...), append([]int{}, r.Open...)}
}

// TodayItem is a part of a plan.
type TodayItem struct {
	ID      string       `json:"id"`
	Kind    string       `json:"kind" enum:"warm-up,calls,changes,line,rest,music"`
	Title   string       `json:"title"`
	Why     string       `json:"why"`
	Done    string       `json:"done" doc:"how to know that it is done"`
	Minutes int          `json:"minutes"`
	New     bool         `json:"new" doc:"never practised before"`
	Chart   uint         `json:"chart,omitempty"`
	Line    uint         `json:"line,omitempty" doc:"that is played, or found by ear"`
	Lick    uint         `json:"lick,omitempty" doc:"of a mode that takes one"`
	Change  string       `json:"change,omitempty" doc:"of changes: the one that goes round alone, as C7,F7"`
	Mode    string       `json:"mode,omitempty" doc:"of the catalogue; melody where one is to be written"`
	Tempo   int          `json:"tempo,omitempty" doc:"to begin at, where it is not the chart's"`
	Key     string       `json:"key,omitempty" doc:"of calls"`
	Start   string       `json:"start,omitempty"`
	Down    bool         `json:"down,omitempty"`
	Window  *store.Frets `json:"window,omitempty"`
	Mixed   string       `json:"mixed,omitempty" doc:"of calls that come in turn: what of each, as calls are asked for it"`
	Turn    []string     `json:"turn,omitempty" doc:"the same in words"`
}

func todayItem(i planner.Item, on *neck.Instrument) TodayItem {
	w := TodayItem{ID: i.ID, Kind: i.Kind, Title: i.Title, Why: i.Why, Done: i.Done, Minutes: i.Minutes, New: i.New, Chart: i.Chart, Line: i.Line, Lick: i.Lick, Mode: i.Mode, Tempo: i.Tempo}
	if i.Change != [2]string{} {
		w.Change = i.Change[0] + "," + i.Change[1]
	}
	if i.Where.Number > 0 {
		w.Window = &store.Frets{Low: i.Where.Low, High: i.Where.High}
	}
	if i.Kind == planner.Calls {
		w.Key, w.Start, w.Down = planner.KeyName(i.Ask.Key).String(), i.Ask.Degree, i.Ask.Down
		w.Mixed, w.Turn = mixed(i.Asks), each(i.Asks, func(a planner.Ask) string { return a.Says(on) })
	}
	return w
}

// wide tells the widest stretch of a kept line that is beyond the player's reach; "" is none.
func (s *server) wide(id uint) string {
	if id == 0 {
		return ""
	}
	kept, err := s.store.Line(id)
	if err != nil {
		return ""
	}
	l, err := s.read(wireLine(kept).LineBody)
	if err != nil {
		return "" // it is not shown on this neck
	}
	return l.Wide()
}

// mostTunes are how many charts are planned for.
const mostTunes = 12

// needs tells what a chart needs of a player: its kinds of chords and its changes, each once, with the one back to its top, and how long
// its form is.
func (s *server) needs(t *planner.Tune) error {
	on, _, err := s.handed(t.ID)
	if err != nil {
		return err
	}
	places := on.Solo.Places()
	for i, p := range places {
		if q := p.Chord.Suffix(); !p.Chord.None && !slices.Contains(t.Qualities, q) {
			t.Qualities = append(t.Qualities, q)
		}
		next := places[(i+1)%len(places)]
		c := [2]string{p.Chord.String(), next.Chord.String()}
		if c[0] == c[1] || p.Chord.None || next.Chord.None {
			continue
		}
		at := slices.Index(t.Changes, c)
		if at < 0 {
			at = len(t.Changes)
			t.Changes, t.Arrives = append(t.Changes, c), append(t.Arrives, nil)
		}
		t.Arrives[at] = append(t.Arrives[at], next.Bar+1)
	}
	t.Beats = on.Solo.Length()
	return nil
}

// tunes are the charts that are planned for: those that must be safe by a day, else
// those opened last.
func (s *server) tunes(ids []uint, by string) (tunes []planner.Tune, err error) {
	var day time.Time
	if by != "" {
		if day, err = time.Parse(time.DateOnly, by); err != nil {
			return nil, at("query.by", by, problem(http.StatusUnprocessableEntity, "a day is written as 2026-11-27"))
		}
	}
	rows, err := s.store.Charts(store.Page{Limit: 200})
	if err != nil {
		return nil, err
	}
	for _, r := range rows {
		if r.Problem != "" || len(ids) > 0 && !slices.Contains(ids, r.ID) {
			continue
		}
		if len(tunes) == mostTunes {
			break
		}
		t := planner.Tune{ID: r.ID, Title: r.Title, Tempo: r.Tempo}
		if key, err := readKey("", r.Key); err == nil {
			t.Key = key.Tonic.Class()
		}
		if err = s.needs(&t); err != nil {
			return nil, err
		}
		if len(ids) > 0 {
			t.By = day
		}
		tunes = append(tunes, t)
	}
	return tunes, nil
}

// pieces are the lines and exercises that are there, with how their takes went, and the
// licks.
func (s *server) pieces(now *planner.Picture) (lines, licks []planner.Written, err error) {
	rows, err := s.store.Lines(store.Page{Limit: 200})
	if err != nil {
		return nil, nil, err
	}
	for _, r := range rows {
		if r.Problem != "" || r.Sounding == 0 {
			continue
		}
		lines = append(lines, planner.Written{ID: r.ID, Title: r.Title, Exercise: r.Exercise != "", Tempo: r.Tempo, Count: now.Takes(r.ID)})
	}
	shelf, err := s.store.Licks(store.Page{Limit: 200})
	for _, l := range shelf {
		if l.Problem == "" && !l.OfKey {
			w := planner.Written{ID: l.ID, Title: l.Title}
			w.Count, w.Over = now.Lick(l.ID)
			licks = append(licks, w)
		}
	}
	return lines, licks, err
}

// uncounted tells what of the log was not counted as it was noted.
func (s *server) uncounted(now *planner.Picture) []string {
	list := []string{}
	lines := func(n int) string {
		if n == 1 {
			return "one line of the log"
		}
		return strconv.Itoa(n) + " lines of the log"
	}
	if now.Lost > 0 {
		list = append(list, lines(now.Lost)+" cannot be read and count for nothing")
	}
	if n := s.journal.repaired; n > 0 {
		list = append(list, lines(n)+" bore a day to come and count as of the time before")
	}
	return list
}

func (s *server) today(api huma.API) {
	get(s, api, "/api/today", "today", "What to practise today, out of what was measured",
		func(_ context.Context, in *struct {
			Minutes int      `query:"minutes" default:"20" minimum:"5" maximum:"60"`
			Without []string `query:"without,explode" maxItems:"60" doc:"items that were swapped away"`
			By      string   `query:"by" maxLength:"10" doc:"a day on which the charts must be safe, as 2026-11-27"`
			Charts  []uint   `query:"chart,explode" maxItems:"60" doc:"for that day; else the charts opened last"`
			Seed    uint64   `query:"seed"`
		}) (p Today, err error) {
			tunes, err := s.tunes(in.Charts, in.By)
			if err != nil {
				return p, err
			}
			err = s.picture(func(now *planner.Picture) error {
				on, hand, err := s.neck()
				if err != nil {
					return err
				}
				order := planner.Order{Minutes: cmp.Or(in.Minutes, 20), In: on, Hand: hand, Without: in.Without, Tunes: tunes, Seed: in.Seed}
				if order.Pieces, order.Licks, err = s.pieces(now); err != nil {
					return err
				}
				if order.Set, err = s.set(now); err != nil {
					return err
				}
				plan := now.Model.Plan(order, now.Tally, time.Now())
				p.Items, p.Evening = each(plan, func(i planner.Item) TodayItem { return todayItem(i, on) }), order.Tells(plan, time.Now())
				for i, item := range p.Items {
					if wide := s.wide(item.Line); item.Kind == planner.Piece && wide != "" {
						p.Items[i].Why += "; its widest stretch is " + wide
					}
				}
				p.Known, p.Left = now.Tally.Trials, s.uncounted(now)
				p.Ready = []Ready{}
				if len(in.Charts) > 0 {
					p.Ready = each(planner.Evening(tunes, now.Tally), ready)
				}
				return nil
			})
			return p, err
		})
}
