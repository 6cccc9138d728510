package planner

import (
	"cmp"
	"math"
	"slices"
	"time"
)

// Tally is what lines of a log add up to: everything that maps and plans count. Two tallies of
// different lines add up to that of all of them, so a log is counted once, in pieces of any size.
type Tally struct {
	Lines   int
	Trials  int
	cells   map[cell]*Count
	spots   map[spot]*Count
	starts  map[start]*Count
	asks    map[ask]*Count // calls alone: what was asked for to the letter
	changes map[change]*Met
	weeks   map[int]*week
	timing  spread
}

type (
	cell struct{ Key, Position int }
	spot struct {
		Position, String int
		Degree           string
	}
	start struct {
		Degree string
		Down   bool
	}
	ask struct {
		Key, Position int
		Degree        string
		Down          bool
	}
	change struct {
		Chart    uint // 0 where none was
		From, To string
	}
	week struct {
		Degrees map[string]int // that changes were landed on; "–" where none was
		Seconds float64        // played
	}
	spread struct {
		Bins        []int // of ten milliseconds each, from −150 on
		Sum, Square float64
		Trials      int
	}
)

// Met is how a change was met.
type Met struct {
	Count
	Silent, OnRoot, Other int // trials met by silence, on the root, by a wrong note or late
}

// Count is how often something was asked and how well it went.
type Count struct {
	Trials  int
	Right   int     // of them, that went right at once
	Success float64 // of 1, the mean, with part marks for what was nearly right
	Last    time.Time
	Then    Then     // of them, those of the last day
	Behind  []Behind // the last ones, the newest first
	sum     int      // of successes, in grains: whole numbers add up to the same in any order
	worst   float64  // of the newest line behind it
}

// Then is what was asked on one day.
type Then struct{ Day, Trials, Right int }

// Behind is a place in the log: a line of it, the bar of what was played there, and how it went there.
type Behind struct {
	Entry         uint
	Bar           int // from 1; 0 where that is not known; of several, where it went worst
	Trials, Right int
}

const behind = 6 // lines of the log that are told of a count

// grain is a success of one.
const grain = 10_000

func (c *Count) gain(trials, right, sum int) {
	c.Trials, c.Right, c.sum = c.Trials+trials, c.Right+right, c.sum+sum
	c.Success = float64(c.sum) / grain / float64(c.Trials)
}

// Share is the part of the trials that went right at once; what was nearly right is not among them.
func (c Count) Share() float64 {
	if c.Trials == 0 {
		return 0
	}
	return float64(c.Right) / float64(c.Trials)
}

// on adds what was asked on a day: the last day stays.
func (n *Then) on(o Then) {
	switch {
	case o.Day > n.Day || n.Trials == 0:
		*n = o
	case o.Day == n.Day:
		n.Trials, n.Right = n.Trials+o.Trials, n.Right+o.Right
	}
}

func (c *Count) add(t Trial) {
	right := 0
	if t.Success == 1 {
		right = 1
	}
	c.gain(1, right, int(math.Round(t.Success*grain)))
	c.Then.on(Then{Day(t.At), 1, right})
	if t.At.After(c.Last) {
		c.Last = t.At
	}
	if t.Entry == 0 {
		return
	}
	if len(c.Behind) > 0 && c.Behind[0].Entry == t.Entry { // of one line, the place where it went worst
		b := &c.Behind[0]
		if b.Trials, b.Right = b.Trials+1, b.Right+right; t.Success < c.worst {
			c.worst, b.Bar = t.Success, t.Bar
		}
		return
	}
	if len(c.Behind) < behind {
		c.Behind = append(c.Behind, Behind{})
	}
	copy(c.Behind[1:], c.Behind)
	c.Behind[0], c.worst = Behind{t.Entry, t.Bar, 1, right}, t.Success
}

// join adds what was counted in other lines.
func (c *Count) join(o Count) {
	if o.Trials == 0 {
		return
	}
	c.gain(o.Trials, o.Right, o.sum)
	c.Then.on(o.Then)
	if o.Last.After(c.Last) {
		c.Last = o.Last
	}
	c.Behind = slices.SortedFunc(slices.Values(slices.Concat(c.Behind, o.Behind)), func(a, b Behind) int { return cmp.Compare(b.Entry, a.Entry) })
	c.Behind = c.Behind[:min(behind, len(c.Behind))]
}

func (m *Met) join(o Met) {
	m.Count.join(o.Count)
	m.Silent, m.OnRoot, m.Other = m.Silent+o.Silent, m.OnRoot+o.OnRoot, m.Other+o.Other
}

func (w *week) join(o week) {
	w.Seconds += o.Seconds
	for degree, n := range o.Degrees {
		if w.Degrees == nil {
			w.Degrees = map[string]int{}
		}
		w.Degrees[degree] += n
	}
}

// TallyOf counts lines of a log.
func TallyOf(lines ...Played) *Tally {
	t := &Tally{}
	for _, p := range lines {
		t.Add(p)
	}
	return t
}

// Add counts a line of the log.
func (s *Tally) Add(p Played) {
	s.Lines++
	if p.Seconds > 0 {
		at(&s.weeks, weekOf(Day(p.At))).Seconds += p.Seconds
	}
	for _, t := range p.Trials {
		s.try(t)
	}
}

const bins, binWide, binOfZero = 30, 10, 15

func (s *Tally) try(t Trial) {
	s.Trials++
	at(&s.cells, cell{t.Key, t.Position}).add(t)
	if t.Position >= 0 && t.String > 0 {
		at(&s.spots, spot{t.Position, t.String, t.Degree}).add(t)
	}
	at(&s.starts, start{t.Degree, t.Down}).add(t)
	if t.Met == "" { // a call
		at(&s.asks, ask{t.Key, t.Position, t.Degree, t.Down}).add(t)
	}
	if t.From != "" {
		c := at(&s.changes, change{t.Chart, t.From, t.Chord})
		c.add(t)
		switch {
		case t.Met == "silent":
			c.Silent++
		case t.On == "R":
			c.OnRoot++
		case t.Success < 0.5:
			c.Other++
		}
		at(&s.weeks, weekOf(Day(t.At))).join(week{Degrees: map[string]int{cmp.Or(t.On, "–"): 1}})
	}
	if t.Timed {
		if s.timing.Bins == nil {
			s.timing.Bins = make([]int, bins)
		}
		s.timing.Bins[max(0, min(bins-1, int(math.Floor(t.Ms/binWide))+binOfZero))]++
		s.timing.Sum += t.Ms
		s.timing.Square += t.Ms * t.Ms
		s.timing.Trials++
	}
}

// Join adds what was counted in other lines.
func (s *Tally) Join(o *Tally) {
	s.Lines += o.Lines
	s.Trials += o.Trials
	join(&s.cells, o.cells, (*Count).join)
	join(&s.spots, o.spots, (*Count).join)
	join(&s.starts, o.starts, (*Count).join)
	join(&s.asks, o.asks, (*Count).join)
	join(&s.changes, o.changes, (*Met).join)
	join(&s.weeks, o.weeks, (*week).join)
	s.timing.Sum += o.timing.Sum
	s.timing.Square += o.timing.Square
	s.timing.Trials += o.timing.Trials
	if s.timing.Bins == nil {
		s.timing.Bins = slices.Clone(o.timing.Bins)
		return
	}
	for i, n := range o.timing.Bins {
		s.timing.Bins[i] += n
	}
}

// cell is what was counted of a key in a position; nil where nothing was.
func (s *Tally) cell(a Ask) *Count { return s.cells[cell{a.Key, a.Position}] }

// asked is what was counted of a call to the letter; nil where it was never asked.
func (s *Tally) asked(a Ask) *Count { return s.asks[ask{a.Key, a.Position, a.Degree, a.Down}] }

// at finds what a map has of a key, and makes it where it has nothing.
func at[K comparable, V any](m *map[K]*V, k K) *V {
	if *m == nil {
		*m = map[K]*V{}
	}
	if (*m)[k] == nil {
		(*m)[k] = new(V)
	}
	return (*m)[k]
}

func join[K comparable, V any](to *map[K]*V, from map[K]*V, add func(*V, V)) {
	for k, v := range from {
		add(at(to, k), *v)
	}
}
