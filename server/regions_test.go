package server

import (
	"fmt"
	"net/url"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/neck"
	"undaris/store"
)

// Everything that is asked of a place on the neck stays there: runs, crossings, blends,
// threads, lines and exercises, on strings apart, in a window of any width, on seven
// strings and on four.
func TestEveryQuestionKeepsToItsRegion(t *testing.T) {
	srv := serve(t)
	for name, c := range map[string]struct {
		tuning, key        string
		frets              int
		low, high          int
		strings            string
		density            int
		chord, next, third string
	}{
		"strings 5 and 2":            {"E2,A2,D3,G3,B3,E4", "C", 22, 0, 12, "5,2", 2, "C7", "F7", "G7"},
		"three notes a string in B♭": {"E2,A2,D3,G3,B3,E4", "Bb", 22, 6, 11, "", 3, "Bb7", "Eb7", "F7"},
		"frets 5 to 12":              {"E2,A2,D3,G3,B3,E4", "A", 22, 5, 12, "", 3, "A7", "D7", "E7"},
		"seven strings":              {"B1,E2,A2,D3,G3,B3,E4", "E", 24, 4, 9, "7,6,5,4", 3, "E7", "A7", "B7"},
		"a bass on 3 and 4":          {"E1,A1,D2,G2", "G", 20, 2, 8, "3-4", 2, "G7", "C7", "D7"},
	} {
		on, err := neck.ParseStrings(c.strings)
		require.NoError(t, err)
		region := neck.Region{Low: c.low, High: c.high, Strings: on}
		inside := func(str, fret int) {
			require.True(t, region.Has(neck.Placement{String: str, Fret: fret}), "%s: %d:%d", name, str, fret)
		}
		query := url.Values{"tuning": {c.tuning}, "frets": {fmt.Sprint(c.frets)}, "low": {fmt.Sprint(c.low)}, "high": {fmt.Sprint(c.high)}, "strings": {c.strings}}.Encode()
		var run Run
		require.Equal(t, 200, ask(t, srv, "GET", "/api/runs?chord="+c.chord+"&"+query, nil, &run).StatusCode, name)
		require.NotEmpty(t, run.Notes)
		for _, n := range run.Notes {
			inside(n.String, n.Fret)
		}
		var moves []Move
		require.Equal(t, 200, ask(t, srv, "GET", "/api/crossings?from="+c.chord+"&to="+c.next+"&"+query, nil, &moves).StatusCode, name)
		require.NotEmpty(t, moves)
		for _, m := range moves {
			for _, p := range m.Places {
				inside(p.From.String, p.From.Fret)
				inside(p.To.String, p.To.Fret)
			}
		}
		var laid Blend
		require.Equal(t, 200, ask(t, srv, "GET", "/api/blend?palette=minor-pentatonic&chord="+c.chord+"&key="+c.key+"&"+query, nil, &laid).StatusCode, name)
		text := fmt.Sprintf("| %s | %s | %s | %s |\n| %s | %s | %s | %s |", c.chord, c.next, c.chord, c.third, c.chord, c.next, c.third, c.chord)
		var thread Thread
		require.Equal(t, 200, ask(t, srv, "GET", "/api/threads?key="+c.key+"&text="+url.QueryEscape(text)+"&"+query, nil, &thread).StatusCode, name)
		require.NotEmpty(t, thread.Targets)
		for _, g := range thread.Targets {
			inside(g.String, g.Fret)
		}

		head := LineHead{Title: name, Key: c.key, Feel: "shuffle", Tempo: 96, Beats: 4, Text: text, Low: c.low, High: c.high, Strings: c.strings, Tuning: c.tuning, Frets: c.frets}
		empty := LineBody{head, []store.LineNote{}}
		var written Study
		require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/write", map[string]any{"line": empty, "wish": map[string]any{"density": c.density, "approach": true, "seed": 5}}, &written).StatusCode, name)
		require.NotEmpty(t, written.Score.Notes)
		for _, n := range written.Score.Notes {
			inside(n.String, n.Fret)
		}
		assert.Equal(t, on.String(), written.Line.Strings)
		var drill Study
		require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/drill", map[string]any{"line": empty, "task": DrillBody{Drill: "run", Pace: "eighths"}}, &drill).StatusCode, name)
		require.NotEmpty(t, drill.Score.Notes)
		for _, n := range drill.Score.Notes {
			inside(n.String, n.Fret)
		}
		// It is kept with its region.
		var kept, again Line
		require.Equal(t, 201, ask(t, srv, "POST", "/api/lines", written.body(), &kept).StatusCode, name)
		ask(t, srv, "GET", fmt.Sprintf("/api/lines/%d", kept.ID), nil, &again)
		assert.Equal(t, on.String(), again.Strings, name)
		// Laid on another instrument that lacks its strings it says so, and stays playable.
		player := store.Player{Tuning: "E1,A1,D2,G2", Frets: 20, Scale: 864, Comfort: 110, Habit: "stay"}
		require.Equal(t, 200, ask(t, srv, "PUT", "/api/player", player, nil).StatusCode)
		var there Laying
		require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/lay", written.body(), &there).StatusCode, name)
		guitar := store.DefaultPlayer
		require.Equal(t, 200, ask(t, srv, "PUT", "/api/player", guitar, nil).StatusCode)
	}
}

// The map of a chart has a region of the player's own beside the positions; one that the
// instrument has not is refused with the nearest that works.
func TestAChartInARegionOfOnesOwn(t *testing.T) {
	srv := serve(t)
	var m Map
	require.Equal(t, 200, ask(t, srv, "GET", "/api/charts/6/map?low=0&high=12&strings=5,2", nil, &m).StatusCode)
	last := m.Positions[len(m.Positions)-1]
	assert.Equal(t, Position{Low: 0, High: 12, Strings: []int{5, 2}}, last)
	for _, run := range m.ByPosition[len(m.Positions)-1].Runs {
		require.NotEmpty(t, run.Notes)
		for _, n := range run.Notes {
			assert.Contains(t, []int{5, 2}, n.String)
		}
	}
	require.Equal(t, 200, ask(t, srv, "GET", "/api/charts/6/map?low=5&high=5&strings=3", nil, &m).StatusCode)
	run := m.ByPosition[len(m.Positions)-1].Runs[0]
	assert.NotEmpty(t, run.Lacks, "one fret of one string: what is missing is told, with the nearest place")
	var r refusal
	assert.Equal(t, 422, ask(t, srv, "GET", "/api/charts/6/map?low=5&high=9&strings=7", nil, &r).StatusCode)
	assert.Contains(t, r.Errors[0].Message, "the nearest is frets 5 to 9")

	// Every chord of the chart has a shape and a grip where the tonic takes the G shape.
	require.Equal(t, 200, ask(t, srv, "GET", "/api/charts/6/map", nil, &m).StatusCode)
	for i, p := range m.Positions {
		if p.Shape == "G" && !p.Octave {
			assert.Equal(t, []string{"G", "C", "D"}, m.ByPosition[i].Shapes)
		}
		assert.Len(t, m.ByPosition[i].Alike, len(m.Chords))
	}
	of := func(m Map, low int) Grip {
		position := slices.IndexFunc(m.Positions, func(p Position) bool { return p.Low == low })
		chord := slices.IndexFunc(m.Chords, func(c Chord) bool { return c.Symbol == "C7" })
		require.True(t, position >= 0 && chord >= 0)
		return m.ByPosition[position].Grips[chord]
	}
	g := of(m, 7)
	assert.Equal(t, []int{8, 10, 8, 9, 8, 8}, each(g.Notes, func(n Note) int { return n.Fret }))
	assert.Equal(t, []any{8, []int{}}, []any{g.Barre, g.Muted})
	require.Equal(t, 200, ask(t, srv, "GET", "/api/charts/6/map?low=0&high=12", nil, &m).StatusCode)
	wide := m.ByPosition[len(m.ByPosition)-1].Grips
	assert.Len(t, wide, len(m.Chords))
	assert.Empty(t, wide[0].Notes, "no hand is as wide")

	var d Division
	require.Equal(t, 200, ask(t, srv, "GET", "/api/regions?key=Bb", nil, &d).StatusCode)
	assert.Len(t, d.Ways, len(neck.Ways))
	for _, w := range d.Ways {
		require.NotEmpty(t, w.Regions, w.ID)
		assert.NotEmpty(t, w.Says)
		if strings.HasPrefix(w.Name, "three") {
			assert.Len(t, w.Regions[0].Places, 18)
		}
	}
	assert.Equal(t, "strings 5 and 2", d.Strings[10].Name)
}
