package band

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// ways are the ways to voice, each with a groove that has it.
var ways = map[voicings]string{shells: "shuffle", colours: "jazz", powers: "straight"}

func voicer(t *testing.T, comper Comper, v voicings, key *form.Key) *session {
	g, err := GrooveOf(ways[v])
	require.NoError(t, err)
	require.Equal(t, v, g.voicings)
	return &session{comper: comper, g: g, o: Options{Key: key}}
}

// Over every kind of chord on every root, in every way: what is comped has the chord's third
// and seventh (an 11 chord its 11 in place of the third), nothing foreign to the chord but
// a 9th or 13th of the key, and on a guitar it is held by a hand. Chords that differ are
// voiced differently.
func TestVoicingsTellTheirChords(t *testing.T) {
	kinds := []string{"7", "9", "11", "13", "m7", "m9", "m6", "6", "maj7", "maj9", "m7b5", "dim7", "dim", "7#9", "7b9", "7sus4", "9sus4", "aug", "", "m", "mMaj7"}
	for way := range ways {
		for _, comper := range Compers {
			for _, root := range pitch.Roots {
				key := &form.Key{Tonic: root}
				for _, kind := range kinds {
					c := harmony.MustParse(root.String() + kind)
					classes := classesOf(voicer(t, comper, way, key).voice(c, false, 0))
					require.GreaterOrEqual(t, len(classes), 2, c)
					for _, class := range classes {
						tone, in := c.ToneAt(class)
						added := way == colours && slices.Contains(colour(c, key, form.Progression{}), class)
						require.True(t, in || added, "%s with %d", c, class)
						if c.HasDegree("11") && c.HasDegree("3") {
							require.NotEqual(t, harmony.Degree("3"), tone.Degree, c)
						}
					}
					telling := []harmony.Degree{"b3", "3", "6", "b7", "7"}
					if kind == "11" {
						telling = []harmony.Degree{"11", "b7"}
					}
					for _, tone := range c.Tones {
						if slices.Contains(telling, tone.Degree) {
							assert.Contains(t, classes, tone.Name.Class(), "%s without its %s", c, tone.Degree)
						}
					}
				}
				seven := harmony.MustParse(root.String() + "7")
				four := slices.Sorted(slices.Values(classesOf(voicer(t, comper, way, key).voice(seven, false, 0))))
				up := harmony.MustParse(root.Up(pitch.Interval{Letters: 0, HalfSteps: 1}).Simpler().String() + "dim7")
				assert.NotEqual(t, four, slices.Sorted(slices.Values(classesOf(voicer(t, comper, way, key).voice(up, false, 0)))), "%s and %s", seven, up)
			}
		}
	}
}

// Known voicings, first of a piece on a guitar.
func TestKnownVoicings(t *testing.T) {
	a := &form.Key{Tonic: pitch.Name{Letter: 5}}
	for _, c := range []struct {
		way   voicings
		chord string
		soft  bool
		want  []int
	}{
		{powers, "A7", true, []int{45, 52}},          // A E
		{powers, "A7", false, []int{45, 52, 55, 61}}, // A E G C#
		{powers, "A", false, []int{45, 52, 61}},      // an open triad: A E C#
		{powers, "A9", false, []int{45, 49, 55, 59}}, // A C# G B
		{powers, "A5", false, []int{45, 52, 57}},     // A E A
		{shells, "A7", false, []int{55, 61, 64}},     // G C# E
	} {
		v := voicer(t, Compers[0], c.way, a).voice(harmony.MustParse(c.chord), c.soft, 0)
		assert.Equal(t, c.want, v, "%s", c.chord)
	}
	for chord, want := range map[string][]int{"A7": {11, 6}, "D7": {4, 11}, "E7": {6, 1}, "F#7": {8}, "Am7": {11}, "Ebdim7": nil, "A": nil, "Bm7b5": {1}} {
		assert.ElementsMatch(t, want, colour(harmony.MustParse(chord), a, form.Progression{}), chord)
	}
	minor := &form.Key{Tonic: a.Tonic, Minor: true}
	assert.Empty(t, colour(harmony.MustParse("E7"), minor, form.Progression{}), "neither F# nor C# is of A minor")
	assert.Empty(t, colour(harmony.MustParse("A7"), nil, form.Progression{}))
}

// No two chords of one progression that differ are voiced alike.
func TestChordsOfAProgressionDiffer(t *testing.T) {
	texts := map[string]string{}
	for _, f := range form.Forms {
		texts[f.ID] = f.Text
	}
	for _, u := range form.Turnarounds {
		texts[u.ID] = u.Text
	}
	for way := range ways {
		for id, text := range texts {
			for _, tonic := range pitch.Roots {
				p, err := form.Read(text, 4, form.Key{Tonic: tonic})
				require.NoError(t, err, id)
				chords, _ := form.Different(p.Places())
				for _, comper := range Compers {
					heard := map[string]string{}
					for _, c := range chords {
						if c.None || c.Slash() {
							continue
						}
						s := voicer(t, comper, way, &form.Key{Tonic: tonic})
						s.p = p
						voiced := fmt.Sprint(slices.Sorted(slices.Values(classesOf(s.voice(c, false, 0)))))
						require.Empty(t, heard[voiced], "%s and %s in %s", c, heard[voiced], id)
						heard[voiced] = c.String()
					}
				}
			}
		}
	}
}

func classesOf(voicing []int) (out []int) {
	for _, midi := range voicing {
		out = append(out, midi%12)
	}
	return out
}
