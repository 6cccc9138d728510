package server

import (
	"fmt"
	"math/rand/v2"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/harmony"
	"undaris/core/planner"
)

// What a plan has come in turn is asked so: each as often as the others, none twice in a row, in its key and place, from its degree, its
// way, over its kind of chord, and nothing else.
func TestCallsComeInTurn(t *testing.T) {
	s, _ := practised(t)
	srv := serving(t, s)
	everything := planner.Everything()
	for seed := range uint64(30) {
		rng := rand.New(rand.NewPCG(seed, 3))
		var asks []planner.Ask
		for range 2 + rng.IntN(8) {
			a := everything[rng.IntN(len(everything))]
			a.Quality = []string{"7", "m7", "maj7", "m7b5"}[rng.IntN(4)]
			asks = append(asks, a)
		}
		var calls []Call
		require.Equal(t, 200, ask(t, srv, "POST", "/api/calls", CallWish{Chart: 6, Mixed: mixed(asks), Step: 4, Count: 27, Seed: seed}, &calls).StatusCode, mixed(asks))
		require.Len(t, calls, 27)
		times := map[string]int{}
		name := func(key, degree string, down bool, quality string) string {
			return fmt.Sprint(key, " ", degree, " ", down, " ", quality)
		}
		for _, a := range asks {
			times[name(planner.KeyName(a.Key).String(), a.Degree, a.Down, a.Quality)] = 0
		}
		for _, c := range calls {
			chord, err := harmony.Parse(c.Chord)
			require.NoError(t, err)
			n := name(c.Key, harmony.Degree(c.Degree).Role().String(), c.Down, chord.Suffix())
			_, wanted := times[n]
			require.True(t, wanted, "%s was not asked for in %s", n, mixed(asks))
			times[n]++
		}
		for i := 1; i < len(calls); i++ {
			assert.NotEqual(t, calls[i-1].Says+calls[i-1].Chord+calls[i-1].Key, calls[i].Says+calls[i].Chord+calls[i].Key, "twice in a row")
		}
		for n, k := range times {
			assert.Positive(t, k, n)
		}
	}
	for _, bad := range []string{"C", "C.1.third.up", "H.1.third.up.7", "C.9.third.up.7", "C.x.third.up.7", "C.1.ninth.up.7", "C.1.third.left.7", "C.1.third.up.nonsense", strings.Repeat("C.1.third.up.7~", 40), "~"} {
		assert.Equal(t, 422, ask(t, srv, "POST", "/api/calls", CallWish{Chart: 6, Mixed: bad}, nil).StatusCode, bad)
	}
}

// The plan of the demo's player: its calls come in turn, are of the charts' keys or were asked before, and each is told in words.
func TestThePlanTellsWhatComesInTurn(t *testing.T) {
	s, _ := practised(t)
	srv := serving(t, s)
	var p Today
	ask(t, srv, "GET", "/api/today?minutes=40&seed=2", nil, &p)
	turns := 0
	for _, i := range p.Items {
		if i.Mixed == "" {
			continue
		}
		turns++
		assert.Equal(t, len(i.Turn), strings.Count(i.Mixed, "~")+1)
		assert.Contains(t, i.Title, fmt.Sprintf(", and %d more", len(i.Turn)-1))
		var calls []Call
		assert.Equal(t, 200, ask(t, srv, "POST", "/api/calls", CallWish{Chart: 6, Mixed: i.Mixed, Count: 9}, &calls).StatusCode, i.Mixed)
		assert.NotEmpty(t, url.QueryEscape(i.Mixed))
	}
	assert.Positive(t, turns)
}

// Somebody who never played begins with the roots of a chart, upward, one new thing an evening, also on a bass and over a minor key.
func TestAFirstEvening(t *testing.T) {
	srv := serve(t)
	for _, minutes := range []int{5, 10, 20, 40, 60} {
		for seed := range 5 {
			var p Today
			ask(t, srv, "GET", fmt.Sprintf("/api/today?minutes=%d&seed=%d", minutes, seed), nil, &p)
			fresh := 0
			for _, i := range p.Items {
				if i.New {
					fresh++
				}
				if i.Kind == "calls" {
					assert.Equal(t, []any{"root", false}, []any{i.Start, i.Down}, i.Title)
				}
				assert.NotEqual(t, "seventh", i.Start)
			}
			assert.LessOrEqual(t, fresh, 1, "%d minutes", minutes)
		}
	}
}
