package server

import (
	"net"
	"net/http"
	"net/url"
	"strings"

	"github.com/gin-gonic/gin"
)

// policy lets scripts, styles, fonts and sounds come from the program alone.
// The decoder of the instruments' samples is WebAssembly.
// Styles may stand in the page, since the component library writes them there,
// and the music font comes inside its script.
const policy = "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; " +
	"font-src 'self' data:; connect-src 'self'; worker-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"

// guarded refuses requests that another site has made the browser send, and
// sets the security headers.
func guarded(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Content-Security-Policy", policy)
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "same-origin")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Cross-Origin-Resource-Policy", "same-origin")
	if !local(c.Request.Host) {
		refuse(c, http.StatusMisdirectedRequest, "this address is not the one Undaris listens on; open it by 127.0.0.1 or localhost")
		return
	}
	if origin := c.GetHeader("Origin"); origin != "" {
		u, err := url.Parse(origin)
		if err != nil || u.Host != c.Request.Host {
			refuse(c, http.StatusForbidden, "another site asked for this, so it was not done")
			return
		}
	}
	limit := int64(maxBody)
	if strings.HasPrefix(c.Request.URL.Path, "/api/lines") {
		limit = maxImport // a line, or a file that becomes one
	}
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, limit)
	c.Next()
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
