package score

import "math"

// steps are the divisions of a beat that are written, and what each costs for a
// note: a finer one must fit better by that many ticks.
var steps = []struct{ step, cost int }{{Tick / 2, 0}, {Tick / 3, 45}, {Tick / 4, 60}}

// InTime moves notes to where they can be written: in each beat to the division
// that fits them best. A note lasts until the next one, or to the end of its half
// beat or triplet, whichever it came nearer to.
func InTime(notes []Note, end int) []Note {
	at := func(n Note, step int) int { return (n.Start + step/2) / step * step }
	var out []Note
	for from := 0; from < len(notes); {
		// What lies about the edge of a beat belongs to it.
		beat := (notes[from].Start + Tick/8) / Tick
		to := from
		for to < len(notes) && (notes[to].Start+Tick/8)/Tick == beat {
			to++
		}
		best, least := 0, math.MaxInt
		for k, s := range steps {
			cost := s.cost * (to - from)
			for i, n := range notes[from:to] {
				off := n.Start - at(n, s.step)
				cost += max(off, -off)
				if i > 0 && at(n, s.step) == at(notes[from+i-1], s.step) && n.Start-notes[from+i-1].Start > Tick/16 {
					cost += Tick // two strokes are two notes
				}
			}
			if cost < least {
				best, least = k, cost
			}
		}
		for _, n := range notes[from:to] {
			stop := n.End()
			n.Start = min(at(n, steps[best].step), end-steps[best].step)
			step := max(steps[best].step, Tick/3)
			n.Length = max(1, stop-n.Start+step/2) / step * step
			n.Length = max(step, n.Length) - n.Start%step
			out = append(out, n)
		}
		from = to
	}
	for i := range out {
		n := &out[i]
		for _, next := range out[i+1:] {
			if next.Start > n.Start {
				if gap := next.Start - n.Start; n.Length > gap-Tick*3/8 {
					n.Length = gap
				}
				break
			}
		}
		n.Length = max(Tick/8, min(n.Length, end-n.Start))
	}
	return out
}

// Straight is the inverse of [Swinging], where no beat is divided in thirds.
func Straight(tick, swing float64) float64 {
	beat := math.Floor(tick / Tick)
	in := tick/Tick - beat
	if in <= swing {
		in = in / swing / 2
	} else {
		in = 0.5 + (in-swing)/(1-swing)/2
	}
	return (beat + in) * Tick
}
