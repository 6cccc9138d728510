package hostile

import (
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

// A hundred heads that promise a backup of 500 MB each and bring one byte cost next to
// nothing, and do not keep the program from ending.
func TestPromisedBodies(t *testing.T) {
	p := start(t, "serve", t.TempDir())
	p.reset()
	before := p.peak()
	for _, path := range []string{"/api/restore", "/api/lines", "/api/imports", "/api/charts"} {
		for range 25 {
			conn, err := net.Dial("tcp", strings.TrimPrefix(p.url, "http://"))
			require.NoError(t, err)
			defer conn.Close()
			promised := 500 << 20
			if path != "/api/restore" {
				promised = 1 << 20
			}
			fmt.Fprintf(conn, "POST %s HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: %d\r\n\r\n{", path, promised)
		}
	}
	time.Sleep(500 * time.Millisecond)
	peak := p.peak()
	assert.Less(t, peak, 150)
	ended := p.end()
	assert.Less(t, ended, maxEnding)
	t.Logf("100 half requests: %d MB before, %d MB at the most, ended in %d ms", before, peak, ended.Milliseconds())
}

// Nested JSON costs no more than other JSON of its size, for every operation that takes a body.
func TestNestedBodies(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	all, _ := operations(t, p)
	deep := strings.Repeat("[", 1<<20-8)
	tried := 0
	before := p.busy()
	for _, op := range all {
		if op.method != "POST" && op.method != "PUT" {
			continue
		}
		tried++
		status, _ := p.ask(op.method, strings.ReplaceAll(op.path, "{id}", "1"), deep)
		assert.Contains(t, []int{400, 404, 413, 422}, status, op.path)
	}
	used := p.busy() - before
	assert.Less(t, used/time.Duration(tried), 100*time.Millisecond)
	assert.Less(t, p.peak(), maxResident)
	t.Logf("%d operations with 1 MB of [: %d ms of processor each, %d MB at the most", tried, (used / time.Duration(tried)).Milliseconds(), p.peak())
}

// Hundreds of kept sounds leave as one backup, and come back from it, in little memory.
func TestManySoundsAreBackedUpAndRestored(t *testing.T) {
	p := start(t, "serve", t.TempDir())
	const sounds, size = 500, 1 << 20
	wav := make([]byte, size)
	copy(wav, "RIFF\x00\x00\x10\x00WAVEfmt ")
	for i := range sounds {
		copy(wav[100:], fmt.Sprintf("%06d", i)) // none is like another, else one file is all of them
		status, data := p.ask("POST", "/api/takes", map[string]any{"title": fmt.Sprint("take ", i), "mode": "", "stage": 0, "tempo": 90, "changes": 1, "landed": 1, "good": "", "try": "",
			"line":  map[string]any{"title": "t", "key": "C", "feel": "shuffle", "tempo": 90, "beats": 4, "text": "| C7 |", "low": 0, "high": 4, "notes": []any{}},
			"heard": []any{map[string]any{"at": 0, "length": 480, "pitch": 60}}})
		require.Equal(t, 201, status, string(data))
		status, data = p.ask("PUT", fmt.Sprintf("/api/takes/%d/sound", i+1), wav, "Content-Type", "audio/wav")
		require.Less(t, status, 300, string(data))
	}
	p.reset()
	resp, err := http.Get(p.url + "/api/backup")
	require.NoError(t, err)
	q := start(t, "serve", t.TempDir())
	q.reset()
	// From one program straight into another: nobody holds it whole.
	counted := &counting{Reader: resp.Body}
	req, err := http.NewRequest("POST", q.url+"/api/restore", counted)
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/octet-stream")
	now := time.Now()
	answer, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	said, _ := io.ReadAll(answer.Body)
	answer.Body.Close()
	require.Equal(t, 200, answer.StatusCode, string(said))
	took := time.Since(now)
	status, data := q.ask("GET", "/api/takes/500/sound", nil)
	assert.Equal(t, 200, status)
	assert.Equal(t, wav, data)
	assert.Less(t, p.peak(), 150)
	assert.Less(t, q.peak(), 150)
	assert.Greater(t, counted.n, int64(sounds*size))
	t.Logf("%d sounds, a backup of %d MB: written in %d MB, restored in %d MB, both in %.1f s", sounds, counted.n>>20, p.peak(), q.peak(), took.Seconds())
}

type counting struct {
	io.Reader
	n int64
}

func (c *counting) Read(p []byte) (int, error) {
	n, err := c.Reader.Read(p)
	c.n += int64(n)
	return n, err
}
