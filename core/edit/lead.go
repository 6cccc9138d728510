package edit

import (
	"context"
	"slices"

	"undaris/core/lick"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Leads proposes what may lead into a note, known by its number, from the note before it:
// one for each connector that has room. why is the reason where there is none.
func (l Line) Leads(ctx context.Context, id int) (fixes []Fix, why string, err error) {
	l.Notes = score.Numbered(l.Notes)
	i := slices.IndexFunc(l.Notes, func(n score.Note) bool { return n.ID == id })
	if i < 0 {
		return nil, "", ErrNoNotes
	}
	for i > 0 && l.Notes[i-1].Start == l.Notes[i].Start {
		i--
	}
	for _, c := range line.Connectors {
		if f, ok := l.lead(c, i); ok {
			fixes = append(fixes, f)
		}
	}
	if len(fixes) == 0 {
		why = "there is no room before it: let the note before end earlier, or begin later"
	}
	return fixes, why, ctx.Err()
}

// lead leads into the note at an index by a connector.
func (l Line) lead(c line.Connector, i int) (Fix, bool) {
	lead, ok := c.Connect(l.Score, l.Palette, i)
	if !ok || !l.underHand(lead.Notes, i) {
		return Fix{}, false
	}
	from := lead.From
	for from > 0 && lead.Shortened > 0 && (from == lead.From || l.Notes[from-1].Start == l.Notes[from].Start) {
		from--
	}
	all := slices.Clone(l.Notes[from:lead.From])
	for j := range all {
		all[j].Length = min(all[j].Length, lead.Shortened)
	}
	all = append(all, lead.Notes...)
	fresh := 0
	for _, n := range l.Notes {
		fresh = max(fresh, n.ID)
	}
	names := make([]string, len(lead.Notes))
	for j, n := range lead.Notes {
		names[j] = n.Pitch.Name.Printed()
	}
	says := say.F("%s: %s into %s", c.Name, say.List(names, "and"), l.Spell(l.Notes[i].Start, l.Notes[i].Heard()).Printed())
	if k := slices.IndexFunc(lead.Notes, func(n score.Note) bool { return !l.Region.Has(n.Placement) }); k >= 0 && l.Region.Has(l.Notes[i].Placement) {
		says += say.F(", beyond %s: string %d, fret %d", l.Region.Says(), lead.Notes[k].String, lead.Notes[k].Fret)
	}
	switch gone := i - lead.From; gone {
	case 0:
	case 1:
		says += ", in place of a note"
	default:
		says += say.F(", in place of %d notes", gone)
	}
	return l.fix(lick.Proposal{Notes: all, Says: []string{says}, Cost: float64(len(lead.Notes))}, from, i, l.Notes[i].Start, fresh)
}

// underHand puts notes that lead into the one at an index where the hand is: in the window, where that note lies in it
// and they do.
func (l Line) underHand(notes []score.Note, i int) bool {
	near := l.Notes[i].Placement
	inside := l.Region.Has(near)
	if near.Fret == 0 {
		near.Fret = l.Region.Low
	}
	for j := len(notes) - 1; j >= 0; j-- {
		places := l.In.Find(notes[j].Pitch.MIDI(), l.Region)
		if !inside || len(places) == 0 {
			places = l.In.Find(notes[j].Pitch.MIDI(), l.whole())
		}
		if len(places) == 0 {
			return false
		}
		far := func(p neck.Placement) int {
			return max(p.Fret-near.Fret, near.Fret-p.Fret) + max(p.String-near.String, near.String-p.String)
		}
		notes[j].Placement = slices.MinFunc(places, func(a, b neck.Placement) int { return far(a) - far(b) })
		near.String = notes[j].String
	}
	return true
}

// ErrNoConnector is returned for a way to lead that there is not.
var ErrNoConnector = say.Errorf("there is no such way to lead from one lick to the next")

// PutLicks lays a lick at each of some bars, counted from 1, and leads into each from what
// stands before it, by a connector; none by no name.
func (l *Line) PutLicks(ctx context.Context, k lick.Lick, bars []int, follow bool, connector string) error {
	c, known := line.ConnectorByID(connector)
	if connector != "" && !known {
		return ErrNoConnector
	}
	for _, bar := range bars {
		if err := l.PutLick(k, bar, follow); err != nil {
			return err
		}
	}
	if connector == "" {
		return nil
	}
	for _, bar := range bars {
		if ctx.Err() != nil {
			return ctx.Err()
		}
		l.Notes = score.Numbered(l.Notes)
		at := l.At(bar-1) + k.Notes[0].Start
		i := slices.IndexFunc(l.Notes, func(n score.Note) bool { return n.Start >= at })
		if i < 0 {
			continue
		}
		f, ok := l.lead(c, i)
		if !ok {
			l.say("nothing leads into bar %d: there is no room before it", bar)
			continue
		}
		*l = l.Apply(f)
	}
	return nil
}

// Adorn adds turns, doubles and trills to the line, or takes them away; see [line.Adorn].
func (l *Line) Adorn(amount float64, seed uint64) {
	l.Notes = line.Adorn(l.Score, l.Palette, l.Hand, amount, seed, l.Locked)
}

// Pick proposes the picking hand; see [line.Pick].
func (l *Line) Pick(id string) (err error) {
	notes, said, err := line.Pick(l.Score, id, l.Locked)
	if err == nil {
		l.Notes, l.Said = notes, append(l.Said, said...)
	}
	return err
}

// Plain is the line without what adorns it.
func (l Line) Plain() Line {
	l.Notes = slices.Clone(l.Notes)
	for i := range l.Notes {
		l.Notes[i].Ornaments = l.Notes[i].Plain()
	}
	return l
}

// Unbent is the line as it would be fretted: every bend's goal by a finger at its own fret, where the neck has one. A curl
// stays what it is bent from.
func (l Line) Unbent() Line {
	l.Notes = slices.Clone(l.Notes)
	for i := range l.Notes {
		n := &l.Notes[i]
		if n.Bend == 0 {
			continue
		}
		if up := (neck.Placement{String: n.String, Fret: n.Fret + n.Bend/2}); l.In.CheckPlacement(up) == nil {
			n.Placement = up
			n.Pitch = pitch.At(l.In.MIDI(up), l.Spell(n.Start, l.In.MIDI(up)))
		}
		n.Bend, n.PreBend, n.Again, n.Release, n.ReleaseTo = 0, false, false, false, 0
	}
	for i := range l.Notes { // what was pulled off from a bend, or held bent, is struck
		if j, ok := l.Joined(i); ok && l.Notes[j].Join != score.Picked && l.Notes[j].Fret == l.Notes[i].Fret {
			l.Notes[j].Join = score.Picked
		}
	}
	l.Said = nil
	l.Undoable()
	score.Finger(l.In, l.Notes, l.Hand)
	return l
}
