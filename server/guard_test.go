package server

import (
	"bufio"
	"fmt"
	"io"
	"net"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is left of a refused body must never be taken for the next request.
func TestTheRestOfARefusedBodyIsNoRequest(t *testing.T) {
	hidden := "DELETE /api/charts/6 HTTP/1.1\r\nHost: 127.0.0.1\r\nIf-Match: *\r\n\r\n"
	for name, send := range map[string]func(path string, limit int) string{
		"stated length": func(path string, limit int) string {
			body := strings.Repeat("x", limit) + hidden + strings.Repeat("y", 500_000)
			return fmt.Sprintf("POST %s HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/octet-stream\r\nContent-Length: %d\r\n\r\n%s", path, len(body), body)
		},
		"chunked": func(path string, limit int) string {
			chunk := strings.Repeat("x", limit) + hidden + strings.Repeat("y", 500_000)
			return fmt.Sprintf("POST %s HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/octet-stream\r\nTransfer-Encoding: chunked\r\n\r\n%x\r\n%s\r\n0\r\n\r\n", path, len(chunk), chunk)
		},
	} {
		for path, limit := range map[string]int{"/api/imports?name=a.mid": maxImport, "/api/lines": maxImport, "/api/charts": maxBody, "/api/nothing": maxBody, "/": maxBody} {
			srv := serve(t)
			conn, err := net.Dial("tcp", srv.Listener.Addr().String())
			require.NoError(t, err)
			conn.SetDeadline(time.Now().Add(5 * time.Second))
			go io.WriteString(conn, send(path, limit))
			answers := bufio.NewReader(conn)
			first, err := http.ReadResponse(answers, nil)
			require.NoError(t, err, name+path)
			assert.Contains(t, []int{413, 404, 405}, first.StatusCode, name+path)
			if first.StatusCode == 413 {
				assert.True(t, first.Close, "%s %s: the connection ends with the refusal", name, path)
				data, _ := io.ReadAll(first.Body)
				assert.Contains(t, string(data), "MB", name+path)
			}
			io.Copy(io.Discard, first.Body)
			_, err = http.ReadResponse(answers, nil)
			assert.Error(t, err, "%s %s: nothing else is answered", name, path)
			conn.Close()
			assert.Equal(t, 200, ask(t, srv, "GET", "/api/charts/6", nil, nil).StatusCode, name+path)
		}
	}
}

// Another site may make the browser ask, also where it cannot read the answer.
func TestOtherSitesAreRefused(t *testing.T) {
	srv := serve(t)
	for site, want := range map[string]int{"": 200, "same-origin": 200, "none": 200, "cross-site": 403, "same-site": 403, "nonsense": 403} {
		for _, path := range []string{"/api/charts", "/api/charts/6/files/midi?choruses=1", "/api/openapi.json"} {
			req, _ := http.NewRequest("GET", srv.URL+path, nil)
			if site != "" {
				req.Header.Set("Sec-Fetch-Site", site)
			}
			resp, err := http.DefaultClient.Do(req)
			require.NoError(t, err)
			resp.Body.Close()
			assert.Equal(t, want, resp.StatusCode, path+" from "+site)
		}
		req, _ := http.NewRequest("GET", srv.URL+"/charts", nil) // a link to the application may stand anywhere
		req.Header.Set("Sec-Fetch-Site", site)
		resp, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		resp.Body.Close()
		assert.Equal(t, 200, resp.StatusCode, site)
	}
}
