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
// Where s has bars, it is to be laid over them: their key counts, and whether they
// swing. Else the key is the file's, or guessed. Its own bars are without chords.
func (f File) Line(s score.Score) (out score.Score, said []string, err error) {
	list, usual := f.melodies(s.In)
	if len(list) == 0 {
		list, usual = []melody{{}}, 0
	}
	return f.line(s, list[usual])
}

// line reads one melody.
func (f File) line(s score.Score, m melody) (out score.Score, said []string, err error) {
	notes := f.played(m)
	if len(notes) == 0 {
		return s, nil, say.Errorf("this MIDI file has no melody: %d tracks, none with notes but drums", len(f.Tracks))
	}
	if len(notes) > score.MaxNotes {
		return s, nil, say.Errorf("%q has %d notes; a line holds %d", m.name, len(notes), score.MaxNotes)
	}
	said = m.told(len(f.Tracks))
	said = append(said, f.guessed()...)
	s.Title = cmp.Or(f.Title, s.Title)
	s.Tempo = int(f.Tempo + 0.5)
	s.Feel = f.Feel
	if f.In != nil {
		s.In = f.In
	}
	free := len(s.Bars) == 0
	s.Progression = form.Progression{Beats: max(form.MinBeats, f.Beats)}
	skip := f.countIn()
	joins, early := 0, 0
	for i, n := range notes {
		w := score.Note{Start: n.Start*score.Tick/f.Ticks - skip, Length: max(1, n.Length*score.Tick/f.Ticks)}
		if w.Start < -s.MostPickup() {
			early++
			continue
		}
		w.Pitch = pitch.At(n.MIDI, s.Key.Spell(n.MIDI%12))
		w.Ornaments, w.BendGuessed = bent(n.Note)
		if w.Scoop = f.slid(n); w.Scoop != 0 {
			w.Bend, w.PreBend, w.Release, w.ReleaseTo, w.BendGuessed = 0, false, false, 0, false
		}
		if i > 0 && w.Scoop == 0 {
			w.Join = f.joined(notes[i-1], n)
		}
		if w.JoinGuessed = w.Join != score.Picked || w.Scoop != 0; w.JoinGuessed {
			joins++
		}
		if n.string > 0 {
			w.Placement, _ = n.place(s.In)
		}
		s.Notes = append(s.Notes, w)
	}
	if early > 0 {
		said = append(said, say.F("what is played before the first bar, in the count-in or a lead-in, was left out: %d notes", early))
	}
	if joins > 0 {
		said = append(said, say.F("%d notes sound as if hammered, pulled off or slid to; that is guessed", joins))
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
	end := 1
	if n := len(s.Notes); n > 0 {
		end = s.Notes[n-1].Start + 1
	}
	if len(f.Chords) > 0 {
		end = max(end, f.chorus()*score.Tick/f.Ticks-skip)
	}
	for at := s.End(); at < end || len(s.Bars) == 0; at = s.End() {
		if len(s.Bars) == form.MaxBars {
			return s, said, say.Errorf("a line of more than the %d bars that can be read", form.MaxBars)
		}
		bar := form.Bar{Changes: []form.Change{{Chord: harmony.Chord{None: true}}}}
		if beats := f.beatsAt((at + skip) * f.Ticks / score.Tick); beats != s.Beats {
			bar.Beats = beats
		}
		s.Bars = append(s.Bars, bar)
	}
	said = append(said, f.harmonise(&s.Progression, skip)...)
	said = append(said, f.told(m, func(tick int) int {
		bar, _ := s.BarAt((tick*score.Tick/f.Ticks - skip) / score.Tick)
		return bar + 1
	})...)
	if (s.Swing || free) && !f.Threes && score.Unswing(s.Notes) { // in threes a long and a short are written so
		s.Swing = true
		said = append(said, "its eighths swing; they are written straight with the mark")
	}
	if moved := s.Quantise(); moved > 0 {
		said = append(said, say.F("%d of %d notes were moved to the nearest place that can be written", moved, len(s.Notes)))
	}
	closeGaps(s.Notes, s.End())
	s.Respell() // a file has no names
	return s, said, nil
}

// guessed tells what of a file's time was taken for granted or left out.
func (f File) guessed() (said []string) {
	for _, c := range []struct {
		is   bool
		says string
	}{
		{f.Odd, say.F("bars of %s are no whole number of quarters, or more than can be read; bars of four were taken", f.Metre)},
		{f.Threes, say.F("%s was read as bars of %d beats of three eighths", f.Metre, f.Beats)},
		{!f.Odd && !f.Threes && f.Metre != "" && f.Metre != say.F("%d/4", f.Beats), say.F("%s was read as bars of %d quarters", f.Metre, f.Beats)},
		{slices.ContainsFunc(f.Metres, unread), "a metre that comes later is no whole number of quarters, or more than can be read; its bars are as the first"},
		{f.Tempi > 0, say.F("the tempo changes %d times; %.0f, the first, was taken throughout", f.Tempi, f.Tempo)},
		{f.Unclosed == 1, "a note is never ended; it lasts to the end of its track"},
		{f.Unclosed > 1, say.F("%d notes are never ended; they last to the end of their track", f.Unclosed)},
	} {
		if c.is {
			said = append(said, c.says)
		}
	}
	return said
}

// countIn is how long what comes before the top is, in ticks of ours: a bar of sticks, a lead-in.
func (f File) countIn() int {
	before := false
	for _, m := range f.Markers {
		before = before || m.Name == "count-in" || m.Name == band.LeadIn
		if before && m.Name == "chorus 1" {
			return m.At * score.Tick / f.Ticks
		}
	}
	if before {
		return f.Beats * score.Tick
	}
	return f.Pickup * score.Tick / f.Ticks
}

// chorus is the tick on which the first chorus is over, as [Write] marks it.
func (f File) chorus() int {
	for _, m := range f.Markers {
		if m.Name == "chorus 2" || m.Name == "ending" {
			return m.At
		}
	}
	return f.End
}

// harmonise puts the file's chords and sections into bars.
func (f File) harmonise(p *form.Progression, skip int) (said []string) {
	place := func(at int) (bar, beat int) { return p.BarAt((at*score.Tick/f.Ticks - skip) / score.Tick) }
	for _, c := range f.Chords {
		bar, beat := place(c.At)
		if bar < -1 || bar >= len(p.Bars) {
			continue
		}
		chord, err := harmony.Parse(c.Name)
		if err != nil {
			said = append(said, say.F("bar %d: %v; it is left without a chord", bar+1, err))
			chord = harmony.Chord{None: true}
		}
		if bar < 0 {
			p.Pickup.Lead(p.Beats, beat, chord)
			continue
		}
		list := &p.Bars[bar].Changes
		if last := &(*list)[len(*list)-1]; last.Beat == beat {
			last.Chord = chord
		} else {
			*list = append(*list, form.Change{Beat: beat, Chord: chord})
		}
	}
	if len(f.Chords) == 0 {
		return said
	}
	once := f.bars(*p, skip)
	for i := 1; i < min(once, len(p.Bars)); i++ { // a chord holds until the next
		if first := &p.Bars[i].Changes[0]; first.Chord.None && !f.named(*p, i, skip) {
			before := p.Bars[i-1].Changes
			first.Chord = before[len(before)-1].Chord
		}
	}
	for _, m := range f.Markers {
		bar, beat := place(m.At)
		own := m.Name == "count-in" || m.Name == "ending" || m.Name == band.LeadIn || m.Name == band.LastChord || strings.HasPrefix(m.Name, "chorus ") || strings.HasPrefix(m.Name, "bar ")
		if beat == 0 && bar >= 0 && bar < len(p.Bars) && !own && m.At < f.chorus() {
			p.Bars[bar].Section = m.Name
		}
	}
	for i := once; i < len(p.Bars) && once > 0; i++ { // the chords come again with each chorus
		if p.BeatsOf(i) == p.BeatsOf(i-once) {
			p.Bars[i].Changes, p.Bars[i].Section = p.Bars[i-once].Changes, p.Bars[i-once].Section
		}
	}
	return said
}

// bars are how many the first chorus has.
func (f File) bars(p form.Progression, skip int) int {
	n, _ := p.BarAt((f.chorus()*score.Tick/f.Ticks - skip) / score.Tick)
	return min(n, len(p.Bars))
}

// named tells that the file names a chord, or silence, where a bar begins.
func (f File) named(p form.Progression, bar, skip int) bool {
	return slices.ContainsFunc(f.Chords, func(c band.Marker) bool {
		return c.At*score.Tick/f.Ticks-skip == p.StartOf(bar)*score.Tick
	})
}

func unread(m Metre) bool { return m.Beats < 1 || m.Beats > form.MaxBeats }

// beatsAt is how many quarters a bar has that begins at a tick of the file.
func (f File) beatsAt(tick int) int {
	beats := f.Beats
	for _, m := range f.Metres {
		if m.At <= tick {
			if beats = m.Beats; unread(m) {
				beats = f.Beats
			}
		}
	}
	return beats
}

// closeGaps lets notes last until the next, or the last bar's end, where less than a sixteenth
// or a fifth of the note lies between: players let go early, and nobody writes the rest.
func closeGaps(notes []score.Note, end int) {
	for i, next := range score.Next(notes, end) {
		if gap := next - notes[i].End(); gap > 0 && (gap < score.Tick/4 || gap*5 <= notes[i].Length) {
			notes[i].Length += gap
		}
	}
}

// bent reads a note's pushes as a bend in quarter tones, made before it is struck
// or after, and whether it is let down again; rounded tells that it was pushed to
// somewhere else. Sways of less than a quarter tone are vibrato and do not count.
// Where a note is soon let go to none it was slid into ([File.slid]).
func bent(n band.Note) (o score.Ornaments, rounded bool) {
	top, last := 0, 0
	for _, b := range n.Bends {
		top, last = max(top, b.Cents), b.Cents
	}
	if first := slices.IndexFunc(n.Bends, func(b band.Bend) bool { return b.At == 0 && b.Cents != 0 }); first >= 0 {
		if top < 50 || n.Bends[first].Cents < top-18 {
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
