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

	"undaris/network"
)

// Most bytes that a request may bring. A backup is as large as the disk lets it be: it is
// put by as it comes.
const (
	maxBody      = 1 << 20
	maxImport    = 8 << 20   // a line, a file that becomes one, or how a take sounded
	maxRecording = 500 << 20 // the file of a recording, put by likewise
	maxBackup    = 64 << 30
)

// bodyTime is how long a request may take to bring its body, or the next part of a long one.
const bodyTime = 20 * time.Second

// bodyPart is what a long body has to bring in that time.
const bodyPart = 64 << 10

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
		if to := oneName(r); to != "" {
			http.Redirect(w, r, to, http.StatusTemporaryRedirect)
			return
		}
		body, status, says := bodyOf(w, r)
		if says != "" {
			h.Set("Connection", "close")
			refuse(w, status, says)
			return
		}
		if body != nil {
			defer body.Close()
			r.Body = body
		}
		next.ServeHTTP(w, r)
	})
}

// foreign says why a request cannot have come from the application's own page
// or a program on this machine.
func foreign(r *http.Request) (status int, says string) {
	// A device came by a listener that compared it with its own.
	if _, device := network.From(r.Context()); !device && !local(r.Host) {
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

// oneName is where a page is that was opened by another name of this machine, such as localhost: to a
// browser each name is a place of its own, and what it keeps for one is not there for the other.
func oneName(r *http.Request) string {
	at, ok := r.Context().Value(http.LocalAddrContextKey).(net.Addr)
	if !ok || r.Method != http.MethodGet || api(r) || r.Header.Get("Sec-Fetch-Dest") != "document" || r.Host == at.String() || !local(at.String()) {
		return ""
	}
	return "http://" + at.String() + r.URL.RequestURI()
}

func api(r *http.Request) bool { return r.URL.Path == "/api" || strings.HasPrefix(r.URL.Path, "/api/") }

// bodyOf reads a body to its end. One that is too long by what it says of itself
// is not read at all.
func bodyOf(w http.ResponseWriter, r *http.Request) (body io.ReadCloser, status int, says string) {
	var err error
	if r.ContentLength == 0 || r.Body == nil || r.Body == http.NoBody {
		return nil, 0, ""
	}
	limit := int64(maxBody)
	if strings.HasPrefix(r.URL.Path, "/api/lines") || strings.HasSuffix(r.URL.Path, "/sound") || r.URL.Path == "/api/licks/keep" || r.URL.Path == "/api/imports" {
		limit = maxImport
	}
	switch {
	case r.URL.Path == "/api/restore":
		limit = maxBackup
	case isRecording(r):
		limit = maxRecording
	}
	tooLong := fmt.Sprintf("this is larger than the %d MB that can be taken here; nothing was done", limit>>20)
	if r.ContentLength > limit {
		return nil, http.StatusRequestEntityTooLarge, tooLong
	}
	// What it says of its length is not believed: room is made as it comes.
	var all bytes.Buffer
	into, what := io.Writer(&all), spooled{}
	if limit >= maxRecording {
		if what.file, err = os.CreateTemp("", "undaris-body-"); err != nil {
			return nil, http.StatusInsufficientStorage, "there is no room for this on the disk; nothing was done"
		}
		os.Remove(what.file.Name()) // it goes with the program, however that ends
		into = what.file
	}
	var n int64
	n, err = arriving(http.NewResponseController(w), into, io.LimitReader(r.Body, limit+1))
	var full *os.PathError
	switch {
	case err == nil && n > limit:
		status, says = http.StatusRequestEntityTooLarge, tooLong
	case errors.Is(err, os.ErrDeadlineExceeded):
		status, says = http.StatusRequestTimeout, "the rest of the request did not come in time; nothing was done"
	case errors.As(err, &full):
		status, says = http.StatusInsufficientStorage, "there is no room for this on the disk; nothing was done. Make room and try again"
	case err != nil:
		status, says = http.StatusBadRequest, "the request was cut off; nothing was done"
	case what.file == nil && isJSON(r) && deeper(all.Bytes(), maxDepth):
		status, says = http.StatusBadRequest, fmt.Sprintf("this is nested more than %d deep, which nothing of Undaris is; nothing was done", maxDepth)
	}
	if says != "" {
		what.Close()
		return nil, status, says
	}
	if what.file != nil {
		if _, err := what.file.Seek(0, io.SeekStart); err != nil {
			what.Close()
			return nil, http.StatusInsufficientStorage, "what came cannot be read back from the disk; nothing was done"
		}
		return what, 0, ""
	}
	return held(all.Bytes()), 0, ""
}

// spooled is a body that waits on the disk.
type spooled struct{ file *os.File }

func (s spooled) Read(p []byte) (int, error) { return s.file.Read(p) }

func (s spooled) Stat() (os.FileInfo, error) { return s.file.Stat() }

func (s spooled) Close() error {
	if s.file == nil {
		return nil
	}
	return s.file.Close()
}

// arriving copies what arrives, as long as enough of it does.
func arriving(conn *http.ResponseController, into io.Writer, from io.Reader) (n int64, err error) {
	for {
		_ = conn.SetReadDeadline(time.Now().Add(bodyTime))
		part, err := io.CopyN(into, from, bodyPart)
		n += part
		if err == io.EOF {
			_ = conn.SetReadDeadline(time.Time{})
			return n, nil
		}
		if err != nil {
			return n, err
		}
	}
}

// isJSON tells whether a body will be read as JSON: all but files in other formats.
func isJSON(r *http.Request) bool {
	return r.URL.Path != "/api/imports" && !strings.HasSuffix(r.URL.Path, "/sound") && !isRecording(r)
}

// isRecording tells whether a body is the file of a recording.
func isRecording(r *http.Request) bool {
	return strings.HasPrefix(r.URL.Path, "/api/recordings/") && strings.HasSuffix(r.URL.Path, "/file")
}

// maxDepth is how deep JSON may be nested. Readers of JSON take time and room for each
// level, some of them the square of it.
const maxDepth = 64

// deeper tells whether JSON is nested deeper than so much, in one pass.
func deeper(text []byte, most int) bool {
	depth, quoted, escaped := 0, false, false
	for _, c := range text {
		switch {
		case escaped:
			escaped = false
		case quoted:
			escaped = c == '\\'
			quoted = c != '"'
		case c == '"':
			quoted = true
		case c == '[' || c == '{':
			if depth++; depth > most {
				return true
			}
		case c == ']' || c == '}':
			depth--
		}
	}
	return false
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
