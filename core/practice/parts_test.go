package practice_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/judge"
	"undaris/core/lick"
	"undaris/core/pitch"
	"undaris/core/practice"
	"undaris/core/score"
)

// figure is a lick of four notes over a dominant chord.
func figure(t *testing.T) lick.Lick {
	notes, err := lick.Parse("5/e b7/e 9/e 3/h")
	require.NoError(t, err)
	return lick.Lick{Chord: "7", Notes: notes}
}

// Every mode that writes, over every form and in every key: what it writes can be
// played, a perfect player has every chord of it, a silent one none.
func TestWrittenParts(t *testing.T) {
	for _, m := range practice.Modes {
		if !m.Writes() {
			continue
		}
		for i, f := range form.Forms {
			for _, tonic := range pitch.Roots {
				chart := over(f, tonic)
				what := m.ID + " over " + f.Name + " in " + tonic.String()
				l := chart
				l.Progression = m.Over(chart.Progression, chart.Key)
				band, own, err := m.Line(t.Context(), l, practice.Ask{Lick: figure(t), Seed: uint64(i)})
				require.NoError(t, err, what)
				require.NotEmpty(t, own.Notes, what)
				require.NoError(t, own.Check(), what)
				if m.ByEar {
					require.Len(t, own.Notes, len(band.Notes), what)
					for k, n := range own.Notes {
						require.Equal(t, band.Notes[k].Pitch, n.Pitch, what)
						theirs, _ := l.ChordAt(band.Notes[k].Start)
						mine, _ := l.ChordAt(n.Start)
						require.Equal(t, theirs, mine, "%s: over the same chord", what)
					}
				}
				heard, _ := judge.Player{}.Play(own.Score, 100, 0.6)
				f, err := practice.Prescribed(own, heard, 100, 0.6)
				require.NoError(t, err, what)
				require.NotEmpty(t, f.Landings, what)
				for _, landing := range f.Landings {
					require.True(t, landing.Counts, "%s at %d: %s", what, landing.At, landing.Says)
				}
				require.Empty(t, f.Lost, what)
				f, err = practice.Prescribed(own, nil, 100, 0.6)
				require.NoError(t, err, what)
				for _, landing := range f.Landings {
					require.Equal(t, judge.Unheard, landing.When, what)
				}
			}
		}
	}
}

// A bend that comes out flat is told by its chord, and what is fretted is the goal.
func TestBendsAreMatchedToTheirGoal(t *testing.T) {
	m, err := practice.ModeByID("bends")
	require.NoError(t, err)
	chart := over(form.Forms[0], c)
	_, own, err := m.Line(t.Context(), chart, practice.Ask{})
	require.NoError(t, err)
	for i := 0; i < len(own.Notes); i += 2 {
		goal, bent := own.Notes[i], own.Notes[i+1]
		assert.Zero(t, goal.Bend)
		assert.Positive(t, bent.Bend)
		assert.Equal(t, goal.Pitch.MIDI(), bent.Heard())
	}
	heard, erred := judge.Player{Bad: 1}.Play(own.Score, 100, 0.5)
	require.NotEmpty(t, erred.Bent)
	f, err := practice.Prescribed(own, heard, 100, 0.5)
	require.NoError(t, err)
	for _, l := range f.Landings {
		assert.Contains(t, []string{"bent flat", "bent sharp"}, l.When)
	}
	chart.Window.Low, chart.Window.High = 0, 0
	_, _, err = m.Line(t.Context(), chart, practice.Ask{})
	assert.ErrorContains(t, err, "position higher up")
	m, err = practice.ModeByID("lick")
	require.NoError(t, err)
	_, _, err = m.Line(t.Context(), chart, practice.Ask{})
	assert.ErrorContains(t, err, "choose a lick")
}

// Landings that are to sway and stand still are told; they count all the same.
func TestLandingsThatStandStill(t *testing.T) {
	m, err := practice.ModeByID("root-first")
	require.NoError(t, err)
	l := over(form.Forms[0], c)
	heard := meets(l, m.Stages[0].Land[0], 0)
	f, err := practice.Judge(l, heard, 0.5, m.Stages[0])
	require.NoError(t, err)
	assert.Len(t, f.Landings, f.Still)
	assert.Contains(t, f.Try, "sway")
	for i := range heard {
		heard[i].Sway = 0.2
	}
	f, err = practice.Judge(l, heard, 0.5, m.Stages[0])
	require.NoError(t, err)
	assert.Zero(t, f.Still)
}

// Who plays the chords of the bar before is lost, and told where.
func TestLostInFreePlaying(t *testing.T) {
	jazz, _ := form.FormByID("jazz-blues")
	l := over(jazz, c)
	var heard []judge.Heard
	for bar := range l.Bars {
		for beat := range 2 * l.Beats {
			at := bar*l.Bar() + beat*score.Tick/2
			from := at
			if bar >= 5 && bar < 9 {
				from -= l.Bar()
			}
			chord, _ := l.ChordAt(from)
			heard = append(heard, judge.Heard{At: float64(at), Length: 400, Pitch: float64(60 + chord.Tones[beat%len(chord.Tones)].Name.Class())})
		}
	}
	f, err := practice.Judge(l, heard, 0.5, practice.Modes[0].Stages[0])
	require.NoError(t, err)
	require.Len(t, f.Lost, 1)
	assert.Equal(t, 4., f.Lost[0].By)
	assert.InDelta(t, 5, f.Lost[0].From, 1)
	assert.Contains(t, f.Try, "count the form")
}
