package store

import (
	"database/sql"
	"time"
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
	Low, High int    // frets of the region it is written in
	Strings   string // of that region, as neck.ParseStrings reads it
	Tuning    string // of the instrument it is written for, as neck.New reads it
	Frets     int
	Capo      int
	Notes     []LineNote `gorm:"serializer:json"`
	Locked    []int      `gorm:"serializer:json"` // bars, from 1
	Exercise  string     // an ID of exercise.Drills, where it is one
	Closing   string     // an ID of line.Closings that it was written with
	Remark    string     // the player's own
	Source    string     // where it is from
	Heard     *Passage   `gorm:"serializer:json"` // the stretch of a recording that it was learned from
}

func (l *Line) derive() {
	l.Bars, _ = gist(played(l.Text, l.Beats, l.Key))
	l.Notes, l.Locked = listed(l.Notes), listed(l.Locked)
	l.Sounding = len(l.Notes)
}

// LineSummary is a line in a list. Problem says why it cannot be read.
type LineSummary struct {
	ID                 uint
	Tag                Tag
	Title, Key, Feel   string
	Tempo, Beats, Bars int
	Low, High          int
	Sounding           int // notes
	UpdatedAt          time.Time
	Exercise           string
	Problem            string
}

// Lines lists the lines, the one changed last first.
func (s *Store) Lines(p Page) ([]LineSummary, error) {
	return summaries(s, lined, p,
		func(r *sql.Rows, l *LineSummary) error {
			return r.Scan(&l.ID, &l.Title, &l.Tag, &l.Key, &l.Feel, &l.Tempo, &l.Beats, &l.Bars, &l.Low, &l.High, &l.Sounding, &l.Exercise, &l.UpdatedAt)
		},
		func(id uint, title, says string) LineSummary {
			return LineSummary{ID: id, Title: title, Problem: says}
		})
}

// CountLines is how many lines there are, or are found.
func (s *Store) CountLines(p Page) (int, error) { return s.count(lined, p) }

// Line finds one.
func (s *Store) Line(id uint) (Line, error) { return one[Line](s, id) }

// CreateLine stores a new line and gives it its number and version.
func (s *Store) CreateLine(l *Line) error { return create[Line](s, l) }

// ChangeLine lets do alter a line.
func (s *Store) ChangeLine(id uint, match Tag, do func(*Line) error) (Line, error) {
	return change(s, id, match, []any{"title", "key", "feel", "tempo", "beats", "text", "bars", "sounding", "palette", "low", "high", "strings", "tuning", "frets", "capo", "notes", "locked", "exercise", "closing", "remark", "source", "heard"}, do)
}

// DeleteLine marks a line as deleted.
func (s *Store) DeleteLine(id uint, match Tag) error { return remove[Line](s, id, match) }

// RestoreLine takes a deletion back.
func (s *Store) RestoreLine(id uint) (Line, error) { return restore[Line](s, id) }
