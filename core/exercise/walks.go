package exercise

import (
	"slices"

	"undaris/core/harmony"
)

// alone makes a walk of single notes.
func alone(rungs []rung) (out [][]rung) {
	for _, r := range rungs {
		out = append(out, []rung{r})
	}
	return out
}

// begin is where a walk starts: at the degree asked for, the lowest of them when
// going up, else at the end.
func begin(rungs []rung, t Task) int {
	start := 0
	if t.Down {
		start = len(rungs) - 1
	}
	for i := range rungs {
		k := i
		if t.Down {
			k = len(rungs) - 1 - i
		}
		if string(rungs[k].degree) == t.From {
			return k
		}
	}
	return start
}

// upAndDown goes from the start to one end, to the other and back.
func upAndDown(rungs []rung, t Task) [][]rung {
	start, n := begin(rungs, t), len(rungs)
	var order []int
	up := func(from, to int) {
		for i := from; i <= to; i++ {
			order = append(order, i)
		}
	}
	down := func(from, to int) {
		for i := from; i >= to; i-- {
			order = append(order, i)
		}
	}
	if t.Down {
		down(start, 0)
		up(1, n-1)
		down(n-2, start+1)
	} else {
		up(start, n-1)
		down(n-2, 0)
		up(1, start-1)
	}
	return alone(pick(rungs, order))
}

func pick(rungs []rung, order []int) (out []rung) {
	for _, i := range order {
		if i >= 0 && i < len(rungs) {
			out = append(out, rungs[i])
		}
	}
	return out
}

func oneWay(rungs []rung, t Task) [][]rung {
	start := begin(rungs, t)
	if t.Down {
		part := slices.Clone(rungs[:start+1])
		slices.Reverse(part)
		return alone(part)
	}
	return alone(rungs[start:])
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

// sixths pairs each third with the root above it: a third turned over.
func sixths(rungs []rung, t Task) (out [][]rung) {
	for i, low := range rungs {
		if low.degree != "3" && low.degree != "b3" {
			continue
		}
		for _, high := range rungs[i:] {
			if high.degree == "R" && high.midi-low.midi <= 9 {
				out = append(out, []rung{low, high})
			}
		}
	}
	for i, low := range rungs { // and each fifth with the third above
		if low.degree != "5" {
			continue
		}
		for _, high := range rungs[i:] {
			if (high.degree == "3" || high.degree == "b3") && high.midi-low.midi <= 9 {
				out = append(out, []rung{low, high})
			}
		}
	}
	slices.SortFunc(out, func(a, b []rung) int { return a[0].midi - b[0].midi })
	return there(out, t.Down)
}

// there turns a walk round for going down, else leaves it.
func there(walk [][]rung, down bool) [][]rung {
	if down {
		slices.Reverse(walk)
	}
	return walk
}

// groups plays so many neighbouring rungs from each rung in turn.
func groups(size int) func([]rung, Task) [][]rung {
	offsets := make([]int, size)
	for i := range offsets {
		offsets[i] = i
	}
	return steps(offsets...)
}

// steps plays the same rungs from each rung in turn; downwards they are turned
// round.
func steps(offsets ...int) func([]rung, Task) [][]rung {
	return func(rungs []rung, t Task) [][]rung {
		var order []int
		last := offsets[len(offsets)-1]
		for i := 0; i+last < len(rungs); i++ {
			for _, o := range offsets {
				order = append(order, i+o)
			}
		}
		out := pick(rungs, order)
		if t.Down {
			slices.Reverse(out)
		}
		return alone(out)
	}
}

func twoUpOneDown(rungs []rung, t Task) [][]rung {
	var order []int
	for i := 0; i+2 < len(rungs); i++ {
		order = append(order, i, i+2, i+1)
	}
	// The step back is the start of the next step forward, so it is played once.
	kept := order[:0]
	for i, k := range order {
		if i == 0 || k != order[i-1] {
			kept = append(kept, k)
		}
	}
	out := pick(rungs, kept)
	if t.Down {
		slices.Reverse(out)
	}
	return alone(out)
}

func brokenThirds(rungs []rung, t Task) [][]rung {
	var order []int
	for i := 0; i+2 < len(rungs); i++ {
		if i%2 == 0 {
			order = append(order, i, i+2)
		} else {
			order = append(order, i+2, i)
		}
	}
	out := pick(rungs, order)
	if t.Down {
		slices.Reverse(out)
	}
	return alone(out)
}

// spread plays degrees counted on upwards from each root: 10 is the third, 11
// the fourth and 12 the fifth of the octave above.
func spread(degrees ...string) func([]rung, Task) [][]rung {
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

// shells are root, third and seventh together, as chords to comp with.
func shells(t Task, c harmony.Chord) []rung { return tones()(t, c) }

func held(rungs []rung, _ Task) (out [][]rung) {
	for i, root := range rungs {
		if root.degree != "R" {
			continue
		}
		chord := []rung{root}
		for _, want := range []harmony.Role{harmony.Third, harmony.Seventh} {
			for _, r := range rungs[i:] {
				if r.degree.Role() == want {
					chord = append(chord, r)
					break
				}
			}
		}
		if len(chord) > 1 {
			slices.SortFunc(chord, func(a, b rung) int { return a.midi - b.midi })
			out = append(out, chord)
		}
	}
	return out
}
