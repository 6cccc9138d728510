package approach_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/approach"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// Above and below, each by the scale or by a half step, alone and both in either order: none is missing, none there twice.
func TestTheTableIsWhole(t *testing.T) {
	sides := []approach.Step{{By: -1}, {By: 1}, {By: -1, Scale: true}, {By: 1, Scale: true}}
	names := map[string]bool{}
	has := func(steps ...approach.Step) (count int) {
		for _, w := range approach.Ways {
			if assert.ObjectsAreEqual(w.Steps, steps) {
				count++
			}
		}
		return count
	}
	for _, a := range sides {
		assert.Equal(t, 1, has(a), "%v", a)
		for _, b := range sides {
			if a.By != b.By {
				assert.Equal(t, 1, has(a, b), "%v %v", a, b)
			}
		}
	}
	assert.Len(t, approach.Ways, 4+8+2)
	for _, w := range approach.Ways {
		assert.NotContains(t, names, w.Name())
		names[w.Name()] = true
		found, ok := approach.ByID(w.ID)
		assert.True(t, ok)
		assert.Equal(t, w, found)
	}
	_, ok := approach.ByID("lift")
	assert.False(t, ok)
}

// Over every kind of chord on every root: what leads to a tone lies where its name says, by the chord's own scale where it
// says so, and what comes from both sides is known again.
func TestNotesLieBesideTheirTone(t *testing.T) {
	cases := 0
	for _, quality := range []string{"", "m", "7", "9", "11", "13", "7b9", "7#9", "7alt", "7sus4", "maj7", "6", "69", "m7", "m9", "m6", "mMaj7", "m7b5", "dim7", "aug", "5"} {
		for _, root := range pitch.Roots {
			c, err := harmony.Parse(root.String() + quality)
			require.NoError(t, err)
			for _, tone := range c.Tones {
				midi := 60 + tone.Name.Class()
				for _, w := range approach.Ways {
					notes := w.To(midi, c)
					require.Len(t, notes, len(w.Steps))
					for k, step := range w.Steps {
						require.Equal(t, step.By > 0, notes[k] > midi, "%s into %s of %s", w.ID, tone.Degree, c)
						if !step.Scale {
							require.Equal(t, midi+step.By, notes[k])
							continue
						}
						inScale := map[int]bool{}
						for _, s := range c.Scale() {
							inScale[s.Name.Class()] = true
						}
						require.True(t, inScale[notes[k]%12])
						for between := midi + step.By; between != notes[k]; between += step.By {
							require.False(t, inScale[between%12], "%s into %s of %s: the next note of the scale", w.ID, tone.Degree, c)
						}
					}
					if w.Encloses() {
						require.True(t, approach.Enclose(notes[0], notes[1], midi, c), "%s into %s of %s", w.ID, tone.Degree, c)
					}
					cases++
				}
				require.False(t, approach.Enclose(midi+1, midi+2, midi, c))
				require.False(t, approach.Enclose(midi-5, midi+1, midi, c))
			}
		}
	}
	assert.Greater(t, cases, 10_000)
}
