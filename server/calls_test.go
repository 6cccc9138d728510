package server

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/store"
)

func TestCallsAreAskedWithinWhatIsWished(t *testing.T) {
	srv := serve(t)
	var calls []Call
	wish := CallWish{Chart: 6, Kinds: []string{"tones"}, Starts: []string{"fifth"}, Only: "up", Windows: []store.Frets{{Low: 7, High: 11}}, Strings: []string{"6,5,3,2"}, Seed: 3}
	require.Equal(t, 200, ask(t, srv, "POST", "/api/calls", wish, &calls).StatusCode)
	require.Len(t, calls, 12)
	for _, c := range calls {
		assert.Equal(t, "its tones upward, from the 5", c.Says)
		assert.Equal(t, "5", c.Notes[0].Degree)
		assert.Contains(t, []string{"C7", "F7", "G7"}, c.Chord)
		for _, n := range c.Notes {
			for _, p := range n.Places {
				assert.True(t, p.String != 1 && p.String != 4 && p.Fret >= 7 && p.Fret <= 11)
			}
		}
	}
	var again []Call
	ask(t, srv, "POST", "/api/calls", wish, &again)
	assert.Equal(t, calls, again)
	keys := map[string]bool{}
	ask(t, srv, "POST", "/api/calls", CallWish{Chart: 6, Kinds: []string{"tones"}, Keys: "all", Chords: []string{"F7"}, Ends: []string{"third"}, Devices: []string{"below"}, Paces: []string{"eighths"}, Tempo: 90, Count: 100}, &calls)
	require.Len(t, calls, 100)
	for _, c := range calls {
		keys[c.Key] = true
		assert.Equal(t, "IV7", c.Numeral, "the four chord of every key")
		assert.Equal(t, "3", c.Notes[len(c.Notes)-1].Degree)
		assert.Len(t, c.Notes, 5)
		assert.Contains(t, c.Says, "from a half step below, in even eighths at 90")
		assert.InDelta(t, 333.3, c.Gap, 0.1)
	}
	assert.Len(t, keys, 12)
	ask(t, srv, "POST", "/api/calls", CallWish{Chart: 6, Kinds: []string{"place", "bend"}, Count: 30}, &calls)
	require.Len(t, calls, 30)
	for _, c := range calls {
		require.NotNil(t, c.Given)
		assert.Contains(t, c.Options, c.Answer)
	}
	ask(t, srv, "POST", "/api/calls", CallWish{Chart: 6, Kinds: []string{"written", "every"}, Step: 1, Count: 30}, &calls)
	require.Len(t, calls, 30)
	for _, c := range calls {
		assert.True(t, c.Kind == "every" && c.Free && c.Sought && len(c.Notes) > 1 && c.Reads == nil && c.Degree == "R" ||
			c.Kind == "written" && !c.Free && len(c.Notes) == 1 && c.Reads != nil && !c.Reads.Bass && c.Reads.Signature == 0, "%+v", c)
	}
	ask(t, srv, "POST", "/api/calls", CallWish{Chart: 6, Step: 1, Count: 30}, &calls)
	for _, c := range calls {
		assert.Equal(t, []any{"every", "R"}, []any{c.Kind, c.Degree}, "the first step, where nothing is chosen")
		assert.Len(t, c.Sounds, len(c.Notes))
	}
	ask(t, srv, "POST", "/api/calls", CallWish{Chart: 6, Kinds: []string{"tones"}, Step: 1, Count: 30}, &calls)
	for _, c := range calls {
		assert.Equal(t, []any{"R", false, "its tones upward, from the R"}, []any{c.Degree, c.Down, c.Says}, "the first step")
	}
	for _, bad := range []CallWish{{Chart: 6, Windows: []store.Frets{{Low: 9, High: 3}}}, {Chart: 6, Strings: []string{"3-8"}},
		{Chart: 6, Kinds: []string{"tones"}, Strings: []string{"1"}}} {
		var no refusal
		assert.Equal(t, 422, ask(t, srv, "POST", "/api/calls", bad, &no).StatusCode)
		assert.NotEmpty(t, no.Detail)
	}
	assert.Equal(t, 404, ask(t, srv, "POST", "/api/calls", CallWish{Chart: 99}, nil).StatusCode)
}
