package hostile

import (
	"fmt"
	"io"
	"math/rand/v2"
	"net"
	"net/http"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// nothing is so many bytes that nobody holds.
type nothing struct{ left int64 }

func (n *nothing) Read(p []byte) (int, error) {
	if n.left <= 0 {
		return 0, io.EOF
	}
	k := min(int64(len(p)), n.left)
	n.left -= k
	return int(k), nil
}

// A file of 300 MB is taken and given in pieces without ever being whole in memory; what promises more than it may, or hides a
// request in itself, or stops in the middle, changes nothing; ranges of any kind are answered or refused.
func TestFilesOfRecordings(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	addr := strings.TrimPrefix(p.url, "http://")
	at := p.url + "/api/recordings/1/file"
	put := func(body io.Reader, length int64) int {
		req, err := http.NewRequest("PUT", at, body)
		require.NoError(t, err)
		req.ContentLength = length
		req.Header.Set("Content-Type", "audio/wav")
		resp, err := http.DefaultClient.Do(req)
		if err != nil {
			return 0
		}
		resp.Body.Close()
		return resp.StatusCode
	}
	p.reset()
	begun := time.Now()
	const large = 300 << 20
	require.Equal(t, 200, put(&nothing{large}, large))
	took := time.Since(begun)
	resp, err := http.Get(at)
	require.NoError(t, err)
	got, err := io.Copy(io.Discard, resp.Body)
	resp.Body.Close()
	require.NoError(t, err)
	assert.EqualValues(t, large, got)
	assert.Less(t, p.peak(), 150)
	t.Logf("300 MB taken in %d ms, %d MB at the most", took.Milliseconds(), p.peak())

	assert.NotEqual(t, 200, put(strings.NewReader("x"), 501<<20), "more than is taken")
	assert.NotEqual(t, 200, put(&nothing{502 << 20}, -1), "more than is taken, without saying so")
	for range 8 { // cut off on the way
		conn, err := net.Dial("tcp", addr)
		require.NoError(t, err)
		fmt.Fprintf(conn, "PUT /api/recordings/1/file HTTP/1.1\r\nHost: %s\r\nContent-Length: 100000000\r\n\r\n%s", addr, strings.Repeat("x", 100_000))
		conn.Close()
	}
	rng := rand.New(rand.NewPCG(1, 2))
	var each sync.WaitGroup
	for range 40 {
		asked := []string{"bytes=0-0", "bytes=-1", "bytes=5-2", "bytes=99999999999-", "bytes=" + strings.Repeat("0-1,", 3000) + "7-8", "lines=1-2", "bytes=-", "bytes=0-,0-,0-,0-"}[rng.IntN(8)]
		each.Go(func() {
			req, _ := http.NewRequest("GET", at, nil)
			req.Header.Set("Range", asked)
			if resp, err := http.DefaultClient.Do(req); err == nil {
				_, _ = io.CopyN(io.Discard, resp.Body, 1<<20)
				resp.Body.Close()
				assert.Less(t, resp.StatusCode, 500, asked)
			}
		})
	}
	each.Wait()
	p.alive()
	_, data := p.ask("GET", "/api/recordings/1", nil)
	require.Contains(t, string(data), fmt.Sprint(large), "what was cut off took no one's place")
	assert.Less(t, p.peak(), 150)
}
