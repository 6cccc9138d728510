package lick

import (
	"math"
	"strings"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/core/score"
)

// Hardness tells how hard a lick is to play, in its easiest place on a guitar, over a
// chord on C.
type Hardness struct {
	Level  float64 // 1 to 10
	Rate   float64 // strokes a second at [UsualTempo]: what sounds together is one, what is slurred or slid to none
	Reach  float64 // millimetres: the widest between notes that follow each other closely
	Shifts int     // of the hand along the neck
	Skips  int     // strings jumped over
	Bends  int     // bent notes, curls not counted
	Says   string  // what the level comes from
}

// UsualTempo is what licks are measured at, in beats a minute.
const UsualTempo = 96

// What makes a lick harder: a level for so much of it. Reach counts from where it is felt.
const (
	perNote  = 0.55 // of strokes, a second
	perReach = 0.05 // a millimetre beyond easy
	easy     = 70.0 // millimetres
	perShift = 0.8
	perSkip  = 0.45
	perBend  = 0.5
	anchored = 2 // frets that the first finger moves by without a shift
)

// Hardness measures the lick; ok is false where it cannot be played on a guitar.
func (l Lick) Hardness() (h Hardness, ok bool) {
	symbol := "C" + l.Chord
	chord, err := harmony.Parse(symbol)
	if err != nil || len(l.Notes) == 0 {
		return h, false
	}
	in := neck.Standard()
	var notes []score.Note
	for _, r := range []neck.Region{{Low: 7, High: 11}, {Low: 5, High: 12}, {Low: 2, High: 17}} {
		if notes, err = l.Realise(chord, 0, Ground{In: in, Region: r, Hand: neck.UsualHand}); err == nil {
			break
		}
	}
	if err != nil {
		return h, false
	}
	first, last := l.Notes[0].Start, l.End()
	strokes := 0
	for i, n := range notes {
		if (i == 0 || n.Start > notes[i-1].Start) && n.Join == score.Picked {
			strokes++
		}
	}
	h.Rate = float64(strokes) / (float64(last-first) / score.Tick) * UsualTempo / 60
	anchor := -1
	touches := score.Hands(in, notes, neck.UsualHand)
	for i, n := range notes {
		if n.Bend > 1 {
			h.Bends++
		}
		together := i > 0 && n.Start == notes[i-1].Start // under one barre, or one grip
		if n.Fret > 0 && touches != nil && !together {
			at := touches[i].Hand
			if anchor >= 0 && max(at-anchor, anchor-at) > anchored {
				h.Shifts++
			}
			anchor = at
		}
		if i == 0 {
			continue
		}
		b := notes[i-1]
		if n.Fret > 0 && b.Fret > 0 && n.Start-b.Start <= score.Tick {
			h.Reach = math.Max(h.Reach, in.Reach(n.Fret, b.Fret))
		}
		if n.Start > b.Start {
			h.Skips += max(0, max(n.String-b.String, b.String-n.String)-1)
		}
	}
	level := 1 + perNote*math.Max(0, h.Rate-1) + perReach*math.Max(0, h.Reach-easy) + perShift*float64(h.Shifts) + perSkip*float64(h.Skips) + perBend*float64(h.Bends)
	h.Level = math.Round(10*math.Min(10, level)) / 10
	h.Says = h.says()
	return h, true
}

func (h Hardness) says() string {
	parts := []string{say.F("%.1f strokes a second at %d", h.Rate, UsualTempo), say.F("a reach of %.0f mm", h.Reach)}
	for _, p := range []struct {
		n         int
		one, many string
	}{{h.Shifts, "a shift", "shifts"}, {h.Skips, "a string jumped over", "strings jumped over"}, {h.Bends, "a bend", "bends"}} {
		switch {
		case p.n == 1:
			parts = append(parts, p.one)
		case p.n > 1:
			parts = append(parts, say.F("%d %s", p.n, p.many))
		}
	}
	return strings.Join(parts, ", ")
}

// Begins tells where in its bar of four a lick begins: "1", "and of 2", "pickup on 4".
func (l Lick) Begins() string {
	if len(l.Notes) == 0 {
		return ""
	}
	start := l.Notes[0].Start
	at := (start%(4*score.Tick) + 4*score.Tick) % (4 * score.Tick)
	beat, off := at/score.Tick+1, at%score.Tick
	text := say.F("%d", beat)
	switch {
	case off == score.Tick/2:
		text = "and of " + text
	case off > 0:
		text = "after " + text
	}
	switch {
	case start >= 0:
		return text
	case off > 0:
		return "pickup, " + text
	}
	return "pickup on " + text
}

// Breathes tells whether a lick has a rest inside.
func (l Lick) Breathes() bool {
	end := math.MinInt
	for _, n := range l.Notes {
		if end != math.MinInt && n.Start > end {
			return true
		}
		end = max(end, n.Start+n.Length)
	}
	return false
}
