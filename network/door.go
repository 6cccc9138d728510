package network

import (
	"context"
	"crypto/sha256"
	"crypto/tls"
	_ "embed"
	"encoding/base64"
	"html/template"
	"io"
	"net"
	"net/http"
	"net/url"
	"strings"
	"time"
)

// cookieName binds the session to this origin: a browser takes it from nobody else, and sends it along encrypted alone.
const cookieName = "__Host-undaris"

// What a stranger may bring, and how long that may take.
const (
	strangerBody = 4 << 10
	strangerTime = 5 * time.Second
	pairPath     = "/pair"
)

type deviceKey struct{}

// As is a context in which a request comes from a device.
func As(ctx context.Context, d Device) context.Context { return context.WithValue(ctx, deviceKey{}, d) }

// From is the device that a request comes from; none where it comes from this machine.
func From(ctx context.Context) (Device, bool) {
	d, ok := ctx.Value(deviceKey{}).(Device)
	return d, ok
}

type connKey struct{}

// withConn remembers which connection a request comes by.
func withConn(ctx context.Context, c net.Conn) context.Context {
	if t, ok := c.(*tls.Conn); ok {
		c = t.NetConn()
	}
	return context.WithValue(ctx, connKey{}, c)
}

// door lets devices through to what is behind it, and strangers to the page where a code is typed.
type door struct {
	*Network
	behind http.Handler
}

func (d door) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	at, _ := r.Context().Value(http.LocalAddrContextKey).(net.Addr)
	if at == nil || r.Host != at.String() {
		refuse(w, http.StatusMisdirectedRequest, "this address is not the one Undaris listens on; open the one that the laptop shows")
		return
	}
	const elsewhere = "another site asked for this, so it was not done"
	if origin := r.Header.Get("Origin"); origin != "" && origin != "https://"+r.Host {
		refuse(w, http.StatusForbidden, elsewhere)
		return
	}
	if site := r.Header.Get("Sec-Fetch-Site"); r.Method != http.MethodGet && site != "" && site != "same-origin" && site != "none" {
		refuse(w, http.StatusForbidden, elsewhere)
		return
	}
	if device, ok := d.session(r); ok {
		if c, _ := r.Context().Value(connKey{}).(*conn); c != nil && !c.prove(device.ID) {
			refuse(w, http.StatusServiceUnavailable, "this device has as many connections as it may; close a page of it")
			return
		}
		if r.Method == http.MethodGet && r.URL.Path == pairPath {
			http.Redirect(w, r, "/", http.StatusSeeOther)
			return
		}
		if r.Header.Get("Sec-Fetch-Dest") == "document" {
			http.SetCookie(w, cookie(mustToken(r))) // it is good for thirty more days
		}
		d.behind.ServeHTTP(w, r.WithContext(As(r.Context(), device)))
		return
	}
	d.stranger(w, r)
}

func (d door) session(r *http.Request) (Device, bool) {
	token := mustToken(r)
	if token == "" {
		return Device{}, false
	}
	device, gone, ok := d.devices.known(token, d.now())
	for _, id := range gone {
		d.gate.putOut(id)
	}
	return device, ok
}

// mustToken is what a request has for a session, or nothing.
func mustToken(r *http.Request) string {
	c, err := r.Cookie(cookieName)
	if err != nil || len(c.Value) > 100 {
		return ""
	}
	return c.Value
}

func cookie(token string) *http.Cookie {
	return &http.Cookie{Name: cookieName, Value: token, Path: "/", MaxAge: int(idle / time.Second), Secure: true, HttpOnly: true, SameSite: http.SameSiteStrictMode}
}

// stranger answers who has no session. Nothing that comes behind the answer is read.
func (d door) stranger(w http.ResponseWriter, r *http.Request) {
	w.Header().Set("Connection", "close")
	switch {
	case r.ContentLength > strangerBody:
		refuse(w, http.StatusRequestEntityTooLarge, "this is more than a code; nothing was done")
	case r.URL.Path == pairPath && r.Method == http.MethodGet:
		d.page(w, http.StatusOK, "")
	case r.URL.Path == pairPath && r.Method == http.MethodPost:
		d.pair(w, r)
	case r.Method == http.MethodGet && r.Header.Get("Sec-Fetch-Dest") == "document":
		http.Redirect(w, r, pairPath, http.StatusSeeOther)
	default:
		refuse(w, http.StatusUnauthorized, "this device is not paired; open "+pairPath+" and type the code that the laptop shows")
	}
}

func (d door) pair(w http.ResponseWriter, r *http.Request) {
	_ = http.NewResponseController(w).SetReadDeadline(time.Now().Add(strangerTime))
	text, err := io.ReadAll(io.LimitReader(r.Body, strangerBody+1))
	form, wrong := url.ParseQuery(string(text))
	if err != nil || wrong != nil || len(text) > strangerBody {
		d.page(w, http.StatusBadRequest, "What came was no code. Type the eight digits that the laptop shows.")
		return
	}
	code := strings.Map(func(c rune) rune {
		if c >= '0' && c <= '9' {
			return c
		}
		return -1
	}, form.Get("code"))
	if !d.pairing.take(code, d.now()) {
		d.page(w, http.StatusForbidden, "That is not the code. It is good for two minutes and once; the laptop shows whether one is waited for.")
		return
	}
	_, token, err := d.devices.add(form.Get("name"), d.now())
	if err != nil {
		d.page(w, http.StatusInsufficientStorage, err.Error())
		return
	}
	http.SetCookie(w, cookie(token))
	http.Redirect(w, r, "/", http.StatusSeeOther)
}

//go:embed pair.html
var pairText string

var pairPage = template.Must(template.New("pair").Parse(pairText))

// pairPolicy lets the page's own script and style run, and nothing else. They stand in the page as they are written here: the template
// would leave comments out. The script takes the code from behind the #, which no server is sent.
var pairPolicy = "default-src 'none'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'; script-src " + hashIn("script") + "; style-src " + hashIn("style")

func hashIn(tag string) string {
	_, rest, _ := strings.Cut(pairText, "<"+tag+">")
	text, _, _ := strings.Cut(rest, "</"+tag+">")
	sum := sha256.Sum256([]byte(text))
	return "'sha256-" + base64.StdEncoding.EncodeToString(sum[:]) + "'"
}

func (d door) page(w http.ResponseWriter, status int, says string) {
	h := w.Header()
	h.Set("Content-Type", "text/html; charset=utf-8")
	h.Set("Content-Security-Policy", pairPolicy)
	secure(h)
	w.WriteHeader(status)
	_ = pairPage.Execute(w, struct{ Says string }{says})
}

func secure(h http.Header) {
	h.Set("Cache-Control", "no-store")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "same-origin") // without any a form would come from nowhere (Fetch, 3.2)
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Cross-Origin-Resource-Policy", "same-origin")
}

func refuse(w http.ResponseWriter, status int, says string) {
	secure(w.Header())
	w.Header().Set("Connection", "close")
	http.Error(w, says, status)
}
