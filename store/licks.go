package store

import (
	"database/sql"
	"encoding/json"
	"strings"
	"time"

	"undaris/core/lick"
	"undaris/core/score"
)

// Lick is a phrase on the player's shelf.
type Lick struct {
	Kept
	Title   string
	Chord   string // suffix of the chord it was made over; the mode for a lick of a key
	OfKey   bool
	Notes   []LickNote `gorm:"serializer:json"`
	Tags    []string   `gorm:"serializer:json"`
	Home    Home       `gorm:"serializer:json"` // where it was written
	Remark  string     // the player's own
	Source  string     // where it is from
	Heard   *Passage   `gorm:"serializer:json"` // the stretch of a recording that it was learned from
	LandsOn string     // the degree it ends on
	Leans   string     // the extensions that it leans on, as they are sought: "leans on 9 leans on 13"
	Length  float64    // beats from its first beat to its end
	Begins  string     // where in its bar
	Level   float64    // how hard it is, 1 to 10; 0 where it cannot be played on a guitar
	Hard    string     // what that comes from
}

func (l *Lick) derive() {
	l.Notes, l.Tags = listed(l.Notes), listed(l.Tags)
	l.Measure()
}

// Measure writes down how long the lick is, where it begins and lands, and how hard it is.
func (l *Lick) Measure() {
	if n := len(l.Notes); n > 0 {
		l.LandsOn = string(l.Notes[n-1].Degree)
	}
	phrase := l.Phrase()
	l.Leans = ""
	for _, d := range phrase.Leans() {
		l.Leans += " leans on " + string(d)
	}
	l.Leans = strings.TrimSpace(l.Leans)
	l.Length = float64(phrase.End()) / score.Tick
	l.Begins = phrase.Begins()
	if h, ok := phrase.Hardness(); ok {
		l.Level, l.Hard = h.Level, h.Says
	} else {
		l.Level, l.Hard = 0, ""
	}
}

// Phrase is the lick itself.
func (l Lick) Phrase() lick.Lick { return Phrase(l.Chord, l.OfKey, l.Notes) }

// LickSummary is a lick in a list. Problem says why it cannot be read.
type LickSummary struct {
	ID                    uint
	Tag                   Tag
	Title, Chord, LandsOn string
	Leans                 string // as in [Lick]
	Begins, Hard          string
	Level                 float64
	OfKey                 bool
	Length                float64
	Tags                  []string
	UpdatedAt             time.Time
	Problem               string
}

// Licks lists the shelf, the lick changed last first.
func (s *Store) Licks(p Page) ([]LickSummary, error) {
	var tags []byte
	return summaries(s, licked, p,
		func(r *sql.Rows, l *LickSummary) error {
			if err := r.Scan(&l.ID, &l.Title, &l.Tag, &l.Chord, &l.OfKey, &l.LandsOn, &l.Leans, &l.Length, &l.Begins, &l.Level, &l.Hard, &tags, &l.UpdatedAt); err != nil {
				return err
			}
			if string(tags) == "[]" {
				return nil
			}
			return json.Unmarshal(tags, &l.Tags)
		},
		func(id uint, title, says string) LickSummary {
			return LickSummary{ID: id, Title: title, Problem: says}
		})
}

// CountLicks is how many licks there are, or are found.
func (s *Store) CountLicks(p Page) (int, error) { return s.count(licked, p) }

// Lick finds one.
func (s *Store) Lick(id uint) (Lick, error) { return one[Lick](s, id) }

// CreateLick stores a new lick and gives it its number and version.
func (s *Store) CreateLick(l *Lick) error { return create[Lick](s, l) }

// ChangeLick lets do alter a lick.
func (s *Store) ChangeLick(id uint, match Tag, do func(*Lick) error) (Lick, error) {
	return change(s, id, match, []any{"title", "chord", "of_key", "notes", "tags", "home", "remark", "source", "heard", "lands_on", "leans", "length", "begins", "level", "hard"}, do)
}

// DeleteLick marks a lick as deleted.
func (s *Store) DeleteLick(id uint, match Tag) error { return remove[Lick](s, id, match) }

// RestoreLick takes a deletion back.
func (s *Store) RestoreLick(id uint) (Lick, error) { return restore[Lick](s, id) }
