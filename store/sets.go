package store

import (
	"database/sql"
	"encoding/json"
	"time"
)

// Set is an evening's list: charts in the order they are played.
type Set struct {
	Kept
	Title string
	Items []SetItem `gorm:"serializer:json"`
}

// SetItem is a chart in a set, and how often its form is played.
type SetItem struct {
	Chart    uint `json:"chart" minimum:"1" maximum:"4294967295"`
	Choruses int  `json:"choruses" minimum:"1" maximum:"32"`
}

func (s *Set) derive() { s.Items = listed(s.Items) }

// SetSummary is a set in a list. Problem says why it cannot be read.
type SetSummary struct {
	ID        uint
	Tag       Tag
	Title     string
	Charts    int
	UpdatedAt time.Time
	Problem   string
}

// Sets lists the sets, the one changed last first.
func (s *Store) Sets(p Page) ([]SetSummary, error) {
	var items []byte
	return summaries(s, sets, p,
		func(r *sql.Rows, c *SetSummary) error {
			if err := r.Scan(&c.ID, &c.Title, &c.Tag, &items, &c.UpdatedAt); err != nil {
				return err
			}
			var all []SetItem
			err := json.Unmarshal(items, &all)
			c.Charts = len(all)
			return err
		},
		func(id uint, title, says string) SetSummary { return SetSummary{ID: id, Title: title, Problem: says} })
}

// CountSets is how many sets there are, or are found.
func (s *Store) CountSets(p Page) (int, error) { return s.count(sets, p) }

// Set finds one.
func (s *Store) Set(id uint) (Set, error) { return one[Set](s, id) }

// CreateSet stores a new set and gives it its number and version.
func (s *Store) CreateSet(c *Set) error { return create[Set](s, c) }

// ChangeSet lets do alter a set.
func (s *Store) ChangeSet(id uint, match Tag, do func(*Set) error) (Set, error) {
	return change(s, id, match, []any{"title", "items"}, do)
}

// DeleteSet marks a set as deleted.
func (s *Store) DeleteSet(id uint, match Tag) error { return remove[Set](s, id, match) }

// RestoreSet takes a deletion back.
func (s *Store) RestoreSet(id uint) (Set, error) { return restore[Set](s, id) }
