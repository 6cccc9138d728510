package edit

import (
	"context"
	"slices"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/core/score"
)

// Fix is an edit with which a change lands: notes that go, by their numbers, and
// notes that come or change. What lies around them stays as it is.
type Fix struct {
	Says []string
	Cost float64
	Gone []int
	Put  []score.Note
}

// Apply is the line with the edit.
func (l Line) Apply(f Fix) Line {
	put := map[int]bool{}
	for _, n := range f.Put {
		put[n.ID] = true
	}
	notes := append([]score.Note(nil), f.Put...)
	for _, n := range l.Notes {
		if !put[n.ID] && !slices.Contains(f.Gone, n.ID) {
			notes = append(notes, n)
		}
	}
	score.Sort(notes)
	l.Notes = notes
	lick.Label(l.Score)
	return l
}

// ErrNoBeat is returned for a tick outside the line.
var ErrNoBeat = say.Errorf("there is no such beat in this line")

// around is how many notes on either side of a phrase are fingered with it.
const around = 8

// Fixes finds the phrase that leads to a change and proposes how it may land, the
// smallest edit first; why is the reason when there is none. Only the phrase and
// what lies around it is looked at, however long the line.
func (l Line) Fixes(ctx context.Context, tick int) (fixes []Fix, why string, err error) {
	if tick < 0 || tick >= l.End() {
		return nil, "", ErrNoBeat
	}
	l.Notes = score.Numbered(l.Notes)
	chord, _ := l.ChordAt(tick)
	from, to := l.phraseInto(tick)
	landing := lick.Landing{At: tick, Chord: chord, Key: l.Key.Spell, Ground: l.ground(false)}
	proposals, why := landing.Fit(ctx, l.Notes[from:to])
	near := l
	near.Notes = l.Notes[max(0, from-around):min(len(l.Notes), to+around)]
	fresh := 0
	for _, n := range l.Notes {
		fresh = max(fresh, n.ID)
	}
	for _, p := range proposals {
		if f, ok := near.fix(p, from-max(0, from-around), to-max(0, from-around), tick, fresh); ok {
			fixes = append(fixes, f)
		}
	}
	if len(fixes) == 0 && why == "" {
		why = "what would land there cannot be played together with what stands around it"
	}
	return fixes, why, ctx.Err()
}

// fix puts a proposal in place of the notes from one index up to another and tells
// what is different then. fresh is the highest number that is taken.
func (l Line) fix(p lick.Proposal, from, to, tick, fresh int) (f Fix, ok bool) {
	was := map[int]score.Note{}
	for _, n := range l.Notes {
		was[n.ID] = n
	}
	now := l
	now.Notes = append(slices.Clone(l.Notes[:from]), p.Notes...)
	end := p.Notes[len(p.Notes)-1].End()
	for _, n := range l.Notes[to:] { // what the longer phrase now covers gives way
		if n.Start >= end || n.Start > tick {
			now.Notes = append(now.Notes, n)
		}
	}
	score.Sort(now.Notes)
	lick.Separate(now.Notes, l.End())
	if now.Notes[0].Start < -l.MostPickup() || now.Check() != nil {
		return f, false
	}
	score.Finger(l.In, now.Notes, l.Hand)
	now.RespellNew(l.Notes)
	f = Fix{Says: p.Says, Cost: p.Cost}
	seen := map[int]bool{}
	for _, n := range now.Notes {
		if old, known := was[n.ID]; !known || seen[n.ID] {
			fresh++
			n.ID = fresh
		} else if seen[n.ID] = true; old == n {
			continue
		}
		f.Put = append(f.Put, n)
	}
	for _, n := range l.Notes {
		if !seen[n.ID] {
			f.Gone = append(f.Gone, n.ID)
		}
	}
	return f, true
}

// phraseInto are the notes of the phrase that comes to a tick: back to the last
// breath of half a beat, and on to the note nearest to the tick.
func (l Line) phraseInto(tick int) (from, to int) {
	for to < len(l.Notes) && l.Notes[to].Start <= tick+score.Tick/2 {
		to++
	}
	for to > 1 && l.Notes[to-1].Start > tick && tick-l.Notes[to-2].Start < l.Notes[to-1].Start-tick {
		to--
	}
	from = to
	for from > 0 && (from == to || l.Notes[from].Start-l.Notes[from-1].End() < score.Tick/2) && tick-l.Notes[from-1].Start <= 8*score.Tick {
		from--
	}
	return from, to
}

// ErrSilent is returned where a lick is to be put over bars without a chord.
var ErrSilent = say.Errorf("the band is silent there")

// PutLick lays a lick at a bar, counted from 1, over the chord that sounds there,
// in place of what stood there.
func (l *Line) PutLick(k lick.Lick, bar int, follow bool) error {
	if err := l.CheckBars(bar, bar); err != nil {
		return err
	}
	if bar == 0 { // which is all of them, elsewhere
		return say.Errorf("bar 0; the line has bars 1 to %d", len(l.Bars))
	}
	at := l.At(bar - 1)
	chord, sounds := l.ChordAt(at)
	if k.OfKey {
		chord, sounds = harmony.MustParse(l.Key.Tonic.String()+k.Chord), true
	}
	if !sounds {
		return ErrSilent
	}
	notes, err := k.Realise(chord, at, l.ground(follow))
	if err != nil {
		return err
	}
	for _, lost := range k.Lost(notes) {
		l.say("%s", lost)
	}
	total := l.End()
	first, last := notes[0].Start, min(total, at+k.End())
	var kept []score.Note
	for _, n := range l.Notes {
		if n.Start < first || n.Start >= last {
			kept = append(kept, n)
		}
	}
	for _, n := range notes {
		if n.Start < total && n.Start >= -l.MostPickup() {
			kept = append(kept, n)
		}
	}
	l.Notes = kept
	score.Sort(l.Notes)
	lick.Separate(l.Notes, total)
	score.Finger(l.In, l.Notes, l.Hand)
	lick.Label(l.Score)
	return nil
}

// Move takes a line to another key of its mode; its window goes with the hand.
func (l Line) Move(key form.Key, shape bool) (Line, error) {
	sc, frets := l.Score.Move(key, shape)
	out := l
	low, high := max(0, l.Region.Low+frets), min(l.In.Last(), l.Region.High+frets)
	if shape && frets == 0 && key.Tonic.Class() != l.Key.Tonic.Class() {
		out.say("the shape runs off the neck either way; places were found where the hand is")
	} else if w := (neck.Region{Low: low, High: high, Strings: l.Region.Strings}); l.In.CheckRegion(w) == nil {
		out.Region = w
	}
	out.Score = sc
	out.LeaveOut()
	if err := out.Settle(); err != nil {
		return l, err
	}
	if beyond := out.Outside(); !shape && beyond > 0 {
		out.say("beyond %[3]s in this key: %[1]d of %[2]d notes; the hand goes where they lie", beyond, len(out.Notes), out.Region.Says())
		out.Region = Around(out.Score)
	}
	lick.Label(out.Score)
	return out, nil
}
