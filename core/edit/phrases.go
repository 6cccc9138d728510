package edit

import (
	"slices"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/score"
)

// Phrase is what of a line could be a lick by itself.
type Phrase struct {
	Title string // the heading it stands under
	lick.Lick
	Home lick.Home
}

// Phrases are the notes under each heading of a line; without headings, what silences of a bar
// or more leave. What stands in a bar without chords before a heading's is its pickup.
func (l Line) Phrases() (list []Phrase) {
	sort := slices.Clone(l.Notes)
	score.Sort(sort)
	var tops []int
	for i, b := range l.Bars {
		if b.Section != "" {
			tops = append(tops, i)
		}
	}
	put := func(title string, notes []score.Note, zero int) {
		if len(notes) == 0 {
			return
		}
		chord, sounds := l.ChordAt(max(zero, notes[0].Start))
		if !sounds {
			chord = harmony.MustParse(l.Key.String())
		}
		list = append(list, Phrase{title, lick.Of(notes, chord, zero, !sounds), lick.HomeOf(notes, chord, l.In)})
	}
	if len(tops) > 1 {
		from := 0
		for k, bar := range tops {
			to := len(sort)
			if k+1 < len(tops) {
				to = l.pickedUp(sort, tops[k+1])
			}
			if k == 0 { // what stands before the first heading has none
				lead := l.pickedUp(sort, bar)
				put("", sort[:lead], 0)
				from = lead
			}
			put(l.Bars[bar].Section, sort[from:to], l.At(bar))
			from = to
		}
		return list
	}
	from := 0
	for i := range sort {
		last := i+1 == len(sort)
		if !last && sort[i+1].Start-end(sort[from:i+1]) < l.BarTicks(l.BarOf(sort[i].Start)) {
			continue
		}
		put("", sort[from:i+1], l.At(l.BarOf(max(0, sort[from].Start))))
		from = i + 1
	}
	return list
}

// pickedUp is the first of the notes that belongs to what begins with a bar.
func (l Line) pickedUp(notes []score.Note, bar int) int {
	top := l.At(bar)
	if _, sounds := l.ChordAt(top - 1); bar > 0 && !sounds {
		top = l.At(bar - 1)
	} else if bar == 0 {
		top = -l.MostPickup()
	}
	first := slices.IndexFunc(notes, func(n score.Note) bool { return n.Start >= top })
	if first < 0 {
		return len(notes)
	}
	return first
}

// end is the tick at which the last of some notes is over.
func end(notes []score.Note) (tick int) {
	for i, n := range notes {
		if i == 0 || n.End() > tick {
			tick = n.End()
		}
	}
	return tick
}

// Joined are licks one behind the other as one line, each under its title and, where it has a
// pickup, behind an empty bar. [Line.Phrases] takes them apart again.
func Joined(title string, lines []Line) Line {
	out := lines[0]
	out.Title, out.Progression, out.Notes = title, form.Progression{Beats: 4}, nil
	for _, l := range lines {
		if len(l.Notes) > 0 && l.Notes[0].Start < 0 {
			out.Bars = append(out.Bars, form.Bar{Row: true, Changes: []form.Change{{Chord: harmony.Chord{None: true}}}})
		}
		at := out.End()
		for i, b := range l.Bars {
			if b.Row = i == 0 && len(out.Bars) > 0; i == 0 {
				b.Section = l.Title
			}
			out.Bars = append(out.Bars, b)
		}
		for _, n := range l.Notes {
			n.ID = 0
			n.Start += at
			out.Notes = append(out.Notes, n)
		}
	}
	score.Sort(out.Notes)
	out.Notes = score.Numbered(out.Notes)
	return out
}
