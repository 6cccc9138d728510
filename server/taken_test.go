package server

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/store"
)

// What is answered first instead is kept with the call, however it was answered, and drawn: the most often first.
func TestWhatIsTakenForWhat(t *testing.T) {
	srv := serve(t)
	call := CallLog{Chart: 6, Kind: "tones", Key: "C", Chord: "C7", Degree: "3", Window: store.Frets{Low: 7, High: 11}, Says: "upward, from the 3", How: "late", Took: 2000}
	note := func(more func(*CallLog)) {
		c := call
		more(&c)
		require.Equal(t, 201, ask(t, srv, "POST", "/api/log/calls", c, nil).StatusCode)
	}
	before := func() (maps LogMaps) {
		require.Equal(t, 200, ask(t, srv, "GET", "/api/log/maps", nil, &maps).StatusCode)
		return maps
	}
	had := map[[2]string]int{}
	for _, x := range before().Taken {
		had[[2]string{x.Wanted, x.Said}] = x.Times
	}
	for range 3 { // string 1, fret 8 is the root of C7
		note(func(c *CallLog) { c.By, c.Asked, c.Pressed = "neck", "b7", &store.Spot{String: 1, Fret: 8} })
	}
	note(func(c *CallLog) { c.By, c.Asked, c.Played = "play", "b7", 60.2 })
	note(func(c *CallLog) { c.By, c.Asked, c.Said = "name", "3", "b3" })
	note(func(c *CallLog) { c.By = "name" })                                                           // answered at once
	note(func(c *CallLog) { c.By, c.Asked, c.Said = "name", "3", "H" })                                // no degree
	note(func(c *CallLog) { c.By, c.Asked, c.Pressed = "neck", "3", &store.Spot{String: 8, Fret: 8} }) // no such string
	note(func(c *CallLog) { c.By, c.Asked, c.Pressed = "neck", "R", &store.Spot{String: 1, Fret: 8} }) // another place of the same degree
	got := map[[2]string]MapTaken{}
	list := before().Taken
	for i, x := range list {
		got[[2]string{x.Wanted, x.Said}] = x
		if i > 0 {
			assert.LessOrEqual(t, x.Times, list[i-1].Times)
		}
	}
	assert.Equal(t, MapTaken{"b7", "R", 4 + had[[2]string{"b7", "R"}], "neck"}, got[[2]string{"b7", "R"}])
	assert.Equal(t, MapTaken{"3", "b3", 1 + had[[2]string{"3", "b3"}], "name"}, got[[2]string{"3", "b3"}])
	assert.Len(t, got, 2+len(had), "nothing else was taken for another")
	var no refusal
	call.By = "telepathy"
	require.Equal(t, 422, ask(t, srv, "POST", "/api/log/calls", call, &no).StatusCode)
}
