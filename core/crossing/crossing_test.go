package crossing

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

var usual = Ranking{Order: harmony.UsualOrder}

func TestKnownCrossingsInEveryKeyAndPosition(t *testing.T) {
	facts := map[[2]string][]string{
		{"I7", "IV7"}: {"3→R +1", "3→b7 -1", "b7→3 -1", "R→5 +0"},
		{"I7", "V7"}:  {"R→3 -1", "3→b7 +1", "b7→3 +1", "5→R +0"},
		{"V7", "IV7"}: {"b7→R +0", "3→5 +1", "5→b7 +1", "R→R -2", "3→3 -2", "5→5 -2", "b7→b7 -2"},
	}
	in := neck.Standard()
	for _, tonic := range pitch.Roots {
		key := form.Key{Tonic: tonic}
		for pair, want := range facts {
			a, err := form.ReadNumeral(pair[0], key)
			require.NoError(t, err)
			b, err := form.ReadNumeral(pair[1], key)
			require.NoError(t, err)
			for _, p := range in.Positions(tonic.Class()) {
				got := map[string]bool{}
				for _, m := range Between(in, a, b, p.Region, usual) {
					got[fmt.Sprintf("%s→%s %+d", m.From.Degree, m.To.Degree, m.HalfSteps)] = true
					checkMove(t, in, a, b, p.Region, m)
				}
				for _, w := range want {
					assert.True(t, got[w], "%s to %s in %s, frets %d-%d: %s", pair[0], pair[1], tonic, p.Low, p.High, w)
				}
			}
		}
	}
}

// checkMove holds what is true of every move.
func checkMove(t require.TestingT, in *neck.Instrument, a, b harmony.Chord, w neck.Region, m Move) {
	require.True(t, b.HasDegree(m.To.Degree), "a target is a tone of the new chord")
	require.True(t, a.HasDegree(m.From.Degree))
	require.NotEmpty(t, m.Places)
	for i, p := range m.Places {
		require.Equal(t, m.From.Name.Class(), in.MIDI(p.From)%12)
		require.Equal(t, in.MIDI(p.From)+m.HalfSteps, in.MIDI(p.To))
		require.NoError(t, in.CheckRegion(neck.Region{Low: p.To.Fret, High: p.To.Fret}))
		require.True(t, p.To.Fret >= w.Low && p.To.Fret <= w.High)
		if i > 0 {
			require.GreaterOrEqual(t, p.Travel, m.Places[i-1].Travel)
		}
	}
}

func TestRanking(t *testing.T) {
	in, w := neck.Standard(), neck.Region{Low: 7, High: 11}
	c7, f7 := harmony.MustParse("C7"), harmony.MustParse("F7")
	first := Between(in, c7, f7, w, usual)[0]
	assert.Equal(t, harmony.Degree("3"), first.To.Degree)
	assert.Equal(t, harmony.Degree("b7"), first.From.Degree)
	assert.True(t, first.Guide)
	near := Between(in, c7, f7, w, Ranking{harmony.UsualOrder, true})
	assert.Equal(t, Hold, near[0].Kind)
	order, err := harmony.ParseOrder("root, fifth")
	require.NoError(t, err)
	assert.Equal(t, harmony.Degree("R"), Between(in, c7, f7, w, Ranking{Order: order})[0].To.Degree)
	_, err = harmony.ParseOrder("ninth")
	assert.ErrorContains(t, err, `"ninth" is no target`)
}

func stopsOf(t require.TestingT, text, key string, allowed ...harmony.Role) []Stop {
	k, err := form.ParseKey(key)
	require.NoError(t, err)
	p, err := form.Read(text, 4, k)
	require.NoError(t, err)
	var stops []Stop
	for _, place := range p.Places() {
		stops = append(stops, Stop{Chord: place.Chord, Allowed: allowed})
	}
	return stops
}

// brute tries every ring.
func brute(in *neck.Instrument, stops []Stop, r Range) (Cost, bool) {
	var layers [][]Target
	for i, s := range stops {
		layer, err := candidates(in, i, s, r)
		if err != nil {
			return Cost{}, false
		}
		layers = append(layers, layer)
	}
	t := newTie(in)
	var best Cost
	found := false
	var try func(path []*Target, cost Cost)
	try = func(path []*Target, cost Cost) {
		if len(path) == len(layers) {
			if cost = cost.plus(t.step(path[len(path)-1], path[0])); !found || cost.less(best) {
				best, found = cost, true
			}
			return
		}
		for j := range layers[len(path)] {
			next := &layers[len(path)][j]
			c := cost
			if len(path) > 0 {
				c = cost.plus(t.step(path[len(path)-1], next))
			}
			try(append(path, next), c)
		}
	}
	try(nil, Cost{})
	return best, found
}

func TestThreadIsTheExactMinimum(t *testing.T) {
	suffixes := []string{"7", "m7", "maj7", "", "m", "dim7", "m7b5", "5", "9"}
	rapid.Check(t, func(t *rapid.T) {
		tuning := rapid.SampledFrom(neck.Tunings).Draw(t, "tuning")
		in, err := neck.New(tuning.Open, tuning.Frets, tuning.Scale, 0)
		require.NoError(t, err)
		low := rapid.IntRange(0, 14).Draw(t, "low")
		r := Range{Region: neck.Region{Low: low, High: low + 4}}
		n := rapid.IntRange(1, 6).Draw(t, "chords")
		if n > 3 || rapid.Bool().Draw(t, "few strings") {
			r.Region.Strings = neck.StringsOf(2, 3)
		}
		modes := rapid.SampledFrom(Modes).Draw(t, "mode")
		var stops []Stop
		for i := range n {
			chord := harmony.MustParse(rapid.SampledFrom(pitch.Roots).Draw(t, "root").String() + rapid.SampledFrom(suffixes).Draw(t, "suffix"))
			stops = append(stops, Stop{Chord: chord, Allowed: modes.Allowed(i)})
		}
		want, possible := brute(in, stops, r)
		targets, cost, err := Tie(t.Context(), in, stops, r)
		if !possible {
			var stop *StopError
			require.ErrorAs(t, err, &stop)
			return
		}
		require.NoError(t, err)
		require.Len(t, targets, n)
		assert.Equal(t, want.HalfSteps, cost.HalfSteps)
		assert.InDelta(t, want.Travel, cost.Travel, 1e-6)
		sum := 0
		for i, target := range targets {
			assert.Equal(t, in.MIDI(target.Placement), target.MIDI)
			_, tone := stops[i].Chord.ToneAt(target.MIDI % 12)
			assert.True(t, tone)
			sum += max(target.Move, -target.Move)
		}
		assert.Equal(t, cost.HalfSteps, sum, "the moves of the ring are its cost")
	})
}

func TestThirdsThroughTheSlowChangeStayInPosition(t *testing.T) {
	in := neck.Standard()
	slow, _ := form.FormByID("slow-change")
	for _, tonic := range pitch.Roots {
		key := form.Key{Tonic: tonic}
		for _, p := range in.Positions(tonic.Class()) {
			stops := stopsOf(t, slow.In(key).Text(), key.String(), harmony.Third)
			targets, _, err := Tie(t.Context(), in, stops, Range{Region: p.Region})
			require.NoError(t, err)
			beyond := 0
			for _, target := range targets {
				assert.Equal(t, harmony.Degree("3"), target.Tone.Degree)
				assert.True(t, target.Fret >= p.Low && target.Fret <= p.High)
				if size := max(target.Move, -target.Move); size > 5 {
					assert.Equal(t, 7, size)
					beyond++
				}
			}
			// Fourths down from one to five and from four to one, and whole steps down
			// from five to four, sink an octave a chorus; to come round, one of them
			// must go up a fifth instead. No smaller move exists for that one.
			assert.Equal(t, 1, beyond, "%s, frets %d-%d", tonic, p.Low, p.High)
		}
	}
}

func TestGuideTonesOfTheQuickChange(t *testing.T) {
	quick, _ := form.FormByID("quick-change")
	stops := stopsOf(t, quick.In(form.Key{}).Text(), "C", harmony.Third, harmony.Seventh)
	targets, cost, err := Tie(t.Context(), neck.Standard(), stops, Range{Region: neck.Region{Low: 7, High: 11}})
	require.NoError(t, err)
	var got []string
	for _, target := range targets {
		got = append(got, string(target.Tone.Degree))
	}
	assert.Contains(t, []string{"3 b7 3 3 b7 b7 3 3 b7 b7 3 b7", "b7 3 b7 b7 3 3 b7 b7 3 3 b7 3"}, strings.Join(got, " "))
	assert.Equal(t, 10, cost.HalfSteps)
}

func TestPins(t *testing.T) {
	in := neck.Standard()
	r := Range{Region: neck.Region{Low: 7, High: 11}}
	stops := stopsOf(t, "| C7 | F7 | C7 | G7 |", "C", harmony.Third, harmony.Seventh)
	free, cost, err := Tie(t.Context(), in, stops, r)
	require.NoError(t, err)
	pin := neck.Placement{String: 6, Fret: 8} // C, the fifth of F7
	stops[1].Pin = &pin
	pinned, more, err := Tie(t.Context(), in, stops, r)
	require.NoError(t, err)
	assert.Equal(t, pin, pinned[1].Placement)
	assert.True(t, cost.less(more))
	assert.False(t, slices.Equal(free, pinned))
	for place, says := range map[neck.Placement]string{{String: 6, Fret: 3}: "outside frets 7 to 11", {String: 6, Fret: 9}: "no tone of F7", {String: 9, Fret: 8}: "outside"} {
		stops[1].Pin = &place
		_, _, err = Tie(t.Context(), in, stops, r)
		var stop *StopError
		require.ErrorAs(t, err, &stop)
		assert.Equal(t, 1, stop.Stop)
		assert.True(t, stop.Pinned)
		assert.ErrorContains(t, err, says)
	}
}

func TestThreadKeepsToItsRegisterAndStrings(t *testing.T) {
	in, w := neck.Standard(), neck.Region{Low: 7, High: 11}
	stops := stopsOf(t, "| C7 | F7 | C7 | G7 |", "C", harmony.Third, harmony.Seventh)
	for _, r := range []Range{{Region: w, LowMIDI: 50, HiMIDI: 60}, {Region: w, LowMIDI: 64}, {Region: w, HiMIDI: 55}, {Region: neck.Region{Low: w.Low, High: w.High, Strings: neck.StringsOf(4, 5, 6)}}} {
		targets, _, err := Tie(t.Context(), in, stops, r)
		require.NoError(t, err)
		for _, target := range targets {
			assert.True(t, target.MIDI >= r.LowMIDI && (r.HiMIDI == 0 || target.MIDI <= r.HiMIDI), "%+v in %+v", target, r)
			assert.True(t, r.Region.Has(target.Placement))
		}
	}
	_, _, err := Tie(t.Context(), in, stops, Range{Region: w, LowMIDI: 100})
	assert.ErrorContains(t, err, "no tone of C7")
}

func TestFormsWithLittleInThem(t *testing.T) {
	in, r := neck.Standard(), Range{Region: neck.Region{Low: 0, High: 4}}
	one, cost, err := Tie(t.Context(), in, stopsOf(t, "| C7 | % |", "C", harmony.Third), r)
	require.NoError(t, err)
	assert.Len(t, one, 2)
	assert.Zero(t, cost.HalfSteps)
	none, _, err := Tie(t.Context(), in, stopsOf(t, "| N.C. |", "C"), r)
	require.NoError(t, err)
	assert.Empty(t, none)
	power, _, err := Tie(t.Context(), in, stopsOf(t, "| C5 | N.C. | F7 |", "C", harmony.Third), r)
	require.NoError(t, err)
	assert.Equal(t, []int{0, 2}, []int{power[0].Stop, power[1].Stop})
	_, _, err = Tie(t.Context(), in, stopsOf(t, "| C7 |", "C", harmony.Third), Range{Region: neck.Region{Low: 1, High: 1, Strings: neck.StringsOf(1)}})
	assert.ErrorContains(t, err, "no tone of C7")
}

func BenchmarkThreadThroughNinetySixBars(b *testing.B) {
	in := neck.Standard()
	stops := stopsOf(b, strings.Repeat("| C7 A7 | Dm7 G7 | Em7 Eb7 | F7 F#dim7 ", 24)+"|", "C")
	for b.Loop() {
		if _, _, err := Tie(b.Context(), in, stops, Range{Region: neck.Region{Low: 7, High: 11}}); err != nil {
			b.Fatal(err)
		}
	}
}
