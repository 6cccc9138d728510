package store

import (
	"database/sql"
	"time"
)

// Take is what was played and kept: over which chords, written down, and as it was
// heard.
type Take struct {
	Kept
	Title     string
	Mode      string // an ID of practice.Modes; empty where a line was played
	Stage     int    // of the mode, from 0
	Tempo     int    // that it was played at
	Changes   int    // how many there were
	Landed    int    // and how many of them counted
	Good, Try string
	Line      Line        `gorm:"serializer:json"` // what was played, written down
	Heard     []HeardNote `gorm:"serializer:json"`
	Sounding  int         // how many notes were heard
	Sound     bool        // it is kept as it sounded, too
}

// HeardNote is judge.Heard as it is kept and sent.
type HeardNote struct {
	At     float64 `json:"at" minimum:"-46080" maximum:"11796480" doc:"ticks from the first bar, as the band counts them"`
	Length float64 `json:"length,omitempty" minimum:"0" maximum:"11796480"`
	Pitch  float64 `json:"pitch" minimum:"0" maximum:"127.99" doc:"MIDI number with its cents, where it came to rest: 60.25"`
	Sway   float64 `json:"sway,omitempty" minimum:"0" maximum:"12" doc:"half steps that it sways either way, of a vibrato"`
	Rate   float64 `json:"rate,omitempty" minimum:"0" maximum:"50" doc:"sways a second"`
	Uneven float64 `json:"uneven,omitempty" minimum:"0" maximum:"10" doc:"by how much its sways differ in length, a part of them"`
	Low    float64 `json:"low,omitempty" minimum:"0" maximum:"127.99" doc:"MIDI number, with its cents, that a vibrato comes back to"`
	Doubt  bool    `json:"doubt,omitempty" doc:"nobody knows that the player made it: it may be right, and cannot be wrong"`
}

func (t *Take) derive() {
	t.Line.derive()
	t.Heard = listed(t.Heard)
	t.Sounding = len(t.Heard)
}

// TakeSummary is a take in a list. Problem says why it cannot be read.
type TakeSummary struct {
	ID                                      uint
	Tag                                     Tag
	Title, Mode                             string
	Stage, Tempo, Changes, Landed, Sounding int
	Good                                    string
	Sound                                   bool
	CreatedAt                               time.Time
	Problem                                 string
}

// Takes lists the takes, the last first.
func (s *Store) Takes(p Page) ([]TakeSummary, error) {
	return summaries(s, taken, p,
		func(r *sql.Rows, t *TakeSummary) error {
			return r.Scan(&t.ID, &t.Title, &t.Tag, &t.Mode, &t.Stage, &t.Tempo, &t.Changes, &t.Landed, &t.Sounding, &t.Good, &t.Sound, &t.CreatedAt)
		},
		func(id uint, title, says string) TakeSummary {
			return TakeSummary{ID: id, Title: title, Problem: says}
		})
}

// CountTakes is how many takes there are, or are found.
func (s *Store) CountTakes(p Page) (int, error) { return s.count(taken, p) }

// Take finds one.
func (s *Store) Take(id uint) (Take, error) { return one[Take](s, id) }

// CreateTake stores a new take and gives it its number and version.
func (s *Store) CreateTake(t *Take) error { return create[Take](s, t) }

// ChangeTake lets do alter a take; what was heard stays.
func (s *Store) ChangeTake(id uint, match Tag, do func(*Take) error) (Take, error) {
	return change(s, id, match, []any{"title"}, do)
}

// DeleteTake marks a take as deleted.
func (s *Store) DeleteTake(id uint, match Tag) error { return remove[Take](s, id, match) }

// RestoreTake takes a deletion back.
func (s *Store) RestoreTake(id uint) (Take, error) { return restore[Take](s, id) }
