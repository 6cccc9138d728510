package line

import (
	"undaris/core/say"
	"undaris/core/score"
)

// Picking is a way the picking hand goes through a line.
type Picking struct {
	Option
	slurs  bool // what can be slurred is not picked
	stroke func(before, now score.Note, last score.PickingHand) score.PickingHand
}

// Pickings lists them. A phrase begins with a down stroke.
var Pickings = []Picking{
	{Option{"alternate", "strict alternate", "down and up in turn, whatever string comes"}, false,
		func(_, _ score.Note, last score.PickingHand) score.PickingHand { return inTurn(last) }},
	{Option{"legato", "legato", "one stroke for what one string holds: the rest is hammered and pulled"}, true,
		func(_, _ score.Note, _ score.PickingHand) score.PickingHand { return score.DownStroke }},
	{Option{"economy", "economy", "on to another string in the direction it lies; in turn on one string"}, false,
		func(before, now score.Note, last score.PickingHand) score.PickingHand {
			switch {
			case now.String < before.String:
				return score.DownStroke
			case now.String > before.String:
				return score.UpStroke
			}
			return inTurn(last)
		}},
	{Option{"open", "as the player likes", "no strokes are written"}, false, nil},
}

func inTurn(last score.PickingHand) score.PickingHand {
	if last == score.DownStroke {
		return score.UpStroke
	}
	return score.DownStroke
}

// slurred is how far a finger hammers or pulls, in frets.
const slurred = 4

// Pick proposes the strokes of the picking hand for a line. Notes of locked bars stay.
func Pick(s score.Score, id string, locked map[int]bool) ([]score.Note, error) {
	var p *Picking
	for i := range Pickings {
		if Pickings[i].ID == id {
			p = &Pickings[i]
		}
	}
	if p == nil {
		return nil, say.Errorf("there is no way to pick %q", id)
	}
	notes := append([]score.Note(nil), s.Notes...)
	before := -1 // the note before, of another beginning
	last := score.UpStroke
	for i := range notes {
		n := &notes[i]
		together := i > 0 && notes[i-1].Start == n.Start
		stays := locked[s.BarOf(max(0, n.Start))]
		if i > 0 && !together {
			before = i - 1
		}
		if before < 0 || n.Start-notes[before].End() >= score.Tick/2 {
			last = score.UpStroke // a phrase begins with a down stroke
		}
		if !stays && p.slurs && before >= 0 && !together && slurrable(notes[before], *n) {
			n.Join = score.Hammer
			if n.Fret < notes[before].Fret {
				n.Join = score.PullOff
			}
		}
		stroke := score.PickingHand("")
		switch {
		case together:
			stroke = notes[i-1].Stroke
		case n.Join != score.Picked || p.stroke == nil:
		case before < 0 || last == score.UpStroke && n.Start-notes[before].End() >= score.Tick/2:
			stroke = score.DownStroke
		default:
			stroke = p.stroke(notes[before], *n, last)
		}
		if !stays {
			n.Stroke = stroke
		}
		if n.Stroke == score.DownStroke || n.Stroke == score.UpStroke {
			last = n.Stroke
		}
	}
	return notes, nil
}

// slurrable tells that one note can be hammered or pulled from another.
func slurrable(from, to score.Note) bool {
	d := size(to.Fret - from.Fret)
	return from.String == to.String && d > 0 && d <= slurred && to.Start-from.End() < score.Tick/4 &&
		from.Bend == 0 && to.Bend == 0 && to.Scoop == 0 && !from.Dead && !to.Dead && !to.Accent && (to.Join == score.Picked || to.Join == score.Hammer || to.Join == score.PullOff)
}
