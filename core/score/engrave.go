package score

import (
	"cmp"
	"slices"

	"undaris/core/form"
)

// Value is a written length: 1 is a whole note, 4 a quarter, 32 the shortest.
type Value struct {
	Base   int // 1, 2, 4, 8, 16 or 32
	Dotted bool
	Actual int // notes in the time of Normal; 0 outside a tuplet
	Normal int
}

// Ticks is how long the value lasts.
func (v Value) Ticks() int {
	t := 4 * Tick / v.Base
	if v.Dotted {
		t += t / 2
	}
	if v.Actual > 0 {
		t = t * v.Normal / v.Actual
	}
	return t
}

// Stroke is a written chord, note or rest. Consecutive strokes of one tuplet
// have Tuplet set to the same number, counted from 1 through the measure.
type Stroke struct {
	At     int // ticks from the start of the measure
	Value  Value
	Notes  []int // indexes of the score's notes; none is a rest
	From   bool  // tied from the stroke before
	To     bool  // tied to the next
	Tuplet int
}

// Measure is a written bar. The pickup has Number 0.
type Measure struct {
	Number  int
	Start   int // ticks from the first bar
	Beats   int // in the whole bar; a pickup has fewer
	Section string
	Row     bool          // a new line is wished for here
	Chords  []form.Change // the symbols above it: where the chord changes, and at the head of a line
	Strokes []Stroke
}

// Written is a note as it stands on paper.
type Written struct {
	Note
	From  int // the number of the note before it on its string, which it is slid, hammered or pulled from; 0 is none
	Signs []Drawn
}

// Written lists the notes as they stand on paper. They have numbers of their own.
func (s Score) Written() []Written {
	out := make([]Written, len(s.Notes))
	for i, n := range s.Notes {
		out[i] = Written{Note: n, Signs: n.Signs()}
		if before, ok := s.Before(i); ok {
			out[i].From = before.ID
		}
	}
	return out
}

// symbols writes what stands over a bar; last is the symbol before it.
func (m *Measure) symbols(bar form.Bar, last string) string {
	m.Section, m.Row = bar.Section, bar.Row
	for _, c := range bar.Changes {
		if symbol := c.Chord.String(); symbol != last || bar.Row && c.Beat == 0 {
			m.Chords = append(m.Chords, c)
			last = symbol
		}
	}
	return last
}

// grids are how a beat can be divided: the ticks of the finest note, and the
// tuplet it takes.
var grids = []struct{ step, actual, normal int }{
	{240, 0, 0}, {320, 3, 2}, {120, 0, 0}, {160, 6, 4},
}

// span is a stretch of ticks that some notes last.
type span struct {
	from, to int
	notes    []int
}

// leadIn begins a pickup on the beat of its first note or its first chord, and writes its symbols.
func (s Score) leadIn(m *Measure, spans []span) (now int, symbol string) {
	lead := s.Progression.Pickup
	if now = -lead.Beats * Tick; len(spans) > 0 {
		now = min(now, floor(spans[0].from, Tick)*Tick)
	}
	m.Start = now
	for _, c := range lead.Changes {
		symbol = c.Chord.String()
		m.Chords = append(m.Chords, form.Change{Beat: c.Beat - lead.Beats - now/Tick, Chord: c.Chord})
	}
	return now, symbol
}

// Engrave cuts the line into measures of written values. Notes are moved to the
// nearest place that can be written, at most a 1/32 triplet away; a note ends at
// the latest where the next begins.
func (s Score) Engrave() []Measure {
	first := 0
	if s.Progression.Pickup.Beats > 0 || len(s.Notes) > 0 && s.Notes[0].Start < 0 {
		first = -1
	}
	grid := s.beatGrids(first)
	var spans []span
	for i, n := range s.Notes {
		at := snap(n.Start, grid)
		if end := s.End(); at >= end {
			at = end - grid.at(end-1).step
		}
		if k := len(spans) - 1; k >= 0 && spans[k].from == at {
			spans[k].notes = append(spans[k].notes, i)
			spans[k].to = max(spans[k].to, snap(n.End(), grid))
			continue
		}
		spans = append(spans, span{at, snap(n.End(), grid), []int{i}})
	}
	end := s.End()
	for i := range spans {
		limit := end
		if i+1 < len(spans) {
			limit = spans[i+1].from
		}
		spans[i].to = min(max(spans[i].to, spans[i].from+1), limit)
		if spans[i].to-spans[i].from < grid.at(spans[i].from).step {
			spans[i].to = min(limit, spans[i].from+grid.at(spans[i].from).step)
		}
	}
	var out []Measure
	k := 0
	symbol := ""
	for b := first; b < len(s.Bars); b++ {
		top := s.At(b)
		m := Measure{Number: b + 1, Start: top, Beats: s.BeatsOf(b)}
		now := top
		if b >= 0 {
			symbol = m.symbols(s.Bars[b], symbol)
		} else {
			now, symbol = s.leadIn(&m, spans)
		}
		stop := s.At(b + 1)
		for now < stop {
			switch {
			case k < len(spans) && spans[k].from <= now:
				sp := spans[k]
				to := min(sp.to, stop)
				m.write(now, to, grid, sp.notes, now > sp.from, sp.to > stop, m.Beats, top)
				now = to
				if sp.to <= stop {
					k++
				}
			default:
				to := stop
				if k < len(spans) {
					to = min(stop, spans[k].from)
				}
				m.write(now, to, grid, nil, false, false, m.Beats, top)
				now = to
			}
		}
		m.group()
		out = append(out, m)
	}
	return out
}

// beatGrid holds the division of each beat, from a first beat on.
type beatGrid struct {
	first int
	beats []int // indexes of grids
}

func (g beatGrid) at(tick int) struct{ step, actual, normal int } {
	i := min(max(0, floor(tick, Tick)-g.first), len(g.beats)-1)
	return grids[g.beats[i]]
}

// beatGrids chooses for each beat the coarsest division that fits its onsets and
// ends best.
func (s Score) beatGrids(firstBar int) beatGrid {
	g := beatGrid{s.StartOf(firstBar), make([]int, s.Length()-s.StartOf(firstBar))}
	points := make([][]int, len(g.beats))
	room := make([]int, 4*len(g.beats)) // most beats have no more
	for i := range points {
		points[i] = room[4*i : 4*i : 4*i+4]
	}
	add := func(tick int) {
		if i := floor(tick, Tick) - g.first; i >= 0 && i < len(points) {
			points[i] = append(points[i], tick-floor(tick, Tick)*Tick)
		}
	}
	for _, n := range s.Notes {
		add(n.Start)
		add(n.End())
	}
	for i, inside := range points {
		best := 1 << 30
		for j, grid := range grids {
			off := 0
			for _, p := range inside {
				r := p % grid.step
				off += min(r, grid.step-r)
			}
			if off < best {
				best, g.beats[i] = off, j
			}
		}
	}
	return g
}

func snap(tick int, g beatGrid) int {
	step := g.at(tick).step
	base := floor(tick, Tick) * Tick
	return base + (tick-base+step/2)/step*step
}

// write adds strokes for a stretch, cut where a reader wants to see the beat.
func (m *Measure) write(from, to int, g beatGrid, notes []int, tied, goesOn bool, beats, bar int) {
	var cut []Value
	for now := from; now < to; {
		v := longest(now-bar, to-now, g.at(now), g, now, notes == nil, beats)
		cut = append(cut, v)
		now += v.Ticks()
	}
	now := from
	for i, v := range cut {
		m.Strokes = append(m.Strokes, Stroke{At: now - m.Start, Value: v, Notes: notes,
			From: notes != nil && (i > 0 || tied), To: notes != nil && (i+1 < len(cut) || goesOn)})
		now += v.Ticks()
	}
}

// values lists what can be written, longest first.
var values = func() (out []Value) {
	for _, base := range []int{1, 2, 4, 8, 16, 32} {
		if base > 1 {
			out = append(out, Value{Base: base, Dotted: true})
		}
		out = append(out, Value{Base: base})
	}
	slices.SortStableFunc(out, func(a, b Value) int { return cmp.Compare(b.Ticks(), a.Ticks()) })
	return out
}()

// longest chooses the longest value that may stand at a place of the bar.
func longest(at, most int, grid struct{ step, actual, normal int }, g beatGrid, abs int, rest bool, beats int) Value {
	if grid.actual > 0 {
		inBeat := Tick - at%Tick
		if most >= Tick && at%Tick == 0 { // a whole beat asks for no tuplet
			return plain(at, most, rest, beats)
		}
		for _, v := range values {
			v.Actual, v.Normal = grid.actual, grid.normal
			t := v.Ticks()
			if t <= min(most, inBeat) && t%grid.step == 0 && (!v.Dotted || !rest) && v.Base >= 4 {
				return v
			}
		}
		return Value{Base: 32, Actual: grid.actual, Normal: grid.normal}
	}
	// A value must not reach into a beat that is divided otherwise.
	for end := (floor(abs, Tick) + 1) * Tick; end < abs+most; end += Tick {
		if g.at(end).actual > 0 {
			most = end - abs
		}
	}
	return plain(at, most, rest, beats)
}

func plain(at, most int, rest bool, beats int) Value {
	for _, v := range values {
		t := v.Ticks()
		if t > most {
			continue
		}
		unit := 4 * Tick / v.Base // without the dot
		half := 2 * Tick
		switch {
		case rest && (v.Dotted || at%unit != 0):
			if !(rest && !v.Dotted && v.Base == 1 && at == 0) {
				continue
			}
		case t > Tick && at%Tick != 0 && v.Base <= 2:
			continue // long notes begin on a beat
		case v.Base == 4 && at%(Tick/2) != 0:
			continue // quarters on beats and eighths
		case v.Base == 4 && v.Dotted && at%Tick != 0 && beats == 4 && at/half != (at+t-1)/half:
			continue // and the middle of the bar stays visible
		case v.Base == 4 && !v.Dotted && at%Tick != 0 && beats == 4 && at/half != (at+t-1)/half:
			continue
		case v.Base == 8 && at%(Tick/4) != 0, v.Base == 8 && v.Dotted && at/Tick != (at+t-1)/Tick:
			continue
		case v.Base == 8 && at%(Tick/2) != 0 && at/Tick != (at+t-1)/Tick:
			continue
		}
		return v
	}
	return Value{Base: 32}
}

// group numbers the tuplets: one for each beat that has any.
func (m *Measure) group() {
	beat, number := -1, 0
	for i := range m.Strokes {
		s := &m.Strokes[i]
		if s.Value.Actual == 0 {
			continue
		}
		if b := (m.Start + s.At) / Tick; b != beat || number == 0 {
			beat = b
			number++
		}
		s.Tuplet = number
	}
}

// nearest are the places where each note's beginning and end can be written.
func (s Score) nearest() (starts, stops []int) {
	grid := s.beatGrids(-1)
	end := s.End()
	for _, n := range s.Notes {
		start := min(snap(n.Start, grid), end-grid.at(end-1).step)
		stop := min(end, snap(n.End(), grid))
		if stop <= start {
			stop = start + grid.at(start).step
		}
		starts, stops = append(starts, start), append(stops, stop)
	}
	return starts, stops
}

// MarkOdd marks the notes that begin more than a hundredth of a beat from the
// nearest place that can be written as guessed in rhythm, and counts them.
func (s Score) MarkOdd() (odd int) {
	starts, _ := s.nearest()
	for i, n := range s.Notes {
		if off := n.Start - starts[i]; off > Tick/100 || off < -Tick/100 {
			s.Notes[i].RhythmGuessed = true
			odd++
		}
	}
	return odd
}

// Quantise moves onsets and ends to the nearest places that can be written; what
// moved is marked and counted as MarkOdd does.
func (s *Score) Quantise() (moved int) {
	moved = s.MarkOdd()
	starts, stops := s.nearest()
	for i := range s.Notes {
		s.Notes[i].Start, s.Notes[i].Length = starts[i], stops[i]-starts[i]
	}
	Sort(s.Notes)
	return moved
}
