package store

import (
	"database/sql"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"sync"
	"sync/atomic"

	"github.com/go-gormigrate/gormigrate/v2"
	"gorm.io/driver/sqlite"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
	_ "modernc.org/sqlite" // registers the driver "sqlite"
)

// FileName is the database inside the data directory.
const FileName = "undaris.db"

// Store is an open database. Its methods may be called from many goroutines.
type Store struct {
	db       *gorm.DB
	path     string
	file     fs.FileInfo // as it was opened, to notice when it is taken away
	lock     *hold
	identity atomic.Pointer[string]
	writes   sync.Mutex // one writer at a time; SQLite knows no more
	gone     error      // set once the file was taken away
	beside   sync.WaitGroup
	closing  chan struct{}
	close    sync.Once
}

// Beside does something while nobody waits for it; what takes long asks [Store.Closing] on its way. Close waits for it.
func (s *Store) Beside(do func()) { s.beside.Go(do) }

// Closing tells whether the store is being closed.
func (s *Store) Closing() bool {
	select {
	case <-s.closing:
		return true
	default:
		return false
	}
}

// Open opens the database in a directory, making both if need be. It refuses a
// directory that another Undaris uses, and a file that is not ours, is newer
// than the program, locked or damaged; such a file is left as it was.
func Open(dir string) (_ *Store, err error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("the data directory %s cannot be made: %w", dir, err)
	}
	s := &Store{path: filepath.Join(dir, FileName), closing: make(chan struct{})}
	if s.lock, err = claim(dir); err != nil {
		return nil, err
	}
	defer func() {
		if err != nil {
			s.Close()
		}
	}()
	sweep(dir)
	pending, err := inspect(s.path)
	if err != nil {
		return nil, err
	}
	if err := private(s.path); err != nil {
		return nil, err
	}
	if s.file, err = os.Stat(s.path); err != nil {
		return nil, fmt.Errorf("the database %s cannot be read: %w", s.path, err)
	}
	// rw, not rwc: a file taken away is not made anew behind our back.
	s.db, err = gorm.Open(sqlite.New(sqlite.Config{
		DriverName: "sqlite",
		DSN:        source(s.path, "mode=rw&_pragma=busy_timeout(2000)&_pragma=journal_mode(WAL)&_pragma=foreign_keys(1)&_txlock=immediate"),
	}), &gorm.Config{Logger: logger.Discard, TranslateError: true})
	if err != nil {
		return nil, fmt.Errorf("the database %s cannot be opened: %w", s.path, s.fault(err))
	}
	if err := s.sound(); err != nil {
		return nil, err
	}
	if pending {
		if _, err := s.copyAside("before-migration"); err != nil {
			return nil, fmt.Errorf("the database %s could not be copied aside before its migration, so nothing was changed: %w", s.path, err)
		}
	}
	if err := gormigrate.New(s.db, gormigrate.DefaultOptions, migrations).Migrate(); err != nil {
		return nil, fmt.Errorf("the database %s could not be brought up to date: %w", s.path, s.fault(err))
	}
	if err := s.db.Exec(fmt.Sprintf("PRAGMA application_id = %d", applicationID)).Error; err != nil {
		return nil, fmt.Errorf("the database %s cannot be written: %w", s.path, s.fault(err))
	}
	if pending {
		// What moved out of the file leaves it; without room it stays as it is.
		_ = s.db.Exec("VACUUM").Error
		_ = s.db.Exec("PRAGMA wal_checkpoint(TRUNCATE)").Error
	}
	s.sweepFiles()
	if err := s.readIdentity(); err != nil {
		return nil, fmt.Errorf("the database %s cannot be used: %w", s.path, err)
	}
	return s, nil
}

// private makes the file, or makes an existing one readable by its owner alone;
// SQLite gives its companions the same rights.
func private(path string) error {
	f, err := os.OpenFile(path, os.O_CREATE|os.O_RDWR, 0o600)
	if err == nil {
		err = f.Chmod(0o600)
		f.Close()
	}
	if err != nil {
		return fmt.Errorf("the database %s cannot be written; look at the rights of the file and its directory: %w", path, err)
	}
	return nil
}

// sound lets SQLite check the file, and says what to do when it is damaged.
func (s *Store) sound() error {
	var found string
	err := s.db.Raw("PRAGMA quick_check(1)").Scan(&found).Error
	if err == nil && found == "ok" {
		return nil
	}
	if err != nil {
		if err = s.fault(err); !isDamage(err) {
			return fmt.Errorf("the database %s cannot be used, and was left as it is: %w", s.path, err)
		}
	}
	return damaged(s.path)
}

// damaged says what to do with a damaged file.
func damaged(path string) error {
	advice := "there is no copy beside it; keep the file, since much of it may still be read with SQLite's own recovery"
	if copies := copiesOf(path); len(copies) > 0 {
		advice = fmt.Sprintf("move it away and put the newest copy, %s, in its place under the name %s", copies[len(copies)-1], FileName)
	}
	return fmt.Errorf("the database %s is damaged and cannot be used, and was left as it is: %s", path, advice)
}

// write runs do in a transaction of its own, one at a time. What it says was
// written is in the file that is there now.
func (s *Store) write(do func(tx *gorm.DB) error) error {
	s.writes.Lock()
	defer s.writes.Unlock()
	if err := s.present(); err != nil {
		return err
	}
	if err := s.db.Transaction(do); err != nil {
		return s.fault(err)
	}
	return s.present()
}

// present notices when the file was removed or replaced while it was open. What
// was in it is then written to a copy, once, and nothing is accepted any more.
func (s *Store) present() error {
	if s.gone != nil {
		return s.gone
	}
	now, err := os.Stat(s.path)
	if err == nil && os.SameFile(now, s.file) {
		return s.claimed()
	}
	rescued, err := s.copyAside("rescued")
	if err != nil {
		s.gone = &Fault{Gone, "the database was removed or replaced while Undaris was running, so nothing can be saved; stop Undaris, put the file back and start again", err}
	} else {
		s.gone = &Fault{Gone, fmt.Sprintf("the database was removed or replaced while Undaris was running, so nothing can be saved any more; what was in it is now in %s. Stop Undaris, put that file in its place as %s and start again", filepath.Base(rescued), FileName), nil}
	}
	return s.gone
}

// Close finishes what is under way, closes the file and lets go of the directory.
func (s *Store) Close() error {
	var db *sql.DB
	var err error
	s.close.Do(func() { close(s.closing) })
	s.beside.Wait()
	if s.db != nil {
		if db, err = s.db.DB(); err == nil {
			err = db.Close()
		}
	}
	if s.lock != nil {
		s.lock.release()
	}
	return err
}
