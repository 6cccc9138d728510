package neck

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestWhereASoundLies(t *testing.T) {
	in := Standard()
	whole := Region{Low: 0, High: in.Last()}
	// Middle E, as a guitar sounds it: five places, from the lowest string up.
	assert.Equal(t, []Placement{{6, 24 - 0}, {5, 19}, {4, 14}, {3, 9}, {2, 5}, {1, 0}}[1:], in.Find(64, whole))
	assert.Equal(t, []Placement{{3, 9}}, in.Find(64, Region{Low: 7, High: 11}))
	assert.Empty(t, in.Find(39, whole), "below the lowest string")
	assert.Empty(t, in.Find(64+in.Last()+1, whole), "above the last fret")
	rapid.Check(t, func(t *rapid.T) {
		tuning := rapid.SampledFrom(Tunings).Draw(t, "tuning")
		in, err := New(tuning.Open, tuning.Frets, tuning.Scale, rapid.IntRange(0, 5).Draw(t, "capo"))
		require.NoError(t, err)
		midi := rapid.IntRange(20, 100).Draw(t, "midi")
		low := rapid.IntRange(0, in.Last()).Draw(t, "low")
		w := Region{Low: low, High: rapid.IntRange(low, in.Last()).Draw(t, "high")}
		found := map[Placement]bool{}
		for _, p := range in.Find(midi, w) {
			require.NoError(t, in.CheckPlacement(p))
			found[p] = true
		}
		for str := 1; str <= in.Strings(); str++ {
			for fret := w.Low; fret <= w.High; fret++ {
				p := Placement{str, fret}
				require.Equal(t, in.MIDI(p) == midi, found[p], "%v", p)
			}
		}
	})
}

func TestPlacesOffTheNeckAreRefused(t *testing.T) {
	in := Standard()
	for _, p := range []Placement{{0, 3}, {7, 3}, {1, -1}, {1, in.Last() + 1}} {
		assert.ErrorContains(t, in.CheckPlacement(p), "is not on this neck", "%v", p)
	}
	for _, p := range []Placement{{1, 0}, {6, in.Last()}} {
		assert.NoError(t, in.CheckPlacement(p))
	}
	for _, w := range []Region{{Low: -1, High: 4}, {Low: 5, High: 4}, {Low: 20, High: in.Last() + 1}} {
		assert.ErrorContains(t, in.CheckRegion(w), "is not on this neck, which has strings 1 to 6", "%v", w)
	}
	assert.NoError(t, in.CheckRegion(Region{Low: 3, High: 3}))
}

// A fret stands at L·(1 − 2^(−n/12)) from the nut: half of the string is left at
// the twelfth, a quarter at the twenty-fourth, two thirds at the seventh.
func TestFretsStandWhereTheSemitoneRulePutsThem(t *testing.T) {
	in := Standard()
	scale := 2 * in.FretAt(12)
	assert.InDelta(t, 648, scale, 1e-9)
	assert.Zero(t, in.FretAt(0))
	assert.InDelta(t, scale*3/4, in.FretAt(24), 1e-9)
	assert.InDelta(t, scale/3, in.FretAt(7), 1, "a pure fifth, but for two cents")
	for fret := 1; fret <= in.Last(); fret++ {
		assert.InDelta(t, 1.059463, (scale-in.FretAt(fret-1))/(scale-in.FretAt(fret)), 1e-6)
	}
}

func TestOpenStringsAreNamedAsTuned(t *testing.T) {
	for tuning, want := range map[string][]string{
		"E2,A2,D3,G3,B3,E4":       {"E", "B", "G", "D", "A", "E"},
		"Eb2,Ab2,Db3,Gb3,Bb3,Eb4": {"Eb", "Bb", "Gb", "Db", "Ab", "Eb"},
		"D2,A2,D3,F#3,A3,D4":      {"D", "A", "F#", "D", "A", "D"},
	} {
		in, err := New(tuning, 22, 648, 0)
		require.NoError(t, err)
		for i, name := range want {
			assert.Equal(t, name, in.OpenName(i+1).String(), tuning)
		}
	}
	// A capo at the second fret raises them by a whole step, at the first by a half.
	for capo, want := range map[int]string{1: "F", 2: "F#", 3: "G"} {
		in, err := New("E2,A2,D3,G3,B3,E4", 22, 648, capo)
		require.NoError(t, err)
		assert.Equal(t, want, in.OpenName(6).String())
	}
}

func TestWhatAStringAllowsToBeBent(t *testing.T) {
	in := Standard()
	for p, halfSteps := range map[Placement]int{{1, 0}: 0, {6, 0}: 0, {1, 8}: 3, {1, 1}: 1, {2, 10}: 3, {3, 7}: 3, {4, 7}: 1, {5, 7}: 1, {6, 7}: 1} {
		assert.Equal(t, halfSteps, in.Bendable(p), "%v", p)
	}
}

func TestHandsAreChecked(t *testing.T) {
	h, err := NewHand(120, "shift")
	require.NoError(t, err)
	assert.Equal(t, Hand{Comfort: 120, Habit: Shift}, h)
	for says, c := range map[string]struct {
		comfort float64
		habit   string
	}{"no habit": {100, "leap"}, "49 mm": {49, "stay"}, "251 mm": {251, "stay"}, "NaN": {nan(), "stay"}} {
		_, err := NewHand(c.comfort, c.habit)
		assert.ErrorContains(t, err, says)
	}
}

func nan() float64 { var zero float64; return zero / zero }

// What a player bends: plain strings as far as they go, the highest wound one a half step, lower ones a curl; at the first
// fret no more than a half step. On a bass of four and on seven strings it is the same by the strings they have.
func TestHowFarAPlayerBends(t *testing.T) {
	for tuning, want := range map[string][]int{
		"E2,A2,D3,G3,B3,E4":       {6, 6, 6, 2, 1, 1},
		"B1,E2,A2,D3,G3,B3,E4":    {6, 6, 6, 2, 1, 1, 1},
		"E1,A1,D2,G2":             {2, 1, 1, 1},
		"D2,A2,D3,G3,A3,D4":       {6, 6, 6, 2, 1, 1},
		"Eb2,Ab2,Db3,Gb3,Bb3,Eb4": {6, 6, 6, 2, 1, 1},
	} {
		in, err := New(tuning, 22, 648, 0)
		require.NoError(t, err)
		for i, quarters := range want {
			assert.Equal(t, quarters, in.Bends(Placement{i + 1, 7}), "%s, string %d", tuning, i+1)
			assert.Equal(t, min(2, quarters), in.Bends(Placement{i + 1, 1}), "%s, string %d, first fret", tuning, i+1)
			assert.Zero(t, in.Bends(Placement{i + 1, 0}))
		}
	}
}

// A bend is part of what a finger does: the hand goes where the third finger can, or the second, and notes round it keep
// a hand that can do both.
func TestTheHandGoesWhereItBends(t *testing.T) {
	in := Standard()
	phrase := func(notes ...Ask) (fingers []int) {
		touches, cost := in.FingerPhrase(notes, UsualHand)
		require.NotNil(t, touches)
		require.Less(t, cost, float64(cannot))
		for _, t := range touches {
			fingers = append(fingers, t.Finger)
		}
		return fingers
	}
	at := func(str, fret, bend int) Ask { return Ask{Places: []Placement{{str, fret}}, Bend: bend} }
	assert.Equal(t, []int{1, 3, 1}, phrase(at(2, 5, 0), at(3, 7, 4), at(2, 5, 0)), "the box as it is")
	assert.Equal(t, []int{3}, phrase(at(2, 8, 4)), "a whole step by the third finger")
	assert.Equal(t, []int{2}, phrase(at(2, 2, 4)), "or the second, where there is no room for the third")
	assert.Equal(t, []int{1, 1}, phrase(at(3, 5, 0), at(3, 5, 1)), "a curl moves nobody")
	for _, bend := range []int{4, 6} {
		for fret := 2; fret <= 20; fret++ {
			for _, around := range []int{-2, -1, 0, 1, 2, 3} {
				if fret+around < 1 {
					continue
				}
				got := phrase(at(1, fret+around, 0), at(2, fret, bend), at(1, fret+around, 0))
				assert.Contains(t, []int{2, 3}, got[1], "fret %d bent %d, beside fret %d", fret, bend, fret+around)
			}
		}
	}
}
