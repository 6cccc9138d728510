package chart

import (
	"context"

	"undaris/core/arpeggio"
	"undaris/core/band"
	"undaris/core/crossing"
	"undaris/core/exercise"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/core/score"
)

// What of a chart can be written down.
const (
	OfRun      = "run"
	OfCrossing = "crossing"
	OfThread   = "thread"
	OfChords   = "chords" // and nothing over them
)

// ErrNoStep is returned for a chord that the chart does not have.
var ErrNoStep = say.Errorf("the chart has no such chord")

// ErrEmpty is returned where nothing of what was asked for lies in the window.
var ErrEmpty = say.Errorf("nothing of it lies in this window")

// Paper writes the run of a chord, the crossing from it, or the thread of the
// chart, in a window. step is the chord, counted from 0 through the form.
func (c Chart) Paper(ctx context.Context, of string, step int, w neck.Region) (score.Score, error) {
	out := score.Score{Title: c.Title, Key: c.Key, Tempo: c.Tempo, Swing: c.Swing, In: c.In}
	places := c.Solo.Places()
	if step < 0 || step >= len(places) {
		return out, ErrNoStep
	}
	chord := places[step].Chord
	switch of {
	case OfRun:
		out.Title += " · " + chord.String()
		out.Progression, out.Notes = exercise.Run(arpeggio.Make(c.In, chord, w, c.Hand, c.Plan.picks(w)), c.Solo.Beats)
	case OfCrossing:
		next := following(places, step)
		out.Title += " · " + chord.String() + " to " + next.String()
		moves := crossing.Between(c.In, chord, next, w, c.Plan.By)
		out.Progression, out.Notes = exercise.Crossing(c.In, chord, next, moves, c.Solo.Beats, c.Hand)
	case OfChords:
		out.Progression = c.Band
	default:
		thread, err := c.Thread(ctx, w)
		if err != nil {
			return out, err
		}
		var first []crossing.Target
		for _, t := range thread.Targets {
			if t.Chorus == 0 {
				first = append(first, t.Target)
			}
		}
		out.Progression, out.Notes = c.Solo, exercise.Thread(c.In, c.Solo, first, c.Hand)
	}
	if len(out.Bars) == 0 {
		return out, ErrEmpty
	}
	return out, nil
}

// Lead is a thread as it is played over choruses: a note nearly as long as its
// chord.
func (c Chart) Lead(t Thread, choruses int) (lead []band.Note) {
	per := 1
	for _, g := range t.Targets {
		per = max(per, g.Chorus+1)
	}
	places := c.Solo.Places()
	beats := c.Solo.Length()
	for chorus := range choruses {
		for _, g := range t.Targets {
			if g.Chorus == chorus%per {
				p := places[g.Step]
				start := (chorus*beats + c.Solo.BeatOf(p)) * band.Tick
				lead = append(lead, band.Note{Start: start, Length: p.Length*band.Tick - band.Tick/12, MIDI: g.MIDI})
			}
		}
	}
	return lead
}

// following is the next chord that differs, round the form.
func following(places []form.Place, step int) harmony.Chord {
	for i := 1; i < len(places); i++ {
		if p := places[(step+i)%len(places)]; p.Chord.String() != places[step].Chord.String() {
			return p.Chord
		}
	}
	return places[step].Chord
}
