package store

import (
	"bufio"
	"bytes"
	"database/sql"
	"encoding/base64"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/go-gormigrate/gormigrate/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gorm.io/driver/sqlite"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
)

// A backup of each version that there ever was lies in testdata, and stays as it was: UPDATE=1
// writes those that are not there yet, never one that is.
var fixtures = filepath.Join("testdata", "backups")

// old is what rows of older versions say in each column; what is not named here is 0 or "".
var old = map[string]map[string]any{
	"charts": {"id": 1, "title": "Tin Lantern", "key": "C", "feel": "shuffle", "tempo": 96, "beats": 4, "text": "| C7 | F7 |", "version": 3, "bars": 2, "chords": "C7 F7",
		"plan": `{"picks":[{"low":7,"high":11,"string":2,"fret":8}],"targets":["third","seventh"]}`, "born": 41},
	"licks": {"id": 1, "title": "Gull", "chord": "7", "notes": `[{"start":0,"length":480,"degree":"3","octave":0},{"start":480,"length":480,"degree":"R","octave":0}]`,
		"tags": `["turn"]`, "lands_on": "R", "length": 1.0, "version": 2, "begins": "on 1", "level": 1.5, "hard": "easy", "born": 42},
	"lines": {"id": 1, "title": "Across", "key": "C", "feel": "shuffle", "tempo": 90, "beats": 4, "text": "| C7 |", "low": 7, "high": 11, "bars": 1, "sounding": 1, "version": 1,
		"notes": `[{"start":0,"length":480,"note":"E4","string":2,"fret":5}]`, "locked": "[]", "tuning": "E2,A2,D3,G3,B3,E4", "frets": 22, "born": 43},
	"takes": {"id": 1, "title": "Tuesday", "tempo": 90, "changes": 1, "landed": 1, "good": "it landed", "sounding": 1, "version": 1, "sound": 1, "born": 44, "heard": `[{"at":0,"length":480,"pitch":64}]`,
		"line": `{"Title":"Across","Key":"C","Feel":"shuffle","Tempo":90,"Beats":4,"Text":"| C7 |","Low":7,"High":11,"Tuning":"E2,A2,D3,G3,B3,E4","Frets":22,"Notes":[{"start":0,"length":480,"note":"E4","string":2,"fret":5}],"Locked":[],"Bars":1,"Sounding":1}`},
	"sounds":  {"take_id": 1, "wav": map[string]string{"base64": base64.StdEncoding.EncodeToString([]byte("RIFF-how-it-sounded"))}},
	"players": {"id": 1, "name": "Bo", "settings": `{"tuning":"D2,A2,D3,G3,B3,E4","frets":24,"scale":628,"capo":0,"left":false,"comfort":96,"habit":"shift"}`, "here": 1, "version": 1},
	"log": {"id": 1, "at": "2026-01-02 03:04:05+00:00", "kind": "call", "title": "a third", "chart": 1, "tuning": "E2,A2,D3,G3,B3,E4", "tempo": 80, "seconds": 2.5, "player": 1,
		"trials": `[{"key":0,"position":1,"quality":"7","degree":"third","device":"find","chord":"C7","success":1}]`},
	"assignments": {"id": 1, "player": 1, "given": 1, "ref": "00112233445566aa", "document": `{"kind":"undaris assignment"}`, "known": `{"kind":"undaris assignment","version":1,"title":"Week one"}`,
		"things": `{"charts":[],"licks":[],"lines":[],"exercises":[],"said":[]}`},
	"results": {"id": 1, "assignment_id": 1, "ref": "0011223344556677", "document": "{}"},
	"recordings": {"id": 1, "title": "The slow one", "media": "audio/wav", "seconds": 12.5, "key": "C", "version": 1, "born": 46,
		"hearing": `{"cents":-30,"beats":4,"anchors":[{"beat":0,"at":0.5},{"beat":8,"at":5.3}],"first":0,"feel":"","chords":"","markers":[],"from":0,"to":0,"low":0,"high":0,"notes":[]}`},
	"sets": {"id": 1, "title": "Friday", "items": `[{"chart":1,"choruses":3}]`, "version": 1, "born": 45},
}

// oldPlan is how plans stood before step 6.
const oldPlan = `{"picks":["7-11 2:8"],"targets":"third,seventh"}`

// valueOf is what an older row says in a column.
func valueOf(table, column, kind, step string) any {
	v, known := old[table][column]
	switch {
	case table == "charts" && column == "plan" && step < "0006":
		return oldPlan
	case known:
		return v
	case column == "deleted_at" || column == "opened_at":
		return nil
	case strings.HasSuffix(column, "_at"):
		return "2026-01-01 00:00:00+00:00"
	case kind == "INTEGER" || kind == "REAL":
		return 0
	}
	return ""
}

// documentOf is the backup as the program of a step wrote it.
func documentOf(t *testing.T, step string) []byte {
	db, err := gorm.Open(sqlite.New(sqlite.Config{DriverName: "sqlite", DSN: "file:" + filepath.Join(t.TempDir(), "old.db")}), &gorm.Config{Logger: logger.Discard})
	require.NoError(t, err)
	raw, err := db.DB()
	require.NoError(t, err)
	defer raw.Close()
	require.NoError(t, gormigrate.New(db, gormigrate.DefaultOptions, migrations).MigrateTo(step))
	var out bytes.Buffer
	w := bufio.NewWriter(&out)
	fmt.Fprintf(w, "{\n\"undaris\": \"backup\",\n\"version\": 1,\n\"step\": %q,\n\"tables\": {", step)
	first := true
	for _, table := range keptTables() {
		columns, err := columnsOf(t.Context(), raw, table)
		require.NoError(t, err)
		if len(columns) == 0 {
			continue // not yet there
		}
		if !first {
			w.WriteString(",")
		}
		first = false
		row := make([]any, len(columns))
		for i, c := range columns {
			var kind string
			require.NoError(t, raw.QueryRow("SELECT type FROM pragma_table_info(?) WHERE name = ?", table, c).Scan(&kind))
			row[i] = valueOf(table, c, kind, step)
		}
		names, _ := json.Marshal(columns)
		values, err := json.Marshal(row)
		require.NoError(t, err)
		fmt.Fprintf(w, "\n%q: {\"columns\": %s, \"rows\": [\n%s]}", table, names, values)
	}
	w.WriteString("\n}\n}\n")
	w.Flush()
	return out.Bytes()
}

// fixture is the backup of a step.
func fixture(t *testing.T, step string) []byte {
	for _, ending := range []string{".json", ".tar"} {
		if data, err := os.ReadFile(filepath.Join(fixtures, step+ending)); err == nil {
			return data
		}
	}
	require.NotEmpty(t, os.Getenv("UPDATE"), "there is no backup of %s in %s: write it by UPDATE=1", step, fixtures)
	path, data := filepath.Join(fixtures, step+".json"), []byte(nil)
	if step < "0020" {
		data = documentOf(t, step)
	} else { // the present program writes it, of what it was given by the one before
		require.Equal(t, migrations[len(migrations)-1].ID, step, "only the last one can still be written")
		s := open(t, t.TempDir())
		_, err := s.Restore(t.Context(), bytes.NewReader(fixture(t, migrations[len(migrations)-2].ID)), Asked{Empty: true})
		require.NoError(t, err)
		path, data = filepath.Join(fixtures, step+".tar"), backupOf(t, s)
	}
	require.NoError(t, os.MkdirAll(fixtures, 0o755))
	require.NoError(t, os.WriteFile(path, data, 0o644))
	return data
}

// A backup of each older version is lifted to this one, with everything that was in it.
func TestABackupOfEachVersionIsTaken(t *testing.T) {
	for _, m := range migrations {
		data := fixture(t, m.ID)
		s := open(t, t.TempDir())
		done, err := s.Restore(t.Context(), bytes.NewReader(data), Asked{Empty: true})
		require.NoError(t, err, m.ID)
		assert.Empty(t, done.Left, m.ID)
		c, err := s.Chart(1)
		require.NoError(t, err, m.ID)
		assert.Equal(t, []any{"Tin Lantern", "| C7 | F7 |", 2, "C7 F7", []Pick{{Frets{7, 11}, Spot{2, 8}}}, []string{"third", "seventh"}}, []any{c.Title, c.Text, c.Bars, c.Chords, c.Plan.Picks, c.Plan.Targets}, m.ID)
		p, err := s.Player()
		require.NoError(t, err)
		assert.Equal(t, "D2,A2,D3,G3,B3,E4", p.Tuning, m.ID)
		if m.ID >= "0002" {
			l, err := s.Lick(1)
			require.NoError(t, err, m.ID)
			assert.Equal(t, []any{"Gull", "R", 1.0, []string{"turn"}}, []any{l.Title, l.LandsOn, l.Length, l.Tags}, m.ID)
			line, err := s.Line(1)
			require.NoError(t, err, m.ID)
			frets := 22
			if m.ID < "0004" {
				frets = 24 // it was for the instrument in hand
			}
			assert.Equal(t, []any{"Across", 1, 1, frets}, []any{line.Title, line.Bars, line.Sounding, line.Frets}, m.ID)
		}
		if m.ID >= "0007" {
			take, err := s.Take(1)
			require.NoError(t, err, m.ID)
			assert.Equal(t, []any{"Tuesday", 1, m.ID >= "0008"}, []any{take.Title, len(take.Heard), take.Sound}, m.ID)
		}
		if m.ID >= "0008" {
			assert.Equal(t, "RIFF-how-it-sounded", string(soundOf(t, s, 1)), m.ID)
		}
		if m.ID >= "0009" {
			log := logOf(t, s, 1)
			require.Len(t, log, 1, m.ID)
			assert.Equal(t, 1.0, log[0].Trials[0].Success)
		}
		if m.ID >= "0011" {
			a, err := s.Assignment(1)
			require.NoError(t, err, m.ID)
			assert.Contains(t, a.Known, "Week one")
			r, err := s.ResultsOf(1)
			require.NoError(t, err)
			assert.Len(t, r, 1, m.ID)
		}
		if m.ID >= "0016" {
			set, err := s.Set(1)
			require.NoError(t, err, m.ID)
			assert.Equal(t, []SetItem{{1, 3}}, set.Items)
		}
		// What it gives out again is taken again, and is the same.
		whole := backupOf(t, s)
		_, err = s.Restore(t.Context(), bytes.NewReader(whole), Asked{Empty: true})
		require.NoError(t, err, m.ID)
		assert.Equal(t, whole, backupOf(t, s), m.ID)
		require.NoError(t, s.Close())
	}
}

// A database of an older version keeps its sounds when they become files, and so do its copies.
func TestSoundsBecomeFiles(t *testing.T) {
	dir := t.TempDir()
	path := filepath.Join(dir, FileName)
	db, err := gorm.Open(sqlite.New(sqlite.Config{DriverName: "sqlite", DSN: "file:" + path}), &gorm.Config{Logger: logger.Discard})
	require.NoError(t, err)
	require.NoError(t, gormigrate.New(db, gormigrate.DefaultOptions, migrations).MigrateTo("0019-identity"))
	raw, err := db.DB()
	require.NoError(t, err)
	for take := range 3 {
		_, err := raw.Exec(`INSERT INTO takes (id, title, mode, stage, tempo, changes, landed, good, try, line, heard, sounding, created_at, updated_at, sound) VALUES (?, 'T', '', 0, 90, 0, 0, '', '', '{}', '[]', 0, '2026-01-01 00:00:00+00:00', '2026-01-01 00:00:00+00:00', 1)`, take+1)
		require.NoError(t, err)
		_, err = raw.Exec("INSERT INTO sounds VALUES (?, ?)", take+1, []byte(strings.Repeat(fmt.Sprint("sound ", take/2), 20000)))
		require.NoError(t, err)
	}
	_, err = raw.Exec("INSERT INTO identity (id, name) VALUES (1, 'x') ON CONFLICT DO NOTHING")
	require.NoError(t, err)
	_, err = raw.Exec(fmt.Sprintf("PRAGMA application_id = %d", applicationID))
	require.NoError(t, err)
	require.NoError(t, raw.Close())
	s := open(t, dir)
	for take := range 3 {
		assert.Equal(t, strings.Repeat(fmt.Sprint("sound ", take/2), 20000), string(soundOf(t, s, uint(take+1))))
	}
	there, err := os.ReadDir(filepath.Join(dir, soundShelf.dir))
	require.NoError(t, err)
	assert.Len(t, there, 2, "what sounds alike is kept once")
	size := sizeOf(path)
	assert.Less(t, size, int64(300_000), "they have left the database")
	require.NoError(t, s.Close())

	// The copy from before holds them itself and is no reason to keep the files.
	copies := copiesOf(path)
	require.Len(t, copies, 1)
	before, err := sql.Open("sqlite", "file:"+filepath.Join(dir, copies[0])+"?mode=ro")
	require.NoError(t, err)
	defer before.Close()
	var n int
	require.NoError(t, before.QueryRow("SELECT count(wav) FROM sounds").Scan(&n))
	assert.Equal(t, 3, n)
}
