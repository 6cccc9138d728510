package server

import (
	"bytes"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/formats/midi"
	"undaris/formats/musicxml"
)

func TestWhatLiesOnTheNeckIsWrittenDown(t *testing.T) {
	srv := serve(t)
	for _, of := range []string{"run", "crossing", "thread"} {
		query := fmt.Sprintf("of=%s&low=7&high=11&step=1", of)
		var sc Score
		ask(t, srv, "GET", "/api/charts/6/score?"+query, nil, &sc)
		require.NotEmpty(t, sc.Notes, of)
		assert.True(t, sc.Swing)
		for _, m := range sc.Measures {
			ticks := 0
			for _, s := range m.Strokes {
				length := 4 * 960 / s.Base
				if s.Dotted {
					length += length / 2
				}
				if s.Actual > 0 {
					length = length * s.Normal / s.Actual
				}
				ticks += length
			}
			assert.Equal(t, 4*960, ticks, "bar %d of the %s adds up", m.Number, of)
		}
		f, err := musicxml.Read(t.Context(), fetch(t, srv.URL+"/api/charts/6/files/musicxml?"+query))
		require.NoError(t, err)
		assert.Empty(t, f.Said)
		require.Len(t, f.Notes, len(sc.Notes))
		for i, n := range sc.Notes {
			assert.Equal(t, []int{n.MIDI, n.String, n.Fret, n.Finger}, []int{f.Notes[i].Pitch.MIDI(), f.Notes[i].String, f.Notes[i].Fret, f.Notes[i].Finger})
		}
		file, err := midi.Read(t.Context(), fetch(t, srv.URL+"/api/charts/6/files/score-midi?choruses=1&"+query))
		require.NoError(t, err)
		var lead int
		for _, track := range file.Tracks {
			if track.Name == "lead" {
				lead = len(track.Notes)
			}
		}
		assert.Equal(t, len(sc.Notes), lead, of)
	}
	var no refusal
	for query, says := range map[string]string{
		"of=run&low=7&high=99":           "fret",
		"of=run&low=7&high=11&step=99":   "no such chord",
		"of=zither&low=7&high=11":        "",
		"of=crossing&low=21&high=22":     "",
		"of=thread&low=7&high=11&step=0": "",
	} {
		resp := ask(t, srv, "GET", "/api/charts/6/score?"+query, nil, &no)
		if says != "" {
			assert.Equal(t, 422, resp.StatusCode, query)
			assert.Contains(t, no.Detail, says)
		}
	}
	assert.Equal(t, 404, ask(t, srv, "GET", "/api/charts/99/score?low=7&high=11", nil, nil).StatusCode)
}

func TestWhereTonesLie(t *testing.T) {
	srv := serve(t)
	var tones Tones
	ask(t, srv, "GET", "/api/tones?chords=C7&chords=F7", nil, &tones)
	require.Len(t, tones.Chords, 2)
	assert.Equal(t, "F7", tones.Chords[1].Symbol)
	for _, c := range tones.Chords {
		for _, n := range c.Notes {
			assert.Equal(t, tones.Instrument.MIDI[n.String-1]+n.Fret, n.MIDI)
		}
	}
	var no refusal
	ask(t, srv, "GET", "/api/tones?chords=Zork", nil, &no)
	assert.Equal(t, 422, no.Status)
}

func TestLinesRefused(t *testing.T) {
	srv := serve(t)
	good := bluesIn("C")
	for says, change := range map[string]func(*LineBody){
		"tempo":       func(b *LineBody) { b.Tempo = 900 },
		"is no key":   func(b *LineBody) { b.Key = "H" },
		"no feel":     func(b *LineBody) { b.Feel = "polka" },
		"cannot":      func(b *LineBody) { b.Text = "| Zork |" },
		"palette":     func(b *LineBody) { b.Palette = "mauve" },
		"fret":        func(b *LineBody) { b.Low, b.High = 30, 40 },
		"outside":     func(b *LineBody) { b.Notes = append(b.Notes, note("E4", 99*3840)) },
		"length is 0": func(b *LineBody) { n := note("E4", 0); n.Length = 0; b.Notes = append(b.Notes, n) },
		"title":       func(b *LineBody) { b.Title = "  " },
		"not a note":  func(b *LineBody) { b.Notes = append(b.Notes, note("X9", 0)) },
	} {
		b := good
		b.Notes = nil
		b.Notes = append(b.Notes, good.Notes...)
		change(&b)
		if b.Notes == nil {
			b.Notes = good.Notes
		}
		var no refusal
		resp := ask(t, srv, "POST", "/api/lines", b, &no)
		assert.Equal(t, 422, resp.StatusCode, says)
		if says != "not a note" {
			assert.Contains(t, no.Detail, says)
		}
	}
	// A note without a place has one found.
	b := good
	b.Notes = append(b.Notes, note("E4", 0))
	var st Study
	ask(t, srv, "POST", "/api/lines/study", b, &st)
	assert.Positive(t, st.Score.Notes[0].String)
	assert.Contains(t, st.Said[0], "places on the neck were found")
	var fixes Fixes
	ask(t, srv, "POST", "/api/lines/fit", map[string]any{"line": st.body(), "at": 0}, &fixes)
	assert.Equal(t, "it lands already", fixes.Why)
	var no refusal
	ask(t, srv, "POST", "/api/lines/write", map[string]any{"line": good, "wish": WishBody{From: 9, To: 99}}, &no)
	assert.Contains(t, no.Detail, "bars 1 to 12")
	ask(t, srv, "POST", "/api/lines/write", map[string]any{"line": good, "wish": WishBody{Density: 9}}, &no)
	assert.Contains(t, no.Detail, "density")
	assert.True(t, bytes.HasPrefix(fetch(t, srv.URL+"/api/lines/1/files/tab"), []byte("Title:")))
}
