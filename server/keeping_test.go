package server

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/store"
)

// send sends a change of a version, as it is written in If-Match.
func send(t testing.TB, srv *httptest.Server, method, path, match, body string) (*http.Response, []byte) {
	t.Helper()
	req, err := http.NewRequest(method, srv.URL+path, strings.NewReader(body))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/json")
	if match != "" {
		req.Header.Set("If-Match", match)
	}
	resp, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer resp.Body.Close()
	data, err := io.ReadAll(resp.Body)
	require.NoError(t, err)
	return resp, data
}

// Every kept thing: no change without a version, none of an old one, and what is
// there now comes with the refusal.
func TestNothingKeptIsOverwritten(t *testing.T) {
	for path, body := range map[string]string{
		"/api/charts/6":      `{"title":"%s","key":"C","feel":"shuffle","tempo":96,"beats":4,"text":"| C7 |"}`,
		"/api/charts/6/plan": `{"targets":["third"],"allowed":{"%s":["third"]}}`,
		"/api/licks/3":       `{"title":"%s","chord":"7","ofKey":false,"tags":[],"notes":[{"start":0,"length":960,"degree":"R","octave":0}]}`,
		"/api/lines/2":       `{"title":"%s","key":"C","feel":"shuffle","tempo":96,"beats":4,"text":"| C7 |","low":7,"high":11,"notes":[]}`,
		"/api/player":        `{"tuning":"E2,A2,D3,G3,B3,E4","frets":22,"scale":648,"capo":0,"left":%t,"comfort":100,"habit":"stay"}`,
	} {
		srv := serve(t)
		words := func(word string) string {
			if strings.Contains(body, "%t") {
				return fmt.Sprintf(body, word == "mine")
			}
			return fmt.Sprintf(body, word)
		}
		whole := strings.TrimSuffix(path, "/plan")
		first, _ := send(t, srv, "GET", whole, "", "")
		tag := first.Header.Get("ETag")
		require.Regexp(t, `^"[a-z2-7]{26}\.\d+\.\d+"$`, tag, path)

		resp, data := send(t, srv, "PUT", path, "", words("mine"))
		assert.Equal(t, 428, resp.StatusCode, path)
		assert.Contains(t, string(data), "If-Match", path)
		for _, odd := range []string{`"x"`, `7`, `"-1"`, `"99999999999999999999"`, `W/"1"`, `"*"`, `""`, "\"" + strings.SplitN(strings.Trim(tag, "\""), ".", 2)[1] + "\""} {
			resp, _ = send(t, srv, "PUT", path, odd, words("mine"))
			assert.Equal(t, 412, resp.StatusCode, path+odd)
		}
		resp, data = send(t, srv, "PUT", path, tag, words("mine"))
		require.Equal(t, 200, resp.StatusCode, path+string(data))
		second := resp.Header.Get("ETag")
		assert.NotEqual(t, tag, second, path)

		resp, data = send(t, srv, "PUT", path, tag, words("theirs"))
		assert.Equal(t, 412, resp.StatusCode, path)
		var refused struct {
			Detail  string
			Current map[string]any
		}
		require.NoError(t, json.Unmarshal(data, &refused))
		assert.Contains(t, refused.Detail, "changed elsewhere", path)
		assert.Equal(t, second, fmt.Sprintf("%q", fmt.Sprint(refused.Current["version"])), path)
		_, now := send(t, srv, "GET", whole, "", "")
		assert.NotContains(t, string(now), "theirs", path)

		resp, _ = send(t, srv, "PUT", path, "*", words("theirs"))
		assert.Equal(t, 200, resp.StatusCode, path)
		if whole != path || path == "/api/player" {
			continue
		}
		resp, _ = send(t, srv, "DELETE", path, "", "")
		assert.Equal(t, 428, resp.StatusCode, path)
		resp, data = send(t, srv, "DELETE", path, second, "")
		assert.Equal(t, 412, resp.StatusCode, path)
		assert.Contains(t, string(data), "theirs", path)
		resp, _ = send(t, srv, "DELETE", path, "*", "")
		assert.Equal(t, 204, resp.StatusCode, path)
		resp, _ = send(t, srv, "PUT", path, "*", words("mine"))
		assert.Equal(t, 404, resp.StatusCode, path)
		resp, _ = send(t, srv, "POST", path+"/restore", "", "")
		assert.Equal(t, 200, resp.StatusCode, path)
		resp, _ = send(t, srv, "PUT", path[:strings.LastIndexByte(path, '/')]+"/0", "*", words("mine"))
		assert.Equal(t, 404, resp.StatusCode, path)
	}
}

func TestListsComeInPages(t *testing.T) {
	srv := serve(t)
	for _, path := range []string{"/api/charts", "/api/licks", "/api/lines"} {
		var whole []struct{ ID uint }
		resp := ask(t, srv, "GET", path, nil, &whole)
		total := resp.Header.Get("Total-Count")
		assert.Equal(t, fmt.Sprint(len(whole)), total, path)
		assert.Empty(t, resp.Header.Get("Link"), path)
		var seen []struct{ ID uint }
		for next := path + "?limit=3"; next != ""; {
			var page []struct{ ID uint }
			resp := ask(t, srv, "GET", next, nil, &page)
			assert.LessOrEqual(t, len(page), 3)
			seen = append(seen, page...)
			next = strings.TrimPrefix(strings.TrimSuffix(resp.Header.Get("Link"), `>; rel="next"`), "<")
		}
		assert.Equal(t, whole, seen, path)
		var no refusal
		assert.Equal(t, 422, ask(t, srv, "GET", path+"?limit=100000", nil, &no).StatusCode)
		assert.Equal(t, "limit is 100000; it is 1000 at most", no.Detail)
	}
}

// Numbers beyond their range, and letters that are none, are refused in words or left out.
func TestExtremesAreRefused(t *testing.T) {
	srv := serve(t)
	lick := `{"title":"%s","chord":"7","ofKey":false,"tags":[],"notes":[{"start":%s,"length":%s,"degree":"R","octave":0}]}`
	for _, c := range []struct{ start, length, says string }{
		{"400000000000", "960", "start is 4e+11; it is 61440 at most"},
		{"9223372036854775807", "960", "start"}, {"1e300", "960", "start"}, {"0", "9223372036854775807", "length"},
		{"-9000000000000000000", "960", "start"}, {"61440", "960", "goes from beat 65 over 1 beats"}, {"0.5", "960", "integer"},
	} {
		resp, data := send(t, srv, "POST", "/api/licks", "", fmt.Sprintf(lick, "Far", c.start, c.length))
		assert.Equal(t, 422, resp.StatusCode, c.start)
		assert.Contains(t, string(data), c.says)
	}
	for path, says := range map[string]string{
		"/api/charts/6/files/midi?lead=thread&choruses=1000000&low=7&high=11": "choruses is 1000000; it is 32 at most",
		"/api/runs?chord=C7&low=7&high=11&comfort=NaN":                        "a comfortable reach of NaN mm",
		"/api/runs?chord=C7&low=7&high=11&scale=Inf":                          "a scale of +Inf mm",
		"/api/charts/6/files/midi?swing=NaN":                                  "swing",
	} {
		var no refusal
		assert.Equal(t, 422, ask(t, srv, "GET", path, nil, &no).StatusCode, path)
		assert.Contains(t, no.Detail, says, path)
	}
	resp, data := send(t, srv, "POST", "/api/licks", "", fmt.Sprintf(lick, `\u0000 Night\u202e \u0007\n ferry\ufeff`, "0", "960"))
	require.Equal(t, 201, resp.StatusCode, string(data))
	var kept Lick
	require.NoError(t, json.Unmarshal(data, &kept))
	assert.Equal(t, "Night ferry", kept.Title)
}

func TestAPlanThatDoesNotFitIsNotKept(t *testing.T) {
	srv := serve(t)
	var no refusal
	assert.Equal(t, 422, ask(t, srv, "PUT", "/api/charts/6/plan", store.Plan{Imagined: &store.Imagined{Bar: 99, Text: "| C7 |"}}, &no).StatusCode)
	assert.Contains(t, no.Detail, "bars 99 to 99 are imagined")
	var c Chart
	ask(t, srv, "GET", "/api/charts/6", nil, &c)
	assert.Nil(t, c.Plan.Imagined)
}
