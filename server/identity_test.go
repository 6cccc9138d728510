package server

import (
	"bytes"
	"encoding/json"
	"io"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// from sends what a page with a database in hand sends.
func from(t *testing.T, method, address, database, body string) (*http.Response, string) {
	t.Helper()
	req, err := http.NewRequest(method, address, strings.NewReader(body))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set(databaseHeader, database)
	resp, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer resp.Body.Close()
	data, err := io.ReadAll(resp.Body)
	require.NoError(t, err)
	return resp, string(data)
}

// changing are the methods and paths of all operations that are no plain questions.
func changing(t *testing.T, url string) (list [][2]string) {
	var doc struct {
		Paths map[string]map[string]json.RawMessage
	}
	_, text := from(t, "GET", url+"/api/openapi.json", "", "")
	require.NoError(t, json.Unmarshal([]byte(text), &doc))
	for path, methods := range doc.Paths {
		for method := range methods {
			if method != "get" {
				list = append(list, [2]string{strings.ToUpper(method), strings.ReplaceAll(path, "{id}", "1")})
			}
		}
	}
	require.Greater(t, len(list), 40)
	return append(list, [2]string{"POST", "/api/restore"})
}

// Every answer says which database gave it, and a page that means another changes nothing:
// over every operation that is not a plain question.
func TestAPageOfAnotherDatabaseChangesNothing(t *testing.T) {
	srv := serve(t)
	resp, before := from(t, "GET", srv.URL+"/api/backup", "", "")
	first := resp.Header.Get(databaseHeader)
	require.NotEmpty(t, first)
	resp, _ = from(t, "GET", srv.URL+"/api/charts", "another", "")
	assert.Equal(t, 200, resp.StatusCode, "a question is answered, and says who answers")

	for _, op := range changing(t, srv.URL) {
		resp, data := from(t, op[0], srv.URL+op[1], "another", `{}`)
		assert.Equal(t, 412, resp.StatusCode, op)
		assert.Contains(t, data, "Nothing was done", op)
		assert.Equal(t, first, resp.Header.Get(databaseHeader), op)
	}
	_, after := from(t, "GET", srv.URL+"/api/backup", "", "")
	assert.Equal(t, before, after)

	// After a restore the page that was open is of another database.
	resp, _ = from(t, "POST", srv.URL+"/api/licks", first, `{"title":"a","chord":"7","ofKey":false,"tags":[],"notes":[{"start":0,"length":960,"degree":"R","octave":0}]}`)
	assert.Equal(t, 201, resp.StatusCode)
	restored, err := http.Post(srv.URL+"/api/restore", "application/octet-stream", bytes.NewReader([]byte(before)))
	require.NoError(t, err)
	restored.Body.Close()
	require.Equal(t, 200, restored.StatusCode)
	resp, _ = from(t, "POST", srv.URL+"/api/licks", first, `{"title":"b","chord":"7","ofKey":false,"tags":[],"notes":[{"start":0,"length":960,"degree":"R","octave":0}]}`)
	assert.Equal(t, 412, resp.StatusCode)
	assert.NotEqual(t, first, resp.Header.Get(databaseHeader))
}

// A line of the log that comes late is noted once, when it was, and of whom it is.
func TestTheLogTakesWhatComesLate(t *testing.T) {
	srv := serve(t)
	call := func(more string) string {
		return `{"chart":6,"kind":"tones","key":"C","chord":"C7","degree":"3","window":{"low":7,"high":11},"says":"Your one"` + more + `}`
	}
	then := time.Now().Add(-3 * time.Hour).UTC().Format(time.RFC3339Nano)
	var first, again, skip, late struct {
		ID    uint
		At    time.Time
		Kind  string
		Asked int
	}
	ask(t, srv, "POST", "/api/log/calls", json.RawMessage(call(`,"how":"right","ref":"a1","at":"`+then+`"`)), &first)
	ask(t, srv, "POST", "/api/log/calls", json.RawMessage(call(`,"how":"right","ref":"a1","at":"`+then+`"`)), &again)
	assert.Equal(t, first.ID, again.ID)
	assert.Equal(t, then, first.At.UTC().Format(time.RFC3339Nano))
	// A skip is a skip: it is there, and nothing was asked.
	ask(t, srv, "POST", "/api/log/calls", json.RawMessage(call(`,"how":"skipped"`)), &skip)
	assert.Equal(t, []any{"skip", 0}, []any{skip.Kind, skip.Asked})
	// What cannot have been is now.
	for _, at := range []string{time.Now().Add(time.Hour).Format(time.RFC3339), "1999-01-01T00:00:00Z"} {
		ask(t, srv, "POST", "/api/log/calls", json.RawMessage(call(`,"how":"right","at":"`+at+`"`)), &late)
		assert.WithinDuration(t, time.Now(), late.At, time.Minute, at)
	}
	// It is whose it says, whoever's turn it is now.
	var other struct{ ID uint }
	ask(t, srv, "POST", "/api/players", json.RawMessage(`{"name":"Wren"}`), &other)
	count := func() (n int) {
		var page struct{ Total int }
		ask(t, srv, "GET", "/api/log", nil, &page)
		return page.Total
	}
	mine := count()
	ask(t, srv, "POST", "/api/log/calls", json.RawMessage(call(`,"how":"right","player":1,"ref":"b1"`)), &late)
	assert.Equal(t, mine, count())
	ask(t, srv, "POST", "/api/log/calls", json.RawMessage(call(`,"how":"right","ref":"b2"`)), &late)
	assert.Equal(t, mine+1, count())
	resp, _ := from(t, "POST", srv.URL+"/api/log/calls", "", call(`,"how":"right","player":77`))
	assert.Equal(t, 404, resp.StatusCode, "nobody's")
}
