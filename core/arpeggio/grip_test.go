package arpeggio

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// In the position where the tonic takes the G shape, the four takes C and the five D;
// and so on round the five shapes, in every key.
func TestEveryChordHasItsShape(t *testing.T) {
	in := neck.Standard()
	want := map[string][2]string{"G": {"C", "D"}, "E": {"A", "C"}, "D": {"G", "A"}, "C": {"E", "G"}, "A": {"D", "E"}}
	for _, tonic := range pitch.Roots {
		one := harmony.MustParse(tonic.String() + "7")
		four, five := one.On(tonic.Up(pitch.Interval{Letters: 3, HalfSteps: 5})), one.On(tonic.Up(pitch.Interval{Letters: 4, HalfSteps: 7}))
		for _, p := range in.Positions(tonic.Class()) {
			if p.Nut { // slid up to the nut
				continue
			}
			what := fmt.Sprintf("%s, %s shape at %d", tonic, p.Shape, p.Low)
			assert.Equal(t, p.Shape, in.Shape(one.Root.Class(), p.Region), what)
			assert.Equal(t, want[p.Shape], [2]string{in.Shape(four.Root.Class(), p.Region), in.Shape(five.Root.Class(), p.Region)}, what)
		}
	}
	bass, err := neck.New("E1,A1,D2,G2", 20, 864, 0)
	require.NoError(t, err)
	assert.Empty(t, bass.Shape(0, neck.Region{Low: 5, High: 9}))
}

// Every chord of every form in every position of every key has a grip, and it is one: a
// tone a string, in the region, what tells the chord in it, held by the hand.
func TestEveryChordHasItsGrip(t *testing.T) {
	in := neck.Standard()
	all := 0
	known := map[string]bool{}
	for _, f := range form.Forms {
		for _, tonic := range pitch.Roots {
			key := form.Key{Tonic: tonic, Minor: f.Minor}
			chords, _ := form.Different(f.In(key).Places())
			for _, p := range in.Positions(tonic.Class()) {
				for _, c := range chords {
					what := fmt.Sprintf("%s in %s", c, p.Says())
					if c.None || p.Octave || known[what] {
						continue
					}
					known[what] = true
					all++
					g, ok := Hold(in, c, p.Region, neck.UsualHand)
					require.True(t, ok, what)
					var places []neck.Placement
					for i, n := range g.Notes {
						places = append(places, n.Placement)
						require.True(t, p.Has(n.Placement), what)
						_, is := c.ToneAt(in.MIDI(n.Placement) % 12)
						require.True(t, is, what)
						require.True(t, i == 0 || n.String < g.Notes[i-1].String, what)
						require.NotContains(t, g.Muted, n.String)
					}
					require.True(t, tells(c, g.Notes), what)
					_, can := in.Grip(places, nil, neck.UsualHand)
					require.True(t, can, what)
					require.Len(t, g.Muted, in.Strings()-len(g.Notes))
				}
			}
		}
	}
	assert.Greater(t, all, 700)
}

func frets(g Grip) string {
	text := ""
	for str := 6; str >= 1; str-- {
		i := slices.IndexFunc(g.Notes, func(n Note) bool { return n.String == str })
		if i < 0 {
			text += "x "
			continue
		}
		text += fmt.Sprint(g.Notes[i].Fret, " ")
	}
	return text
}

// Grips that every guitarist knows.
func TestKnownGrips(t *testing.T) {
	in := neck.Standard()
	for _, c := range []struct {
		chord string
		low   int
		want  string
	}{
		{"E7", 0, "0 2 0 1 0 0 "}, {"A7", 0, "x 0 2 0 2 0 "}, {"F7", 1, "1 3 1 2 1 1 "}, {"C7", 7, "8 10 8 9 8 8 "}, {"Am7", 5, "5 7 5 5 5 5 "}, {"D7", 4, "x 5 7 5 7 5 "}, {"F7", 4, "x 8 7 8 6 x "},
	} {
		g, ok := Hold(in, harmony.MustParse(c.chord), neck.Region{Low: c.low, High: c.low + 4}, neck.UsualHand)
		require.True(t, ok, c.chord)
		assert.Equal(t, c.want, frets(g), c.chord)
	}
}

// The same fingering serves other chords elsewhere.
func TestTheSameFingeringElsewhere(t *testing.T) {
	in := neck.Standard()
	make := func(chord string, low int) Run {
		return Make(in, harmony.MustParse(chord), neck.Region{Low: low, High: low + 4}, neck.UsualHand, nil)
	}
	c := make("C7", 7)
	assert.True(t, c.SameFingering(make("F7", 12)))
	assert.True(t, c.SameFingering(make("G7", 2)))
	assert.False(t, c.SameFingering(make("F7", 7)))
	assert.False(t, Run{}.SameFingering(Run{}))
}

// tells that a grip holds what tells its chord from others.
func tells(c harmony.Chord, notes []Note) bool {
	for _, t := range c.Tones {
		holds := slices.ContainsFunc(notes, func(n Note) bool { return n.Degree == t.Degree })
		if role := t.Degree.Role(); (role == harmony.Third || role == harmony.Seventh) && !holds {
			return false
		}
	}
	return true
}
