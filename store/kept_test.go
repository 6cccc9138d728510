package store

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

func TestLinesAreKeptDeletedAndRestored(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	note := score.Note{Start: -480, Length: 480, Pitch: pitch.Pitch{Name: pitch.Name{Letter: 6, Alter: -1}, Octave: 3}, Placement: neck.Placement{String: 3, Fret: 3}, Finger: 1,
		Ornaments: score.Ornaments{Join: score.Slide, Bend: 2, Release: true, Vibrato: true}, Guesses: score.Guesses{PlaceGuessed: true}}
	a := Line{Title: "Ebb", Key: "Bb", Feel: "shuffle", Tempo: 90, Beats: 4, Text: "| Bb7 |", Palette: "composite", Low: 3, High: 7, Notes: LineNotes([]score.Note{note}), Locked: []int{2, 3}}
	b := Line{Title: "Flow", Key: "C", Feel: "shuffle", Tempo: 90, Beats: 4, Text: "| C7 |", Notes: []LineNote{}, Locked: []int{}}
	require.NoError(t, s.CreateLine(&a))
	require.NoError(t, s.CreateLine(&b))
	first := a.Tag
	changed, err := s.ChangeLine(a.ID, first, func(l *Line) error { l.Title = "Ebb tide"; return nil })
	require.NoError(t, err)
	assert.Equal(t, 1, changed.Bars)
	assert.NotEqual(t, first, changed.Tag)
	assert.Equal(t, a.Born, changed.Born, "it is the same thing")
	require.NoError(t, s.Close())

	s = open(t, dir)
	all, err := s.Lines(All)
	require.NoError(t, err)
	require.Len(t, all, 2)
	assert.Equal(t, "Ebb tide", all[0].Title, "what was changed last comes first")
	got, err := s.Line(a.ID)
	require.NoError(t, err)
	assert.Equal(t, []LineNote{{0, -480, 480, "Bb3", 3, 3, 1, "", Ornaments(note.Ornaments), Guesses(note.Guesses)}}, got.Notes)
	assert.Equal(t, []int{2, 3}, got.Locked)
	assert.WithinDuration(t, a.CreatedAt, got.CreatedAt, 0, "a change does not make it new")

	assert.ErrorIs(t, s.DeleteLine(a.ID, first), ErrStale)
	require.NoError(t, s.DeleteLine(a.ID, changed.Tag))
	_, err = s.Line(a.ID)
	assert.ErrorIs(t, err, ErrNotFound)
	assert.ErrorIs(t, s.DeleteLine(a.ID, Any), ErrNotFound)
	_, err = s.ChangeLine(a.ID, Any, func(*Line) error { return nil })
	assert.ErrorIs(t, err, ErrNotFound, "what is deleted cannot be changed")
	back, err := s.RestoreLine(a.ID)
	require.NoError(t, err)
	assert.Equal(t, got.Notes, back.Notes)
	again, err := s.RestoreLine(b.ID)
	require.NoError(t, err)
	assert.Equal(t, "Flow", again.Title, "what is not deleted stays as it is")
	_, err = s.RestoreLine(99)
	assert.ErrorIs(t, err, ErrNotFound)
}

func TestLicksAreKeptDeletedAndRestored(t *testing.T) {
	s := open(t, t.TempDir())
	notes := []LickNote{{Start: 0, Length: 480, Degree: harmony.Degree("b3"), Octave: 1, String: 2, Ornaments: Ornaments{Bend: 1}}, {Start: 480, Length: 960, Degree: harmony.Degree("R")}}
	a := Lick{Title: "Bollard", Chord: "7", Notes: notes, Tags: []string{"box", "bend"}}
	require.NoError(t, s.CreateLick(&a))
	got, err := s.Lick(a.ID)
	require.NoError(t, err)
	assert.Equal(t, notes, got.Notes)
	assert.Equal(t, []string{"box", "bend"}, got.Tags)
	assert.Equal(t, []any{"R", 1.5}, []any{got.LandsOn, got.Length})
	_, err = s.ChangeLick(a.ID, got.Tag, func(l *Lick) error { l.Tags, l.OfKey, l.Chord = []string{}, true, "m"; return nil })
	require.NoError(t, err)
	got, _ = s.Lick(a.ID)
	assert.Equal(t, []any{0, true, "m"}, []any{len(got.Tags), got.OfKey, got.Chord}, "empty and true are kept too")
	require.NoError(t, s.DeleteLick(a.ID, Any))
	all, err := s.Licks(All)
	require.NoError(t, err)
	assert.Empty(t, all)
	_, err = s.RestoreLick(a.ID)
	require.NoError(t, err)
	all, _ = s.Licks(All)
	assert.Len(t, all, 1)
}
