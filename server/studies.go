package server

import (
	"undaris/core/line"
)

// Study is a line with what the core sees in it.
type Study struct {
	Line   LineBody `json:"line"`
	Score  Score    `json:"score"`
	Report Report   `json:"report"`
	Said   []string `json:"said" doc:"what was guessed, cut or left out"`
}

// Report is a line checked.
type Report struct {
	Notes      []NoteReport `json:"notes" doc:"as the score's notes"`
	Landings   []Landing    `json:"landings" doc:"of every change"`
	Phrases    []Phrase     `json:"phrases"`
	ChordTones int          `json:"chordTones"`
	Palette    int          `json:"palette" doc:"notes of the palette alone"`
	Others     int          `json:"others"`
	Travel     float64      `json:"travel" doc:"of the hand, in millimetres"`
	Advice     []string     `json:"advice"`
}

// NoteReport is what one note is and does.
type NoteReport struct {
	Degree string `json:"degree"`
	Class  string `json:"class"`
	Role   string `json:"role"`
	Strong bool   `json:"strong"`
	Fault  bool   `json:"fault"`
	Says   string `json:"says"`
}

// Landing is what became of a change.
type Landing struct {
	At     int    `json:"at" doc:"ticks"`
	Bar    int    `json:"bar"`
	Beat   int    `json:"beat"`
	Chord  string `json:"chord"`
	Note   int    `json:"note" doc:"index; -1 in silence"`
	Degree string `json:"degree,omitempty"`
	When   string `json:"when" enum:"on time,pushed,resolved,leaned on,held over,late,wrong note,silent"`
	Landed bool   `json:"landed" doc:"the change is met, in one way or another"`
	Says   string `json:"says"`
}

// Phrase is a stretch between two breaths.
type Phrase struct {
	Name string `json:"name"`
	From int    `json:"from" doc:"index of its first note"`
	To   int    `json:"to"`
}

// study looks at a line.
func (o onPaper) study() Study {
	st := Study{Line: o.line(), Score: wireScore(o.Score), Said: o.Said}
	if st.Said == nil {
		st.Said = []string{}
	}
	r := line.Check(o.Score, o.Palette, o.rule)
	if o.body.Drill != "" {
		r.Unscolded()
	}
	st.Report = Report{Notes: []NoteReport{}, Landings: []Landing{}, Phrases: []Phrase{}, ChordTones: r.ChordTones, Palette: r.Palette, Others: r.Else, Travel: tenth(r.Travel), Advice: r.Advice}
	if st.Report.Advice == nil {
		st.Report.Advice = []string{}
	}
	for _, n := range r.Notes {
		st.Report.Notes = append(st.Report.Notes, NoteReport{string(n.Degree), string(n.Class), string(n.Role), n.Strong, n.Fault, n.Says})
	}
	for _, l := range r.Landings {
		st.Report.Landings = append(st.Report.Landings, Landing{l.At, l.At/o.Bar() + 1, l.At%o.Bar()/960 + 1, l.Chord.String(), l.Note, string(l.Degree), l.When, l.Landed(), l.Says})
	}
	for _, p := range r.Phrases {
		st.Report.Phrases = append(st.Report.Phrases, Phrase(p))
	}
	return st
}
