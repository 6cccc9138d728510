package store

import (
	"bytes"
	"context"
	"io"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// each makes one of everything that has versions, and tells its tag and how to change and
// delete it.
type versioned struct {
	name   string
	tag    func() Tag
	change func(Tag) error
	remove func(Tag) error
}

func oneOfEach(t *testing.T, s *Store) []versioned {
	chart := Chart{Title: "A", Key: "C", Beats: 4, Text: "| C7 |"}
	line := Line{Title: "A", Key: "C", Beats: 4, Text: "| C7 |", Notes: []LineNote{}, Locked: []int{}}
	lick := Lick{Title: "A", Chord: "7", Notes: []LickNote{}, Tags: []string{}}
	set := Set{Title: "A", Items: []SetItem{}}
	take := Take{Title: "A", Heard: []HeardNote{}}
	require.NoError(t, s.CreateChart(&chart))
	require.NoError(t, s.CreateLine(&line))
	require.NoError(t, s.CreateLick(&lick))
	require.NoError(t, s.CreateSet(&set))
	require.NoError(t, s.CreateTake(&take))
	return things(s, 1)
}

// things are those of one number.
func things(s *Store, id uint) []versioned {
	return []versioned{
		{"chart", func() Tag { c, _ := s.Chart(id); return c.Tag },
			func(m Tag) error {
				_, err := s.ChangeChart(id, m, func(c *Chart) error { c.Title += "!"; return nil })
				return err
			}, func(m Tag) error { return s.DeleteChart(id, m) }},
		{"plan", func() Tag { c, _ := s.Chart(id); return c.Tag },
			func(m Tag) error {
				_, err := s.ChangePlan(id, m, func(c *Chart) error { c.Plan.Nearest = true; return nil })
				return err
			}, func(m Tag) error { return s.DeleteChart(id, m) }},
		{"line", func() Tag { c, _ := s.Line(id); return c.Tag },
			func(m Tag) error {
				_, err := s.ChangeLine(id, m, func(c *Line) error { c.Title += "!"; return nil })
				return err
			}, func(m Tag) error { return s.DeleteLine(id, m) }},
		{"lick", func() Tag { c, _ := s.Lick(id); return c.Tag },
			func(m Tag) error {
				_, err := s.ChangeLick(id, m, func(c *Lick) error { c.Title += "!"; return nil })
				return err
			}, func(m Tag) error { return s.DeleteLick(id, m) }},
		{"set", func() Tag { c, _ := s.Set(id); return c.Tag },
			func(m Tag) error {
				_, err := s.ChangeSet(id, m, func(c *Set) error { c.Title += "!"; return nil })
				return err
			}, func(m Tag) error { return s.DeleteSet(id, m) }},
		{"take", func() Tag { c, _ := s.Take(id); return c.Tag },
			func(m Tag) error {
				_, err := s.ChangeTake(id, m, func(c *Take) error { c.Title += "!"; return nil })
				return err
			}, func(m Tag) error { return s.DeleteTake(id, m) }},
		{"player", func() Tag { p, _ := s.Player(); return p.Tag },
			func(m Tag) error { _, err := s.SetPlayer(Player{Tuning: "E2", Frets: 12}, m); return err }, func(Tag) error { return ErrStale }},
	}
}

// A tag of another database, of another history of the same one or of an earlier version
// changes and deletes nothing: not after a restore, and not in a file that was copied back.
func TestATagMeansOneVersionOfOneHistory(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	all := oneOfEach(t, s)
	first := s.Identity()
	assert.Regexp(t, `^[a-z2-7]{26}$`, first)
	var saved bytes.Buffer
	require.NoError(t, s.Backup(context.Background(), &saved, true))
	assert.NotContains(t, saved.String(), first, "a backup does not carry the identity")

	tags := make([]Tag, len(all))
	for i, v := range all {
		tags[i] = v.tag()
	}
	_, err := s.Restore(context.Background(), bytes.NewReader(saved.Bytes()), Asked{Empty: true})
	require.NoError(t, err)
	assert.NotEqual(t, first, s.Identity(), "a restore makes another database of it")
	for i, v := range all {
		assert.ErrorIs(t, v.change(tags[i]), ErrStale, v.name)
		assert.ErrorIs(t, v.remove(tags[i]), ErrStale, v.name)
		assert.NoError(t, v.change(v.tag()), v.name)
	}

	// A file is copied aside, changed, and copied back by hand: its identity is the same.
	require.NoError(t, s.Close())
	path := filepath.Join(dir, FileName)
	aside, err := os.ReadFile(path)
	require.NoError(t, err)
	s = open(t, dir)
	lines := []Tag{}
	for _, v := range things(s, 1) {
		require.NoError(t, v.change(v.tag()), v.name)
		lines = append(lines, v.tag())
	}
	born := Line{Title: "B", Key: "C", Beats: 4, Text: "| C7 |", Notes: []LineNote{}, Locked: []int{}}
	require.NoError(t, s.CreateLine(&born))
	identity := s.Identity()
	require.NoError(t, s.Close())
	require.NoError(t, os.WriteFile(path, aside, 0o600))
	s = open(t, dir)
	assert.Equal(t, identity, s.Identity())
	for i, v := range things(s, 1) {
		assert.ErrorIs(t, v.change(lines[i]), ErrStale, "%s: as often changed as it is, it matches no tag of the other history", v.name)
		require.NoError(t, v.change(v.tag()), v.name)
		assert.ErrorIs(t, v.change(lines[i]), ErrStale, v.name)
	}
	other := Line{Title: "C", Key: "C", Beats: 4, Text: "| C7 |", Notes: []LineNote{}, Locked: []int{}}
	require.NoError(t, s.CreateLine(&other))
	require.Equal(t, born.ID, other.ID, "numbers come again")
	assert.NotEqual(t, born.Born, other.Born, "but it is another thing")
	assert.ErrorIs(t, s.DeleteLine(born.ID, born.Tag), ErrStale)
}

// A list says the same tags as its things.
func TestListsSayTags(t *testing.T) {
	s := open(t, t.TempDir())
	oneOfEach(t, s)
	charts, _ := s.Charts(All)
	lines, _ := s.Lines(All)
	licks, _ := s.Licks(All)
	sets, _ := s.Sets(All)
	takes, _ := s.Takes(All)
	listed := map[string]Tag{"chart": charts[0].Tag, "plan": charts[0].Tag, "line": lines[0].Tag, "lick": licks[0].Tag, "set": sets[0].Tag, "take": takes[0].Tag}
	for _, v := range things(s, 1) {
		if v.name == "player" { // is in no list
			assert.NotContains(t, listed, v.name)
			continue
		}
		assert.Equal(t, v.tag(), listed[v.name], v.name)
	}
}

// A damaged backup leaves the identity as it was.
func TestARefusedRestoreKeepsTheIdentity(t *testing.T) {
	s := open(t, t.TempDir())
	now := s.Identity()
	_, err := s.Restore(context.Background(), io.MultiReader(bytes.NewReader([]byte(`{"undaris": "backup"`))), Asked{Empty: true})
	require.Error(t, err)
	assert.Equal(t, now, s.Identity())
}

// What a page sends twice, since it heard no answer, is noted once, and as what it was.
func TestTheLogNotesAReferenceOnce(t *testing.T) {
	s := open(t, t.TempDir())
	a, b := Entry{Kind: LoggedCall, Title: "first", Ref: "r1", Trials: []Trial{}}, Entry{Kind: LoggedCall, Title: "second", Ref: "r1", Trials: []Trial{}}
	require.NoError(t, s.Log(&a))
	require.NoError(t, s.Log(&b))
	assert.Equal(t, []any{a.ID, "first"}, []any{b.ID, b.Title})
	without := []*Entry{{Kind: LoggedCall, Trials: []Trial{}}, {Kind: LoggedCall, Trials: []Trial{}}}
	require.NoError(t, s.Log(without...))
	assert.Len(t, logOf(t, s, 1), 3)
}

// With the lock file deleted another program could use the same data: nothing is written.
func TestADeletedLockIsNoticed(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	require.NoError(t, s.CreateChart(&Chart{Title: "A", Key: "C", Beats: 4, Text: "| C7 |"}))
	require.NoError(t, os.Remove(filepath.Join(dir, "undaris.lock")))
	err := s.CreateChart(&Chart{Title: "B", Key: "C", Beats: 4, Text: "| C7 |"})
	assert.ErrorContains(t, err, "undaris.lock was removed")
	other := open(t, dir)
	err = s.CreateChart(&Chart{Title: "C", Key: "C", Beats: 4, Text: "| C7 |"})
	assert.ErrorContains(t, err, "another Undaris may use the same data")
	all, err := other.Charts(All)
	require.NoError(t, err)
	assert.Len(t, all, 1)
}

// What a restore left that was killed is cleared away.
func TestWhatAKilledRestoreLeftIsSwept(t *testing.T) {
	dir := t.TempDir()
	left := filepath.Join(dir, restoreDir+"123")
	require.NoError(t, os.MkdirAll(left, 0o700))
	require.NoError(t, os.WriteFile(filepath.Join(left, "new.db"), []byte("half"), 0o600))
	open(t, dir)
	assert.NoDirExists(t, left)
}
