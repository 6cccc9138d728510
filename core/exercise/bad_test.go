package exercise

import (
	"fmt"
	"os"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/score"
)

// What is asked for on bad ground is fitted, or refused with what would fit: every exercise, with each of its choices, on a neck too
// short, without a string, in two frets, over chords of two notes and at a beat a chord. Whatever is played can be written down and
// fits into its time.
func TestBadGroundIsFittedOrRefused(t *testing.T) {
	t.Parallel()
	refusal := regexp.MustCompile(`is not played over .*Choose it over|nothing of it lies in .*take more strings, or five frets or more|no hand can play it as asked here; take another position|take an instrument with|a line holds \d+|no time is left over .*begin it sooner`)
	necks := []struct {
		open   string
		frets  int
		region neck.Region
	}{
		{"E2,A2,D3,G3,B3,E4", 5, neck.Region{Low: 1, High: 5}},                              // a neck too short
		{"E2,A2,D3,G3,B3", 22, neck.Region{Low: 5, High: 9}},                                // a string missing
		{"E2,A2,D3,G3,B3,E4", 22, neck.Region{Low: 7, High: 8}},                             // two frets
		{"E1,A1,D2,G2", 20, neck.Region{Low: 3, High: 6}},                                   // a bass
		{"E2,A2,D3,G3,B3,E4", 22, neck.Region{Low: 12, High: 12}},                           // a fret
		{"B1,E2,A2,D3,G3,B3,E4", 24, neck.Region{Low: 0, High: 24}},                         // everything
		{"E2,A2,D3,G3,B3,E4", 22, neck.Region{Low: 5, High: 9, Strings: neck.StringsOf(1)}}, // one string of six
	}
	charts := []string{"| C5 | F5 |", "| C7 F7 G7 C7 | F7 C7 G7 C7 |", "| C7 | N.C. | F7 |", "| Cdim7 | F7alt |", "| C7 |"}
	played, refused, n := 0, 0, 0
	for _, d := range Drills {
		var asks []func(*Task)
		asks = append(asks, func(*Task) {})
		for _, c := range Choices {
			for _, change := range c.changes {
				asks = append(asks, func(x *Task) {
					if c.given != nil {
						c.given(x)
					}
					change(x)
				})
			}
		}
		asks = append(asks, func(x *Task) {
			x.Land, x.Beat, x.Approach, x.Burst = []harmony.Role{harmony.Seventh}, 12, "enclosure", 3
		})
		for _, where := range necks {
			in, err := neck.New(where.open, where.frets, 648, 0)
			if err != nil {
				where.frets = 12 // as short as a neck may be
				in, err = neck.New(where.open, where.frets, 648, 0)
			}
			require.NoError(t, err)
			for _, text := range charts {
				p, err := form.Read(text, 4, form.Key{})
				require.NoError(t, err)
				for k, ask := range asks {
					if n++; (n+k)%7 > 0 && os.Getenv("EVERY") == "" {
						continue // a seventh of them in turn; all in make thorough
					}
					x := Task{In: in, Hand: neck.UsualHand, Region: where.region, Drill: d.ID, Pace: Paces[n%len(Paces)].ID}
					ask(&x)
					what := fmt.Sprintf("%s over %s on %s in %s, choice %d", d.ID, text, where.open, where.region.Says(), k)
					ground := Ground(p, d.ID)
					notes, _, err := Over(t.Context(), ground, x)
					if err != nil {
						require.Regexp(t, refusal, err.Error(), what)
						refused++
						continue
					}
					played++
					require.NotEmpty(t, notes, what)
					s := score.Score{Progression: ground, In: in, Notes: notes}
					require.NoError(t, s.Check(), what)
					require.LessOrEqual(t, notes[len(notes)-1].End(), s.End(), what)
					for i, note := range notes {
						require.NoError(t, in.CheckPlacement(note.Placement), what)
						require.Equal(t, note.Pitch.MIDI(), in.MIDI(note.Placement), what)
						require.True(t, x.Region.Strings.Has(note.String), what)
						if i > 0 && notes[i-1].Start < note.Start {
							require.LessOrEqual(t, notes[i-1].End(), note.Start, what)
						}
						chord, sounds := s.ChordAt(note.Start)
						require.True(t, sounds && !chord.None, "%s: in silence", what)
					}
				}
			}
		}
	}
	t.Log(played, "played,", refused, "refused")
	assert.Greater(t, played, 3000)
	assert.Greater(t, refused, 1000)
}
