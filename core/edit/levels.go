package edit

import (
	"slices"

	"undaris/core/score"
)

// Level is a form of a line or a lick, from plain to as it is written.
type Level struct {
	ID, Name string
	Line     Line
}

// rungs are the devices that a plain form is dressed with, one after the other, in the order in which hands learn them. Vibrato,
// accents and what else adorns come last.
var rungs = []struct {
	id, name string
	off      func(l *Line)
}{
	{"slurs", "with slurs", func(l *Line) {
		l.each(func(o *score.Ornaments) {
			if o.Join == score.Hammer || o.Join == score.PullOff {
				o.Join = score.Picked
			}
			o.Trill, o.Turn, o.Double = 0, 0, 0
		})
	}},
	{"slides", "with slides", func(l *Line) {
		l.each(func(o *score.Ornaments) {
			if o.Join == score.Slide {
				o.Join = score.Picked
			}
			o.Scoop, o.SlideBack, o.SlideOut = 0, 0, 0
		})
	}},
	{"bends", "with bends", func(l *Line) {
		if slices.ContainsFunc(l.Notes, func(n score.Note) bool { return n.Bend > 0 }) {
			*l = l.Unbent()
		}
	}},
	{"written", "as it is", func(l *Line) {
		l.each(func(o *score.Ornaments) {
			*o = score.Ornaments{Join: o.Join, Scoop: o.Scoop, SlideBack: o.SlideBack, SlideOut: o.SlideOut, Bend: o.Bend, PreBend: o.PreBend, Again: o.Again,
				Release: o.Release, ReleaseTo: o.ReleaseTo, Trill: o.Trill, Turn: o.Turn, Double: o.Double, Dead: o.Dead, Stroke: o.Stroke}
		})
	}},
}

// Levels are the forms of a line: plain, and dressed with one kind of device more each time, up to as it is. A kind that the line
// does not have makes no form of its own; a line that is plain has one form.
func (l Line) Levels() (list []Level) {
	at := Level{"plain", "plain", l.without(0)}
	for k, r := range rungs {
		next := l.without(k + 1)
		if slices.Equal(next.Notes, at.Line.Notes) {
			continue
		}
		list = append(list, at)
		at = Level{r.id, r.name, next}
	}
	if len(list) > 0 { // whatever comes last is all that there is
		at.ID, at.Name = "written", "as it is"
	}
	return append(list, at)
}

// without leaves out the devices from one on.
func (l Line) without(from int) Line {
	l.Notes = slices.Clone(l.Notes)
	for _, r := range rungs[from:] {
		r.off(&l)
	}
	return l
}

func (l *Line) each(do func(*score.Ornaments)) {
	for i := range l.Notes {
		do(&l.Notes[i].Ornaments)
	}
}
