package planner

import (
	"cmp"
	"maps"
	"math"
	"slices"
	"time"
)

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
	Chart uint // over which it was tried most; 0 where none was noted
}

// Week is what was played in a week: on what changes were landed, and for how long.
type Week struct {
	Begins  time.Time // a Monday
	Degrees map[string]int
	Seconds float64
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
	Lines   int
	Trials  int
}

// Draw draws the maps of what was counted, as they are by a time. The model may know more.
func Draw(s *Tally, m *Model, now time.Time) Maps {
	out := Maps{Lines: s.Lines, Trials: s.Trials}
	for key := range 12 {
		for p := range Positions {
			c := Cell{Key: key, Position: p}
			a := Ask{Key: key, Position: p, Quality: "7", Degree: "third", Device: "tones"}
			if seen := s.cell(a); seen != nil {
				c.Count = *seen
			}
			c.Strength, _ = m.Predict(a, now)
			c.Sure = 1 - min(1, m.now(Skill{Kind: Place, Key: key, Position: p}, now).Var/m.p.Spread)
			out.Cells = append(out.Cells, c)
		}
	}
	for k, c := range s.spots {
		out.Spots = append(out.Spots, Spot{k.Position, k.String, k.Degree, *c})
	}
	slices.SortFunc(out.Spots, func(a, b Spot) int {
		return cmp.Or(a.Position-b.Position, a.String-b.String, cmp.Compare(a.Degree, b.Degree))
	})
	for k, c := range s.starts {
		out.Starts = append(out.Starts, Start{k.Degree, k.Down, *c, logistic(m.p.Base + m.now(Ask{Degree: k.Degree, Down: k.Down}.Skills()[1], now).Mean)})
	}
	slices.SortFunc(out.Starts, func(a, b Start) int {
		return cmp.Or(slices.Index(Degrees, a.Degree)-slices.Index(Degrees, b.Degree), cmp.Compare(a.Degree, b.Degree), downLast(a.Down)-downLast(b.Down))
	})
	var met map[[2]string]*Met // wherever it was
	where, most := map[[2]string]uint{}, map[[2]string]int{}
	inOrder := slices.SortedFunc(maps.Keys(s.changes), func(a, b change) int {
		return cmp.Or(cmp.Compare(a.From, b.From), cmp.Compare(a.To, b.To), cmp.Compare(a.Chart, b.Chart))
	})
	for _, k := range inOrder {
		of := [2]string{k.From, k.To}
		at(&met, of).join(*s.changes[k])
		if n := s.changes[k].Trials; k.Chart > 0 && n > most[of] {
			where[of], most[of] = k.Chart, n
		}
	}
	for k, c := range met {
		n := float64(c.Trials)
		out.Changes = append(out.Changes, Change{k[0], k[1], float64(c.Silent) / n, float64(c.OnRoot) / n, float64(c.Other) / n, c.Count, where[k]})
	}
	slices.SortFunc(out.Changes, func(a, b Change) int {
		return cmp.Or(cmp.Compare(a.Share(), b.Share()), cmp.Compare(a.From+a.To, b.From+b.To))
	})
	for n, w := range s.weeks {
		out.Weeks = append(out.Weeks, Week{begins(n), w.Degrees, w.Seconds})
	}
	slices.SortFunc(out.Weeks, func(a, b Week) int { return a.Begins.Compare(b.Begins) })
	out.Timing = s.timing.timing()
	return out
}

func (s spread) timing() Timing {
	t := Timing{Bins: make([]int, bins), Trials: s.Trials}
	copy(t.Bins, s.Bins)
	if n := float64(s.Trials); n > 0 {
		t.Mean = s.Sum / n
		t.Spread = math.Sqrt(max(0, s.Square/n-t.Mean*t.Mean))
	}
	return t
}

func downLast(down bool) int {
	if down {
		return 1
	}
	return 0
}
