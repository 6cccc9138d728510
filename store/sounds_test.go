package store

import (
	"bytes"
	"errors"
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func soundsAt(t *testing.T, dir string) (list []string) {
	there, err := os.ReadDir(filepath.Join(dir, soundShelf.dir))
	require.NoError(t, err)
	for _, f := range there {
		list = append(list, f.Name())
	}
	return list
}

// Sounds that nobody names are swept when the store is opened, and so is what was being written
// when the program was killed; what a copy beside the database names stays, and so does what is no
// sound of ours.
func TestOrphanedSoundsAreSwept(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	full(t, s, 1)
	require.NoError(t, s.KeepSound(1, strings.NewReader("another one")))
	assert.Len(t, soundsAt(t, dir), 2)
	_, err := s.copyAside("before-restore")
	require.NoError(t, err)
	require.NoError(t, s.KeepSound(1, strings.NewReader("the last one")))
	orphan, _, err := soundShelf.put(dir, strings.NewReader("written, then killed before its row"))
	require.NoError(t, err)
	for _, name := range []string{partFile + "123", "notes.txt"} {
		require.NoError(t, os.WriteFile(filepath.Join(dir, soundShelf.dir, name), []byte("x"), 0o600))
	}
	require.NoError(t, s.Close())
	s = open(t, dir)
	left := soundsAt(t, dir)
	assert.NotContains(t, left, orphan+".wav")
	assert.NotContains(t, left, partFile+"123")
	assert.Contains(t, left, "notes.txt", "it is not ours")
	assert.Len(t, left, 3, "the last one, the one that the copy names, and the text")
	assert.Equal(t, "the last one", string(soundOf(t, s, 1)))
	// A copy that cannot be asked: everything stays.
	orphan, _, err = soundShelf.put(dir, strings.NewReader("yet another"))
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(filepath.Join(dir, FileName)+".20200101-000000.000.before-restore", []byte("no database"), 0o600))
	require.NoError(t, s.Close())
	open(t, dir)
	assert.Contains(t, soundsAt(t, dir), orphan+".wav")
}

// A sound that is gone or cut is said to be; the take, and everything else, is whole, leaves in a
// backup and comes back.
func TestASoundThatIsGone(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	full(t, s, 2)
	second := Take{Title: "Second", Tempo: 90}
	require.NoError(t, s.CreateTake(&second))
	require.NoError(t, s.KeepSound(second.ID, strings.NewReader("it sounds")))
	path := filepath.Join(dir, soundShelf.dir, soundsAt(t, dir)[0])
	require.NoError(t, os.Remove(path))
	gone := uint(1)
	if _, err := s.Sound(1); err == nil {
		gone = second.ID
	}
	_, err := s.Sound(gone)
	var fault *Fault
	require.ErrorAs(t, err, &fault)
	assert.Equal(t, Unreadable, fault.Kind)
	other := open(t, t.TempDir())
	done, err := other.Restore(t.Context(), bytes.NewReader(backupOf(t, s)), Asked{Empty: true})
	require.NoError(t, err)
	assert.Empty(t, done.Left)
	lost, err := other.Take(gone)
	require.NoError(t, err)
	assert.False(t, lost.Sound)
	kept, err := other.Take(1 + second.ID - gone)
	require.NoError(t, err)
	assert.True(t, kept.Sound)
}

// In a backup a sound that is not what it is named by is left out; the rest is taken.
func TestASpoiltSoundInABackup(t *testing.T) {
	s := open(t, t.TempDir())
	full(t, s, 2)
	names, files := parts(t, backupOf(t, s))
	files[names[1]] = "\x00\x01\x02\xFEQ"
	other := open(t, t.TempDir())
	done, err := other.Restore(t.Context(), strings.NewReader(joined(t, names, files)), Asked{Empty: true})
	require.NoError(t, err)
	assert.Equal(t, []string{"how take 1 sounded: it is damaged"}, done.Left)
	take, err := other.Take(1)
	require.NoError(t, err)
	assert.False(t, take.Sound)
	require.NoError(t, other.Close())
}

// What cannot be used is left out by name; the rest of the backup is there.
func TestWhatCannotBeUsedIsLeftOut(t *testing.T) {
	s := open(t, t.TempDir())
	full(t, s, 5)
	whole := string(backupOf(t, s))
	other := open(t, t.TempDir())
	legal := func(thing any) error {
		if c, ok := thing.(Chart); ok && (c.ID == 2 || c.ID == 3) {
			return errors.New("there is no feel “tango”")
		}
		return nil
	}
	done, err := other.Restore(t.Context(), strings.NewReader(whole), Asked{Empty: true, Legal: legal})
	require.NoError(t, err)
	assert.Equal(t, []string{"chart 2 (Slipway 1 ♭): there is no feel “tango”", "chart 3 (Slipway 2 ♭): there is no feel “tango”"}, done.Left)
	assert.Equal(t, 2, done.Lost)
	charts, err := other.Charts(All)
	require.NoError(t, err)
	assert.Len(t, charts, 2)
}

// A disk without room is asked before it is filled.
func TestThereIsNoRoom(t *testing.T) {
	assert.NoError(t, roomFor(t.TempDir(), 1<<20))
	err := roomFor(t.TempDir(), 1<<60)
	assert.ErrorIs(t, err, syscall.ENOSPC)
	s := open(t, t.TempDir())
	full(t, s, 2)
	before := backupOf(t, s)
	in := incoming{dir: filepath.Dir(s.path), beside: 1 << 60}
	var fault *Fault
	require.ErrorAs(t, s.room(in.read(t.Context(), bytes.NewReader(before))), &fault)
	assert.Equal(t, Full, fault.Kind)
	assert.Contains(t, fault.Says, "the disk is full, so the backup was not restored")
}
