package form

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/harmony"
)

func TestKeySignatures(t *testing.T) {
	for text, want := range map[string]int{
		"C": 0, "G": 1, "D": 2, "A": 3, "E": 4, "B": 5, "F#": 6, "C#": 7, "F": -1, "Bb": -2, "Eb": -3, "Ab": -4, "Db": -5, "Gb": -6,
		"Am": 0, "Em": 1, "Bm": 2, "F#m": 3, "C#m": 4, "G#m": 5, "D#m": 6, "A#m": 7, "Dm": -1, "Gm": -2, "Cm": -3, "Fm": -4, "Bbm": -5, "Ebm": -6, "Abm": -7,
		"D#": -3, "G#": -4, "A#": -2, "Dbm": 4, "Gbm": 3, // these take the signature of their other name
	} {
		k := mustKey(t, text)
		assert.Equal(t, want, k.Signature(), text)
		if back, ok := KeyOf(want, k.Minor); assert.True(t, ok, text) {
			assert.Equal(t, k.Tonic.Class(), back.Tonic.Class(), text)
			assert.Equal(t, want, back.Signature(), text)
		}
	}
	for _, n := range []int{-8, 8} {
		_, ok := KeyOf(n, false)
		assert.False(t, ok, "no key has %d accidentals", n)
	}
}

// Where no chord says otherwise a blues spells its blue notes flat, and the way
// up to the fifth as a flat fifth.
func TestSpellingInAKey(t *testing.T) {
	for key, want := range map[string]string{
		"C":  "C Db D Eb E F Gb G Ab A Bb B",
		"A":  "A Bb B C C# D Eb E F F# G G#",
		"Eb": "Eb Fb F Gb G Ab A Bb Cb C Db D",
		"F#": "F# G G# A A# B C C# D D# E E#",
		"Bm": "B C C# D D# E F F# G G# A A#",
	} {
		k := mustKey(t, key)
		got := ""
		for i := range 12 {
			if i > 0 {
				got += " "
			}
			got += k.Spell((k.Tonic.Class() + i) % 12).String()
		}
		assert.Equal(t, want, got, key)
	}
	for _, k := range keys() {
		for class := range 12 {
			n := k.Spell(class)
			assert.Equal(t, class, n.Class(), "%s", k)
			assert.LessOrEqual(t, max(n.Alter, -n.Alter), 1, "%s: %s", k, n)
		}
	}
}

func TestFeelsAreFound(t *testing.T) {
	for _, f := range Feels {
		got, ok := FeelByID(f.ID)
		assert.True(t, ok)
		assert.Equal(t, f, got)
	}
	_, ok := FeelByID("polka")
	assert.False(t, ok)
}

func TestNumeralsOfSlashChords(t *testing.T) {
	c := mustKey(t, "C")
	for chord, want := range map[string]string{"C7/E": "I7/3", "C7/Bb": "I7/b7", "F/G": "IV/2", "Am7/D": "vi7/4", "F7/Gb": "IV7/b2", "G7/D": "V7/5", "C/Ab": "I/b6"} {
		numeral := Numeral(harmony.MustParse(chord), c)
		assert.Equal(t, want, numeral, chord)
		back, err := ReadNumeral(numeral, c)
		require.NoError(t, err, chord)
		assert.Equal(t, chord, back.String())
	}
}
