package edit

import (
	"undaris/core/line"
	"undaris/core/score"
)

// Note is a note of a study: where it lies, how it is written, and what it does.
type Note struct {
	score.Written
	line.Reading
}

// Study is a line looked at: engraved, and checked by a rule of what may rest.
type Study struct {
	Line     Line
	Measures []score.Measure
	Notes    []Note
	Report   line.Report
}

// Study looks at a line. An exercise is not told what a solo would be told.
func (l Line) Study(rule line.Rule) Study {
	l.Notes = score.Numbered(l.Notes)
	st := Study{Line: l, Measures: l.Engrave(), Report: line.Check(l.Score, l.Palette, rule)}
	if l.Exercise != "" {
		st.Report.Unscolded()
	}
	for i, w := range l.Written() {
		st.Notes = append(st.Notes, Note{w, st.Report.Notes[i]})
	}
	return st
}
