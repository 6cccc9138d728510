package life

import (
	"context"

	"undaris/core/band"
	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/score"
	"undaris/store"
)

// other is a line on another instrument.
type other struct {
	title, chart, tuning string
	scale                float64
	low, high            int
	wish                 line.Wish
}

// otherLines are the bass player's, and one in a lowered tuning.
var otherLines = []other{
	{"Low Water, from below", "Low Water", "E1,A1,D2,G2", 864, 2, 7, line.Wish{Rhythm: "eighths", Density: 2, Contour: "arch", Phrasing: "free", ChordTones: true, Seed: 4}},
	{"Pier in drop D", "The Long Pier", "D2,A2,D3,G3,B3,E4", 648, 3, 8, line.Wish{Rhythm: "sixteenths", Density: 2, Phrasing: "call", Approach: true, Seed: 8}},
}

// others writes them over the band's charts.
func others(s *store.Store, h *hands) {
	all := titled(s)
	for _, o := range otherLines {
		h.keep(o.write(s, all[o.chart]))
	}
}

func (o other) write(s *store.Store, chart uint) error {
	c, err := s.Chart(chart)
	if err != nil {
		return err
	}
	in, err := neck.New(o.tuning, 22, o.scale, 0)
	if err != nil {
		return err
	}
	key, err := form.ParseKey(c.Key)
	if err != nil {
		return err
	}
	p, err := form.Read(c.Text, c.Beats, key)
	if err != nil {
		return err
	}
	w := o.wish
	w.Region, w.Palette = neck.Region{Low: o.low, High: o.high}, blend.Palettes[0]
	sc := score.Score{Key: key, Progression: p, In: in, Swing: band.Swings(c.Feel)}
	if sc.Notes, err = line.Write(context.Background(), sc, w, neck.UsualHand); err != nil {
		return err
	}
	return s.CreateLine(&store.Line{Title: o.title, Key: c.Key, Feel: c.Feel, Tempo: c.Tempo, Beats: c.Beats, Text: c.Text, Palette: w.Palette.ID, Low: o.low, High: o.high,
		Tuning: in.Tuning(), Frets: in.Frets, Notes: store.LineNotes(sc.Notes), Locked: []int{}})
}
