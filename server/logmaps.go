package server

import (
	"slices"
	"time"

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
	Trials  int         `json:"trials"`
}

// MapCount is how often something was asked, how well it went, and what is behind it.
type MapCount struct {
	Trials  int       `json:"trials"`
	Success float64   `json:"success" doc:"of 1"`
	Last    time.Time `json:"last"`
	Entries []uint    `json:"entries" doc:"lines of the log behind it, the newest first"`
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
	return MapCount{c.Trials, c.Success, c.Last, append([]uint{}, c.Entries...)}
}

func wireMaps(m planner.Maps, entries []store.Entry) LogMaps {
	w := LogMaps{Trials: m.Trials, Timing: MapTiming(m.Timing), Ladders: []MapLadder{}}
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
	return w
}
