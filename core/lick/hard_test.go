package lick

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/score"
)

func TestWhatMakesALickHard(t *testing.T) {
	level := func(text string) Hardness {
		notes, err := Parse(text)
		require.NoError(t, err)
		h, ok := Lick{Chord: "7", Notes: notes}.Hardness()
		require.True(t, ok, text)
		return h
	}
	easy := level("R/q 3/q 5/q R'/q")
	assert.Equal(t, 1.6, easy.Rate)
	assert.Less(t, easy.Level, 3.5)
	assert.Contains(t, easy.Says, "1.6 strokes a second at 96")
	for harder, text := range map[string]string{
		"faster":           "R/s 3/s 5/s R'/s",
		"bent":             "R/q 9/q^2 5/q R'/q",
		"strings skipped":  "R/q 3'/q R/q 3'/q",
		"over two octaves": "R,/q R'/q R,/q R'/q",
	} {
		assert.Greater(t, level(text).Level, easy.Level, harder)
	}
	// Strokes are counted: what sounds together is one, what is hammered on, pulled off or slid to is none.
	assert.Equal(t, 1.6, level("R+3/q 5/q R+3/q 5/q").Rate)
	assert.Equal(t, 1.6, level("R/e 9/eh R/e 9/eh").Rate)
	assert.Equal(t, 1.6, level("b3/e 3/es b3/e 3/es").Rate)
	assert.Equal(t, 3.2, level("R/e 9/e R/e 9/e").Rate)
	// What lies under one barre or grip is no shift.
	assert.Zero(t, level("5+R'/e 5+R'/e b7+b3'/q 5+R'/q").Shifts)
	_, ok := Lick{Chord: "7"}.Hardness()
	assert.False(t, ok)
	far := Lick{Chord: "7", Notes: []Note{{Length: 960, Degree: "R"}, {Start: 960, Length: 960, Degree: "R", Octave: 4}}}
	_, ok = far.Hardness()
	assert.False(t, ok, "no guitar has five octaves")
}

func TestWhereALickBegins(t *testing.T) {
	for text, want := range map[string]string{
		"R/q": "1", "-/e R/q": "and of 1", "-/q R/q": "2", "-/q. R/e": "and of 2", "-/t R/t": "after 1",
		"5,/e 7,/e | R/q": "pickup on 4", "7,/e | R/q": "pickup, and of 4", "-/w R/q": "1",
	} {
		notes, err := Parse(text)
		require.NoError(t, err)
		assert.Equal(t, want, Lick{Notes: notes}.Begins(), text)
	}
	assert.Empty(t, Lick{}.Begins())
	rest, err := Parse("R/q -/q R/q")
	require.NoError(t, err)
	assert.True(t, Lick{Notes: rest}.Breathes())
	assert.False(t, Lick{Notes: rest[:1]}.Breathes())
	assert.False(t, Lick{Notes: []Note{{Length: 2 * score.Tick}, {Start: score.Tick, Length: score.Tick}}}.Breathes())
}
