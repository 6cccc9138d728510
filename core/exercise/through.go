package exercise

import (
	"math"
	"slices"

	"undaris/core/arpeggio"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
)

// onward goes through the chords in one direction without a break, and turns only
// at the ends of the window.
func (t Task) onward(all []stretch, step int) error {
	last, up, begun := 0, !t.Down, false
	for i := range all {
		s := &all[i]
		rungs := tones(t, s.chord)
		if len(rungs) < 2 {
			continue
		}
		k := begin(rungs, t)
		if begun {
			if k = beyond(rungs, last, up); k < 0 {
				up = !up
				k = beyond(rungs, last, up)
			}
		}
		begun = true
		for at := s.from; at < s.to; at += step {
			s.walk = append(s.walk, []rung{rungs[k]})
			if up && k == len(rungs)-1 || !up && k == 0 {
				up = !up
			}
			if last = rungs[k].midi; up {
				k++
			} else {
				k--
			}
		}
	}
	return nil
}

// beyond is the next rung above or below a pitch; −1 is none.
func beyond(rungs []rung, midi int, up bool) int {
	if up {
		return slices.IndexFunc(rungs, func(r rung) bool { return r.midi > midi })
	}
	for k := len(rungs) - 1; k >= 0; k-- {
		if rungs[k].midi < midi {
			return k
		}
	}
	return -1
}

// intoRoots begins each chord on its root and reckons the way so that its last
// note is the nearest tone, or what is asked to lead in, below or above the next
// chord's root. The last chord leads to the first.
func (t Task) intoRoots(all []stretch, step int) error {
	at := -1 // the root to begin on
	for i := range all {
		s := &all[i]
		rungs := tones(t, s.chord)
		next := all[(i+1)%len(all)]
		roots := only("R")(t, next.chord)
		count := (s.to - s.from) / step
		start := slices.IndexFunc(rungs, func(r rung) bool { return r.midi == at })
		if start < 0 {
			start = slices.IndexFunc(there(rungs, t.Down), func(r rung) bool { return r.degree == "R" })
			if t.Down && start >= 0 {
				start = len(rungs) - 1 - start
			}
		}
		at = -1
		if start < 0 || len(roots) == 0 || count < 1 {
			continue
		}
		approach := Approaches[slices.IndexFunc(Approaches, func(a Approach) bool { return a.ID == t.Approach })]
		best := math.Inf(1)
		for _, root := range roots {
			leads := t.leads(approach, []rung{root}, next.chord)
			if len(leads) >= count {
				leads = nil
			}
			goal := root.midi
			if len(leads) > 0 {
				goal = leads[0].midi
			}
			way, cost := wayTo(rungs, start, goal, count-len(leads))
			if cost += 0.1 * float64(abs(root.midi-rungs[start].midi)); cost < best {
				best, at = cost, root.midi
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

// shell is a voicing of root, third and seventh.
type shell struct {
	rungs []rung
	root  int // its fret
}

// layouts are the strings of root, third and seventh.
var layouts = [][3]int{{6, 3, 4}, {5, 4, 3}}

// shells chooses a voicing for each chord, with the least motion of the hand
// through the form and as near to the window as that allows.
func (t Task) shells(all []stretch, _ int) error {
	if t.In.Strings() < 6 {
		return say.Errorf("shell voicings lie on strings 6 to 3; take an instrument with six strings")
	}
	type way struct {
		shell
		cost float64
		from int
	}
	var layers [][]way
	var heard []int
	for i, s := range all {
		var layer []way
		for _, v := range t.voicings(s.chord) {
			w := way{shell: v, cost: 0.2 * float64(max(0, t.Region.Low-v.root, v.root-t.Region.High)), from: -1}
			if n := len(layers); n > 0 {
				best := math.Inf(1)
				for j, b := range layers[n-1] {
					if c := b.cost + math.Abs(float64(b.root-v.root)); c < best {
						best, w.from = c, j
					}
				}
				w.cost += best
			}
			layer = append(layer, w)
		}
		if len(layer) > 0 {
			layers = append(layers, layer)
			heard = append(heard, i)
		}
	}
	if len(layers) == 0 {
		return nil
	}
	last := layers[len(layers)-1]
	at := 0
	for i := range last {
		if last[i].cost < last[at].cost {
			at = i
		}
	}
	for k := len(layers) - 1; k >= 0; k-- {
		all[heard[k]].walk = [][]rung{layers[k][at].rungs}
		at = layers[k][at].from
	}
	return nil
}

// voicings are the shells of a chord that a hand can hold. A chord without a
// seventh has its sixth there, or its root again.
func (t Task) voicings(c harmony.Chord) (out []shell) {
	find := func(role harmony.Role) (harmony.Tone, bool) {
		i := slices.IndexFunc(c.Tones, func(x harmony.Tone) bool { return x.Degree.Role() == role })
		if i < 0 {
			return harmony.Tone{}, false
		}
		return c.Tones[i], true
	}
	root, _ := find(harmony.Root)
	third, ok := find(harmony.Third)
	if !ok {
		third = c.Tones[1] // suspended
	}
	seventh, ok := find(harmony.Seventh)
	if !ok {
		seventh = root
	}
	for _, strings := range layouts {
		for fret := range t.In.Last() + 1 {
			if pitch.Class(t.In.MIDI(neck.Placement{String: strings[0], Fret: fret})) != c.Root.Class() {
				continue
			}
			var places []neck.Placement
			v := shell{root: fret}
			for k, tone := range []harmony.Tone{root, third, seventh} {
				open := t.In.MIDI(neck.Placement{String: strings[k]})
				near := fret + pitch.Class(tone.Name.Class()-open-fret+6) - 6
				if near < 0 {
					near += 12
				}
				if near > t.In.Last() {
					break
				}
				places = append(places, neck.Placement{String: strings[k], Fret: near})
				r := toneAt(open+near, tone)
				r.str = strings[k]
				v.rungs = append(v.rungs, r)
			}
			if len(places) < 3 {
				continue
			}
			if _, ok := t.In.Grip(places, t.Hand); ok {
				slices.SortFunc(v.rungs, func(a, b rung) int { return a.midi - b.midi })
				out = append(out, v)
			}
		}
	}
	return out
}

// twoPositions goes up through the window and down through the next position of
// the key, each note where it lies there.
func (t Task) twoPositions(all []stretch, _ int) error {
	next := t.Region
	for _, p := range t.In.Positions(t.Key.Tonic.Class()) {
		if p.Low > t.Region.Low {
			next = p.Region
			break
		}
	}
	if next == t.Region {
		return nil
	}
	placed := func(w neck.Region, c harmony.Chord) (out []rung) {
		for _, n := range arpeggio.Make(t.In, c, w, t.Hand, nil).Notes {
			if t.on(n.String) {
				out = append(out, rung{midi: n.Pitch.MIDI(), name: n.Pitch.Name, degree: n.Degree, str: n.String})
			}
		}
		return out
	}
	for i := range all {
		up, down := placed(t.Region, all[i].chord), there(placed(next, all[i].chord), true)
		if len(up) > 0 && len(down) > 0 && up[len(up)-1].midi == down[0].midi {
			down = down[1:]
		}
		all[i].walk = alone(append(up, down...))
	}
	return nil
}

// sinks is from how many half steps above the next chord thirds sink.
const sinks = 3

// sinkingThirds holds a third of each chord, root and third or third and fifth,
// and sinks by half steps onto one of the next chord.
func (t Task) sinkingThirds(all []stretch, step int) error {
	pairs := func(c harmony.Chord) (out [][]rung) {
		rungs := only(triad...)(t, c)
		for i, low := range rungs {
			for _, high := range rungs[i:] {
				if d := high.midi - low.midi; (d == 3 || d == 4) && len(t.held([][]rung{{low, high}})) == 1 {
					out = append(out, []rung{low, high})
				}
			}
		}
		return out
	}
	nearest := func(to [][]rung, midi int) []rung {
		var best []rung
		for _, p := range to {
			if best == nil || abs(p[0].midi-midi) < abs(best[0].midi-midi) {
				best = p
			}
		}
		return best
	}
	now := []rung(nil)
	for i := range all {
		s := &all[i]
		own := pairs(s.chord)
		if len(own) == 0 {
			continue
		}
		if now == nil || !slices.ContainsFunc(own, func(p []rung) bool { return p[0].midi == now[0].midi && p[1].midi == now[1].midi }) {
			now = own[len(own)/2]
		}
		goal := nearest(pairs(all[(i+1)%len(all)].chord), now[0].midi-1)
		count := (s.to - s.from) / step
		for k := range count {
			left := count - k
			if goal == nil || left > sinks || k == 0 {
				s.walk = append(s.walk, now)
				continue
			}
			var pair []rung
			for _, r := range goal {
				pair = append(pair, rung{midi: r.midi + left, name: plain(r.midi+left, r.name, 1)})
			}
			if len(t.held([][]rung{pair})) == 0 {
				pair = now
			}
			s.walk = append(s.walk, pair)
		}
		now = goal
	}
	return nil
}
