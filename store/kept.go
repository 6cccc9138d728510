package store

import (
	"database/sql"
	"fmt"
	"time"

	"gorm.io/gorm"
)

// Kept is what everything has that is kept: a number, what it was born with, and a
// version that is drawn anew with each change. Tag is all of them.
type Kept struct {
	ID        uint
	Born      uint
	Version   uint
	Tag       Tag `gorm:"-" json:"-"`
	CreatedAt time.Time
	UpdatedAt time.Time
	DeletedAt gorm.DeletedAt
}

func (k *Kept) kept() *Kept { return k }

// thing is a Chart, Lick or Line. derive works out the columns that lists show.
type thing[T any] interface {
	*T
	kept() *Kept
	derive()
}

// listed is a list as it is kept: one without anything in it is [], not null.
func listed[E any](list []E) []E {
	if list == nil {
		return []E{}
	}
	return list
}

func create[T any, P thing[T]](s *Store, t P) error {
	k := t.kept()
	k.Born, k.Version = drawn(), drawn()
	t.derive()
	err := s.write(func(tx *gorm.DB) error { return tx.Create(t).Error })
	k.Tag = s.tag(k.Born, k.Version)
	return err
}

func one[T any, P thing[T]](s *Store, id uint) (T, error) {
	var t T
	if id == 0 { // GORM takes it for no condition
		return t, ErrNotFound
	}
	err := s.db.First(&t, id).Error
	if err == nil {
		err = legible(t)
	}
	k := P(&t).kept()
	k.Tag = s.tag(k.Born, k.Version)
	return t, s.fault(err)
}

// change reads a thing, lets do alter it, and writes the columns named, all in
// one transaction. With [ErrStale] it returns what is there now.
func change[T any, P thing[T]](s *Store, id uint, match Tag, columns []any, do func(P) error) (t T, err error) {
	if id == 0 {
		return t, ErrNotFound
	}
	err = s.write(func(tx *gorm.DB) error {
		if err := tx.First(&t, id).Error; err != nil {
			return err
		}
		k := P(&t).kept()
		k.Tag = s.tag(k.Born, k.Version)
		if !s.matches(match, k) {
			return ErrStale
		}
		created := *k
		if err := do(&t); err != nil {
			return err
		}
		*k = created
		k.Version = drawn()
		k.Tag = s.tag(k.Born, k.Version)
		k.UpdatedAt = time.Now()
		P(&t).derive()
		return tx.Model(&t).Select("version", append([]any{"updated_at"}, columns...)...).Updates(&t).Error
	})
	return t, err
}

// remove marks a thing as deleted, also one that cannot be read.
func remove[T any](s *Store, id uint, match Tag) error {
	return s.write(func(tx *gorm.DB) error {
		var t T
		var k Kept
		if err := tx.Model(&t).Select("id", "born", "version").Where("id = ?", id).Take(&k).Error; err != nil {
			return err
		}
		if !s.matches(match, &k) {
			return ErrStale
		}
		return tx.Model(&t).Where("id = ?", id).UpdateColumns(map[string]any{"deleted_at": time.Now(), "version": drawn()}).Error
	})
}

// restore takes a deletion back. What is not deleted stays as it is.
func restore[T any, P thing[T]](s *Store, id uint) (t T, err error) {
	err = s.write(func(tx *gorm.DB) error {
		return tx.Unscoped().Model(&t).Where("id = ? AND deleted_at IS NOT NULL", id).
			UpdateColumns(map[string]any{"deleted_at": nil, "version": drawn()}).Error
	})
	if err != nil {
		return t, err
	}
	return one[T, P](s, id)
}

// salvage takes the number and the title out of a row that does not read as it
// should; they come first in every list.
func salvage(rows *sql.Rows, cause error) (id uint, title string, err error) {
	columns, _ := rows.Columns()
	raw := make([]any, len(columns))
	into := make([]any, len(columns))
	for i := range raw {
		into[i] = &raw[i]
	}
	if rows.Scan(into...) == nil {
		if n, ok := raw[0].(int64); ok {
			id = uint(n)
		}
		title = fmt.Sprint(raw[1])
	}
	return id, title, cause
}
