package store

import (
	"archive/tar"
	"bytes"
	"context"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
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
	require.NoError(t, s.KeepSound(take.ID, bytes.NewReader([]byte{0, 1, 2, 255, 'R'})))
	require.NoError(t, s.Log(&Entry{At: time.Now(), Player: 1, Kind: LoggedTake, Trials: []Trial{}, Title: "once", Tempo: 90, Seconds: 2.5, Swing: 0.61}))
}

func backupOf(t testing.TB, s *Store) []byte {
	var out bytes.Buffer
	require.NoError(t, s.Backup(t.Context(), &out, true))
	return out.Bytes()
}

func soundOf(t testing.TB, s *Store, take uint) []byte {
	f, err := s.Sound(take)
	require.NoError(t, err)
	defer f.Close()
	wav, err := io.ReadAll(f)
	require.NoError(t, err)
	return wav
}

// parts are the files of a backup, its document first.
func parts(t testing.TB, backup []byte) (names []string, files map[string]string) {
	files = map[string]string{}
	for r := tar.NewReader(bytes.NewReader(backup)); ; {
		h, err := r.Next()
		if err == io.EOF {
			return names, files
		}
		require.NoError(t, err)
		text, err := io.ReadAll(r)
		require.NoError(t, err)
		names, files[h.Name] = append(names, h.Name), string(text)
	}
}

// joined makes a tar of files, as another program would.
func joined(t testing.TB, names []string, files map[string]string) string {
	var out bytes.Buffer
	w := tar.NewWriter(&out)
	for _, name := range names {
		require.NoError(t, w.WriteHeader(&tar.Header{Name: name, Size: int64(len(files[name])), Mode: 0o644}))
		_, err := io.WriteString(w, files[name])
		require.NoError(t, err)
	}
	require.NoError(t, w.Close())
	return out.String()
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
	done, err := other.Restore(t.Context(), bytes.NewReader(whole), Asked{Empty: true})
	require.NoError(t, err)
	assert.Greater(t, done.Rows, 40)
	assert.Empty(t, done.Left)
	assert.Equal(t, string(whole), string(backupOf(t, other)))
	assert.Len(t, copiesOf(filepath.Join(dir, FileName)), 1)
	assert.Equal(t, []byte{0, 1, 2, 255, 'R'}, soundOf(t, other, 1))
	kept, err := other.Charts(All)
	require.NoError(t, err)
	assert.Len(t, kept, 36)
	var fresh Chart = Chart{Title: "After", Key: "C", Feel: "shuffle", Tempo: 96, Beats: 4, Text: "| C7 |"}
	require.NoError(t, other.CreateChart(&fresh), "it goes on being used")
	left, err := filepath.Glob(filepath.Join(dir, "restore-*"))
	require.NoError(t, err)
	assert.Empty(t, left, "nothing is left behind")

	var out bytes.Buffer
	require.NoError(t, BackupOf(t.Context(), dir, &out, true), "from the command line, while the program runs")
	assert.Contains(t, out.String(), "After")
	assert.Error(t, BackupOf(t.Context(), t.TempDir(), &out, true))

	var writers sync.WaitGroup
	writers.Go(func() {
		for i := range 30 {
			c := Chart{Title: fmt.Sprint("Meanwhile ", i), Key: "C", Feel: "shuffle", Tempo: 96, Beats: 4, Text: "| C7 |"}
			assert.NoError(t, s.CreateChart(&c))
		}
	})
	for range 5 {
		meanwhile := backupOf(t, s)
		_, err := other.Restore(t.Context(), bytes.NewReader(meanwhile), Asked{Empty: true})
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
		_, err := s.Restore(t.Context(), strings.NewReader(text), Asked{Empty: true})
		var bad ErrBackup
		require.ErrorAs(t, err, &bad, says)
		assert.Contains(t, bad.Says, says)
		assert.Contains(t, bad.Says, "nothing was changed")
	}
	names, files := parts(t, []byte(whole))
	require.Len(t, names, 2)
	document := files[backupDocument]
	for at := 0; at < len(whole)-2048; at += 97 { // it ends with two empty blocks, and may have lost them
		refused(whole[:at], "")
	}
	for at := 0; at < len(document)-3; at += 97 {
		refused(document[:at], "")
	}
	refused(document, "sounds of takes are missing")
	refused(joined(t, names[1:], files), "no backup of Undaris")
	refused(joined(t, append(names, names[1]), files), "does not know")
	for _, name := range []string{"../../evil", "sounds/../../x.wav", "sounds/ab.wav", "/etc/passwd", "sounds/" + strings.Repeat("A", 64) + ".wav"} {
		files[name] = "x"
		refused(joined(t, append(names, name), files), "does not know")
	}
	within := func(text string) string {
		return joined(t, names, map[string]string{backupDocument: text, names[1]: files[names[1]]})
	}
	whole, tarred := document, whole
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
		if strings.HasPrefix(text, "{") {
			refused(within(text), says)
		}
	}
	assert.Equal(t, tarred, string(backupOf(t, s)))
}

func FuzzRestore(f *testing.F) {
	f.Add(`{"undaris": "backup", "version": 1, "step": "0001-charts-and-player", "tables": {"charts": {"columns": [], "rows": []}}}`)
	f.Add(`{"undaris": "backup", "version": 1`)
	dir := f.TempDir()
	s, err := Open(dir)
	require.NoError(f, err)
	f.Cleanup(func() { s.Close() })
	f.Fuzz(func(t *testing.T, text string) {
		_, _ = s.Restore(context.Background(), strings.NewReader(text), Asked{Empty: true})
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
		require.NoError(b, s.Backup(b.Context(), &out, true))
		_, err := s.Restore(b.Context(), &out, Asked{Empty: true})
		require.NoError(b, err)
	}
}
