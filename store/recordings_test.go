package store

import (
	"bytes"
	"io"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func recording(t testing.TB, s *Store, title, sound string) Recording {
	r := Recording{Title: title, Hearing: Hearing{Beats: 4, Anchors: []Anchor{{0, 0.5}, {8, 5.3}}, Notes: []NoteByEar{{ID: 1, At: 1, Length: 0.5, Pitch: 60, Settled: true}, {ID: 2, At: 2, Pitch: 62}}}}
	require.NoError(t, s.CreateRecording(&r))
	if sound != "" {
		var err error
		r, err = s.KeepRecording(r.ID, "audio/wav", strings.NewReader(sound))
		require.NoError(t, err)
	}
	return r
}

func fileOf(t testing.TB, s *Store, id uint) string {
	f, _, err := s.RecordingFile(id)
	require.NoError(t, err)
	defer f.Close()
	data, err := io.ReadAll(f)
	require.NoError(t, err)
	return string(data)
}

// A recording and its file are kept beside each other; what lists tell is worked out; two of the same sound share a file.
func TestRecordingsAreKept(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	one, two := recording(t, s, "One", "it sounds"), recording(t, s, "Two", "it sounds")
	assert.Equal(t, one.Hash, two.Hash)
	assert.Equal(t, "it sounds", fileOf(t, s, two.ID))
	list, err := s.Recordings(All)
	require.NoError(t, err)
	require.Len(t, list, 2)
	assert.Equal(t, []any{"Two", int64(9), "audio/wav", 100.0, 1}, []any{list[0].Title, list[0].Bytes, list[0].Media, list[0].Tempo, list[0].Settled})
	// What its player says leaves the file as it is, and a new file what its player says.
	now, err := s.ChangeRecording(one.ID, one.Tag, func(r *Recording) error {
		r.Title, r.Hash, r.Hearing.Notes = "Uno", "", nil
		return nil
	})
	require.NoError(t, err)
	assert.Equal(t, "it sounds", fileOf(t, s, one.ID))
	_, err = s.ChangeRecording(one.ID, one.Tag, func(*Recording) error { return nil })
	assert.ErrorIs(t, err, ErrStale)
	now, err = s.KeepRecording(one.ID, "audio/ogg", strings.NewReader("otherwise"))
	require.NoError(t, err)
	assert.Equal(t, []any{"Uno", "otherwise", 0}, []any{now.Title, fileOf(t, s, one.ID), now.Settled})
	_, _, err = s.RecordingFile(99)
	assert.ErrorIs(t, err, ErrNotFound)
	_, err = s.KeepRecording(99, "audio/ogg", strings.NewReader("x"))
	assert.ErrorIs(t, err, ErrNotFound)
	empty := recording(t, s, "Empty", "")
	_, _, err = s.RecordingFile(empty.ID)
	assert.ErrorIs(t, err, ErrNotFound)
	require.NoError(t, os.Remove(filepath.Join(dir, recordingShelf.file(now.Hash))))
	_, _, err = s.RecordingFile(one.ID)
	var fault *Fault
	require.ErrorAs(t, err, &fault)
	assert.Equal(t, Unreadable, fault.Kind)
	assert.Contains(t, fault.Says, "what was found in it is whole")
}

// A file that no recording names any more is swept; that of a deleted one stays as long as it can be taken back, and no longer.
func TestFilesOfRecordingsAreSwept(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	kept, gone := recording(t, s, "Kept", "kept"), recording(t, s, "Gone", "gone")
	first := kept.Hash
	_, err := s.KeepRecording(kept.ID, "audio/wav", strings.NewReader("kept anew"))
	require.NoError(t, err)
	require.NoError(t, s.DeleteRecording(gone.ID, Any))
	require.NoError(t, s.Close())
	s = open(t, dir)
	_, err = os.Stat(filepath.Join(dir, recordingShelf.file(first)))
	assert.ErrorIs(t, err, os.ErrNotExist)
	back, err := s.RestoreRecording(gone.ID)
	require.NoError(t, err)
	assert.Equal(t, "gone", fileOf(t, s, back.ID))
	require.NoError(t, s.DeleteRecording(gone.ID, Any))
	require.NoError(t, s.db.Exec("UPDATE recordings SET deleted_at = ? WHERE id = ?", time.Now().Add(-fileStays-time.Hour), gone.ID).Error)
	require.NoError(t, s.Close())
	s = open(t, dir)
	_, err = os.Stat(filepath.Join(dir, recordingShelf.file(gone.Hash)))
	assert.ErrorIs(t, err, os.ErrNotExist)
	assert.Equal(t, "kept anew", fileOf(t, s, kept.ID))
	back, err = s.RestoreRecording(gone.ID)
	require.NoError(t, err)
	assert.Equal(t, []any{"", int64(0), 2}, []any{back.Hash, back.Bytes, len(back.Hearing.Notes)})
}

// A backup has the recordings, and their files where they are wanted; without them a restored one asks for its file, unless
// it is here already.
func TestRecordingsInABackup(t *testing.T) {
	s := open(t, t.TempDir())
	r := recording(t, s, "Tape", "it sounds")
	recording(t, s, "Tape again", "it sounds")
	with := backupOf(t, s)
	var without bytes.Buffer
	require.NoError(t, s.Backup(t.Context(), &without, false))
	names, files := parts(t, with)
	assert.Equal(t, []string{backupDocument, recordingShelf.file(r.Hash)}, names)
	assert.Equal(t, "it sounds", files[names[1]])
	names, _ = parts(t, without.Bytes())
	assert.Equal(t, []string{backupDocument}, names)

	other := open(t, t.TempDir())
	done, err := other.Restore(t.Context(), bytes.NewReader(with), Asked{})
	require.NoError(t, err)
	assert.Empty(t, done.Left)
	assert.Equal(t, "it sounds", fileOf(t, other, r.ID))
	// The same without the files, over that: they are still here.
	_, err = other.Restore(t.Context(), bytes.NewReader(without.Bytes()), Asked{})
	require.NoError(t, err)
	assert.Equal(t, "it sounds", fileOf(t, other, r.ID))

	bare := open(t, t.TempDir())
	_, err = bare.Restore(t.Context(), bytes.NewReader(without.Bytes()), Asked{})
	require.NoError(t, err)
	_, _, err = bare.RecordingFile(r.ID)
	var fault *Fault
	require.ErrorAs(t, err, &fault)
	there, err := bare.Recording(r.ID)
	require.NoError(t, err)
	assert.Len(t, there.Hearing.Notes, 2)
	_, err = bare.KeepRecording(r.ID, "audio/wav", strings.NewReader("it sounds"))
	require.NoError(t, err)
	assert.Equal(t, "it sounds", fileOf(t, bare, r.ID))

	// One whose file is cut does not leave with it; a file that is not what it is called is told of by nobody's name.
	names, files = parts(t, with)
	files[names[1]] = "not what it is"
	_, err = open(t, t.TempDir()).Restore(t.Context(), strings.NewReader(joined(t, names, files)), Asked{})
	require.NoError(t, err)
}
