package midi

import (
	"encoding/binary"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/band"
	"undaris/core/form"
	"undaris/core/pitch"
	"undaris/core/score"
)

// timed is a file whose one track begins with the given events and plays a note.
func timed(events ...string) []byte {
	track := strings.Join(events, "") + "\x00\x90\x3c\x50\x60\x80\x3c\x00\x00\xff\x2f\x00"
	head := "MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk"
	size := make([]byte, 4)
	binary.BigEndian.PutUint32(size, uint32(len(track)))
	return []byte(head + string(size) + track)
}

// The first metre and the first tempo hold, also one of exactly 120; bars are counted in
// quarters by the denominator, and whatever is not as it stands in the file is said.
func TestMetreAndTempo(t *testing.T) {
	tempo := func(micros int) string {
		return "\x00\xff\x51\x03" + string([]byte{byte(micros >> 16), byte(micros >> 8), byte(micros)})
	}
	metre := func(beats, power byte) string { return "\x00\xff\x58\x04" + string([]byte{beats, power, 24, 8}) }
	for _, c := range []struct {
		file  []byte
		beats int
		tempo int
		says  string
	}{
		{timed(), 4, 120, ""},
		{timed(metre(3, 2)), 3, 120, ""},
		{timed(metre(6, 3)), 2, 80, "6/8 was read as bars of 2 beats of three eighths"},
		{timed(metre(9, 3)), 3, 80, "9/8 was read as bars of 3 beats of three eighths"},
		{timed(metre(12, 3)), 4, 80, "12/8 was read as bars of 4 beats of three eighths"},
		{timed(metre(12, 3), metre(4, 2)), 6, 120, "12/8 was read as bars of 6 quarters"}, // beats of one kind
		{timed(metre(2, 1)), 4, 120, "2/2 was read as bars of 4 quarters"},
		{timed(metre(7, 3)), 4, 120, "bars of 7/8 are no whole number of quarters"},
		{timed(metre(4, 2), metre(7, 3)), 4, 120, "a metre that comes later is no whole number"},
		{timed(metre(3, 2), metre(3, 2)), 3, 120, ""},
		{timed(tempo(500_000), tempo(400_000)), 4, 120, "the tempo changes 1 times; 120, the first"},
		{timed(tempo(600_000)), 4, 100, ""},
	} {
		f, err := Read(t.Context(), c.file)
		require.NoError(t, err)
		s, said, err := f.Line(score.Score{})
		require.NoError(t, err)
		assert.Equal(t, []int{c.beats, c.tempo}, []int{s.Beats, s.Tempo}, c.says)
		all := strings.Join(said, "; ")
		if c.says == "" {
			assert.NotContains(t, all, "metre")
			assert.NotContains(t, all, "quarters")
			assert.NotContains(t, all, "tempo")
			continue
		}
		assert.Contains(t, all, c.says)
	}
}

// Bars of another length are heard as such, and come back from the file.
func TestMetreChanges(t *testing.T) {
	for _, text := range []string{"| C7 | 2/4 F7 | 4/4 C7 | G7 |", "| 1/4 G7 | 4/4 C7 | 3/4 F7 |", "| C7 | F7 | 5/4 C7 . . G7 . |", "| C7 | F7 |"} {
		p, err := form.Read(text, 4, form.Key{})
		require.NoError(t, err)
		var lead []band.Note
		for i := range p.Bars {
			lead = append(lead, band.Note{Start: p.StartOf(i) * band.Tick, Length: p.BeatsOf(i) * band.Tick, MIDI: 60 + i})
		}
		played, err := band.Play(t.Context(), p, band.Grooves[0], band.Options{Choruses: 1, CountIn: true, Metronome: true, Lead: lead})
		require.NoError(t, err)
		assert.Equal(t, (p.Length()+p.Beats)*band.Tick, played.Ticks, text)
		for _, track := range played.Tracks {
			if track.Name == "metronome" {
				assert.Len(t, track.Notes, p.Length(), text)
			}
		}
		f, err := Read(t.Context(), Write(played, Head{Title: "x", Tempo: 96}))
		require.NoError(t, err)
		s, _, err := f.Line(score.Score{})
		require.NoError(t, err)
		assert.Equal(t, p.Lengths(), s.Lengths(), text)
		assert.Equal(t, p.Text(), s.Text(), "the chords come back")
		for i, n := range s.Notes {
			assert.Equal(t, s.At(i), n.Start, text)
		}
	}
}

// The wheel's range is set in either order of its parameter, and by nothing else.
func TestTheRangeOfTheWheel(t *testing.T) {
	bent := "\x00\xe0\x00\x60\x00\x90\x3c\x50\x60\x80\x3c\x00" // half of the way up
	for _, c := range []struct {
		set   string
		cents int
	}{
		{"", 100},
		{"\x00\xb0\x65\x00\x00\xb0\x64\x00\x00\xb0\x06\x0c", 600},
		{"\x00\xb0\x64\x00\x00\xb0\x65\x00\x00\xb0\x06\x0c", 600},
		{"\x00\xb0\x06\x0c", 100},                                 // of no parameter
		{"\x00\xb0\x65\x00\x00\xb0\x64\x01\x00\xb0\x06\x0c", 100}, // of another
		{"\x00\xb0\x63\x00\x00\xb0\x62\x00\x00\xb0\x06\x0c", 100}, // of one that is not registered
		{"\x00\xb0\x65\x00\x00\xb0\x64\x00\x00\xb0\x62\x05\x00\xb0\x06\x0c", 100},
	} {
		f, err := Read(t.Context(), timed(c.set+bent))
		require.NoError(t, err)
		assert.Equal(t, c.cents, f.Tracks[0].Notes[0].Bends[0].Cents, "%x", c.set)
	}
}

// What comes before the first chorus and the ending are no part of the chart: it comes back as it was, with its line.
func TestLeadInsAndEndingsComeBackAsTheChart(t *testing.T) {
	for _, text := range []string{"| A7 | D7 | A7 | A7 | D7 | D7 | A7 | A7 | E7 | D7 | A7 | E7 |", "| A7 | E7 | D7 | A7 |"} {
		key := form.Key{Tonic: pitch.Name{Letter: 5}}
		p, err := form.Read(text, 4, key)
		require.NoError(t, err)
		lead := []band.Note{{Start: 0, Length: 480, MIDI: 64}, {Start: 960, Length: 960, MIDI: 69}}
		for _, intro := range band.Intros {
			for _, ending := range band.Endings {
				for _, counted := range []bool{false, true} {
					where := intro.ID + ", " + ending.ID + " over " + text
					played, err := band.Play(t.Context(), p, band.Grooves[0], band.Options{Choruses: 1, CountIn: counted, Intro: intro.ID, Ending: ending.ID, Lead: lead, Key: &key})
					require.NoError(t, err)
					f, err := Read(t.Context(), Write(played, Head{Title: "x", Tempo: 96, Key: key}))
					require.NoError(t, err)
					s, _, err := f.Line(score.Score{})
					require.NoError(t, err)
					assert.Equal(t, p.Text(), s.Text(), where)
					require.Len(t, s.Notes, 2, where)
					assert.Equal(t, 0, s.Notes[0].Start, where)
				}
			}
		}
	}
}

// Of a melody and the chords beside it the melody is read, whichever has more notes and whatever they are called.
func TestAMelodyIsReadBeforeChords(t *testing.T) {
	tune, chords := band.Track{Name: "one", Channel: 0}, band.Track{Name: "two", Channel: 1}
	for beat := range 16 {
		tune.Notes = append(tune.Notes, band.Note{Start: beat * band.Tick, Length: band.Tick, MIDI: 60 + beat%5, Velocity: 90})
		for half := range 2 {
			for i, midi := range []int{48, 52, 55, 58} {
				chords.Notes = append(chords.Notes, band.Note{Start: beat*band.Tick + half*band.Tick/2 + 7*i, Length: band.Tick / 3, MIDI: midi, Velocity: 80})
			}
		}
	}
	for _, tracks := range [][]band.Track{{tune, chords}, {chords, tune}} {
		f, err := Read(t.Context(), Write(band.Performance{Metres: []band.Metre{{Beats: 4}}, Bars: 4, Ticks: 16 * band.Tick, Tracks: tracks}, Head{Title: "x", Tempo: 96}))
		require.NoError(t, err)
		s, _, err := f.Line(score.Score{})
		require.NoError(t, err)
		require.Len(t, s.Notes, 16)
		assert.Equal(t, 60, s.Notes[0].Pitch.MIDI())
	}
}
