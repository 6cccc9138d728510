package server

import (
	"undaris/core/score"
	"undaris/formats/musicxml"
)

// Score is a line as it is written: staff and tablature.
type Score struct {
	Title     string    `json:"title"`
	Key       string    `json:"key"`
	Signature int       `json:"signature" doc:"sharps, or flats when negative"`
	Beats     int       `json:"beats"`
	Tempo     int       `json:"tempo"`
	Swing     bool      `json:"swing" doc:"eighths are played long, short"`
	Bass      bool      `json:"bass" doc:"in the bass clef; both clefs sound an octave lower than written"`
	Strings   int       `json:"strings"`
	Measures  []Measure `json:"measures"`
	Notes     []Written `json:"notes" doc:"by onset, then from the lowest"`
}

// Measure is a written bar.
type Measure struct {
	Number  int      `json:"number" doc:"from 1; 0 is a pickup"`
	Start   int      `json:"start" doc:"ticks from the first bar, 960 to the quarter"`
	Section string   `json:"section,omitempty"`
	Row     bool     `json:"row,omitempty" doc:"a new line is wished for here"`
	Chords  []Symbol `json:"chords"`
	Strokes []Stroke `json:"strokes"`
}

// Symbol is a chord above a beat.
type Symbol struct {
	Beat   int    `json:"beat" doc:"from 0"`
	Symbol string `json:"symbol"`
}

// Stroke is a written chord, note or rest.
type Stroke struct {
	At     int   `json:"at" doc:"ticks from the start of the measure"`
	Base   int   `json:"base" doc:"1 is a whole, 4 a quarter"`
	Dotted bool  `json:"dotted,omitempty"`
	Actual int   `json:"actual,omitempty" doc:"so many notes in the time of normal"`
	Normal int   `json:"normal,omitempty"`
	Tuplet int   `json:"tuplet,omitempty" doc:"strokes of one tuplet share a number"`
	From   bool  `json:"from,omitempty" doc:"tied from the stroke before"`
	To     bool  `json:"to,omitempty" doc:"tied to the next"`
	Notes  []int `json:"notes" doc:"indexes of the notes; none is a rest"`
}

// Written is a note of a line.
type Written struct {
	Start  int    `json:"start" doc:"ticks from the first bar, 960 to the quarter"`
	Length int    `json:"length"`
	String int    `json:"string"`
	Fret   int    `json:"fret"`
	Finger int    `json:"finger,omitempty"`
	Note   string `json:"note" doc:"as it sounds, such as Bb3"`
	MIDI   int    `json:"midi"`
	Degree string `json:"degree,omitempty"`
	From   int    `json:"from" doc:"the note before it on its string, which it is slid, hammered or pulled from; -1 is none"`
	score.Ornaments
	score.Guesses
	Signs []Sign `json:"signs,omitempty" doc:"of the ways it is played, but joins, bends, vibrato and trills"`
}

// Sign is drawn at a note.
type Sign struct {
	Kind  string `json:"kind" enum:"words,head,in,out,back,rake" doc:"words above the tablature, the engraver's sign at the head, a line into the fret, out of it, to another and back, crosses before it"`
	Text  string `json:"text,omitempty"`
	Value int    `json:"value" doc:"how much of it: frets or strings"`
}

func wireScore(s score.Score) Score {
	w := Score{Title: s.Title, Key: s.Key.String(), Signature: s.Key.Signature(), Beats: s.Beats, Tempo: s.Tempo, Swing: s.Swing,
		Bass: s.Bass(), Strings: s.In.Strings(), Measures: []Measure{}, Notes: wireWritten(s)}
	last := ""
	for _, m := range s.Engrave() {
		wm := Measure{Number: m.Number, Start: m.Start, Chords: []Symbol{}, Strokes: []Stroke{}}
		if m.Number > 0 {
			bar := s.Bars[m.Number-1]
			wm.Section, wm.Row = bar.Section, bar.Row
			for _, c := range bar.Changes {
				if symbol := c.Chord.String(); symbol != last || bar.Row && c.Beat == 0 {
					wm.Chords = append(wm.Chords, Symbol{c.Beat, symbol})
					last = symbol
				}
			}
		}
		for _, k := range m.Strokes {
			ws := Stroke{k.At, k.Value.Base, k.Value.Dotted, k.Value.Actual, k.Value.Normal, k.Tuplet, k.From, k.To, k.Notes}
			if ws.Notes == nil {
				ws.Notes = []int{}
			}
			wm.Strokes = append(wm.Strokes, ws)
		}
		w.Measures = append(w.Measures, wm)
	}
	return w
}

func wireWritten(s score.Score) []Written {
	list := make([]Written, len(s.Notes))
	for i, n := range s.Notes {
		list[i] = Written{n.Start, n.Length, n.String, n.Fret, n.Finger, n.Pitch.String(), n.Pitch.MIDI(), n.Degree, -1, n.Ornaments, n.Guesses, nil}
		for _, sign := range n.Signs() {
			list[i].Signs = append(list[i].Signs, Sign{string(sign.Kind), sign.Text, sign.Value})
		}
	}
	for i := range s.Notes {
		if next, ok := s.Joined(i); ok {
			list[next].From = i
		}
	}
	return list
}

func musicXML(s score.Score) download {
	return file("application/vnd.recordare.musicxml+xml", s.Title, "musicxml", musicxml.Write(s))
}
