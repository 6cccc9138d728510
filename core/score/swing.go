package score

import (
	"math"
	"slices"
)

// Swinging is how eighths that are written straight sound: in a beat that is divided in
// thirds as it is written, in any other the first half stretched over the first part and
// the rest over the rest. So what comes later is never heard earlier.
type Swinging struct {
	second float64 // where the second eighth falls
	thirds map[int]bool
}

// Swings is how notes that begin at the given ticks swing; second is where the second eighth
// of a beat falls, 0.5 is straight.
func Swings(starts []int, second float64) Swinging {
	s := Swinging{second, map[int]bool{}}
	for _, at := range starts {
		beat := floor(at, Tick)
		if in := at - beat*Tick; in%(Tick/2) != 0 && in%(Tick/6) == 0 {
			s.thirds[beat] = true
		}
	}
	return s
}

// At is where a tick sounds.
func (s Swinging) At(tick int) float64 {
	beat := floor(tick, Tick)
	in := float64(tick-beat*Tick) / Tick
	switch {
	case s.thirds[beat]:
	case in <= 0.5:
		in *= 2 * s.second
	default:
		in = s.second + (in-0.5)*2*(1-s.second)
	}
	return (float64(beat) + in) * Tick
}

// Round is At as a whole tick.
func (s Swinging) Round(tick int) int { return int(math.Round(s.At(tick))) }

// Straighten writes swung eighths as eighths: in a beat that is divided at its
// second third and nowhere else, what begins or ends there moves to the half. It
// counts the notes whose beginning moved. The feel plays them long–short again.
func Straighten(notes []Note) (moved int) {
	const half, third = Tick / 2, 2 * Tick / 3
	other := map[int]bool{} // beats divided elsewhere
	for _, n := range notes {
		for _, at := range []int{n.Start, n.End()} {
			if in := at - floor(at, Tick)*Tick; in != 0 && in != third {
				other[floor(at, Tick)] = true
			}
		}
	}
	straight := func(at int) int {
		if beat := floor(at, Tick); at-beat*Tick == third && !other[beat] {
			return beat*Tick + half
		}
		return at
	}
	for i := range notes {
		n := &notes[i]
		start, end := straight(n.Start), straight(n.End())
		if start != n.Start {
			moved++
		}
		n.Start, n.Length = start, end-start
	}
	return moved
}

// Unswing moves played swung eighths to straight ones: it finds where in the beat
// the second eighth falls, and stretches the beats that are divided only there, so
// that this becomes the half. It leaves notes that do not swing as they are and
// returns false.
func Unswing(notes []Note) bool {
	const edge, half, swung = Tick / 12, Tick / 2, Tick * 7 / 12
	var late []int            // where second eighths fall that are not in the middle
	straight := 0             // those that are
	other := map[int]bool{}   // beats that are divided elsewhere
	second := map[int][]int{} // the second eighths of a beat
	for _, n := range notes {
		beat := floor(n.Start+edge, Tick)
		switch in := n.Start - beat*Tick; {
		case in < edge:
		case in >= half-edge/2 && in < half+edge/2:
			straight++
		case in >= half && in < Tick*3/4:
			second[beat] = append(second[beat], in)
		default:
			other[beat] = true
		}
	}
	for beat, in := range second {
		if !other[beat] {
			late = append(late, in...)
		}
	}
	if len(late) <= straight {
		return false
	}
	slices.Sort(late)
	// A short lick has few; all of them are well late then, and nothing is divided otherwise.
	if len(late) < 3 && (straight > 0 || len(other) > 0 || late[0] < swung) {
		return false
	}
	at := late[len(late)/2]
	even := func(tick int) int {
		beat := floor(tick, Tick)
		in := tick - beat*Tick
		switch {
		case other[beat] || other[beat+1] && in >= Tick-edge:
			return tick
		case in <= at:
			return beat*Tick + in*half/at
		}
		return beat*Tick + half + (in-at)*half/(Tick-at)
	}
	for i := range notes {
		start, end := even(notes[i].Start), even(notes[i].End())
		notes[i].Start, notes[i].Length = start, max(1, end-start)
	}
	return true
}
