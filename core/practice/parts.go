package practice

import (
	"context"
	"slices"

	"undaris/core/blend"
	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/lick"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Part is what a mode writes down: what the band plays first, and what the player is
// to play.
type Part struct{ Band, Own []score.Note }

// Ask is what a player chose for a mode that writes.
type Ask struct {
	Lick lick.Lick    // of a mode that takes one
	Tune []score.Note // of a mode that takes one: over the chart as it is
	Seed uint64       // the same seed writes the same
	Easy bool         // what is easier on the hand, of a mode that has such a choice
}

// Line is a mode's part, laid on the neck: the band's lead, and the line to be
// played. Both are lines over the mode's own chords.
func (m Mode) Line(ctx context.Context, over edit.Line, a Ask) (band, own edit.Line, err error) {
	part, err := m.part(ctx, over, a)
	if err != nil {
		return band, own, err
	}
	band, own = over, over
	band.Notes, own.Notes = score.Numbered(part.Band), score.Numbered(part.Own)
	lick.Label(own.Score)
	return band, own, own.Settle()
}

// fours is how many bars a phrase has that is answered.
const fours = 4

// answered has each four bars of a chart twice: once for the band, once for the player.
func answered(p form.Progression, _ form.Key) form.Progression {
	out := form.Progression{Beats: p.Beats}
	for from := 0; from < len(p.Bars); from += fours {
		bars := p.Bars[from:min(from+fours, len(p.Bars))]
		out.Bars = append(append(out.Bars, bars...), bars...)
	}
	return out
}

// trade writes a phrase over each four bars that are the band's; the player repeats
// it over the same chords.
func trade(ctx context.Context, over edit.Line, a Ask) (part Part, err error) {
	turns := turnsOver(over)
	locked := map[int]bool{}
	for _, t := range turns {
		for b := over.BarOf(t.from + t.by); b < over.BarOf(t.to+t.by); b++ {
			locked[b] = true
		}
	}
	over.Notes = nil
	w := line.Wish{Region: over.Region, Palette: over.Palette, Rule: over.Rule, Rhythm: "eighths", Density: 2, Seed: a.Seed, Locked: locked}
	notes, err := line.Write(ctx, over.Score, w, over.Hand)
	if err != nil {
		return part, err
	}
	return answers(turns, notes), nil
}

// turn is four bars, or what is left of a chart, that are the band's: where they begin
// and end in ticks, and how far behind they are answered.
type turn struct{ from, to, by int }

// turnsOver lists the turns of a ground on which each four bars come twice.
func turnsOver(over edit.Line) (turns []turn) {
	whole := len(over.Bars) / 2 // of the chart itself
	for done, bar := 0, 0; done < whole; {
		n := min(fours, whole-done)
		turns = append(turns, turn{over.At(bar), over.At(bar + n), over.At(bar+n) - over.At(bar)})
		done, bar = done+n, bar+2*n
	}
	return turns
}

// answers gives the band what begins in its turns, and has the player repeat it.
func answers(turns []turn, notes []score.Note) (part Part) {
	for _, n := range notes {
		i := slices.IndexFunc(turns, func(t turn) bool { return n.Start >= t.from && n.Start < t.to })
		if i < 0 {
			continue
		}
		n.Length = min(n.Length, turns[i].to-n.Start)
		part.Band = append(part.Band, n)
		n.Start += turns[i].by
		part.Own = append(part.Own, n)
	}
	return part
}

// tune has the band play a written tune four bars at a time; the player repeats each.
func tune(_ context.Context, over edit.Line, a Ask) (Part, error) {
	if len(a.Tune) == 0 {
		return Part{}, say.Errorf("choose a line to learn by ear")
	}
	turns := turnsOver(over)
	at := 0
	var notes []score.Note
	for _, t := range turns { // what lies on the chart comes to lie on the band's turns
		length := t.to - t.from
		for _, n := range a.Tune {
			if n.Start >= at && n.Start < at+length {
				n.Start += t.from - at
				notes = append(notes, n)
			}
		}
		at += length
	}
	return answers(turns, notes), nil
}

// through sends a lick through the changes, each version made to land on the next.
func through(ctx context.Context, over edit.Line, a Ask) (Part, error) {
	if len(a.Lick.Notes) == 0 {
		return Part{}, say.Errorf("choose a lick to send through the changes")
	}
	err := over.Through(ctx, a.Lick, edit.Sending{Land: true, Follow: true})
	return Part{Own: over.Notes}, err
}

// bends asks for a chord tone in each bar, first fretted and then bent to.
func bends(_ context.Context, over edit.Line, a Ask) (part Part, err error) {
	for bar := range over.Bars {
		at := over.At(bar)
		chord, sounds := over.ChordAt(at)
		if !sounds {
			continue
		}
		found := bentTo(over, chord)
		if a.Easy {
			found = slices.DeleteFunc(found, func(b bent) bool { return b.by > 1 })
		}
		if len(found) == 0 {
			continue
		}
		length := over.BarTicks(bar)
		half := (length/score.Tick + 1) / 2 * score.Tick
		if length == score.Tick {
			half = length / 2
		}
		b := found[(uint64(bar)+a.Seed)%uint64(len(found))]
		goal := pitch.At(over.In.MIDI(b.goal), b.tone.Name)
		midi := over.In.MIDI(b.from)
		part.Own = append(part.Own,
			score.Note{Start: at, Length: half, Pitch: goal, Placement: b.goal},
			score.Note{Start: at + half, Length: length - half, Pitch: pitch.At(midi, over.Spell(at, midi)), Placement: b.from, Ornaments: score.Ornaments{Bend: 2 * b.by}})
	}
	if len(part.Own) == 0 {
		return part, say.Errorf("no string can be bent to a chord tone in %s; choose a place higher up, on plain strings", over.Region.Says())
	}
	return part, nil
}

// bent is a place from which a chord tone is reached by a bend, and where that lies.
type bent struct {
	from, goal neck.Placement
	by         int // half steps
	tone       harmony.Tone
}

// bentTo lists the bends to a chord's tones on the three plain strings, whole steps
// first: from the window, with the goal in it or a hand's width beyond.
func bentTo(over edit.Line, chord harmony.Chord) (found []bent) {
	w := over.Region
	wide := neck.Region{Low: max(1, w.Low), High: min(over.In.Last(), w.High+3), Strings: w.Strings}
	for _, by := range []int{2, 1} {
		for s := 1; s <= min(3, over.In.Strings()); s++ {
			for fret := max(1, w.Low); fret <= w.High; fret++ {
				from := neck.Placement{String: s, Fret: fret}
				tone, ok := chord.ToneAt((over.In.MIDI(from) + by) % 12)
				if !ok || !w.Has(from) || blend.Limit(over.In, from, false) < by {
					continue
				}
				for _, goal := range over.In.Find(over.In.MIDI(from)+by, wide) {
					if goal.Fret > 0 {
						found = append(found, bent{from, goal, by, tone})
						break
					}
				}
			}
		}
	}
	return found
}

// Prescribed judges a pass in which something written was to be played: chord by
// chord, each of which counts when every note of it is right and in time.
func Prescribed(l edit.Line, heard []judge.Heard, tempo int, swing float64) (Free, error) {
	heard = judge.InOrder(heard)
	take := judge.Prescribed(l.Score, heard, tempo, swing)
	own, err := Written(l, heard, swing)
	if err != nil {
		return Free{}, err
	}
	f := Free{Line: own, Good: take.Good, Try: take.Try, Lost: take.Lost}
	places := l.Places()
	for i, p := range places {
		at, end := l.At(p.Bar)+p.Beat*score.Tick, l.End()
		if i+1 < len(places) {
			end = l.At(places[i+1].Bar) + places[i+1].Beat*score.Tick
		}
		landing := Landing{Landing: line.Landing{At: at, Chord: p.Chord, Note: -1}, End: end, Counts: true}
		right, of := 0, 0
		for k, n := range l.Notes {
			if n.Start < at || n.Start >= end {
				continue
			}
			of++
			if v := take.Verdicts[k]; v.Good() {
				right++
			} else if landing.Counts {
				landing.Counts, landing.When, landing.Says = false, v.Word(), v.Says()
			}
		}
		if of == 0 {
			continue // the band's own, or nobody's
		}
		for _, k := range take.Strangers {
			if h := heard[k].At; h >= float64(at) && h < float64(end) {
				f.Outside++
			}
		}
		if landing.Counts {
			landing.When, landing.Says = "right", "every note is right and in time"
		} else if of > 1 {
			landing.Says = say.F("%d of %d notes are right; the first that is not: %s", right, of, landing.Says)
		}
		f.Landings = append(f.Landings, landing)
	}
	return f, nil
}
