package server

import (
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Whoever kept an address from before is led to what it was, with what was asked.
func TestOldAddressesLeadOn(t *testing.T) {
	srv := serve(t)
	where := func(path string) string { return strings.Replace(path, ":id", "1", 1) }
	still := http.Client{CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}
	for from, to := range moved {
		query := "?choruses=1&low=0&high=4&id=1&of=chords"
		resp, err := still.Get(srv.URL + where(from) + query)
		require.NoError(t, err)
		resp.Body.Close()
		assert.Equal(t, http.StatusPermanentRedirect, resp.StatusCode, from)
		assert.Equal(t, where(to)+query, resp.Header.Get("Location"), from)
		old, now := fetch(t, srv.URL+where(from)+query), fetch(t, srv.URL+where(to)+query)
		assert.NotEmpty(t, now, to)
		assert.Equal(t, now, old, from)
	}
}

// A thing leaves in the formats that it names, and what is none of them is said.
func TestWhatIsNoFormatIsSaid(t *testing.T) {
	srv := serve(t)
	for path, formats := range map[string]string{
		"/api/charts/6": "text, chordpro, midi, score-midi, musicxml or mxl", "/api/lines/1": "midi, tab, musicxml or mxl",
		"/api/licks": "midi, tab, musicxml or mxl", "/api/log": "csv or json",
	} {
		var no refusal
		assert.Equal(t, http.StatusNotFound, ask(t, srv, "GET", path+"/files/pdf?id=1", nil, &no).StatusCode, path)
		assert.Equal(t, `this leaves as `+formats+`, and not as "pdf"`, no.Detail, path)
	}
	assert.Equal(t, http.StatusNotFound, ask(t, srv, "GET", "/api/lines/99/files/midi", nil, nil).StatusCode)
}
