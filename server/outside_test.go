package server

import (
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
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

	"undaris/demo"
	"undaris/network"
	"undaris/store"
)

// twoWays serves the demo to this machine, and the same to a device.
func twoWays(t *testing.T) (laptop, device *httptest.Server) {
	s, err := store.Open(t.TempDir())
	require.NoError(t, err)
	require.NoError(t, demo.Fill(s))
	n := network.New(t.TempDir(), s.Identity, slog.New(slog.DiscardHandler))
	handler := On(n, s, front, slog.New(slog.DiscardHandler))
	require.NoError(t, n.Serve(handler))
	laptop = httptest.NewServer(handler)
	device = httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		handler.ServeHTTP(w, r.WithContext(network.As(r.Context(), network.Device{ID: "1", Name: "phone"})))
	}))
	t.Cleanup(func() { laptop.Close(); device.Close(); n.Close(); s.Close() })
	return laptop, device
}

// Of every operation there is it is said here whether a device may do it.
func TestWhatADeviceMay(t *testing.T) {
	_, device := twoWays(t)
	only := []string{
		"GET /api/backup", "POST /api/restore", "POST /api/imports", "PUT /api/recordings/{id}/file",
		"POST /api/assignments/open", "POST /api/assignments/results",
		"POST /api/players", "PUT /api/players/{id}", "PUT /api/players/{id}/here", "DELETE /api/players/{id}", "POST /api/players/{id}/restore",
		"GET /api/network", "PUT /api/network", "POST /api/network/pairing", "DELETE /api/network/pairing", "DELETE /api/network/devices/{id}",
	}
	var all []string
	var document struct{ Paths map[string]map[string]any }
	ask(t, device, "GET", "/api/openapi.json", nil, &document)
	for path, ways := range document.Paths {
		for method := range ways {
			all = append(all, strings.ToUpper(method)+" "+path)
		}
	}
	// Those that are none of Huma's are found in the source.
	files, err := filepath.Glob("*.go")
	require.NoError(t, err)
	route := regexp.MustCompile(`engine\.(GET|POST|PUT|DELETE)\("([^"]+)"`)
	for _, file := range files {
		text, err := os.ReadFile(file)
		require.NoError(t, err)
		for _, m := range route.FindAllStringSubmatch(string(text), -1) {
			all = append(all, m[1]+" "+regexp.MustCompile(`:(\w+)`).ReplaceAllString(m[2], "{$1}"))
		}
	}
	require.Greater(t, len(all), 110)
	for _, o := range only {
		assert.Contains(t, all, o)
	}
	for _, o := range all {
		method, path, _ := strings.Cut(o, " ")
		path = strings.NewReplacer("{id}", "999999", "{format}", "midi", "{layer}", "scale").Replace(path)
		req, err := http.NewRequest(method, device.URL+path, strings.NewReader("{}"))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "application/json")
		resp, err := http.DefaultClient.Do(req)
		require.NoError(t, err, o)
		text, _ := io.ReadAll(io.LimitReader(resp.Body, 1000))
		resp.Body.Close()
		assert.Equal(t, slices.Contains(only, o), resp.StatusCode == http.StatusForbidden, "%s: %d %s", o, resp.StatusCode, text)
		if resp.StatusCode == http.StatusForbidden {
			assert.Contains(t, string(text), "at the laptop", o)
		}
	}
}

// The laptop switches the network on and off.
func TestTheNetworkIsSwitched(t *testing.T) {
	laptop, _ := twoWays(t)
	var state network.State
	ask(t, laptop, "GET", "/api/network", nil, &state)
	assert.False(t, state.On)
	for _, bad := range []string{"0.0.0.0", "8.8.8.8", "127.0.0.1", "x"} {
		assert.Equal(t, 422, ask(t, laptop, "PUT", "/api/network", NetworkBody{true, []string{bad}}, nil).StatusCode, bad)
	}
	assert.Equal(t, 409, ask(t, laptop, "POST", "/api/network/pairing", nil, nil).StatusCode, "it is off")
	// An address that is private and not this machine's is waited for.
	require.Equal(t, 200, ask(t, laptop, "PUT", "/api/network", NetworkBody{true, []string{"10.255.255.254"}}, &state).StatusCode)
	assert.True(t, state.On)
	assert.NotEmpty(t, state.Trouble)
	require.Equal(t, 200, ask(t, laptop, "POST", "/api/network/pairing", nil, &state).StatusCode)
	assert.Regexp(t, `^\d{8}$`, state.Code)
	require.Equal(t, 200, ask(t, laptop, "DELETE", "/api/network/pairing", nil, &state).StatusCode)
	assert.Empty(t, state.Code)
	assert.Equal(t, 404, ask(t, laptop, "DELETE", "/api/network/devices/none", nil, nil).StatusCode)
	require.Equal(t, 200, ask(t, laptop, "PUT", "/api/network", NetworkBody{false, []string{}}, &state).StatusCode)
	assert.False(t, state.On)
	// Where there is none it says so.
	srv := serve(t)
	assert.Equal(t, 503, ask(t, srv, "PUT", "/api/network", NetworkBody{true, []string{}}, nil).StatusCode)
	assert.Equal(t, 200, ask(t, srv, "GET", "/api/network", nil, &state).StatusCode)
}

// joinedTo is somebody who follows.
type joinedTo struct {
	t *testing.T
	*websocket.Conn
}

func join(t *testing.T, srv *httptest.Server) joinedTo {
	c, _, err := websocket.DefaultDialer.Dial(strings.Replace(srv.URL, "http", "ws", 1)+"/api/follow", nil)
	require.NoError(t, err)
	t.Cleanup(func() { _ = c.Close() })
	return joinedTo{t, c}
}

func (c joinedTo) say(text string) {
	c.t.Helper()
	require.NoError(c.t, c.WriteMessage(websocket.TextMessage, []byte(text)))
}

func (c joinedTo) hears(want string) {
	c.t.Helper()
	_ = c.SetReadDeadline(time.Now().Add(3 * time.Second))
	_, text, err := c.ReadMessage()
	require.NoError(c.t, err, want)
	assert.JSONEq(c.t, want, string(text))
}

// synced has what was said before been heard.
func (c joinedTo) synced() {
	c.t.Helper()
	c.say(`{"ping":1}`)
	_ = c.SetReadDeadline(time.Now().Add(3 * time.Second))
	var m joined
	require.NoError(c.t, c.ReadJSON(&m))
	require.NotNil(c.t, m.Pong)
}

func TestDevicesFollowThePageThatPlays(t *testing.T) {
	laptop, device := twoWays(t)
	phone := join(t, device)
	phone.say(`{"do":"play"}`)
	phone.hears(`{"error":"no page is open at the laptop"}`)
	page, other := join(t, laptop), join(t, laptop)
	page.say(`{"lead":{"path":"/bench/6","playing":true}}`)
	phone.hears(`{"lead":{"path":"/bench/6","playing":true}}`)
	// Who comes later is told where it stands; a page that is silent does not take over from one that plays.
	tablet := join(t, device)
	tablet.hears(`{"lead":{"path":"/bench/6","playing":true}}`)
	other.say(`{"lead":{"path":"/licks","playing":false}}`)
	other.synced()
	for _, deed := range deeds {
		phone.say(fmt.Sprintf(`{"do":%q}`, deed))
		page.hears(fmt.Sprintf(`{"do":%q}`, deed))
	}
	other.say(`{"lead":{"path":"/lines/3","playing":true}}`)
	phone.hears(`{"lead":{"path":"/lines/3","playing":true}}`)
	tablet.hears(`{"lead":{"path":"/lines/3","playing":true}}`)
	tablet.say(`{"do":"loop"}`)
	other.hears(`{"do":"loop"}`)
	// What was kept is told to all others, here and there.
	phone.say(`{"news":{"path":"/api/lines/3","version":"a.1.2"}}`)
	for _, c := range []joinedTo{page, other, tablet} {
		c.hears(`{"news":{"path":"/api/lines/3","version":"a.1.2"}}`)
	}
	// A device does not lead, and nothing else is done.
	phone.say(`{"lead":{"path":"/evil","playing":true}}`)
	phone.hears(`{"error":"a device follows; it does not lead"}`)
	phone.say(`{"do":"format the disk"}`)
	phone.hears(`{"error":"there is no such deed"}`)
	page.say(`{"lead":7}`)
	page.hears(`{"error":"what was said of the band cannot be read"}`)
	page.say(`not json`)
	page.hears(`{"error":"this is no message of a page of Undaris"}`)
	// The page that leads is gone.
	_ = other.Close()
	phone.hears(`{"lead":null}`)
}

func TestTheClockIsTold(t *testing.T) {
	laptop, _ := twoWays(t)
	page := join(t, laptop)
	before := -1.0
	for i := range 20 {
		page.say(fmt.Sprintf(`{"ping":%d.5}`, i))
		var m joined
		require.NoError(t, page.ReadJSON(&m))
		assert.Equal(t, float64(i)+0.5, *m.Pong)
		assert.Greater(t, *m.At, before)
		before = *m.At
	}
}

func TestFollowersAreBounded(t *testing.T) {
	_, device := twoWays(t)
	gone := func(c joinedTo) {
		t.Helper()
		_ = c.SetReadDeadline(time.Now().Add(5 * time.Second))
		for {
			if _, _, err := c.ReadMessage(); err != nil {
				assert.NotErrorIs(t, err, os.ErrDeadlineExceeded)
				return
			}
		}
	}
	long := join(t, device)
	long.say(`{"news":"` + strings.Repeat("x", mostFollowed) + `"}`)
	gone(long)
	quick := join(t, device)
	for range mostSecond + 2 {
		_ = quick.WriteMessage(websocket.TextMessage, []byte(`{"ping":1}`))
	}
	gone(quick)
	deep := join(t, device)
	deep.say(`{"news":` + strings.Repeat("[", 1000) + strings.Repeat("]", 1000) + `}`)
	deep.hears(`{"error":"this is no message of a page of Undaris"}`)
	// So many and no more.
	for range mostFollowers {
		join(t, device)
	}
	gone(join(t, device))
}

// One that is too slow to be told is put out, and holds up nobody.
func TestASlowFollowerIsPutOut(t *testing.T) {
	h := &hub{began: time.Now()}
	out := 0
	slow := &follower{device: true, waiting: make(chan joined, 3), out: func() { out++ }}
	page := &follower{waiting: make(chan joined, 3), out: func() {}}
	require.True(t, h.enter(slow) && h.enter(page))
	for i := range 5 {
		require.Nil(t, h.hear(page, joined{Lead: json.RawMessage(`{"playing":true}`)}))
		assert.Equal(t, max(0, i-2), out)
	}
	h.leave(slow)
	require.Nil(t, h.hear(page, joined{Lead: json.RawMessage(`{"playing":true}`)}))
	assert.Equal(t, 2, out)
}
