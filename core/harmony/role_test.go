package harmony

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/pitch"
)

func TestToneOfAChordByItsSound(t *testing.T) {
	for _, c := range []struct{ chord, note, degree string }{
		{"F7", "A", "3"}, {"F7", "Eb", "b7"}, {"F7", "D#", "b7"}, {"Bb7", "Ab", "b7"}, {"E7", "G#", "3"}, {"E7", "Ab", "3"},
		{"Cm7b5", "Gb", "b5"}, {"Adim7", "F#", "6"}, {"Adim7", "Gb", "6"}, {"C7#9", "Eb", "#9"}, {"G13", "E", "13"}, {"C6", "A", "6"},
		{"F7", "E", ""}, {"C7", "Eb", ""}, {"C5", "E", ""}, {"N.C.", "C", ""},
	} {
		n, err := pitch.ParseName(c.note)
		require.NoError(t, err)
		tone, ok := MustParse(c.chord).ToneAt(n.Class())
		assert.Equal(t, []any{c.degree, c.degree != ""}, []any{string(tone.Degree), ok}, "%s over %s", c.note, c.chord)
	}
}

func TestWhatKindOfChordItIs(t *testing.T) {
	for symbol, want := range map[string][3]bool{ // dominant, minor, diminished
		"C7": {true, false, false}, "C9": {true, false, false}, "C7alt": {true, false, false}, "C": {false, false, false}, "Cmaj7": {false, false, false},
		"Cm": {false, true, false}, "Cm7": {false, true, false}, "CmMaj7": {false, true, false}, "Cm7b5": {false, true, false},
		"Cdim": {false, true, true}, "Cdim7": {false, true, true}, "C7sus4": {false, false, false}, "C5": {false, false, false}, "N.C.": {false, false, false},
	} {
		c := MustParse(symbol)
		assert.Equal(t, want, [3]bool{c.Dominant(), c.Minor(), c.Diminished()}, symbol)
	}
	assert.Equal(t, []string{"7", "m7b5", ""}, []string{MustParse("Bb7/D").Suffix(), MustParse("F#ø").Suffix(), MustParse("E").Suffix()})
}

func TestRolesOfDegrees(t *testing.T) {
	for role, degrees := range map[Role][]Degree{
		Root: {"R"}, Third: {"b3", "3"}, Fifth: {"b5", "5", "#5"}, Seventh: {"6", "b7", "7"}, Extension: {"b9", "9", "#9", "11", "#11", "b13", "13"},
	} {
		for _, d := range degrees {
			assert.Equal(t, role, d.Role(), d)
			_, ok := d.Interval()
			assert.True(t, ok, "%s is a degree", d)
		}
	}
	// Every tone of every chord has a role, and no two tones that are no extensions share one.
	for suffix := range symbols {
		if suffix == "alt" || suffix == "7alt" { // two fifths
			continue
		}
		met := map[Role]Degree{}
		for _, tone := range MustParse("C" + suffix).Tones {
			r := tone.Degree.Role()
			if r != Extension {
				assert.Empty(t, met[r], "C%s", suffix)
				met[r] = tone.Degree
			}
		}
	}
}

func TestOrdersOfTargets(t *testing.T) {
	for text, want := range map[string]Order{
		"":                     UsualOrder,
		"root":                 {Root, Third, Seventh, Fifth, Extension},
		"seventh,third":        {Seventh, Third, Root, Fifth, Extension},
		"fifth fifth,root":     {Fifth, Root, Third, Seventh, Extension},
		"extension, root":      {Extension, Root, Third, Seventh, Fifth},
		"third,seventh,root,,": UsualOrder,
	} {
		got, err := ParseOrder(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, got, text)
		for i, r := range got {
			assert.Equal(t, i, got.Place(r))
		}
	}
	_, err := ParseOrder("third,ninth")
	assert.ErrorContains(t, err, `"ninth" is no target`)
	assert.ErrorContains(t, err, "root, third, fifth, seventh, extension")
}
