package server

import (
	"cmp"
	"errors"
	"maps"
	"slices"
	"time"

	"undaris/core/neck"
	"undaris/core/planner"
	"undaris/store"
)

// LogMaps are the maps of a log.
type LogMaps struct {
	Cells   []MapCell   `json:"cells" doc:"every key in every position"`
	Spots   []MapSpot   `json:"spots" doc:"strings in positions, by the degree that was asked for"`
	Starts  []MapStart  `json:"starts"`
	Changes []MapChange `json:"changes" doc:"the weakest first"`
	Weeks   []MapWeek   `json:"weeks"`
	Ladders []MapLadder `json:"ladders"`
	Timing  MapTiming   `json:"timing"`
	Swings  []MapSwing  `json:"swings" doc:"takes in which it could be heard, the oldest first; the latest 400"`
	Minutes []MapPlayed `json:"minutes" doc:"week by week"`
	Taken   []MapTaken  `json:"taken" doc:"what was taken for what in the latest 2,000 calls, the most often first"`
	Tunings []MapTuning `json:"tunings" doc:"of the instruments that were played, whatever is looked at"`
	Trials  int         `json:"trials"`
	Lost    int         `json:"lost" doc:"lines of the log that cannot be read"`
}

// MapSwing is how the second eighths of beats were played in a take, set against what
// was asked: 0.5 is straight, 0.667 a triplet's last third.
type MapSwing struct {
	At     time.Time `json:"at"`
	Asked  float64   `json:"asked"`
	Played float64   `json:"played"`
	Entry  uint      `json:"entry"`
}

// MapTaken is a degree that was taken for another.
type MapTaken struct {
	Wanted string `json:"wanted"`
	Said   string `json:"said"`
	Times  int    `json:"times"`
	By     string `json:"by" doc:"how it was answered most often: name, neck or play"`
}

// taken counts what was taken for what.
func taken(calls []store.Entry) []MapTaken {
	type pair struct{ wanted, said string }
	times, by := map[pair]int{}, map[pair]map[string]int{}
	for _, e := range calls {
		for _, t := range e.Trials {
			if p := (pair{t.Wanted, t.Said}); t.Said != "" && t.Wanted != t.Said {
				if times[p]++; by[p] == nil {
					by[p] = map[string]int{}
				}
				by[p][t.By]++
			}
		}
	}
	list := []MapTaken{}
	for p, n := range times {
		most := slices.MaxFunc(slices.Sorted(maps.Keys(by[p])), func(a, b string) int { return by[p][a] - by[p][b] })
		list = append(list, MapTaken{p.wanted, p.said, n, most})
	}
	slices.SortFunc(list, func(a, b MapTaken) int {
		return cmp.Or(b.Times-a.Times, cmp.Compare(a.Wanted, b.Wanted), cmp.Compare(a.Said, b.Said))
	})
	return list
}

// MapPlayed is how long was played in a week.
type MapPlayed struct {
	Begins  time.Time `json:"begins"`
	Minutes float64   `json:"minutes"`
}

// MapTuning is an instrument that was played.
type MapTuning struct {
	Tuning string `json:"tuning"`
	Name   string `json:"name"`
}

// MapBehind is a place in the log.
type MapBehind struct {
	ID     uint `json:"id" doc:"a line of the log"`
	Bar    int  `json:"bar,omitempty" doc:"from 1; 0 where that is not known"`
	Trials int  `json:"trials" doc:"of this, in that line"`
	Right  int  `json:"right" doc:"of them, that went right at once"`
}

// MapCount is how often something was asked, how well it went, and what is behind it.
type MapCount struct {
	Trials  int         `json:"trials"`
	Right   int         `json:"right" doc:"of them, that went right at once"`
	Success float64     `json:"success" doc:"of 1, with part marks for what was nearly right"`
	Last    time.Time   `json:"last"`
	Behind  []MapBehind `json:"behind" doc:"lines of the log, the newest first, with the bar that went worst"`
}

// MapCell is a key in a position.
type MapCell struct {
	Key      string `json:"key"`
	Class    int    `json:"class" doc:"pitch class of the key"`
	Position int    `json:"position" doc:"from 1"`
	Where    string `json:"where" doc:"its frets and shape on the player's neck"`
	MapCount
	Strength float64 `json:"strength" doc:"how likely it succeeds today, by the model"`
	Sure     float64 `json:"sure" doc:"how well that is known, of 1"`
}

// MapSpot is a string in a position.
type MapSpot struct {
	Position int    `json:"position" doc:"from 1"`
	String   int    `json:"string"`
	Degree   string `json:"degree"`
	MapCount
}

// MapStart is a degree and a direction.
type MapStart struct {
	Degree string `json:"degree"`
	Down   bool   `json:"down"`
	MapCount
	Strength float64 `json:"strength"`
}

// MapChange is a change from one chord to another.
type MapChange struct {
	From   string  `json:"from"`
	To     string  `json:"to"`
	Silent float64 `json:"silent" doc:"part that was met by silence"`
	OnRoot float64 `json:"onRoot" doc:"part that was met on the root"`
	Other  float64 `json:"other" doc:"part that was met late or by a wrong note"`
	Chart  uint    `json:"chart,omitempty" doc:"over which it was tried most"`
	MapCount
}

// MapWeek is what was landed on in a week.
type MapWeek struct {
	Begins  time.Time      `json:"begins"`
	Degrees map[string]int `json:"degrees"`
}

// MapLadder is how the tempo of an exercise went.
type MapLadder struct {
	Title string    `json:"title"`
	Rungs []MapRung `json:"rungs"`
}

// MapRung is a tempo that was reached.
type MapRung struct {
	At    time.Time `json:"at"`
	Tempo int       `json:"tempo"`
}

// MapTiming is how what was played lies about the beat.
type MapTiming struct {
	Bins   []int   `json:"bins" doc:"of ten milliseconds each, from −150 on"`
	Mean   float64 `json:"mean" doc:"milliseconds; positive is late"`
	Spread float64 `json:"spread"`
	Trials int     `json:"trials"`
}

func mapCount(c planner.Count) MapCount {
	return MapCount{c.Trials, c.Right, c.Success, c.Last, each(c.Behind, func(b planner.Behind) MapBehind { return MapBehind{b.Entry, b.Bar, b.Trials, b.Right} })}
}

// Most of what the maps show one by one: the latest.
const (
	mostSwings = 400
	mostRungs  = 2000
	mostCalls  = 2000
)

// logMaps draws a part of the log.
func (s *server) logMaps(of LogQuery) (w LogMaps, err error) {
	err = s.picture(func(now *planner.Picture) error {
		counted, err := s.counted(of)
		if err != nil {
			return err
		}
		in, _, err := s.neck()
		if err != nil {
			return err
		}
		w = wireMaps(planner.Draw(counted, now.Model, time.Now()), in)
		w.Lost = now.Lost
		tunings, err := s.tunings()
		if err != nil {
			return err
		}
		w.Tunings = each(tunings, func(t string) MapTuning { return MapTuning{t, neck.TuningName(t)} })
		swung := of.lines(s.journal.player)
		swung.Swung, swung.Newest, swung.Limit = true, true, mostSwings
		if err := s.latest(swung, func(e store.Entry) { w.Swings = append(w.Swings, MapSwing{e.At, e.Swing, e.Swung, e.ID}) }); err != nil {
			return err
		}
		var rungs []store.Entry // of whatever is looked at
		if err := s.latest(store.LogAsk{Player: s.journal.player, Kind: store.LoggedRung, Newest: true, Limit: mostRungs}, func(e store.Entry) { rungs = append(rungs, e) }); err != nil {
			return err
		}
		w.Ladders = ladders(rungs)
		calls := of.lines(s.journal.player)
		calls.Kind, calls.Newest, calls.Limit = store.LoggedCall, true, mostCalls
		var asked []store.Entry
		if err := s.latest(calls, func(e store.Entry) { asked = append(asked, e) }); err != nil {
			return err
		}
		w.Taken = taken(asked)
		return nil
	})
	return w, err
}

// latest goes through the newest lines of what is asked for, the oldest of them first.
func (s *server) latest(ask store.LogAsk, do func(store.Entry)) error {
	var list []store.Entry
	for l, err := range s.store.Logged(ask) {
		if err != nil {
			return err
		}
		if !l.Lost {
			list = append(list, l.Entry)
		}
	}
	for _, e := range slices.Backward(list) {
		do(e)
	}
	return nil
}

// tunings are those of the instruments that were played.
func (s *server) tunings() ([]string, error) {
	err := s.keepPicture()
	if errors.Is(err, store.ErrTallies) {
		err = s.anew()
	}
	if err != nil {
		return nil, err
	}
	return s.store.Tunings(s.journal.player)
}

// ladders are rungs by what they are of.
func ladders(rungs []store.Entry) []MapLadder {
	list := []MapLadder{}
	for _, e := range rungs {
		i := slices.IndexFunc(list, func(l MapLadder) bool { return l.Title == e.Title })
		if i < 0 {
			i = len(list)
			list = append(list, MapLadder{Title: e.Title})
		}
		list[i].Rungs = append(list[i].Rungs, MapRung{e.At, e.Tempo})
	}
	return list
}

func wireMaps(m planner.Maps, in *neck.Instrument) LogMaps {
	w := LogMaps{Trials: m.Trials, Timing: MapTiming(m.Timing), Swings: []MapSwing{}, Minutes: []MapPlayed{}, Weeks: []MapWeek{}}
	w.Cells = each(m.Cells, func(c planner.Cell) MapCell {
		where := "beyond this neck"
		if p, ok := in.Numbered(c.Key, c.Position+1); ok {
			where = p.Says()
		}
		return MapCell{planner.KeyName(c.Key).String(), c.Key, c.Position + 1, where, mapCount(c.Count), c.Strength, c.Sure}
	})
	w.Spots = each(m.Spots, func(s planner.Spot) MapSpot { return MapSpot{s.Position + 1, s.String, s.Degree, mapCount(s.Count)} })
	w.Starts = each(m.Starts, func(s planner.Start) MapStart { return MapStart{s.Degree, s.Down, mapCount(s.Count), s.Strength} })
	w.Changes = each(m.Changes, func(c planner.Change) MapChange {
		return MapChange{c.From, c.To, c.Silent, c.OnRoot, c.Other, c.Chart, mapCount(c.Count)}
	})
	for _, x := range m.Weeks {
		if len(x.Degrees) > 0 {
			w.Weeks = append(w.Weeks, MapWeek{x.Begins, x.Degrees})
		}
		if x.Seconds > 0 {
			w.Minutes = append(w.Minutes, MapPlayed{x.Begins, x.Seconds / 60})
		}
	}
	return w
}
