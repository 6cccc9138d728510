// Package demo fills a database with the world of the Ferry Slip Players, a
// made-up band that rehearses for an evening at a made-up landing.
package demo

import (
	"fmt"

	"undaris/core/form"
	"undaris/store"
)

// charts are the band's tunes, the one to open first last.
var charts = []struct{ title, key, form, turnaround, feel string }{
	{"The Long Pier", "Ab", "sixteen-bar", "", "funk"},
	{"Last Boat Lights", "Db", "vamp-flat-seven", "", "straight"},
	{"Eight Bells Late", "F#", "eight-bar", "half-steps-down", "shuffle"},
	{"Harbourmaster’s Day Off", "Eb", "jazz-blues", "", "jazz"},
	{"Low Water", "Bm", "minor-blues", "", "slow-12-8"},
	{"Slipway Shuffle", "C", "quick-change", "", "shuffle"},
}

// Fill adds the demo data to a store that has no charts.
func Fill(s *store.Store) error {
	if have, err := s.CountCharts(store.All); err != nil || have > 0 {
		return err
	}
	var made []store.Chart
	for _, d := range charts {
		key, err := form.ParseKey(d.key)
		if err != nil {
			return err
		}
		f, ok := form.FormByID(d.form)
		if !ok {
			return fmt.Errorf("demo: no form %q", d.form)
		}
		p := f.In(key)
		for _, t := range form.Turnarounds {
			if t.ID == d.turnaround {
				p = p.ReplaceEnd(t.In(key))
			}
		}
		feel, ok := form.FeelByID(d.feel)
		if !ok {
			return fmt.Errorf("demo: no feel %q", d.feel)
		}
		c := store.Chart{Title: d.title, Key: d.key, Feel: d.feel, Tempo: feel.Tempo, Beats: 4, Text: p.Text()}
		if err := s.CreateChart(&c); err != nil {
			return err
		}
		made = append(made, c)
	}
	kept, err := shelf(s)
	if err != nil {
		return err
	}
	if err := lines(s, made, kept); err != nil {
		return err
	}
	return recording(s)
}

// recording is a tape of the band, which is rendered when it is first opened: nobody has found anything in it yet.
func recording(s *store.Store) error {
	all, err := s.Lines(store.All)
	if err != nil {
		return err
	}
	for _, l := range all {
		if l.Title == taped {
			r := store.Recording{Title: "Ferry Slip Players, third take", Hearing: store.Hearing{Beats: 4, Make: &store.Made{Line: l.ID, Cents: -30}}}
			return s.CreateRecording(&r)
		}
	}
	return fmt.Errorf("demo: no line %q", taped)
}

// taped is the line that the band plays on its tape.
const taped = "Slipway, first chorus"
