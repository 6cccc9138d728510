package store

import (
	"time"

	"gorm.io/gorm"

	"undaris/core/score"
)

// Line is a written line with the chords it is played over.
type Line struct {
	ID        uint
	Title     string
	Key       string // as form.ParseKey reads it
	Feel      string // an ID of form.Feels
	Tempo     int
	Beats     int
	Text      string     // as form.Read reads it
	Palette   string     // an ID of blend.Palettes
	Low, High int        // the window it is written in
	Notes     []LineNote `gorm:"serializer:json"`
	Locked    []int      `gorm:"serializer:json"` // bars, from 1
	CreatedAt time.Time
	UpdatedAt time.Time
	DeletedAt gorm.DeletedAt
}

// LineNote is a note of a line. Its place is that of the instrument it was
// written for; on another one its pitch is what counts.
type LineNote struct {
	Start  int    `json:"start" doc:"ticks from the first bar, 960 to the quarter; negative in a pickup"`
	Length int    `json:"length" doc:"ticks"`
	Note   string `json:"note" doc:"as it sounds where it is fretted, such as Bb3"`
	String int    `json:"string,omitempty" doc:"1 is the highest; 0 has a place found for it"`
	Fret   int    `json:"fret"`
	Finger int    `json:"finger,omitempty"`
	score.Ornaments
	score.Guesses
}

// LineNotes makes the notes of a score those of a line.
func LineNotes(notes []score.Note) []LineNote {
	list := make([]LineNote, len(notes))
	for i, n := range notes {
		list[i] = LineNote{n.Start, n.Length, n.Pitch.String(), n.String, n.Fret, n.Finger, n.Ornaments, n.Guesses}
	}
	return list
}

// Lines lists the lines, the one changed last first.
func (s *Store) Lines() ([]Line, error) { return newest[Line](s) }

// Line finds one.
func (s *Store) Line(id uint) (Line, error) { return one[Line](s, id) }

// CreateLine stores a new line and gives it its ID.
func (s *Store) CreateLine(l *Line) error { return s.db.Create(l).Error }

// UpdateLine stores all of a line that is there already.
func (s *Store) UpdateLine(l *Line) error { return update(s, l) }

// DeleteLine marks a line as deleted.
func (s *Store) DeleteLine(id uint) error { return remove[Line](s, id) }

// RestoreLine takes a deletion back.
func (s *Store) RestoreLine(id uint) (Line, error) { return restore[Line](s, id) }
