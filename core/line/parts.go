package line

import "undaris/core/score"

// Part is a stretch of a line that is learned by itself, in the bars that it lies in.
type Part struct {
	From, To       int // indexes of notes, both included
	Bar, BehindBar int // the first bar, and the one behind the last
}

// Bars that a part has at most, and about how many the pieces have of one that is longer.
const (
	mostBars  = 4
	pieceBars = 2
)

// Parts cut a line at its breaths. What is shorter than half a bar goes with what follows, what is longer than four bars is cut
// at bar lines too. What is played before the first bar belongs to none: a loop does not come back to it.
func Parts(s score.Score) (parts []Part) {
	part := func(from, to int) Part {
		return Part{from, to, s.BarOf(s.Notes[from].Start), s.BarOf(max(s.Notes[from].Start, s.Notes[to].End()-1)) + 1}
	}
	first := 0
	for first < len(s.Notes) && s.Notes[first].Start < 0 {
		first++
	}
	for _, p := range phrases(s) {
		p.From = max(p.From, first)
		if p.From > p.To {
			continue
		}
		now := part(p.From, p.To)
		if k := len(parts) - 1; k >= 0 {
			joined := part(parts[k].From, p.To)
			length := func(x Part) int { return s.Notes[x.To].End() - s.Notes[x.From].Start }
			if small := s.BarTicks(now.Bar) / 2; joined.BehindBar-joined.Bar <= mostBars && (length(parts[k]) < small || length(now) < small) {
				parts[k] = joined
				continue
			}
		}
		parts = append(parts, now)
	}
	var out []Part
	for _, p := range parts {
		if p.BehindBar-p.Bar <= mostBars {
			out = append(out, p)
			continue
		}
		from := p.From
		for i := p.From + 1; i <= p.To; i++ {
			begins := s.Notes[i].Start > s.Notes[i-1].Start && s.BarOf(s.Notes[i].Start) > s.BarOf(s.Notes[i-1].Start)
			if begins && s.BarOf(s.Notes[i].Start)-s.BarOf(s.Notes[from].Start) >= pieceBars {
				out = append(out, part(from, i-1))
				from = i
			}
		}
		out = append(out, part(from, p.To))
	}
	return out
}
