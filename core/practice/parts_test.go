package practice_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/edit"
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

// tune is one to be learned by ear: the lick through the chart's own changes.
func tune(t *testing.T, l edit.Line) []score.Note {
	require.NoError(t, l.Through(t.Context(), figure(t), edit.Sending{Land: true, Follow: true}))
	return l.Notes
}

// uneven has bars of other lengths.
var uneven = form.Form{ID: "uneven", Name: "bars of other lengths", Text: "| 1/4 V7 | 4/4 I7 | IV7 | 2/4 I7 | 4/4 I7 | IV7 | 3/4 IV7 | 4/4 I7 V7 | I7 | 5/4 V7 . . IV7 . | 3/4 I7 |"}

// Every mode that writes, over every form and in every key: what it writes can be
// played, a perfect player has every chord of it, a silent one none.
func TestWrittenParts(t *testing.T) {
	for _, m := range practice.Modes {
		if !m.Writes() {
			continue
		}
		for i, f := range append(slices.Clip(form.Forms), uneven) {
			for _, tonic := range pitch.Roots {
				chart := over(f, tonic)
				what := m.ID + " over " + f.Name + " in " + tonic.String()
				l := chart
				l.Progression = m.Over(chart.Progression, chart.Key)
				band, own, err := m.Line(t.Context(), l, practice.Ask{Lick: figure(t), Tune: tune(t, chart), Seed: uint64(i)})
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
				f, err := m.Judge(own, 0, heard, 100, 0.6)
				require.NoError(t, err, what)
				require.NotEmpty(t, f.Landings, what)
				for _, landing := range f.Landings {
					require.True(t, landing.Counts, "%s at %d: %s", what, landing.At, landing.Says)
				}
				require.Empty(t, f.Lost, what)
				f, err = m.Judge(own, 0, nil, 100, 0.6)
				require.NoError(t, err, what)
				for _, landing := range f.Landings {
					require.Contains(t, []string{judge.Unheard, "silent"}, landing.When, what)
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
	chart.Region.Low, chart.Region.High = 0, 0
	_, _, err = m.Line(t.Context(), chart, practice.Ask{})
	assert.ErrorContains(t, err, "choose a place higher up")
	m, err = practice.ModeByID("lick")
	require.NoError(t, err)
	_, _, err = m.Line(t.Context(), chart, practice.Ask{})
	assert.ErrorContains(t, err, "choose a lick")
}

// Rests count on their tone, whatever leads there; one that stands still is told, and
// counts all the same.
func TestRestsOnEachTone(t *testing.T) {
	m, err := practice.ModeByID("root-first")
	require.NoError(t, err)
	chart := over(form.Forms[0], c)
	chart.Progression = m.Over(chart.Progression, chart.Key)
	require.Len(t, chart.Bars, 16)
	band, own, err := m.Line(t.Context(), chart, practice.Ask{})
	require.NoError(t, err)
	require.Len(t, own.Notes, len(band.Notes))
	for _, still := range []bool{true, false} {
		heard, _ := judge.Player{Still: still}.Play(own.Score, 100, 0.5)
		f, err := m.Judge(own, 0, heard, 100, 0.5)
		require.NoError(t, err)
		var on []string
		for _, l := range f.Landings {
			assert.True(t, l.Counts)
			on = append(on, string(l.Degree))
		}
		assert.Equal(t, []string{"R", "3", "5", "b7"}, on)
		assert.Equal(t, map[bool]int{true: 4, false: 0}[still], f.Still)
		assert.Equal(t, still, strings.Contains(f.Try, "sway"))
		for i := range heard { // resting a half step off is no rest
			heard[i].Pitch++
		}
		f, err = m.Judge(own, 0, heard, 100, 0.5)
		require.NoError(t, err)
		for _, l := range f.Landings {
			assert.False(t, l.Counts)
		}
	}
	f, err := m.Judge(own, 0, nil, 100, 0.5)
	require.NoError(t, err)
	for _, l := range f.Landings {
		assert.Equal(t, "silent", l.When)
	}
	for _, f := range form.Forms { // every chord that begins a form
		l := over(f, c)
		l.Progression = m.Over(l.Progression, l.Key)
		_, _, err := m.Line(t.Context(), l, practice.Ask{})
		require.NoError(t, err, f.Name)
	}
}

// Who plays the chords of the bar before is lost, and told where.
func TestLostInFreePlaying(t *testing.T) {
	jazz, _ := form.FormByID("jazz-blues")
	l := over(jazz, c)
	var heard []judge.Heard
	for bar := range l.Bars {
		for beat := range 2 * l.Beats {
			at := l.At(bar) + beat*score.Tick/2
			from := at
			if bar >= 5 && bar < 9 {
				from -= l.At(1)
			}
			chord, _ := l.ChordAt(from)
			heard = append(heard, judge.Heard{At: float64(at), Length: 400, Pitch: float64(60 + chord.Tones[beat%len(chord.Tones)].Name.Class())})
		}
	}
	f, err := practice.Judge(l, heard, 120, 0.5, practice.Modes[0].Stages[0])
	require.NoError(t, err)
	require.Len(t, f.Lost, 1)
	assert.Equal(t, 4., f.Lost[0].By)
	assert.InDelta(t, 5, f.Lost[0].From, 1)
	assert.Contains(t, f.Try, "count the form")
}

// What is easier on the hand bends by half steps alone, wherever there is one; what strains has an end.
func TestBendsHaveAnEasierChoiceAndAnEnd(t *testing.T) {
	m, err := practice.ModeByID("bends")
	require.NoError(t, err)
	assert.Positive(t, m.Most)
	assert.NotEmpty(t, m.Easier)
	whole := 0
	for _, f := range form.Forms {
		for _, tonic := range pitch.Roots {
			l := over(f, tonic)
			for _, p := range l.In.Positions(tonic.Class()) {
				if l.Region = p.Region; l.Region.Low < 3 {
					continue
				}
				_, own, err := m.Line(t.Context(), l, practice.Ask{Easy: true})
				if err != nil {
					continue
				}
				for _, n := range own.Notes {
					require.Contains(t, []int{0, 2}, n.Bend, "quarter steps: half a step at most")
				}
				_, hard, err := m.Line(t.Context(), l, practice.Ask{})
				require.NoError(t, err)
				for _, n := range hard.Notes {
					if n.Bend == 4 {
						whole++
					}
				}
			}
		}
	}
	assert.Greater(t, whole, 100)
}
