package edit

import (
	"undaris/core/line"
	"undaris/core/score"
)

// Note is a note of a study: where it lies, how it is written, and what it does.
type Note struct {
	score.Written
	line.Reading
	Hand string // what the fretting hand does beside putting a finger down; "" where it does no more
}

// Study is a line looked at: engraved, and checked by its rule of what may rest.
type Study struct {
	Line      Line
	Measures  []score.Measure
	Notes     []Note
	Report    line.Report
	Stretches []score.Stretch
}

// Study looks at a line. An exercise is not told what a solo would be told.
func (l Line) Study() Study {
	l.Notes = score.Numbered(l.Notes)
	st := Study{Line: l, Measures: l.Engrave(), Report: line.Check(l.Score, l.Palette, l.Rule)}
	if l.Exercise != "" {
		st.Report.Unscolded()
	}
	touches := score.Hands(l.In, l.Notes, l.Hand)
	for _, says := range []string{l.TooQuick(), l.Undone(touches)} {
		if says != "" {
			st.Report.Advice = append(st.Report.Advice, says)
		}
	}
	st.Stretches = score.StretchesOf(l.In, l.Notes, touches, l.Hand)
	hands := score.Deeds(l.Notes)
	for i, w := range l.Written() {
		st.Notes = append(st.Notes, Note{w, st.Report.Notes[i], hands[i]})
	}
	return st
}
