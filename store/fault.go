package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"strings"

	"gorm.io/gorm"
	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"
)

// ErrNotFound is returned for a thing that is not there, or is deleted.
var ErrNotFound = errors.New("not found")

// ErrStale is returned for a change of a version that is not the present one.
var ErrStale = errors.New("changed since it was read")

// Kind is what kind of trouble the disk or the file is in.
type Kind int

// The kinds of trouble.
const (
	Full Kind = iota + 1
	Locked
	Damaged
	ReadOnly
	Gone
	Unreadable // one thing, not the file
	Broken     // anything else
)

// Fault is trouble with the disk or the file. Nothing of what was asked was
// saved. Its text is for the player, its cause for the log.
type Fault struct {
	Kind  Kind
	Says  string
	Cause error
}

func (f *Fault) Error() string { return f.Says }
func (f *Fault) Unwrap() error { return f.Cause }

// faults says what SQLite's primary result codes mean to a player.
var faults = map[int]Fault{
	sqlite3.SQLITE_FULL:     {Full, "the disk is full; nothing was saved. Make room and try again", nil},
	sqlite3.SQLITE_BUSY:     {Locked, "the database is locked by another program; nothing was saved. Close that program and try again", nil},
	sqlite3.SQLITE_LOCKED:   {Locked, "the database is locked by another program; nothing was saved. Close that program and try again", nil},
	sqlite3.SQLITE_CORRUPT:  {Damaged, "the database is damaged there; nothing was saved. Stop Undaris and start it again: it will say what can be done", nil},
	sqlite3.SQLITE_NOTADB:   {Damaged, "this is not a database, or a damaged one", nil},
	sqlite3.SQLITE_READONLY: {ReadOnly, "the database may only be read; nothing was saved. Look at the rights of the file and its directory", nil},
	sqlite3.SQLITE_PERM:     {ReadOnly, "the database may not be used; nothing was saved. Look at the rights of the file and its directory", nil},
	sqlite3.SQLITE_CANTOPEN: {Gone, "the database cannot be opened any more; nothing was saved. Is its directory still there?", nil},
	sqlite3.SQLITE_IOERR:    {Broken, "the disk does not answer as it should; nothing was saved. Look whether it is full or failing", nil},
}

// fault turns what SQLite, GORM or a damaged row says into ours.
func (s *Store) fault(err error) error {
	var known *Fault
	var code *sqlite.Error
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	switch {
	case err == nil, errors.As(err, &known), errors.Is(err, ErrNotFound), errors.Is(err, ErrStale):
		return err
	case errors.Is(err, gorm.ErrRecordNotFound):
		return ErrNotFound
	case noRoom(err):
		f := faults[sqlite3.SQLITE_FULL]
		return &Fault{f.Kind, f.Says, err}
	case errors.As(err, &code):
		if f, ok := faults[code.Code()&0xFF]; ok {
			return &Fault{f.Kind, f.Says, err}
		}
		return &Fault{Broken, "the database could not do that; nothing was saved", err}
	case errors.As(err, &syntax), errors.As(err, &kind), errors.Is(err, errIllegible), strings.HasPrefix(err.Error(), "sql: Scan error"): // which has no type
		return &Fault{Unreadable, "this one is damaged in the database and cannot be opened; it can be deleted, the others are not concerned", err}
	}
	return err
}

func isDamage(err error) bool {
	var f *Fault
	return errors.As(err, &f) && f.Kind == Damaged
}

// unreadable is what a list says of a thing that is damaged.
func unreadable(id uint, err error) string {
	return fmt.Sprintf("number %d is damaged in the database and cannot be shown (%v); it can be deleted", id, err)
}
