package band

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/pitch"
)

// Every way to play the bass is there for every groove, and its signs are known.
func TestBasses(t *testing.T) {
	for _, b := range Basses[1:] {
		for steps, bars := range b.bars {
			assert.Contains(t, []int{2, 3, 4}, steps)
			require.NotEmpty(t, bars)
			for _, bar := range bars {
				assert.Len(t, bar, 4*steps, b.ID)
				assert.Empty(t, strings.Trim(bar, "R35678w<-."), b.ID)
			}
		}
		assert.Len(t, b.bars, 3, b.ID)
	}
	f, _ := form.FormByID("slow-change")
	p := f.In(form.Key{Tonic: pitch.Name{Letter: 5}})
	perf, err := Play(t.Context(), p, Grooves[0], Options{Choruses: 1, Bass: "boogie", Intensity: 3})
	require.NoError(t, err)
	var low []int
	for _, n := range perf.Tracks[1].Notes[:16] {
		low = append(low, n.MIDI)
	}
	assert.Equal(t, []int{33, 33, 37, 37, 40, 40, 42, 42, 43, 43, 42, 42, 40, 40, 37, 37}, low, "A, its third, fifth, sixth and seventh, and back")
	_, err = Play(t.Context(), p, Grooves[0], Options{Choruses: 1, Bass: "slapped"})
	assert.ErrorContains(t, err, "no bass")
}

// Each click marks what it says.
func TestClicks(t *testing.T) {
	f, _ := form.FormByID("slow-change")
	p := f.In(form.Key{})
	for id, want := range map[string]int{"": 96, "beats": 96, "eighths": 192, "triplets": 288, "sixteenths": 384, "backbeat": 48, "bars": 24, "top": 8} {
		perf, err := Play(t.Context(), p, Grooves[0], Options{Choruses: 2, Metronome: true, Click: id})
		require.NoError(t, err)
		assert.Len(t, perf.Tracks[3].Notes, want, id)
		for _, n := range perf.Tracks[3].Notes {
			beat := n.Start / Tick % 4
			assert.True(t, id != "backbeat" || beat == 1 || beat == 3)
			assert.True(t, id != "top" || n.Start/Tick%48 < 4)
		}
	}
	_, err := Play(t.Context(), p, Grooves[0], Options{Choruses: 1, Metronome: true, Click: "cowbell"})
	assert.ErrorContains(t, err, "no click")
}

// Swing follows the tempo unless it is set; a pickup lies in the count-in; a lead that mixes
// thirds and eighths is played in its order.
func TestSwingAndPickups(t *testing.T) {
	g := Grooves[0]
	assert.InDelta(t, 0.67, g.SwingAt(0), 0.001)
	assert.InDelta(t, 0.67, g.SwingAt(120), 0.001)
	assert.InDelta(t, 0.60, g.SwingAt(220), 0.005)
	assert.InDelta(t, 0.54, g.SwingAt(300), 0.005)
	for _, g := range Grooves {
		for tempo := 40; tempo < 300; tempo++ {
			assert.LessOrEqual(t, g.SwingAt(tempo+1), g.SwingAt(tempo))
			assert.GreaterOrEqual(t, g.SwingAt(tempo), 0.5)
		}
	}
	f, _ := form.FormByID("slow-change")
	p := f.In(form.Key{})
	for _, g := range Grooves {
		lead := []Note{{Start: -480, Length: 480, MIDI: 60}, {Start: 0, Length: 320, MIDI: 62}, {Start: 320, Length: 160, MIDI: 64}, {Start: 480, Length: 160, MIDI: 65}, {Start: 640, Length: 320, MIDI: 67}, {Start: 1440, Length: 480, MIDI: 60}}
		perf, err := Play(t.Context(), p, g, Options{Choruses: 1, Lead: lead})
		require.NoError(t, err, g.Feel)
		assert.Equal(t, 13, perf.Bars, "counted in")
		solo := perf.Tracks[len(perf.Tracks)-1]
		require.Equal(t, "lead", solo.Name)
		require.Len(t, solo.Notes, 6)
		top := 4 * Tick
		assert.Less(t, solo.Notes[0].Start, top)
		assert.GreaterOrEqual(t, solo.Notes[0].Start, top-480)
		assert.Equal(t, top+480, solo.Notes[3].Start, "in a beat of thirds the half stays between them")
		for i, n := range solo.Notes[:5] {
			assert.LessOrEqual(t, n.Start+n.Length, solo.Notes[i+1].Start)
		}
		if g.Steps == 3 {
			assert.Greater(t, solo.Notes[5].Start, top+1440+100, "the second eighth of an even beat swings in %s", g.Feel)
		}
	}
	_, err := Play(t.Context(), p, g, Options{Choruses: 1, Lead: []Note{{Start: -5 * Tick, Length: 480, MIDI: 60}}})
	assert.ErrorContains(t, err, "cannot be played")
}
