package server

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"time"

	"undaris/core/band"
	"undaris/core/blend"
	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/lick"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
	"undaris/store"
)

// LineBody is a line as a player keeps it.
type LineBody struct {
	Title   string           `json:"title" maxLength:"160"`
	Key     string           `json:"key" maxLength:"10"`
	Feel    string           `json:"feel" maxLength:"40"`
	Tempo   int              `json:"tempo" doc:"beats a minute, 30 to 300"`
	Beats   int              `json:"beats" doc:"in a bar, 2 to 12"`
	Text    string           `json:"text" maxLength:"60000" doc:"the chords: | C7 | F7 |"`
	Palette string           `json:"palette,omitempty" maxLength:"40" doc:"what its notes are drawn from"`
	Low     int              `json:"low" doc:"first fret of the window it is written in"`
	High    int              `json:"high"`
	Tuning  string           `json:"tuning,omitempty" maxLength:"80" doc:"of the instrument it is written for; the player's where it is not said"`
	Frets   int              `json:"frets,omitempty" minimum:"0" maximum:"27"`
	Capo    int              `json:"capo,omitempty" minimum:"0" maximum:"12"`
	Notes   []store.LineNote `json:"notes" maxItems:"4000"`
	Locked  []int            `json:"locked,omitempty" maxItems:"1024" doc:"bars that are not to be written anew, from 1"`
	Drill   string           `json:"exercise,omitempty" maxLength:"40" doc:"the exercise that it is: it gets no advice"`
}

// Line is a stored line.
type Line struct {
	ID      uint `json:"id"`
	Version uint `json:"version" doc:"its ETag, without the quotes"`
	LineBody
	Bars    int       `json:"bars"`
	Updated time.Time `json:"updated"`
}

// LineRow is a line in a list.
type LineRow struct {
	ID      uint      `json:"id"`
	Version uint      `json:"version"`
	Title   string    `json:"title"`
	Key     string    `json:"key"`
	Feel    string    `json:"feel"`
	Tempo   int       `json:"tempo"`
	Beats   int       `json:"beats"`
	Bars    int       `json:"bars"`
	Low     int       `json:"low"`
	High    int       `json:"high"`
	Notes   int       `json:"notes" doc:"how many"`
	Updated time.Time `json:"updated"`
	Problem string    `json:"problem,omitempty" doc:"why it cannot be opened"`
}

func lineRow(l store.LineSummary) LineRow {
	return LineRow{l.ID, l.Version, l.Title, l.Key, l.Feel, l.Tempo, l.Beats, l.Bars, l.Low, l.High, l.Sounding, l.UpdatedAt, l.Problem}
}

// onPaper is a line read, with what a player says of it.
type onPaper struct {
	edit.Line
	body LineBody
	rule line.Rule // of what may rest
}

// read lays a line on the neck it is written for. Notes without a place, and
// notes whose place sounds otherwise there, have one found.
func (s *server) read(b LineBody) (o onPaper, err error) {
	player, err := s.store.Player()
	if err != nil {
		return o, err
	}
	if b.Tuning == "" {
		b.Tuning, b.Frets, b.Capo = player.Tuning, player.Frets, player.Capo
	}
	player.Tuning, player.Frets, player.Capo = b.Tuning, b.Frets, b.Capo
	in, hand, err := playerNeck(player.Player)
	if err != nil {
		return o, err
	}
	key, err := readKey("body.key", b.Key)
	if err != nil {
		return o, err
	}
	p, err := form.Read(b.Text, b.Beats, key)
	if err != nil {
		return o, at("body.text", b.Text, err)
	}
	if b.Tempo < form.MinTempo || b.Tempo > form.MaxTempo {
		return o, at("body.tempo", b.Tempo, say.Errorf("a tempo of %d; between %d and %d beats a minute can be played", b.Tempo, form.MinTempo, form.MaxTempo))
	}
	if _, ok := form.FeelByID(b.Feel); !ok {
		return o, at("body.feel", b.Feel, say.Errorf("there is no feel %q", b.Feel))
	}
	if o.rule, err = line.RuleByID(player.Rests); err != nil {
		o.rule = line.Usual
	}
	o.body, o.Hand, o.Window = b, hand, neck.Window{Low: b.Low, High: b.High}
	if o.Window == (neck.Window{}) {
		o.Window = in.Positions(key.Tonic.Class())[0].Window
	}
	if err := in.CheckWindow(o.Window); err != nil {
		return o, at("body.low", b.Low, err)
	}
	o.body.Palette = cmp.Or(b.Palette, blend.Palettes[0].ID)
	if o.Palette, err = blend.PaletteByID(o.body.Palette); err != nil {
		return o, at("body.palette", b.Palette, err)
	}
	o.Locked = map[int]bool{}
	for _, bar := range b.Locked {
		o.Locked[bar-1] = true
	}
	o.Score = score.Score{Title: clean(b.Title), Key: key, Tempo: b.Tempo, Swing: band.Swings(b.Feel), Progression: p, In: in}
	for i, n := range b.Notes {
		note := score.Note{ID: n.ID, Start: n.Start, Length: n.Length, Placement: neck.Placement{String: n.String, Fret: n.Fret}, Finger: n.Finger, Ornaments: n.Ornaments, Guesses: n.Guesses}
		if note.Pitch, err = pitch.ParsePitch(n.Note); err != nil {
			if n.Note != "" || in.CheckPlacement(note.Placement) != nil {
				return o, at(fmt.Sprintf("body.notes[%d].note", i), n.Note, err)
			}
			midi := in.MIDI(note.Placement)
			note.Pitch = pitch.At(midi, o.Spell(note.Start, midi))
		}
		o.Notes = append(o.Notes, note)
	}
	score.Sort(o.Notes)
	if err := o.Settle(); err != nil {
		return o, at("body.notes", nil, err)
	}
	lick.Label(o.Score)
	return o, nil
}

// line writes a score back as a line.
func (o onPaper) line() LineBody {
	b := o.body
	b.Title, b.Text, b.Key, b.Tempo = o.Title, o.Text(), o.Key.String(), o.Tempo
	b.Low, b.High = o.Window.Low, o.Window.High
	b.Tuning, b.Frets, b.Capo = o.In.Tuning(), o.In.Frets, o.In.Capo
	b.Notes = store.LineNotes(o.Notes)
	if b.Locked == nil {
		b.Locked = []int{}
	}
	return b
}

func wireLine(l store.Line) Line {
	b := LineBody{l.Title, l.Key, l.Feel, l.Tempo, l.Beats, l.Text, l.Palette, l.Low, l.High, l.Tuning, l.Frets, l.Capo, l.Notes, l.Locked, l.Exercise}
	b.Notes = numbered(b.Notes)
	if b.Locked == nil {
		b.Locked = []int{}
	}
	return Line{l.ID, l.Version, b, l.Bars, l.UpdatedAt}
}

// numbered gives the notes without a number of their own one, the same each time
// they are read, so that two who change a line speak of the same notes.
func numbered(notes []store.LineNote) []store.LineNote {
	out := append([]store.LineNote{}, notes...)
	last := 0
	for _, n := range out {
		last = max(last, n.ID)
	}
	for i := range out {
		if out[i].ID == 0 {
			last++
			out[i].ID = last
		}
	}
	return out
}

// stored checks a line and makes it what is kept.
func (s *server) stored(_ context.Context, b LineBody) (store.Line, error) {
	if clean(b.Title) == "" {
		return store.Line{}, at("body.title", b.Title, errors.New("a line needs a title"))
	}
	o, err := s.read(b)
	if err != nil {
		return store.Line{}, err
	}
	b = o.line()
	return store.Line{Title: b.Title, Key: o.Key.String(), Feel: b.Feel, Tempo: b.Tempo, Beats: b.Beats, Text: b.Text, Palette: b.Palette, Low: b.Low, High: b.High, Tuning: b.Tuning, Frets: b.Frets, Capo: b.Capo, Notes: b.Notes, Locked: b.Locked, Exercise: b.Drill}, nil
}
