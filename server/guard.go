package server

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/url"
	"os"
	"strings"
	"time"
)

// Most bytes that a request may bring.
const (
	maxBody   = 1 << 20
	maxImport = 8 << 20 // a line, a file that becomes one, or how a take sounded
	maxBackup = 512 << 20
)

// bodyTime is how long a request may take to bring its body.
const bodyTime = 20 * time.Second

// policy lets scripts, styles, fonts and sounds come from the program alone.
// The decoder of the instruments' samples is WebAssembly.
// Styles may stand in the page, since the component library writes them there,
// and the music font comes inside its script.
const policy = "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; " +
	"font-src 'self' data:; connect-src 'self'; worker-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"

// guarded stands before everything else. It refuses requests that another site
// has made the browser send, sets the security headers, and reads the body whole.
//
// The body is read here because net/http closes a connection whose body was not
// read to its end only as long as it sees that body itself: under a wrapper, what
// is left of a refused one would run as the next request.
func guarded(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Security-Policy", policy)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "same-origin")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		if status, says := foreign(r); says != "" {
			refuse(w, status, says)
			return
		}
		body, status, says := bodyOf(w, r)
		if says != "" {
			h.Set("Connection", "close")
			refuse(w, status, says)
			return
		}
		if body != nil {
			r.Body = io.NopCloser(bytes.NewReader(body))
		}
		next.ServeHTTP(w, r)
	})
}

// foreign says why a request cannot have come from the application's own page
// or a program on this machine.
func foreign(r *http.Request) (status int, says string) {
	if !local(r.Host) {
		return http.StatusMisdirectedRequest, "this address is not the one Undaris listens on; open it by 127.0.0.1 or localhost"
	}
	const elsewhere = "another site asked for this, so it was not done"
	if origin := r.Header.Get("Origin"); origin != "" {
		if u, err := url.Parse(origin); err != nil || u.Host != r.Host {
			return http.StatusForbidden, elsewhere
		}
	}
	if api(r) {
		// "none" is what the player typed; programs do not send the header.
		if site := r.Header.Get("Sec-Fetch-Site"); site != "" && site != "same-origin" && site != "none" {
			return http.StatusForbidden, elsewhere
		}
	}
	return 0, ""
}

func api(r *http.Request) bool { return r.URL.Path == "/api" || strings.HasPrefix(r.URL.Path, "/api/") }

// bodyOf reads a body to its end. One that is too long by what it says of itself
// is not read at all.
func bodyOf(w http.ResponseWriter, r *http.Request) (body []byte, status int, says string) {
	if r.ContentLength == 0 || r.Body == nil || r.Body == http.NoBody {
		return nil, 0, ""
	}
	limit := int64(maxBody)
	if strings.HasPrefix(r.URL.Path, "/api/lines") || strings.HasSuffix(r.URL.Path, "/sound") || r.URL.Path == "/api/licks/keep" || r.URL.Path == "/api/imports" {
		limit = maxImport
	}
	if r.URL.Path == "/api/restore" {
		limit = maxBackup
	}
	tooLong := fmt.Sprintf("this is larger than the %d MB that can be taken here; nothing was done", limit>>20)
	if r.ContentLength > limit {
		return nil, http.StatusRequestEntityTooLarge, tooLong
	}
	http.NewResponseController(w).SetReadDeadline(time.Now().Add(bodyTime))
	var all bytes.Buffer
	if r.ContentLength > 0 {
		all.Grow(int(r.ContentLength) + bytes.MinRead)
	}
	n, err := io.Copy(&all, io.LimitReader(r.Body, limit+1))
	switch {
	case n > limit:
		return nil, http.StatusRequestEntityTooLarge, tooLong
	case errors.Is(err, os.ErrDeadlineExceeded):
		return nil, http.StatusRequestTimeout, "the rest of the request did not come in time; nothing was done"
	case err != nil:
		return nil, http.StatusBadRequest, "the request was cut off; nothing was done"
	}
	http.NewResponseController(w).SetReadDeadline(time.Time{})
	return all.Bytes(), 0, ""
}

// local tells whether a Host header names this machine. A foreign name that
// resolves to it is refused.
func local(host string) bool {
	name, _, err := net.SplitHostPort(host)
	if err != nil {
		name = host
	}
	if name == "localhost" || name == "[::1]" {
		return true
	}
	ip := net.ParseIP(name)
	return ip != nil && ip.IsLoopback()
}
