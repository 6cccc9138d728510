package demo

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
	"undaris/store"
)

// filled is a store with the demo's things, and its licks.
func filled(t *testing.T) (*store.Store, []store.Lick) {
	s, err := store.Open(t.TempDir())
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	require.NoError(t, Fill(s))
	rows, err := s.Licks(store.All)
	require.NoError(t, err)
	shelf := make([]store.Lick, len(rows))
	for i, row := range rows {
		shelf[i], err = s.Lick(row.ID)
		require.NoError(t, err)
	}
	return s, shelf
}

func TestTheShelfHoldsPlayableLicks(t *testing.T) {
	s, shelf := filled(t)
	assert.GreaterOrEqual(t, len(shelf), 40)
	covered := map[string]bool{}
	for _, l := range shelf {
		for _, tag := range l.Tags {
			covered[tag] = true
		}
		core := l.Phrase()
		require.NoError(t, core.Check(), l.Title)
		text, ok := lick.Text(core.Notes)
		require.True(t, ok, "%s: %s", l.Title, text)
		// Somewhere on the neck it can be played exactly as written.
		exact := false
		for low := 2; low <= 12 && !exact; low++ {
			notes, err := core.Realise(harmony.MustParse("C"+l.Chord), 0, lick.Ground{In: neck.Standard(), Region: neck.Region{Low: low, High: low + 4}, Hand: neck.UsualHand})
			exact = err == nil
			for i := range notes {
				exact = exact && notes[i].Join == core.Notes[i].Join
			}
		}
		assert.True(t, exact, "%s is joined as no hand can", l.Title)
		for _, root := range []string{"C", "F", "G", "Bb"} {
			_, err := core.Realise(harmony.MustParse(root+l.Chord), 0, lick.Ground{In: neck.Standard(), Region: neck.Region{Low: 3, High: 14}, Hand: neck.UsualHand})
			assert.NoError(t, err, "%s over %s", l.Title, root)
		}
	}
	for _, tag := range []string{"box", "blend", "arpeggio", "enclosure", "chromatic", "double-stop", "turnaround", "ending"} {
		assert.True(t, covered[tag], tag)
	}
	lines, err := s.Lines(store.All)
	require.NoError(t, err)
	assert.Len(t, lines, 4)
}

// Every lick through three charts in five positions, with and without landing on
// the changes: it can be played and kept, and every slide, hammer-on and pull-off
// is there or accounted for.
func TestEveryLickGoesThroughTheCharts(t *testing.T) {
	_, shelf := filled(t)
	in := neck.Standard()
	key := form.Key{Tonic: pitch.Name{Letter: 6, Alter: -1}}
	versions := 0
	for _, l := range shelf {
		core := l.Phrase()
		for _, id := range []string{"quick-change", "jazz-blues", "minor-blues"} {
			f, _ := form.FormByID(id)
			key := key
			key.Minor = f.Minor
			p := f.In(key)
			for _, pos := range in.Positions(key.Tonic.Class())[:5] {
				for _, land := range []bool{false, true} {
					where := fmt.Sprintf("%s over %s at %d, landing %t", l.Title, id, pos.Low, land)
					laid, err := core.Through(t.Context(), p, key, lick.Aim{Land: land, Ground: lick.Ground{In: in, Region: pos.Region, Hand: neck.UsualHand, Follow: true}})
					require.NoError(t, err, where)
					notes, said := laid.Notes, laid.Said
					line := score.Score{Progression: p, Key: key, In: in, Notes: notes}
					require.NoError(t, line.Check(), where)
					assert.Empty(t, line.Undoable(), where)
					if len(notes) == 0 {
						assert.NotEmpty(t, said, where)
					}
					for i, n := range notes {
						if n.Join != score.Picked {
							before, ok := line.Before(i)
							assert.True(t, ok && before.String == n.String, "%s: the %s to note %d", where, n.Join, i)
						}
					}
					versions++
				}
			}
		}
	}
	assert.GreaterOrEqual(t, versions, 40*3*5*2)
}

// The made-up player's weeks have something to say on every map.
func TestEightWeeks(t *testing.T) {
	s, _ := filled(t)
	require.NoError(t, Weeks(s, time.Date(2026, 6, 1, 12, 0, 0, 0, time.UTC)))
	kinds := map[string]int{}
	changes, landed := 0, 0.0
	for e, err := range s.Logged(store.LogAsk{Player: 1}) {
		require.NoError(t, err)
		require.False(t, e.Lost)
		kinds[e.Kind]++
		for _, x := range e.Trials {
			if x.From != "" {
				changes++
				landed += x.Success
			}
		}
	}
	assert.Greater(t, kinds[store.LoggedCall], 700)
	assert.Greater(t, kinds[store.LoggedTake], 60)
	assert.Greater(t, kinds[store.LoggedRung], 10)
	assert.InDelta(t, 0.7, landed/float64(changes), 0.25)
}

// The shelf as a player reads it: half of the licks begin off beat 1, a third breathe or
// are led into, there are calls with their answers, endings and turnarounds, no two tones
// at once lie closer than a third, and each is graded.
func TestTheShelfIsWhatPlayersPlay(t *testing.T) {
	_, shelf := filled(t)
	require.GreaterOrEqual(t, len(shelf), 60)
	off, airy := 0, 0
	tags, titles := map[string]int{}, map[string]bool{}
	for _, l := range shelf {
		assert.False(t, titles[l.Title], l.Title)
		titles[l.Title] = true
		core := l.Phrase()
		if core.Notes[0].Start != 0 {
			off++
		}
		if core.Notes[0].Start < 0 || core.Breathes() {
			airy++
		}
		for _, tag := range l.Tags {
			tags[tag]++
		}
		if slices.Contains(l.Tags, "call") {
			assert.GreaterOrEqual(t, l.Length, 7.0, "%s has its answer", l.Title)
			assert.True(t, core.Breathes(), l.Title)
		}
		for i, n := range core.Notes[1:] {
			before := core.Notes[i]
			if before.Start == n.Start {
				a, _ := before.Degree.Interval()
				b, _ := n.Degree.Interval()
				apart := b.HalfSteps + 12*n.Octave - a.HalfSteps - 12*before.Octave
				assert.GreaterOrEqual(t, apart, 3, "%s: %s and %s at once", l.Title, before.Degree, n.Degree)
			}
			if n.Join == score.PullOff || n.Join == score.Hammer {
				a, _ := before.Degree.Interval()
				b, _ := n.Degree.Interval()
				step := b.HalfSteps + 12*n.Octave - a.HalfSteps - 12*before.Octave
				assert.LessOrEqual(t, max(step, -step), 3, "%s: %s to %s", l.Title, before.Degree, n.Degree)
			}
		}
		assert.True(t, l.Level >= 1 && l.Level <= 10, "%s: level %v", l.Title, l.Level)
		assert.Contains(t, l.Hard, "strokes a second", l.Title)
		assert.NotEmpty(t, l.Begins, l.Title)
	}
	assert.GreaterOrEqual(t, off*2, len(shelf))
	assert.GreaterOrEqual(t, airy*3, len(shelf))
	for tag, least := range map[string]int{"call": 5, "ending": 7, "turnaround": 6, "bend": 6, "double-stop": 5} {
		assert.GreaterOrEqual(t, tags[tag], least, tag)
	}
}
