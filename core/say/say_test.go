package say_test

import (
	"errors"
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
)

func TestMusicIsPrintedInSentences(t *testing.T) {
	bFlat := pitch.Name{Letter: 6, Alter: -1}
	for want, got := range map[string]string{
		"the ♭7 of B♭7":                  say.F("the %s of %s", harmony.Degree("b7"), harmony.MustParse("Bb7")),
		"♯11 over Cm7♭5 and F♯°7/B♭":     say.F("%s over %s and %s", harmony.Degree("#11"), harmony.MustParse("Cm7b5"), harmony.MustParse("F#dim7/Bb")),
		"B♭ and G♯4 in B♭m":              say.F("%s and %v in %s", bFlat, pitch.Pitch{Name: pitch.Name{Letter: 4, Alter: 1}, Octave: 4}, form.Key{Tonic: bFlat, Minor: true}),
		"Twelve-bar, 3 beats and \"b7\"": say.F("Twelve-bar, %d beats and %q", 3, "b7"),
	} {
		assert.Equal(t, want, got)
	}
	cause := errors.New("no room")
	assert.ErrorIs(t, say.Errorf("over %s: %w", bFlat, cause), cause)
	assert.EqualError(t, say.Errorf("over %s: %w", bFlat, cause), "over B♭: no room")
}

func TestLists(t *testing.T) {
	for want, words := range map[string][]string{"": nil, "a": {"a"}, "a or b": {"a", "b"}, "a, b or c": {"a", "b", "c"}} {
		assert.Equal(t, want, say.List(words, "or"))
	}
}
