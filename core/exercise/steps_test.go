package exercise

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Over each chord that a step of the key gives stands its name, up and down.
func TestTheChordsOfTheKeyAreNamedOverThem(t *testing.T) {
	for _, tonic := range pitch.Roots {
		for _, minor := range []bool{false, true} {
			key := form.Key{Tonic: tonic, Minor: minor}
			for _, d := range Drills {
				if d.names == 0 {
					continue
				}
				x := task(d.ID)
				x.Key = key
				p, err := form.Read("| "+key.String()+" | % | % | % |", 4, key)
				require.NoError(t, err)
				notes, _, err := Over(t.Context(), p, x)
				require.NoError(t, err, "%s in %s", d.ID, key)
				named := 0
				for i, n := range notes {
					if n.Named == "" || i+d.names > len(notes) {
						continue
					}
					named++
					chord := harmony.MustParse(n.Named)
					for _, m := range notes[i : i+d.names] {
						_, tone := chord.ToneAt(pitch.Class(m.Pitch.MIDI()))
						require.True(t, tone, "%s in %s: %s is no tone of %s", d.ID, key, m.Pitch, n.Named)
					}
				}
				assert.GreaterOrEqual(t, named, len(notes)/d.names-2, "%s in %s", d.ID, key)
			}
		}
	}
}

func TestTriadsOfChosenSteps(t *testing.T) {
	x := task("key-triads-145")
	x.Key, x.Cell = form.Key{}, []int{2, 5}
	seen := map[string]bool{}
	for _, n := range over(t, "| C7 | % |", x) {
		if n.Named != "" {
			seen[n.Named] = true
		}
	}
	assert.Equal(t, map[string]bool{"Dm": true, "G": true}, seen)
}

// The bend drills: each goal is fretted first and then bent to, by what the name says, on a plain string, by a finger that
// can; so over every kind of chord in every position where it is played, on guitars in several tunings.
func TestBendDrillsBendAsTheySay(t *testing.T) {
	for id, quarters := range map[string]int{"match-whole": 4, "match-half": 2} {
		played, bends, little := 0, 0, 0
		for _, tuning := range []string{"E2,A2,D3,G3,B3,E4", "D2,A2,D3,G3,A3,D4", "B1,E2,A2,D3,G3,B3,E4"} {
			in, err := neck.New(tuning, 22, 648, 0)
			require.NoError(t, err)
			for _, quality := range []string{"7", "m7", "maj7", "m7b5", "9"} {
				for _, tonic := range pitch.Roots {
					chord := harmony.MustParse(tonic.String() + quality)
					p, err := form.Read("| "+chord.String()+" | % |", 4, form.Key{Tonic: tonic})
					require.NoError(t, err)
					for _, position := range in.Positions(tonic.Class()) {
						x := task(id)
						x.In, x.Region = in, position.Region
						notes, _, err := Over(t.Context(), p, x)
						if err != nil {
							continue
						}
						played++
						for i, n := range notes {
							if i%2 == 0 {
								require.Zero(t, n.Bend)
								continue
							}
							require.Equal(t, quarters, n.Bend, "%s over %s in %v", id, chord, position.Region)
							require.Equal(t, notes[i-1].Pitch.MIDI(), n.Heard(), "what was fretted is what is bent to")
							require.True(t, in.Plain(n.String), "string %d", n.String)
							require.Contains(t, map[int][]int{4: {2, 3}, 2: {1, 2, 3, 4}}[quarters], n.Finger)
							bends++
							if n.Finger == 4 {
								little++
							}
						}
					}
				}
			}
		}
		assert.Greater(t, played, 600, id)
		assert.LessOrEqual(t, 20*little, bends, "%s: the little finger bends %d of %d", id, little, bends)
	}
	_, _, err := Over(t.Context(), form.Progression{}, task("match-whole"))
	assert.Error(t, err)
}
