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
}

// Free is a take of what nobody wrote, judged.
type Free struct {
	Line      edit.Line // what was played, written down
	Report    line.Report
	Landings  []Landing
	Outside   int // notes that the stage does not allow
	Good, Try string
}

// Written writes down what was heard over a line's chords, in its window where it
// fits; the line's own notes are left out. swing is where the second eighths fell.
// What lies nowhere on the neck is left out, and said.
func Written(over edit.Line, heard []judge.Heard, swing float64) (edit.Line, error) {
	s := over.Score
	s.Notes = nil
	end := len(s.Bars) * s.Bar()
	heard = slices.Clone(heard)
	slices.SortStableFunc(heard, func(a, b judge.Heard) int { return cmp.Compare(a.At, b.At) })
	whole := neck.Window{Low: 0, High: s.In.Last()}
	for i, h := range heard {
		at, stop := int(straight(h.At, swing)), int(straight(h.At+max(h.Length, score.Tick/8), swing))
		midi := int(math.Round(h.Pitch))
		if i+1 < len(heard) && heard[i+1].At > h.At+score.Tick/16 {
			stop = min(stop, int(straight(heard[i+1].At, swing)))
		}
		if at < -score.Tick/2 || at >= end-score.Tick/8 || len(s.In.Find(midi, whole)) == 0 {
			continue
		}
		at = max(0, at)
		s.Notes = append(s.Notes, score.Note{Start: at, Length: max(1, min(stop, end)-at), Pitch: pitch.At(midi, over.Spell(at, midi))})
	}
	s.Quantise()
	for i := range s.Notes {
		s.Notes[i].Pitch = pitch.At(s.Notes[i].Pitch.MIDI(), over.Spell(s.Notes[i].Start, s.Notes[i].Pitch.MIDI()))
	}
	l, err := edit.Import(s, nil, score.Score{In: over.In}, over.Hand)
	if err != nil {
		return l, err
	}
	l.Window, l.Palette, l.Feel, l.Said = over.Window, over.Palette, over.Feel, nil
	if lost := len(heard) - len(l.Notes); lost > 0 && len(heard) > 0 {
		l.Said = []string{say.F("%d of %d notes could not be written down", lost, len(heard))}
	}
	l.Notes = score.Numbered(l.Notes)
	return l, nil
}

// straight is the inverse of judge.Swung.
func straight(tick, swing float64) float64 {
	beat := math.Floor(tick / score.Tick)
	in := tick/score.Tick - beat
	if in <= swing {
		in = in / swing / 2
	} else {
		in = 0.5 + (in-swing)/(1-swing)/2
	}
	return (beat + in) * score.Tick
}

// Judge judges a pass of free playing over a line's chords.
func Judge(over edit.Line, heard []judge.Heard, swing float64, stage Stage) (Free, error) {
	l, err := Written(over, heard, swing)
	if err != nil {
		return Free{}, err
	}
	f := Free{Line: l, Report: line.Check(l.Score, l.Palette, line.Usual)}
	for _, landing := range f.Report.Landings {
		f.Landings = append(f.Landings, Landing{landing, landing.Landed() && stage.counts(landing.Chord, landing.Degree)})
	}
	for i, n := range l.Notes {
		if chord, ok := l.ChordAt(n.Start); ok && !stage.Play.allows(chord, f.Report.Notes[i]) {
			f.Outside++
		}
	}
	f.tell(stage)
	return f, nil
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
	f.Good = say.F("%d of %d changes are landed", landed, n)
	if len(stage.Land) > 0 {
		f.Good = say.F("%d of %d changes are landed on %s", counts, n, asked(stage))
	}
	if free := len(f.Line.Notes) - f.Outside; stage.Play != Anything && free*n >= counts*len(f.Line.Notes) {
		f.Good = say.F("%d of %d notes are %s", free, len(f.Line.Notes), playings[stage.Play])
	}
	switch {
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
	names := map[string]string{"root": "the root", "third": "the third", "fifth": "the fifth", "seventh": "the seventh"}
	return names[s.Land[0].String()]
}
