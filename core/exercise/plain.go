package exercise

import (
	"undaris/core/arpeggio"
	"undaris/core/crossing"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// Run writes a run up and down again in eighths, over as many bars of its chord
// as that takes. The last note is held to the end of its bar.
func Run(r arpeggio.Run, beats int) (form.Progression, []score.Note) {
	const eighth = score.Tick / 2
	var notes []score.Note
	add := func(n arpeggio.Note) {
		notes = append(notes, score.Note{Start: len(notes) * eighth, Length: eighth, Pitch: n.Pitch,
			Placement: n.Placement, Finger: n.Finger, Degree: string(n.Degree)})
	}
	for _, n := range r.Notes {
		add(n)
	}
	for i := len(r.Notes) - 2; i >= 0; i-- {
		add(r.Notes[i])
	}
	return fill(r.Chord, beats, notes)
}

// fill makes bars of one chord under notes, and holds the last note.
func fill(c harmony.Chord, beats int, notes []score.Note) (form.Progression, []score.Note) {
	bar := beats * score.Tick
	bars := 1
	if n := len(notes); n > 0 {
		last := &notes[n-1]
		bars = (last.Start + bar) / bar
		last.Length = bars*bar - last.Start
	}
	p := form.Progression{Beats: beats}
	for range bars {
		p.Bars = append(p.Bars, form.Bar{Changes: []form.Change{{Chord: c}}})
	}
	return p, notes
}

// Crossing writes every move of a change that the window holds: a bar of the old
// tone and a bar of the new one, the best move first. hand fingers each pair.
func Crossing(in *neck.Instrument, a, b harmony.Chord, moves []crossing.Move, beats int, hand neck.Hand) (form.Progression, []score.Note) {
	p := form.Progression{Beats: beats}
	var notes []score.Note
	bar := beats * score.Tick
	for _, m := range moves {
		if len(m.Places) == 0 {
			continue
		}
		at := len(p.Bars) * bar
		for i, side := range []struct {
			chord harmony.Chord
			tone  harmony.Tone
			place neck.Placement
		}{{a, m.From, m.Places[0].From}, {b, m.To, m.Places[0].To}} {
			p.Bars = append(p.Bars, form.Bar{Changes: []form.Change{{Chord: side.chord}}, Row: i == 0})
			notes = append(notes, score.Note{Start: at + i*bar, Length: bar, Placement: side.place,
				Pitch: pitch.At(in.MIDI(side.place), side.tone.Name), Degree: string(side.tone.Degree)})
		}
	}
	score.Finger(in, notes, hand)
	return p, notes
}

// Thread writes one chorus of a thread: a note as long as each of its chords.
// targets are those of one chorus, with Stop an index into the form's places.
func Thread(in *neck.Instrument, p form.Progression, targets []crossing.Target, hand neck.Hand) []score.Note {
	places := p.Places()
	var notes []score.Note
	for _, t := range targets {
		at := places[t.Stop]
		notes = append(notes, score.Note{Start: p.BeatOf(at) * score.Tick, Length: at.Length * score.Tick,
			Placement: t.Placement, Pitch: pitch.At(t.MIDI, t.Tone.Name), Degree: string(t.Tone.Degree)})
	}
	score.Finger(in, notes, hand)
	return notes
}
