package score

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
)

func blank(t require.TestingT, bars, beats int) Score {
	p, err := form.Read("|"+strings.Repeat(" C7 |", bars), beats, form.Key{})
	require.NoError(t, err)
	return Score{Progression: p, In: neck.Standard(), Tempo: 100}
}

func at(start, length int) Note {
	return Note{Start: start, Length: length, Pitch: pitch.Pitch{Name: pitch.Name{}, Octave: 4}, Placement: neck.Placement{String: 2, Fret: 1}}
}

// written shows a measure: lengths with dots, r for rests, ~ for ties, /3 for tuplets.
func written(m Measure) string {
	var out []string
	for _, s := range m.Strokes {
		text := fmt.Sprint(s.Value.Base)
		if s.Value.Dotted {
			text += "."
		}
		if s.Value.Actual > 0 {
			text += fmt.Sprintf("/%d", s.Value.Actual)
		}
		if s.Notes == nil {
			text = "r" + text
		}
		if s.To {
			text += "~"
		}
		out = append(out, text)
	}
	return strings.Join(out, " ")
}

func TestHowRhythmsAreWritten(t *testing.T) {
	for _, c := range []struct {
		notes []Note
		want  string
	}{
		{nil, "r1"},
		{[]Note{at(0, 3840)}, "1"},
		{[]Note{at(0, 480), at(480, 480), at(960, 2880)}, "8 8 2."},
		{[]Note{at(480, 960), at(1440, 480), at(1920, 1920)}, "r8 4 8 2"},
		{[]Note{at(1440, 960), at(2400, 480)}, "r4 r8 8~ 8 8 r4"},               // the middle of the bar stays visible
		{[]Note{at(0, 320), at(320, 320), at(640, 320)}, "8/3 8/3 8/3 r4 r2"},   // triplets
		{[]Note{at(0, 640), at(640, 320), at(960, 960)}, "4/3 8/3 4 r2"},        // long–short
		{[]Note{at(0, 720), at(720, 240)}, "8. 16 r4 r2"},                       // dotted
		{[]Note{at(0, 160), at(160, 160), at(320, 640)}, "16/6 16/6 4/6 r4 r2"}, // sextuplets
		{[]Note{at(2880, 320), at(3200, 640)}, "r2 r4 8/3 4/3"},
		{[]Note{at(0, 1440), at(1440, 480)}, "4. 8 r2"},
		{[]Note{at(480, 800)}, "r8 8~ 8/3 r4/3 r2"}, // into a beat that is divided otherwise
	} {
		s := blank(t, 1, 4)
		s.Notes = c.notes
		got := written(s.Engrave()[0])
		assert.Equal(t, c.want, got)
	}
}

func sum(m Measure) (ticks int) {
	for _, s := range m.Strokes {
		ticks += s.Value.Ticks()
	}
	return ticks
}

func TestBarsAddUpAndOnsetsStay(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		beats := rapid.IntRange(2, 7).Draw(t, "beats")
		s := blank(t, 3, beats)
		steps := rapid.SliceOfN(rapid.SampledFrom([]int{120, 160, 240, 320, 480, 640, 720, 960, 1440, 1920, 4000}), 1, 30).Draw(t, "steps")
		now := rapid.SampledFrom([]int{0, 480, -960, -320}).Draw(t, "from")
		for _, step := range steps {
			if now >= s.At(3) {
				break
			}
			s.Notes = append(s.Notes, at(now, rapid.SampledFrom([]int{step, max(120, step/2)}).Draw(t, "length")))
			now += step
		}
		starts := 0
		for _, m := range s.Engrave() {
			want := s.At(1)
			if m.Number == 0 {
				want = -m.Start
			}
			require.Equal(t, want, sum(m), "%v", written(m))
			at := 0
			for _, k := range m.Strokes {
				require.Equal(t, at, k.At)
				at += k.Value.Ticks()
				if k.Notes == nil {
					require.False(t, k.From || k.To)
				} else if !k.From {
					starts += len(k.Notes)
				}
			}
		}
		require.Equal(t, len(s.Notes), starts, "every note is written once")
	})
}

func TestWhatCannotBeWritten(t *testing.T) {
	for says, change := range map[string]func(*Score){
		"outside":   func(s *Score) { s.Notes[0].Start = 9 * 3840 },
		"length":    func(s *Score) { s.Notes[0].Length = 0 },
		"otherwise": func(s *Score) { s.Notes[0].Fret = 2 },
		"fret":      func(s *Score) { s.Notes[0].Fret = 40 },
		"string":    func(s *Score) { s.Notes = append(s.Notes, s.Notes[0]) },
	} {
		s := blank(t, 2, 4)
		s.Notes = []Note{at(0, 960)}
		require.NoError(t, s.Check())
		change(&s)
		assert.ErrorContains(t, s.Check(), says)
	}
}

func TestTheChordOfTheMoment(t *testing.T) {
	p, err := form.Read("| C7 . . G7 | F7 |", 4, form.Key{})
	require.NoError(t, err)
	s := Score{Progression: p, In: neck.Standard()}
	for tick, want := range map[int]string{-960: "C7", 0: "C7", 2879: "C7", 2880: "G7", 3840: "F7", 99999: "F7"} {
		c, ok := s.ChordAt(tick)
		assert.True(t, ok)
		assert.Equal(t, want, c.String(), tick)
	}
}

// Notes keep their numbers; those without one, or with another's, get one of their own.
func TestNotesAreNumbered(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var notes []Note
		for _, id := range rapid.SliceOf(rapid.IntRange(0, 9)).Draw(t, "numbers") {
			notes = append(notes, Note{ID: id})
		}
		out := Numbered(notes)
		seen, first := map[int]bool{}, map[int]bool{}
		for i, n := range out {
			if n.ID == 0 || seen[n.ID] {
				t.Fatalf("note %d has number %d", i, n.ID)
			}
			seen[n.ID] = true
			if id := notes[i].ID; id != 0 && !first[id] {
				first[id] = true
				if n.ID != id {
					t.Fatalf("note %d had number %d and has %d", i, id, n.ID)
				}
			}
		}
	})
}
