package store

import (
	"bytes"
	"context"
	"database/sql"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/go-gormigrate/gormigrate/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gorm.io/driver/sqlite"
	"gorm.io/gorm"
)

// full fills a store with some of everything.
func full(t testing.TB, s *Store, charts int) {
	for i := range charts {
		c := Chart{Title: fmt.Sprintf("Slipway %d ♭", i), Key: "C", Feel: "shuffle", Tempo: 96, Beats: 4, Text: "|: C7 | F7 :|"}
		require.NoError(t, s.CreateChart(&c))
		if i%10 == 3 {
			require.NoError(t, s.DeleteChart(c.ID, Any))
		}
	}
	l := Lick{Title: "Gull", Chord: "7", Notes: []LickNote{{Start: 0, Length: 960, Degree: "R"}}, Tags: []string{"a", "b"}}
	require.NoError(t, s.CreateLick(&l))
	take := Take{Title: "Take", Tempo: 90, Heard: []HeardNote{}}
	require.NoError(t, s.CreateTake(&take))
	require.NoError(t, s.KeepSound(take.ID, []byte{0, 1, 2, 255, 'R'}))
	require.NoError(t, s.Log(&Entry{At: time.Now(), Player: 1, Kind: LoggedTake, Trials: []Trial{}, Title: "once", Tempo: 90, Seconds: 2.5, Swing: 0.61}))
}

func backupOf(t testing.TB, s *Store) []byte {
	var out bytes.Buffer
	require.NoError(t, s.Backup(t.Context(), &out))
	return out.Bytes()
}

// Backup, restored elsewhere, backed up again: the same bytes, also while others write; what
// was there is copied aside first.
func TestABackupComesBackAsItWas(t *testing.T) {
	s := open(t, t.TempDir())
	full(t, s, 40)
	whole := backupOf(t, s)
	dir := t.TempDir()
	other := open(t, dir)
	full(t, other, 3)
	n, err := other.Restore(t.Context(), bytes.NewReader(whole), true)
	require.NoError(t, err)
	assert.Greater(t, n, 40)
	assert.Equal(t, string(whole), string(backupOf(t, other)))
	assert.Len(t, copiesOf(filepath.Join(dir, FileName)), 1)
	wav, err := other.Sound(1)
	require.NoError(t, err)
	assert.Equal(t, []byte{0, 1, 2, 255, 'R'}, wav)
	kept, err := other.Charts(All)
	require.NoError(t, err)
	assert.Len(t, kept, 36)
	var fresh Chart = Chart{Title: "After", Key: "C", Feel: "shuffle", Tempo: 96, Beats: 4, Text: "| C7 |"}
	require.NoError(t, other.CreateChart(&fresh), "it goes on being used")
	left, err := filepath.Glob(filepath.Join(dir, "restore-*"))
	require.NoError(t, err)
	assert.Empty(t, left, "nothing is left behind")

	var out bytes.Buffer
	require.NoError(t, BackupOf(t.Context(), dir, &out), "from the command line, while the program runs")
	assert.Contains(t, out.String(), "After")
	assert.Error(t, BackupOf(t.Context(), t.TempDir(), &out))

	var writers sync.WaitGroup
	writers.Go(func() {
		for i := range 30 {
			c := Chart{Title: fmt.Sprint("Meanwhile ", i), Key: "C", Feel: "shuffle", Tempo: 96, Beats: 4, Text: "| C7 |"}
			assert.NoError(t, s.CreateChart(&c))
		}
	})
	for range 5 {
		meanwhile := backupOf(t, s)
		_, err := other.Restore(t.Context(), bytes.NewReader(meanwhile), true)
		require.NoError(t, err)
		require.Equal(t, string(meanwhile), string(backupOf(t, other)))
	}
	writers.Wait()
}

// A document that is cut anywhere, foreign, newer, or does not fit changes nothing, and says
// what is wrong.
func TestWhatIsNoBackupChangesNothing(t *testing.T) {
	s := open(t, t.TempDir())
	full(t, s, 4)
	whole := string(backupOf(t, s))
	refused := func(text, says string) {
		t.Helper()
		_, err := s.Restore(t.Context(), strings.NewReader(text), true)
		var bad ErrBackup
		require.ErrorAs(t, err, &bad, says)
		assert.Contains(t, bad.Says, says)
		assert.Contains(t, bad.Says, "nothing was changed")
	}
	for at := 0; at < len(whole)-3; at += 97 {
		refused(whole[:at], "")
	}
	for text, says := range map[string]string{
		"":                      "no backup of Undaris",
		"a shopping list":       "no backup of Undaris",
		`{"undaris": "lesson"}`: "",
		`{"undaris": "assignment", "version": 1, "step": "0001-charts-and-player", "tables": {}}`: "no backup of Undaris",
		`{"songs": []}`: "no backup of Undaris",
		strings.Replace(whole, `"version": 1`, `"version": 2`, 1):                 "newer Undaris",
		strings.Replace(whole, migrations[len(migrations)-1].ID, "0999-later", 1): "newer Undaris",
		strings.Replace(whole, `"licks": {`, `"tunes": {`, 1):                     `a table "tunes"`,
		strings.Replace(whole, `["id","title"`, `["id","name"`, 1):                "",
		strings.Replace(whole, `"chord",`, ``, 1):                                 "",
		strings.Replace(whole, "\n[1, ", "\n[1, 2, ", 1):                          "values in",
		strings.Replace(whole, "\n[1, ", "\n[[], ", 1):                            "",
		strings.Replace(whole, "\n[2, ", "\n[1, ", 1):                             "does not fit",
		whole + "more": "follows the end",
	} {
		refused(text, says)
	}
	assert.Equal(t, whole, string(backupOf(t, s)))
}

// A document of each older version is lifted to this one.
func TestAnOlderBackupIsLifted(t *testing.T) {
	for i, m := range migrations[:len(migrations)-1] {
		path := filepath.Join(t.TempDir(), "old.db")
		db, err := gorm.Open(sqlite.New(sqlite.Config{DriverName: "sqlite", DSN: "file:" + path}), &gorm.Config{})
		require.NoError(t, err)
		require.NoError(t, gormigrate.New(db, gormigrate.DefaultOptions, migrations).MigrateTo(m.ID))
		require.NoError(t, db.Exec(`INSERT INTO charts (title, key, feel, tempo, beats, text, created_at, updated_at) VALUES ('Old', 'C', 'shuffle', 96, 4, '| C7 |', '2026-01-01 00:00:00+00:00', '2026-01-01 00:00:00+00:00')`).Error)
		raw, err := db.DB()
		require.NoError(t, err)
		text := documentOf(t, raw, m.ID)
		require.NoError(t, raw.Close())
		s := open(t, t.TempDir())
		_, err = s.Restore(t.Context(), strings.NewReader(text), true)
		require.NoError(t, err, "step %d, %s", i+1, m.ID)
		all, err := s.Charts(All)
		require.NoError(t, err)
		require.Len(t, all, 1, m.ID)
		assert.Equal(t, "Old", all[0].Title)
		assert.Equal(t, 1, all[0].Bars, "%s: what later versions tell of a chart is there", m.ID)
		require.NoError(t, s.Close())
	}
}

// documentOf is the backup as the program of a step would have written it.
func documentOf(t *testing.T, db *sql.DB, step string) string {
	var out bytes.Buffer
	fmt.Fprintf(&out, `{"undaris": "backup", "version": 1, "step": %q, "tables": {`, step)
	first := true
	for _, table := range keptTables() {
		columns, err := columnsOf(t.Context(), db, table)
		require.NoError(t, err)
		if len(columns) == 0 {
			continue // not yet there
		}
		if !first {
			out.WriteString(", ")
		}
		first = false
		rows := ""
		if table == "charts" {
			var id, tempo, beats int
			require.NoError(t, db.QueryRow("SELECT id, tempo, beats FROM charts").Scan(&id, &tempo, &beats))
			values := map[string]string{"id": "1", "title": `"Old"`, "key": `"C"`, "feel": `"shuffle"`, "tempo": "96", "beats": "4", "text": `"| C7 |"`, "plan": `"{}"`,
				"created_at": `"2026-01-01 00:00:00+00:00"`, "updated_at": `"2026-01-01 00:00:00+00:00"`, "version": "1", "bars": "1", "chords": `"C7"`, "remarks": `""`, "tags": `""`, "lengths": `""`, "swing": "0"}
			var list []string
			for _, c := range columns {
				v, known := values[c]
				if !known {
					v = "null"
				}
				list = append(list, v)
			}
			rows = "[" + strings.Join(list, ", ") + "]"
		}
		fmt.Fprintf(&out, `%q: {"columns": ["%s"], "rows": [%s]}`, table, strings.Join(columns, `", "`), rows)
	}
	out.WriteString("}}")
	return out.String()
}

func FuzzRestore(f *testing.F) {
	f.Add(`{"undaris": "backup", "version": 1, "step": "0001-charts-and-player", "tables": {"charts": {"columns": [], "rows": []}}}`)
	f.Add(`{"undaris": "backup", "version": 1`)
	dir := f.TempDir()
	s, err := Open(dir)
	require.NoError(f, err)
	f.Cleanup(func() { s.Close() })
	f.Fuzz(func(t *testing.T, text string) {
		_, _ = s.Restore(context.Background(), strings.NewReader(text), true)
		if left, _ := filepath.Glob(filepath.Join(dir, "restore-*")); len(left) > 0 {
			t.Fatal("left behind", left)
		}
		if _, err := os.Stat(filepath.Join(dir, FileName)); err != nil {
			t.Fatal(err)
		}
	})
}

// Ten thousand things, there and back.
func BenchmarkBackupAndRestore(b *testing.B) {
	s, err := Open(b.TempDir())
	require.NoError(b, err)
	defer s.Close()
	full(b, s, 10_000)
	for b.Loop() {
		var out bytes.Buffer
		require.NoError(b, s.Backup(b.Context(), &out))
		_, err := s.Restore(b.Context(), &out, true)
		require.NoError(b, err)
	}
}
