package record

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// drawn is a grid that drifts.
func drawn(t *rapid.T) Grid {
	g := Grid{PerBar: rapid.IntRange(2, 12).Draw(t, "beats in a bar")}
	at := rapid.Float64Range(0, 30).Draw(t, "first")
	beat := rapid.IntRange(-40, 40).Draw(t, "beat")
	for range rapid.IntRange(2, 12).Draw(t, "anchors") {
		g.Anchors = append(g.Anchors, Anchor{beat, at})
		by := rapid.IntRange(1, 16).Draw(t, "by")
		beat += by
		at += float64(by) * 60 / rapid.Float64Range(40, 200).Draw(t, "tempo")
	}
	require.NoError(t, g.Check())
	return g
}

// A beat and its second lead to each other, and later is later, wherever it is.
func TestABeatAndItsSecond(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		g := drawn(t)
		at := rapid.Float64Range(-20, 200).Draw(t, "at")
		assert.InDelta(t, at, g.At(g.Beat(at)), 1e-6)
		assert.Greater(t, g.Beat(at+0.1), g.Beat(at))
		for _, a := range g.Anchors {
			assert.InDelta(t, a.At, g.At(float64(a.Beat)), 1e-9)
		}
		assert.InDelta(t, 60/(g.At(g.Beat(at)+0.001)-at)*0.001, g.Tempo(at), 0.6*g.Tempo(at))
	})
}

// What is tapped are beats from then on, each one later than the one before; bar 1 stays, and what lies before is not touched.
func TestTappedBeatsStand(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		g := drawn(t)
		if rapid.Bool().Draw(t, "nothing known") {
			g.Anchors = nil
		}
		at := rapid.Float64Range(0, 60).Draw(t, "first tap")
		var taps []float64
		for range rapid.IntRange(2, 24).Draw(t, "taps") {
			taps = append(taps, at)
			at += rapid.Float64Range(0.25, 1.4).Draw(t, "next")
		}
		now := g.Tapped(taps)
		require.NoError(t, now.Check())
		for i := 1; i < len(taps); i++ {
			assert.InDelta(t, 1, now.Beat(taps[i])-now.Beat(taps[i-1]), 1e-6)
		}
		if g.Known() {
			assert.InDelta(t, math.Round(g.Beat(taps[0])), now.Beat(taps[0]), 1e-6)
		} else {
			assert.InDelta(t, 0, now.Beat(taps[0]), 1e-6)
		}
	})
}

// Bar 1 begins where it is said to; half and twice as many beats go back to what was.
func TestAGridIsCorrected(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		g := drawn(t)
		at := rapid.Float64Range(g.Anchors[0].At, g.Anchors[len(g.Anchors)-1].At).Draw(t, "bar 1")
		on := g.On(at)
		assert.InDelta(t, 0, on.Beat(at), 1e-6)
		beat := math.Round(g.Beat(at))
		assert.InDelta(t, g.At(beat+3)-g.At(beat), on.At(3)-on.At(0), 1e-6)
		twice := g.Times(2)
		assert.InDelta(t, 2*g.Beat(at), twice.Beat(at), 1e-6)
		assert.InDelta(t, g.Beat(at), twice.Times(0.5).Beat(at), 1e-6)
		half := g.Times(0.5)
		require.Len(t, half.Anchors[:2], 2)
		assert.InDelta(t, 0.5*g.Beat(half.Anchors[0].At), float64(half.Anchors[0].Beat), 1e-6)
	})
}

// An even grid is as quick as it is asked to be, and what cannot be one is refused.
func TestGridsThatAreRefused(t *testing.T) {
	g := Even(4, 0.5, 96, 60)
	assert.InDelta(t, 96, g.Tempo(30), 1e-9)
	assert.InDelta(t, 0.5, g.At(0), 1e-9)
	assert.Equal(t, []int{-1, 0, 0, 1}, []int{g.Bar(-1), g.Bar(0), g.Bar(3.9), g.Bar(4)})
	for _, bad := range [][]Anchor{{{0, 1}, {0, 2}}, {{1, 1}, {0, 2}}, {{0, 2}, {4, 1}}, {{0, 0}, {1, 100}}, {{0, 0}, {100, 1}}} {
		assert.Error(t, Grid{4, bad}.Check(), bad)
	}
	none := Grid{PerBar: 4}
	assert.Equal(t, []float64{0, 0, 0}, []float64{none.Beat(3), none.At(3), none.Tempo(3)})
	assert.Empty(t, none.Tapped([]float64{1}).Anchors)
}
