package exercise

import (
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

const tick = 960

// alone makes a walk of single notes.
func alone(rungs []rung) (out [][]rung) {
	for _, r := range rungs {
		out = append(out, []rung{r})
	}
	return out
}

func pick(rungs []rung, order []int) (out []rung) {
	for _, i := range order {
		if i >= 0 && i < len(rungs) {
			out = append(out, rungs[i])
		}
	}
	return out
}

// there turns a walk round for going down, else leaves it.
func there[T any](walk []T, down bool) []T {
	if down {
		walk = slices.Clone(walk)
		slices.Reverse(walk)
	}
	return walk
}

// begin is where a walk starts: at the degree asked for, the lowest of them when
// going up, else at the end.
func begin(rungs []rung, t Task) int {
	for i := range rungs {
		k := i
		if t.Down {
			k = len(rungs) - 1 - i
		}
		if string(rungs[k].degree) == t.From {
			return k
		}
	}
	if t.Down {
		return len(rungs) - 1
	}
	return 0
}

// upAndDown goes from the start to one end, to the other and back.
func upAndDown(rungs []rung, t Task) [][]rung {
	start, n := begin(rungs, t), len(rungs)
	var order []int
	go1 := func(from, to, by int) {
		for i := from; i != to+by; i += by {
			order = append(order, i)
		}
	}
	if n < 2 {
		return alone(rungs)
	}
	if t.Down {
		go1(start, 0, -1)
		go1(1, n-1, 1)
		for i := n - 2; i > start; i-- {
			order = append(order, i)
		}
	} else {
		go1(start, n-1, 1)
		go1(n-2, 0, -1)
		for i := 1; i < start; i++ {
			order = append(order, i)
		}
	}
	// The walk comes round: it does not strike its first note twice.
	if k := len(order) - 1; k > 0 && order[k] == order[0] {
		order = order[:k]
	}
	return alone(pick(rungs, order))
}

// upFrom is upAndDown from the lowest tone of a role, where no other start is asked for.
func upFrom(role harmony.Role) figure {
	return func(rungs []rung, t Task) [][]rung {
		if i := slices.IndexFunc(rungs, func(r rung) bool { return r.degree.Role() == role }); i >= 0 && t.From == "" {
			t.From = string(rungs[i].degree)
		}
		return upAndDown(rungs, t)
	}
}

// orders plays four neighbouring tones in one of the 24 orders, from each tone
// of the degree asked for, the root without one.
func orders(rungs []rung, t Task) [][]rung {
	order := permutation(max(1, t.Order) - 1)
	from := t.From
	if from == "" {
		from = "R"
	}
	var out []rung
	for i := 0; i+4 <= len(rungs); i++ {
		if string(rungs[i].degree) == from {
			for _, k := range order {
				out = append(out, rungs[i+k])
			}
		}
	}
	if out == nil && len(rungs) >= 4 {
		for _, k := range order {
			out = append(out, rungs[k])
		}
	}
	return alone(out)
}

// permutation is the n-th order of four, counted from 0 in the order of a
// dictionary.
func permutation(n int) (out []int) {
	left := []int{0, 1, 2, 3}
	for size := 6; len(left) > 0; {
		k := n / size
		n %= size
		out = append(out, left[k])
		left = slices.Delete(left, k, k+1)
		if len(left) > 1 {
			size /= len(left)
		}
	}
	return out
}

// inTurn plays groups one after the other, beginning with the first that starts on the
// degree asked for; downwards all is turned round.
func inTurn(groups [][]rung, t Task) [][]rung {
	groups = slices.Clone(groups)
	if t.Down {
		slices.Reverse(groups)
		for i := range groups {
			groups[i] = there(groups[i], true)
		}
	}
	if i := slices.IndexFunc(groups, func(g []rung) bool { return string(g[0].degree) == t.From }); i > 0 {
		groups = slices.Concat(groups[i:], groups[:i])
	}
	if t.Together {
		return groups
	}
	return alone(slices.Concat(groups...))
}

// steps plays the same rungs from each rung in turn.
func steps(offsets ...int) figure { return every(1, offsets...) }

// every plays the same rungs from every so many rungs.
func every(apart int, offsets ...int) figure {
	last := slices.Max(offsets)
	return func(rungs []rung, t Task) [][]rung {
		var groups [][]rung
		for i := 0; i+last < len(rungs); i += apart {
			groups = append(groups, pick(rungs[i:], offsets))
		}
		return inTurn(groups, t)
	}
}

// members are the roles of stacked thirds.
var members = []harmony.Role{harmony.Root, harmony.Third, harmony.Fifth, harmony.Seventh}

// stacked plays a chord of so many thirds from each rung of a scale in turn, and tells of
// each note what it is in its own chord.
func stacked(count int) figure {
	return func(rungs []rung, t Task) [][]rung {
		var groups [][]rung
		for i := 0; i+2*(count-1) < len(rungs); i++ {
			groups = append(groups, stack(rungs, i, count))
		}
		return inTurn(groups, t)
	}
}

func stack(rungs []rung, from, count int) (group []rung) {
	for k := range count {
		r := rungs[from+2*k]
		r.in, r.own = members[k], true
		group = append(group, r)
	}
	return group
}

// cell plays the steps of a cell from each rung in turn, 1 2 3 5 where none is given.
func cell(rungs []rung, t Task) [][]rung {
	offsets := []int{0, 1, 2, 4}
	if len(t.Cell) > 0 {
		offsets = nil
		for _, step := range t.Cell {
			offsets = append(offsets, step-1)
		}
	}
	return steps(offsets...)(rungs, t)
}

// turned plays two thirds in one of their forms, from every second rung; struck at once
// they are one third after the other.
func turned(offsets ...int) figure {
	return func(rungs []rung, t Task) [][]rung {
		if t.Together {
			return every(1, 0, 2)(rungs, t)
		}
		return every(2, offsets...)(rungs, t)
	}
}

// chosen are the steps of the key that are asked for, from 0: the first, fourth and
// fifth where none is.
func chosen(t Task) (steps []int) {
	for _, s := range t.Cell {
		if s = (s - 1) % 7; !slices.Contains(steps, s) {
			steps = append(steps, s)
		}
	}
	if steps == nil {
		return []int{0, 3, 4}
	}
	return steps
}

// keyTriads plays the triads of chosen steps of the key, each as often as it lies
// in the window.
func keyTriads(rungs []rung, t Task) [][]rung {
	scale := t.Key.Scale()
	var groups [][]rung
	for i := 0; i+4 < len(rungs); i++ {
		for _, d := range chosen(t) {
			if rungs[i].name.Class() == scale[d].Class() {
				groups = append(groups, stack(rungs, i, 3))
			}
		}
	}
	return inTurn(groups, t)
}

// extensions runs through the chord's own shape, and then goes into each
// extension from the two tones below it, and back to the nearer.
func extensions(rungs []rung, t Task) [][]rung {
	var own []rung
	for _, r := range rungs {
		if r.degree.Role() != harmony.Extension {
			own = append(own, r)
		}
	}
	out := there(own, t.Down)
	for _, letter := range []int{1, 3, 5} {
		for _, r := range rungs {
			i, _ := r.degree.Interval()
			below := slices.DeleteFunc(slices.Clone(own), func(o rung) bool { return o.midi >= r.midi })
			if n := len(below); r.degree.Role() == harmony.Extension && i.Letters == letter && n >= 2 {
				r.about = true
				out = append(out, below[n-2], below[n-1], r, below[n-1])
			}
		}
	}
	return alone(out)
}

// cellOctaves plays two neighbouring tones and the same two an octave up.
func cellOctaves(rungs []rung, t Task) [][]rung {
	var out []rung
	at := func(midi int) int { return slices.IndexFunc(rungs, func(r rung) bool { return r.midi == midi }) }
	for i := 0; i+1 < len(rungs); i++ {
		if a, b := at(rungs[i].midi+12), at(rungs[i+1].midi+12); a >= 0 && b >= 0 {
			out = append(out, rungs[i], rungs[i+1], rungs[a], rungs[b])
		}
	}
	return alone(there(out, t.Down))
}

// chromatic fills the way from a tone up to the nearest tone of another role with
// every half step, and goes back.
func chromatic(from, to harmony.Role) figure {
	return func(rungs []rung, t Task) [][]rung {
		var out []rung
		for i, low := range rungs {
			if low.degree.Role() != from {
				continue
			}
			k := slices.IndexFunc(rungs[i+1:], func(r rung) bool { return r.degree.Role() == to })
			if k < 0 || rungs[i+1+k].midi-low.midi > 5 {
				continue
			}
			high := rungs[i+1+k]
			var way []rung
			for midi, name := high.midi, high.name; midi > low.midi; midi-- {
				if midi < high.midi {
					name = plain(midi, name, -1)
				}
				way = append(way, rung{midi: midi, name: name})
			}
			way[0] = high
			way = append(way, low)
			slices.Reverse(way)
			back := slices.Clone(way[1 : len(way)-1])
			slices.Reverse(back)
			out = append(out, append(there(way, t.Down), there(back, t.Down)...)...)
		}
		return alone(out)
	}
}

// matched frets each tone and then bends up to it, by the first of so many quarter tones that the string bears; on plain
// strings alone where that is asked. Other tones are passed over.
func matched(plainly bool, quarters ...int) figure {
	return func(rungs []rung, t Task) (out [][]rung) {
		for _, r := range there(rungs, t.Down) {
			for _, by := range quarters {
				from := r.midi - by/2
				i := slices.IndexFunc(t.In.Find(from, t.Region), func(p neck.Placement) bool {
					return t.on(p.String) && t.In.Bends(p) >= by && (!plainly || t.In.Plain(p.String))
				})
				if i < 0 {
					continue
				}
				bent := rung{midi: from, name: plain(from, r.name, -1), degree: r.degree, bend: by}
				if plainly {
					bent.str = t.In.Find(from, t.Region)[i].String
				}
				out = append(out, []rung{r}, []rung{bent})
				break
			}
		}
		return out
	}
}

// plain names a note that leads to another: from below on the letter below, from
// above on the letter above, where that needs no double accidental.
func plain(midi int, to pitch.Name, by int) pitch.Name {
	letter := to.Letter + 1
	if by < 0 {
		letter = to.Letter + 6
	}
	for _, n := range pitch.Roots {
		if n.Letter == letter%7 && n.Class() == pitch.Class(midi) {
			return n
		}
	}
	for _, n := range pitch.Roots {
		if n.Class() == pitch.Class(midi) {
			return n
		}
	}
	return to
}
