package store

import (
	"database/sql"
	"time"

	"undaris/core/score"
)

// Line is a written line with the chords it is played over.
type Line struct {
	Kept
	Title     string
	Key       string // as form.ParseKey reads it
	Feel      string // an ID of form.Feels
	Tempo     int
	Beats     int
	Text      string // as form.Read reads it
	Bars      int    // that the text has
	Sounding  int    // how many notes it has
	Palette   string // an ID of blend.Palettes
	Low, High int    // the window it is written in
	Tuning    string // of the instrument it is written for, as neck.New reads it
	Frets     int
	Capo      int
	Notes     []LineNote `gorm:"serializer:json"`
	Locked    []int      `gorm:"serializer:json"` // bars, from 1
	Exercise  string     // an ID of exercise.Drills, where it is one
}

func (l *Line) derive() {
	l.Bars, _ = gist(l.Text, l.Beats, l.Key)
	l.Sounding = len(l.Notes)
}

// LineNote is a note of a line. Its place is that of the instrument the line is
// written for; on another one its pitch is what counts.
type LineNote struct {
	ID     int    `json:"id,omitempty" minimum:"0" maximum:"1000000000" doc:"the page's own number of the note; it comes back with it"`
	Start  int    `json:"start" minimum:"-11520" maximum:"11796480" doc:"ticks from the first bar, 960 to the quarter; negative in a pickup"`
	Length int    `json:"length" minimum:"1" maximum:"11796480" doc:"ticks"`
	Note   string `json:"note" maxLength:"8" doc:"as it sounds where it is fretted, such as Bb3"`
	String int    `json:"string,omitempty" minimum:"0" maximum:"8" doc:"1 is the highest; 0 has a place found for it"`
	Fret   int    `json:"fret" minimum:"0" maximum:"27"`
	Finger int    `json:"finger,omitempty" minimum:"0" maximum:"4"`
	score.Ornaments
	score.Guesses
}

// LineNotes makes the notes of a score those of a line.
func LineNotes(notes []score.Note) []LineNote {
	list := make([]LineNote, len(notes))
	for i, n := range notes {
		list[i] = LineNote{n.ID, n.Start, n.Length, n.Pitch.String(), n.String, n.Fret, n.Finger, n.Ornaments, n.Guesses}
	}
	return list
}

// LineSummary is a line in a list. Problem says why it cannot be read.
type LineSummary struct {
	ID, Version        uint
	Title, Key, Feel   string
	Tempo, Beats, Bars int
	Low, High          int
	Sounding           int // notes
	UpdatedAt          time.Time
	Problem            string
}

// Lines lists the lines, the one changed last first.
func (s *Store) Lines(p Page) ([]LineSummary, error) {
	return summaries(s, `SELECT id, title, version, key, feel, tempo, beats, bars, low, high, sounding, updated_at FROM lines
		WHERE deleted_at IS NULL ORDER BY updated_at DESC, id DESC`, p,
		func(r *sql.Rows, l *LineSummary) error {
			return r.Scan(&l.ID, &l.Title, &l.Version, &l.Key, &l.Feel, &l.Tempo, &l.Beats, &l.Bars, &l.Low, &l.High, &l.Sounding, &l.UpdatedAt)
		},
		func(id uint, title, says string) LineSummary {
			return LineSummary{ID: id, Title: title, Problem: says}
		})
}

// CountLines is how many lines there are.
func (s *Store) CountLines() (int, error) { return s.count("lines") }

// Line finds one.
func (s *Store) Line(id uint) (Line, error) { return one[Line](s, id) }

// CreateLine stores a new line and gives it its number and version.
func (s *Store) CreateLine(l *Line) error { return create[Line](s, l) }

// ChangeLine lets do alter a line.
func (s *Store) ChangeLine(id, version uint, do func(*Line) error) (Line, error) {
	return change(s, id, version, []any{"title", "key", "feel", "tempo", "beats", "text", "bars", "sounding", "palette", "low", "high", "tuning", "frets", "capo", "notes", "locked", "exercise"}, do)
}

// DeleteLine marks a line as deleted.
func (s *Store) DeleteLine(id, version uint) error { return remove[Line](s, id, version) }

// RestoreLine takes a deletion back.
func (s *Store) RestoreLine(id uint) (Line, error) { return restore[Line](s, id) }
