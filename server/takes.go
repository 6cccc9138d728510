package server

import (
	"cmp"
	"context"

	"undaris/core/band"
	"undaris/core/judge"
	"undaris/store"
)

// HeardNote is a note as it was heard.
type HeardNote = store.HeardNote

// Take is how a line was played.
type Take struct {
	Verdicts  []Verdict     `json:"verdicts" doc:"of every note of the line"`
	Strangers int           `json:"strangers" doc:"heard, and not to be played"`
	Landings  []TakeLanding `json:"landings" doc:"of every change on which a note was to be played"`
	Tendency  float64       `json:"tendency" doc:"milliseconds late as a whole; early where negative"`
	Spread    float64       `json:"spread" doc:"milliseconds, the middle distance from that"`
	Heard     int           `json:"heard" doc:"notes of the line that were"`
	Good      string        `json:"good"`
	Try       string        `json:"try"`
	Partial   bool          `json:"partial,omitempty" doc:"it was stopped before its end, or begun in the middle; what was not reached is not judged"`
}

// PlayedSpan is how far a pass was played.
type PlayedSpan struct {
	From float64 `json:"from" minimum:"-1000000" maximum:"10000000" doc:"ticks"`
	To   float64 `json:"to" minimum:"-1000000" maximum:"10000000"`
}

func (p *PlayedSpan) core() judge.Span {
	if p == nil {
		return judge.Span{}
	}
	return judge.Span{From: p.From, To: p.To}
}

// Verdict is on one note.
type Verdict struct {
	Note  int     `json:"note" doc:"its number"`
	Is    string  `json:"is" enum:"right,another octave,wrong note,not heard"`
	When  string  `json:"when,omitempty" enum:"on time,early,late"`
	Off   float64 `json:"off" doc:"milliseconds late, without the take's tendency"`
	Bend  string  `json:"bend,omitempty" enum:"true,flat,sharp"`
	Cents float64 `json:"cents,omitempty" doc:"that a bend is off"`
	Says  string  `json:"says"`
}

// TakeLanding is what became of one change in a take.
type TakeLanding struct {
	At     int    `json:"at" doc:"ticks"`
	Chord  string `json:"chord"`
	Degree string `json:"degree,omitempty"`
	Note   int    `json:"note"`
	Landed bool   `json:"landed"`
}

// played judges what of a line was played.
func (o lineIn) played(heard []judge.Heard, of judge.Span, tempo int, swing float64) Take {
	now := o
	var whole bool
	now.Score, whole = of.Of(o.Score)
	t := now.take(judge.Prescribed(now.Score, heard, tempo, swing))
	t.Partial = !whole
	return t
}

func (o lineIn) take(t judge.Take) Take {
	id := func(i int) int { return o.Notes[i].ID }
	w := Take{Strangers: len(t.Strangers), Tendency: tenth(t.Tendency), Spread: tenth(t.Spread), Heard: t.Heard, Good: t.Good, Try: t.Try, Verdicts: each(t.Verdicts, wireVerdict)}
	for i := range w.Verdicts {
		w.Verdicts[i].Note = id(i)
	}
	w.Landings = each(t.Landings, func(l judge.Landing) TakeLanding {
		return TakeLanding{l.At, l.Chord.String(), string(l.Degree), id(l.Note), l.Landed()}
	})
	return w
}

func wireVerdict(v judge.Verdict) Verdict {
	return Verdict{Is: v.Is, When: v.When, Off: tenth(v.Off), Bend: v.Bend, Cents: tenth(v.Cents), Says: v.Says()}
}

// swing is where the second eighths of a line fall at a tempo.
func (o lineIn) swing(asked float64, tempo int) float64 {
	g, err := band.GrooveOf(o.Feel)
	if err != nil {
		return cmp.Or(asked, 0.5)
	}
	return cmp.Or(asked, g.Eighths(cmp.Or(tempo, o.Tempo)))
}

// Played is a line as it was played.
type Played struct {
	LineAsk
	Tempo int     `json:"tempo,omitempty" minimum:"0" maximum:"300" doc:"that it was played at; 0 is the line's own"`
	Swing float64 `json:"swing,omitempty" minimum:"0" maximum:"0.75" doc:"of the band; 0 is the feel's own"`
}

// JudgeAsk is what was heard of it.
type JudgeAsk struct {
	Played
	Heard []HeardNote `json:"heard" maxItems:"4096"`
	Span  *PlayedSpan `json:"played,omitempty" doc:"how far; all of it where it is not said"`
}

func judgeLine(_ context.Context, _ *server, o lineIn, q JudgeAsk) (Take, error) {
	heard := each(q.Heard, func(h HeardNote) judge.Heard { return judge.Heard(h) })
	return o.played(heard, q.Span.core(), cmp.Or(q.Tempo, o.Tempo), o.swing(q.Swing, q.Tempo)), nil
}

// SimulateAsk is what the simulated player is like.
type SimulateAsk struct {
	Played
	Wrong    float64 `json:"wrong,omitempty" minimum:"0" maximum:"1" doc:"how often a neighbouring note is played"`
	Late     float64 `json:"late,omitempty" minimum:"0" maximum:"1" doc:"how often a landing comes late"`
	Missed   float64 `json:"missed,omitempty" minimum:"0" maximum:"1"`
	Bad      float64 `json:"bad,omitempty" minimum:"0" maximum:"1" doc:"how often a bend is flat or sharp"`
	Spread   float64 `json:"spread,omitempty" minimum:"0" maximum:"200" doc:"milliseconds that onsets scatter"`
	Tendency float64 `json:"tendency,omitempty" minimum:"-200" maximum:"200" doc:"milliseconds late as a whole"`
	Seed     uint64  `json:"seed,omitempty"`
}

func simulateLine(_ context.Context, _ *server, o lineIn, q SimulateAsk) ([]HeardNote, error) {
	heard, _ := judge.Player{Wrong: q.Wrong, Late: q.Late, Missed: q.Missed, Bad: q.Bad, Spread: q.Spread, Tendency: q.Tendency, Seed: q.Seed}.
		Play(o.Score, cmp.Or(q.Tempo, o.Tempo), o.swing(q.Swing, q.Tempo))
	return each(heard, func(h judge.Heard) HeardNote { return HeardNote(h) }), nil
}
