package store

import (
	"crypto/sha256"
	"database/sql"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func open(t *testing.T, dir string) *Store {
	s, err := Open(dir)
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	return s
}

func TestChartsAreKeptDeletedAndRestored(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	a := Chart{Title: "Slipway", Key: "C", Feel: "shuffle", Tempo: 96, Beats: 4, Text: "| C7 |", Plan: Plan{Picks: []string{"0-4 3:4"}}}
	b := Chart{Title: "Bell buoy", Key: "Bm", Feel: "ballad", Tempo: 60, Beats: 4, Text: "| Bm7 |"}
	require.NoError(t, s.CreateChart(&a))
	require.NoError(t, s.CreateChart(&b))
	require.NoError(t, s.OpenChart(a.ID, time.Now().Add(time.Hour)))
	a.Title = "Slipway shuffle"
	require.NoError(t, s.UpdateChart(&a))
	require.NoError(t, s.Close())

	s = open(t, dir)
	all, err := s.Charts()
	require.NoError(t, err)
	require.Len(t, all, 2)
	assert.Equal(t, "Slipway shuffle", all[0].Title)
	assert.Equal(t, []string{"0-4 3:4"}, all[0].Plan.Picks)
	assert.NotNil(t, all[0].OpenedAt)

	require.NoError(t, s.DeleteChart(a.ID))
	_, err = s.Chart(a.ID)
	assert.ErrorIs(t, err, ErrNotFound)
	assert.ErrorIs(t, s.DeleteChart(a.ID), ErrNotFound)
	assert.ErrorIs(t, s.UpdateChart(&a), ErrNotFound)
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
	assert.Equal(t, DefaultPlayer, p)
	p.Tuning, p.Left = "D2,A2,D3,G3,B3,E4", true
	require.NoError(t, s.SetPlayer(p))
	p.Habit = "shift"
	require.NoError(t, s.SetPlayer(p))
	again, err := s.Player()
	require.NoError(t, err)
	assert.Equal(t, p, again)
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
	} {
		path := filepath.Join(dir, FileName)
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

func TestMigrationCopiesTheFileAside(t *testing.T) {
	dir := t.TempDir()
	path := filepath.Join(dir, FileName)
	db, err := sql.Open("sqlite", "file:"+path)
	require.NoError(t, err)
	_, err = db.Exec(`CREATE TABLE migrations (id VARCHAR(255) PRIMARY KEY)`)
	require.NoError(t, err)
	require.NoError(t, db.Close())
	before := sum(t, path)
	open(t, dir)
	copies, _ := filepath.Glob(path + ".*.before-migration")
	require.Len(t, copies, 1)
	assert.Equal(t, before, sum(t, copies[0]))
}
