package server

import (
	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/score"
	"undaris/formats/musicxml"
	"undaris/store"
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
	Open      []int     `json:"open" doc:"MIDI numbers of the open strings, the highest string first"`
	Measures  []Measure `json:"measures"`
	Notes     []Written `json:"notes" doc:"by onset, then from the lowest"`
}

// Measure is a written bar.
type Measure struct {
	Number  int      `json:"number" doc:"from 1; 0 is a pickup"`
	Start   int      `json:"start" doc:"ticks from the first bar, 960 to the quarter"`
	Beats   int      `json:"beats" doc:"in the whole bar; a pickup has fewer"`
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
	Notes  []int `json:"notes" doc:"the notes, by their numbers; none is a rest"`
}

// Written is a note of a line: where it lies, how it is written and, in a study,
// what it does.
type Written struct {
	ID     int `json:"id"`
	String int `json:"string"`
	store.LineNote
	MIDI   int    `json:"midi"`
	Degree string `json:"degree,omitempty" doc:"of what is fretted, over its chord"`
	Before int    `json:"before,omitempty" doc:"the note before it on its string, which it is slid, hammered or pulled from"`
	Signs  []Sign `json:"signs,omitempty" doc:"of the ways it is played, but joins, bends, vibrato and trills"`
	Does   *Does  `json:"does,omitempty" doc:"what it does in its line, where that was looked at"`
}

// Does is what a note is, as it is heard, and does.
type Does struct {
	Degree string `json:"degree"`
	Class  string `json:"class"`
	Role   string `json:"role"`
	Strong bool   `json:"strong"`
	Fault  bool   `json:"fault"`
	Says   string `json:"says"`
	Hand   string `json:"hand,omitempty" doc:"what the fretting hand does beside putting a finger down"`
}

// Sign is drawn at a note.
type Sign struct {
	Kind  string `json:"kind" enum:"words,head,adorned,in,out,back,rake" doc:"words above the tablature, the engraver's sign at the head, a line into the fret, out of it, to another and back, crosses before it"`
	Text  string `json:"text,omitempty"`
	Value int    `json:"value" doc:"how much of it: frets or strings"`
}

// wireScore is a score on paper.
func wireScore(s score.Score) Score {
	s.Notes = score.Numbered(s.Notes)
	return wirePaper(s, s.Engrave(), each(s.Written(), wireWritten))
}

func wirePaper(s score.Score, measures []score.Measure, notes []Written) Score {
	w := Score{Title: s.Title, Key: s.Key.String(), Signature: s.Key.Signature(), Beats: s.Beats, Tempo: s.Tempo, Swing: s.Swing,
		Bass: s.Bass(), Strings: s.In.Strings(), Notes: notes}
	for str := range s.In.Strings() {
		w.Open = append(w.Open, s.In.MIDI(neck.Placement{String: str + 1}))
	}
	stroke := func(k score.Stroke) Stroke {
		return Stroke{k.At, k.Value.Base, k.Value.Dotted, k.Value.Actual, k.Value.Normal, k.Tuplet, k.From, k.To,
			each(k.Notes, func(i int) int { return s.Notes[i].ID })}
	}
	w.Measures = each(measures, func(m score.Measure) Measure {
		return Measure{m.Number, m.Start, m.Beats, m.Section, m.Row, each(m.Chords, wireSymbol), each(m.Strokes, stroke)}
	})
	return w
}

func wireSymbol(c form.Change) Symbol { return Symbol{c.Beat, c.Chord.String()} }

func wireWritten(w score.Written) Written {
	out := Written{ID: w.ID, String: w.Note.String, LineNote: store.NoteOf(w.Note), MIDI: w.Pitch.MIDI(), Degree: w.Degree, Before: w.From}
	if len(w.Signs) > 0 {
		out.Signs = each(w.Signs, func(d score.Drawn) Sign { return Sign{string(d.Kind), d.Text, d.Value} })
	}
	return out
}

// sheets are the two files that a score leaves as.
var sheets = []sheet{
	{"musicxml", "application/vnd.recordare.musicxml+xml", func(data []byte) ([]byte, error) { return data, nil }},
	{"mxl", "application/vnd.recordare.musicxml", musicxml.Compress},
}

type sheet struct {
	ending, kind string
	pack         func([]byte) ([]byte, error)
}

func (k sheet) file(title string, score []byte) (none download, err error) {
	data, err := k.pack(score)
	if err != nil {
		return none, err
	}
	return file(k.kind, title, k.ending, data), nil
}
