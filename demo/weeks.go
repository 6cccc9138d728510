package demo

import (
	"context"
	"fmt"
	"time"

	"undaris/core/blend"
	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/judge"
	"undaris/core/learner"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/planner"
	"undaris/core/practice"
	"undaris/core/score"
	"undaris/store"
)

// All is the demo with eight weeks of practice in its log.
func All(s *store.Store) error {
	have, err := s.CountCharts(store.All)
	if err != nil || have > 0 {
		return err
	}
	if err := Fill(s); err != nil {
		return err
	}
	return Weeks(s, time.Now())
}

// The made-up player, by seed: knows the first positions of the easy keys, goes down
// with less ease than up, and meets the four chord on its root.
const (
	player = 11
	weeks  = 8
	calls  = 24 // a day
)

// Weeks fills the log with the eight weeks before a day.
func Weeks(s *store.Store, until time.Time) error {
	taught, model := learner.NewHalving(player), planner.New(planner.Fitted)
	charts, err := s.Charts(store.All)
	if err != nil {
		return err
	}
	var everything []planner.Ask
	for _, a := range planner.Everything() { // this player looks at half of the keys, and never at the last position
		if a.Position < 4 && a.Key%2 == 0 || a.Position < 2 {
			everything = append(everything, a)
		}
	}
	var log []*store.Entry
	first := until.AddDate(0, 0, -7*weeks).Truncate(24 * time.Hour).Add(18 * time.Hour)
	for day := range 7 * weeks {
		if day%7 == 2 || day%7 == 6 || day%11 == 7 {
			continue // not every day
		}
		at := first.AddDate(0, 0, day)
		for i, a := range model.Choose(everything, calls, at, uint64(day)) {
			at = at.Add(20 * time.Second)
			log = append(log, call(taught, model, a, i, at))
		}
		for i := range 2 {
			c := charts[(day+i)%min(4, len(charts))]
			kept, err := s.Chart(c.ID)
			if err != nil {
				return err
			}
			at = at.Add(2 * time.Minute)
			e, err := chorus(kept, day, i, at)
			if err != nil {
				return err
			}
			for _, t := range e.Asked() {
				model.Learn(t.Ask, t.Success, at)
			}
			log = append(log, e)
		}
		for k, title := range []string{"Day Off, thirds first", "Low Water, in threes"} {
			if (day+k)%4 == 0 {
				tempo := []int{66, 54}[k] + day*(2-k)/3/5*5
				log = append(log, &store.Entry{At: at.Add(time.Minute), Kind: store.LoggedRung, Title: title, Tempo: tempo, Trials: []store.Trial{}})
			}
		}
	}
	return s.Log(log...)
}

// call is one that the player answered, or did not.
func call(l *learner.Halving, m *planner.Model, a planner.Ask, i int, at time.Time) *store.Entry {
	success, took := 0.4, 5200.0
	if l.Try(a, at) {
		success, took = 1, 2100+200*float64(i%7)
	} else if i%3 == 0 {
		success, took = 0, 0
	}
	m.Learn(a, success, at)
	key := form.Key{Tonic: planner.KeyName(a.Key)}
	chord := form.Forms[0].In(key).Places()[i%3].Chord
	way := "upward"
	if a.Down {
		way = "downward"
	}
	return &store.Entry{At: at, Kind: store.LoggedCall, Title: fmt.Sprintf("%s, %s from the %s", chord.Printed(), way, a.Degree), Tuning: neck.Standard().Tuning(), Seconds: took / 1000,
		Trials: []store.Trial{{Key: a.Key, Position: a.Position, Quality: chord.Suffix(), Degree: a.Degree, Down: a.Down, Device: a.Device, Chord: chord.String(), String: 1 + (i*5+a.Position)%6, Success: success, Ms: took}}}
}

// chorus is one that was played over a chart: better from week to week, the four
// chord on its root, a little behind the beat.
func chorus(c store.Chart, day, i int, at time.Time) (*store.Entry, error) {
	key, err := form.ParseKey(c.Key)
	if err != nil {
		return nil, err
	}
	p, err := form.Read(c.Text, c.Beats, key)
	if err != nil {
		return nil, err
	}
	in := neck.Standard()
	w := in.Positions(key.Tonic.Class())[day%3].Region
	over := edit.Line{Score: score.Score{Title: c.Title, Key: key, Tempo: c.Tempo, Progression: p, In: in}, Hand: neck.UsualHand, Region: w, Palette: blend.Palettes[0], Feel: c.Feel}
	m := practice.Modes[i] // any tone, then thirds
	wish := line.Wish{Region: w, Palette: blend.Palettes[0], Rhythm: "eighths", Density: 3, Approach: true, Seed: uint64(day*10 + i)}
	if i == 1 {
		wish.Targets = []harmony.Role{harmony.Third}
	}
	over.Notes, err = line.Write(context.Background(), over.Score, wish, over.Hand)
	if err != nil {
		return nil, err
	}
	const swing = 0.62 // asked; it is played too straight at first
	left := 1 - float64(day)/(7*weeks)/1.4
	heard, _ := judge.Player{Wrong: 0.12 * left, WrongOf: map[harmony.Role]float64{harmony.Seventh: 0.45 * left, harmony.Third: 0.3 * left}, Late: 0.25 * left, Missed: 0.1 * left, Spread: 16 + 14*left, Tendency: 14, Seed: uint64(day*10 + i)}.
		Play(over.Score, c.Tempo, swing-0.05*left)
	over.Notes = nil
	f, err := m.Judge(over, 0, heard, c.Tempo, swing)
	if err != nil {
		return nil, err
	}
	e := &store.Entry{At: at, Kind: store.LoggedTake, Title: fmt.Sprintf("%s, %s", c.Title, m.Name), Chart: c.ID, Tuning: in.Tuning(), Tempo: c.Tempo, Seconds: float64(p.Length()) * 60 / float64(c.Tempo), Swing: swing, Swung: judge.Swing(heard), Trials: []store.Trial{}}
	for _, t := range planner.FromFree(f, m, 0, heard, c.Tempo) {
		e.Trials = append(e.Trials, store.TrialOf(t))
	}
	return e, nil
}
