package midi

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/band"
	"undaris/core/neck"
	"undaris/core/score"
	"undaris/formats"
)

// guitar is a file in which each string of the standard tuning has a channel, from the given one
// on; the notes are string, fret and tick.
func guitar(highest int, places ...[3]int) []byte {
	in := neck.Standard()
	byString := make([]band.Track, in.Strings())
	for i := range byString {
		byString[i] = band.Track{Name: "guitar", Channel: highest + i, Program: 25}
	}
	for _, p := range places {
		t := &byString[p[0]-1]
		t.Notes = append(t.Notes, band.Note{Start: p[2], Length: 480, Velocity: 90, MIDI: in.MIDI(neck.Placement{String: p[0], Fret: p[1]})})
	}
	return Write(band.Performance{Metres: []band.Metre{{Beats: 4}}, Ticks: 3840, Tracks: byString}, Head{Tempo: 96})
}

// A channel for each string is one guitar, and its strings are those of the notes.
func TestAChannelForEachString(t *testing.T) {
	places := [][3]int{{5, 3, 0}, {4, 5, 480}, {3, 5, 960}, {2, 5, 960}, {1, 8, 1440}, {3, 12, 1920}, {6, 8, 2400}}
	for _, from := range highest {
		f, err := formats.Read(t.Context(), "a.mid", guitar(from, places...), formats.Wish{Base: score.Score{In: neck.Standard()}})
		require.NoError(t, err)
		require.Len(t, f.Parts, 1)
		require.Len(t, f.Notes, len(places))
		assert.Contains(t, strings.Join(f.Said, "; "), "6 channels of \"guitar\" were read as the strings of one guitar")
		for _, p := range places {
			found := false
			for _, n := range f.Notes {
				found = found || n.Start == p[2] && n.Placement == neck.Placement{String: p[0], Fret: p[1]}
			}
			assert.True(t, found, "%v on %v", p, f.Notes)
		}
	}
	// Voices that no strings could play stay parts, and so do notes that overlap on a channel.
	choir := []band.Track{}
	for i, midi := range []int{40, 48, 55, 90} {
		choir = append(choir, band.Track{Name: "choir", Channel: i, Notes: []band.Note{{Length: 480, MIDI: midi, Velocity: 80}}})
	}
	f, err := formats.Read(t.Context(), "a.mid", Write(band.Performance{Metres: []band.Metre{{Beats: 4}}, Ticks: 3840, Tracks: choir}, Head{Tempo: 96}), formats.Wish{Base: score.Score{In: neck.Standard()}})
	require.NoError(t, err)
	assert.Len(t, f.Parts, 4)
}

// What sounds softly and without a gap was hammered or pulled off, what lies further off slid to,
// and what comes from the wheel slid into; all of it is marked as a guess.
func TestHowNotesAreReachedIsGuessed(t *testing.T) {
	for _, c := range []struct {
		what     string
		up, soft int
		gap      int
		bends    []band.Bend
		join     score.Join
		scoop    int
	}{
		{"hammered", 2, 60, 0, nil, score.Hammer, 0},
		{"pulled off", -3, 60, 0, nil, score.PullOff, 0},
		{"slid", 5, 60, 0, nil, score.Slide, 0},
		{"too far", 7, 60, 0, nil, score.Picked, 0},
		{"as loud", 2, 95, 0, nil, score.Picked, 0},
		{"after a gap", 2, 60, 200, nil, score.Picked, 0},
		{"the same", 0, 60, 0, nil, score.Picked, 0},
		{"from below", 2, 95, 0, []band.Bend{{At: 0, Cents: -200}, {At: 60, Cents: -90}, {At: 120, Cents: 0}}, score.Picked, 2},
		{"from above", 2, 95, 0, []band.Bend{{At: 0, Cents: 100}, {At: 60, Cents: 0}}, score.Picked, -1},
		{"let down", 2, 95, 0, []band.Bend{{At: 0, Cents: 200}, {At: 700, Cents: 0}}, score.Picked, 0},
	} {
		notes := []band.Note{{Length: 960 - c.gap, MIDI: 60, Velocity: 100}, {Start: 960, Length: 960, MIDI: 60 + c.up, Velocity: c.soft, Bends: c.bends}}
		got, said, err := File{Ticks: 960, Tempo: 100, Beats: 4, Tracks: []band.Track{{Name: "solo", Notes: notes}}}.Line(score.Score{In: neck.Standard()})
		require.NoError(t, err)
		n := got.Notes[1]
		assert.Equal(t, []any{c.join, c.scoop, c.join != score.Picked || c.scoop != 0}, []any{n.Join, n.Scoop, n.JoinGuessed}, c.what)
		assert.Equal(t, n.JoinGuessed, strings.Contains(strings.Join(said, "; "), "that is guessed"), c.what)
		assert.Equal(t, c.what == "let down", n.Release, c.what)
	}
}
