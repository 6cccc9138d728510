package store

import (
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
)

// backupKind and backupVersion mark a backup's document:
//
//	{"undaris": "backup", "version": 1, "step": "0014-…",
//	 "tables": {"charts": {"columns": ["id", …], "rows": [[1, …], …]}, …}}
//
// step is the last migration that its tables have been through. Tables stand in a fixed
// order and rows in that of their numbers, so that the same content is the same bytes. What
// is no text or number ({"base64": …}) is how a take sounded.
const (
	backupKind    = "backup"
	backupVersion = 1
)

// ErrBackup is why a document is no backup that can be restored; it says what is wrong.
type ErrBackup struct{ Says string }

func (e ErrBackup) Error() string { return e.Says }

// keptTables are the tables that a backup holds, each after those that it refers to.
func keptTables() []string {
	return slices.DeleteFunc(slices.Clone(tables), func(t string) bool { return t == "migrations" || t == "identity" })
}

// Backup writes everything that is kept as one document, as it is at one moment, while others
// go on writing.
func (s *Store) Backup(ctx context.Context, w io.Writer) error { return backup(ctx, s.path, w) }

// BackupOf writes the backup of a data directory, also one that a running Undaris uses.
func BackupOf(ctx context.Context, dir string, w io.Writer) error {
	path := filepath.Join(dir, FileName)
	if _, err := os.Stat(path); err != nil {
		return fmt.Errorf("there is no database in %s", dir)
	}
	if pending, err := inspect(path); err != nil {
		return err
	} else if pending {
		return fmt.Errorf("the database in %s is of an older Undaris; start the program once, then it is up to date", dir)
	}
	return backup(ctx, path, w)
}

func backup(ctx context.Context, path string, w io.Writer) error {
	db, err := sql.Open("sqlite", "file:"+path+"?mode=ro&_pragma=busy_timeout(2000)")
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
	out := bufio.NewWriterSize(w, 1<<16)
	fmt.Fprintf(out, "{\n\"undaris\": %q,\n\"version\": %d,\n\"step\": %q,\n\"tables\": {", backupKind, backupVersion, migrations[len(migrations)-1].ID)
	for i, table := range keptTables() {
		if i > 0 {
			out.WriteString(",")
		}
		if err := writeTable(ctx, conn, out, table); err != nil {
			return err
		}
	}
	out.WriteString("\n}\n}\n")
	return out.Flush()
}

func writeTable(ctx context.Context, conn *sql.Conn, out *bufio.Writer, table string) error {
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
	for first := true; rows.Next(); first = false {
		if err := rows.Scan(into...); err != nil {
			return err
		}
		if !first {
			out.WriteString(",")
		}
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
