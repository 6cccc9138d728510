package server

import (
	"bytes"
	"compress/gzip"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/store"
)

// A file of text is kept packed and sent in the smallest coding that a browser takes, or unpacked;
// each has a tag of its own, by which it is not sent twice.
func TestFilesAreSentPacked(t *testing.T) {
	const text = "let a = 'as it was written'"
	var packed bytes.Buffer
	w := gzip.NewWriter(&packed)
	_, _ = io.WriteString(w, text)
	w.Close()
	s, err := store.Open(t.TempDir())
	require.NoError(t, err)
	srv := httptest.NewServer(New(s, fstest.MapFS{
		"index.html":         {Data: []byte("<!doctype html>")},
		"index.html.br":      {Data: []byte("page by brotli")},
		"assets/a-1.js.br":   {Data: []byte("brotli")},
		"assets/a-1.js.gz":   {Data: packed.Bytes()},
		"sound/bank.sf3":     {Data: []byte("sound")},
		"assets/f-1.woff2":   {Data: []byte("font")},
		"assets/bad-1.js.gz": {Data: []byte("no gzip")},
	}, slog.New(slog.DiscardHandler)))
	defer srv.Close()
	defer s.Close()
	ask := func(path, accept, match string) (*http.Response, string) {
		req, err := http.NewRequest("GET", srv.URL+path, nil)
		require.NoError(t, err)
		req.Header.Set("Accept-Encoding", accept) // so that nothing is unpacked on the way
		if match != "" {
			req.Header.Set("If-None-Match", match)
		}
		resp, err := http.DefaultTransport.RoundTrip(req)
		require.NoError(t, err)
		defer resp.Body.Close()
		data, err := io.ReadAll(resp.Body)
		require.NoError(t, err)
		return resp, string(data)
	}
	tags := map[string]bool{}
	for _, c := range []struct{ path, accept, coding, body, kind string }{
		{"/assets/a-1.js", "gzip, deflate, br", "br", "brotli", "javascript"},
		{"/assets/a-1.js", "gzip, deflate, br;q=0", "gzip", packed.String(), "javascript"},
		{"/assets/a-1.js", "gzip;q=0.5", "gzip", packed.String(), "javascript"},
		{"/assets/a-1.js", "identity", "", text, "javascript"},
		{"/assets/a-1.js", "*;q=0", "", text, "javascript"},
		{"/bench/6", "br", "br", "page by brotli", "text/html"},
		{"/bench/6", "gzip", "", "<!doctype html>", "text/html"},
		{"/sound/bank.sf3", "br, gzip", "", "sound", ""},
		{"/assets/f-1.woff2", "br", "", "font", "font/woff2"},
	} {
		resp, body := ask(c.path, c.accept, "")
		assert.Equal(t, []any{200, c.coding, c.body}, []any{resp.StatusCode, resp.Header.Get("Content-Encoding"), body}, c)
		assert.Contains(t, resp.Header.Get("Content-Type"), c.kind, c)
		assert.Equal(t, strings.HasSuffix(c.path, ".js"), resp.Header.Get("Vary") == "Accept-Encoding" && c.path != "/bench/6", c)
		tag := resp.Header.Get("ETag")
		require.NotEmpty(t, tag, c)
		tags[c.coding+tag] = true
		again, body := ask(c.path, c.accept, tag)
		assert.Equal(t, []any{http.StatusNotModified, ""}, []any{again.StatusCode, body}, c)
		other, _ := ask(c.path, c.accept, `"another"`)
		assert.Equal(t, 200, other.StatusCode, c)
	}
	assert.Len(t, tags, 7, "one for each way in which a file is sent")
	for _, gone := range []string{"/assets/bad-1.js", "/assets/none.js", "/manifest.webmanifest", "/favicon.ico", "/bench/6/robots.txt", "/.well-known/x.json", "/sound/none.sf3"} {
		resp, _ := ask(gone, "identity", "")
		assert.Equal(t, 404, resp.StatusCode, gone)
	}
}

// A page has one name, by which the browser keeps things for it; programs may use any name.
func TestAPageIsLedToItsOneName(t *testing.T) {
	srv := serve(t)
	port := srv.URL[strings.LastIndexByte(srv.URL, ':'):]
	still := http.Client{CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}
	for _, c := range []struct {
		host, path, dest string
		status           int
		to               string
	}{
		{"localhost" + port, "/bench/6?bar=2", "document", 307, srv.URL + "/bench/6?bar=2"},
		{"[::1]" + port, "/", "document", 307, srv.URL + "/"},
		{"127.0.0.1" + port, "/bench/6", "document", 200, ""},
		{"localhost" + port, "/api/charts", "document", 200, ""},
		{"localhost" + port, "/assets/a-123.js", "script", 200, ""},
		{"localhost" + port, "/bench/6", "", 200, ""},
		{"elsewhere.example" + port, "/bench/6", "document", 421, ""},
	} {
		req, err := http.NewRequest("GET", srv.URL+c.path, nil)
		require.NoError(t, err)
		req.Host = c.host
		if c.dest != "" {
			req.Header.Set("Sec-Fetch-Dest", c.dest)
		}
		resp, err := still.Do(req)
		require.NoError(t, err)
		resp.Body.Close()
		assert.Equal(t, []any{c.status, c.to}, []any{resp.StatusCode, resp.Header.Get("Location")}, c)
	}
}
