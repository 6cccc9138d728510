package line

import (
	"math"

	"undaris/core/blend"
)

// A state of the search is a note and how the line got there: its mode.
//
// Modes: 0 the beginning, or after a rest; 1 the second of two same notes; then
// up and down, each by how many notes they have gone on (1 to 5) and whether
// the last step was a leap.
const (
	afresh   = 0
	repeated = 1
	longest  = 5
	modes    = 2 + 2*2*longest
)

// leap is a step of more than a major third.
const leap = 5

func modeOf(down bool, run int, leapt bool) int {
	m := 2 + (run-1)*2
	if leapt {
		m++
	}
	if down {
		m += 2 * longest
	}
	return m
}

// turn says which mode a step leads to, what that costs beyond the step itself,
// and whether it is allowed: no note more than twice in a row.
func turn(mode, step int) (next int, cost float64, ok bool) {
	if step == 0 {
		return repeated, 0, mode != repeated
	}
	down, leapt := step < 0, size(step) >= leap
	run := 1
	if mode >= 2 {
		was := mode - 2
		wasDown := was >= 2*longest
		was %= 2 * longest
		wasRun, wasLeapt := was/2+1, was%2 == 1
		if wasDown == down {
			run = min(longest, wasRun+1)
			if run == longest {
				cost += overrun
			}
			if wasLeapt && size(step) > 2 {
				cost += leapOn
			}
		}
	}
	return modeOf(down, run, leapt), cost, true
}

// cheapest finds the way through the candidates with the least cost, exactly.
func cheapest(slots []slot, layers [][]candidate) (way []int, total float64) {
	type back struct{ state int32 }
	backs := make([][]back, len(layers))
	var costs []float64
	for i, layer := range layers {
		next := make([]float64, len(layer)*modes)
		for j := range next {
			next[j] = math.Inf(1)
		}
		backs[i] = make([]back, len(next))
		if i == 0 {
			for j, c := range layer {
				next[j*modes+afresh] = c.cost
			}
			costs = next
			continue
		}
		rested := slots[i-1].pause > 0
		for a, from := range layers[i-1] {
			for b, to := range layer {
				given := slots[i].fixed != nil && slots[i-1].fixed != nil // what is locked need not be liked
				step := pair(slots[i-1], slots[i], from, to)
				if given {
					step = 0
				}
				if math.IsInf(step, 1) {
					continue
				}
				d := to.midi - from.midi
				for m := range modes {
					had := costs[a*modes+m]
					if math.IsInf(had, 1) {
						continue
					}
					was := m
					if rested && m != repeated {
						was = afresh
					}
					mode, more, ok := turn(was, d)
					if given {
						mode, more, ok = afresh, 0, true
					}
					if !ok {
						continue
					}
					if c := had + step + more + to.cost; c < next[b*modes+mode] {
						next[b*modes+mode] = c
						backs[i][b*modes+mode] = back{int32(a*modes + m)}
					}
				}
			}
		}
		costs = next
	}
	best := -1
	total = math.Inf(1)
	for j, c := range costs {
		last := layers[len(layers)-1][j/modes]
		if last.class == blend.ChordTone && c < total {
			best, total = j, c
		}
	}
	if best < 0 {
		return nil, total
	}
	way = make([]int, len(layers))
	for i := len(layers) - 1; i >= 0; i-- {
		way[i] = best / modes
		best = int(backs[i][best].state)
	}
	return way, total
}
