package store

import (
	"time"

	"gorm.io/gorm"
)

// Assignment is what a teacher sets a pupil: one that a player made, or was given. Its
// document is kept as it was read, also what this version knows nothing of.
type Assignment struct {
	ID        uint
	Player    uint // whose it is
	Given     bool // it came as a file
	Ref       string
	Since     uint   // the last line of the log before it was there
	Document  string // JSON, as it came
	Known     string // the same, as far as it is known
	Things    Things `gorm:"serializer:json"`
	CreatedAt time.Time
	DeletedAt gorm.DeletedAt
}

// Things are what the parts of an assignment are here, by number, in the order of its
// document; 0 is left out. Said tells what was left out and why.
type Things struct {
	Charts    []uint   `json:"charts"`
	Licks     []uint   `json:"licks"`
	Lines     []uint   `json:"lines"`
	Exercises []uint   `json:"exercises"` // lines that they became
	Said      []string `json:"said"`
}

// Results are what came back of an assignment.
type Results struct {
	ID           uint
	AssignmentID uint
	Ref          string // of the document itself
	Document     string // JSON
	CreatedAt    time.Time
}

// TableName is where results are kept.
func (Results) TableName() string { return "results" }

// Assignments lists those of a player, the newest first.
func (s *Store) Assignments(player uint) (list []Assignment, err error) {
	err = s.db.Where("player = ?", player).Order("id DESC").Find(&list).Error
	return list, s.fault(err)
}

// Assignment finds one.
func (s *Store) Assignment(id uint) (a Assignment, err error) {
	if id == 0 { // GORM takes it for no condition
		return a, ErrNotFound
	}
	return a, s.fault(s.db.First(&a, id).Error)
}

// CreateAssignment keeps a new one.
func (s *Store) CreateAssignment(a *Assignment) error {
	return s.write(func(tx *gorm.DB) error {
		if err := tx.Raw("SELECT coalesce(max(id), 0) FROM log").Scan(&a.Since).Error; err != nil {
			return err
		}
		return tx.Create(a).Error
	})
}

// AssignmentsOf lists those with a reference: whoever made or was given it.
func (s *Store) AssignmentsOf(ref string) (list []Assignment, err error) {
	err = s.db.Where("ref = ?", ref).Order("id").Find(&list).Error
	return list, s.fault(err)
}

// DeleteAssignment marks one as deleted; its charts, licks and lines stay.
func (s *Store) DeleteAssignment(id uint) error {
	return s.write(func(tx *gorm.DB) error {
		done := tx.Delete(&Assignment{}, "id = ?", id)
		if done.Error == nil && done.RowsAffected == 0 {
			return ErrNotFound
		}
		return done.Error
	})
}

// RestoreAssignment takes back that a player deleted one of theirs.
func (s *Store) RestoreAssignment(player, id uint) error {
	return s.write(func(tx *gorm.DB) error {
		done := tx.Unscoped().Model(&Assignment{}).Where("id = ? AND player = ?", id, player).UpdateColumn("deleted_at", nil)
		if done.Error == nil && done.RowsAffected == 0 {
			return ErrNotFound
		}
		return done.Error
	})
}

// KeepResults adds results to an assignment, in the place of the same ones read before.
func (s *Store) KeepResults(r *Results) error {
	return s.write(func(tx *gorm.DB) error {
		if err := tx.Where("assignment_id = ? AND ref = ?", r.AssignmentID, r.Ref).Delete(&Results{}).Error; err != nil {
			return err
		}
		return tx.Create(r).Error
	})
}

// ResultsOf lists what came back of an assignment, the newest first.
func (s *Store) ResultsOf(assignment uint) (list []Results, err error) {
	err = s.db.Where("assignment_id = ?", assignment).Order("id DESC").Find(&list).Error
	return list, s.fault(err)
}
