package hostile

import (
	"bufio"
	"bytes"
	"crypto/tls"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/gorilla/websocket"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/e2e/room"
)

// outside is somebody in the network, let in or not.
type outside struct {
	t      testing.TB
	at     string // host and port
	cookie string
}

// pale is a client that trusts any certificate and keeps nothing.
func pale() *http.Client {
	return &http.Client{Timeout: 15 * time.Second, Transport: &http.Transport{TLSClientConfig: &tls.Config{InsecureSkipVerify: true}, DisableKeepAlives: true},
		CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}
}

func (o outside) dial() net.Conn {
	o.t.Helper()
	c, err := tls.DialWithDialer(&net.Dialer{Timeout: 5 * time.Second}, "tcp", o.at, &tls.Config{InsecureSkipVerify: true})
	require.NoError(o.t, err)
	o.t.Cleanup(func() { c.Close() })
	return c
}

func (o outside) ask(method, path string, body []byte, head ...string) (int, string) {
	o.t.Helper()
	req, err := http.NewRequest(method, "https://"+o.at+path, bytes.NewReader(body))
	require.NoError(o.t, err)
	if o.cookie != "" {
		req.Header.Set("Cookie", o.cookie)
	}
	for i := 0; i < len(head); i += 2 {
		req.Header.Set(head[i], head[i+1])
	}
	resp, err := pale().Do(req)
	require.NoError(o.t, err, path)
	defer resp.Body.Close()
	text, _ := io.ReadAll(io.LimitReader(resp.Body, 1<<20))
	return resp.StatusCode, string(text)
}

// networked runs the program with its network open, and pairs a device.
func networked(t *testing.T) (p *program, stranger, device outside) {
	dir := t.TempDir()
	cmd := command(t, "demo", dir)
	cmd.Args = append(cmd.Args, "--network")
	p, ok := started(t, cmd)
	require.True(t, ok, p.errs.String())
	var state struct {
		Code      string
		Addresses []struct{ URL string }
	}
	_, data := p.ask("POST", "/api/network/pairing", nil)
	require.NoError(t, json.Unmarshal(data, &state))
	require.Equal(t, 1, len(state.Addresses))
	stranger = outside{t, strings.TrimPrefix(state.Addresses[0].URL, "https://"), ""}
	require.Contains(t, stranger.at, room.Address)
	resp, err := pale().PostForm("https://"+stranger.at+"/pair", url.Values{"code": {state.Code}, "name": {"phone"}})
	require.NoError(t, err)
	resp.Body.Close()
	require.Equal(t, 303, resp.StatusCode)
	device = stranger
	device.cookie = strings.SplitN(resp.Header.Get("Set-Cookie"), ";", 2)[0]
	status, _ := device.ask("GET", "/api/charts", nil)
	require.Equal(t, 200, status)
	require.NotContains(t, p.errs.String(), state.Code, "no code is in the log")
	require.NotContains(t, p.errs.String(), strings.SplitN(device.cookie, "=", 2)[1], "and no token")
	return p, stranger, device
}

// Whatever strangers send they learn nothing and change nothing, and who was let in goes on.
func TestStrangersInTheNetwork(t *testing.T) {
	if !room.Inside(t) {
		return
	}
	p, stranger, device := networked(t)
	_, before := p.ask("GET", "/api/charts", nil)
	all, _ := operations(t, p)
	// Every operation, asked by a stranger.
	for _, op := range all {
		path := strings.NewReplacer("{id}", "1", "{format}", "midi", "{layer}", "scale").Replace(op.path)
		status, text := stranger.ask(op.method, path, []byte("{}"), "Content-Type", "application/json", "If-Match", "*")
		assert.Equal(t, 401, status, op.path)
		assert.Less(t, len(text), 200, op.path)
	}
	for _, path := range []string{"/", "/index.html", "/notice.txt", "/manifest.webmanifest", "/api/ear", "/api/follow", "/api/backup", "/pair/../api/charts", "//api/charts", "/%2e%2e/api/charts", "/pair%2f..%2fapi/charts"} {
		status, text := stranger.ask("GET", path, nil)
		assert.Contains(t, []int{401, 400}, status, path)
		assert.NotContains(t, text, "Slipway")
	}
	// Random requests: methods, paths, heads, bodies.
	r := rand.New(rand.NewPCG(1, 2))
	words := []string{"GET", "POST", "PUT", "DELETE", "PATCH", "OPTIONS", "TRACE", "CONNECT", "x"}
	for range 400 {
		status, _ := try(stranger, fmt.Sprintf("%s /%s HTTP/1.%d\r\nHost: %s\r\nContent-Length: %d\r\nCookie: __Host-undaris=%s\r\n%s: %s\r\n\r\n%s", words[r.IntN(len(words))], junk(r, 20), r.IntN(3),
			[]string{stranger.at, stranger.at, junk(r, 12)}[r.IntN(3)], r.IntN(6000), junk(r, 50), junk(r, 6), junk(r, 30), junk(r, r.IntN(3000))))
		assert.Contains(t, []int{0, 303, 400, 401, 403, 405, 408, 413, 421, 431, 501, 505}, status)
	}
	p.alive()
	// A body that is promised and does not come holds up nobody for long; nor does a slow head.
	for _, head := range []string{"POST /pair HTTP/1.1\r\nHost: %s\r\nContent-Length: 4000\r\n\r\ncode=1", "POST /pair HTTP/1.1\r\nHost: %s\r\nContent-Length: 99999999999\r\n\r\n", "GET /pair HTTP/1.1\r\nHost: %s\r\nX: "} {
		began := time.Now()
		try(stranger, fmt.Sprintf(head, stranger.at))
		assert.Less(t, time.Since(began), 12*time.Second, head)
	}
	// Eight from one address and no more; who is in has place all the same.
	open := device.dial()
	fmt.Fprintf(open, "GET /api/players HTTP/1.1\r\nHost: %s\r\nCookie: %s\r\n\r\n", device.at, device.cookie)
	answers := bufio.NewReader(open)
	first, err := http.ReadResponse(answers, nil)
	require.NoError(t, err)
	io.Copy(io.Discard, first.Body)
	require.Equal(t, 200, first.StatusCode)
	held := 0
	for range 40 {
		c, err := net.DialTimeout("tcp", stranger.at, time.Second)
		if err != nil {
			continue
		}
		defer c.Close()
		c.SetReadDeadline(time.Now().Add(150 * time.Millisecond))
		if _, err := c.Read(make([]byte, 1)); os.IsTimeout(err) {
			held++
		}
	}
	assert.LessOrEqual(t, held, 8)
	assert.Greater(t, held, 0)
	fmt.Fprintf(open, "GET /api/players HTTP/1.1\r\nHost: %s\r\nCookie: %s\r\n\r\n", device.at, device.cookie)
	again, err := http.ReadResponse(answers, nil)
	require.NoError(t, err)
	assert.Equal(t, 200, again.StatusCode)
	time.Sleep(6 * time.Second)
	// Guessing ends after ten, from wherever it comes.
	_, data := p.ask("POST", "/api/network/pairing", nil)
	code := regexp.MustCompile(`"code":"(\d{8})"`).FindStringSubmatch(string(data))[1]
	for range 10 {
		status, _ := stranger.ask("POST", "/pair", []byte(url.Values{"code": {fmt.Sprintf("%08d", r.IntN(1e8))}}.Encode()), "X-Forwarded-For", fmt.Sprintf("192.168.77.%d", r.IntN(250)))
		assert.Equal(t, 403, status)
	}
	status, _ := stranger.ask("POST", "/pair", []byte("code="+code))
	assert.Equal(t, 403, status)
	_, after := p.ask("GET", "/api/charts", nil)
	assert.Equal(t, string(before), string(after))
	assert.Less(t, p.peak(), maxResident)
	p.alive()
}

// try sends text as it is and tells how it was answered; 0 where it was cut off.
func try(o outside, text string) (int, string) {
	c, err := tls.DialWithDialer(&net.Dialer{Timeout: 5 * time.Second}, "tcp", o.at, &tls.Config{InsecureSkipVerify: true})
	if err != nil {
		return 0, ""
	}
	defer c.Close()
	c.SetDeadline(time.Now().Add(15 * time.Second))
	go io.WriteString(c, text)
	resp, err := http.ReadResponse(bufio.NewReader(c), nil)
	if err != nil {
		return 0, ""
	}
	defer resp.Body.Close()
	body, _ := io.ReadAll(io.LimitReader(resp.Body, 1<<16))
	return resp.StatusCode, string(body)
}

func junk(r *rand.Rand, n int) string {
	const of = "abcXYZ019/._-%=;&?{}[]\"' "
	out := make([]byte, n)
	for i := range out {
		out[i] = of[r.IntN(len(of)-1)]
	}
	return strings.ReplaceAll(string(out), " ", "")
}

// A device that was let in does what a page does, is asked where it comes from, and does not reach what is the laptop's.
func TestADeviceInTheNetwork(t *testing.T) {
	if !room.Inside(t) {
		return
	}
	p, _, device := networked(t)
	for _, origin := range []string{"https://evil.test", "http://" + device.at, "null", "https://" + room.Address} {
		status, _ := device.ask("POST", "/api/charts", []byte("{}"), "Origin", origin)
		assert.Equal(t, 403, status, origin)
		dialer := websocket.Dialer{TLSClientConfig: &tls.Config{InsecureSkipVerify: true}}
		_, resp, err := dialer.Dial("wss://"+device.at+"/api/follow", http.Header{"Cookie": {device.cookie}, "Origin": {origin}})
		assert.Error(t, err)
		if resp != nil {
			assert.Equal(t, 403, resp.StatusCode, origin)
		}
	}
	for _, path := range []string{"GET /api/backup", "POST /api/restore", "POST /api/imports", "PUT /api/network", "POST /api/players", "PUT /api/recordings/1/file"} {
		method, path, _ := strings.Cut(path, " ")
		status, _ := device.ask(method, path, []byte("{}"), "Content-Type", "application/json")
		assert.Equal(t, 403, status, path)
	}
	// Sockets that say too much are closed, and others go on.
	dial := func() *websocket.Conn {
		dialer := websocket.Dialer{TLSClientConfig: &tls.Config{InsecureSkipVerify: true}}
		c, _, err := dialer.Dial("wss://"+device.at+"/api/follow", http.Header{"Cookie": {device.cookie}, "Origin": {"https://" + device.at}})
		require.NoError(t, err)
		t.Cleanup(func() { c.Close() })
		return c
	}
	good := dial()
	for _, bad := range []string{strings.Repeat("x", 1<<20), strings.Repeat(`{"do":"play"}`, 1), `{"lead":{"playing":true}}`, `{"news":` + strings.Repeat("[", 8000)} {
		c := dial()
		for range 200 {
			if c.WriteMessage(websocket.TextMessage, []byte(bad)) != nil {
				break
			}
		}
	}
	good.SetReadDeadline(time.Now().Add(5 * time.Second))
	require.NoError(t, good.WriteMessage(websocket.TextMessage, []byte(`{"ping":1}`)))
	for {
		var m struct{ Pong *float64 }
		require.NoError(t, good.ReadJSON(&m))
		if m.Pong != nil {
			break
		}
	}
	// Put out, all that it has open is closed at once, and it is a stranger.
	_, data := p.ask("GET", "/api/network", nil)
	id := regexp.MustCompile(`"id":"([0-9a-f]+)"`).FindStringSubmatch(string(data))[1]
	began := time.Now()
	p.ask("DELETE", "/api/network/devices/"+id, nil)
	for {
		if _, _, err := good.ReadMessage(); err != nil {
			break
		}
	}
	assert.Less(t, time.Since(began), time.Second)
	status, _ := device.ask("GET", "/api/charts", nil)
	assert.Equal(t, 401, status)
	assert.Less(t, p.peak(), maxResident)
	p.alive()
}

// A backup has neither key nor sessions in it, and killed in the middle of pairing nothing is half there.
func TestTheNetworkIsInNoBackup(t *testing.T) {
	if !room.Inside(t) {
		return
	}
	p, _, device := networked(t)
	_, backup := p.ask("GET", "/api/backup?recordings=yes", nil)
	dir := p.cmd.Args[slices.Index(p.cmd.Args, "--data")+1]
	for _, name := range []string{"key.pem", "devices.json"} {
		kept, err := os.ReadFile(filepath.Join(dir, "network", name))
		require.NoError(t, err)
		for line := range strings.Lines(string(kept)) {
			if line = strings.TrimSpace(line); len(line) > 24 && !strings.Contains(line, "-----") {
				assert.NotContains(t, string(backup), line, name)
			}
		}
	}
	// Restored, whoever was let in is a stranger.
	status, _ := p.ask("POST", "/api/restore", backup)
	require.Equal(t, 200, status)
	code, _ := device.ask("GET", "/api/charts", nil)
	assert.Equal(t, 401, code)
	p.kill()
	entries, err := os.ReadDir(filepath.Join(dir, "network"))
	require.NoError(t, err)
	for _, e := range entries {
		assert.Contains(t, []string{"key.pem", "certificate.pem", "devices.json"}, e.Name())
	}
}
