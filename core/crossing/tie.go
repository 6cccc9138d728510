package crossing

import (
	"context"
	"slices"

	"undaris/core/neck"
)

// tie searches rings of targets. Chords that come again share one layer of
// candidates, and each pair of layers one table of costs.
type tie struct {
	in     *neck.Instrument
	layers []layer
	known  map[string]int // index of a chord's layer
	ring   []ringStop
	tables map[[2]int][]Cost // by the two layers, from one candidate to another
}

type layer []Target

// ringStop is a stop with its layer.
type ringStop struct{ stop, layer int }

func newTie(in *neck.Instrument) *tie {
	return &tie{in: in, known: map[string]int{}, tables: map[[2]int][]Cost{}}
}

// add puts a stop at the end of the ring.
func (t *tie) add(i int, s Stop, r Range) error {
	name := make([]byte, 0, 24)
	name = append(name, s.Chord.String()...)
	for _, r := range s.Allowed {
		name = append(name, byte(r))
	}
	at, known := t.known[string(name)]
	if !known || s.Pin != nil {
		c, err := candidates(t.in, i, s, r)
		if err != nil {
			return err
		}
		at = len(t.layers)
		t.layers = append(t.layers, c)
		if s.Pin == nil {
			t.known[string(name)] = at
		}
	}
	t.ring = append(t.ring, ringStop{i, at})
	return nil
}

// table is the cost of every step from one layer to another, row by row.
func (t *tie) table(a, b int) []Cost {
	if costs, known := t.tables[[2]int{a, b}]; known {
		return costs
	}
	from, to := t.layers[a], t.layers[b]
	costs := make([]Cost, 0, len(from)*len(to))
	for i := range from {
		for j := range to {
			costs = append(costs, t.step(&from[i], &to[j]))
		}
	}
	t.tables[[2]int{a, b}] = costs
	return costs
}

func (t *tie) step(a, b *Target) Cost {
	h := b.MIDI - a.MIDI
	moved := 0
	if h != 0 {
		moved = 1
	}
	return Cost{max(h, -h), moved, Travel(t.in, a.Placement, b.Placement)}
}

// work is how many steps solve compares.
func (t *tie) work() (steps int) {
	for i, r := range t.ring {
		before := t.ring[(i+len(t.ring)-1)%len(t.ring)]
		steps += len(t.layers[before.layer]) * len(t.layers[r.layer])
	}
	return steps * len(t.layers[t.ring[0].layer])
}

// solve finds the least ring: for each possible first target, the least way
// round that comes back to it. The first targets are tried in the order of what they cost at
// least, which is little work to know, until none that is left can be better.
func (t *tie) solve(ctx context.Context) ([]Target, Cost) {
	n := len(t.ring)
	width := 0
	for _, l := range t.layers {
		width = max(width, len(l))
	}
	back := make([]int16, n*width)
	path := make([]int, n)
	bounds := t.bounds(width)
	firsts := make([]int, len(bounds))
	for i := range firsts {
		firsts[i] = i
	}
	slices.SortStableFunc(firsts, func(a, b int) int { return bounds[a].compare(bounds[b]) })
	var best []int
	var least Cost
	for _, first := range firsts {
		if ctx.Err() != nil || best != nil && least.less(bounds[first]) {
			break
		}
		cost := t.around(first, width, back, path)
		if best == nil || cost.less(least) || !least.less(cost) && first < best[0] { // of equal ones the lowest
			least, best = cost, append(best[:0], path...)
		}
	}
	out := make([]Target, n)
	for i, choice := range best {
		out[i] = t.layers[t.ring[i].layer][choice]
		out[i].Stop = t.ring[i].stop
	}
	return out, least
}

// bounds is what a ring costs at least from each first target: the least way round to any of them.
func (t *tie) bounds(width int) []Cost {
	ahead, here := make([]Cost, width), make([]Cost, width)
	for i := len(t.ring) - 1; i >= 0; i-- {
		a, b := t.ring[i].layer, t.ring[(i+1)%len(t.ring)].layer
		costs, to := t.table(a, b), len(t.layers[b])
		for k := range t.layers[a] {
			least := ahead[0].plus(costs[k*to])
			for j, step := range costs[k*to+1 : (k+1)*to] {
				if c := ahead[j+1].plus(step); c.less(least) {
					least = c
				}
			}
			here[k] = least
		}
		ahead, here = here, ahead
	}
	return ahead[:len(t.layers[t.ring[0].layer])]
}

// around finds the least way round from one first target, and writes the choice
// at each stop into path.
func (t *tie) around(first, width int, back []int16, path []int) Cost {
	n := len(t.ring)
	const far = 1 << 29
	now, next := make([]Cost, width), make([]Cost, width)
	for i := range now {
		now[i] = Cost{HalfSteps: far}
	}
	now[first] = Cost{}
	for i := 1; i < n; i++ {
		a, b := t.ring[i-1].layer, t.ring[i].layer
		costs, to := t.table(a, b), len(t.layers[b])
		for j := range next[:to] {
			next[j] = Cost{HalfSteps: 2 * far}
		}
		for k := range t.layers[a] {
			for j, step := range costs[k*to : (k+1)*to] {
				if c := now[k].plus(step); c.less(next[j]) {
					next[j], back[i*width+j] = c, int16(k)
				}
			}
		}
		now, next = next, now
	}
	last := t.ring[n-1].layer
	home := t.table(last, t.ring[0].layer)
	end, least := 0, Cost{HalfSteps: 2 * far}
	for k := range t.layers[last] {
		if c := now[k].plus(home[k*len(t.layers[t.ring[0].layer])+first]); c.less(least) {
			end, least = k, c
		}
	}
	for i := n - 1; i > 0; i-- {
		path[i] = end
		end = int(back[i*width+end])
	}
	path[0] = first
	return least
}
