package hostile

import (
	"bufio"
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"math/rand/v2"
	"net"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sync/errgroup"

	"undaris/e2e/room"
)

// operation is one of the API's.
type operation struct {
	method, path string
	parameters   []struct{ Name, In string }
	body         map[string]any
}

// operations are all that the program describes itself.
func operations(t testing.TB, p *program) (all []operation, schemas map[string]any) {
	_, data := p.ask("GET", "/api/openapi.json", nil)
	var doc struct {
		Paths map[string]map[string]struct {
			Parameters  []struct{ Name, In string }
			RequestBody struct {
				Content map[string]struct{ Schema map[string]any }
			}
		}
		Components struct{ Schemas map[string]any }
	}
	require.NoError(t, json.Unmarshal(data, &doc))
	for _, path := range slices.Sorted(maps.Keys(doc.Paths)) {
		for _, method := range slices.Sorted(maps.Keys(doc.Paths[path])) {
			op := doc.Paths[path][method]
			all = append(all, operation{strings.ToUpper(method), path, op.Parameters, op.RequestBody.Content["application/json"].Schema})
		}
	}
	return all, doc.Components.Schemas
}

// A body longer than is taken, with a request hidden in it at every length where
// a reader might stop.
func TestHiddenRequests(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	all, _ := operations(t, p)
	var tried, ran atomic.Int64
	var each errgroup.Group
	each.SetLimit(12)
	for _, op := range all {
		if op.method == "GET" {
			continue
		}
		path := strings.ReplaceAll(op.path, "{id}", "1")
		for _, at := range []int{1 << 20, 8 << 20} {
			for _, chunked := range []bool{false, true} {
				each.Go(func() error {
					hidden := "DELETE /api/charts/6 HTTP/1.1\r\nHost: 127.0.0.1\r\nIf-Match: *\r\n\r\n"
					body := strings.Repeat(" ", at) + hidden + strings.Repeat(" ", 400_000)
					head := fmt.Sprintf("%s %s HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nIf-Match: *\r\n", op.method, path)
					if chunked {
						head += fmt.Sprintf("Transfer-Encoding: chunked\r\n\r\n%x\r\n%s\r\n0\r\n\r\n", len(body), body)
					} else {
						head += fmt.Sprintf("Content-Length: %d\r\n\r\n%s", len(body), body)
					}
					conn, err := net.Dial("tcp", strings.TrimPrefix(p.url, "http://"))
					if err != nil {
						return err
					}
					conn.SetDeadline(time.Now().Add(5 * time.Second))
					go io.WriteString(conn, head)
					answers := bufio.NewReader(conn)
					if first, err := http.ReadResponse(answers, nil); err == nil {
						io.Copy(io.Discard, first.Body)
						assert.Less(t, first.StatusCode, 500, path)
						if _, err := http.ReadResponse(answers, nil); err == nil {
							ran.Add(1)
						}
					}
					conn.Close()
					tried.Add(1)
					return nil
				})
			}
		}
	}
	require.NoError(t, each.Wait())
	status, _ := p.ask("GET", "/api/charts/6", nil)
	assert.Equal(t, 200, status, "the chart is still there")
	assert.Zero(t, ran.Load())
	t.Logf("%d refused bodies with a hidden request, %d ran", tried.Load(), ran.Load())
}

// chaos makes values of any kind, near what is asked or far from it.
type chaos struct {
	*rand.Rand
	schemas map[string]any
}

var words = []string{"", "C", "C7", "Bb7", "| C7 | F7 |", "Cm", "third", "minor-pentatonic", "shuffle", "eighths", "E2,A2,D3,G3,B3,E4", "stay", "NaN", "Inf", "-1", "0",
	"9223372036854775807", "1e309", "R", "b3", "*", "\u202e\u0000\u0007", strings.Repeat("x", 3000), strings.Repeat("| C7 ", 700), "<script>", "7-11 2.1 3:8", "true", "%", "a.mid", "null"}

func (c chaos) word() string { return words[c.IntN(len(words))] }

func (c chaos) number() any {
	return []any{0, 1, -1, 3, 4, 7, 11, 96, 960, 1 << 31, -1 << 31, 1 << 53, 4e11, 1e300, 0.5, -0.0001, json.Number("9223372036854775807"), json.Number("1e400")}[c.IntN(18)]
}

// value follows a schema most of the time.
func (c chaos) value(s map[string]any, depth int) any {
	if c.IntN(25) == 0 || depth > 6 {
		return []any{nil, c.word(), c.number(), true, []any{}, map[string]any{}}[c.IntN(6)]
	}
	if ref, ok := s["$ref"].(string); ok {
		next, _ := c.schemas[ref[strings.LastIndexByte(ref, '/')+1:]].(map[string]any)
		return c.value(next, depth+1)
	}
	switch s["type"] {
	case "object":
		out := map[string]any{}
		properties, _ := s["properties"].(map[string]any)
		for name, of := range properties {
			if c.IntN(8) > 0 {
				out[name] = c.value(of.(map[string]any), depth+1)
			}
		}
		return out
	case "array":
		items, _ := s["items"].(map[string]any)
		list := make([]any, c.IntN(5))
		for i := range list {
			list[i] = c.value(items, depth+1)
		}
		return list
	case "integer", "number":
		return c.number()
	case "boolean":
		return c.IntN(2) == 0
	}
	if choices, ok := s["enum"].([]any); ok && c.IntN(3) > 0 {
		return choices[c.IntN(len(choices))]
	}
	return c.word()
}

// files are real ones, of every kind that is read.
var files = sync.OnceValue(func() (all [][]byte) {
	paths, _ := filepath.Glob("../formats/testdata/*/*")
	for _, path := range paths {
		if data, err := os.ReadFile(path); err == nil && len(data) < 200_000 {
			all = append(all, data)
		}
	}
	return all
})

// file is a real one, whole or cut or with some bytes turned over, or mere words.
func (c chaos) file(some [][]byte) []byte {
	if c.IntN(8) == 0 {
		return []byte(c.word())
	}
	data := bytes.Clone(some[c.IntN(len(some))])
	if c.IntN(3) == 0 {
		data = data[:c.IntN(len(data)+1)]
	}
	for range c.IntN(12) * c.IntN(2) {
		if len(data) > 0 {
			data[c.IntN(len(data))] = byte(c.IntN(256))
		}
	}
	return data
}

// Requests at random to everything there is, with real files to whatever reads one: no crash, no
// fault, none that takes long.
func TestRandomRequests(t *testing.T) {
	if !room.Inside(t) { // some of them switch the network on
		return
	}
	for _, seed := range []uint64{11, 29} {
		t.Run(fmt.Sprint(seed), func(t *testing.T) { randomRequests(t, seed) })
	}
}

// documents are backups and what travels between players, by the operation that reads them.
func documents(t testing.TB, p *program) map[string][][]byte {
	backups := [][]byte{}
	paths, _ := filepath.Glob("../store/testdata/backups/*")
	require.NotEmpty(t, paths)
	for _, path := range paths {
		data, err := os.ReadFile(path)
		require.NoError(t, err)
		backups = append(backups, data)
	}
	_, whole := p.ask("GET", "/api/backup", nil)
	_, given := p.ask("POST", "/api/assignments", `{"title":"Week one","words":"","charts":[1],"licks":[1],"lines":[1],"exercises":[],"aims":[]}`)
	var made struct{ ID int }
	require.NoError(t, json.Unmarshal(given, &made), string(given))
	require.NotZero(t, made.ID, string(given))
	_, lesson := p.ask("GET", fmt.Sprintf("/api/assignments/%d/file", made.ID), nil)
	_, results := p.ask("GET", fmt.Sprintf("/api/assignments/%d/results", made.ID), nil)
	wav := make([]byte, 4000)
	copy(wav, "RIFF\x00\x00\x10\x00WAVEfmt ")
	return map[string][][]byte{"/api/restore": append(backups, whole, whole, whole), "/api/assignments/open": {lesson}, "/api/assignments/results": {results},
		"/api/takes/{id}/sound": {wav}, "/api/imports": files()}
}

func randomRequests(t *testing.T, seed uint64) {
	p := start(t, "demo", t.TempDir())
	all, schemas := operations(t, p)
	read := documents(t, p)
	all = append(all, operation{method: "POST", path: "/api/restore"})
	c := chaos{rand.New(rand.NewPCG(7, seed)), schemas}
	statuses := map[int]int{}
	var slowest time.Duration
	const requests = 10_000
	sent := map[string]int{}
	for i := range requests {
		op := all[c.IntN(len(all))]
		if op.method == "DELETE" && c.IntN(4) > 0 {
			continue
		}
		path := strings.ReplaceAll(op.path, "{id}", []string{"1", "2", "3", "0", "99", "-1", "x", "99999999999999999999"}[c.IntN(8)])
		q := url.Values{}
		for _, x := range op.parameters {
			if x.In == "query" && c.IntN(5) > 0 {
				v := c.word()
				if c.IntN(2) == 0 {
					v = fmt.Sprint(c.number())
				}
				q.Add(x.Name, v)
			}
		}
		var body any
		if op.method == "POST" || op.method == "PUT" {
			data, _ := json.Marshal(c.value(op.body, 0))
			body = string(data)
			if c.IntN(20) == 0 {
				body = string(data[:c.IntN(len(data)+1)])
			}
			if some := read[op.path]; some != nil {
				sent[op.path]++
				body = c.file(some)
			}
		}
		now := time.Now()
		status, data := p.ask(op.method, path+"?"+q.Encode(), body, "If-Match", []string{"*", `"1"`, "", "x"}[c.IntN(4)])
		slowest = max(slowest, time.Since(now))
		statuses[status]++
		if status == 500 || !utf8OrBinary(data, op) {
			require.Fail(t, "a fault", "request %d: %s %s?%s\n%v\n%s\n%s", i, op.method, path, q.Encode(), body, data, tail(p.errs.String()))
		}
	}
	p.alive()
	for path := range read {
		assert.Greater(t, sent[path], 20, path)
	}
	for path := range map[string]bool{"/api/charts": true, "/api/licks": true, "/api/lines": true} {
		status, data := p.ask("GET", path, nil)
		assert.Equal(t, 200, status, path)
		var rows []struct {
			ID      uint
			Problem string
		}
		require.NoError(t, json.Unmarshal(data, &rows))
		for _, row := range rows {
			one, answer := p.ask("GET", fmt.Sprintf("%s/%d", path, row.ID), nil)
			assert.Equal(t, 200, one, "what was kept can be opened: %s", answer)
		}
	}
	t.Logf("%d requests, real files among them %v, statuses %v, slowest %d ms, peak %d MB", requests, sent, statuses, slowest.Milliseconds(), p.peak())
	assert.LessOrEqual(t, p.peak(), maxResident)
	assert.LessOrEqual(t, slowest, 2*maxWork)
}

// utf8OrBinary: what is no file is JSON.
func utf8OrBinary(data []byte, op operation) bool {
	if strings.HasSuffix(op.path, "/chordpro") && bytes.HasPrefix(data, []byte("{title:")) {
		return true
	}
	return len(data) == 0 || bytes.HasPrefix(data, []byte("MThd")) || data[0] != '{' && data[0] != '[' || json.Valid(data)
}
