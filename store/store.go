package store

import (
	"database/sql"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"time"

	"github.com/go-gormigrate/gormigrate/v2"
	"gorm.io/driver/sqlite"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
	_ "modernc.org/sqlite" // registers the driver "sqlite"
)

// FileName is the database inside the data directory.
const FileName = "undaris.db"

// ErrNotFound is returned for a thing that is not there, or is deleted.
var ErrNotFound = errors.New("not found")

// Store is an open database. Its methods may be called from many goroutines.
type Store struct{ db *gorm.DB }

// Open opens the database in a directory, making both if need be.
func Open(dir string) (*Store, error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("the data directory %s cannot be made: %w", dir, err)
	}
	path := filepath.Join(dir, FileName)
	pending, err := inspect(path)
	if err != nil {
		return nil, err
	}
	if pending {
		if err := copyAside(path); err != nil {
			return nil, fmt.Errorf("the database %s could not be copied aside before its migration, so nothing was changed: %w", path, err)
		}
	}
	db, err := gorm.Open(sqlite.New(sqlite.Config{
		DriverName: "sqlite",
		DSN:        "file:" + path + "?_pragma=busy_timeout(2000)&_pragma=journal_mode(WAL)&_pragma=foreign_keys(1)&_txlock=immediate",
	}), &gorm.Config{Logger: logger.Discard, TranslateError: true})
	if err != nil {
		return nil, fmt.Errorf("the database %s cannot be opened: %w", path, err)
	}
	if err := gormigrate.New(db, gormigrate.DefaultOptions, migrations).Migrate(); err != nil {
		return nil, fmt.Errorf("the database %s could not be brought up to date: %w", path, err)
	}
	return &Store{db}, nil
}

// inspect looks at an existing file without touching it. pending tells that it
// needs a migration.
func inspect(path string) (pending bool, err error) {
	if _, err := os.Stat(path); errors.Is(err, os.ErrNotExist) {
		return false, nil
	} else if err != nil {
		return false, fmt.Errorf("the database %s cannot be read: %w", path, err)
	}
	db, err := sql.Open("sqlite", "file:"+path+"?mode=ro&_pragma=busy_timeout(1500)")
	if err != nil {
		return false, fmt.Errorf("the database %s cannot be opened: %w", path, err)
	}
	defer db.Close()
	var tables int
	if err := db.QueryRow(`SELECT count(*) FROM sqlite_master WHERE name = 'migrations'`).Scan(&tables); err != nil {
		return false, fmt.Errorf("the database %s cannot be used, and was left as it is: %w", path, err)
	}
	if tables == 0 {
		return false, nil
	}
	rows, err := db.Query(`SELECT id FROM migrations`)
	if err != nil {
		return false, fmt.Errorf("the database %s cannot be read: %w", path, err)
	}
	defer rows.Close()
	known := map[string]bool{}
	for _, m := range migrations {
		known[m.ID] = true
	}
	applied := 0
	for rows.Next() {
		var id string
		if err := rows.Scan(&id); err != nil {
			return false, err
		}
		if !known[id] {
			return false, fmt.Errorf("the database %s was written by a newer Undaris (it knows step %q); use that version, the file was left as it is", path, id)
		}
		applied++
	}
	return applied < len(migrations), rows.Err()
}

func copyAside(path string) error {
	from, err := os.Open(path)
	if err != nil {
		return err
	}
	defer from.Close()
	to, err := os.OpenFile(path+"."+time.Now().UTC().Format("20060102-150405.000")+".before-migration", os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	if _, err := io.Copy(to, from); err != nil {
		to.Close()
		return err
	}
	return to.Close()
}

// Close finishes what is under way and closes the file.
func (s *Store) Close() error {
	db, err := s.db.DB()
	if err != nil {
		return err
	}
	return db.Close()
}

// found turns GORM's missing row into ours.
func found(err error) error {
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return ErrNotFound
	}
	return err
}
