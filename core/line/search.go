package line

import (
	"context"
	"math"

	"undaris/core/blend"
)

// A state of the search is a note and how the line got there: its mode.
//
// Modes: 0 the beginning, or after a rest; 1 the second of two same notes; then
// up and down, each by the size of the last step (a half, a whole, middling, a leap) and
// by how many notes they have gone on in one direction (1 to 5) or how often
// they have turned round in a row (1 to 3).
const (
	afresh   = 0
	repeated = 1
	longest  = 5
	dizziest = 3
	ways     = longest + dizziest
	sizes    = 4
	modes    = 2 + 2*sizes*ways
)

// The sizes of a step.
const (
	halfStep = iota
	wholeStep
	middling // a third
	leap
)

func sizeOf(step int) int {
	switch d := size(step); {
	case d <= 1:
		return halfStep
	case d <= 2:
		return wholeStep
	case d <= 4:
		return middling
	}
	return leap
}

// modeOf numbers a mode; way is a run of 1 to 5, or 5 more than the turns in a row.
func modeOf(down bool, way, stepSize int) int {
	m := 2 + (way-1)*sizes + stepSize
	if down {
		m += sizes * ways
	}
	return m
}

// turn says which mode a step leads to, what that costs beyond the step itself,
// and whether it is allowed: no note more than twice in a row. A step
// may come out of an enclosure.
func turn(mode, step int, encloses bool) (next int, cost float64, ok bool) {
	if step == 0 {
		return repeated, 0, mode != repeated
	}
	down, now := step < 0, sizeOf(step)
	way := 1
	if mode >= 2 {
		was := mode - 2
		wasDown := was >= sizes*ways
		was %= sizes * ways
		wasWay, wasSize := was/sizes+1, was%sizes
		switch {
		case wasDown == down && wasWay <= longest:
			way = min(longest, wasWay+1)
		case wasDown == down:
			way = 2
		case wasWay > longest:
			way = min(ways, wasWay+1)
		default:
			way = longest + 1
		}
		switch {
		case way == longest:
			cost += overrun
		case way == longest+2:
			cost += zigzag / 3
		case way == ways:
			cost += zigzag
		}
		switch {
		case wasDown == down || wasSize > wholeStep || now > wholeStep:
		case encloses && wasSize == wholeStep && now == halfStep:
			cost += enclosed
		default:
			cost += dither
		}
		if wasDown == down && wasSize == leap && size(step) > 2 {
			cost += leapOn
		}
	}
	return modeOf(down, way, now), cost, true
}

// widest is the largest step in half steps that a neck holds.
const widest = 200

// turns is turn for every mode and step, so that the search need not reckon it anew.
// A step that is not allowed costs infinitely much. Out of an enclosure others hold.
var turns, outOfEnclosure = tableOfTurns(false), tableOfTurns(true)

func tableOfTurns(encloses bool) (table [2*widest + 1][modes]struct {
	next int
	cost float64
}) {
	for i := range table {
		for m := range table[i] {
			t := &table[i][m]
			ok := false
			if t.next, t.cost, ok = turn(m, i-widest, encloses); !ok {
				t.cost = math.Inf(1)
			}
		}
	}
	return table
}

// reached is a state that the search has come to, with the mode it goes on in.
type reached struct {
	state, mode int32
	cost        float64
}

// maxSteps is how many steps from place to place are weighed at most, each in
// all its modes: about half a second's work.
const maxSteps = 1_800_000

// cheapest finds the way through the candidates with the least cost, exactly.
func cheapest(ctx context.Context, slots []slot, layers [][]candidate) (way []int, total float64) {
	type back struct{ state int32 }
	backs := make([][]back, len(layers))
	var costs []float64
	live := make([]reached, 0, modes)
	for i, layer := range layers {
		if ctx.Err() != nil {
			return nil, 0
		}
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
		before, now := &slots[i-1], &slots[i]
		steps := &turns
		if now.enclosed {
			steps = &outOfEnclosure
		}
		given := now.fixed != nil && before.fixed != nil // what is locked need not be liked
		for a := range layers[i-1] {
			from := &layers[i-1][a]
			live = live[:0]
			for m, had := range costs[a*modes : (a+1)*modes] {
				if math.IsInf(had, 1) {
					continue
				}
				was := m
				if before.pause > 0 && m != repeated {
					was = afresh
				}
				live = append(live, reached{int32(a*modes + m), int32(was), had})
			}
			if len(live) == 0 {
				continue
			}
			for b := range layer {
				to := &layer[b]
				step := pair(before, now, from, to)
				if given {
					step = 0
				}
				if math.IsInf(step, 1) {
					continue
				}
				column := &steps[to.midi-from.midi+widest]
				into, marks := next[b*modes:(b+1)*modes], backs[i][b*modes:(b+1)*modes]
				step += to.cost
				for _, l := range live {
					mode, c := afresh, l.cost+step
					if !given {
						t := &column[l.mode]
						mode, c = t.next, c+t.cost
					}
					if c < into[mode] {
						into[mode], marks[mode] = c, back{l.state}
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
		if (last.class == blend.ChordTone || last.wished || slots[len(slots)-1].asks.is) && c < total {
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
