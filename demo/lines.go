package demo

import (
	"context"
	"fmt"

	"undaris/core/band"
	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/score"
	"undaris/store"
)

// solos are lines the core wrote for the band.
var solos = []struct {
	title, chart, palette string
	low, high             int
	wish                  line.Wish
}{
	{"Low Water, in threes", "Low Water", "minor-blues", 2, 6, line.Wish{Rhythm: "triplets", Density: 3, Contour: "arch", Phrasing: "call", Seed: 5}},
	{"Day Off, thirds first", "Harbourmaster’s Day Off", "composite", 5, 9, line.Wish{Rhythm: "eighths", Density: 4, Phrasing: "free", Targets: []harmony.Role{harmony.Third}, Approach: true, Seed: 11}},
	{"Slipway, first chorus", "Slipway Shuffle", "composite", 7, 11, line.Wish{Rhythm: "eighths", Density: 3, Contour: "arch", Phrasing: "aab", Approach: true, Seed: 3}},
}

// lines writes the solos over the band's charts.
func lines(s *store.Store, charts []store.Chart, shelf []store.Lick) error {
	in := neck.Standard()
	for _, d := range solos {
		for _, c := range charts {
			if c.Title != d.chart {
				continue
			}
			key, err := form.ParseKey(c.Key)
			if err != nil {
				return err
			}
			p, err := form.Read(c.Text, c.Beats, key)
			if err != nil {
				return err
			}
			w := d.wish
			w.Region = neck.Region{Low: d.low, High: d.high}
			if w.Palette, err = blend.PaletteByID(d.palette); err != nil {
				return err
			}
			sc := score.Score{Key: key, Progression: p, In: in, Swing: band.Swings(c.Feel)}
			if sc.Notes, err = line.Write(context.Background(), sc, w, neck.UsualHand); err != nil {
				return fmt.Errorf("demo line %q: %w", d.title, err)
			}
			if err := s.CreateLine(stored(d.title, c, d.palette, w.Region, sc)); err != nil {
				return err
			}
		}
	}
	return through(s, charts, shelf, in)
}

// through sends a box lick through the changes of the shuffle.
func through(s *store.Store, charts []store.Chart, shelf []store.Lick, in *neck.Instrument) error {
	for _, c := range charts {
		for _, l := range shelf {
			if c.Title != "Slipway Shuffle" || l.Title != "Two Lanterns" {
				continue
			}
			key, err := form.ParseKey(c.Key)
			if err != nil {
				return err
			}
			p, err := form.Read(c.Text, c.Beats, key)
			if err != nil {
				return err
			}
			w := neck.Region{Low: 7, High: 11}
			laid, err := l.Phrase().Through(context.Background(), p, key, lick.Aim{Land: true, Ground: lick.Ground{In: in, Region: w, Hand: neck.UsualHand}})
			if err != nil {
				return err
			}
			sc := score.Score{Key: key, Progression: p, In: in, Notes: laid.Notes}
			if err := s.CreateLine(stored("Two Lanterns through the changes", c, "composite", w, sc)); err != nil {
				return err
			}
		}
	}
	return nil
}

func stored(title string, c store.Chart, palette string, w neck.Region, sc score.Score) *store.Line {
	return &store.Line{Title: title, Key: c.Key, Feel: c.Feel, Tempo: c.Tempo, Beats: c.Beats, Text: c.Text, Palette: palette, Low: w.Low, High: w.High,
		Tuning: sc.In.Tuning(), Frets: sc.In.Frets, Capo: sc.In.Capo,
		Notes: store.LineNotes(sc.Notes), Locked: []int{}}
}
