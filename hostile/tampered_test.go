package hostile

import (
	"archive/tar"
	"bytes"
	"database/sql"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	_ "modernc.org/sqlite" // registers the driver "sqlite"
)

// backupParts are the document of a backup and its sounds.
func backupParts(t testing.TB, data []byte) (document map[string]any, sounds map[string][]byte) {
	sounds = map[string][]byte{}
	for r := tar.NewReader(bytes.NewReader(data)); ; {
		h, err := r.Next()
		if err == io.EOF {
			return document, sounds
		}
		require.NoError(t, err)
		part, err := io.ReadAll(r)
		require.NoError(t, err)
		if document != nil {
			sounds[h.Name] = part
			continue
		}
		d := json.NewDecoder(bytes.NewReader(part))
		d.UseNumber()
		require.NoError(t, d.Decode(&document))
	}
}

// inOrder are the parts of a document as a reader expects them.
func inOrder(t testing.TB, document map[string]any) []byte {
	var out bytes.Buffer
	fmt.Fprintf(&out, `{"undaris": "backup", "version": 1, "step": %q, "tables": {`, document["step"])
	first := true
	for _, name := range tablesInOrder {
		table, is := document["tables"].(map[string]any)[name].(map[string]any)
		if !is {
			continue
		}
		if !first {
			out.WriteString(",")
		}
		first = false
		columns, err := json.Marshal(table["columns"])
		require.NoError(t, err)
		rows, err := json.Marshal(table["rows"])
		require.NoError(t, err)
		fmt.Fprintf(&out, "%q: {\"columns\": %s, \"rows\": %s}", name, columns, rows)
	}
	out.WriteString("}}")
	return out.Bytes()
}

var tablesInOrder = []string{"charts", "players", "licks", "lines", "takes", "sounds", "log", "assignments", "results", "sets", "recordings"}

func tarred(t testing.TB, document []byte, sounds map[string][]byte) []byte {
	var out bytes.Buffer
	w := tar.NewWriter(&out)
	put := func(name string, data []byte) {
		require.NoError(t, w.WriteHeader(&tar.Header{Name: name, Size: int64(len(data)), Mode: 0o600}))
		_, err := w.Write(data)
		require.NoError(t, err)
	}
	put("undaris.json", document)
	for name, data := range sounds {
		put(name, data)
	}
	require.NoError(t, w.Close())
	return out.Bytes()
}

// cell is a value that somebody may have put in the place of another.
func (c chaos) cell(old any) any {
	if text, ok := old.(string); ok && c.IntN(3) > 0 && len(text) > 1 && (text[0] == '{' || text[0] == '[') {
		var inner any
		if json.Unmarshal([]byte(text), &inner) == nil {
			changed, _ := json.Marshal(c.inside(inner))
			return string(changed)
		}
	}
	if text, ok := old.(string); ok && c.IntN(4) == 0 && text != "" {
		at := c.IntN(len(text))
		return text[:at] + c.word() + text[at:]
	}
	return []any{nil, c.word(), c.number(), -1, "[]", "{}", "null", "[null]", "0000-00-00 00:00:00+00:00", "99999-01-01 00:00:00+00:00", "12026-01-01 00:00:00+00:00",
		json.Number("9223372036854775807"), json.Number("1.0e308"), map[string]string{"base64": "AAEC"}, 1.5, "{", "\xff\xfe"}[c.IntN(17)]
}

// inside changes one value somewhere in another.
func (c chaos) inside(v any) any {
	switch v := v.(type) {
	case map[string]any:
		for name := range v {
			if c.IntN(len(v)) == 0 {
				v[name] = c.inside(v[name])
				return v
			}
		}
	case []any:
		if len(v) > 0 && c.IntN(5) > 0 {
			at := c.IntN(len(v))
			v[at] = c.inside(v[at])
			return v
		}
	}
	return []any{nil, c.word(), c.number(), true, []any{}, map[string]any{}, -1, 99}[c.IntN(8)]
}

// lastFault is the last one in a log.
func lastFault(log string) string {
	at := max(strings.LastIndex(log, `"ERROR"`), 0)
	return log[at:min(len(log), at+1500)]
}

// everything asks for every list and each thing in it, and tells what failed.
func everything(t testing.TB, p *program) (faults, problems []string) {
	ask := func(path string) []byte {
		status, data := p.ask("GET", path, nil)
		if status >= 500 || !json.Valid(data) && status != 204 {
			faults = append(faults, fmt.Sprintf("%d %s: %.200s %s", status, path, data, lastFault(p.errs.String())))
		}
		return data
	}
	for _, kind := range []string{"charts", "licks", "lines", "takes", "sets", "recordings"} {
		var rows []struct {
			ID      uint
			Problem string
		}
		data := ask("/api/" + kind + "?limit=1000")
		if json.Unmarshal(data, &rows) != nil {
			continue
		}
		for _, row := range rows {
			if row.Problem != "" {
				problems = append(problems, kind+": "+row.Problem)
			}
			ask(fmt.Sprintf("/api/%s/%d", kind, row.ID))
		}
		for i, row := range rows {
			if kind == "charts" && i < 3 {
				ask(fmt.Sprintf("/api/charts/%d/map", row.ID))
			}
		}
	}
	for _, path := range []string{"/api/player", "/api/players", "/api/log", "/api/log/maps", "/api/today", "/api/assignments", "/api/catalogue"} {
		ask(path)
	}
	return faults, problems
}

// Backups that somebody has changed: what of them cannot be used is left out, and nothing that is
// taken makes anything fail afterwards.
func TestTamperedBackups(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	_, whole := p.ask("GET", "/api/backup", nil)
	c := chaos{Rand: rand.New(rand.NewPCG(29, 1))}
	taken, left := 0, 0
	for range 200 {
		document, sounds := backupParts(t, whole)
		var changes []string
		for range 1 + c.IntN(12) {
			table := document["tables"].(map[string]any)[tablesInOrder[c.IntN(len(tablesInOrder))]].(map[string]any)
			rows := table["rows"].([]any)
			if len(rows) == 0 {
				continue
			}
			row := rows[c.IntN(len(rows))].([]any)
			at := c.IntN(len(row))
			was := row[at]
			row[at] = c.cell(was)
			changes = append(changes, fmt.Sprintf("%v of %v: %.80v -> %.80v", table["columns"].([]any)[at], row[0], was, row[at]))
		}
		status, data := p.ask("POST", "/api/restore?empty=yes", tarred(t, inOrder(t, document), sounds))
		require.Contains(t, []int{200, 422}, status, "%s\n%s\n%s", data, lastFault(p.errs.String()), strings.Join(changes, "\n"))
		if status == 200 {
			taken++
			var done struct{ Lost int }
			require.NoError(t, json.Unmarshal(data, &done))
			left += done.Lost
		}
		faults, problems := everything(t, p)
		require.Empty(t, faults)
		require.Empty(t, problems, "what was taken can be opened\n%s\n%s", data, strings.Join(changes, "\n"))
	}
	p.alive()
	t.Logf("200 tampered backups: %d taken, %d rows left out of them, no fault", taken, left)
	assert.Greater(t, taken, 100)
	assert.Positive(t, left)
	assert.LessOrEqual(t, p.peak(), 150)
}

// The same in the database itself, with another program: what cannot be read costs only itself.
func TestTamperedDatabases(t *testing.T) {
	dir := t.TempDir()
	p := start(t, "demo", dir)
	p.end()
	file := filepath.Join(dir, "undaris.db")
	whole, err := os.ReadFile(file)
	require.NoError(t, err)
	c := chaos{Rand: rand.New(rand.NewPCG(29, 2))}
	problems, refused := 0, 0
	for range 100 {
		require.NoError(t, os.WriteFile(file, whole, 0o600))
		db, err := sql.Open("sqlite", "file:"+file)
		require.NoError(t, err)
		for range 1 + c.IntN(12) {
			table := tablesInOrder[c.IntN(len(tablesInOrder))]
			var columns []string
			rows, err := db.Query("SELECT name FROM pragma_table_info(?) WHERE pk = 0", table)
			require.NoError(t, err)
			for rows.Next() {
				var name string
				require.NoError(t, rows.Scan(&name))
				columns = append(columns, name)
			}
			column := columns[c.IntN(len(columns))]
			var id int
			var old any
			if db.QueryRow(fmt.Sprintf("SELECT rowid, %s FROM %s ORDER BY random() LIMIT 1", column, table)).Scan(&id, &old) != nil {
				continue
			}
			value := c.cell(old)
			if n, ok := value.(json.Number); ok {
				value, _ = n.Float64()
			} else if _, ok := value.(map[string]string); ok {
				value = []byte{0, 1, 2}
			}
			_, _ = db.Exec(fmt.Sprintf("UPDATE %s SET %s = ? WHERE rowid = ?", table, column), value, id)
		}
		require.NoError(t, db.Close())
		p, ok := started(t, command(t, "serve", dir))
		if !ok {
			require.NotContains(t, p.errs.String(), "panic")
			refused++
			continue
		}
		faults, bad := everything(t, p)
		require.Empty(t, faults)
		problems += len(bad)
		p.end()
	}
	for _, f := range []string{"undaris.db-wal", "undaris.db-shm"} {
		os.Remove(filepath.Join(dir, f))
	}
	t.Logf("100 tampered databases: %d things told to be damaged, %d not opened, no fault", problems, refused)
	assert.Positive(t, problems)
}
