package store

import (
	"time"

	"gorm.io/gorm"

	"undaris/core/lick"
)

// Lick is a phrase on the player's shelf.
type Lick struct {
	ID        uint
	Title     string
	Chord     string // suffix of the chord it was made over; the mode for a lick of a key
	OfKey     bool
	Notes     []lick.Note `gorm:"serializer:json"`
	Tags      []string    `gorm:"serializer:json"`
	CreatedAt time.Time
	UpdatedAt time.Time
	DeletedAt gorm.DeletedAt
}

// Licks lists the shelf, the lick changed last first.
func (s *Store) Licks() ([]Lick, error) { return newest[Lick](s) }

// Lick finds one.
func (s *Store) Lick(id uint) (Lick, error) { return one[Lick](s, id) }

// CreateLick stores a new lick and gives it its ID.
func (s *Store) CreateLick(l *Lick) error { return s.db.Create(l).Error }

// UpdateLick stores all of a lick that is there already.
func (s *Store) UpdateLick(l *Lick) error { return update(s, l) }

// DeleteLick marks a lick as deleted.
func (s *Store) DeleteLick(id uint) error { return remove[Lick](s, id) }

// RestoreLick takes a deletion back.
func (s *Store) RestoreLick(id uint) (Lick, error) { return restore[Lick](s, id) }
