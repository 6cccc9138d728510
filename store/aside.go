package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// keptCopies is how many automatic copies stay.
const keptCopies = 10

// copyAside writes a whole copy of the database beside it, with what is still in
// its journal, makes sure that it is on the disk, and reads it back. The oldest
// copies go.
func (s *Store) copyAside(why string) (path string, err error) {
	path = s.path + "." + time.Now().UTC().Format("20060102-150405.000") + "." + why
	f, err := os.OpenFile(path, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return "", err
	}
	f.Close()
	defer func() {
		if err != nil {
			os.Remove(path)
		}
	}()
	if err := s.db.Exec("VACUUM INTO ?", path).Error; err != nil {
		return "", s.fault(err)
	}
	for _, name := range []string{path, filepath.Dir(path)} {
		if err := synced(name); err != nil {
			return "", err
		}
	}
	if err := s.same(path); err != nil {
		return "", err
	}
	if old := copiesOf(s.path); len(old) > keptCopies {
		for _, name := range old[:len(old)-keptCopies] {
			os.Remove(filepath.Join(filepath.Dir(s.path), name))
		}
	}
	return path, nil
}

// copiesOf are the names of the copies, the oldest first.
func copiesOf(path string) (list []string) {
	all, _ := filepath.Glob(path + ".2*")
	for _, name := range all {
		if strings.HasSuffix(name, "before-migration") || strings.HasSuffix(name, "rescued") || strings.HasSuffix(name, "before-restore") {
			list = append(list, filepath.Base(name))
		}
	}
	slices.Sort(list)
	return list
}

func synced(path string) error {
	f, err := os.Open(path)
	if err != nil {
		return err
	}
	defer f.Close()
	return f.Sync()
}

// same opens a copy, checks it, and compares how many rows each table has.
func (s *Store) same(path string) error {
	copied, err := sql.Open("sqlite", source(path, "mode=ro&immutable=1"))
	if err != nil {
		return err
	}
	defer copied.Close()
	var found string
	if err := copied.QueryRow("PRAGMA quick_check").Scan(&found); err != nil || found != "ok" {
		return errors.Join(fmt.Errorf("the copy %s is not sound (%s)", path, found), err)
	}
	ours, err := s.db.DB()
	if err != nil {
		return err
	}
	has, err := names(context.Background(), ours, `SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'`)
	if err != nil {
		return err
	}
	for _, table := range has {
		var here, there int
		count := `SELECT count(*) FROM "` + table + `"`
		if err := errors.Join(ours.QueryRow(count).Scan(&here), copied.QueryRow(count).Scan(&there)); err != nil {
			return err
		}
		if here != there {
			return fmt.Errorf("the copy %s has %d rows of %s where there are %d", path, there, table, here)
		}
	}
	return nil
}
