package lick

import (
	"slices"
	"testing"

	"pgregory.net/rapid"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/harmony"
	"undaris/core/score"
	"undaris/formats/scoretest"
)

// What a text can say is written as it is read: notes of all values one after
// the other, with rests, pickups, double stops, and played in every way.
func TestALickIsWrittenAsItIsRead(t *testing.T) {
	degrees := []harmony.Degree{"R", "b9", "9", "b3", "3", "11", "b5", "5", "b13", "6", "b7", "7"}
	rapid.Check(t, func(t *rapid.T) {
		var notes []Note
		now := -480 * rapid.IntRange(0, 4).Draw(t, "pickup")
		for range rapid.IntRange(1, 8).Draw(t, "notes") {
			length := rapid.SampledFrom(lengths).Draw(t, "value").ticks
			if rapid.Bool().Draw(t, "dotted") {
				length += length / 2
			}
			if now < 0 {
				length = 480 // the bar line stands between notes
			}
			if now+length > MaxTicks {
				break
			}
			if len(notes) > 0 && now > 0 && rapid.IntRange(0, 3).Draw(t, "rests") == 0 {
				now += 480
				continue
			}
			n := Note{Start: now, Length: length, Degree: rapid.SampledFrom(degrees).Draw(t, "degree"), Octave: rapid.IntRange(-2, 2).Draw(t, "octave"),
				String: rapid.IntRange(0, 6).Draw(t, "string"), Ornaments: scoretest.Ornaments(t)}
			notes = append(notes, n)
			now += length
		}
		text, ok := Text(notes)
		if sayable := !slices.ContainsFunc(notes, beyond); ok != sayable {
			t.Fatalf("%q: written %v, can be said %v", text, ok, sayable)
		} else if !ok {
			return
		}
		again, err := Parse(text)
		if err != nil || len(again) != len(notes) {
			t.Fatalf("%q: %v", text, err)
		}
		for i := range again {
			if again[i] != notes[i] {
				t.Fatalf("%q: note %d was %+v and is %+v", text, i, notes[i], again[i])
			}
		}
	})
}

// beyond tells that a note is played in a way that has no sign in the text.
func beyond(n Note) bool {
	for _, w := range score.Ways {
		signed := w.Lick.Mark != "" || w.ID == "join" || w.ID == "scoop" || w.ID == "bend" && (n.Bend == 1 || n.Bend%2 == 0)
		if w.Of(n.Ornaments) != 0 && !signed {
			return true
		}
	}
	return false
}

func TestWhatATextCanSay(t *testing.T) {
	for _, text := range []string{
		"R/q", "5,/e b7,/e | R/q. b3/e^q R/e b7,/e 5,/q~", "-/e R'/e b7/e 5/e 11/t b3/tp R/t b7,/q~",
		"R/e b3/es 3/e 5/s 6/sh 5/s b7/q", "3/e+5/e R/h", "11/e^2_ b3/ep R/q>", "R/e{1 5/e@3 b7/T -/s R/s.",
	} {
		notes, err := Parse(text)
		require.NoError(t, err, text)
		again, ok := Text(notes)
		require.True(t, ok, "%s became %s", text, again)
		back, err := Parse(again)
		require.NoError(t, err, again)
		assert.Equal(t, notes, back, text)
	}
	for _, notes := range [][]Note{
		{{Length: 100, Degree: "R"}},                                                                               // no such value
		{{Length: 960, Degree: "R"}, {Start: 480, Length: 480, Degree: "5"}},                                       // into each other
		{{Length: 960, Degree: "R", Ornaments: score.Ornaments{Bend: 3}}},                                          // three quarter tones
		{{Start: -480, Length: 960, Degree: "R"}, {Start: 480, Length: 480, Degree: "b3"}},                         // over the bar line
		{{Length: 960, Degree: "R"}, {Start: 0, Length: 480, Degree: "5"}, {Start: 960, Length: 480, Degree: "5"}}, // of two lengths
	} {
		text, ok := Text(notes)
		assert.False(t, ok, text)
	}
}
