package store

import (
	"archive/tar"
	"bufio"
	"context"
	"database/sql"
	"encoding/base64"
	"encoding/json"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"
)

// A backup is a tar: first its document, then the sounds that it names, each under the name
// that it has beside the database. Up to step 0019 it was the document alone, with the sounds
// in it; that is read for good. The document:
//
//	{"undaris": "backup", "version": 1, "step": "0020-…",
//	 "tables": {"charts": {"columns": ["id", …], "rows": [[1, …], …]}, …}}
//
// step is the last migration that its tables have been through. Tables stand in a fixed
// order and rows in that of their numbers, so that the same content is the same bytes. What
// is no text or number ({"base64": …}) is how a take sounded.
const (
	backupKind     = "backup"
	backupVersion  = 1
	backupDocument = "undaris.json"
)

// backupTime is that of everything in a backup, for the same reason.
var backupTime = time.Unix(0, 0)

// ErrBackup is why a document is no backup that can be restored; it says what is wrong.
type ErrBackup struct{ Says string }

func (e ErrBackup) Error() string { return e.Says }

// keptTables are the tables that a backup holds, each after those that it refers to.
func keptTables() []string {
	return slices.DeleteFunc(slices.Clone(tables), func(t string) bool { return t == "migrations" || t == "identity" || slices.Contains(derived, t) })
}

// Backup writes everything that is kept as one tar, as it is at one moment, while others
// go on writing. The files of recordings, which are large, go along where they are wanted; without
// them a restored recording has what was found in it, and asks for its file.
func (s *Store) Backup(ctx context.Context, w io.Writer, recordings bool) error {
	return backup(ctx, s.path, w, recordings)
}

// BackupOf writes the backup of a data directory, also one that a running Undaris uses.
func BackupOf(ctx context.Context, dir string, w io.Writer, recordings bool) error {
	path := filepath.Join(dir, FileName)
	if _, err := os.Stat(path); err != nil {
		return fmt.Errorf("there is no database in %s", dir)
	}
	if pending, err := inspect(path); err != nil {
		return err
	} else if pending {
		return fmt.Errorf("the database in %s is of an older Undaris; start the program once, then it is up to date", dir)
	}
	return backup(ctx, path, w, recordings)
}

func backup(ctx context.Context, path string, w io.Writer, recordings bool) error {
	db, err := sql.Open("sqlite", source(path, "mode=ro&_pragma=busy_timeout(2000)"))
	if err != nil {
		return err
	}
	defer db.Close()
	conn, err := db.Conn(ctx)
	if err != nil {
		return err
	}
	defer conn.Close()
	if _, err := conn.ExecContext(ctx, "BEGIN"); err != nil { // one moment for all tables
		return err
	}
	defer func() { _, _ = conn.ExecContext(context.WithoutCancel(ctx), "ROLLBACK") }()
	dir := filepath.Dir(path)
	without, err := soundless(ctx, conn, dir)
	if err != nil {
		return err
	}
	// A tar tells the size of what comes: so the document is written twice, once to be measured.
	var size measured
	if err := writeDocument(ctx, conn, &size, without); err != nil {
		return err
	}
	out := tar.NewWriter(w)
	if err := out.WriteHeader(entry(backupDocument, int64(size))); err != nil {
		return err
	}
	if err := writeDocument(ctx, conn, out, without); err != nil {
		return err
	}
	if err := writeSounds(ctx, conn, out, dir, without); err != nil {
		return err
	}
	if recordings {
		if err := writeRecordings(ctx, conn, out, dir); err != nil {
			return err
		}
	}
	return out.Close()
}

func entry(name string, size int64) *tar.Header {
	return &tar.Header{Typeflag: tar.TypeReg, Name: name, Size: size, Mode: 0o600, ModTime: backupTime, Format: tar.FormatPAX}
}

// measured counts what is written to it.
type measured int64

func (m *measured) Write(p []byte) (int, error) {
	*m += measured(len(p))
	return len(p), nil
}

// writeSounds writes each sound once, in the order of the takes that come first with it.
func writeSounds(ctx context.Context, conn *sql.Conn, out *tar.Writer, dir string, without map[int64]error) error {
	rows, err := conn.QueryContext(ctx, "SELECT take_id, hash, bytes FROM sounds ORDER BY take_id")
	if err != nil {
		return err
	}
	defer rows.Close()
	written := map[string]bool{}
	for rows.Next() {
		var take, size int64
		var hash string
		if err := rows.Scan(&take, &hash, &size); err != nil {
			return err
		}
		if without[take] != nil || written[hash] {
			continue
		}
		written[hash] = true
		if err := writeSound(out, filepath.Join(dir, soundShelf.file(hash)), entry(soundShelf.file(hash), size)); err != nil {
			return err
		}
	}
	return rows.Err()
}

// writeRecordings writes the files of recordings that are beside the database as their rows say.
func writeRecordings(ctx context.Context, conn *sql.Conn, out *tar.Writer, dir string) error {
	rows, err := conn.QueryContext(ctx, "SELECT hash, max(bytes) FROM recordings WHERE hash <> '' GROUP BY hash ORDER BY hash")
	if err != nil {
		return err
	}
	defer rows.Close()
	for rows.Next() {
		var hash, size any
		if err := rows.Scan(&hash, &size); err != nil {
			return err
		}
		name, _ := hash.(string)
		long, _ := size.(int64)
		path := filepath.Join(dir, recordingShelf.file(name))
		if at, err := os.Stat(path); !isHash(name) || err != nil || at.Size() != long {
			continue
		}
		if err := writeSound(out, path, entry(recordingShelf.file(name), long)); err != nil {
			return err
		}
	}
	return rows.Err()
}

func writeSound(out *tar.Writer, path string, as *tar.Header) error {
	f, err := os.Open(path)
	if err != nil {
		return err
	}
	defer f.Close()
	if err := out.WriteHeader(as); err != nil {
		return err
	}
	_, err = io.Copy(out, f)
	return err
}

// writeDocument writes the document; the sounds of some takes are left out, since they are gone.
func writeDocument(ctx context.Context, conn *sql.Conn, w io.Writer, without map[int64]error) error {
	out := bufio.NewWriterSize(w, 1<<16)
	fmt.Fprintf(out, "{\n\"undaris\": %q,\n\"version\": %d,\n\"step\": %q,\n\"tables\": {", backupKind, backupVersion, migrations[len(migrations)-1].ID)
	for i, table := range keptTables() {
		if i > 0 {
			out.WriteString(",")
		}
		var leave map[int64]error
		if table == "sounds" {
			leave = without
		}
		if err := writeTable(ctx, conn, out, table, leave); err != nil {
			return err
		}
	}
	out.WriteString("\n}\n}\n")
	return out.Flush()
}

func writeTable(ctx context.Context, conn *sql.Conn, out *bufio.Writer, table string, leave map[int64]error) error {
	columns, err := columnsOf(ctx, conn, table)
	if err != nil {
		return err
	}
	names, err := json.Marshal(columns)
	if err != nil {
		return err
	}
	fmt.Fprintf(out, "\n%q: {\"columns\": %s, \"rows\": [", table, names)
	// A plus before a column takes its declared type away, so that times stay texts.
	rows, err := conn.QueryContext(ctx, "SELECT +"+quoted(columns, ", +")+" FROM "+table+" ORDER BY "+quoted(columns[:1], ""))
	if err != nil {
		return err
	}
	defer rows.Close()
	values, into := make([]any, len(columns)), make([]any, len(columns))
	for i := range values {
		into[i] = &values[i]
	}
	first := true
	for rows.Next() {
		if err := rows.Scan(into...); err != nil {
			return err
		}
		if id, is := values[0].(int64); is && leave[id] != nil {
			continue
		}
		if !first {
			out.WriteString(",")
		}
		first = false
		out.WriteString("\n[")
		for i, v := range values {
			if i > 0 {
				out.WriteString(", ")
			}
			text, err := cell(v)
			if err != nil {
				return err
			}
			out.Write(text)
		}
		out.WriteString("]")
	}
	out.WriteString("]}")
	return rows.Err()
}

// cell writes a value so that it can be told apart when it is read: whole numbers without a
// point, others with one.
func cell(v any) ([]byte, error) {
	switch v := v.(type) {
	case float64:
		text := strconv.FormatFloat(v, 'g', -1, 64)
		if !strings.ContainsAny(text, ".e") {
			text += ".0"
		}
		return []byte(text), nil
	case []byte:
		return json.Marshal(map[string]string{"base64": base64.StdEncoding.EncodeToString(v)})
	}
	return json.Marshal(v)
}

func columnsOf(ctx context.Context, db querier, table string) ([]string, error) {
	return names(ctx, db, "SELECT name FROM pragma_table_info('"+table+"') ORDER BY cid")
}

// quoted joins the names of columns.
func quoted(names []string, by string) string {
	out := make([]string, len(names))
	for i, n := range names {
		out[i] = `"` + n + `"`
	}
	return strings.Join(out, by)
}
