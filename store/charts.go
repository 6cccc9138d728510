package store

import (
	"time"

	"gorm.io/gorm"
)

// Chart is a progression to play over.
type Chart struct {
	ID        uint
	Title     string
	Key       string // as form.ParseKey reads it
	Feel      string // an ID of form.Feels
	Tempo     int    // beats a minute
	Beats     int    // in a bar
	Text      string // as form.Read reads it, in chord symbols
	Plan      Plan   `gorm:"serializer:json"`
	CreatedAt time.Time
	UpdatedAt time.Time
	OpenedAt  *time.Time
	DeletedAt gorm.DeletedAt
}

// Plan is what the player has decided about a chart. Empty fields mean the
// defaults.
type Plan struct {
	// Picks are the places chosen where a pitch can be had in two, as
	// "low-high string:fret" for the window they were chosen in.
	Picks []string `json:"picks,omitempty"`
	// Palette is an ID of blend.Palettes.
	Palette string `json:"palette,omitempty"`
	// Targets is the order in which roles are wanted, as harmony.ParseOrder reads it.
	Targets string `json:"targets,omitempty"`
	// Nearest ranks crossings by distance.
	Nearest bool `json:"nearest,omitempty"`
	// Thread is an ID of crossing.Modes.
	Thread string `json:"thread,omitempty"`
	// Allowed are roles by numeral ("IV7": "third"), in place of the mode's.
	Allowed map[string]string `json:"allowed,omitempty"`
	// Strings is a string set for the thread, "1-3"; empty is all strings.
	Strings string `json:"strings,omitempty"`
	// Pins are targets chosen by hand, as "low-high bar.beat string:fret" for the
	// window they were chosen in.
	Pins []string `json:"pins,omitempty"`
	// Imagined are bars that only the soloist follows.
	Imagined *Imagined `json:"imagined,omitempty"`
}

// Imagined is a stretch of bars that the soloist thinks and the band does not play.
type Imagined struct {
	Bar  int    `json:"bar"`  // the first, from 1
	Text string `json:"text"` // as form.Read reads it
}

// Charts lists the charts, the one opened last first.
func (s *Store) Charts() ([]Chart, error) {
	var all []Chart
	err := s.db.Order("coalesce(opened_at, created_at) DESC, id DESC").Find(&all).Error
	return all, err
}

// Chart finds one.
func (s *Store) Chart(id uint) (Chart, error) {
	var c Chart
	return c, found(s.db.First(&c, id).Error)
}

// CreateChart stores a new chart and gives it its ID.
func (s *Store) CreateChart(c *Chart) error { return s.db.Create(c).Error }

// UpdateChart stores all of a chart that is there already.
func (s *Store) UpdateChart(c *Chart) error {
	done := s.db.Model(c).Select("*").Omit("id", "created_at", "deleted_at", "opened_at").Updates(c)
	if done.Error == nil && done.RowsAffected == 0 {
		return ErrNotFound
	}
	return done.Error
}

// OpenChart notes that the player opened a chart.
func (s *Store) OpenChart(id uint, at time.Time) error {
	done := s.db.Model(&Chart{}).Where("id = ?", id).UpdateColumn("opened_at", at)
	if done.Error == nil && done.RowsAffected == 0 {
		return ErrNotFound
	}
	return done.Error
}

// DeleteChart marks a chart as deleted.
func (s *Store) DeleteChart(id uint) error {
	done := s.db.Delete(&Chart{}, id)
	if done.Error == nil && done.RowsAffected == 0 {
		return ErrNotFound
	}
	return done.Error
}

// RestoreChart takes a deletion back. A chart that is not deleted stays as it is.
func (s *Store) RestoreChart(id uint) (Chart, error) {
	if err := s.db.Unscoped().Model(&Chart{}).Where("id = ?", id).UpdateColumn("deleted_at", nil).Error; err != nil {
		return Chart{}, err
	}
	return s.Chart(id)
}
