package server

import (
	"undaris/core/edit"
	"undaris/core/line"
)

// Study is a line with what the core sees in it.
type Study struct {
	Line   LineHead `json:"line"`
	Score  Score    `json:"score" doc:"with the notes of the line"`
	Report Report   `json:"report"`
	Said   []string `json:"said" doc:"what was guessed, cut or left out"`
}

// Report is a line checked; what its notes do stands with them.
type Report struct {
	Landings   []Landing `json:"landings" doc:"of every change"`
	Phrases    []Phrase  `json:"phrases"`
	ChordTones int       `json:"chordTones"`
	Palette    int       `json:"palette" doc:"notes of the palette alone"`
	Others     int       `json:"others"`
	Travel     float64   `json:"travel" doc:"of the hand, in millimetres"`
	Advice     []string  `json:"advice"`
}

// Landing is what became of a change.
type Landing struct {
	At     int    `json:"at" doc:"ticks"`
	Bar    int    `json:"bar"`
	Beat   int    `json:"beat"`
	Chord  string `json:"chord"`
	Note   int    `json:"note,omitempty" doc:"the number of the note; none in silence"`
	Degree string `json:"degree,omitempty"`
	When   string `json:"when" enum:"on time,pushed,resolved,leaned on,held over,late,wrong note,silent"`
	Landed bool   `json:"landed" doc:"the change is met, in one way or another"`
	Says   string `json:"says"`
}

// Phrase is a stretch between two breaths.
type Phrase struct {
	Name  string `json:"name"`
	First int    `json:"first" doc:"the number of its first note"`
	Last  int    `json:"last"`
	Start int    `json:"start" doc:"ticks"`
	End   int    `json:"end"`
}

func wireDoes(n edit.Note) Written {
	w := wireWritten(n.Written)
	w.Does = &Does{string(n.Reading.Degree), string(n.Class), string(n.Role), n.Strong, n.Fault, n.Says}
	return w
}

// study looks at a line.
func (o lineIn) study() Study {
	st := o.Study(o.rule)
	sc := st.Line.Score
	landing := func(l line.Landing) Landing {
		w := Landing{l.At, o.BarOf(l.At) + 1, o.InBar(l.At)/960 + 1, l.Chord.String(), 0, string(l.Degree), l.When, l.Landed(), l.Says}
		if l.Note >= 0 {
			w.Note = sc.Notes[l.Note].ID
		}
		return w
	}
	phrase := func(p line.Phrase) Phrase {
		first, last := sc.Notes[p.From], sc.Notes[p.To]
		return Phrase{p.Name, first.ID, last.ID, first.Start, last.End()}
	}
	r := st.Report
	return Study{wireHead(st.Line), wirePaper(sc, st.Measures, each(st.Notes, wireDoes)),
		Report{each(r.Landings, landing), each(r.Phrases, phrase), r.ChordTones, r.Palette, r.Else, tenth(r.Travel), words(r.Advice)}, words(o.Said)}
}
