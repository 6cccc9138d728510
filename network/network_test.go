package network

import (
	"bufio"
	"bytes"
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/sha256"
	"crypto/tls"
	"crypto/x509"
	"encoding/base64"
	"encoding/hex"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/netip"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"rsc.io/qr"
)

// room is a network on loopback addresses, which stand for private ones; its clock and its addresses are the test's.
type room struct {
	*Network
	t        *testing.T
	dir      string
	database atomic.Pointer[string]
	ahead    atomic.Int64
	have     atomic.Pointer[[]netip.Addr]
	log      *bytes.Buffer
}

func (r *room) clock() time.Time { return time.Now().Add(time.Duration(r.ahead.Load())) }

func (r *room) start() {
	r.Network = New(r.dir, func() string { return *r.database.Load() }, slog.New(slog.NewTextHandler(r.log, nil)))
	r.now = r.clock
	r.private = func() ([]netip.Addr, error) { return *r.have.Load(), nil }
	r.read = func(texts []string) (out []netip.Addr, err error) {
		for _, text := range texts {
			a, err := netip.ParseAddr(text)
			if err != nil {
				return nil, err
			}
			out = append(out, a)
		}
		return out, nil
	}
	require.NoError(r.t, r.Serve(http.HandlerFunc(func(w http.ResponseWriter, q *http.Request) {
		device, ok := From(q.Context())
		fmt.Fprintf(w, "inside: %v %s", ok, device.Name)
	})))
	r.t.Cleanup(r.Close)
}

func newRoom(t *testing.T) *room {
	r := &room{t: t, dir: t.TempDir(), log: &bytes.Buffer{}}
	one, at := "one", []netip.Addr{netip.MustParseAddr("127.0.0.1")}
	r.database.Store(&one)
	r.have.Store(&at)
	r.start()
	free, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	r.set.Port = free.Addr().(*net.TCPAddr).Port
	free.Close()
	return r
}

// on switches it on and tells where it is.
func (r *room) on() string {
	r.t.Helper()
	require.NoError(r.t, r.On(nil, true))
	s := r.State()
	require.NotEmpty(r.t, s.Addresses[0].URL, s.Trouble)
	return s.Addresses[0].URL
}

// browser keeps cookies only as a browser would, and follows nothing.
type browser struct {
	t      *testing.T
	at     string
	cookie string
	client *http.Client
}

func visit(t *testing.T, at string) *browser {
	client := &http.Client{Transport: &http.Transport{TLSClientConfig: &tls.Config{InsecureSkipVerify: true}}, Timeout: 10 * time.Second,
		CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}
	t.Cleanup(client.CloseIdleConnections)
	return &browser{t, at, "", client}
}

func (b *browser) ask(method, path, body string, head ...string) (int, string, http.Header) {
	b.t.Helper()
	req, err := http.NewRequest(method, b.at+path, strings.NewReader(body))
	require.NoError(b.t, err)
	if body != "" {
		req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	}
	if b.cookie != "" {
		req.Header.Set("Cookie", b.cookie)
	}
	for i := 0; i < len(head); i += 2 {
		if head[i] == "Host" {
			req.Host = head[i+1]
		}
		req.Header.Set(head[i], head[i+1])
	}
	resp, err := b.client.Do(req)
	require.NoError(b.t, err)
	defer resp.Body.Close()
	text, _ := io.ReadAll(resp.Body)
	if resp.Close {
		resp.Header.Set("Connection", "close")
	}
	for _, c := range resp.Cookies() {
		require.True(b.t, c.Secure && c.HttpOnly && c.SameSite == http.SameSiteStrictMode && c.Path == "/" && c.Domain == "", c.String())
		require.Equal(b.t, cookieName, c.Name)
		require.Equal(b.t, int(30*24*time.Hour/time.Second), c.MaxAge)
		b.cookie = c.Name + "=" + c.Value
	}
	return resp.StatusCode, string(text), resp.Header
}

func (b *browser) pair(code, name string) int {
	b.t.Helper()
	status, _, _ := b.ask("POST", "/pair", url.Values{"code": {code}, "name": {name}}.Encode())
	return status
}

func TestNothingIsThereUntilItIsSwitchedOn(t *testing.T) {
	r := newRoom(t)
	assert.NoDirExists(t, filepath.Join(r.dir, "network"))
	assert.Error(t, r.Pair())
	r.Close()
	assert.NoDirExists(t, filepath.Join(r.dir, "network"))
	s := r.State()
	assert.False(t, s.On)
	assert.Empty(t, s.Addresses[0].URL)
	assert.Empty(t, s.Fingerprint)
}

func TestOnlyPrivateAddressesAreNamed(t *testing.T) {
	for text, says := range map[string]string{"0.0.0.0": "every address", "::": "every address", "8.8.8.8": "no private", "127.0.0.1": "no private", "169.254.1.1": "no private",
		"2001:db8::1": "no private", "100.64.0.1": "no private", "172.32.0.1": "no private", "fe80::1": "no private", "::ffff:8.8.8.8": "no private", "example": "no address", "": "no address", "192.168.0.1:80": "no address"} {
		_, err := named([]string{text})
		assert.ErrorContains(t, err, says, text)
	}
	got, err := named([]string{"192.168.0.9", "10.0.0.1", "::ffff:10.0.0.1", "172.16.0.1", "172.31.255.255", "fd00::1"})
	require.NoError(t, err)
	assert.Equal(t, "[10.0.0.1 172.16.0.1 172.31.255.255 192.168.0.9 fd00::1]", fmt.Sprint(got))
	all, err := Addresses()
	require.NoError(t, err)
	for _, a := range all {
		assert.True(t, a.IsPrivate(), a)
	}
}

func TestADeviceIsPairedAndPutOut(t *testing.T) {
	r := newRoom(t)
	at := r.on()
	b := visit(t, at)
	// A stranger sees the page for the code and nothing else.
	for _, path := range []string{"/", "/api/charts", "/assets/x.js", "/api/follow", "/pair/x", "/sound/band.sf3"} {
		status, text, head := b.ask("GET", path, "")
		assert.Equal(t, 401, status, path)
		assert.NotContains(t, text, "inside")
		assert.Equal(t, "close", head.Get("Connection"))
	}
	status, _, head := b.ask("GET", "/bench/6", "", "Sec-Fetch-Dest", "document")
	assert.Equal(t, []any{303, "/pair"}, []any{status, head.Get("Location")})
	status, text, head := b.ask("GET", "/pair", "")
	assert.Equal(t, 200, status)
	assert.Contains(t, text, "eight digits")
	assert.NotContains(t, head.Get("Content-Security-Policy"), "unsafe")
	for _, tag := range []string{"script", "style"} { // as a browser reckons it
		_, rest, _ := strings.Cut(text, "<"+tag+">")
		own, _, _ := strings.Cut(rest, "</"+tag+">")
		sum := sha256.Sum256([]byte(own))
		assert.Contains(t, head.Get("Content-Security-Policy"), tag+"-src 'sha256-"+base64.StdEncoding.EncodeToString(sum[:])+"'")
	}
	// Without a code that is waited for none is right.
	assert.Equal(t, 403, b.pair("00000000", "phone"))
	require.NoError(t, r.Pair())
	code := r.State().Code
	assert.Regexp(t, `^\d{8}$`, code)
	assert.Equal(t, 303, b.pair(code[:4]+" "+code[4:], "phone\x00 on\u202e the stand "+strings.Repeat("x", 60)))
	status, text, _ = b.ask("GET", "/api/charts", "")
	assert.Equal(t, 200, status)
	assert.Equal(t, "inside: true phone on the stand "+strings.Repeat("x", 21), text)
	// It was good once.
	assert.Equal(t, 403, visit(t, at).pair(code, "another"))
	s := r.State()
	assert.Equal(t, "The code was used.", s.Over)
	require.Len(t, s.Devices, 1)
	assert.Equal(t, 1, s.Devices[0].Open)
	// Only the hash of the token is kept, for its owner's eyes; nothing of either is in the log.
	token := strings.TrimPrefix(b.cookie, cookieName+"=")
	assert.Len(t, token, 43)
	for _, name := range []string{devicesFile, keyFile, settingsFile, certFile} {
		info, err := os.Stat(filepath.Join(r.dir, "network", name))
		require.NoError(t, err)
		assert.Equal(t, os.FileMode(0o600), info.Mode().Perm(), name)
		kept, _ := os.ReadFile(filepath.Join(r.dir, "network", name))
		assert.NotContains(t, string(kept), token)
	}
	assert.NotContains(t, r.log.String(), token)
	assert.NotContains(t, r.log.String(), code)
	// It is still in after a restart, and out by one press, at once also where something is open.
	r.Close()
	r.start()
	status, _, _ = b.ask("GET", "/", "")
	assert.Equal(t, 200, status)
	socket := r.socket(at, b.cookie)
	was, err := r.PutOut(s.Devices[0].ID)
	require.NoError(t, err)
	assert.True(t, was)
	_ = socket.SetReadDeadline(time.Now().Add(3 * time.Second))
	_, err = socket.Read(make([]byte, 1))
	assert.Error(t, err)
	assert.NotErrorIs(t, err, os.ErrDeadlineExceeded)
	status, _, _ = b.ask("GET", "/", "")
	assert.Equal(t, 401, status)
}

// socket is a connection by which a device asked something, and that stays open.
func (r *room) socket(at, cookie string) net.Conn {
	r.t.Helper()
	host := strings.TrimPrefix(at, "https://")
	c, err := tls.Dial("tcp", host, &tls.Config{InsecureSkipVerify: true})
	require.NoError(r.t, err)
	r.t.Cleanup(func() { _ = c.Close() })
	fmt.Fprintf(c, "GET /x HTTP/1.1\r\nHost: %s\r\nCookie: %s\r\n\r\n", host, cookie)
	resp, err := http.ReadResponse(bufio.NewReader(c), nil)
	require.NoError(r.t, err)
	_, _ = io.Copy(io.Discard, resp.Body)
	require.Equal(r.t, 200, resp.StatusCode)
	return c
}

func TestTenWrongCodesEndPairing(t *testing.T) {
	r := newRoom(t)
	at := r.on()
	require.NoError(t, r.Pair())
	code := r.State().Code
	wrong := "12345678"
	if code == wrong {
		wrong = "87654321"
	}
	for i := range 10 {
		require.Equal(t, code, r.State().Code, i)
		guess := []string{wrong, "", code[:7], code + "0", code[1:] + "x"}[i%5]
		require.Equal(t, 403, visit(t, at).pair(guess, "stranger")) // each a browser of its own
	}
	assert.Empty(t, r.State().Code)
	assert.Contains(t, r.State().Over, "guessing")
	assert.Equal(t, 403, visit(t, at).pair(code, "late"))
	require.NoError(t, r.Pair())
	assert.Equal(t, 303, visit(t, at).pair(r.State().Code, "phone"))
	// A code is good for two minutes.
	require.NoError(t, r.Pair())
	code = r.State().Code
	r.ahead.Store(int64(codeLasts))
	assert.Equal(t, 403, visit(t, at).pair(code, "late"))
	assert.Equal(t, wasLate, r.State().Over)
}

func TestCodesAreDrawnEvenly(t *testing.T) {
	var p pairing
	first := map[byte]int{}
	for range 4000 {
		code, err := p.begin(time.Now())
		require.NoError(t, err)
		require.Len(t, code, 8)
		first[code[0]]++
	}
	for c := byte('0'); c <= '9'; c++ {
		assert.InDelta(t, 400, first[c], 120, string(c)) // six standard deviations
	}
}

func TestSessionsEnd(t *testing.T) {
	r := newRoom(t)
	at := r.on()
	b := visit(t, at)
	require.NoError(t, r.Pair())
	require.Equal(t, 303, b.pair(r.State().Code, "phone"))
	in := func() bool { status, _, _ := b.ask("GET", "/", ""); return status == 200 }
	r.ahead.Store(int64(29 * 24 * time.Hour))
	assert.True(t, in(), "used within thirty days")
	r.ahead.Add(int64(29 * 24 * time.Hour))
	assert.True(t, in(), "it was used meanwhile")
	r.ahead.Add(int64(31 * 24 * time.Hour))
	assert.False(t, in())
	// A restore makes it another database.
	require.NoError(t, r.Pair())
	require.Equal(t, 303, b.pair(r.State().Code, "phone"))
	require.True(t, in())
	two := "two"
	r.database.Store(&two)
	assert.False(t, in())
	assert.Empty(t, r.State().Devices)
	// A token of somebody else's making is none.
	for _, made := range []string{"", "x", strings.Repeat("a", 43), strings.Repeat("a", 5000)} {
		b.cookie = cookieName + "=" + made
		assert.False(t, in())
	}
}

func TestSixteenDevicesAreEnough(t *testing.T) {
	r := newRoom(t)
	at := r.on()
	for i := range mostDevices + 1 {
		require.NoError(t, r.Pair())
		want := 303
		if i == mostDevices {
			want = 507
		}
		require.Equal(t, want, visit(t, at).pair(r.State().Code, "phone"), i)
	}
}

func TestOriginAndHostAreItsOwn(t *testing.T) {
	r := newRoom(t)
	at := r.on()
	require.NoError(t, r.Pair())
	b := visit(t, at)
	require.Equal(t, 303, b.pair(r.State().Code, "phone"))
	host := strings.TrimPrefix(at, "https://")
	_, port, _ := net.SplitHostPort(host)
	paired := b.cookie
	for _, cookie := range []string{"", paired} {
		b.cookie = cookie
		for _, h := range []string{"localhost:" + port, "undaris.test:" + port, "127.0.0.1", "127.0.0.1:1", "[::1]:" + port} {
			status, _, _ := b.ask("GET", "/", "", "Host", h, "X-Forwarded-Host", host, "X-Forwarded-For", "127.0.0.1")
			assert.Equal(t, 421, status, h)
		}
		for _, o := range []string{"https://evil.test", "http://" + host, "null", "https://127.0.0.1", "https://" + host + ".evil.test"} {
			for _, method := range []string{"GET", "POST"} {
				status, _, _ := b.ask(method, "/api/follow", "", "Origin", o, "X-Forwarded-Proto", "https")
				assert.Equal(t, 403, status, o)
			}
		}
		status, _, _ := b.ask("POST", "/pair", "", "Sec-Fetch-Site", "cross-site")
		assert.Equal(t, 403, status)
	}
	status, _, _ := b.ask("GET", "/", "", "Origin", at)
	assert.Equal(t, 200, status)
}

func TestTheCertificateIsForItsAddresses(t *testing.T) {
	r := newRoom(t)
	at := r.on()
	host := strings.TrimPrefix(at, "https://")
	see := func() *x509.Certificate {
		c, err := tls.Dial("tcp", host, &tls.Config{InsecureSkipVerify: true})
		require.NoError(t, err)
		defer c.Close()
		return c.ConnectionState().PeerCertificates[0]
	}
	cert := see()
	key, ok := cert.PublicKey.(*ecdsa.PublicKey)
	require.True(t, ok)
	assert.Equal(t, elliptic.P256(), key.Curve)
	assert.Equal(t, "[127.0.0.1]", fmt.Sprint(cert.IPAddresses))
	assert.LessOrEqual(t, cert.NotAfter.Sub(cert.NotBefore), 365*24*time.Hour)
	sum := sha256.Sum256(cert.Raw)
	assert.Equal(t, hex.EncodeToString(sum[:]), strings.ToLower(strings.ReplaceAll(r.State().Fingerprint, ":", "")))
	// Older than TLS 1.2 nobody speaks.
	_, err := tls.Dial("tcp", host, &tls.Config{InsecureSkipVerify: true, MinVersion: tls.VersionTLS10, MaxVersion: tls.VersionTLS11})
	assert.Error(t, err)
	// The same comes back after a restart, and nothing is told.
	r.Close()
	r.start()
	assert.Equal(t, cert.Raw, see().Raw)
	assert.Empty(t, r.State().Told)
	// Near its end there is another, and it is told.
	r.ahead.Store(int64(lasts - renews + time.Hour))
	r.Close()
	r.start()
	assert.NotEqual(t, cert.Raw, see().Raw)
	assert.Contains(t, r.State().Told, "new certificate")
	// It is told until somebody pairs anew.
	require.NoError(t, r.Pair())
	assert.Empty(t, r.State().Told)
	// A clock that ran ahead and was put back is no reason to be locked out.
	r.ahead.Store(0)
	r.Close()
	r.start()
	assert.True(t, see().NotBefore.Before(time.Now()))
	// A spoilt one is made anew.
	require.NoError(t, os.WriteFile(filepath.Join(r.dir, "network", certFile), []byte("spoilt"), 0o600))
	r.Close()
	r.start()
	see()
}

func TestItFollowsTheMachineFromNetworkToNetwork(t *testing.T) {
	r := newRoom(t)
	first := r.on()
	fingerprint := r.State().Fingerprint
	move := func(addresses ...string) State {
		var at []netip.Addr
		for _, a := range addresses {
			at = append(at, netip.MustParseAddr(a))
		}
		r.have.Store(&at)
		r.mu.Lock()
		r.listen()
		r.mu.Unlock()
		return r.State()
	}
	s := move("127.0.0.1", "127.0.0.2")
	require.Len(t, s.Addresses, 2)
	assert.Equal(t, first, s.Addresses[0].URL)
	assert.Equal(t, strings.Replace(first, "127.0.0.1", "127.0.0.2", 1), s.Addresses[1].URL)
	assert.NotEqual(t, fingerprint, s.Fingerprint)
	assert.Contains(t, s.Told, "new certificate")
	status, _, _ := visit(t, s.Addresses[1].URL).ask("GET", "/pair", "")
	assert.Equal(t, 200, status)
	s = move()
	assert.Contains(t, s.Trouble, "no network")
	_, err := net.DialTimeout("tcp", strings.TrimPrefix(first, "https://"), time.Second)
	assert.Error(t, err)
	s = move("127.0.0.1")
	assert.Empty(t, s.Trouble)
	assert.Equal(t, first, s.Addresses[0].URL)
	// One that was named and is not there is waited for.
	require.NoError(t, r.On([]string{"127.0.0.3"}, true))
	s = r.State()
	assert.NotEmpty(t, s.Trouble)
	assert.Equal(t, []any{"127.0.0.3", false, ""}, []any{s.Addresses[1].Address, s.Addresses[1].Here, s.Addresses[1].URL})
	s = move("127.0.0.1", "127.0.0.3")
	assert.Empty(t, s.Addresses[0].URL)
	assert.NotEmpty(t, s.Addresses[1].URL)
	// Off again nothing listens, and the next start does not begin it.
	require.NoError(t, r.Off())
	r.Close()
	r.start()
	assert.False(t, r.State().On)
}

func TestAnotherProgramHasThePort(t *testing.T) {
	r := newRoom(t)
	taken, err := net.Listen("tcp", fmt.Sprintf("127.0.0.1:%d", r.set.Port))
	require.NoError(t, err)
	defer taken.Close()
	require.NoError(t, r.On(nil, false))
	s := r.State()
	assert.Empty(t, s.Trouble)
	status, _, _ := visit(t, s.Addresses[0].URL).ask("GET", "/pair", "")
	assert.Equal(t, 200, status)
	// It was for this start alone.
	assert.NoFileExists(t, filepath.Join(r.dir, "network", settingsFile))
	r.Close()
	r.start()
	assert.False(t, r.State().On)
}

func TestADeviceHasSoManyConnections(t *testing.T) {
	r := newRoom(t)
	at := r.on()
	require.NoError(t, r.Pair())
	b := visit(t, at)
	require.Equal(t, 303, b.pair(r.State().Code, "phone"))
	b.client.CloseIdleConnections()
	var all []net.Conn
	for range mostOfDevice {
		all = append(all, r.socket(at, b.cookie))
	}
	status, text, _ := visit(t, at).with(b.cookie).ask("GET", "/", "")
	assert.Equal(t, 503, status, text)
	_ = all[0].Close()
	assert.Eventually(t, func() bool { status, _, _ := visit(t, at).with(b.cookie).ask("GET", "/", ""); return status == 200 }, 3*time.Second, 50*time.Millisecond)
}

func (b *browser) with(cookie string) *browser { b.cookie = cookie; return b }

func TestStrangersAreFew(t *testing.T) {
	r := newRoom(t)
	at := r.on()
	host := strings.TrimPrefix(at, "https://")
	require.NoError(t, r.Pair())
	b := visit(t, at)
	require.Equal(t, 303, b.pair(r.State().Code, "phone"))
	in := r.socket(at, b.cookie)
	// The one by which it was paired is gone first.
	require.Eventually(t, func() bool { r.gate.mu.Lock(); defer r.gate.mu.Unlock(); return r.gate.strangers == 0 }, 5*time.Second, 5*time.Millisecond)
	var held []net.Conn
	for range mostFromOne {
		c, err := net.Dial("tcp", host)
		require.NoError(t, err)
		held = append(held, c)
	}
	time.Sleep(100 * time.Millisecond)
	// One more is closed at once; who is in goes on.
	c, err := net.Dial("tcp", host)
	require.NoError(t, err)
	_ = c.SetReadDeadline(time.Now().Add(2 * time.Second))
	_, err = c.Read(make([]byte, 1))
	assert.Error(t, err)
	assert.NotErrorIs(t, err, os.ErrDeadlineExceeded)
	fmt.Fprintf(in, "GET /y HTTP/1.1\r\nHost: %s\r\nCookie: %s\r\n\r\n", host, b.cookie)
	resp, err := http.ReadResponse(bufio.NewReader(in), nil)
	require.NoError(t, err)
	assert.Equal(t, 200, resp.StatusCode)
	// Who says nothing is sent away after some seconds, and there is room again.
	for _, c := range held {
		_ = c.SetReadDeadline(time.Now().Add(strangerTime + 3*time.Second))
		_, err := c.Read(make([]byte, 1))
		assert.NotErrorIs(t, err, os.ErrDeadlineExceeded)
	}
	status, _, _ := visit(t, at).ask("GET", "/pair", "")
	assert.Equal(t, 200, status)
	r.gate.mu.Lock()
	defer r.gate.mu.Unlock()
	assert.LessOrEqual(t, r.gate.strangers, 1)
}

func TestALongBodyIsNotRead(t *testing.T) {
	r := newRoom(t)
	at := r.on()
	require.NoError(t, r.Pair())
	code := r.State().Code
	status, _, _ := visit(t, at).ask("POST", "/pair", "code="+code+"&name="+strings.Repeat("x", strangerBody))
	assert.Equal(t, 413, status)
	assert.Equal(t, code, r.State().Code)
	// One that does not say how long it is either.
	req, err := http.NewRequest("POST", at+"/pair", io.MultiReader(strings.NewReader("code="+code+"&name="), strings.NewReader(strings.Repeat("x", 1<<20))))
	require.NoError(t, err)
	resp, err := visit(t, at).client.Do(req)
	if err == nil { // or it was cut off
		defer resp.Body.Close()
		assert.Equal(t, 400, resp.StatusCode)
	}
	assert.Equal(t, code, r.State().Code)
}

func TestTheCodeIsDrawn(t *testing.T) {
	text := "https://192.168.100.100:65535/pair#01234567"
	drawn, err := draw(text)
	require.NoError(t, err)
	code, err := qr.Encode(text, qr.M)
	require.NoError(t, err)
	assert.Equal(t, code.Size+8, drawn.Size)
	dark := map[[2]int]bool{}
	var x, y, w, back int
	for _, part := range strings.Split(drawn.Path, "M")[1:] {
		_, err := fmt.Sscanf(part, "%d %dh%dv1h-%dz", &x, &y, &w, &back)
		require.NoError(t, err)
		for i := range w {
			dark[[2]int{x + i - 4, y - 4}] = true
		}
	}
	for y := range code.Size {
		for x := range code.Size {
			require.Equal(t, code.Black(x, y), dark[[2]int{x, y}])
		}
	}
	for _, s := range []string{text, "https://[fd00::1]:4765/pair#01234567"} {
		out, err := printed(s)
		require.NoError(t, err)
		assert.Greater(t, strings.Count(out, "\n"), 15)
	}
}
