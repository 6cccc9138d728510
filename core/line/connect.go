package line

import (
	"slices"

	"undaris/core/approach"
	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/score"
)

// Connector is a way to lead from one phrase into the first note of the next.
type Connector struct {
	Option
	lead func(s score.Score, p blend.Palette, to score.Note, from, room int) []int
}

// Connectors lists them: each gives the pitches before a note, in order, at most as many as
// there is room for, coming from a pitch.
var Connectors = connectors()

// walks come by steps from where the line is.
var walks = []Connector{
	{Option{"scale", "by the scale", "steps of the chord's scale"}, func(s score.Score, _ blend.Palette, to score.Note, from, room int) []int {
		chord, sounds := s.ChordAt(to.Start - 1)
		if !sounds {
			return nil
		}
		return stepwise(to.Heard(), from, room, func(midi int) bool {
			return slices.ContainsFunc(chord.Scale(), func(t harmony.Tone) bool { return t.Name.Class() == pitch.Class(midi) })
		})
	}},
	{Option{"box", "by the box", "notes of the palette"}, func(s score.Score, p blend.Palette, to score.Note, from, room int) []int {
		chord, sounds := s.ChordAt(to.Start - 1)
		if !sounds {
			return nil
		}
		inside := membership{key: s.Key, palette: p}
		return stepwise(to.Heard(), from, room, func(midi int) bool { return inside.has(chord, midi) })
	}},
	{Option{"walk", "chromatic walk", "half steps"}, func(_ score.Score, _ blend.Palette, to score.Note, from, room int) []int {
		return stepwise(to.Heard(), from, min(3, room), func(int) bool { return true })
	}},
}

// connectors are these, and what leads to a tone from beside it.
func connectors() []Connector {
	list := slices.Clone(walks)
	for _, w := range approach.Ways {
		list = append(list, Connector{Option{w.ID, w.Name(), "into the note that follows"}, func(s score.Score, _ blend.Palette, to score.Note, _, room int) []int {
			chord, sounds := s.ChordAt(to.Start)
			if room < len(w.Steps) || !sounds {
				return nil
			}
			return w.To(to.Heard(), chord)
		}})
	}
	return list
}

// stepwise counts back from a pitch towards where the line comes from, over the notes that
// belong, and stops before it gets there.
func stepwise(to, from, room int, belongs func(midi int) bool) (out []int) {
	by := -1
	if from > to {
		by = 1
	}
	for midi := to + by; len(out) < room && size(midi-to) <= 12; midi += by {
		if midi == from {
			break
		}
		if belongs(midi) {
			out = append(out, midi)
		}
	}
	slices.Reverse(out)
	return out
}

// Lead is what a connector plays before a note: its pitches and rhythm, and no places yet.
type Lead struct {
	Notes     []score.Note
	From      int // the notes from this index up to the one it leads into give way; it is the index itself where none do
	Shortened int // how long the note before lasts then, in ticks
}

// Connect leads into the note at an index from the note before it, in eighths. Where there
// is no room, what begins in the beat before gives way, but no landing of a change. ok is
// false where there is no room then either, or nothing to lead by.
func (c Connector) Connect(s score.Score, p blend.Palette, i int) (lead Lead, ok bool) {
	const step = score.Tick / 2
	to := s.Notes[i]
	for lead.From = i; ; {
		before := lead.From - 1
		first, from := max(to.Start-2*score.Tick, -s.MostPickup()), to.Heard()+5
		if before >= 0 {
			from = s.Notes[before].Heard()
			first = max(first, s.Notes[before].Start+min(s.Notes[before].Length, step))
		}
		pitches := c.lead(s, p, to, from, (to.Start-first)/step)
		if n := len(pitches); n > 0 && to.Bend > 1 && pitches[n-1] == to.Pitch.MIDI() {
			return lead, false // what it is bent from does not lead to it
		}
		if len(pitches) > 0 {
			at := to.Start - len(pitches)*step
			for _, midi := range pitches {
				chord, _ := s.ChordAt(at)
				lead.Notes = append(lead.Notes, score.Note{Start: at, Length: step, Pitch: pitch.At(midi, spelled(s, Wish{Palette: p}, chord, midi, to.Heard()))})
				at += step
			}
			if before >= 0 {
				lead.Shortened = min(s.Notes[before].Length, lead.Notes[0].Start-s.Notes[before].Start)
			}
			return lead, true
		}
		if before < 0 || s.Notes[before].Start < to.Start-score.Tick || s.Change(s.Notes[before].Start) {
			return lead, false
		}
		for lead.From = before; lead.From > 0 && s.Notes[lead.From-1].Start == s.Notes[before].Start; {
			lead.From--
		}
	}
}

// ConnectorByID finds a connector.
func ConnectorByID(id string) (Connector, bool) {
	i := slices.IndexFunc(Connectors, func(c Connector) bool { return c.ID == id })
	if i < 0 {
		return Connector{}, false
	}
	return Connectors[i], true
}
