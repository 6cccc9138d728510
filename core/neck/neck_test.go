package neck

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestMillimetres(t *testing.T) {
	in := Standard()
	for _, c := range []struct {
		a, b int
		mm   float64
	}{{1, 5, 126.2}, {5, 9, 100.1}, {12, 16, 66.8}, {0, 12, 324}} {
		assert.InDelta(t, c.mm, in.Reach(c.a, c.b), 0.05)
	}
	capo, err := New("E2,A2,D3,G3,B3,E4", 22, 648, 4)
	require.NoError(t, err)
	assert.InDelta(t, in.Reach(5, 9), capo.Reach(1, 5), 1e-9)
	assert.Equal(t, 18, capo.Last())
	assert.Equal(t, 44, capo.MIDI(Placement{6, 0}))
}

func TestTuningsAreKnown(t *testing.T) {
	for _, tuning := range Tunings {
		in, err := New(tuning.Open, tuning.Frets, tuning.Scale, 0)
		require.NoError(t, err, tuning.ID)
		assert.Equal(t, tuning.Open, in.Tuning())
	}
	assert.Equal(t, 40, Standard().MIDI(Placement{6, 0}))
	assert.Equal(t, 64+5, Standard().MIDI(Placement{1, 5}))
}

func TestInstrumentsRefused(t *testing.T) {
	for want, c := range map[string]struct {
		tuning      string
		frets, capo int
		scale       float64
	}{
		`string 2 of the tuning: "H3" is not a pitch`: {"E2,A2,D3,G3,H3,E4", 22, 0, 648},
		"has 3 strings":       {"E2,A2,D3", 22, 0, 648},
		"has 9 strings":       {"E1,A1,D2,G2,C3,F3,B3,E4,A4", 22, 0, 648},
		"is not higher than":  {"G4,C4,E4,A4", 22, 0, 648},
		"28 frets":            {"E2,A2,D3,G3,B3,E4", 28, 0, 648},
		"11 frets":            {"E2,A2,D3,G3,B3,E4", 11, 0, 648},
		"a scale of 20 mm":    {"E2,A2,D3,G3,B3,E4", 22, 0, 20},
		"a scale of NaN mm":   {"E2,A2,D3,G3,B3,E4", 22, 0, math.NaN()},
		"it can sit at 0 to ": {"E2,A2,D3,G3,B3,E4", 22, 11, 648},
	} {
		_, err := New(c.tuning, c.frets, c.scale, c.capo)
		assert.ErrorContains(t, err, want)
	}
	in := Standard()
	for _, w := range []Region{{Low: -1, High: 3}, {Low: 5, High: 4}, {Low: 20, High: 23}} {
		assert.Error(t, in.CheckRegion(w), w)
	}
	assert.NoError(t, in.CheckRegion(Region{Low: 0, High: 22}))
}

func TestPositionsOfC(t *testing.T) {
	var got []string
	for _, p := range Standard().Positions(0) {
		got = append(got, fmt.Sprintf("%d %s %d-%d %v", p.Number, p.Shape, p.Low, p.High, p.Octave))
	}
	assert.Equal(t, []string{"1 C 0-4 false", "2 A 2-6 false", "3 G 4-8 false", "4 E 7-11 false", "5 D 9-13 false",
		"1 C 12-16 true", "2 A 14-18 true", "3 G 16-20 true"}, got)
}

func TestPositionsInEveryKey(t *testing.T) {
	in := Standard()
	for tonic := range 12 {
		r := (tonic - 4 + 12) % 12 // fret of the tonic on string 6
		regular := map[string]bool{}
		for _, p := range in.Positions(tonic) {
			require.NoError(t, in.CheckRegion(p.Region))
			assert.Equal(t, 5, p.High-p.Low+1, "five frets")
			if p.Nut {
				assert.Zero(t, p.Low)
				continue
			}
			from := map[string]int{"G": -4, "E": -1, "D": 1, "C": 4, "A": 6}[p.Shape]
			assert.Zero(t, (p.Low-r-from)%12, "%s shape of %d at %d", p.Shape, tonic, p.Low)
			regular[p.Shape] = true
		}
		assert.Len(t, regular, 5, "all five shapes fit on 22 frets")
	}
	for _, open := range []struct {
		tonic int
		shape string
	}{{4, "E"}, {9, "A"}, {2, "D"}, {7, "G"}} {
		p := in.Positions(open.tonic)[0]
		assert.True(t, p.Nut)
		assert.Equal(t, open.shape, p.Shape)
		assert.Equal(t, Region{Low: 0, High: 4}, p.Region)
	}
}

func TestShapesNeedStandardIntervals(t *testing.T) {
	for _, tuning := range Tunings {
		in, err := New(tuning.Open, tuning.Frets, tuning.Scale, 0)
		require.NoError(t, err)
		named := in.Positions(0)[0].Shape != ""
		assert.Equal(t, tuning.ID == "standard" || tuning.ID == "half-step-down" || tuning.ID == "seven-string", named, tuning.ID)
	}
}

// play draws notes in a window with the strings in order.
func play(t *rapid.T, in *Instrument) [][]Placement {
	low := rapid.IntRange(0, 12).Draw(t, "low")
	n := rapid.IntRange(1, 5).Draw(t, "notes")
	var notes [][]Placement
	s := 6
	for range n {
		s -= rapid.IntRange(0, min(1, s-1)).Draw(t, "up a string")
		options := []Placement{{s, low + rapid.IntRange(0, 5).Draw(t, "fret")}}
		if rapid.Bool().Draw(t, "two places") && s > 1 {
			options = append(options, Placement{s - 1, low + rapid.IntRange(0, 5).Draw(t, "other fret")})
		}
		notes = append(notes, options)
	}
	return notes
}

// cheapest tries every way to play notes.
func cheapest(in *Instrument, notes [][]Placement, hand Hand, step func(i int, a, b Touch) float64) float64 {
	best := math.Inf(1)
	var try func(i int, last Touch, cost float64)
	try = func(i int, last Touch, cost float64) {
		if i == len(notes) {
			best = min(best, cost)
			return
		}
		for _, p := range notes[i] {
			touches := []Touch{{p, 0, last.Hand}}
			if p.Fret > 0 {
				touches = nil
				for finger := 1; finger <= 4; finger++ {
					for hand := 1; hand <= p.Fret+1; hand++ {
						reach := p.Fret - hand
						if reach == finger-1 || finger == 1 && reach == -1 || finger == 4 && reach == 4 {
							touches = append(touches, Touch{p, finger, hand})
						}
					}
				}
			}
			for _, touch := range touches {
				c := cost + in.grip(touch, hand)
				if i > 0 {
					c += step(i, last, touch)
				}
				try(i+1, touch, c)
			}
		}
	}
	try(0, Touch{}, 0)
	return best
}

func TestFingeringIsTheExactMinimum(t *testing.T) {
	in := Standard()
	rapid.Check(t, func(t *rapid.T) {
		hand := Hand{rapid.Float64Range(70, 130).Draw(t, "comfort"), Habit(rapid.IntRange(0, 1).Draw(t, "habit"))}
		notes := play(t, in)
		best := cheapest(in, notes, hand, func(_ int, a, b Touch) float64 {
			if b.String > a.String {
				return math.Inf(1)
			}
			return in.step(a, b, hand)
		})
		touches, cost := in.Finger(notes, hand)
		if math.IsInf(best, 1) {
			assert.Nil(t, touches)
			return
		}
		require.Len(t, touches, len(notes))
		assert.InDelta(t, best, cost, 1e-9)
	})
}

func TestPhrasesAreFingeredExactlyAndAsAsked(t *testing.T) {
	in := Standard()
	rapid.Check(t, func(t *rapid.T) {
		hand := Hand{rapid.Float64Range(70, 130).Draw(t, "comfort"), Habit(rapid.IntRange(0, 1).Draw(t, "habit"))}
		asks := make([]Ask, rapid.IntRange(1, 4).Draw(t, "notes"))
		notes := make([][]Placement, len(asks))
		for i := range asks {
			for range rapid.IntRange(1, 3).Draw(t, "places") {
				notes[i] = append(notes[i], Placement{rapid.IntRange(1, 6).Draw(t, "string"), rapid.IntRange(0, 9).Draw(t, "fret")})
			}
			how := rapid.IntRange(0, 4).Draw(t, "how")
			asks[i] = Ask{Places: notes[i], Same: i > 0 && how <= 1, Slid: i > 0 && how == 0, With: i > 0 && how == 2, Rest: how == 3}
		}
		best := cheapest(in, notes, hand, func(i int, a, b Touch) float64 { return in.phraseStep(asks[i], a, b, hand) })
		touches, cost := in.FingerPhrase(asks, hand)
		if math.IsInf(best, 1) {
			assert.Nil(t, touches)
			return
		}
		require.Len(t, touches, len(notes))
		assert.InDelta(t, best, cost, 1e-9)
		for i, b := range touches[1:] {
			a, ask := touches[i], asks[i+1]
			assert.False(t, ask.Same && a.String != b.String)
			assert.False(t, ask.With && a.String == b.String)
			if a.Finger > 0 && b.Finger > 0 && a.String == b.String && !ask.Slid {
				assert.False(t, a.Fret < b.Fret && a.Finger > b.Finger, "a higher fret takes no lower finger")
			}
		}
	})
}

func TestStayStretchesWhereShiftMoves(t *testing.T) {
	in := Standard()
	notes := [][]Placement{{{6, 5}}, {{6, 9}}, {{5, 6}}, {{5, 9}}}
	moves := func(habit Habit) (n int) {
		touches, _ := in.Finger(notes, Hand{100, habit})
		for i := 1; i < len(touches); i++ {
			if touches[i].Hand != touches[i-1].Hand {
				n++
			}
		}
		return n
	}
	assert.Zero(t, moves(Stay))
	assert.Positive(t, moves(Shift))
	assert.False(t, in.Widest([]Touch{{Placement{6, 1}, 1, 1}, {Placement{6, 5}, 4, 1}}, UsualHand).Comfortable)
	assert.InDelta(t, 126.2, in.Widest([]Touch{{Placement{6, 0}, 0, 0}, {Placement{6, 1}, 1, 1}, {Placement{6, 5}, 4, 1}}, UsualHand).Millimetres, 0.05)
}
