package planner

import (
	"cmp"
	"math"
	"slices"
	"time"

	"undaris/core/say"
)

// Trial is one thing that was asked, with how it went: a call, or a change in a take.
type Trial struct {
	Ask
	At      time.Time
	Entry   uint   // of the log that it belongs to
	Chart   uint   // 0 where none was
	Tuning  string // of the instrument it was played on
	Chord   string // symbol
	From    string // the chord before, of a change
	String  int    // where it was played; 0 where that is not known
	Bar     int    // of a change: the bar it is in, from 1; 0 where that is not known
	Met     string // of a change: in a word, how it was met
	On      string // of a change: the degree that was landed on
	Success float64
	Ms      float64 // until it was answered; of a change, how late
	Timed   bool    // Ms tells how late it was
}

// Check says what of a trial cannot be: a key that is none of twelve, a position that is none
// of the key's, a success beyond 0 to 1.
func (t Trial) Check() error {
	switch {
	case t.Key < 0 || t.Key > 11:
		return say.Errorf("key %d is none of the twelve", t.Key)
	case t.Position < -1 || t.Position >= Positions:
		return say.Errorf("position %d is none of the %d", t.Position, Positions)
	case !(t.Success >= 0 && t.Success <= 1):
		return say.Errorf("a success of %v is not within 0 to 1", t.Success)
	case t.String < 0 || t.Bar < 0 || t.Tempo < 0:
		return say.Errorf("a string, a bar or a tempo is below 0")
	}
	return nil
}

// Count is how often something was asked and how well it went.
type Count struct {
	Trials  int
	Success float64 // of 1, the mean
	Last    time.Time
	worst   float64  // of the newest line behind it
	Behind  []Behind // the last ones, the newest first
}

// Behind is a place in the log: a line of it, and the bar of what was played there.
type Behind struct {
	Entry uint
	Bar   int // from 1; 0 where that is not known
}

const behind = 6 // entries that are told of a count

func (c *Count) add(t Trial) {
	c.Success += (t.Success - c.Success) / float64(c.Trials+1)
	c.Trials++
	if t.At.After(c.Last) {
		c.Last = t.At
	}
	if t.Entry == 0 {
		return
	}
	if len(c.Behind) > 0 && c.Behind[0].Entry == t.Entry { // of one line, the place where it went worst
		if t.Success < c.worst {
			c.worst, c.Behind[0].Bar = t.Success, t.Bar
		}
		return
	}
	if len(c.Behind) < behind {
		c.Behind = append(c.Behind, Behind{})
	}
	copy(c.Behind[1:], c.Behind)
	c.Behind[0], c.worst = Behind{t.Entry, t.Bar}, t.Success
}

// Cell is a key in a position: what was seen of it, and what the model makes of it.
type Cell struct {
	Key, Position int
	Count
	Strength float64 // how likely it succeeds today
	Sure     float64 // 1 is well known, 0 not at all
}

// Spot is a string in a position, with the degree that was asked for.
type Spot struct {
	Position, String int
	Degree           string
	Count
}

// Start is a degree and a direction.
type Start struct {
	Degree string
	Down   bool
	Count
	Strength float64
}

// Change is a change from one chord to another.
type Change struct {
	From, To              string
	Silent, OnRoot, Other float64 // parts of its trials: met by silence, on the root, by a wrong note or late
	Count
}

// Week is what was landed on in a week.
type Week struct {
	Begins  time.Time
	Degrees map[string]int
}

// Timing is how what was played lies about the beat.
type Timing struct {
	Bins         []int   // of ten milliseconds each, from −150 on
	Mean, Spread float64 // milliseconds: positive is late
	Trials       int
}

// Maps are what a log looks like from several sides.
type Maps struct {
	Cells   []Cell
	Spots   []Spot
	Starts  []Start
	Changes []Change
	Weeks   []Week
	Timing  Timing
	Trials  int
}

// Weeks begin on Mondays; the first after 1970 began was on 5 January.
const (
	secondsOfWeek = 7 * 24 * 3600
	firstMonday   = 4 * 24 * 3600
)

func weekOf(at time.Time) int64 { return (at.Unix() - firstMonday) / secondsOfWeek }

func begins(week int64) time.Time { return time.Unix(week*secondsOfWeek+firstMonday, 0).UTC() }

// WeekOf is when the week of a time begins: a Monday, in UTC.
func WeekOf(at time.Time) time.Time { return begins(weekOf(at)) }

// Draw draws the maps of trials that keep says yes to, as they are by a time. The
// model knows all of them.
func Draw(trials []Trial, m *Model, at time.Time, keep func(Trial) bool) Maps {
	var out Maps
	cells := map[[2]int]*Cell{}
	type spot struct {
		position, str int
		degree        string
	}
	type start struct {
		degree string
		down   bool
	}
	spots := map[spot]*Spot{}
	starts := map[start]*Start{}
	changes := map[[2]string]*Change{}
	weeks := map[int64]*Week{}
	var late []float64
	out.Timing.Bins = make([]int, 30)
	for _, t := range trials {
		if !keep(t) {
			continue
		}
		out.Trials++
		if t.Position >= 0 {
			get(cells, [2]int{t.Key, t.Position}, func() *Cell { return &Cell{Key: t.Key, Position: t.Position} }).add(t)
			if t.String > 0 {
				get(spots, spot{t.Position, t.String, t.Degree}, func() *Spot { return &Spot{Position: t.Position, String: t.String, Degree: t.Degree} }).add(t)
			}
		}
		get(starts, start{t.Degree, t.Down}, func() *Start { return &Start{Degree: t.Degree, Down: t.Down} }).add(t)
		if t.From != "" {
			c := get(changes, [2]string{t.From, t.Chord}, func() *Change { return &Change{From: t.From, To: t.Chord} })
			c.add(t)
			switch {
			case t.Met == "silent":
				c.Silent++
			case t.On == "R":
				c.OnRoot++
			case t.Success < 0.5:
				c.Other++
			}
			n := weekOf(t.At)
			w := get(weeks, n, func() *Week { return &Week{begins(n), map[string]int{}} })
			w.Degrees[cmp.Or(t.On, "–")]++
		}
		if t.Timed {
			late = append(late, t.Ms)
			out.Timing.Bins[max(0, min(29, int(math.Floor(t.Ms/10))+15))]++
		}
	}
	for key := range 12 {
		for p := range Positions {
			c := Cell{Key: key, Position: p}
			if seen := cells[[2]int{key, p}]; seen != nil {
				c = *seen
			}
			k := m.now(Skill{Kind: Place, Key: key, Position: p}, at)
			c.Strength, _ = m.Predict(Ask{Key: key, Position: p, Quality: "7", Degree: "third", Device: "tones"}, at)
			c.Sure = 1 - min(1, k.Var/m.p.Spread)
			out.Cells = append(out.Cells, c)
		}
	}
	for _, s := range spots {
		out.Spots = append(out.Spots, *s)
	}
	slices.SortFunc(out.Spots, func(a, b Spot) int {
		return cmp.Or(a.Position-b.Position, a.String-b.String, cmp.Compare(a.Degree, b.Degree))
	})
	for _, s := range starts {
		s.Strength = logistic(m.p.Base + m.now(Ask{Degree: s.Degree, Down: s.Down}.Skills()[1], at).Mean)
		out.Starts = append(out.Starts, *s)
	}
	slices.SortFunc(out.Starts, func(a, b Start) int {
		return cmp.Or(slices.Index(Degrees, a.Degree)-slices.Index(Degrees, b.Degree), downLast(a.Down)-downLast(b.Down))
	})
	for _, c := range changes {
		n := float64(c.Trials)
		c.Silent, c.OnRoot, c.Other = c.Silent/n, c.OnRoot/n, c.Other/n
		out.Changes = append(out.Changes, *c)
	}
	slices.SortFunc(out.Changes, func(a, b Change) int {
		return cmp.Or(cmp.Compare(a.Success, b.Success), cmp.Compare(a.From+a.To, b.From+b.To))
	})
	for _, w := range weeks {
		out.Weeks = append(out.Weeks, *w)
	}
	slices.SortFunc(out.Weeks, func(a, b Week) int { return a.Begins.Compare(b.Begins) })
	out.Timing.Trials = len(late)
	for _, x := range late {
		out.Timing.Mean += x / float64(len(late))
	}
	for _, x := range late {
		out.Timing.Spread += (x - out.Timing.Mean) * (x - out.Timing.Mean) / float64(len(late))
	}
	out.Timing.Spread = math.Sqrt(out.Timing.Spread)
	return out
}

func downLast(down bool) int {
	if down {
		return 1
	}
	return 0
}

// get finds what a map has of a key, and makes it where it has nothing.
func get[K comparable, V any](m map[K]*V, k K, fresh func() *V) *V {
	if m[k] == nil {
		m[k] = fresh()
	}
	return m[k]
}
