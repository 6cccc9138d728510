package server

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"undaris/core/band"
	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/pitch"
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
	Notes   []store.LineNote `json:"notes" maxItems:"4000"`
	Locked  []int            `json:"locked,omitempty" maxItems:"1024" doc:"bars that are not to be written anew, from 1"`
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

// onPaper is a line read: its score on the player's neck.
type onPaper struct {
	score.Score
	body    LineBody
	hand    neck.Hand
	window  neck.Window
	palette blend.Palette
	said    []string
}

// read lays a line on the player's neck. Notes without a place, and notes whose
// place sounds otherwise on this instrument, have one found.
func (s *server) read(b LineBody) (o onPaper, err error) {
	player, err := s.store.Player()
	if err != nil {
		return o, err
	}
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
	if b.Tempo < minTempo || b.Tempo > maxTempo {
		return o, at("body.tempo", b.Tempo, fmt.Errorf("a tempo of %d; between %d and %d beats a minute can be played", b.Tempo, minTempo, maxTempo))
	}
	if _, ok := form.FeelByID(b.Feel); !ok {
		return o, at("body.feel", b.Feel, fmt.Errorf("there is no feel %q", b.Feel))
	}
	o = onPaper{body: b, hand: hand, window: neck.Window{Low: b.Low, High: b.High}}
	if o.window == (neck.Window{}) {
		o.window = in.Positions(key.Tonic.Class())[0].Window
		o.body.Low, o.body.High = o.window.Low, o.window.High
	}
	if err := in.CheckWindow(o.window); err != nil {
		return o, at("body.low", b.Low, err)
	}
	o.body.Palette = cmp.Or(b.Palette, blend.Palettes[0].ID)
	if o.palette, err = blend.PaletteByID(o.body.Palette); err != nil {
		return o, at("body.palette", b.Palette, err)
	}
	o.Score = score.Score{Title: clean(b.Title), Key: key, Tempo: b.Tempo, Swing: band.Swings(b.Feel), Progression: p, In: in}
	for i, n := range b.Notes {
		note := score.Note{Start: n.Start, Length: n.Length, Placement: neck.Placement{String: n.String, Fret: n.Fret}, Finger: n.Finger, Ornaments: n.Ornaments, Guesses: n.Guesses}
		if note.Pitch, err = pitch.ParsePitch(n.Note); err != nil {
			if n.Note != "" || in.CheckPlacement(note.Placement) != nil {
				return o, at(fmt.Sprintf("body.notes[%d].note", i), n.Note, err)
			}
			midi := in.MIDI(note.Placement)
			note.Pitch = pitch.At(midi, o.spell(note.Start, midi))
		}
		o.Notes = append(o.Notes, note)
	}
	score.Sort(o.Notes)
	if err := o.settle(); err != nil {
		return o, err
	}
	lick.Label(o.Score)
	return o, nil
}

// spell names a pitch as a tone of the chord of the moment, else as the key does.
func (o onPaper) spell(tick, midi int) pitch.Name {
	if chord, ok := o.ChordAt(tick); ok {
		if t, tone := chord.ToneAt(midi % 12); tone {
			return t.Name
		}
	}
	return o.Key.Spell(midi % 12)
}

// settle finds places for notes that have none that sounds right, and fingers.
func (o *onPaper) settle() error {
	lost, fingerless := 0, 0
	for i := range o.Notes {
		n := &o.Notes[i]
		if o.In.CheckPlacement(n.Placement) != nil || o.In.MIDI(n.Placement) != n.Pitch.MIDI() {
			n.Placement, n.Finger = neck.Placement{String: n.String}, 0 // it would rather stay on its string
			lost++
		}
		if n.Finger == 0 && n.Fret > 0 {
			fingerless++
		}
	}
	if lost > 0 {
		if err := o.place(); err != nil {
			return err
		}
		if lost == len(o.Notes) {
			o.said = append(o.said, "places on the neck were found for all notes")
		} else {
			o.said = append(o.said, fmt.Sprintf("places on the neck were found for %d notes", lost))
		}
	} else if fingerless > 0 {
		score.Finger(o.In, o.Notes, o.hand)
	}
	if err := o.Check(); err != nil {
		return at("body.notes", nil, err)
	}
	return nil
}

// place finds places for all notes: in the window where they fit, else wherever
// the hand goes least. Notes beyond the neck are left out and named.
func (o *onPaper) place() error {
	whole := neck.Window{Low: 0, High: o.In.Last()}
	var gone []string
	o.Notes = slices.DeleteFunc(o.Notes, func(n score.Note) bool {
		out := len(o.In.Find(n.Pitch.MIDI(), whole)) == 0
		if out {
			gone = append(gone, n.Pitch.String())
		}
		return out
	})
	if len(gone) > 0 {
		o.said = append(o.said, fmt.Sprintf("%d notes lie beyond the neck and were left out: %s", len(gone), strings.Join(slices.Compact(gone[:min(len(gone), 8)]), ", ")))
	}
	prefer := make([]int, len(o.Notes))
	for i, n := range o.Notes {
		prefer[i] = n.String
	}
	if _, _, ok := score.Place(o.In, o.Notes, o.window, o.hand, prefer); ok {
		return nil
	}
	if _, _, ok := score.Place(o.In, o.Notes, whole, o.hand, prefer); ok {
		return nil
	}
	// What no hand can do as asked is done plainly.
	for i := range o.Notes {
		o.Notes[i].Join, o.Notes[i].Scoop = score.Picked, 0
		if o.Notes[i].Bend > 2 {
			o.Notes[i].Bend = 2
		}
	}
	if _, _, ok := score.Place(o.In, o.Notes, whole, o.hand, nil); ok {
		o.said = append(o.said, "slides, hammer-ons and wide bends were left out: no hand can play them as they stand")
		return nil
	}
	return at("body.notes", nil, errors.New("no hand can play these notes together on this instrument"))
}

// line writes a score back as a line.
func (o onPaper) line() LineBody {
	b := o.body
	b.Title, b.Text = o.Title, o.Text()
	b.Notes = store.LineNotes(o.Notes)
	if b.Locked == nil {
		b.Locked = []int{}
	}
	return b
}

func wireLine(l store.Line) Line {
	b := LineBody{l.Title, l.Key, l.Feel, l.Tempo, l.Beats, l.Text, l.Palette, l.Low, l.High, l.Notes, l.Locked}
	if b.Notes == nil {
		b.Notes = []store.LineNote{}
	}
	if b.Locked == nil {
		b.Locked = []int{}
	}
	return Line{l.ID, l.Version, b, l.Bars, l.UpdatedAt}
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
	return store.Line{Title: b.Title, Key: o.Key.String(), Feel: b.Feel, Tempo: b.Tempo, Beats: b.Beats, Text: b.Text, Palette: b.Palette, Low: b.Low, High: b.High, Notes: b.Notes, Locked: b.Locked}, nil
}
