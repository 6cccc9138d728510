package server

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/formats/midi"
	"undaris/store"
)

// A song with a pickup, a bar of two beats, two endings, a jump back and a coda: the map, the
// thread, the band, what is practised and what is written over it follow the order in which a
// band plays it, and every bar knows which written one it is.
func TestASongIsPlayedInItsOrder(t *testing.T) {
	srv := serve(t)
	var c Chart
	require.Equal(t, 201, ask(t, srv, "POST", "/api/charts", ChartBody{Title: "Harbour Round", Key: "G", Feel: "straight", Tempo: 120, Beats: 4,
		Text: "| 1/4 D7 |: 4/4 segno G7 | C7 | 1. 2/4 D7 :| 2. 4/4 Am7 |\n| Bm7 to coda | E7 D.S. al Coda |\n| [Coda] C#dim7 | 3/4 G7 |"}, &c).StatusCode)
	want := strings.Fields("G7 C7 D7 G7 C7 Am7 Bm7 E7 G7 C7 Am7 Bm7 C#dim7 G7")
	bars := []int{1, 2, 3, 1, 2, 4, 5, 6, 1, 2, 4, 5, 7, 8}
	lengths := []int{4, 4, 2, 4, 4, 4, 4, 4, 4, 4, 4, 4, 4, 3}
	assert.Equal(t, lengths, c.Lengths)
	var m Map
	ask(t, srv, "GET", fmt.Sprintf("/api/charts/%d/map", c.ID), nil, &m)
	require.Len(t, m.Bars, len(want))
	for i, b := range m.Bars {
		assert.Equal(t, []any{want[i], bars[i], lengths[i]}, []any{m.Chords[b.Changes[0].Chord].Symbol, b.Written, b.Beats}, "bar %d", i+1)
	}
	file, err := midi.Read(t.Context(), fetch(t, fmt.Sprintf("%s/api/charts/%d/files/midi?choruses=1", srv.URL, c.ID)))
	require.NoError(t, err)
	var heard []string
	for _, chord := range file.Chords {
		heard = append(heard, chord.Name)
	}
	assert.Equal(t, append([]string{"D7"}, want...), heard)
	assert.Equal(t, &Pickup{1, []Lead{{4, "D7", "V7"}}}, m.Pickup)
	var thread Score
	ask(t, srv, "GET", fmt.Sprintf("/api/charts/%d/score?of=thread&low=2&high=7", c.ID), nil, &thread)
	require.Len(t, thread.Measures, len(want)+1)
	assert.Equal(t, []any{0, -960, []Symbol{{0, "D7"}}}, []any{thread.Measures[0].Number, thread.Measures[0].Start, thread.Measures[0].Chords})
	require.Len(t, thread.Notes, len(want))
	at := 0
	for i, measure := range thread.Measures[1:] {
		assert.Equal(t, []int{at, lengths[i], at}, []int{measure.Start, measure.Beats, thread.Notes[i].Start}, "bar %d", i+1)
		at += lengths[i] * 960
	}
	var ground PracticeGround
	line := LineBody{LineHead: LineHead{Title: c.Title, Key: c.Key, Feel: c.Feel, Tempo: c.Tempo, Beats: c.Beats, Text: c.Text, Low: 2, High: 7}, Notes: []store.LineNote{}}
	require.Equal(t, 200, ask(t, srv, "POST", "/api/practice/over", map[string]any{"over": line, "mode": "land"}, &ground).StatusCode)
	assert.Equal(t, lengths, ground.Lengths)
	require.Len(t, ground.Bars, len(want))
	for i, changes := range ground.Bars {
		assert.Equal(t, want[i], changes[0].Chord)
	}
}
