package arpeggio

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

func degrees(r Run) string {
	var s []string
	for _, n := range r.Notes {
		s = append(s, string(n.Degree))
	}
	return strings.Join(s, " ")
}

func places(notes []Note) string {
	var s []string
	for _, n := range notes {
		s = append(s, fmt.Sprintf("%d:%d", n.String, n.Fret))
	}
	return strings.Join(s, " ")
}

// rows are the fifteen runs of a blues in C: window, then one, four and five.
var rows = []struct {
	shape string
	low   int
	runs  [3]string
}{
	{"C", 0, [3]string{"3 5 b7 R 3 5 b7 R 3 5", "R 3 5 b7 R 3 5 b7 R", "b7 R 3 5 b7 R 3 5 b7 R"}},
	{"A", 2, [3]string{"5 b7 R 3 5 b7 R 3 5 b7", "3 5 b7 R 3 5 b7 R 3", "R 3 5 b7 R 3 5 b7 R"}},
	{"G", 4, [3]string{"b7 R 3 5 b7 R 3 5 b7 R", "3 5 b7 R 3 5 b7 R 3 5", "3 5 b7 R 3 5 b7 R 3"}},
	{"E", 7, [3]string{"R 3 5 b7 R 3 5 b7 R", "5 b7 R 3 5 b7 R 3 5 b7", "3 5 b7 R 3 5 b7 R 3 5"}},
	{"D", 9, [3]string{"3 5 b7 R 3 5 b7 R 3", "b7 R 3 5 b7 R 3 5 b7 R", "5 b7 R 3 5 b7 R 3 5 b7"}},
}

func TestFifteenRowsOfTheBluesInEveryKey(t *testing.T) {
	in := neck.Standard()
	for _, row := range rows {
		for i, root := range []string{"C7", "F7", "G7"} {
			run := Make(in, harmony.MustParse(root), neck.Region{Low: row.low, High: row.low + 4}, neck.UsualHand, nil)
			assert.Equal(t, row.runs[i], degrees(run), "%s in %d", root, row.low)
		}
	}
	upFourth, upFifth := pitch.Interval{Letters: 3, HalfSteps: 5}, pitch.Interval{Letters: 4, HalfSteps: 7}
	for _, tonic := range pitch.Roots {
		one := harmony.MustParse(tonic.String() + "7")
		chords := []harmony.Chord{one, one.On(tonic.Up(upFourth)), one.On(tonic.Up(upFifth))}
		for _, p := range in.Positions(tonic.Class()) {
			for _, row := range rows {
				for i := range chords {
					if row.shape == p.Shape && !p.Nut {
						assert.Equal(t, row.runs[i], degrees(Make(in, chords[i], p.Region, neck.UsualHand, nil)), "%s, %s shape at %d", chords[i], p.Shape, p.Low)
					}
				}
			}
		}
	}
}

func TestKnownRuns(t *testing.T) {
	in := neck.Standard()
	g7 := Make(in, harmony.MustParse("G7"), neck.Region{Low: 2, High: 6}, neck.UsualHand, nil)
	assert.Equal(t, "6:3 5:2 5:5 4:3 4:5 3:4 2:3 2:6 1:3", places(g7.Notes))
	c7 := Make(in, harmony.MustParse("C7"), neck.Region{Low: 7, High: 11}, neck.UsualHand, nil)
	assert.Equal(t, "6:8 5:7 5:10 4:8 4:10 3:9 2:8 2:11 1:8", places(c7.Notes))
	var fingers []int
	for _, n := range c7.Notes {
		fingers = append(fingers, n.Finger)
	}
	assert.Equal(t, []int{2, 1, 4, 2, 4, 3, 2, 4, 2}, fingers)
	assert.InDelta(t, in.Reach(7, 11), c7.Widest.Millimetres, 1e-9)

	both := func(chord string, w neck.Region, a, b neck.Placement) {
		run := Make(in, harmony.MustParse(chord), w, neck.UsualHand, nil)
		require.Len(t, run.Alternatives, 1)
		for _, choice := range []neck.Placement{a, b} {
			chosen := Make(in, harmony.MustParse(chord), w, neck.UsualHand, []neck.Placement{choice})
			assert.Contains(t, " "+places(chosen.Notes)+" ", fmt.Sprintf(" %d:%d ", choice.String, choice.Fret))
			other := a
			if choice == a {
				other = b
			}
			assert.Equal(t, other, chosen.Alternatives[0].Placement)
		}
	}
	both("G7", neck.Region{Low: 0, High: 4}, neck.Placement{String: 2, Fret: 0}, neck.Placement{String: 3, Fret: 4})
	both("F7", neck.Region{Low: 4, High: 8}, neck.Placement{String: 2, Fret: 4}, neck.Placement{String: 3, Fret: 8})
}

// check holds what is true of every run, on any neck.
func check(t require.TestingT, in *neck.Instrument, run Run) {
	w := run.Region
	for i, n := range run.Notes {
		require.True(t, n.Fret >= w.Low && n.Fret <= w.High, "inside the window")
		require.Equal(t, n.Pitch.MIDI(), in.MIDI(n.Placement))
		tone, ok := run.Chord.ToneAt(n.Pitch.Class())
		require.True(t, ok)
		require.Equal(t, tone.Name, n.Pitch.Name, "spelled by its degree")
		require.Equal(t, n.Fret == 0, n.Finger == 0)
		if i == 0 {
			continue
		}
		last := run.Notes[i-1]
		require.Greater(t, n.Pitch.MIDI(), last.Pitch.MIDI(), "each pitch once, low to high")
		require.LessOrEqual(t, n.String, last.String, "strings never go backwards")
		if n.String == last.String {
			require.GreaterOrEqual(t, n.Finger, last.Finger, "a higher fret never takes a lower finger")
		}
	}
	if len(run.Notes) == 0 {
		return
	}
	// Every chord tone from lowest to highest is in the run or named as missing,
	// and nothing the window holds is left out.
	got := map[int]bool{}
	for _, n := range run.Notes {
		got[n.Pitch.MIDI()] = true
	}
	for _, p := range run.Missing {
		require.Empty(t, in.Find(p.MIDI(), w))
		got[p.MIDI()] = true
	}
	for midi := run.Notes[0].Pitch.MIDI(); midi <= run.Notes[len(run.Notes)-1].Pitch.MIDI(); midi++ {
		_, tone := run.Chord.ToneAt(midi % 12)
		require.Equal(t, tone, got[midi])
	}
	for s := 1; s <= in.Strings(); s++ {
		for f := w.Low; f <= w.High; f++ {
			midi := in.MIDI(neck.Placement{String: s, Fret: f})
			if _, tone := run.Chord.ToneAt(midi % 12); tone {
				require.True(t, got[midi])
			}
		}
	}
	require.LessOrEqual(t, run.Widest.Millimetres, in.Reach(max(1, w.Low), w.High)+1e-9)
	require.InDelta(t, in.FretAt(run.Widest.High)-in.FretAt(run.Widest.Low), run.Widest.Millimetres, 1e-9)
}

func TestSeventhChordsAreCompleteInEveryPositionOfEveryKey(t *testing.T) {
	in := neck.Standard()
	for _, key := range pitch.Roots {
		for _, p := range in.Positions(key.Class()) {
			for _, suffix := range []string{"7", "m7", "maj7", "m7b5", "dim7"} {
				for _, root := range pitch.Roots {
					for _, habit := range []neck.Habit{neck.Stay, neck.Shift} {
						run := Make(in, harmony.MustParse(root.String()+suffix), p.Region, neck.Hand{Comfort: 100, Habit: habit}, nil)
						check(t, in, run)
						require.Empty(t, run.Missing)
						require.GreaterOrEqual(t, len(run.Notes), 9)
					}
				}
			}
		}
	}
}

func TestAnyChordAnyTuningAnyWindow(t *testing.T) {
	suffixes := []string{"", "m", "5", "6", "6/9", "9", "13", "7alt", "sus4", "dim7", "maj7#11", "m11", "aug"}
	rapid.Check(t, func(t *rapid.T) {
		tuning := rapid.SampledFrom(neck.Tunings).Draw(t, "tuning")
		frets := rapid.IntRange(12, 27).Draw(t, "frets")
		in, err := neck.New(tuning.Open, frets, tuning.Scale, rapid.IntRange(0, frets-12).Draw(t, "capo"))
		require.NoError(t, err)
		w := neck.Region{Low: rapid.IntRange(0, in.Last()).Draw(t, "low")}
		w.High = rapid.IntRange(w.Low, in.Last()).Draw(t, "high")
		chord := harmony.MustParse(rapid.SampledFrom(pitch.Roots).Draw(t, "root").String() + rapid.SampledFrom(suffixes).Draw(t, "suffix"))
		hand := neck.Hand{Comfort: rapid.Float64Range(60, 140).Draw(t, "comfort"), Habit: neck.Habit(rapid.IntRange(0, 1).Draw(t, "habit"))}
		check(t, in, Make(in, chord, w, hand, nil))
	})
}

func TestSilenceHasNoRun(t *testing.T) {
	run := Make(neck.Standard(), harmony.MustParse("N.C."), neck.Region{Low: 0, High: 4}, neck.UsualHand, nil)
	assert.Empty(t, run.Notes)
}

func BenchmarkRun(b *testing.B) {
	in, chord := neck.Standard(), harmony.MustParse("C7")
	for b.Loop() {
		Make(in, chord, neck.Region{Low: 7, High: 11}, neck.UsualHand, nil)
	}
}

// What a good teacher fingers through the five positions of C: strings 6 to 1,
// a finger for each note from low to high. No finger hops to another fret on the
// next string or slides on one, third and fourth never share a fret in turn.
func TestRunsAreFingeredAsATeacherWould(t *testing.T) {
	for symbol, shapes := range map[string]map[string]string{
		"C7":    {"C": "0313203103", "A": "2421424424", "G": "2431411424", "E": "214243242", "D": "424213243"},
		"Cm7":   {"C": "313103143", "A": "1414313214", "G": "2421414424", "E": "1431311414", "D": "214143242"},
		"Cmaj7": {"C": "0323200103", "A": "212143442", "G": "3432122434", "E": "1214343212", "D": "421213343"},
		"Cm7b5": {"C": "213143142", "A": "1414213214", "G": "2421414324", "E": "1421314414", "D": "214142242"},
	} {
		for _, p := range neck.Standard().Positions(0) {
			want, ok := shapes[p.Shape]
			if p.Octave || !ok {
				continue
			}
			got := ""
			for _, n := range Make(neck.Standard(), harmony.MustParse(symbol), p.Region, neck.UsualHand, nil).Notes {
				got += fmt.Sprint(n.Finger)
			}
			assert.Equal(t, want, got, "%s, %s shape", symbol, p.Shape)
		}
	}
	for _, quality := range []string{"7", "m7", "maj7", "m7b5", "", "m", "6", "m6", "dim7"} {
		for _, root := range pitch.Roots {
			for _, p := range neck.Standard().Positions(root.Class()) {
				notes := Make(neck.Standard(), harmony.MustParse(root.String()+quality), p.Region, neck.UsualHand, nil).Notes
				for i := 1; i < len(notes); i++ {
					a, b := notes[i-1], notes[i]
					where := fmt.Sprintf("%s%s at %d, note %d", root, quality, p.Low, i)
					assert.False(t, a.Finger > 0 && a.Finger == b.Finger && a.Fret != b.Fret, "%s: one finger on two frets", where)
					assert.False(t, a.Fret == b.Fret && a.Finger != b.Finger && a.Finger > 2 && b.Finger > 2, "%s: third and fourth share a fret", where)
				}
			}
		}
	}
}
