package pitch

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestPitchNumbers(t *testing.T) {
	for text, want := range map[string]int{
		"E2": 40, "A4": 69, "C4": 60, "B♭3": 58, "Cb4": 59, "B#3": 60, "F##4": 67, "C-1": 0,
	} {
		p, err := ParsePitch(text)
		require.NoError(t, err)
		assert.Equal(t, want, p.MIDI(), text)
	}
	a4, _ := ParsePitch("A4")
	assert.InDelta(t, 440, a4.Frequency(), 1e-9)
	e2, _ := ParsePitch("E2")
	assert.InDelta(t, 82.4069, e2.Frequency(), 1e-4)
	for _, bad := range []string{"", "H2", "e2", "E", "E2x", "Eb", "E99"} {
		_, err := ParsePitch(bad)
		assert.ErrorContains(t, err, "E2", bad)
	}
}

func TestIntervalsKeepTheirLetters(t *testing.T) {
	majorThird := Interval{2, 4}
	for root, third := range map[string]string{"C": "E", "B": "D#", "Db": "F", "D#": "F##", "Ab": "C", "Gb": "Bb"} {
		n, err := ParseName(root)
		require.NoError(t, err)
		assert.Equal(t, third, n.Up(majorThird).String(), root)
	}
}

func TestSimplerNames(t *testing.T) {
	for hard, easy := range map[string]string{
		"Cb": "B", "E#": "F", "Bbb": "A", "F##": "G", "B#": "C", "Fb": "E", "Bb": "Bb", "F#": "F#", "D": "D", "E##": "F#", "Fbb": "Eb",
	} {
		n, err := ParseName(hard)
		require.NoError(t, err)
		assert.Equal(t, easy, n.Simpler().String(), hard)
		assert.Equal(t, n.Class(), n.Simpler().Class(), hard)
	}
}

func TestIntervalsRoundTrip(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a := rapid.SampledFrom(Roots).Draw(t, "a")
		b := rapid.SampledFrom(Roots).Draw(t, "b")
		assert.Equal(t, b, a.Up(a.To(b)))
		p := Pitch{a, rapid.IntRange(0, 8).Draw(t, "octave")}
		i := a.To(b)
		assert.Equal(t, p.MIDI()+i.HalfSteps, p.Up(i).MIDI())
		assert.Equal(t, p, At(p.MIDI(), p.Name))
		back, err := ParsePitch(p.String())
		assert.NoError(t, err)
		assert.Equal(t, p, back)
	})
}
