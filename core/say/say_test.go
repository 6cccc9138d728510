package say_test

import (
	"errors"
	"fmt"
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

func TestRefusals(t *testing.T) {
	cause := errors.New("it is full")
	err := say.Errorf("no room for %q: %w", "x", cause)
	assert.EqualError(t, err, `no room for "x": it is full`)
	assert.ErrorIs(t, err, cause)
	assert.True(t, say.Refuses(err))
	assert.True(t, say.Refuses(fmt.Errorf("bar 3: %w", err)), "also inside of another")
	assert.False(t, say.Refuses(cause))
	assert.False(t, say.Refuses(nil))
}
