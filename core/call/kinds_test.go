package call

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Every kind is whole: it is drawn, says what it asks, is read out, can be answered, and knows what it is about.
func TestEveryKindIsWhole(t *testing.T) {
	in := neck.Standard()
	key := form.Key{Tonic: pitch.Roots[0]}
	var windows []neck.Region
	for _, p := range in.Positions(key.Tonic.Class()) {
		windows = append(windows, p.Region)
	}
	grounds := []Ground{{Key: key, Chords: []harmony.Chord{harmony.MustParse("C7"), harmony.MustParse("F7"), harmony.MustParse("G7")}, Windows: windows}}
	says := map[string]string{}
	for _, k := range Kinds {
		require.NotEmpty(t, k.ID)
		assert.NotEmpty(t, k.Name, k.ID)
		assert.NotEmpty(t, k.About, k.ID)
		calls, err := Draw(t.Context(), Wish{In: in, Hand: neck.UsualHand, Grounds: grounds, Kinds: []string{k.ID}, Paces: []string{"quarters"}, Tempo: 96, Seed: 5}, 30)
		require.NoError(t, err, k.ID)
		for _, c := range calls {
			assert.Equal(t, k.ID, c.Kind)
			assert.NotEmpty(t, c.Says(), k.ID)
			assert.True(t, strings.HasPrefix(c.Spoken(), "your ") || strings.HasPrefix(c.Spoken(), "this chord"), c.Spoken())
			assert.Greater(t, len(c.Spoken()), len("your seven chord."), k.ID)
			assert.NotEmpty(t, c.Degree(), k.ID)
			assert.Equal(t, k.Paced, c.Pace != "", k.ID)
			assert.Equal(t, k.Sought, len(c.Options) == 0, k.ID)
			// What sounds is what was asked for.
			sounds := c.Sounds(in)
			require.Len(t, sounds, max(1, len(c.Notes)), k.ID)
			if len(c.Notes) == 0 {
				up, ok := c.Degree().Interval()
				require.True(t, ok, c.Says())
				assert.Equal(t, up.HalfSteps%12, (sounds[0]+120-c.Chord.Root.Class())%12, "%s: %s", c.Says(), c.Degree())
				assert.Contains(t, c.Options, c.Answer, k.ID)
			}
			for _, n := range c.Notes {
				assert.True(t, k.Sought || slices.Contains(c.Options, string(n.Tone.Degree)), k.ID)
			}
			require.Len(t, c.Answers(), len(c.Options), k.ID)
			keys := map[string]bool{}
			for i, a := range c.Answers() {
				assert.Equal(t, c.Options[i], a.Is, k.ID)
				assert.LessOrEqual(t, len(a.Key), 1, k.ID)
				assert.False(t, a.Key != "" && keys[a.Key], "%s: two answers by %s", k.ID, a.Key)
				keys[a.Key] = true
				assert.NotEmpty(t, a.Key, "%s: %s has a key", k.ID, a.Is)
			}
			// No two kinds say the same.
			if other, told := says[c.Says()]; told {
				assert.Equal(t, k.ID, other, c.Says())
			}
			says[c.Says()] = k.ID
		}
	}
	_, err := Draw(t.Context(), Wish{In: in, Grounds: grounds, Kinds: []string{"riddle"}}, 1)
	assert.Error(t, err, "a kind that there is not")
}

// The keys of a chord's degrees are their figures; all twelve go by half steps, a bend by its amount.
func TestTheKeysOfAnswers(t *testing.T) {
	keys := func(kind string, options ...string) (all string) {
		for _, a := range (Call{Kind: kind, Options: options}).Answers() {
			all += a.Is + a.Name + ":" + a.Key + " "
		}
		return all
	}
	assert.Equal(t, "R:1 3:3 5:5 b7:7 ", keys(Tones, "R", "3", "5", "b7"))
	assert.Equal(t, "R:1 3:3 5:5 b7:7 9:2 13:6 ", keys(Tones, "R", "3", "5", "b7", "9", "13"))
	assert.Equal(t, "R:1 b3:3 11:4 #5:5 5: ", keys(Material, "R", "b3", "11", "#5", "5"), "one key gives one answer")
	assert.Equal(t, "R:1 b9:2 9:3 #9:4 3:5 11:6 #11:7 5:8 b13:9 13:0 b7:- 7:= ", keys(Place, "R", "b9", "9", "#9", "3", "11", "#11", "5", "b13", "13", "b7", "7"))
	assert.Equal(t, "0not at all:0 1a half step:1 2a whole step:2 3one and a half steps:3 ", keys(Bend, "0", "1", "2", "3"))
}
