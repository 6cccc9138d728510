package server

import (
	"undaris/core/edit"
	"undaris/core/line"
	"undaris/core/score"
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
	Landings   []Landing  `json:"landings" doc:"of every change"`
	Phrases    []Phrase   `json:"phrases"`
	Parts      []LinePart `json:"parts" doc:"stretches that are learned one by one"`
	ChordTones int        `json:"chordTones"`
	Palette    int        `json:"palette" doc:"notes of the palette alone"`
	Others     int        `json:"others"`
	Travel     float64    `json:"travel" doc:"of the hand, in millimetres"`
	Advice     []string   `json:"advice"`
	Stretches  []Stretch  `json:"stretches" doc:"where the hand lies wider than the player's comfort"`
	Strain     *Strain    `json:"strain,omitempty" doc:"of a drill of bends or trills"`
}

// LinePart is a stretch that is learned by itself, in whole bars.
type LinePart struct {
	Notes []int `json:"notes" doc:"their numbers"`
	Bar   int   `json:"bar" doc:"the first, from 1"`
	Bars  int   `json:"bars"`
	From  int   `json:"from" doc:"ticks"`
	To    int   `json:"to"`
}

// Strain is what a drill asks of a hand over and over.
type Strain struct {
	Notes  []int `json:"notes" doc:"the numbers of those that are bent or trilled"`
	Enough int   `json:"enough" doc:"so many of them, one after the other, are enough for a hand"`
}

// Stretch is a place of the hand that is wider than the player's comfort.
type Stretch struct {
	Notes []int   `json:"notes" doc:"their numbers"`
	Bar   int     `json:"bar"`
	Says  string  `json:"says" doc:"how wide, at which frets, and what to do"`
	There []Moved `json:"there" doc:"where its notes lie within comfort; none where there is no such place"`
}

// Moved is where a note would lie.
type Moved struct {
	ID     int `json:"id" doc:"of the note"`
	String int `json:"string"`
	Fret   int `json:"fret"`
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
	Role  string `json:"role,omitempty" doc:"question, answer, turnaround or coda"`
	Says  string `json:"says" doc:"what it takes from one before, and whether it stays open or closes"`
	First int    `json:"first" doc:"the number of its first note"`
	Last  int    `json:"last"`
	Start int    `json:"start" doc:"ticks"`
	End   int    `json:"end"`
}

func wireDoes(n edit.Note) Written {
	w := wireWritten(n.Written)
	w.Does = &Does{string(n.Reading.Degree), string(n.Class), string(n.Role), n.Strong, n.Fault, n.Says, n.Hand}
	return w
}

// study looks at a line.
func (o lineIn) study() Study {
	st := o.Study()
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
		return Phrase{p.Name, p.Role, p.Says(), first.ID, last.ID, first.Start, last.End()}
	}
	stretch := func(t score.Stretch) Stretch {
		w := Stretch{Bar: o.BarOf(max(0, sc.Notes[t.From].Start)) + 1, Says: t.Says(), There: []Moved{}}
		for _, n := range sc.Notes[t.From : t.To+1] {
			w.Notes = append(w.Notes, n.ID)
		}
		for k, p := range t.Places {
			w.There = append(w.There, Moved{sc.Notes[t.From+k].ID, p.String, p.Fret})
		}
		return w
	}
	part := func(p line.Part) LinePart {
		return LinePart{each(sc.Notes[p.From:p.To+1], func(n score.Note) int { return n.ID }), p.Bar + 1, p.BehindBar - p.Bar, sc.At(p.Bar), sc.At(p.BehindBar)}
	}
	var strain *Strain
	if notes := line.Strain(sc); len(notes) > 0 {
		strain = &Strain{each(notes, func(i int) int { return sc.Notes[i].ID }), line.Enough}
	}
	r := st.Report
	return Study{wireHead(st.Line), wirePaper(sc, st.Measures, each(st.Notes, wireDoes)),
		Report{each(r.Landings, landing), each(r.Phrases, phrase), each(line.Parts(sc), part), r.ChordTones, r.Palette, r.Else, tenth(r.Travel), words(r.Advice), each(st.Stretches, stretch), strain}, words(o.Said)}
}
