package server

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/pitch"
)

// bring reads a file as a line, over a chart where one is given, and studies it.
func bring(t *testing.T, srv *httptest.Server, name string, data []byte, chart uint) (st Study, no refusal) {
	t.Helper()
	got, no := bringAs(t, srv, "line", name, data, "&chart="+fmt.Sprint(chart))
	if no.Status == 0 {
		require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/study", got.Line, &st).StatusCode)
		st.Said = got.Said
	}
	return st, no
}

// bringAs reads a file as something.
func bringAs(t *testing.T, srv *httptest.Server, as, name string, data []byte, more string) (got Brought, no refusal) {
	t.Helper()
	query := url.Values{"name": {name}, "as": {as}}
	req, err := http.NewRequest("POST", srv.URL+"/api/imports?"+query.Encode()+more, bytes.NewReader(data))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/octet-stream")
	resp, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer resp.Body.Close()
	body, _ := io.ReadAll(resp.Body)
	if resp.StatusCode == 200 {
		require.NoError(t, json.Unmarshal(body, &got))
	} else {
		require.NoError(t, json.Unmarshal(body, &no), string(body))
	}
	return got, no
}

// What leaves as any kind of file comes back as it was, as far as the kind can say it.
func TestEveryLineLeavesAndComesBack(t *testing.T) {
	srv := serve(t)
	lines := everyOne[Line](t, srv, "/api/lines")
	require.NotEmpty(t, lines)
	for _, l := range lines {
		for ending, path := range map[string]string{"musicxml": "musicxml", "mxl": "mxl", "txt": "tab", "mid": "midi?choruses=1"} {
			what := l.Title + " as " + ending
			st, no := bring(t, srv, "out."+ending, fetch(t, fmt.Sprintf("%s/api/lines/%d/files/%s", srv.URL, l.ID, path)), 0)
			require.Empty(t, no.Detail, what)
			assert.Equal(t, []any{l.Title, l.Key, l.Tempo, l.Beats, l.Feel}, []any{st.Line.Title, st.Line.Key, st.Line.Tempo, st.Line.Beats, st.Line.Feel}, what)
			require.Len(t, st.Score.Notes, len(l.Notes), what)
			for i, n := range l.Notes {
				got := st.Score.Notes[i]
				assert.Equal(t, []any{n.Start, n.Length, n.Bend, n.Release}, []any{got.Start, got.Length, got.Bend, got.Release}, "%s, note %d", what, i)
				assert.Equal(t, st.Score.Notes[i].MIDI, midiOf(t, n.Note), "%s, note %d", what, i)
				if ending != "mid" { // MIDI knows no strings
					assert.Equal(t, []int{n.String, n.Fret}, []int{got.String, got.Fret}, "%s, note %d", what, i)
					assert.Equal(t, n.Ornaments, got.Ornaments, "%s, note %d", what, i)
				}
				assert.Equal(t, ending == "mid", got.PlaceGuessed, "%s, note %d", what, i)
			}
			if ending != "mid" {
				assert.Equal(t, l.Text, st.Line.Text, what)
				assert.Empty(t, st.Said, what)
			}
		}
	}
}

func TestALongFileIsReadAsFarAsItGoes(t *testing.T) {
	srv := serve(t)
	bar := `<measure number="1"><note><pitch><step>E</step><octave>3</octave></pitch><duration>4</duration></note></measure>`
	head := `<score-partwise><part id="P"><measure number="1"><attributes><divisions>1</divisions></attributes></measure>`
	long := head + strings.Repeat(bar, 5000) + `</part></score-partwise>`
	st, no := bring(t, srv, "long.xml", []byte(long), 0)
	require.Zero(t, no.Status, no.Detail)
	assert.Contains(t, strings.Join(st.Said, ";"), "5001 measures; the first 512 were read", "what is left out is told")
	assert.Len(t, st.Score.Notes, 511)
	// A text of as many bars.
	text := "e|" + strings.Repeat("--3-|", 5000) + "\n" + strings.Repeat("B|"+strings.Repeat("----|", 5000)+"\n", 5)
	st, no = bring(t, srv, "long.txt", []byte(text), 0)
	assert.Contains(t, no.Detail+strings.Join(st.Said, ";"), "bars")
}

func TestWhatCannotBeDoneWithALineIsSaid(t *testing.T) {
	srv := serve(t)
	line, silent, empty := bluesIn("C"), bluesIn("C"), bluesIn("C")
	silent.Text = "| N.C. | N.C. |"
	var st Study
	ask(t, srv, "POST", "/api/lines/drill", map[string]any{"line": line, "task": DrillBody{Drill: "onward", Pace: "eighths"}}, &st)
	line = st.body()
	for _, c := range []struct {
		path, says string
		body       map[string]any
	}{
		{"lines/write", "fives", map[string]any{"line": line, "wish": map[string]any{"rhythm": "fives"}}},
		{"lines/write", "contour", map[string]any{"line": line, "wish": map[string]any{"contour": "spiral"}}},
		{"lines/write", "phrasing", map[string]any{"line": line, "wish": map[string]any{"phrasing": "endless"}}},
		{"lines/write", "body.wish.targets", map[string]any{"line": line, "wish": map[string]any{"targets": []string{"ninety"}}}},
		{"lines/write", "silent", map[string]any{"line": silent, "wish": map[string]any{}}},
		{"lines/fit", "no such beat", map[string]any{"line": line, "at": -1}},
		{"lines/fit", "no such beat", map[string]any{"line": line, "at": 12 * 3840}},
		{"lines/blend", "amount", map[string]any{"line": line, "amount": 1.5}},
		{"lines/lick", "no such lick", map[string]any{"line": line, "lick": 9999}},
		{"lines/lick", "bars 1 to 12", map[string]any{"line": line, "lick": 1, "bar": 13}},
		{"lines/lick", "silent", map[string]any{"line": silent, "lick": 5, "bar": 1}},
		{"lines/lick", "body.targets", map[string]any{"line": line, "lick": 1, "targets": []string{"ninth"}}},
		{"lines/drill", "gallop", map[string]any{"line": line, "task": map[string]any{"drill": "gallop", "pace": "eighths"}}},
		{"lines/drill", "pace", map[string]any{"line": line, "task": map[string]any{"drill": "onward", "pace": "sometimes"}}},
		{"lines/move", "no key", map[string]any{"line": line, "key": "H"}},
		{"licks/keep", "no such notes", map[string]any{"line": empty, "first": 1, "last": 3}},
		{"licks/keep", "no such notes", map[string]any{"line": line, "first": 5, "last": 2}},
	} {
		var no refusal
		resp := ask(t, srv, "POST", "/api/"+c.path, c.body, &no)
		assert.GreaterOrEqual(t, resp.StatusCode, 400, "%s: %s", c.path, c.says)
		assert.Less(t, resp.StatusCode, 500, "%s: %s", c.path, c.says)
		var where []string
		for _, e := range no.Errors {
			where = append(where, e.Location, e.Message)
		}
		assert.Contains(t, no.Detail+strings.Join(where, " "), c.says, c.path)
	}
}

// Every lick of the shelf goes over every kind of chord on every root, or says why not.
func TestEveryLickGoesAnywhereOrSaysWhyNot(t *testing.T) {
	srv := serve(t)
	licks := everyOne[Lick](t, srv, "/api/licks")
	plain := 0
	for i, l := range licks {
		for j, chord := range []string{"C7", "F#7", "Bbm7", "Ebmaj7", "Am7b5", "G", "Dm"} {
			if (i+j)%3 != 0 { // a third of them, each lick over some and each chord with some
				continue
			}
			var ways []Way
			resp := ask(t, srv, "GET", fmt.Sprintf("/api/licks/%d/ways?follow=true&low=5&high=9&chord=%s", l.ID, url.QueryEscape(chord)), nil, &ways)
			require.Equal(t, 200, resp.StatusCode)
			require.NotEmpty(t, ways)
			for _, w := range ways {
				if w.Problem != "" {
					continue
				}
				plain++
				require.NotNil(t, w.Score)
				require.Len(t, w.Score.Notes, len(l.Notes), "%s over %s", l.Title, chord)
				for k, n := range w.Score.Notes {
					assert.Equal(t, l.Notes[k].Start, n.Start, "%s over %s keeps its rhythm", l.Title, chord)
				}
			}
		}
	}
	assert.Greater(t, plain, 100, "most licks fit most chords")
}

func midiOf(t *testing.T, name string) int {
	t.Helper()
	p, err := pitch.ParsePitch(name)
	require.NoError(t, err)
	return p.MIDI()
}
