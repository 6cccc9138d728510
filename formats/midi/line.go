package midi

import (
	"cmp"
	"slices"
	"strings"

	"undaris/core/band"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Line makes a written line of a file's melody: the track called lead, else the
// one with most notes that is no drum. Onsets and ends are moved to the nearest
// place that can be written, and pushed notes become bends. Where the notes lie
// on the neck the file does not know: String is 0. said tells what was guessed.
// The chords, the bars and the key are those of s; bars are added where the line
// is longer. Without bars the key is the file's, or guessed.
func (f File) Line(s score.Score) (out score.Score, said []string, err error) {
	best := -1
	for i, t := range f.Tracks {
		if t.Channel == 9 || len(t.Notes) == 0 {
			continue
		}
		lead := strings.Contains(strings.ToLower(t.Name), "lead")
		switch {
		case best < 0, lead && !strings.Contains(strings.ToLower(f.Tracks[best].Name), "lead"):
			best = i
		case len(t.Notes) > len(f.Tracks[best].Notes) && !strings.Contains(strings.ToLower(f.Tracks[best].Name), "lead"):
			best = i
		}
	}
	if best < 0 {
		return s, nil, say.Errorf("this MIDI file has no melody: %d tracks, none with notes but drums", len(f.Tracks))
	}
	track := f.Tracks[best]
	if len(track.Notes) > score.MaxNotes {
		return s, nil, say.Errorf("%q has %d notes; a line holds %d", track.Name, len(track.Notes), score.MaxNotes)
	}
	if n := len(f.Tracks); n > 1 {
		said = append(said, say.F("%d tracks; %q was read as the line", n, track.Name))
	}
	s.Title = cmp.Or(f.Title, s.Title)
	s.Tempo = int(f.Tempo + 0.5)
	free := len(s.Bars) == 0
	if free {
		s.Beats = f.Beats
	}
	skip := 0
	for _, m := range f.Markers {
		if m.Name == "count-in" {
			skip = s.Beats * score.Tick
		}
	}
	for _, n := range track.Notes {
		w := score.Note{Start: n.Start*score.Tick/f.Ticks - skip, Length: max(1, n.Length*score.Tick/f.Ticks)}
		if w.Start < 0 {
			continue
		}
		w.Pitch = pitch.At(n.MIDI, s.Key.Spell(n.MIDI%12))
		w.Ornaments, w.BendGuessed = bent(n)
		s.Notes = append(s.Notes, w)
	}
	score.Sort(s.Notes)
	if free {
		if s.Key = f.Key; !f.Keyed {
			s.Key = score.GuessKey(s.Notes)
			said = append(said, say.F("the file names no key; %s was guessed from its notes", s.Key))
		}
		for i, n := range s.Notes {
			s.Notes[i].Pitch = pitch.At(n.Pitch.MIDI(), s.Key.Spell(n.Pitch.MIDI()%12))
		}
	}
	need := 1
	for _, n := range s.Notes {
		need = max(need, n.Start/s.Bar()+1)
	}
	if need > form.MaxBars {
		return s, said, say.Errorf("a line of %d bars; %d can be read", need, form.MaxBars)
	}
	for len(s.Bars) < need {
		s.Bars = append(s.Bars, form.Bar{Changes: []form.Change{{Chord: harmony.Chord{None: true}}}})
	}
	if (s.Swing || free) && score.Unswing(s.Notes) {
		s.Swing = true
		said = append(said, "its eighths swing; they are written straight with the mark")
	}
	if moved := s.Quantise(); moved > 0 {
		said = append(said, say.F("%d of %d notes were moved to the nearest place that can be written", moved, len(s.Notes)))
	}
	closeGaps(s.Notes)
	s.Respell() // a file has no names
	return s, said, nil
}

// closeGaps lets notes last until the next where less than a sixteenth lies
// between: players let go early, and nobody writes the rest.
func closeGaps(notes []score.Note) {
	for i, next := range score.Next(notes, 0) {
		if gap := next - notes[i].End(); gap > 0 && gap < score.Tick/4 {
			notes[i].Length += gap
		}
	}
}

// bent reads a note's pushes as a bend in quarter tones, made before it is struck
// or after, and whether it is let down again; rounded tells that it was pushed to
// somewhere else. Sways of less than a quarter tone are vibrato and do not count,
// and what comes from a bend to none was slid into.
func bent(n band.Note) (o score.Ornaments, rounded bool) {
	top, last := 0, 0
	for _, b := range n.Bends {
		top, last = max(top, b.Cents), b.Cents
	}
	if first := slices.IndexFunc(n.Bends, func(b band.Bend) bool { return b.At == 0 && b.Cents != 0 }); first >= 0 {
		if top < 50 || n.Bends[first].Cents < top-18 || last < top-60 {
			return o, false
		}
		o.PreBend = true
	}
	o.Bend = min(6, (top+18)/50)
	off := top - 50*o.Bend
	if o.Release = o.Bend > 0 && last < top-60; o.Release {
		o.ReleaseTo = min(o.Bend-1, (max(last, 0)+18)/50)
	}
	return o, o.Bend > 0 && max(off, -off) > 12
}
