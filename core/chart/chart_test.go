package chart_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/band"
	"undaris/core/blend"
	"undaris/core/chart"
	"undaris/core/crossing"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// played is a form in a key on a standard neck, as nobody planned it.
func played(f form.Form, key form.Key) chart.Chart {
	p := f.In(key)
	c := chart.Chart{Title: f.Name, Tempo: 96, In: neck.Standard(), Hand: neck.UsualHand, Key: key, Band: p, Solo: p}
	c.Plan.Palette, c.Plan.By, c.Plan.Weave.Mode = blend.Palettes[0], crossing.Ranking{Order: harmony.UsualOrder}, crossing.Modes[0]
	return c
}

func inC(t *testing.T, id string) chart.Chart {
	f, ok := form.FormByID(id)
	require.True(t, ok, id)
	return played(f, form.Key{Minor: f.Minor})
}

var seven = neck.Region{Low: 7, High: 11}

// Every form in a flat, a natural and a sharp key, in every position: what is
// drawn lies in its window, and each chord has its target.
func TestTheMapOfEveryForm(t *testing.T) {
	for _, f := range form.Forms {
		for _, tonic := range []string{"C", "Eb", "F#"} {
			key, err := form.ParseKey(tonic)
			require.NoError(t, err)
			key.Minor = f.Minor
			c := played(f, key)
			var windows []neck.Region
			for _, p := range c.In.Positions(key.Tonic.Class()) {
				windows = append(windows, p.Region)
			}
			m := c.Map(t.Context(), windows)
			what := fmt.Sprintf("%s in %s", f.Name, key)
			places := c.Solo.Places()
			require.Len(t, m.Of, len(places), what)
			assert.Empty(t, m.Beside, what)
			for i, of := range m.Of {
				assert.Equal(t, places[i].Chord.String(), m.Chords[of].String(), what)
			}
			for i, from := range m.Of { // every change is one of the pairs, once
				to, found := m.Of[(i+1)%len(m.Of)], 0
				for _, p := range m.Pairs {
					if p.From == from && p.To == to {
						found++
					}
				}
				assert.Equal(t, from != to, found == 1, what)
			}
			require.Len(t, m.Windows, len(windows), what)
			for i, w := range m.Windows {
				inside := func(p neck.Placement) {
					assert.True(t, p.Fret >= windows[i].Low && p.Fret <= windows[i].High, "%s: %v in %v", what, p, windows[i])
				}
				require.NoError(t, w.NoThread, what)
				require.Len(t, w.Thread.Targets, len(places), what)
				for step, g := range w.Thread.Targets {
					inside(g.Placement)
					assert.Equal(t, step, g.Step, what)
					_, tone := places[step].Chord.ToneAt(g.MIDI % 12)
					assert.True(t, tone, what)
				}
				require.Len(t, w.Runs, len(m.Chords), what)
				for _, run := range w.Runs {
					for _, n := range run.Notes {
						inside(n.Placement)
					}
				}
				for j, moves := range m.Places(i, m.Pairs) {
					require.Len(t, moves, len(m.Pairs[j].Moves), what)
				}
			}
			assert.Len(t, m.Neck, len(m.Chords), what)
			assert.Len(t, m.Blends, len(m.Chords), what)
		}
	}
}

func TestImaginedBarsStandBesideTheBands(t *testing.T) {
	c := inC(t, "quick-change")
	own, err := form.Read("| A7 | D7 G7 |", 4, c.Key)
	require.NoError(t, err)
	for _, bar := range []int{0, -1, 12, 99} {
		_, err := chart.Imagine(c.Band, own, bar)
		assert.ErrorContains(t, err, "the chart has bars 1 to 12", bar)
	}
	c.Solo, err = chart.Imagine(c.Band, own, 11)
	require.NoError(t, err)
	assert.Equal(t, c.Band.Bars[:10], c.Solo.Bars[:10])
	m := c.Map(t.Context(), []neck.Region{seven})
	last := len(m.Of) - 1
	beside := m.Beside[last-2]
	assert.Equal(t, "C7", beside.Band.String(), "A7 is imagined over C7")
	var rubs []string
	for _, r := range beside.Rubs {
		rubs = append(rubs, string(r.Tone.Degree)+" is "+string(r.Over.Degree))
	}
	assert.Equal(t, []string{"3 is b9"}, rubs)
	for _, g := range m.Windows[0].Thread.Targets {
		if g.Step == last-2 && g.Tone.Degree == "3" {
			assert.Equal(t, harmony.Degree("b9"), g.Against)
		} else {
			assert.NotEqual(t, harmony.Degree("b9"), g.Against)
		}
	}
	assert.Len(t, m.Beside, 3)
}

func TestWhatWasChosenByHandIsFollowed(t *testing.T) {
	c := inC(t, "quick-change")
	c.Plan.Pins = []chart.Pin{
		{Region: seven, Bar: 1, Placement: neck.Placement{String: 3, Fret: 8}},
		{Region: neck.Region{Low: 0, High: 4}, Placement: neck.Placement{String: 3, Fret: 0}}, // of another window
		{Region: seven, Bar: 40, Placement: neck.Placement{String: 3, Fret: 8}},               // of a bar that is gone
	}
	thread, err := c.Thread(t.Context(), seven)
	require.NoError(t, err)
	for _, g := range thread.Targets {
		assert.Equal(t, g.Step == 1, g.Pinned)
	}
	assert.Equal(t, neck.Placement{String: 3, Fret: 8}, thread.Targets[1].Placement)

	c.Plan.Pins[0].Fret = 9
	_, err = c.Thread(t.Context(), seven)
	var none *chart.NoThread
	require.ErrorAs(t, err, &none)
	assert.Equal(t, []any{1, true}, []any{none.Step, none.Pinned})
	assert.Contains(t, none.Says, "in bar 2")

	c.Plan.Pins = nil
	c.Plan.Weave.Allowed = map[string][]harmony.Role{"IV7": {harmony.Root}}
	thread, err = c.Thread(t.Context(), seven)
	require.NoError(t, err)
	places := c.Solo.Places()
	for _, g := range thread.Targets {
		assert.Equal(t, places[g.Step].Chord.String() == "F7", g.Tone.Degree == "R", "only on IV")
	}
}

// Every kind of thread, on paper and played: as many notes as chords.
func TestPaperAndLead(t *testing.T) {
	c := inC(t, "quick-change")
	places := c.Solo.Places()
	for _, mode := range crossing.Modes {
		c.Plan.Weave.Mode = mode
		sc, err := c.Paper(t.Context(), chart.OfThread, 0, seven)
		require.NoError(t, err, mode.ID)
		assert.Len(t, sc.Notes, len(places), mode.ID)
		assert.NoError(t, sc.Check(), mode.ID)
		thread, err := c.Thread(t.Context(), seven)
		require.NoError(t, err)
		lead := c.Lead(thread, 6)
		require.Len(t, lead, 6*len(places), mode.ID)
		for i, n := range lead {
			p := places[i%len(places)]
			assert.Equal(t, ((i/len(places))*48+p.Bar*4+p.Beat)*band.Tick, n.Start, mode.ID)
		}
	}
	for step := range places {
		for _, of := range []string{chart.OfRun, chart.OfCrossing} {
			sc, err := c.Paper(t.Context(), of, step, seven)
			require.NoError(t, err)
			assert.NotEmpty(t, sc.Notes)
			assert.NoError(t, sc.Check())
		}
	}
	_, err := c.Paper(t.Context(), chart.OfRun, len(places), seven)
	assert.ErrorIs(t, err, chart.ErrNoStep)
}
