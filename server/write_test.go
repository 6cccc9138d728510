package server

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/store"
)

// Bars are counted from 1 by those who ask: what is written anew lies in them and nowhere else.
func TestOnlyTheBarsThatAreAskedForAreWritten(t *testing.T) {
	srv := serve(t)
	type body struct {
		Line LineBody `json:"line"`
		Wish WishBody `json:"wish"`
	}
	var whole, part Study
	require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/write", body{bluesIn("Bb"), WishBody{Rhythm: "eighths", Density: 5, Seed: 3}}, &whole).StatusCode)
	require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/write", body{whole.body(), WishBody{Rhythm: "eighths", Density: 5, Seed: 9, From: 5, To: 8}}, &part).StatusCode)
	const bar = 4 * 960
	in := func(st Study, from, to int) (list []store.LineNote) {
		for _, n := range st.body().Notes {
			if n.Start >= (from-1)*bar && n.Start < to*bar {
				n.ID = 0
				list = append(list, n)
			}
		}
		return list
	}
	places := func(list []store.LineNote) (out [][3]int) {
		for _, n := range list {
			out = append(out, [3]int{n.Start, n.String, n.Fret})
		}
		return out
	}
	assert.NotEqual(t, places(in(whole, 5, 8)), places(in(part, 5, 8)))
	assert.NotEmpty(t, in(part, 5, 8))
	assert.Equal(t, places(in(whole, 9, 12)), places(in(part, 9, 12)))
	assert.Equal(t, places(in(whole, 1, 3)), places(in(part, 1, 3)), "the bar before leads in")
	for _, bad := range []WishBody{{From: 5, To: 4}, {From: 13, To: 13}, {To: 13, From: 1}} {
		assert.Equal(t, 422, ask(t, srv, "POST", "/api/lines/write", body{whole.body(), bad}, nil).StatusCode, bad)
	}
}

// Without a swing of the band a take is judged by what its feel swings at that tempo.
func TestATakeIsJudgedByTheSwingOfItsFeel(t *testing.T) {
	srv := serve(t)
	line := bluesIn("C")
	for i := range 8 {
		line.Notes = append(line.Notes, store.LineNote{Start: 480 * i, Length: 480, String: 3, Fret: 5 + i%2})
	}
	judged := func(feel string, swing float64) (late []float64) {
		line.Feel = feel
		var heard []HeardNote
		asked := map[string]any{"line": line, "tempo": 100, "seed": 1}
		require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/simulate", asked, &heard).StatusCode)
		var take Take
		require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/judge", map[string]any{"line": line, "tempo": 100, "swing": swing, "heard": heard}, &take).StatusCode)
		for _, v := range take.Verdicts {
			late = append(late, v.Off)
		}
		return late
	}
	for _, feel := range []string{"shuffle", "straight"} {
		for i, off := range judged(feel, 0) {
			assert.InDelta(t, 0, off, 1, "%s, note %d: what the simulated player plays is in time", feel, i+1)
		}
	}
	assert.Greater(t, judged("shuffle", 0.5)[1], 20.0, "a swung eighth is late for a straight band")
}
