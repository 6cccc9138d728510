package midi

import (
	"bytes"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/band"
	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

func perform(t testing.TB, feel string) band.Performance {
	f, _ := form.FormByID("jazz-blues")
	key, err := form.ParseKey("Eb")
	require.NoError(t, err)
	g, err := band.GrooveOf(feel)
	require.NoError(t, err)
	p, err := band.Play(t.Context(), f.In(key), g, band.Options{Choruses: 3, Seed: 5, CountIn: true})
	require.NoError(t, err)
	return p
}

func TestEveryNoteComesBack(t *testing.T) {
	for _, feel := range form.Feels {
		p := perform(t, feel.ID)
		file, err := Read(t.Context(), Write(p, Head{Title: "Harbour", Tempo: 132, Key: form.Key{Tonic: pitch.Name{Letter: 6, Alter: -1}}}))
		require.NoError(t, err)
		assert.Equal(t, band.Tick, file.Ticks)
		assert.Equal(t, "Harbour", file.Title)
		assert.InDelta(t, 132, file.Tempo, 0.01)
		assert.Equal(t, 4, file.Beats)
		assert.Equal(t, []any{true, "Bb"}, []any{file.Keyed, file.Key.String()})
		assert.Equal(t, p.Markers, file.Markers)
		assert.Zero(t, file.Unclosed)
		require.Len(t, file.Tracks, len(p.Tracks))
		for i, track := range p.Tracks {
			got := file.Tracks[i]
			assert.Equal(t, track.Name, got.Name)
			assert.Equal(t, track.Channel, got.Channel)
			assert.Equal(t, track.Program, got.Program)
			order := func(a, b band.Note) int {
				if a.Start != b.Start {
					return a.Start - b.Start
				}
				return a.MIDI - b.MIDI
			}
			want := once(track.Notes)
			slices.SortFunc(want, order)
			slices.SortFunc(got.Notes, order)
			assert.Equal(t, want, got.Notes, "%s in %s", track.Name, feel.ID)
		}
	}
}

func TestTheBytesOfASmallFile(t *testing.T) {
	p := band.Performance{Metres: []band.Metre{{Beats: 3}}, Ticks: 2880, Tracks: []band.Track{{Name: "b", Channel: 0, Program: 32, Notes: []band.Note{{Start: 0, Length: 960, MIDI: 36, Velocity: 80}}}}}
	assert.Equal(t, []byte("MThd\x00\x00\x00\x06\x00\x01\x00\x02\x03\xc0"+
		"MTrk\x00\x00\x00\x1f\x00\xff\x03\x01t\x00\xff\x51\x03\x07\xa1\x20\x00\xff\x58\x04\x03\x02\x18\x08\x00\xff\x59\x02\xfc\x01\x96\x40\xff\x2f\x00"+
		"MTrk\x00\x00\x00\x16\x00\xff\x03\x01b\x00\xc0\x20\x00\x90\x24\x50\x87\x40\x80\x24\x40\x8f\x00\xff\x2f\x00"), Write(p, Head{Title: "t", Tempo: 120, Key: form.Key{Tonic: pitch.Name{Letter: 3}, Minor: true}}))
}

func TestRunningStatusAndOpenNotes(t *testing.T) {
	file := "MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk\x00\x00\x00\x11" +
		"\x00\x90\x3c\x40\x60\x3c\x00\x00\x40\x40\x60\x43\x40\x00\xff\x2f\x00"
	f, err := Read(t.Context(), []byte(file))
	require.NoError(t, err)
	assert.Equal(t, 2, f.Unclosed)
	assert.Equal(t, band.Note{Start: 0, Length: 96, MIDI: 60, Velocity: 64}, f.Tracks[0].Notes[0])
}

func TestFilesRefused(t *testing.T) {
	good := Write(perform(t, "shuffle"), Head{Title: "x", Tempo: 96})
	for says, data := range map[string][]byte{
		"its head is missing": []byte("RIFF this is something else"),
		"format 2":            append([]byte("MThd\x00\x00\x00\x06\x00\x02\x00\x01\x00\x60"), good[14:]...),
		"film frames":         append([]byte("MThd\x00\x00\x00\x06\x00\x01\x00\x01\xe7\x28"), good[14:]...),
		"ends early":          good[:len(good)-5],
		"no status":           []byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk\x00\x00\x00\x03\x00\x3c\x40"),
		"cut off":             []byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk\x00\x00\x00\x02\x00\x90"),
	} {
		_, err := Read(t.Context(), data)
		assert.ErrorContains(t, err, says)
	}
}

func TestALineWithBendsComesBack(t *testing.T) {
	p, err := form.Read("| C7 | F7 |", 4, form.Key{})
	require.NoError(t, err)
	in := neck.Standard()
	s := score.Score{Title: "Bent", Progression: p, In: in, Tempo: 90}
	for i, how := range []score.Ornaments{{}, {Bend: 4}, {Bend: 2, Release: true}, {Vibrato: true}, {Bend: 1}, {}} {
		place := neck.Placement{String: 2, Fret: 8 + i}
		midi := in.MIDI(place)
		s.Notes = append(s.Notes, score.Note{Start: i * 960, Length: 960, Placement: place, Pitch: pitch.At(midi, s.Key.Spell(midi%12)), Ornaments: how})
	}
	groove, err := band.GrooveOf("straight")
	require.NoError(t, err)
	perf, err := band.Play(t.Context(), p, groove, band.Options{Choruses: 1, Lead: band.Lead(s), CountIn: true})
	require.NoError(t, err)
	file, err := Read(t.Context(), Write(perf, Head{Title: s.Title, Tempo: 90, Key: s.Key}))
	require.NoError(t, err)
	got, said, err := file.Line(score.Score{Progression: p, In: in})
	require.NoError(t, err)
	assert.Contains(t, said[0], `"lead" was read`)
	require.Len(t, got.Notes, len(s.Notes))
	for i, n := range s.Notes {
		assert.Equal(t, []any{n.Start, n.Length, n.Pitch.MIDI(), n.Bend, n.Release}, []any{got.Notes[i].Start, got.Notes[i].Length, got.Notes[i].Pitch.MIDI(), got.Notes[i].Bend, got.Notes[i].Release}, "note %d", i)
	}
	_, _, err = File{Ticks: 96, Tracks: []band.Track{{Channel: 9, Notes: []band.Note{{MIDI: 40, Length: 9}}}}}.Line(score.Score{})
	assert.ErrorContains(t, err, "no melody")
}

func TestWhatAFileDoesNotSayIsGuessedAndMarked(t *testing.T) {
	// In ticks of 480: one note early, one let go early, one pushed to between two
	// quarter tones, one to a whole step, and one in its place.
	notes := []band.Note{{Start: 0, Length: 240, MIDI: 58}, {Start: 228, Length: 180, MIDI: 62}, {Start: 480, Length: 480, MIDI: 60, Bends: []band.Bend{{At: 100, Cents: 130}}},
		{Start: 960, Length: 480, MIDI: 65, Bends: []band.Bend{{At: 90, Cents: 200}, {At: 300, Cents: 0}}}, {Start: 1440, Length: 480, MIDI: 58}}
	got, said, err := File{Ticks: 480, Tempo: 100, Beats: 4, Tracks: []band.Track{{Name: "solo", Notes: notes}}}.Line(score.Score{In: neck.Standard()})
	require.NoError(t, err)
	assert.Contains(t, strings.Join(said, ";"), "B♭ was guessed")
	assert.Contains(t, strings.Join(said, ";"), "1 of 5 notes were moved")
	var seen []any
	for _, n := range got.Notes {
		seen = append(seen, []any{n.Start, n.Length, n.Bend, n.Release, n.Guesses})
	}
	assert.Equal(t, []any{
		[]any{0, 480, 0, false, score.Guesses{}},
		[]any{480, 480, 0, false, score.Guesses{RhythmGuessed: true}}, // 450 to 810: it lasts until the next
		[]any{960, 960, 2, false, score.Guesses{BendGuessed: true}},
		[]any{1920, 960, 4, true, score.Guesses{}},
		[]any{2880, 960, 0, false, score.Guesses{}},
	}, seen)
}

func FuzzRead(f *testing.F) {
	f.Add(Write(perform(f, "shuffle"), Head{Title: "x", Tempo: 96})[:2000])
	f.Add([]byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk\x00\x00\x00\x04\x00\xff\x2f\x00"))
	swung := []band.Note{{Length: 600, MIDI: 60, Velocity: 80}, {Start: 610, Length: 300, MIDI: 63, Velocity: 80, Bends: []band.Bend{{At: 90, Cents: 130}}}, {Start: 960, Length: 320, MIDI: 65, Velocity: 80}, {Start: 1570, Length: 300, MIDI: 60, Velocity: 80}, {Start: 2530, Length: 2000, MIDI: 58, Velocity: 80}}
	f.Add(Write(band.Performance{Metres: []band.Metre{{Beats: 4}}, Ticks: 4800, Tracks: []band.Track{{Name: "lead", Notes: swung}}}, Head{Title: "x", Tempo: 96}))
	f.Fuzz(func(t *testing.T, data []byte) {
		file, err := Read(t.Context(), data)
		if err != nil {
			return
		}
		for _, track := range file.Tracks {
			for _, n := range track.Notes {
				if n.Length < 0 || n.Start < 0 || n.MIDI > 127 || n.Velocity < 1 {
					t.Fatalf("%+v", n)
				}
			}
		}
		line, _, err := file.Line(score.Score{In: neck.Standard()})
		if err != nil {
			return
		}
		for _, n := range line.Notes {
			if n.Length < 1 || n.Start < 0 || n.End() > line.End() {
				t.Fatalf("%+v in %d bars of %d", n, len(line.Bars), line.Beats)
			}
		}
		line.Engrave()
	})
}

// Behind the last bent note the wheel of its channel stands at its middle.
func TestTheWheelRests(t *testing.T) {
	p := band.Performance{Metres: []band.Metre{{Beats: 4}}, Ticks: 3840, Tracks: []band.Track{{Name: "lead", Channel: 2, Notes: []band.Note{{Length: 960, MIDI: 60, Velocity: 80, Bends: []band.Bend{{At: 90, Cents: 200}}}}}}}
	data := Write(p, Head{Tempo: 96})
	last := bytes.LastIndexByte(data, 0xE2)
	require.Positive(t, last)
	assert.Equal(t, []byte{0, 64}, data[last+1:last+3])
}
