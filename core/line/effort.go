package line

import (
	"slices"

	"undaris/core/say"
	"undaris/core/score"
)

// strikes is how quick what strikes a string is in a practised hand, in milliseconds: from one stroke to its next, and
// more for each string jumped over. The pick plays sixteenths at 200 in turn on one string; the thumb alone eighths at
// 210; fingers come in turn and lie on strings of their own. So methods for the right hand set their goals.
var strikes = map[score.PickingHand]struct{ again, string float64 }{
	score.DownStroke: {75, 20},
	score.UpStroke:   {75, 20},
	score.ByFinger:   {70, 0},
	score.ByThumb:    {140, 20},
}

// sameWay is how much longer a pick takes to strike one way twice on a string: it has to come back first.
const sameWay = 65

// silenced is what each string costs that lies silent between two that one stroke sounds.
const silenced = 30

// effort is what the picking hand does for a line.
type effort struct {
	strokes, skips, across int
	late                   []int   // notes that come too soon for it
	tightest               float64 // milliseconds to spare
	bar                    int     // of the tightest, from 1; 0 is none
}

// A hand is the pick, or the thumb in its place, and the fingers beside it.
const (
	plucks  = iota // the pick or the thumb
	fingers        // i, m and a
	tools
)

// blow is one stroke: of one string, or over several.
type blow struct {
	at, near, far int // ticks; the string struck first, and last
	by            score.PickingHand
	notes         []int
	silent        int // strings struck through between those that sound
}

// blows are the strokes that begin together, by what strikes.
func blows(notes []score.Note, from, to int) (now [tools]*blow) {
	for k := from; k < to; k++ {
		n := notes[k]
		tool := plucks
		if n.Stroke == "" {
			continue
		} else if n.Stroke == score.ByFinger {
			tool = fingers
		}
		b := now[tool]
		if b == nil {
			now[tool] = &blow{n.Start, n.String, n.String, n.Stroke, []int{k}, 0}
			continue
		}
		if b.notes = append(b.notes, k); tool == plucks {
			b.silent += max(0, size(n.String-b.far)-1)
		}
		b.far = n.String
	}
	return now
}

// after is how long a stroke takes after another of the same tool, in milliseconds, and how many strings it jumps over.
func (b *blow) after(last *blow) (cost float64, jump int) {
	jump = max(0, size(b.near-last.far)-1)
	if b.by == score.ByFinger {
		jump = 0
	}
	cost = strikes[b.by].again + strikes[b.by].string*float64(jump) + float64(silenced*b.silent)
	if pick := b.by == score.DownStroke || b.by == score.UpStroke; pick && b.by == last.by && !sweeps(last.far, b) {
		cost += sameWay
	}
	return cost, jump
}

// effortOf reckons what the strokes of a line cost at its tempo.
func effortOf(s score.Score, notes []score.Note) (e effort) {
	tick := 60_000 / float64(max(1, s.Tempo)) / score.Tick
	var last [tools]*blow
	for i := 0; i < len(notes); {
		j := i + 1
		for j < len(notes) && notes[j].Start == notes[i].Start {
			j++
		}
		for tool, b := range blows(notes, i, j) {
			if b == nil {
				continue
			}
			e.strokes++
			e.across += b.silent
			if before := last[tool]; before != nil {
				cost, jump := b.after(before)
				slack := float64(b.at-before.at)*tick - cost
				if slack < 0 {
					e.late = append(e.late, b.notes...)
					continue // it is not struck
				}
				if jump > 0 {
					e.skips++
				}
				if e.bar == 0 || slack < e.tightest {
					e.tightest, e.bar = slack, s.BarOf(max(0, b.at))+1
				}
			}
			last[tool] = b
		}
		i = j
	}
	return e
}

// sweeps tells that a stroke goes on in its direction to the string beside.
func sweeps(from int, b *blow) bool {
	return b.by == score.DownStroke && b.near == from-1 || b.by == score.UpStroke && b.near == from+1
}

// says tells what a way of picking asks for.
func (e effort) says(s score.Score, notes []score.Note) (said []string) {
	if e.strokes == 0 {
		return nil
	}
	text := say.F("%d strokes", e.strokes)
	if e.skips > 0 {
		text += say.F(", %d over a string or more", e.skips)
	}
	if e.across > 0 {
		text += say.F(", %d silent strings struck through", e.across)
	}
	if e.bar > 0 && len(e.late) == 0 {
		text += say.F("; the tightest, in bar %d, has %.0f ms to spare at %d", e.bar, e.tightest, s.Tempo)
	}
	said = append(said, text)
	if n := len(e.late); n > 0 {
		var bars []string
		for _, i := range e.late {
			bars = append(bars, say.F("%d", s.BarOf(max(0, notes[i].Start))+1))
		}
		bars = slices.Compact(bars)
		said = append(said, say.F("at %d %d of them come too soon for it (bar %s) and have no stroke; another way, or a slower tempo, has time", s.Tempo, n, say.List(bars[:min(4, len(bars))], "and")))
	}
	return said
}
