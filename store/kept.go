package store

import "gorm.io/gorm"

// kept is a thing that is listed, changed, deleted and restored like any other.
type kept interface{ Lick | Line }

// newest lists things, the one changed last first.
func newest[T kept](s *Store) ([]T, error) {
	var all []T
	err := s.db.Order("updated_at DESC, id DESC").Find(&all).Error
	return all, err
}

func one[T kept](s *Store, id uint) (T, error) {
	var t T
	return t, found(s.db.First(&t, id).Error)
}

func update[T kept](s *Store, t *T) error {
	done := s.db.Model(t).Select("*").Omit("id", "created_at", "deleted_at").Updates(t)
	return affected(done)
}

func remove[T kept](s *Store, id uint) error {
	var t T
	return affected(s.db.Delete(&t, id))
}

// restore takes a deletion back. What is not deleted stays as it is.
func restore[T kept](s *Store, id uint) (T, error) {
	var t T
	if err := s.db.Unscoped().Model(&t).Where("id = ?", id).UpdateColumn("deleted_at", nil).Error; err != nil {
		return t, err
	}
	return one[T](s, id)
}

func affected(done *gorm.DB) error {
	if done.Error == nil && done.RowsAffected == 0 {
		return ErrNotFound
	}
	return done.Error
}
