package server

import (
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
	Swings  []MapSwing  `json:"swings" doc:"takes in which it could be heard, the oldest first"`
	Minutes []MapPlayed `json:"minutes" doc:"week by week"`
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
	ID  uint `json:"id" doc:"a line of the log"`
	Bar int  `json:"bar,omitempty" doc:"from 1; 0 where that is not known"`
}

// MapCount is how often something was asked, how well it went, and what is behind it.
type MapCount struct {
	Trials  int         `json:"trials"`
	Success float64     `json:"success" doc:"of 1"`
	Last    time.Time   `json:"last"`
	Behind  []MapBehind `json:"behind" doc:"lines of the log, the newest first, with the bar that went worst"`
}

// MapCell is a key in a position.
type MapCell struct {
	Key      string `json:"key"`
	Class    int    `json:"class" doc:"pitch class of the key"`
	Position int    `json:"position" doc:"from 1"`
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
	return MapCount{c.Trials, c.Success, c.Last, each(c.Behind, func(b planner.Behind) MapBehind { return MapBehind{b.Entry, b.Bar} })}
}

// wireMaps adds to what was drawn of trials what lines of the log tell.
func wireMaps(m planner.Maps, entries []store.Entry, keep func(store.Entry) bool) LogMaps {
	w := LogMaps{Trials: m.Trials, Timing: MapTiming(m.Timing), Ladders: []MapLadder{}, Swings: []MapSwing{}, Minutes: []MapPlayed{}, Tunings: []MapTuning{}}
	w.Cells = each(m.Cells, func(c planner.Cell) MapCell {
		return MapCell{planner.KeyName(c.Key).String(), c.Key, c.Position + 1, mapCount(c.Count), c.Strength, c.Sure}
	})
	w.Spots = each(m.Spots, func(s planner.Spot) MapSpot { return MapSpot{s.Position + 1, s.String, s.Degree, mapCount(s.Count)} })
	w.Starts = each(m.Starts, func(s planner.Start) MapStart { return MapStart{s.Degree, s.Down, mapCount(s.Count), s.Strength} })
	w.Changes = each(m.Changes, func(c planner.Change) MapChange {
		return MapChange{c.From, c.To, c.Silent, c.OnRoot, c.Other, mapCount(c.Count)}
	})
	w.Weeks = each(m.Weeks, func(x planner.Week) MapWeek { return MapWeek(x) })
	for _, e := range entries {
		if e.Tuning != "" && !slices.ContainsFunc(w.Tunings, func(t MapTuning) bool { return t.Tuning == e.Tuning }) {
			w.Tunings = append(w.Tunings, MapTuning{e.Tuning, neck.TuningName(e.Tuning)})
		}
		if !keep(e) && e.Kind != store.LoggedRung {
			continue
		}
		if e.Swung > 0 {
			w.Swings = append(w.Swings, MapSwing{e.At, e.Swing, e.Swung, e.ID})
		}
		if e.Seconds > 0 {
			begins := planner.WeekOf(e.At)
			i := slices.IndexFunc(w.Minutes, func(p MapPlayed) bool { return p.Begins.Equal(begins) })
			if i < 0 {
				i = len(w.Minutes)
				w.Minutes = append(w.Minutes, MapPlayed{Begins: begins})
			}
			w.Minutes[i].Minutes += e.Seconds / 60
		}
		if e.Kind != store.LoggedRung {
			continue
		}
		i := slices.IndexFunc(w.Ladders, func(l MapLadder) bool { return l.Title == e.Title })
		if i < 0 {
			i = len(w.Ladders)
			w.Ladders = append(w.Ladders, MapLadder{Title: e.Title})
		}
		w.Ladders[i].Rungs = append(w.Ladders[i].Rungs, MapRung{e.At, e.Tempo})
	}
	slices.SortFunc(w.Minutes, func(a, b MapPlayed) int { return a.Begins.Compare(b.Begins) })
	return w
}
