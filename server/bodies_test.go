package server

import (
	"bufio"
	"fmt"
	"io"
	"net"
	"net/http"
	"runtime"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/store"
)

// JSON is deep by what stands outside its texts.
func TestDeeper(t *testing.T) {
	nest := func(n int) string { return strings.Repeat("[", n) + strings.Repeat("]", n) }
	for text, want := range map[string]bool{
		"": false, "{}": false, nest(64): false, nest(65): true, strings.Repeat("[", 65): true,
		`"` + strings.Repeat("[", 100) + `"`:      false,
		`"\"` + strings.Repeat("{", 100) + `"`:    false,
		`"\\",` + strings.Repeat("{", 65):         true,
		strings.Repeat("[]", 1000):                false,
		strings.Repeat(`{"a":`, 65):               true,
		strings.Repeat("]", 10) + nest(64):        false,
		`[` + strings.Repeat(`"[",`, 500) + `""]`: false,
	} {
		assert.Equal(t, want, deeper([]byte(text), 64), text)
	}
}

// Whatever is asked with nested JSON is refused at once and in words, by every operation.
func TestNestedBodiesAreRefused(t *testing.T) {
	srv := serve(t)
	deep := strings.Repeat(`{"a":[`, 20_000)
	for _, op := range changing(t, srv.URL) {
		if strings.HasSuffix(op[1], "/restore") || strings.HasSuffix(op[1], "/sound") || op[1] == "/api/imports" {
			continue // a backup is read part by part, and files are not JSON: see below
		}
		start := time.Now()
		resp, data := from(t, op[0], srv.URL+op[1], "", deep)
		assert.Equal(t, 400, resp.StatusCode, op)
		assert.Contains(t, data, "nested more than 64 deep", op)
		assert.Less(t, time.Since(start), time.Second, op)
	}
	start := time.Now()
	for path, want := range map[string]int{"/api/restore": 422, "/api/imports?name=a.json&as=line&chart=6": 422} {
		resp, err := http.Post(srv.URL+path, "application/octet-stream", strings.NewReader(deep))
		require.NoError(t, err)
		resp.Body.Close()
		assert.Equal(t, want, resp.StatusCode, path)
	}
	assert.Less(t, time.Since(start), 2*time.Second)
}

// A head that promises much and brings nothing costs nothing.
func TestPromisedBodiesTakeNoMemory(t *testing.T) {
	srv := serve(t)
	var before, after runtime.MemStats
	runtime.GC()
	runtime.ReadMemStats(&before)
	conns := []net.Conn{}
	for _, path := range []string{"/api/restore", "/api/imports", "/api/lines", "/api/charts"} {
		for range 25 {
			conn, err := net.Dial("tcp", strings.TrimPrefix(srv.URL, "http://"))
			require.NoError(t, err)
			fmt.Fprintf(conn, "POST %s HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: %d\r\n\r\n{", path, 1<<20)
			conns = append(conns, conn)
		}
	}
	time.Sleep(300 * time.Millisecond)
	runtime.ReadMemStats(&after)
	assert.Less(t, int64(after.HeapAlloc)-int64(before.HeapAlloc), int64(20<<20), "a hundred half requests")
	for _, c := range conns {
		c.Close()
	}
}

// A large backup comes in part by part and is not cut off for being slow.
func TestALongBodyMayBeSlow(t *testing.T) {
	srv := serve(t)
	whole, err := http.Get(srv.URL + "/api/backup")
	require.NoError(t, err)
	data, err := io.ReadAll(whole.Body)
	whole.Body.Close()
	require.NoError(t, err)
	conn, err := net.Dial("tcp", strings.TrimPrefix(srv.URL, "http://"))
	require.NoError(t, err)
	defer conn.Close()
	fmt.Fprintf(conn, "POST /api/restore HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/octet-stream\r\nContent-Length: %d\r\n\r\n", len(data))
	for i, part := 0, len(data)/7+1; i < len(data); i += part {
		_, err := conn.Write(data[i:min(len(data), i+part)])
		require.NoError(t, err)
		time.Sleep(60 * time.Millisecond)
	}
	resp, err := http.ReadResponse(bufio.NewReader(conn), nil)
	require.NoError(t, err)
	defer resp.Body.Close()
	said, _ := io.ReadAll(resp.Body)
	assert.Equal(t, 200, resp.StatusCode, string(said))
}

// What has nothing in it does not empty what is there, unless it is meant.
func TestAnEmptyBackupAsksFirst(t *testing.T) {
	nothing, err := store.Open(t.TempDir())
	require.NoError(t, err)
	srv, empty := serve(t), serveStore(t, nothing)
	resp, err := http.Get(empty.URL + "/api/backup")
	require.NoError(t, err)
	none, _ := io.ReadAll(resp.Body)
	resp.Body.Close()
	restore := func(query string) (int, string) {
		resp, err := http.Post(srv.URL+"/api/restore"+query, "application/octet-stream", strings.NewReader(string(none)))
		require.NoError(t, err)
		defer resp.Body.Close()
		data, _ := io.ReadAll(resp.Body)
		return resp.StatusCode, string(data)
	}
	status, says := restore("")
	assert.Equal(t, 409, status)
	assert.Contains(t, says, "would empty what is here")
	var charts []ChartRow
	ask(t, srv, "GET", "/api/charts", nil, &charts)
	assert.NotEmpty(t, charts)
	status, says = restore("?empty=yes")
	assert.Equal(t, 200, status, says)
	ask(t, srv, "GET", "/api/charts", nil, &charts)
	assert.Empty(t, charts)
}

// What is remembered is bounded by its bytes.
func TestRecentIsBoundedByBytes(t *testing.T) {
	var r recent[int, string]
	for i := range 40 {
		r.put(i, "x", recentBytes/4)
		assert.LessOrEqual(t, r.bytes, recentBytes)
		assert.LessOrEqual(t, len(r.known), 4)
		_, ok := r.get(i)
		assert.True(t, ok, "the last is there")
	}
	r.put(99, "whole", recentBytes)
	_, ok := r.get(99)
	assert.False(t, ok)
	for i := range 40 {
		r.put(100+i, "x", 1)
	}
	assert.Len(t, r.known, mostRecent)
	assert.Equal(t, mostRecent, r.bytes)
	r.clear()
	assert.Zero(t, r.bytes)
}
