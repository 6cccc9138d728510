package tabtext

import (
	"slices"
	"strings"

	"undaris/core/score"
)

// bar reads the columns from one bar line to the next.
func (r *reader) bar(rows [][]rune, values []rune, from, to int) error {
	if r.bars++; r.bars > maxBars {
		r.say("more than %d bars; the rest was left out", maxBars)
		return nil
	}
	if err := r.ground(); err != nil {
		return err
	}
	bar := r.s.BarTicks(r.bars - 1)
	type event struct {
		col    int
		cells  map[int]string // by string
		valued bool           // a value stands over it
	}
	var events []event
	for col := from; col < to; {
		cells := map[int]string{}
		widest := 1
		for i, row := range rows {
			if col < len(row) && row[col] != '-' && row[col] != '|' && row[col] != ' ' && (col == from || !part(row[col-1])) {
				end := col
				for end < to && end < len(row) && part(row[end]) {
					end++
				}
				cells[i+1] = string(row[col:max(end, col+1)])
				widest = max(widest, end-col)
			}
		}
		if len(cells) > 0 {
			events = append(events, event{col: col, cells: cells})
		}
		col++
	}
	if values == nil {
		r.say("no note values; the rhythm was guessed from where the frets stand")
		start, first := r.now, len(r.s.Notes)
		for i, e := range events {
			place := func(col int) int {
				at := (col - from) * bar / max(1, to-from)
				return at / (score.Tick / 4) * (score.Tick / 4)
			}
			end := bar
			if i+1 < len(events) {
				end = place(events[i+1].col)
			}
			at := place(e.col)
			if i == 0 && at < score.Tick/2 {
				at = 0
			}
			r.damped = r.mutedAt(e.col)
			for str, text := range e.cells {
				if err := r.chain(str, text, start+at, max(score.Tick/4, end-at)); err != nil {
					return err
				}
			}
		}
		for i := first; i < len(r.s.Notes); i++ {
			r.s.Notes[i].RhythmGuessed = true
		}
		r.now += bar
		return nil
	}
	start := r.now
	for col := from; col < to && col < len(values); {
		if values[col] == ' ' {
			col++
			continue
		}
		end := col
		for end < len(values) && values[end] != ' ' {
			end++
		}
		word := string(values[col:end])
		if !valuey.MatchString(word) {
			r.say("%q over bar %d is no note value; it was passed over", word, r.bars)
			col = end
			continue
		}
		length := ticks(word)
		if rest := strings.HasPrefix(word, "r"); !rest {
			at := slices.IndexFunc(events, func(e event) bool { return e.col == col })
			for _, off := range []int{-1, 1} { // a row of values may be a character off
				if at < 0 {
					at = slices.IndexFunc(events, func(e event) bool { return !e.valued && e.col == col+off })
				}
			}
			switch {
			case at >= 0:
				events[at].valued = true
				r.damped = r.mutedAt(events[at].col)
				for str, text := range events[at].cells {
					if err := r.add(str, text, r.now, length); err != nil {
						return err
					}
				}
			case r.tied:
				for i := len(r.s.Notes) - 1; i >= 0 && r.s.Notes[i].End() >= r.now; i-- {
					if r.s.Notes[i].End() == r.now {
						r.s.Notes[i].Length += length
					}
				}
			default:
				r.say("a value in bar %d has no fret under it; it was read as a rest", r.bars)
			}
		}
		r.tied = strings.HasSuffix(word, "~")
		r.now += length
		col = end
	}
	if slices.ContainsFunc(events, func(e event) bool { return !e.valued }) {
		r.say("a fret in bar %d has no value over it; it was left out", r.bars)
	}
	switch length := r.now - start; {
	case r.bars == 1 && !r.pickup && length > 0 && (length < bar || r.begins):
		for i := range r.s.Notes {
			r.s.Notes[i].Start -= length
		}
		r.now, r.pickup = 0, true
		r.bars--
	case length != bar:
		r.say("bar %d has %g beats of %d; it was filled or cut", r.bars, float64(length)/score.Tick, bar/score.Tick)
		r.now = start + bar
		r.s.Notes = slices.DeleteFunc(r.s.Notes, func(n score.Note) bool { return n.Start >= r.now })
	}
	return nil
}
