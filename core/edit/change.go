package edit

import (
	"context"
	"errors"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/score"
)

// Fix is a line with which a change lands.
type Fix struct {
	lick.Proposal
	Line Line
}

// ErrNoBeat is returned for a tick outside the line.
var ErrNoBeat = errors.New("there is no such beat in this line")

// Fixes finds the phrase that leads to a change and proposes how it may land, the
// smallest edit first; why is the reason when there is none.
func (l Line) Fixes(ctx context.Context, tick int) (fixes []Fix, why string, err error) {
	if tick < 0 || tick >= len(l.Bars)*l.Bar() {
		return nil, "", ErrNoBeat
	}
	chord, _ := l.ChordAt(tick)
	from, to := l.phraseInto(tick)
	landing := lick.Landing{At: tick, Chord: chord, Key: l.Key.Spell, Ground: l.ground(false)}
	proposals, why := landing.Fit(ctx, l.Notes[from:to])
	for _, p := range proposals {
		fixed := l
		fixed.Notes = append(append([]score.Note(nil), l.Notes[:from]...), p.Notes...)
		end := fixed.Notes[len(fixed.Notes)-1].End()
		for _, n := range l.Notes[to:] { // what the longer phrase now covers gives way
			if n.Start >= end || n.Start > tick {
				fixed.Notes = append(fixed.Notes, n)
			}
		}
		score.Sort(fixed.Notes)
		lick.Separate(fixed.Notes, len(l.Bars)*l.Bar())
		if fixed.Notes[0].Start < -l.Bar() || fixed.Check() != nil {
			continue
		}
		score.Finger(l.In, fixed.Notes, l.Hand)
		lick.Label(fixed.Score)
		fixes = append(fixes, Fix{p, fixed})
	}
	return fixes, why, ctx.Err()
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
var ErrSilent = errors.New("the band is silent there")

// PutLick lays a lick at a bar, counted from 1, over the chord that sounds there,
// in place of what stood there.
func (l *Line) PutLick(k lick.Lick, bar int, follow bool) error {
	if err := l.CheckBars(bar, bar); err != nil {
		return err
	}
	at := (bar - 1) * l.Bar()
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
	total := len(l.Bars) * l.Bar()
	first, last := notes[0].Start, min(total, at+k.End())
	var kept []score.Note
	for _, n := range l.Notes {
		if n.Start < first || n.Start >= last {
			kept = append(kept, n)
		}
	}
	for _, n := range notes {
		if n.Start < total && n.Start >= -l.Bar() {
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
	if low := l.Window.Low + frets; shape && frets == 0 && key.Tonic.Class() != l.Key.Tonic.Class() {
		out.say("the shape runs off the neck either way; places were found where the hand is")
	} else if w := (neck.Window{Low: low, High: l.Window.High + frets}); l.In.CheckWindow(w) == nil {
		out.Window = w
	}
	out.Score = sc
	out.LeaveOut()
	if err := out.Settle(); err != nil {
		return l, err
	}
	if beyond := out.Outside(); !shape && beyond > 0 {
		out.say("beyond frets %[3]d to %[4]d in this key: %[1]d of %[2]d notes; the hand goes where they lie", beyond, len(out.Notes), out.Window.Low, out.Window.High)
		out.Window = Around(out.Score)
	}
	lick.Label(out.Score)
	return out, nil
}
