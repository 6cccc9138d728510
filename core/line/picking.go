package line

import (
	"undaris/core/say"
	"undaris/core/score"
)

// Picking is a way the picking hand goes through a line.
type Picking struct {
	Option
	slurs bool // what can be slurred is not picked
	// stroke is what strikes a note that comes after another; nil writes none.
	stroke func(before, now score.Note, last score.PickingHand) score.PickingHand
	// chord is what strikes notes that sound together, low to high; nil is the stroke of the lowest for all.
	chord func(notes []score.Note) []score.PickingHand
	first score.PickingHand // begins a phrase
}

// Pickings lists them.
var Pickings = []Picking{
	{Option: Option{"alternate", "strict alternate", "down and up in turn, whatever string comes"}, first: score.DownStroke,
		stroke: func(_, _ score.Note, last score.PickingHand) score.PickingHand { return inTurn(last) }},
	{Option: Option{"legato", "legato", "one stroke for what one string holds: the rest is hammered and pulled"}, slurs: true, first: score.DownStroke,
		stroke: func(_, _ score.Note, _ score.PickingHand) score.PickingHand { return score.DownStroke }},
	{Option: Option{"economy", "economy", "on to another string in the direction it lies; in turn on one string"}, first: score.DownStroke,
		stroke: func(before, now score.Note, last score.PickingHand) score.PickingHand {
			switch {
			case now.String < before.String:
				return score.DownStroke
			case now.String > before.String:
				return score.UpStroke
			}
			return inTurn(last)
		}},
	{Option: Option{"pick-and-fingers", "pick and fingers", "the pick in turn on its string and the next; a finger takes what lies higher across a string, and the upper notes of what sounds together"}, first: score.DownStroke,
		stroke: func(before, now score.Note, last score.PickingHand) score.PickingHand {
			if before.String-now.String > 1 || last == score.ByFinger && now.String == before.String {
				return score.ByFinger
			}
			return inTurn(last)
		},
		chord: lowest(func(score.Note) score.PickingHand { return score.DownStroke })},
	{Option: Option{"fingers", "fingers", "the thumb on strings 4 and lower, the fingers in turn on the others"}, first: score.ByFinger,
		stroke: func(_, now score.Note, _ score.PickingHand) score.PickingHand { return byString(now) },
		chord:  lowest(byString)},
	{Option: Option{"thumb", "the thumb", "every note by the thumb, downwards: a warm sound, for lines that take their time"}, first: score.ByThumb,
		stroke: func(_, _ score.Note, _ score.PickingHand) score.PickingHand { return score.ByThumb }},
	{Option: Option{"open", "as the player likes", "no strokes are written"}},
}

func inTurn(last score.PickingHand) score.PickingHand {
	if last == score.DownStroke {
		return score.UpStroke
	}
	return score.DownStroke
}

// thumbs is the highest string that the thumb plays beside the fingers.
const thumbs = 4

func byString(n score.Note) score.PickingHand {
	if n.String >= thumbs {
		return score.ByThumb
	}
	return score.ByFinger
}

// lowest strikes the lowest of notes that sound together in one way, and the others by fingers.
func lowest(by func(score.Note) score.PickingHand) func([]score.Note) []score.PickingHand {
	return func(notes []score.Note) []score.PickingHand {
		out := make([]score.PickingHand, len(notes))
		at := 0
		for i, n := range notes {
			if out[i] = score.ByFinger; n.String > notes[at].String {
				at = i
			}
		}
		out[at] = by(notes[at])
		return out
	}
}

// slurred is how far a finger hammers or pulls, in frets.
const slurred = 4

// Pick proposes the strokes of the picking hand for a line, and tells what they cost at its tempo. A stroke that no hand
// is quick enough for is not written, and that is said. Notes of locked bars stay.
func Pick(s score.Score, id string, locked map[int]bool) (notes []score.Note, said []string, err error) {
	var p *Picking
	for i := range Pickings {
		if Pickings[i].ID == id {
			p = &Pickings[i]
		}
	}
	if p == nil {
		return nil, nil, say.Errorf("there is no way to pick %q", id)
	}
	notes = p.strokes(s, locked)
	if p.stroke == nil {
		return notes, nil, nil
	}
	e := effortOf(s, notes)
	for _, i := range e.late {
		if !locked[s.BarOf(max(0, notes[i].Start))] {
			notes[i].Stroke = ""
		}
	}
	return notes, e.says(s, notes), nil
}

// strokes are those of a way, at any tempo.
func (p *Picking) strokes(s score.Score, locked map[int]bool) []score.Note {
	notes := append([]score.Note(nil), s.Notes...)
	stays := func(i int) bool { return locked[s.BarOf(max(0, notes[i].Start))] }
	before := -1 // the note before, of another beginning
	last := score.PickingHand("")
	for i := 0; i < len(notes); {
		j := i + 1
		for j < len(notes) && notes[j].Start == notes[i].Start {
			j++
		}
		n := &notes[i]
		begins := before < 0 || n.Start-notes[before].End() >= score.Tick/2
		if p.slurs && before >= 0 && j == i+1 && !stays(i) && slurrable(notes[before], *n) {
			if n.Join = score.Hammer; n.Fret < notes[before].Fret {
				n.Join = score.PullOff
			}
		}
		by := p.first
		if !begins && p.stroke != nil {
			by = p.stroke(notes[before], *n, last)
		} else if by == score.ByFinger {
			by = byString(*n)
		}
		for k, stroke := range p.struck(notes[i:j], by) {
			if !stays(i) {
				notes[i+k].Stroke = stroke
			}
		}
		if n.Stroke != "" {
			last = n.Stroke
		}
		before, i = i, j
	}
	return notes
}

// struck is what strikes notes that begin together, the first of them in one way.
func (p *Picking) struck(notes []score.Note, by score.PickingHand) []score.PickingHand {
	out := make([]score.PickingHand, len(notes))
	switch {
	case notes[0].Join != score.Picked || p.stroke == nil: // slid, hammered or pulled to
	case len(notes) > 1 && p.chord != nil:
		return p.chord(notes)
	default:
		for i := range out {
			out[i] = by
		}
	}
	return out
}

// slurrable tells that one note can be hammered or pulled from another.
func slurrable(from, to score.Note) bool {
	d := size(to.Fret - from.Fret)
	return from.String == to.String && d > 0 && d <= slurred && to.Start-from.End() < score.Tick/4 &&
		from.Bend == 0 && to.Bend == 0 && to.Scoop == 0 && !from.Dead && !to.Dead && !to.Accent && (to.Join == score.Picked || to.Join == score.Hammer || to.Join == score.PullOff)
}
