package formats_test

import (
	"encoding/json"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/score"
	"undaris/formats"
	_ "undaris/formats/midi"
	_ "undaris/formats/musicxml"
	_ "undaris/formats/tabtext"
)

// want is what a file holds. What it does not name is not looked at.
type want struct {
	File     string
	Refused  *string  // the reason has this
	Says     []string // what was guessed or left out has these
	Notes    *[][]int // start and length in ticks, MIDI number
	Places   *[][]int // string, fret; of tablature text the bar too, from 0
	Bars     *int
	Lengths  []int // beats of each bar
	Beats    int
	Key      string
	Tempo    int
	Chord    string   // the first
	Chords   string   // all, by bars
	Midi     []int    // of the notes, in order
	Starts   []int    // likewise
	Joins    []string // likewise
	Bends    []int    // in quarter tones, likewise
	Released []bool
	Vibrato  []bool
	Dead     []bool
	Scoops   []int
	Swing    *bool
	Silent   bool // nothing is left out
}

// Files in the styles of many makers, none of them ours: each is read as it is meant, or told
// what was not, or refused with its reason. The files and what they hold were made together,
// without this reader.
func TestFilesOfOthers(t *testing.T) {
	text, err := os.ReadFile("testdata/wants.json")
	require.NoError(t, err)
	var wants []want
	require.NoError(t, json.Unmarshal(text, &wants))
	require.Greater(t, len(wants), 450)
	kept, err := filepath.Glob("testdata/*/*")
	require.NoError(t, err)
	require.Len(t, kept, len(wants), "each file has what it holds")
	for _, w := range wants {
		t.Run(w.File, func(t *testing.T) {
			data, err := os.ReadFile(filepath.Join("testdata", w.File))
			require.NoError(t, err)
			f, err := readAny(t, w.File, data)
			if w.Refused != nil {
				require.Error(t, err)
				assert.Contains(t, err.Error(), *w.Refused)
				return
			}
			require.NoError(t, err)
			w.check(t, f)
		})
	}
}

// readAny reads a file, also a chart's text: that is no format of lines.
func readAny(t *testing.T, name string, data []byte) (formats.Found, error) {
	if !strings.HasPrefix(name, "chart/") {
		return formats.Read(t.Context(), name, data, formats.Wish{Base: score.Score{In: neck.Standard()}})
	}
	song, found, err := form.ReadSong(string(formats.Decoded(data)), 4, form.Key{})
	return formats.Found{Score: score.Score{Progression: song.Play(form.MaxBars)}, Said: found.Said}, err
}

func (w want) check(t *testing.T, f formats.Found) {
	if w.Silent {
		assert.NotContains(t, strings.Join(f.Said, "; "), "left out")
	}
	for _, s := range w.Says {
		assert.Contains(t, strings.Join(f.Said, "; "), s)
	}
	if w.Notes != nil {
		assert.Equal(t, *w.Notes, of(f, func(n score.Note) []int { return []int{n.Start, n.Length, n.Pitch.MIDI()} }), "%v", f.Said)
	}
	if w.Places != nil {
		tab := strings.HasPrefix(w.File, "tab/")
		got := of(f, func(n score.Note) []int {
			if tab {
				return []int{n.String, n.Fret, f.BarOf(n.Start)}
			}
			return []int{n.String, n.Fret}
		})
		assert.Equal(t, *w.Places, got, "%v", f.Said)
	}
	if w.Bars != nil {
		assert.Len(t, f.Bars, *w.Bars)
	}
	if w.Lengths != nil {
		assert.Equal(t, w.Lengths, f.Lengths())
	}
	if w.Beats != 0 {
		assert.Equal(t, w.Beats, f.Beats)
	}
	if w.Key != "" {
		assert.Equal(t, w.Key, plain.Replace(f.Key.String()))
	}
	if w.Tempo != 0 {
		assert.Equal(t, w.Tempo, f.Tempo)
	}
	var bars []string
	for _, b := range f.Bars {
		var chords []string
		for _, c := range b.Changes {
			chords = append(chords, plain.Replace(c.Chord.String()))
		}
		bars = append(bars, strings.Join(chords, " "))
	}
	if w.Chord != "" {
		assert.Equal(t, w.Chord, bars[0])
	}
	if w.Chords != "" {
		assert.Equal(t, w.Chords, strings.Join(bars, " | "))
	}
	if w.Swing != nil {
		assert.Equal(t, *w.Swing, f.Swing)
	}
	each(t, "pitches", w.Midi, f, func(n score.Note) int { return n.Pitch.MIDI() })
	each(t, "starts", w.Starts, f, func(n score.Note) int { return n.Start })
	each(t, "joins", w.Joins, f, func(n score.Note) string { return string(n.Join) })
	each(t, "bends", w.Bends, f, func(n score.Note) int { return n.Bend })
	each(t, "releases", w.Released, f, func(n score.Note) bool { return n.Release })
	each(t, "vibrato", w.Vibrato, f, func(n score.Note) bool { return n.Vibrato })
	each(t, "dead notes", w.Dead, f, func(n score.Note) bool { return n.Dead })
	each(t, "scoops", w.Scoops, f, func(n score.Note) int { return n.Scoop })
}

var plain = strings.NewReplacer("b", "♭", "#", "♯", "dim", "°")

// of lists something of each note; of notes together the lower comes first.
func of[T any](f formats.Found, what func(score.Note) T) []T {
	notes := slices.Clone(f.Notes)
	slices.SortStableFunc(notes, func(a, b score.Note) int {
		if a.Start != b.Start {
			return a.Start - b.Start
		}
		return a.String - b.String
	})
	out := []T{}
	for _, n := range notes {
		out = append(out, what(n))
	}
	return out
}

func each[T any](t *testing.T, name string, want []T, f formats.Found, what func(score.Note) T) {
	if want != nil {
		assert.Equal(t, want, of(f, what), name)
	}
}
