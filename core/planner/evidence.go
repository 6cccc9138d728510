package planner

import (
	"math"

	"undaris/core/edit"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/neck"
	"undaris/core/practice"
	"undaris/core/score"
)

// PositionOf is which of a key's positions a window is, from 0: the one that shares
// most frets with it; −1 where none does.
func PositionOf(in *neck.Instrument, tonic int, w neck.Region) int {
	best, most := -1, 0
	for _, p := range in.Positions(tonic) {
		if shared := min(w.High, p.High) - max(w.Low, p.Low) + 1; shared > most {
			best, most = p.Number-1, shared
		}
	}
	return best
}

// Outcomes of calls, and what each is worth as evidence: right at once; right, but not
// in time; right after a slip; uncovered; let go.
var Outcomes = map[string]float64{"right": 1, "uneven": 0.7, "late": 0.4, "shown": 0.2, "passed": 0}

// evidence is what all trials of a line have in common.
func evidence(l edit.Line, device string, tempo int) Trial {
	tonic := l.Key.Tonic.Class()
	return Trial{Ask: Ask{Key: tonic, Position: PositionOf(l.In, tonic, l.Region), Device: device, Tempo: tempo}, Tuning: l.In.Tuning()}
}

// on fills in a change: its chord, the one before, and the note that landed there.
func (t Trial) on(l edit.Line, at int, chord harmony.Chord, degree harmony.Degree, asked string, note int) Trial {
	t.Chord, t.Quality, t.On, t.Degree = chord.String(), chord.Suffix(), string(degree), asked
	t.Bar = l.BarOf(at) + 1
	if at > 0 {
		if before, ok := l.ChordAt(at - 1); ok {
			t.From = before.String()
		}
	}
	switch {
	case t.Degree != "":
	case degree == "":
		t.Degree = "any" // nothing was asked for, and nothing came
	default:
		t.Degree = degree.Role().String()
	}
	if note >= 0 && note < len(l.Notes) {
		t.String = l.Notes[note].String
		if note > 0 {
			t.Down = l.Notes[note].Pitch.MIDI() < l.Notes[note-1].Pitch.MIDI()
		}
	}
	return t
}

// FromTake are the trials of a line that was played: one for each change.
func FromTake(take judge.Take, l edit.Line, tempo int) (trials []Trial) {
	for _, x := range take.Landings {
		t := evidence(l, "line", tempo).on(l, x.At, x.Chord, x.Degree, "", x.Note)
		t.Met = x.Verdict.Word()
		if x.Verdict.Is == judge.Unheard {
			t.Met = "silent"
		}
		if x.Landed() {
			t.Success = 1
		} else if x.Verdict.Is == judge.Right {
			t.Success = 0.5 // late or early, or bent out of tune
		}
		if x.Verdict.Is == judge.Right {
			t.Ms, t.Timed = x.Verdict.Off+take.Tendency, true
		}
		trials = append(trials, t)
	}
	return trials
}

// FromFree are the trials of a pass of a mode: one for each change.
func FromFree(f practice.Free, m practice.Mode, pass int, heard []judge.Heard, tempo int) (trials []Trial) {
	asked := ""
	if land := m.Stage(pass).Land; len(land) > 0 {
		asked = land[0].String()
	}
	for _, x := range f.Landings {
		t := evidence(f.Line, m.ID, tempo).on(f.Line, x.At, x.Chord, x.Degree, asked, x.Note)
		t.Met = x.Word()
		switch {
		case x.Counts:
			t.Success = 1
		case x.Landed():
			t.Success = 0.5
		}
		if off, ok := nearest(heard, float64(x.At)); ok && x.Landed() {
			t.Ms, t.Timed = off/score.Tick*60000/float64(tempo), true
		}
		trials = append(trials, t)
	}
	return trials
}

// nearest is how many ticks after a change the nearest note came, within a quarter of
// a beat.
func nearest(heard []judge.Heard, at float64) (off float64, ok bool) {
	off = score.Tick / 4
	for _, h := range heard {
		if math.Abs(h.At-at) < math.Abs(off) {
			off, ok = h.At-at, true
		}
	}
	return off, ok
}
