package store

import (
	"bufio"
	"context"
	"database/sql"
	"encoding/base64"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"github.com/go-gormigrate/gormigrate/v2"
	"gorm.io/driver/sqlite"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
	sqlite3 "modernc.org/sqlite"
	sqlitelib "modernc.org/sqlite/lib"
)

// restoreDir begins the name of where a backup is read before it is put in place.
const restoreDir = "restore-"

// ErrEmpties is why a backup without anything in it is not restored unasked.
var ErrEmpties = errors.New("this backup has no charts, licks, lines, takes or recordings: restoring it would empty what is here. Nothing was changed")

// room says of a disk without room that it has none, whatever said so.
func (s *Store) room(err error) error {
	if noRoom(err) || isFull(err) {
		return &Fault{Full, "the disk is full, so the backup was not restored; what is here was not touched. Make room and try again", err}
	}
	return s.fault(err)
}

// isFull tells whether SQLite found no room.
func isFull(err error) bool {
	var code *sqlite3.Error
	return errors.As(err, &code) && code.Code()&0xFF == sqlitelib.SQLITE_FULL
}

// made counts the kinds of things that a player has made in a database.
func made(ctx context.Context, db querier) (n int, err error) {
	for _, table := range []string{"charts", "licks", "lines", "takes", "recordings"} {
		some, err := names(ctx, db, "SELECT id FROM "+table+" LIMIT 1")
		if err != nil {
			return n, err
		}
		n += len(some)
	}
	return n, nil
}

// empties refuses what would put nothing in place of something.
func (s *Store) empties(ctx context.Context, raw *sql.DB) error {
	there, err := made(ctx, raw)
	if err != nil || there > 0 {
		return err
	}
	own, err := s.db.DB()
	if err != nil {
		return err
	}
	here, err := made(ctx, own)
	if err == nil && here > 0 {
		err = ErrEmpties
	}
	return err
}

// Asked is how a backup is restored.
type Asked struct {
	Empty bool                  // one without anything in it is meant
	Legal func(thing any) error // says why a thing of the store cannot be used; nil asks nothing
}

// Restored is what a backup brought.
type Restored struct {
	Rows int
	Left []string // what was left out and why, in the order of the tables; [MostLeft] of them
	Lost int      // how many were
}

// Restore puts a backup in place of everything that is kept; what was there is copied aside
// first. A backup of an older version is lifted to this one, one of a newer is refused, and
// one that cannot be read to its end changes nothing. What in it is not what it should be is
// left out, and told.
//
// A backup without any chart, lick, line, take or recording is refused with [ErrEmpties] where there is
// one here, unless it is said that it is meant.
func (s *Store) Restore(ctx context.Context, r io.Reader, asked Asked) (done Restored, err error) {
	defer func() { err = s.room(err) }()
	home := filepath.Dir(s.path)
	dir, err := os.MkdirTemp(home, restoreDir)
	if err != nil {
		return done, err
	}
	defer os.RemoveAll(dir)
	db, err := gorm.Open(sqlite.New(sqlite.Config{DriverName: "sqlite", DSN: source(filepath.Join(dir, "new.db"), "_pragma=synchronous(0)")}),
		&gorm.Config{Logger: logger.Discard, TranslateError: true})
	if err != nil {
		return done, err
	}
	raw, err := db.DB()
	if err != nil {
		return done, err
	}
	defer raw.Close()
	raw.SetMaxOpenConns(1)
	in := incoming{db: db, raw: raw, dir: dir, beside: sizeOf(s.path) + sizeOf(s.path+"-wal")}
	if err := in.read(ctx, r); err != nil {
		return done, err
	}
	if err := gormigrate.New(db, gormigrate.DefaultOptions, migrations).Migrate(); err != nil {
		if isFull(err) {
			return done, err
		}
		return done, ErrBackup{fmt.Sprintf("it is of an older version and could not be lifted to this one (%v); nothing was changed", err)}
	}
	left := leavings{list: []string{}}
	if err := in.complete(ctx, &left); err != nil {
		return done, err
	}
	if err := sift(ctx, db, asked.Legal, &left); err != nil {
		return done, err
	}
	done.Left, done.Lost = left.list, left.lost
	if !asked.Empty {
		if err := s.empties(ctx, raw); err != nil {
			return done, err
		}
	}
	if _, err := s.copyAside("before-restore"); err != nil {
		return done, fmt.Errorf("what is there could not be copied aside first, so nothing was changed: %w", err)
	}
	if err := in.moveFiles(home); err != nil {
		return done, err
	}
	name := ""
	err = s.write(func(tx *gorm.DB) error {
		all := keptTables()
		for _, table := range slices.Backward(all) {
			if err := tx.Exec("DELETE FROM " + table).Error; err != nil {
				return err
			}
		}
		for _, table := range all {
			n, err := pour(ctx, raw, tx, table)
			if err != nil {
				return err
			}
			done.Rows += n
		}
		if name, err = identify(tx); err != nil {
			return err
		}
		// Nobody reads the new rows under the old name: writers wait for this, and readers get tags that match nothing.
		s.identity.Store(&name)
		return nil
	})
	if err != nil {
		return done, errors.Join(err, s.readIdentity())
	}
	return done, nil
}

func sizeOf(path string) int64 {
	if f, err := os.Stat(path); err == nil {
		return f.Size()
	}
	return 0
}

// fill makes the tables of a document as they were in its version, and puts its rows in.
func fill(ctx context.Context, db *gorm.DB, raw *sql.DB, r io.Reader) error {
	d := json.NewDecoder(bufio.NewReaderSize(r, 1<<16))
	d.UseNumber()
	read := reader{d}
	if err := read.delim('{'); err != nil {
		return ErrBackup{"this is no backup of Undaris: it does not begin as one; nothing was changed"}
	}
	kind, step := "", ""
	version := json.Number("0")
	for {
		name, err := read.name()
		if err != nil {
			return err
		}
		switch name {
		case "undaris":
			err = d.Decode(&kind)
		case "version":
			err = d.Decode(&version)
		case "step":
			err = d.Decode(&step)
		case "tables":
			if n, _ := version.Int64(); kind != backupKind || n < 1 {
				return ErrBackup{"this is no backup of Undaris; nothing was changed"}
			} else if n > backupVersion {
				return ErrBackup{fmt.Sprintf("this backup was written by a newer Undaris (version %d of the document); use that version, nothing was changed", n)}
			}
			at := slices.IndexFunc(migrations, func(m *migration) bool { return m.ID == step })
			if at < 0 {
				return ErrBackup{fmt.Sprintf("this backup was written by a newer Undaris (it knows step %q); use that version, nothing was changed", step)}
			}
			if err := gormigrate.New(db, gormigrate.DefaultOptions, migrations).MigrateTo(step); err != nil {
				return err
			}
			return read.tables(ctx, raw)
		default:
			return ErrBackup{"this is no backup of Undaris; nothing was changed"}
		}
		if err != nil {
			return cut(err)
		}
	}
}

// reader reads a document piece by piece.
type reader struct{ *json.Decoder }

// cut says that a document is not whole, or no document.
func cut(err error) error {
	if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
		return ErrBackup{"the backup ends too early: it was cut; nothing was changed"}
	}
	var syntax *json.SyntaxError
	if errors.As(err, &syntax) {
		return ErrBackup{fmt.Sprintf("the backup cannot be read at byte %d; nothing was changed", syntax.Offset)}
	}
	return ErrBackup{fmt.Sprintf("the backup cannot be read (%v); nothing was changed", err)}
}

func (r reader) delim(want json.Delim) error {
	t, err := r.Token()
	if err != nil {
		return cut(err)
	}
	if t != want {
		return ErrBackup{fmt.Sprintf("the backup cannot be read at byte %d; nothing was changed", r.InputOffset())}
	}
	return nil
}

func (r reader) name() (string, error) {
	t, err := r.Token()
	if err != nil {
		return "", cut(err)
	}
	name, ok := t.(string)
	if !ok {
		return "", ErrBackup{fmt.Sprintf("the backup cannot be read at byte %d; nothing was changed", r.InputOffset())}
	}
	return name, nil
}

// tables reads them to the end of the document.
func (r reader) tables(ctx context.Context, db *sql.DB) error {
	tx, err := db.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	defer tx.Rollback()
	if err := r.delim('{'); err != nil {
		return err
	}
	for r.More() {
		table, err := r.name()
		if err != nil {
			return err
		}
		if err := r.table(ctx, tx, table); err != nil {
			return err
		}
	}
	for range 2 { // of the tables, and of the document
		if err := r.delim('}'); err != nil {
			return err
		}
	}
	if r.More() {
		return ErrBackup{"something follows the end of the backup; nothing was changed"}
	}
	return tx.Commit()
}

func (r reader) table(ctx context.Context, tx *sql.Tx, table string) error {
	if !slices.Contains(keptTables(), table) {
		return ErrBackup{fmt.Sprintf("the backup has a table %q that Undaris does not know; nothing was changed", table)}
	}
	wanted, err := columnsOf(ctx, tx, table)
	if err != nil {
		return err
	}
	var columns []string
	for _, want := range []any{json.Delim('{'), "columns"} {
		if t, err := r.Token(); err != nil {
			return cut(err)
		} else if t != want {
			return ErrBackup{fmt.Sprintf("the backup cannot be read at byte %d; nothing was changed", r.InputOffset())}
		}
	}
	if err := r.Decode(&columns); err != nil {
		return cut(err)
	}
	if !slices.Equal(columns, wanted) {
		return ErrBackup{fmt.Sprintf("%q has other columns than its version has; nothing was changed", table)}
	}
	if name, err := r.name(); err != nil || name != "rows" {
		return cut(errors.Join(err))
	}
	if err := r.delim('['); err != nil {
		return err
	}
	insert, err := tx.PrepareContext(ctx, inserting(table, columns))
	if err != nil {
		return err
	}
	defer insert.Close()
	for r.More() {
		var row []any
		if err := r.Decode(&row); err != nil {
			return cut(err)
		}
		if len(row) != len(columns) {
			return ErrBackup{fmt.Sprintf("a row of %q has %d values in %d columns; nothing was changed", table, len(row), len(columns))}
		}
		for i := range row {
			if row[i], err = uncell(row[i]); err != nil {
				return cut(err)
			}
		}
		if _, err := insert.ExecContext(ctx, row...); err != nil {
			return unfit(table, err)
		}
	}
	if err := r.delim(']'); err != nil {
		return err
	}
	return r.delim('}')
}

// unfit says of a row that it does not fit; a full disk is no fault of it.
func unfit(table string, err error) error {
	if isFull(err) {
		return err
	}
	return ErrBackup{fmt.Sprintf("a row of %q does not fit (%v); nothing was changed", table, err)}
}

func inserting(table string, columns []string) string {
	return "INSERT INTO " + table + " (" + quoted(columns, ", ") + ") VALUES (?" + strings.Repeat(", ?", len(columns)-1) + ")"
}

// pour copies the rows of a table from one database into another.
func pour(ctx context.Context, from *sql.DB, into *gorm.DB, table string) (n int, err error) {
	columns, err := columnsOf(ctx, from, table)
	if err != nil {
		return 0, err
	}
	rows, err := from.QueryContext(ctx, "SELECT +"+quoted(columns, ", +")+" FROM "+table+" ORDER BY "+quoted(columns[:1], ""))
	if err != nil {
		return 0, err
	}
	defer rows.Close()
	insert := inserting(table, columns)
	values, to := make([]any, len(columns)), make([]any, len(columns))
	for i := range values {
		to[i] = &values[i]
	}
	for ; rows.Next(); n++ {
		if err := rows.Scan(to...); err != nil {
			return n, err
		}
		if _, err := into.Statement.ConnPool.ExecContext(ctx, insert, values...); err != nil {
			return n, unfit(table, err)
		}
	}
	return n, rows.Err()
}

// uncell reads one; a number is a json.Number.
func uncell(v any) (any, error) {
	switch v := v.(type) {
	case json.Number:
		if strings.ContainsAny(v.String(), ".eE") {
			return v.Float64()
		}
		return v.Int64()
	case map[string]any:
		text, ok := v["base64"].(string)
		if !ok || len(v) != 1 {
			return nil, ErrBackup{"it holds a value that no backup has"}
		}
		return base64.StdEncoding.DecodeString(text)
	case []any, bool:
		return nil, ErrBackup{"it holds a value that no backup has"}
	}
	return v, nil
}
