package server

import (
	"encoding/json"
	"io"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What comes first is what each would be answered alone, headers and all; the map comes along where the page is the Bench.
func TestWhatIsAskedFirst(t *testing.T) {
	srv := serve(t)
	var rows []ChartRow
	ask(t, srv, "GET", "/api/charts", nil, &rows)
	for referer, maps := range map[string][]string{
		"":                                      nil,
		srv.URL + "/licks":                      nil,
		srv.URL + "/":                           {pathOf(rows[0].ID)},
		srv.URL + "/bench":                      {pathOf(rows[0].ID)},
		srv.URL + "/bench/3?step=2":             {"/api/charts/3/map"},
		srv.URL + "/bench/999":                  nil, // told by itself
		srv.URL + "/bench/3?own=5-8":            nil, // another map
		"::":                                    nil,
		srv.URL + "/bench/99999999999999999999": nil,
	} {
		req, err := http.NewRequest("GET", srv.URL+"/api/first", nil)
		require.NoError(t, err)
		req.Header.Set("Referer", referer)
		resp, err := srv.Client().Do(req)
		require.NoError(t, err)
		var first First
		require.NoError(t, json.NewDecoder(resp.Body).Decode(&first), referer)
		resp.Body.Close()
		require.Len(t, first.Answers, len(everyPlace)+len(maps), referer)
		for i, path := range append(everyPlace[:len(everyPlace):len(everyPlace)], maps...) {
			alone, err := srv.Client().Get(srv.URL + path)
			require.NoError(t, err)
			body, err := io.ReadAll(alone.Body)
			require.NoError(t, err)
			alone.Body.Close()
			got := first.Answers[i]
			assert.Equal(t, path, got.Path, referer)
			assert.JSONEq(t, string(body), string(got.Body), path)
			for _, name := range []string{"Etag", "Total-Count", "Content-Type", databaseHeader} {
				assert.Equal(t, alone.Header.Get(name), got.Headers[http.CanonicalHeaderKey(name)], "%s %s", path, name)
			}
		}
	}
}

func pathOf(chart uint) string {
	text, _ := json.Marshal(chart)
	return "/api/charts/" + string(text) + "/map"
}
