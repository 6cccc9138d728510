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

// steps plays the same rungs from each rung in turn; downwards all is turned
// round.
func steps(offsets ...int) figure {
	last := slices.Max(offsets)
	return func(rungs []rung, t Task) [][]rung {
		var order []int
		for i := 0; i+last < len(rungs); i++ {
			for _, o := range offsets {
				order = append(order, i+o)
			}
		}
		return alone(there(pick(rungs, order), t.Down))
	}
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

// turned plays two thirds in one of their forms, from every second rung.
func turned(offsets ...int) figure {
	return func(rungs []rung, t Task) [][]rung {
		var order []int
		for i := 0; i+3 < len(rungs); i += 2 {
			for _, o := range offsets {
				order = append(order, i+o)
			}
		}
		return alone(there(pick(rungs, order), t.Down))
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
	var out []rung
	for i := 0; i+4 < len(rungs); i++ {
		for _, d := range chosen(t) {
			if rungs[i].name.Class() == scale[d].Class() {
				out = append(out, rungs[i], rungs[i+2], rungs[i+4])
			}
		}
	}
	return alone(there(out, t.Down))
}

// approachDown plays four down from each fifth: a half step below it on the beat,
// then fifth, third and root.
func approachDown(rungs []rung, t Task) (out [][]rung) {
	for i, fifth := range rungs {
		if fifth.degree.Role() != harmony.Fifth {
			continue
		}
		group := []rung{{midi: fifth.midi - 1, name: plain(fifth.midi-1, fifth.name, -1)}, fifth}
		for _, role := range []harmony.Role{harmony.Third, harmony.Root} {
			for k := i - 1; k >= 0; k-- {
				if rungs[k].degree.Role() == role {
					group = append(group, rungs[k])
					break
				}
			}
		}
		if len(group) == 4 && group[3].midi > fifth.midi-12 {
			out = append(out, alone(group)...)
		}
	}
	return out
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
				out = append(out, below[n-2], below[n-1], r, below[n-1])
			}
		}
	}
	return alone(out)
}

// spread plays degrees counted on upwards from each root: 10 is the third, 11
// the fourth and 12 the fifth of the octave above.
func spread(degrees ...string) figure {
	return func(rungs []rung, t Task) (out [][]rung) {
		for _, root := range rungs {
			if root.degree != "R" {
				continue
			}
			group := make([]rung, 0, len(degrees))
			for _, d := range degrees {
				if r, ok := counted(rungs, root, d); ok {
					group = append(group, r)
				}
			}
			if len(group) == len(degrees) {
				out = append(out, alone(group)...)
			}
		}
		return there(out, t.Down)
	}
}

func counted(rungs []rung, root rung, d string) (rung, bool) {
	roles := map[string]struct {
		role harmony.Role
		from int
	}{"R": {harmony.Root, 0}, "5": {harmony.Fifth, 0}, "10": {harmony.Third, 12}, "12": {harmony.Fifth, 12}}
	if d == "11" {
		top := rungs[len(rungs)-1].midi
		fourth := rung{midi: root.midi + 17, degree: "11"}
		step, _ := harmony.Degree("11").Interval()
		fourth.name = root.name.Up(step)
		return fourth, fourth.midi <= top+2
	}
	want := roles[d]
	for _, r := range rungs {
		if r.degree.Role() == want.role && r.midi >= root.midi+want.from && r.midi < root.midi+want.from+12 {
			return r, true
		}
	}
	return rung{}, false
}

// spreadOut plays, from each root, the tones on some letters above it; 7 is the
// root an octave up and 8 the ninth.
func spreadOut(letters ...int) figure {
	return func(rungs []rung, t Task) [][]rung {
		var out []rung
		for i, root := range rungs {
			if root.degree != "R" {
				continue
			}
			var group []rung
			for _, l := range letters {
				for _, r := range rungs[i:] {
					step, _ := r.degree.Interval()
					if octave := (r.midi - root.midi) / 12; step.Letters+7*octave == l {
						group = append(group, r)
						break
					}
				}
			}
			if len(group) == len(letters) {
				out = append(out, group...)
			}
		}
		return alone(there(out, t.Down))
	}
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

// matched frets each tone and then bends up to it, from a whole step below where
// a string bears that, else from a half step; other tones are passed over.
func matched(rungs []rung, t Task) (out [][]rung) {
	for _, r := range there(rungs, t.Down) {
		for _, by := range []int{2, 1} {
			if slices.ContainsFunc(t.In.Find(r.midi-by, t.around(1)), func(p neck.Placement) bool { return t.on(p.String) && t.In.Bendable(p) >= by }) {
				out = append(out, []rung{r}, []rung{{midi: r.midi - by, name: plain(r.midi-by, r.name, -1), degree: r.degree, bend: 2 * by}})
				break
			}
		}
	}
	return out
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
