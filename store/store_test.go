package store

import (
	"crypto/sha256"
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
	"gorm.io/gorm/logger"
)

func open(t testing.TB, dir string) *Store {
	s, err := Open(dir)
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	return s
}

func TestChartsAreKeptDeletedAndRestored(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	a := Chart{Title: "Slipway", Key: "C", Feel: "shuffle", Tempo: 96, Beats: 4, Text: "| C7 |", Plan: Plan{Picks: []Pick{{Frets{0, 4}, Spot{3, 4}}}}}
	b := Chart{Title: "Bell buoy", Key: "Bm", Feel: "ballad", Tempo: 60, Beats: 4, Text: "| Bm7 |"}
	require.NoError(t, s.CreateChart(&a))
	require.NoError(t, s.CreateChart(&b))
	require.NoError(t, s.OpenChart(a.ID, time.Now().Add(time.Hour)))
	opened, err := s.ChangeChart(a.ID, a.Tag, func(c *Chart) error { c.Title = "Slipway shuffle"; return nil })
	require.NoError(t, err)
	require.NoError(t, s.Close())

	s = open(t, dir)
	all, err := s.Charts(All)
	require.NoError(t, err)
	require.Len(t, all, 2)
	assert.Equal(t, "Slipway shuffle", all[0].Title)
	kept, err := s.Chart(a.ID)
	require.NoError(t, err)
	assert.Equal(t, []Pick{{Frets{0, 4}, Spot{3, 4}}}, kept.Plan.Picks)
	assert.NotNil(t, kept.OpenedAt)
	assert.Equal(t, opened.Tag, kept.Tag, "to open a chart is no change of it")

	require.NoError(t, s.DeleteChart(a.ID, kept.Tag))
	_, err = s.Chart(a.ID)
	assert.ErrorIs(t, err, ErrNotFound)
	assert.ErrorIs(t, s.DeleteChart(a.ID, Any), ErrNotFound)
	_, err = s.ChangePlan(a.ID, Any, func(*Chart) error { return nil })
	assert.ErrorIs(t, err, ErrNotFound)
	back, err := s.RestoreChart(a.ID)
	require.NoError(t, err)
	assert.Equal(t, "Slipway shuffle", back.Title)
	_, err = s.RestoreChart(99)
	assert.ErrorIs(t, err, ErrNotFound)
}

func TestPlayerIsKept(t *testing.T) {
	s := open(t, t.TempDir())
	p, err := s.Player()
	require.NoError(t, err)
	first := p.Tag
	assert.Equal(t, PlayerVersion{DefaultPlayer, first, 1, "Player"}, p)
	p.Tuning, p.Left = "D2,A2,D3,G3,B3,E4", true
	_, err = s.SetPlayer(p.Player, first)
	require.NoError(t, err)
	p.Habit = "shift"
	now, err := s.SetPlayer(p.Player, first)
	assert.ErrorIs(t, err, ErrStale)
	assert.Equal(t, "stay", now.Habit, "what is there now")
	now, err = s.SetPlayer(p.Player, now.Tag)
	require.NoError(t, err)
	again, err := s.Player()
	require.NoError(t, err)
	assert.Equal(t, PlayerVersion{p.Player, now.Tag, 1, "Player"}, again)
}

// A new database that was never closed, its mark still in the journal beside it, is
// known as ours, with every table of this version.
func TestAFileOfAKilledProgramIsOurs(t *testing.T) {
	dir, copied := t.TempDir(), t.TempDir()
	s, err := Open(dir)
	require.NoError(t, err)
	require.NoError(t, s.CreateChart(&Chart{Title: "Slipway", Key: "C", Beats: 4, Text: "| C7 |"}))
	for _, name := range []string{FileName, FileName + "-wal"} {
		data, err := os.ReadFile(filepath.Join(dir, name))
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(copied, name), data, 0o600))
	}
	var has []string
	require.NoError(t, s.db.Raw(`SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'`).Scan(&has).Error)
	for _, table := range has {
		assert.True(t, known(table), table)
	}
	require.NoError(t, s.Close())
	again, err := Open(copied)
	require.NoError(t, err)
	n, err := again.CountCharts(All)
	require.NoError(t, err)
	assert.Equal(t, 1, n)
	require.NoError(t, again.Close())
}

func sum(t *testing.T, path string) [32]byte {
	data, err := os.ReadFile(path)
	require.NoError(t, err)
	return sha256.Sum256(data)
}

func TestFilesThatCannotBeUsedAreLeftAlone(t *testing.T) {
	write := func(fill func(path string)) string {
		dir := t.TempDir()
		fill(filepath.Join(dir, FileName))
		return dir
	}
	for want, dir := range map[string]string{
		"not a database": write(func(path string) {
			require.NoError(t, os.WriteFile(path, []byte("a shopping list, and quite a long one so that it fills a header of a hundred bytes and some more"), 0o600))
		}),
		"newer Undaris": write(func(path string) {
			s, err := Open(filepath.Dir(path))
			require.NoError(t, err)
			require.NoError(t, s.db.Exec(`INSERT INTO migrations (id) VALUES ('9999-from-the-future')`).Error)
			require.NoError(t, s.Close())
		}),
		"made by another program": write(func(path string) {
			raw(t, path, `PRAGMA journal_mode = WAL`, `CREATE TABLE recipes (id INTEGER)`, `CREATE TABLE migrations (id TEXT)`)
		}),
		"made by another": write(func(path string) {
			raw(t, path, `PRAGMA application_id = 7`, `CREATE TABLE migrations (id TEXT)`)
		}),
		"is damaged": write(func(path string) {
			s, err := Open(filepath.Dir(path))
			require.NoError(t, err)
			for range 200 {
				require.NoError(t, s.CreateChart(&Chart{Title: strings.Repeat("x", 200), Key: "C", Beats: 4, Text: "| C7 |"}))
			}
			require.NoError(t, s.Close())
			data, err := os.ReadFile(path)
			require.NoError(t, err)
			for i := 6*4096 + 8; i < 12*4096; i++ {
				data[i] ^= 0x5A
			}
			require.NoError(t, os.WriteFile(path, data, 0o600))
		}),
	} {
		path := filepath.Join(dir, FileName)
		os.Remove(path + "-wal")
		before := sum(t, path)
		_, err := Open(dir)
		assert.ErrorContains(t, err, want)
		assert.Equal(t, before, sum(t, path))
	}
}

func TestLockedFileIsRefused(t *testing.T) {
	dir := t.TempDir()
	s, err := Open(dir)
	require.NoError(t, err)
	require.NoError(t, s.Close())
	other, err := sql.Open("sqlite", "file:"+filepath.Join(dir, FileName)+"?_pragma=locking_mode(EXCLUSIVE)&_pragma=journal_mode(DELETE)")
	require.NoError(t, err)
	defer other.Close()
	other.SetMaxOpenConns(1)
	_, err = other.Exec(`BEGIN EXCLUSIVE`)
	require.NoError(t, err)
	_, err = Open(dir)
	assert.ErrorContains(t, err, "locked")
}

// raw runs statements on a file of no store's.
func raw(t *testing.T, path string, statements ...string) {
	db, err := sql.Open("sqlite", "file:"+path)
	require.NoError(t, err)
	defer db.Close()
	db.SetMaxOpenConns(1)
	for _, q := range statements {
		_, err := db.Exec(q)
		require.NoError(t, err, q)
	}
}

// An older file, killed while its newest rows stood in the journal alone.
func TestMigrationCopiesEverythingAside(t *testing.T) {
	dir := t.TempDir()
	path := filepath.Join(dir, FileName)
	old, err := sql.Open("sqlite", "file:"+path+"?_pragma=journal_mode(WAL)&_pragma=wal_autocheckpoint(0)")
	require.NoError(t, err)
	defer old.Close() // still open: nothing is written back
	gormOld, err := gorm.Open(sqlite.New(sqlite.Config{Conn: old}), &gorm.Config{Logger: logger.Discard})
	require.NoError(t, err)
	require.NoError(t, gormigrate.New(gormOld, gormigrate.DefaultOptions, migrations[:2]).Migrate())
	for _, q := range []string{
		`INSERT INTO charts (title, key, feel, tempo, beats, text, created_at, updated_at) VALUES ('Kept', 'C', 'shuffle', 96, 4, '| C7 | F7 |', '2026-01-01', '2026-01-01')`,
		`INSERT INTO charts (title, key, feel, tempo, beats, text, plan, created_at, updated_at) VALUES ('Planned', 'C', 'shuffle', 96, 4, '| C7 |', '{"picks":["0-4 3:4","?"],"pins":["7-11 2.1 3:8"],"targets":"third,seventh","strings":"1-3","allowed":{"I7":"third","IV7":""},"thread":"any","imagined":{"bar":1,"text":"| G7 |"}}', '2025-01-01', '2026-01-01')`,
		`INSERT INTO licks (title, chord, of_key, notes, created_at, updated_at) VALUES ('Bell', '7', 0, '[{"start":0,"length":480,"degree":"5","octave":0}]', '2026-01-01', '2026-01-01')`,
		`INSERT INTO players (id, settings) VALUES (1, '{"tuning":"D2,A2,D3,G3,B3,E4","frets":24,"scale":630,"capo":2,"left":true,"comfort":90,"habit":"shift"}')`,
		`INSERT INTO licks (title, chord, of_key, notes, created_at, updated_at) VALUES ('Torn', '7', 0, '[{"sta', '2026-01-01', '2026-01-01')`,
	} {
		_, err = old.Exec(q)
		require.NoError(t, err)
	}
	s := open(t, dir)
	copies, _ := filepath.Glob(path + ".*.before-migration")
	require.Len(t, copies, 1)
	info, _ := os.Stat(copies[0])
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())
	copied, err := sql.Open("sqlite", "file:"+copies[0]+"?mode=ro&immutable=1")
	require.NoError(t, err)
	defer copied.Close()
	var title string
	require.NoError(t, copied.QueryRow(`SELECT title FROM charts`).Scan(&title))
	assert.Equal(t, "Kept", title)

	player, err := s.Player()
	require.NoError(t, err)
	assert.Equal(t, PlayerVersion{Player{Tuning: "D2,A2,D3,G3,B3,E4", Frets: 24, Scale: 630, Capo: 2, Left: true, Comfort: 90, Habit: "shift"}, player.Tag, 1, "Player"}, player, "whoever was there is the first of the players")
	charts, err := s.Charts(All)
	require.NoError(t, err)
	assert.Equal(t, 2, charts[0].Bars)
	assert.NotEqual(t, charts[0].Tag, charts[1].Tag)
	planned, err := s.Chart(2)
	require.NoError(t, err)
	assert.Equal(t, Plan{Picks: []Pick{{Frets{0, 4}, Spot{3, 4}}}, Pins: []Pin{{Frets{7, 11}, 2, 1, Spot{3, 8}}}, Targets: []string{"third", "seventh"},
		Strings: "1-3", Allowed: map[string][]string{"I7": {"third"}}, Thread: "any", Imagined: &Imagined{1, "| G7 |"}}, planned.Plan)
	plain, err := s.Chart(1)
	require.NoError(t, err)
	assert.Equal(t, Plan{}, plain.Plan)
	licks, err := s.Licks(All)
	require.NoError(t, err)
	require.Len(t, licks, 2)
	assert.Equal(t, []any{"5", 0.5}, []any{licks[1].LandsOn, licks[1].Length})
	_, err = s.Lick(2)
	assert.ErrorContains(t, err, "damaged")
	require.NoError(t, s.DeleteLick(2, Any), "what cannot be read can be deleted")
}

func TestADamagedRowCostsOnlyItself(t *testing.T) {
	s := open(t, t.TempDir())
	for _, title := range []string{"a", "b", "c"} {
		require.NoError(t, s.CreateLine(&Line{Title: title, Key: "C", Beats: 4, Text: "| C7 |", Notes: []LineNote{}, Locked: []int{}}))
		require.NoError(t, s.CreateLick(&Lick{Title: title, Chord: "7", Notes: []LickNote{}, Tags: []string{}}))
	}
	require.NoError(t, s.db.Exec(`UPDATE lines SET tempo = 'brisk' WHERE title = 'b'`).Error)
	require.NoError(t, s.db.Exec(`UPDATE licks SET tags = '{' WHERE title = 'b'`).Error)
	lines, err := s.Lines(All)
	require.NoError(t, err)
	require.Len(t, lines, 3)
	assert.Equal(t, []any{uint(2), "b"}, []any{lines[1].ID, lines[1].Title})
	assert.Contains(t, lines[1].Problem, "number 2 is damaged")
	assert.Empty(t, lines[0].Problem+lines[2].Problem)
	licks, err := s.Licks(All)
	require.NoError(t, err)
	require.Len(t, licks, 3)
	assert.Contains(t, licks[1].Problem, "number 2 is damaged")
	_, err = s.Line(2)
	assert.Error(t, err)
	page, err := s.Lines(Page{Offset: 1, Limit: 1})
	require.NoError(t, err)
	require.Len(t, page, 1)
	assert.Equal(t, "b", page[0].Title)
}

func TestTwoWritersLoseNothing(t *testing.T) {
	s := open(t, t.TempDir())
	c := Chart{Title: "0", Key: "C", Beats: 4, Text: "| C7 |"}
	require.NoError(t, s.CreateChart(&c))
	var both sync.WaitGroup
	for i := range 200 {
		for _, write := range []func(match Tag) error{
			func(v Tag) error {
				_, err := s.ChangeChart(c.ID, v, func(c *Chart) error { c.Title = fmt.Sprint(i + 1); return nil })
				return err
			},
			func(v Tag) error {
				_, err := s.ChangePlan(c.ID, v, func(c *Chart) error { c.Plan.Palette = fmt.Sprint(i + 1); return nil })
				return err
			},
		} {
			both.Go(func() {
				for {
					now, err := s.Chart(c.ID)
					assert.NoError(t, err)
					if err = write(now.Tag); err == nil {
						return
					}
					assert.ErrorIs(t, err, ErrStale)
				}
			})
		}
		both.Wait()
		now, err := s.Chart(c.ID)
		require.NoError(t, err)
		require.Equal(t, []string{fmt.Sprint(i + 1), fmt.Sprint(i + 1)}, []string{now.Title, now.Plan.Palette})
	}
}

func TestOneProgramToADirectory(t *testing.T) {
	dir := t.TempDir()
	first := open(t, dir)
	_, err := Open(dir)
	assert.ErrorContains(t, err, fmt.Sprintf("another Undaris (process %d) uses", os.Getpid()))
	require.NoError(t, first.Close())
	open(t, dir)
	info, err := os.Stat(filepath.Join(dir, FileName))
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())
}

func TestAFileTakenAwayIsNoticed(t *testing.T) {
	for name, take := range map[string]func(path string) error{
		"removed": func(path string) error {
			os.Remove(path + "-wal")
			os.Remove(path + "-shm")
			return os.Remove(path)
		},
		"replaced": func(path string) error {
			os.Remove(path)
			return os.WriteFile(path, []byte("something else"), 0o600)
		},
	} {
		dir := t.TempDir()
		s := open(t, dir)
		require.NoError(t, s.CreateChart(&Chart{Title: "Kept", Key: "C", Beats: 4, Text: "| C7 |"}))
		require.NoError(t, take(filepath.Join(dir, FileName)))
		for range 2 {
			var f *Fault
			require.ErrorAs(t, s.CreateChart(&Chart{Title: "Lost", Key: "C", Beats: 4, Text: "| C7 |"}), &f, name)
			assert.Equal(t, Gone, f.Kind, name)
			assert.Contains(t, f.Says, "what was in it is now in", name)
		}
		rescued, _ := filepath.Glob(filepath.Join(dir, "*.rescued"))
		require.Len(t, rescued, 1, name)
		require.NoError(t, s.Close())
		require.NoError(t, os.Rename(rescued[0], filepath.Join(dir, FileName)))
		all, err := open(t, dir).Charts(All)
		require.NoError(t, err)
		require.Len(t, all, 1, name)
		assert.Equal(t, "Kept", all[0].Title)
	}
}

func TestAFullDiskIsSaid(t *testing.T) {
	s := open(t, t.TempDir())
	require.NoError(t, s.CreateChart(&Chart{Title: "Kept", Key: "C", Beats: 4, Text: "| C7 |"}))
	db, err := s.db.DB()
	require.NoError(t, err)
	db.SetMaxOpenConns(1) // the limit below is the connection's
	require.NoError(t, s.db.Exec(`PRAGMA max_page_count = 1`).Error)
	err = s.CreateChart(&Chart{Title: strings.Repeat("x", 100_000), Key: "C", Beats: 4, Text: "| C7 |"})
	var f *Fault
	require.ErrorAs(t, err, &f)
	assert.Equal(t, Full, f.Kind)
	assert.Equal(t, "the disk is full; nothing was saved. Make room and try again", f.Error())
	assert.ErrorContains(t, f.Cause, "full", "the cause is kept for the log")
}
