package lick

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/score"
)

// What was played over a chord is explained by it: told by its tones and where it lands, on every root.
func TestALickIsExplainedByItsChord(t *testing.T) {
	for _, c := range []struct{ text, kind string }{
		{"R/e 3/e 5/e b7/e R'/h", "7"},
		{"5/e b7/e R'/e 3'/e R'/q 3'/q", "7"},
		{"R/e b3/e 5/e b7/e R'/h", "m7"},
		{"b3/e 5/e b7/e R'/e b3'/h", "m7"},
		{"R/e 3/e 5/e 7/e 3'/h", "maj7"},
		{"R/e b3/e b5/e b7/e R'/h", "m7b5"},
	} {
		notes, err := Parse(c.text)
		require.NoError(t, err, c.text)
		for _, root := range []string{"C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"} {
			chord := harmony.MustParse(root + c.kind)
			played, err := Lick{Chord: c.kind, Notes: notes}.Realise(chord, 0, Ground{In: neck.Standard(), Region: neck.Region{Low: 0, High: 15}, Hand: neck.UsualHand})
			require.NoError(t, err)
			got := Explain(played, 3)
			require.Len(t, got, 3)
			at := slices.IndexFunc(got, func(e Explanation) bool { return e.Chord.Printed() == chord.Printed() })
			if c.kind == "m7b5" { // it is the ninth chord a third below too, without its root
				require.GreaterOrEqual(t, at, 0, chord)
			} else {
				require.Zero(t, at, "%s over %s: %s %s", c.text, chord, got[0].Chord, got[0].Why)
			}
			assert.Contains(t, got[at].Why, "lands on")
			assert.NotContains(t, got[at].Why, "rubs")
			seen := map[int]bool{}
			for _, e := range got {
				assert.False(t, seen[e.Chord.Root.Class()], "each on a root of its own")
				seen[e.Chord.Root.Class()] = true
			}
		}
	}
}

// The reasons are true: what is said to be landed on is the last note's degree, what rubs is no tone of the chord.
func TestTheReasonsOfAChordAreTrue(t *testing.T) {
	notes, err := Parse("R/e b3/e 3/e 5/e b7/e 7/e 5/q")
	require.NoError(t, err)
	played, err := Lick{Chord: "7", Notes: notes}.Realise(harmony.MustParse("A7"), 0, Ground{In: neck.Standard(), Region: neck.Region{Low: 0, High: 15}, Hand: neck.UsualHand})
	require.NoError(t, err)
	for _, e := range Explain(played, 12) {
		last := played[len(played)-1]
		tone, is := e.Chord.ToneAt(last.Heard() % 12)
		if is {
			assert.Equal(t, tone.Degree, e.Lands)
		}
		if _, rubs, ok := strings.Cut(e.Why, "rubs on "); ok {
			for _, d := range strings.Fields(rubs) {
				for _, tone := range e.Chord.Tones {
					assert.NotEqual(t, d, tone.Degree.Printed(), "%s over %s", e.Why, e.Chord)
				}
			}
		}
	}
	assert.Empty(t, Explain(nil, 3))
	assert.Empty(t, Explain([]score.Note{{Ornaments: score.Ornaments{Dead: true}}}, 3))
}
