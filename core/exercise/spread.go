package exercise

import (
	"slices"

	"undaris/core/approach"
	"undaris/core/harmony"
)

// spread plays tones counted upwards from each root, or those of a cell that is asked for: 1
// is the root, 10 the third of the octave above, 11 the fourth and 12 the fifth. Struck at
// once are the first three; what goes on from them is played.
func spread(usual ...int) figure {
	return func(rungs []rung, t Task) (out [][]rung) {
		counts := usual
		if len(t.Cell) > 0 {
			counts = t.Cell
		}
		for _, root := range rungs {
			if root.degree != "R" {
				continue
			}
			group := make([]rung, 0, len(counts))
			for _, count := range counts {
				if r, ok := counted(rungs, root, count-1); ok {
					group = append(group, r)
				}
			}
			if len(group) < len(counts) {
				continue
			}
			if n := min(3, len(group)); t.Together {
				out = append(out, group[:n])
				group = group[n:]
			}
			out = append(out, alone(group)...)
		}
		return there(out, t.Down)
	}
}

// counted is the rung so many letters above a root. The fourth is the perfect one, brushed as a
// hand does it, up to a whole step above the window's highest tone.
func counted(rungs []rung, root rung, letters int) (rung, bool) {
	if letters%7 == 3 {
		step, _ := harmony.Degree("11").Interval()
		fourth := rung{midi: root.midi + 5 + letters/7*12, name: root.name.Up(step), degree: "11"}
		return fourth, fourth.midi <= rungs[len(rungs)-1].midi+2
	}
	for _, r := range rungs {
		step, _ := r.degree.Interval()
		if octave := (r.midi - root.midi) / 12; r.midi >= root.midi && step.Letters%7+7*octave == letters {
			return r, true
		}
	}
	return rung{}, false
}

// spreadTones is what spread triads are taken from: the chord's tones, and its scale where steps are chosen.
func spreadTones(t Task, c harmony.Chord) []rung {
	if len(t.Cell) > 0 {
		return scale(t, c)
	}
	return tones(t, c)
}

// opened plays the triad of each rung of a scale in turn, its third an octave up.
func opened(rungs []rung, t Task) [][]rung {
	var groups [][]rung
	for i := 0; i+9 < len(rungs); i++ {
		group := []rung{rungs[i], rungs[i+4], rungs[i+9]}
		for k, role := range []harmony.Role{harmony.Root, harmony.Fifth, harmony.Third} {
			group[k].in, group[k].own = role, true
		}
		groups = append(groups, group)
	}
	return inTurn(groups, t)
}

// rooted plays the seventh chord on the third from each root, with the root before it, after it an octave up, or both.
func rooted(rungs []rung, t Task) [][]rung {
	letters := []int{2, 4, 6, 8}
	if t.Roots != "after" {
		letters = append([]int{0}, letters...)
	}
	if t.Roots != "before" {
		letters = append(letters, 7)
	}
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

// ledInto plays a few tones of the chord, each the nearest to the one before, behind what leads into the first, which
// comes on the beat: a half step below the fifth, then fifth, third and root, where nothing else is asked.
func (t Task) ledInto(all []stretch, _ int) error {
	way, ok := approach.ByID(t.Approach)
	if !ok {
		way = approach.Ways[0]
	}
	order := t.Cell
	if len(order) == 0 {
		order = []int{5, 3, 1}
	}
	for i := range all {
		s := &all[i]
		rungs := tones(t, s.chord)
		on := func(count int) func(rung) bool {
			return func(r rung) bool { step, _ := r.degree.Interval(); return step.Letters%7 == (count-1)%7 }
		}
		for _, first := range there(rungs, t.Down) {
			if !on(order[0])(first) {
				continue
			}
			group := []rung{}
			for _, step := range way.Steps {
				group = append(group, lead(step, first, s.chord))
			}
			for group = append(group, first); len(group) < len(way.Steps)+len(order); {
				last, best := group[len(group)-1], -1
				for k, r := range rungs {
					if on(order[len(group)-len(way.Steps)])(r) && (best < 0 || abs(r.midi-last.midi) < abs(rungs[best].midi-last.midi)) {
						best = k
					}
				}
				if best < 0 {
					break
				}
				group = append(group, rungs[best])
			}
			if len(group) == len(way.Steps)+len(order) {
				s.walk = append(s.walk, alone(group)...)
			}
		}
	}
	return nil
}

// pedal keeps the lowest root of the window and climbs the rungs above it, which return to it each time; struck at
// once it is held under them.
func pedal(rungs []rung, t Task) (out [][]rung) {
	i := slices.IndexFunc(rungs, func(r rung) bool { return r.degree == "R" })
	if i < 0 {
		return nil
	}
	for _, g := range upAndDown(rungs[i+1:], t) {
		if t.Together {
			out = append(out, []rung{rungs[i], g[0]})
			continue
		}
		out = append(out, []rung{rungs[i]}, g)
	}
	return out
}
