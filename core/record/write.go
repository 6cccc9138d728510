package record

import (
	"math"
	"slices"

	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Guess is a note that was heard.
type Guess struct {
	ID             int
	At, Length     float64 // seconds
	Pitch          int     // MIDI number where it is fretted
	Bend           float64 // half steps that it is bent up by
	Join           score.Join
	Vibrato        bool
	Sure           float64 // 0 to 1
	Settled        bool    // its player says that it is right
	neck.Placement         // where its player has it; string 0 lets the hand decide
}

// Ground is what a recording is laid over.
type Ground struct {
	Grid   Grid
	Chords form.Progression // what its bars hold
	First  int              // the bar of them, from 0, that begins with beat 0 of the grid
	Rounds bool             // they go round, as a chart's do; else there is silence before and after
	Key    form.Key
	Feel   string // an ID of form.Feels; "" is not known
	In     *neck.Instrument
	Hand   neck.Hand
	Region neck.Region // the position that its player is in; none where both its frets are 0
}

// Bar is a bar of the recording: which of the chart it is and what it holds.
type Bar struct {
	Number int // of the recording, from 0; negative before the first
	Of     int // bar of the chart, from 0; -1 is none
	Beat   int // at which it begins
	At, To float64
	form.Bar
}

// MostBars is how many bars of a recording are looked at at once.
const MostBars = 64

// of is the bar of the chords that a bar of the recording is; -1 is none.
func (g Ground) of(bar int) int {
	n := len(g.Chords.Bars)
	at := g.First + bar
	switch {
	case n == 0:
		return -1
	case g.Rounds:
		return ((at % n) + n) % n
	case at < 0 || at >= n:
		return -1
	}
	return at
}

// Bars are those that a stretch lies in, or touches by more than a sliver: [form.MaxBars] at most.
func (g Ground) Bars(from, to float64) (out []Bar) {
	const sliver = 0.15 // of a beat
	if !g.Grid.Known() || to <= from {
		return nil
	}
	per := max(1, g.Grid.PerBar)
	last := max(g.Grid.Bar(g.Grid.Beat(to)-sliver), g.Grid.Bar(g.Grid.Beat(from)+sliver))
	for n := g.Grid.Bar(g.Grid.Beat(from) + sliver); n <= last && len(out) < form.MaxBars; n++ {
		b := Bar{Number: n, Of: g.of(n), Beat: n * per, At: g.Grid.At(float64(n * per)), To: g.Grid.At(float64((n + 1) * per))}
		b.Bar = form.Bar{Changes: []form.Change{{Chord: harmony.Chord{None: true}}}}
		if b.Of >= 0 {
			b.Bar = g.Chords.Bars[b.Of]
			b.Changes = slices.DeleteFunc(slices.Clone(b.Changes), func(c form.Change) bool { return c.Beat >= per })
			b.Beats = 0 // the recording's bars are as long as the grid says
		}
		b.Written, b.Pass, b.Row = 0, 0, false
		out = append(out, b)
	}
	return out
}

// ErrNoBeat is said where notes are to be written and nobody knows where beats fall.
var ErrNoBeat = say.Errorf("where the beats fall is not known yet: have them found, or tap them while it plays")

// ErrTooLong is said of a stretch of too many bars.
var ErrTooLong = say.Errorf("a stretch of at most %d bars can be looked at at once; take a shorter one in hand", MostBars)

// Line writes the notes of a stretch down over its chords, each with its guess's number: to the nearest place in the beat
// that is written, where a hand takes them that plays the whole phrase. What its player said of a place stands. What the
// neck does not hold is left out, and said.
func (g Ground) Line(title string, from, to float64, guesses []Guess) (edit.Line, []Bar, error) {
	if !g.Grid.Known() {
		return edit.Line{}, nil, ErrNoBeat
	}
	bars := g.Bars(from, to)
	if len(bars) == 0 {
		return edit.Line{}, nil, say.Errorf("the stretch is too short to hold a beat")
	}
	if len(bars) > MostBars {
		return edit.Line{}, bars, ErrTooLong
	}
	tempo := int(math.Round(g.Grid.Tempo((from + to) / 2)))
	s := score.Score{Title: title, Key: g.Key, Tempo: min(form.MaxTempo, max(form.MinTempo, tempo)), Feel: g.Feel, In: g.In,
		Progression: form.Progression{Beats: max(form.MinBeats, g.Grid.PerBar)}}
	for _, b := range bars {
		s.Bars = append(s.Bars, b.Bar)
	}
	s.Bars = carried(s.Bars)
	l := edit.Line{Score: s, Hand: g.Hand, Feel: g.Feel}
	origin := float64(bars[0].Beat)
	tick := func(at float64) int { return int(math.Round((g.Grid.Beat(at) - origin) * score.Tick)) }
	lost := 0
	whole := neck.Region{Low: 0, High: g.In.Last()}
	for _, x := range within(guesses, bars[0].At, bars[len(bars)-1].To) {
		if len(g.In.Find(x.Pitch, whole)) == 0 {
			lost++
			continue
		}
		at := max(0, tick(x.At))
		n := score.Note{ID: x.ID, Start: at, Length: max(1, tick(x.At+x.Length)-at), Placement: x.Placement}
		n.Pitch = pitch.At(x.Pitch, l.Spell(at, x.Pitch))
		n.Ornaments = score.Ornaments{Bend: int(math.Round(2 * x.Bend)), Join: x.Join, Vibrato: x.Vibrato}
		n.JoinGuessed = !x.Settled && x.Join != score.Picked
		l.Notes = append(l.Notes, n)
	}
	score.Sort(l.Notes)
	for i := range l.Notes { // a note lasts until the next, where it rings on
		if i+1 < len(l.Notes) && l.Notes[i+1].Start > l.Notes[i].Start {
			l.Notes[i].Length = max(1, min(l.Notes[i].Length, l.Notes[i+1].Start-l.Notes[i].Start))
		}
	}
	if g.Feel != form.InThrees {
		l.Swing = score.Unswing(l.Notes)
	}
	l.Notes = apart(score.InTime(l.Notes, s.End()))
	score.Sort(l.Notes)
	for i := range l.Notes {
		n := &l.Notes[i]
		n.Pitch = pitch.At(n.Pitch.MIDI(), l.Spell(n.Start, n.Pitch.MIDI()))
	}
	lost += g.place(&l)
	out, err := edit.Import(l.Score, nil, score.Score{In: g.In}, g.Hand)
	if err != nil {
		return out, bars, err
	}
	out.Feel, out.Said = g.Feel, slices.DeleteFunc(out.Said, func(text string) bool { return text == edit.WithoutChords })
	if g.Region.High > 0 {
		out.Region = g.Region
	}
	out.Respell() // as a melody is spelled: what leads up is raised
	for i := range out.Notes {
		out.Notes[i].RhythmGuessed = false // when it was played is known
	}
	if lost += len(l.Notes) - len(out.Notes); lost > 0 {
		out.Said = append(out.Said, say.F("notes that this neck and hand do not hold where they were heard: %d; they are left out of what is written", lost))
	}
	return out, bars, nil
}

// carried gives a chord that goes on to bars without one before the first change; a score needs one in each.
func carried(bars []form.Bar) []form.Bar {
	out := slices.Clone(bars)
	for i, b := range out {
		if len(b.Changes) == 0 {
			b.Changes = []form.Change{{Chord: harmony.Chord{None: true}}}
			if i > 0 {
				before := out[i-1].Changes
				b.Changes[0].Chord = before[len(before)-1].Chord
			}
			out[i] = b
		}
	}
	return out
}

// within are the guesses that begin in a stretch, in order of time.
func within(guesses []Guess, from, to float64) []Guess {
	const early = 0.08 // seconds that a first note may come before its bar
	var out []Guess
	for _, x := range guesses {
		if x.At >= from-early && x.At < to {
			out = append(out, x)
		}
	}
	slices.SortStableFunc(out, func(a, b Guess) int {
		switch {
		case a.At < b.At:
			return -1
		case a.At > b.At:
			return 1
		}
		return a.Pitch - b.Pitch
	})
	return out
}

// apart keeps notes of one pitch from beginning at the same time: the first stays.
func apart(notes []score.Note) []score.Note {
	known := map[[2]int]bool{}
	return slices.DeleteFunc(notes, func(n score.Note) bool {
		k := [2]int{n.Start, n.Pitch.MIDI()}
		was := known[k]
		known[k] = true
		return was
	})
}

// place has a hand take the whole phrase: in its player's position where that holds it, else anywhere; what was said of a
// place stands. It tells how many notes had to go.
func (g Ground) place(l *edit.Line) (lost int) {
	prefer := make([]int, len(l.Notes))
	fixed := false
	for i, n := range l.Notes {
		if n.String > 0 && g.In.CheckPlacement(n.Placement) == nil && g.In.MIDI(n.Placement) == n.Pitch.MIDI() {
			prefer[i], fixed = n.String, true
		}
	}
	if !fixed {
		prefer = nil
	}
	whole := neck.Region{Low: 0, High: g.In.Last()}
	regions := []neck.Region{whole}
	if g.Region.High > 0 {
		regions = []neck.Region{g.Region, whole}
	}
	for _, r := range regions {
		if _, _, ok := score.Place(g.In, l.Notes, r, g.Hand, prefer); ok {
			return 0
		}
	}
	// No hand takes all of it: note by note, what can follow the last.
	var kept []score.Note
	var wish []int
	for i, n := range l.Notes {
		some, like := append(slices.Clone(kept), n), append(slices.Clone(wish), 0)
		if prefer != nil {
			like[len(like)-1] = prefer[i]
		}
		from := max(0, len(some)-12) // what is further back no longer matters
		if _, _, ok := score.Place(g.In, some[from:], whole, g.Hand, like[from:]); ok {
			kept, wish = some, like
		} else {
			lost++
		}
	}
	l.Notes = kept
	return lost
}
