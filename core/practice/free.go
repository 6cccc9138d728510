package practice

import (
	"cmp"
	"math"
	"slices"

	"undaris/core/edit"
	"undaris/core/judge"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Landing is what became of a change.
type Landing struct {
	line.Landing
	Counts bool // landed, on what the stage asks for
	End    int  // tick by which it is over
}

// Word tells it in a word or two.
func (l Landing) Word() string {
	if l.Landed() && !l.Counts {
		return "another tone"
	}
	return l.When
}

// Free is a take of what nobody wrote, judged.
type Free struct {
	Line      edit.Line // what was played, written down
	Report    line.Report
	Landings  []Landing
	Outside   int // notes that the stage does not allow
	Still     int // rests that were to sway, and did not
	Lost      []judge.Lost
	Held      []Held // limits beside what the stage asks
	Partial   bool   // it was stopped before its end, or begun in the middle; what was not reached is not judged
	played    judge.Span
	Good, Try string
}

// Written writes down what was heard over a line's chords, in its window where it
// fits; the line's own notes are left out. swing is where the second eighths fell.
// What lies nowhere on the neck is left out, and said.
func Written(over edit.Line, heard []judge.Heard, swing float64) (edit.Line, error) {
	s := over.Score
	s.Notes = nil
	end := s.End()
	heard = slices.Clone(heard)
	slices.SortStableFunc(heard, func(a, b judge.Heard) int { return cmp.Compare(a.At, b.At) })
	whole := neck.Region{Low: 0, High: s.In.Last()}
	for i, h := range heard {
		at, stop := int(score.Straight(h.At, swing)), int(score.Straight(h.At+max(h.Length, score.Tick/8), swing))
		midi := int(math.Round(h.Pitch))
		if i+1 < len(heard) && heard[i+1].At > h.At+score.Tick/16 {
			stop = min(stop, int(score.Straight(heard[i+1].At, swing)))
		}
		if at < -score.Tick/2 || at >= end-score.Tick/8 || len(s.In.Find(midi, whole)) == 0 {
			continue
		}
		at = max(0, at)
		s.Notes = append(s.Notes, score.Note{Start: at, Length: max(1, min(stop, end)-at), Pitch: pitch.At(midi, over.Spell(at, midi))})
	}
	s.Notes = together(over, score.InTime(s.Notes, end))
	for i, n := range s.Notes {
		s.Notes[i].Pitch = pitch.At(n.Pitch.MIDI(), over.Spell(n.Start, n.Pitch.MIDI()))
	}
	l, err := edit.Import(s, nil, score.Score{In: over.In}, over.Hand)
	if err != nil { // one hand holds each of them, but not one after the other: the highest stay
		s.Notes = highest(s.Notes)
		if l, err = edit.Import(s, nil, score.Score{In: over.In}, over.Hand); err != nil {
			return l, err
		}
	}
	l.Region, l.Palette, l.Rule, l.Feel, l.Said = over.Region, over.Palette, over.Rule, over.Feel, nil
	if lost := len(heard) - len(l.Notes); lost > 0 && len(heard) > 0 {
		l.Said = []string{say.F("%d of %d notes could not be written down", lost, len(heard))}
	}
	for i := range l.Notes {
		l.Notes[i].RhythmGuessed = false // where it was played is known
	}
	l.Notes = score.Numbered(l.Notes)
	return l, nil
}

// together leaves out what no hand can hold with what else begins at the same time.
func together(over edit.Line, notes []score.Note) (out []score.Note) {
	score.Sort(notes)
	whole := neck.Region{Low: 0, High: over.In.Last()}
	from := 0 // of what begins together, in out
	for _, n := range notes {
		if from = min(from, len(out)); from < len(out) && out[from].Start != n.Start {
			from = len(out)
		}
		group := append(slices.Clone(out[from:]), n)
		if len(group) > 1 {
			if _, _, ok := score.Place(over.In, group, whole, over.Hand, nil); !ok {
				continue
			}
		}
		out = append(out, n)
	}
	return out
}

// highest keeps of what begins together the highest note.
func highest(notes []score.Note) (out []score.Note) {
	for _, n := range notes {
		switch k := len(out) - 1; {
		case k < 0 || out[k].Start != n.Start:
			out = append(out, n)
		case n.Pitch.MIDI() > out[k].Pitch.MIDI():
			out[k] = n
		}
	}
	return out
}

// Judge judges a pass of free playing over a line's chords, at a tempo.
func Judge(over edit.Line, heard []judge.Heard, tempo int, swing float64, stage Stage) (Free, error) {
	l, err := Written(over, heard, swing)
	if err != nil {
		return Free{}, err
	}
	f := Free{Line: l, Report: line.Check(l.Score, l.Palette, l.Rule)}
	for _, landing := range f.Report.Landings {
		landing = stage.struck(punctual(landing, l, heard, tempo), l)
		f.Landings = append(f.Landings, Landing{landing, landing.Landed() && (stage.counts(landing.Chord, landing.Degree) || stage.leans(landing) || !stage.bears(landing.Chord)), landing.At})
	}
	for i, n := range l.Notes {
		if chord, ok := l.ChordAt(n.Start); ok && !stage.Play.allows(chord, f.Report.Notes[i]) {
			f.Outside++
		}
	}
	f.Lost = f.astray()
	f.tell(stage)
	return f, nil
}

// struck is a landing by what of it counts: of notes that are struck together one may, whichever lies on top.
func (s Stage) struck(landing line.Landing, l edit.Line) line.Landing {
	if !landing.Landed() || landing.Note < 0 || s.counts(landing.Chord, landing.Degree) {
		return landing
	}
	for _, n := range l.Notes {
		tone, is := landing.Chord.ToneAt(n.Heard() % 12)
		if is && n.Start == l.Notes[landing.Note].Start && s.counts(landing.Chord, tone.Degree) {
			landing.Degree, landing.Says = tone.Degree, say.F("%s; with it the %s", landing.Says, tone.Degree)
			return landing
		}
	}
	return landing
}

// punctual is a landing as it was played, judged by the clock as a written line's are: what is written on the beat, since no
// other place is nearer, may have come too late to be heard as on it, and what is written a sixteenth later as on it.
func punctual(landing line.Landing, l edit.Line, heard []judge.Heard, tempo int) line.Landing {
	if landing.When != line.OnTime && landing.When != line.Late || landing.Note < 0 || tempo <= 0 {
		return landing
	}
	off := math.Inf(1)
	for _, h := range heard {
		by := (h.At - float64(landing.At)) / score.Tick * 60000 / float64(tempo)
		if int(math.Round(h.Pitch)) == l.Notes[landing.Note].Pitch.MIDI() && math.Abs(by) < math.Abs(off) {
			off = by
		}
	}
	switch limit := judge.Within(tempo); {
	case math.IsInf(off, 1):
	case landing.When == line.OnTime && off > limit:
		landing.When, landing.Says = line.Late, say.F("%s, %.0f ms late", landing.Says, off)
	case landing.When == line.Late && math.Abs(off) <= limit:
		landing.When, landing.Says = line.OnTime, say.F("lands on the %s of %s", landing.Degree, landing.Chord)
	}
	return landing
}

// tell says what was good first, and one thing to try.
func (f *Free) tell(stage Stage) {
	if len(f.Line.Notes) == 0 {
		f.Good, f.Try = "nothing was heard", "look whether the instrument is plugged in and loud enough, and play it again"
		return
	}
	landed, counts := 0, 0
	silent, late := 0, 0
	worst := map[string]int{} // changes to a chord that did not count
	for _, l := range f.Landings {
		switch {
		case l.Counts:
			counts++
		default:
			worst[l.Chord.Printed()]++
		}
		switch {
		case l.Landed():
			landed++
		case l.When == line.Silent:
			silent++
		case l.When == line.Late:
			late++
		}
	}
	n := len(f.Landings)
	if n == 0 {
		f.Good, f.Try = "it was stopped before a change came", "play on to the next change"
		return
	}
	f.Good = say.F("%d of %d changes are landed", landed, n)
	if len(stage.Land) > 0 {
		f.Good = say.F("%d of %d changes are landed on %s", counts, n, asked(stage))
	}
	if free := len(f.Line.Notes) - f.Outside; stage.Play != Anything && free*n >= counts*len(f.Line.Notes) {
		f.Good = say.F("%d of %d notes are %s", free, len(f.Line.Notes), playings[stage.Play])
	}
	switch {
	case len(f.Lost) > 0:
		f.Try = judge.Count(f.Lost, len(f.Line.Bars), f.Line.Beats)
	case counts == n && f.Outside == 0:
		f.Try = "a faster tempo, or the next key"
	case f.Outside > n-counts:
		f.Try = say.F("keep to %s: %d notes were not", playings[stage.Play], f.Outside)
	case silent > 0 && silent*2 >= n-counts:
		f.Try = "play on the change itself: some met silence"
	case late > 0 && late*2 >= n-counts:
		f.Try = "think of the landing a bar ahead: it comes late"
	default:
		chord := ""
		for c, k := range worst {
			if k > worst[chord] || k == worst[chord] && c < chord {
				chord = c
			}
		}
		f.Try = say.F("loop the change to %s: it is met least", chord)
	}
}

// playings are what may be played, in words.
var playings = map[Playing]string{
	Tones: "chord tones", Scale: "notes of the chord's scale", Chromatic: "notes that lead on", Anything: "notes of yours",
}

func asked(s Stage) string {
	names := map[string]string{"root": "the root", "third": "the third", "fifth": "the fifth", "seventh": "the seventh", "extension": "an extension"}
	return names[s.Land[0].String()]
}
