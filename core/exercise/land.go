package exercise

import (
	"math"
	"slices"

	"undaris/core/approach"
	"undaris/core/harmony"
	"undaris/core/say"
	"undaris/core/score"
)

// into is the plan that begins each chord on its tone of a role and reckons the way so that its
// last note is the nearest tone, or what is asked to lead in, below or above the next chord's
// tone of that role. The last chord leads to the first.
func into(role harmony.Role) func(t Task, all []stretch, step int) error {
	return func(t Task, all []stretch, step int) error { return t.into(role, all, step) }
}

func (t Task) into(role harmony.Role, all []stretch, step int) error {
	goals := func(c harmony.Chord) []rung {
		return slices.DeleteFunc(tones(t, c), func(r rung) bool { return r.degree.Role() != role })
	}
	at := -1 // the tone to begin on
	for i := range all {
		s := &all[i]
		rungs := tones(t, s.chord)
		next := all[(i+1)%len(all)]
		ends := goals(next.chord)
		count := (s.to - s.from) / step
		start := slices.IndexFunc(rungs, func(r rung) bool { return r.midi == at })
		if start < 0 {
			start = slices.IndexFunc(there(rungs, t.Down), func(r rung) bool { return r.degree.Role() == role })
			if t.Down && start >= 0 {
				start = len(rungs) - 1 - start
			}
		}
		at = -1
		if start < 0 || len(ends) == 0 || count < 1 {
			continue
		}
		into, _ := approach.ByID(t.Approach)
		best := math.Inf(1)
		for _, end := range ends {
			leads := t.leads(into, []rung{end}, next.chord)
			if len(leads) >= count {
				leads = nil
			}
			goal := end.midi
			if len(leads) > 0 {
				goal = leads[0].midi
			}
			way, cost := wayTo(rungs, start, goal, count-len(leads))
			if cost += 0.1 * float64(abs(end.midi-rungs[start].midi)); cost < best {
				best, at = cost, end.midi
				s.walk = alone(append(way, leads...))
			}
		}
	}
	return nil
}

// wayTo finds a way of so many rungs from a start to the rung nearest to a goal
// that is not the goal itself, with the fewest turns and skips.
func wayTo(rungs []rung, start, goal, count int) (way []rung, cost float64) {
	type state struct {
		cost float64
		from int // index into the layer before
	}
	// A state is a rung and the direction it was come to in: 0 none, 1 up, 2 down.
	n := 3 * len(rungs)
	layers := make([][]state, count)
	for k := range layers {
		layers[k] = make([]state, n)
		for i := range layers[k] {
			layers[k][i] = state{math.Inf(1), -1}
		}
	}
	layers[0][3*start] = state{}
	for k := 1; k < count; k++ {
		for i, s := range layers[k-1] {
			if math.IsInf(s.cost, 1) {
				continue
			}
			for _, by := range []int{-2, -1, 1, 2} {
				to, dir := i/3+by, 1
				if by < 0 {
					dir = 2
				}
				if to < 0 || to >= len(rungs) {
					continue
				}
				c := s.cost
				if was := i % 3; was != 0 && was != dir {
					c++
				}
				if abs(by) == 2 {
					c += 1.5
				}
				if at := 3*to + dir; c < layers[k][at].cost {
					layers[k][at] = state{c, i}
				}
			}
		}
	}
	end, best := -1, math.Inf(1)
	for i, s := range layers[count-1] {
		d := abs(rungs[i/3].midi - goal)
		if d == 0 {
			d = 6 // the next root is not struck twice
		}
		if c := s.cost + 2*float64(d); c < best {
			best, end = c, i
		}
	}
	way = make([]rung, count)
	for k := count - 1; k >= 0 && end >= 0; k-- {
		way[k] = rungs[end/3]
		end = layers[k][end].from
	}
	return way, best
}

// route is a stretch of a pattern that comes out on a tone of the next chord.
type route struct {
	goal rung
	way  []rung
	far  int // half steps from where it sets out to its first note
}

// timed plays the pattern of a drill so that each chord's tone of the role that is asked for is struck
// as the chord comes, held until the run begins, and the run is reckoned backwards from
// the next chord's: whatever note it must begin with, its last one leads there. The last
// chord leads to the first. said tells how many runs are as short as the one that is taken.
func (t Task) timed(d Drill, all []stretch, step int) (said []string) {
	into, _ := approach.ByID(t.Approach)
	goals := func(c harmony.Chord) []rung {
		return slices.DeleteFunc(inWindow(t, func(midi int) (rung, bool) {
			tone, ok := c.ToneAt(midi % 12)
			return toneAt(midi, tone), ok
		}), func(r rung) bool { return !slices.Contains(t.Land, r.degree.Role()) })
	}
	var at *rung // where the last run came out
	most, late := 0, ""
	for i := range all {
		s := &all[i]
		next := all[(i+1)%len(all)].chord
		begins := s.from
		if t.Beat > 0 {
			if beats := s.bar / score.Tick; t.Beat > beats {
				late = say.F("a bar of %d beats has no beat %d: there it sets out on its last", beats, t.Beat)
			}
			begins = max(s.from, s.to-s.bar+(min(t.Beat, s.bar/score.Tick)-1)*score.Tick)
		}
		held := (begins - s.from + step - 1) / step
		count := (s.to-s.from)/step - max(1, held)
		if own := goals(s.chord); at == nil && len(own) > 0 {
			at = &there(own, t.Down)[0]
		}
		if at == nil || count < 1 {
			continue
		}
		routes := t.routes(d, s.chord, *at, goals(next), count-min(len(into.Steps), count-1))
		if len(routes) == 0 {
			at = nil
			continue
		}
		r := routes[max(0, t.Route-1)%len(routes)]
		most = max(most, len(routes))
		if led := t.leads(into, []rung{r.goal}, next); len(led) < count {
			r.way = append(r.way, led...)
		}
		first := *at
		first.held = max(1, held)
		s.walk = alone(append([]rung{first}, r.way...))
		at = &r.goal
	}
	if late != "" {
		said = append(said, late)
	}
	if most > 1 {
		said = append(said, say.F("up to %d runs into a chord are as short; this is the %s", most, ordinal(max(1, t.Route))))
	}
	return said
}

// routes are the stretches of so many notes of a drill's pattern over a chord after which one of
// the goals comes: of all, those that begin nearest to where the hand is.
func (t Task) routes(d Drill, c harmony.Chord, from rung, goals []rung, count int) (out []route) {
	for _, goal := range goals {
		rungs := d.ladder(t, c)
		if !slices.ContainsFunc(rungs, func(r rung) bool { return r.midi == goal.midi }) {
			rungs = append(rungs, goal)
			slices.SortFunc(rungs, func(a, b rung) int { return a.midi - b.midi })
		}
		walk := slices.Concat(d.figure(rungs, t)...)
		for i := range walk {
			if walk[i].midi != goal.midi {
				continue
			}
			r := route{goal: goal}
			for k := i - count; k < i; k++ {
				r.way = append(r.way, walk[((k%len(walk))+len(walk))%len(walk)])
			}
			if r.far = abs(r.way[0].midi - from.midi); r.way[len(r.way)-1].midi == goal.midi || r.far == 0 {
				continue // nothing is struck twice
			}
			out = append(out, r)
		}
	}
	if len(out) == 0 {
		return nil
	}
	least := slices.MinFunc(out, func(a, b route) int { return a.far - b.far }).far
	out = slices.DeleteFunc(out, func(r route) bool { return r.far > least })
	slices.SortStableFunc(out, func(a, b route) int { return abs(a.goal.midi-from.midi) - abs(b.goal.midi-from.midi) })
	return slices.CompactFunc(out, func(a, b route) bool {
		return a.goal.midi == b.goal.midi && slices.EqualFunc(a.way, b.way, func(x, y rung) bool { return x.midi == y.midi })
	})
}

func ordinal(n int) string {
	if names := []string{"first", "second", "third", "fourth"}; n <= len(names) {
		return names[n-1]
	}
	return say.F("%dth", n)
}
