package musicxml

import (
	"encoding/xml"
	"fmt"
	"strings"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/score"
)

// types are the format's names of written values.
var types = map[int]string{1: "whole", 2: "half", 4: "quarter", 8: "eighth", 16: "16th", 32: "32nd"}

type writer struct {
	strings.Builder
	s       score.Score
	beats   int            // that a bar has by the last time that was written
	altered map[[2]int]int // of the bar in hand, by letter and octave
	coming  []form.Change  // of the bar in hand, that are not written yet
	signs   []form.Signs   // of a song, bar by bar
	beside  form.Beside    // likewise
}

// General MIDI programs, from 1 as MusicXML counts them.
const cleanGuitar, fingeredBass = 28, 34

// Write writes a score. A bar's lengths are in ticks.
func Write(s score.Score) []byte {
	return (&writer{s: s}).all()
}

func (w *writer) all() []byte {
	s := w.s
	w.p(`<?xml version="1.0" encoding="UTF-8"?>` + "\n")
	w.p(`<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">` + "\n")
	w.p(`<score-partwise version="4.0"><work><work-title>%s</work-title></work>`, text(s.Title))
	w.p(`<identification><encoding><software>Undaris</software></encoding>`)
	facts := w.beside.Facts()
	if s.Feel != "" {
		facts = append([][2]string{{"feel", s.Feel}}, facts...)
	}
	if len(facts) > 0 {
		w.p(`<miscellaneous>`)
		for _, f := range facts {
			w.p(`<miscellaneous-field name="%s">%s</miscellaneous-field>`, f[0], text(f[1]))
		}
		w.p(`</miscellaneous>`)
	}
	w.p(`</identification>`)
	program := cleanGuitar
	if s.Bass() {
		program = fingeredBass
	}
	w.p(`<part-list><score-part id="P1"><part-name>Guitar</part-name><score-instrument id="P1-I1"><instrument-name>Guitar</instrument-name></score-instrument><midi-instrument id="P1-I1"><midi-channel>1</midi-channel><midi-program>%d</midi-program></midi-instrument></score-part></part-list><part id="P1">`+"\n", program)
	for i, m := range s.Engrave() {
		w.measure(m, i == 0)
	}
	w.p("</part></score-partwise>\n")
	return []byte(w.String())
}

func (w *writer) p(format string, args ...any) {
	if len(args) == 0 {
		w.WriteString(format)
		return
	}
	fmt.Fprintf(w, format, args...)
}

func text(s string) string {
	var b strings.Builder
	_ = xml.EscapeText(&b, []byte(s))
	return b.String()
}

func (w *writer) measure(m score.Measure, first bool) {
	if m.Number == 0 {
		w.p(`<measure number="0" implicit="yes">`)
	} else {
		w.p(`<measure number="%d">`, m.Number)
	}
	if m.Number > 1 && w.s.Bars[m.Number-1].Row {
		w.p(`<print new-system="yes"/>`)
	}
	w.begins(m.Number - 1)
	if first {
		w.attributes(m.Beats)
	} else if m.Beats != w.beats {
		w.p(`<attributes>`)
		w.time(m.Beats)
		w.p(`</attributes>`)
	}
	if m.Number == 0 {
		w.coming = m.Chords
	} else {
		bar := w.s.Bars[m.Number-1]
		if bar.Section != "" {
			w.p(`<direction placement="above"><direction-type><rehearsal>%s</rehearsal></direction-type></direction>`, text(bar.Section))
		}
		w.coming = bar.Changes
		if m.Number > 1 && same(w.s.Bars[m.Number-2], bar.Changes[0].Chord) {
			w.coming = bar.Changes[1:]
		}
	}
	w.voice(m, 1)
	w.harmonies(m.Beats*score.Tick, 2*m.Beats*score.Tick)
	length := 0
	for _, k := range m.Strokes {
		length += k.Value.Ticks()
	}
	w.p(`<backup><duration>%d</duration></backup>`, length)
	w.voice(m, 2)
	w.ends(m.Number - 1)
	w.p("</measure>\n")
}

// same tells that a bar ends on a chord, which then is not written again.
func same(b form.Bar, c harmony.Chord) bool {
	return b.Changes[len(b.Changes)-1].Chord.String() == c.String()
}

func (w *writer) time(beats int) {
	w.beats = beats
	w.p(`<time><beats>%d</beats><beat-type>4</beat-type></time>`, beats)
}

func (w *writer) attributes(beats int) {
	w.p(`<attributes><divisions>%d</divisions><key><fifths>%d</fifths><mode>%s</mode></key>`, score.Tick,
		w.s.Key.Signature(), map[bool]string{true: "minor", false: "major"}[w.s.Key.Minor])
	w.time(beats)
	w.p(`<staves>2</staves>`)
	clef := `<sign>G</sign><line>2</line>`
	if w.s.Bass() {
		clef = `<sign>F</sign><line>4</line>`
	}
	w.p(`<clef number="1">%s<clef-octave-change>-1</clef-octave-change></clef><clef number="2"><sign>TAB</sign><line>5</line></clef>`, clef)
	w.p(`<staff-details number="2"><staff-lines>%d</staff-lines>`, w.s.In.Strings())
	for i, p := range w.s.In.Open {
		w.p(`<staff-tuning line="%d"><tuning-step>%s</tuning-step><tuning-alter>%d</tuning-alter><tuning-octave>%d</tuning-octave></staff-tuning>`,
			i+1, steps[p.Letter:p.Letter+1], p.Alter, p.Octave)
	}
	if w.s.In.Capo > 0 {
		w.p(`<capo>%d</capo>`, w.s.In.Capo)
	}
	w.p(`</staff-details></attributes><direction placement="above"><direction-type><metronome><beat-unit>quarter</beat-unit><per-minute>%d</per-minute></metronome></direction-type><sound tempo="%d"/></direction>`, w.s.Tempo, w.s.Tempo)
	if w.s.Swing {
		first, second := 2, 1
		if w.beside.Swing > 0 {
			first, second = w.beside.Swing, 100-w.beside.Swing
		}
		w.p(`<direction placement="above"><direction-type><words>swing</words></direction-type><sound><swing><first>%d</first><second>%d</second><swing-type>eighth</swing-type></swing></sound></direction>`, first, second)
	}
}

// harmonies writes the chords that begin before a stroke is over, each where it begins.
func (w *writer) harmonies(at, end int) {
	for len(w.coming) > 0 && w.coming[0].Beat*score.Tick < end {
		w.harmony(w.coming[0], w.coming[0].Beat*score.Tick-at)
		w.coming = w.coming[1:]
	}
}

func (w *writer) harmony(c form.Change, offset int) {
	w.p(`<harmony>`)
	if c.Chord.None {
		w.p(`<root><root-step text="">C</root-step></root><kind text="N.C.">none</kind>`)
	} else {
		w.p(`<root><root-step>%s</root-step>%s</root>`, steps[c.Chord.Root.Letter:c.Chord.Root.Letter+1], alter("root-alter", c.Chord.Root.Alter))
		kind, degrees := kindOf(c.Chord)
		label, hidden := labelled(c.Chord, kind, degrees)
		w.p(`<kind text="%s">%s</kind>`, text(label), kind)
		if c.Chord.Slash() {
			w.p(`<bass><bass-step>%s</bass-step>%s</bass>`, steps[c.Chord.Bass.Letter:c.Chord.Bass.Letter+1], alter("bass-alter", c.Chord.Bass.Alter))
		}
		for _, d := range degrees {
			w.p(`<degree%s><degree-value>%d</degree-value><degree-alter>%d</degree-alter><degree-type>%s</degree-type></degree>`, hidden, d.value, d.alter, d.how)
		}
	}
	if offset > 0 {
		w.p(`<offset>%d</offset>`, offset)
	}
	w.p(`</harmony>`)
}

func alter(tag string, n int) string {
	if n == 0 {
		return ""
	}
	return fmt.Sprintf("<%s>%d</%s>", tag, n, tag)
}

// accidentals by how far they alter, and the letters in the order in which a
// signature sharpens them.
var (
	accidentals = map[int]string{-2: "flat-flat", -1: "flat", 0: "natural", 1: "sharp", 2: "double-sharp"}
	sharpened   = []int{3, 0, 4, 1, 5, 2, 6} // F C G D A E B, letters counted from C
)

// accidental is the sign before a note of the notation: where it is neither as the
// signature has it, nor as the bar had it last. A tied note needs none.
func (w *writer) accidental(p pitch.Pitch, k score.Stroke, staff int) string {
	if staff != 1 || k.From {
		return ""
	}
	place := [2]int{p.Letter, p.Octave}
	was, known := w.altered[place]
	if !known {
		signature := w.s.Key.Signature()
		for i, letter := range sharpened {
			switch {
			case letter == p.Letter && i < signature:
				was = 1
			case letter == p.Letter && 6-i < -signature:
				was = -1
			}
		}
	}
	w.altered[place] = p.Alter
	if was == p.Alter {
		return ""
	}
	return "<accidental>" + accidentals[p.Alter] + "</accidental>"
}

// voice writes one staff of a measure: 1 is notation, 2 tablature.
func (w *writer) voice(m score.Measure, staff int) {
	w.altered = map[[2]int]int{}
	at := 0
	beams := beams(m.Strokes)
	for i, k := range m.Strokes {
		if staff == 1 {
			w.harmonies(at, at+k.Value.Ticks())
		}
		at += k.Value.Ticks()
		begins := k.Tuplet > 0 && (i == 0 || m.Strokes[i-1].Tuplet != k.Tuplet)
		ends := k.Tuplet > 0 && (i+1 == len(m.Strokes) || m.Strokes[i+1].Tuplet != k.Tuplet)
		if k.Notes == nil {
			w.p(`<note><rest/>`)
			w.value(k, staff, false, "", nil)
			if begins || ends {
				w.p(`<notations>`)
				w.tuplet(begins, ends)
				w.p(`</notations>`)
			}
			w.p(`</note>`)
			continue
		}
		for j, index := range k.Notes {
			beam := beams[i]
			if j > 0 || staff > 1 { // a chord has one, and the notation alone
				beam = nil
			}
			w.note(index, k, staff, j > 0, begins, ends, beam)
		}
	}
}

// value writes how long a note or rest lasts; dead notes have a head of their own.
func (w *writer) value(k score.Stroke, staff int, dead bool, accidental string, beam []string) {
	w.p(`<duration>%d</duration>`, k.Value.Ticks())
	if k.Notes != nil {
		if k.From {
			w.p(`<tie type="stop"/>`)
		}
		if k.To {
			w.p(`<tie type="start"/>`)
		}
	}
	w.p(`<voice>%d</voice><type>%s</type>`, staff, types[k.Value.Base])
	if k.Value.Dotted {
		w.p(`<dot/>`)
	}
	w.p("%s", accidental)
	if k.Value.Actual > 0 {
		w.p(`<time-modification><actual-notes>%d</actual-notes><normal-notes>%d</normal-notes></time-modification>`, k.Value.Actual, k.Value.Normal)
	}
	if dead {
		w.p(`<notehead>x</notehead>`)
	}
	w.p(`<staff>%d</staff>`, staff)
	for i, word := range beam {
		w.p(`<beam number="%d">%s</beam>`, i+1, word)
	}
}

func (w *writer) tuplet(begins, ends bool) {
	if begins {
		w.p(`<tuplet type="start"/>`)
	}
	if ends {
		w.p(`<tuplet type="stop"/>`)
	}
}

func (w *writer) note(index int, k score.Stroke, staff int, chord, begins, ends bool, beam []string) {
	n := w.s.Notes[index]
	w.p(`<note>`)
	if chord {
		w.p(`<chord/>`)
	}
	w.p(`<pitch><step>%s</step>%s<octave>%d</octave></pitch>`, steps[n.Pitch.Letter:n.Pitch.Letter+1], alter("alter", n.Pitch.Alter), n.Pitch.Octave)
	w.value(k, staff, n.Dead, w.accidental(n.Pitch, k, staff), beam)
	in := &writer{s: w.s}
	if k.From {
		in.p(`<tied type="stop"/>`)
	}
	if k.To {
		in.p(`<tied type="start"/>`)
	}
	if !chord {
		in.tuplet(begins, ends)
	}
	if !k.From {
		in.joins(index, staff)
		in.ornaments(n.Ornaments)
	}
	in.technical(index, staff, k.From)
	if in.Len() > 0 {
		w.p(`<notations>%s</notations>`, in.String())
	}
	if staff == 1 && n.Degree != "" && !k.From && !chord {
		w.p(`<lyric number="1"><syllabic>single</syllabic><text>%s</text></lyric>`, text(strings.NewReplacer("b", "♭", "#", "♯").Replace(n.Degree)))
	}
	w.p(`</note>`)
}
