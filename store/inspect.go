package store

import (
	"context"
	"database/sql"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strings"
)

// applicationID marks a SQLite file as ours, in its header ("Unda").
const applicationID = 0x556e6461

// derived are tables of what is made of others; a backup has none of them.
var derived = []string{"tallies", "pictures"}

// tables are those of every version so far.
var tables = []string{"charts", "players", "licks", "lines", "takes", "sounds", "log", "tallies", "pictures", "assignments", "results", "sets", "recordings", "identity", "migrations"}

// known tells whether a table is one of ours: those, and what the index of words of a list is made of.
func known(table string) bool {
	return slices.Contains(tables, table) || slices.ContainsFunc(listings, func(l *listing) bool { return strings.HasPrefix(table, l.table+"_words") })
}

// sweep clears away what a restore left that was killed.
func sweep(dir string) {
	left, _ := filepath.Glob(filepath.Join(dir, restoreDir+"*"))
	for _, path := range left {
		os.RemoveAll(path)
	}
}

// inspect looks at an existing file without touching it. pending tells that it
// needs a migration.
func inspect(path string) (pending bool, err error) {
	id, err := header(path)
	if errors.Is(err, os.ErrNotExist) {
		return false, nil
	} else if err != nil {
		return false, err
	}
	db, err := sql.Open("sqlite", source(path, "mode=ro&_pragma=busy_timeout(1500)"))
	if err != nil {
		return false, fmt.Errorf("the database %s cannot be opened: %w", path, err)
	}
	defer db.Close()
	cannot := func(err error) error {
		if isDamage((*Store)(nil).fault(err)) {
			return damaged(path)
		}
		return fmt.Errorf("the database %s cannot be used, and was left as it is: %w", path, err)
	}
	has, err := names(context.Background(), db, `SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'`)
	if err != nil {
		return false, cannot(err)
	}
	if len(has) == 0 && id == 0 { // nothing in it yet
		return false, nil
	}
	// The mark may still be in the journal beside the file, where a program was killed; the
	// first versions did not mark their files.
	if id == 0 {
		if err := db.QueryRow(`PRAGMA application_id`).Scan(&id); err != nil {
			return false, cannot(err)
		}
	}
	foreign := slices.ContainsFunc(has, func(t string) bool { return !known(t) })
	if id != 0 && id != applicationID || id == 0 && foreign || !slices.Contains(has, "migrations") {
		return false, fmt.Errorf("the database %s was made by another program, and was left as it is; name another directory with --data", path)
	}
	applied, err := names(context.Background(), db, `SELECT id FROM migrations`)
	if err != nil {
		return false, cannot(err)
	}
	for _, step := range applied {
		if !slices.ContainsFunc(migrations, func(m *migration) bool { return m.ID == step }) {
			return false, fmt.Errorf("the database %s was written by a newer Undaris (it knows step %q); use that version, the file was left as it is", path, step)
		}
	}
	return len(applied) < len(migrations), nil
}

// header reads the application's mark out of a SQLite file's first hundred bytes
// (SQLite file format, 1.3). An empty file has none.
func header(path string) (id uint32, err error) {
	f, err := os.Open(path)
	if err != nil {
		if errors.Is(err, os.ErrNotExist) {
			return 0, err
		}
		return 0, fmt.Errorf("the database %s cannot be read: %w", path, err)
	}
	defer f.Close()
	head := make([]byte, 100)
	switch n, err := io.ReadFull(f, head); {
	case n == 0 && errors.Is(err, io.EOF):
		return 0, nil
	case err != nil || string(head[:16]) != "SQLite format 3\x00":
		return 0, fmt.Errorf("the database %s cannot be used, and was left as it is: it is not a database", path)
	}
	return binary.BigEndian.Uint32(head[68:]), nil
}

// querier is a database, a connection or a transaction that can be asked.
type querier interface {
	QueryContext(ctx context.Context, query string, args ...any) (*sql.Rows, error)
}

func names(ctx context.Context, db querier, query string) (list []string, err error) {
	rows, err := db.QueryContext(ctx, query)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	for rows.Next() {
		var name string
		if err := rows.Scan(&name); err != nil {
			return nil, err
		}
		list = append(list, name)
	}
	return list, rows.Err()
}
