package server

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"undaris/network"
)

// here are the operations that are answered on this machine alone: what takes all away or brings it back, what brings a file, who plays
// here, and who may come in.
var here = map[string]bool{
	"GET /api/backup":                 true,
	"POST /api/restore":               true,
	"POST /api/imports":               true,
	"PUT /api/recordings/:id/file":    true,
	"POST /api/assignments/open":      true,
	"POST /api/assignments/results":   true,
	"POST /api/players":               true,
	"PUT /api/players/:id":            true,
	"PUT /api/players/:id/here":       true,
	"DELETE /api/players/:id":         true,
	"POST /api/players/:id/restore":   true,
	"GET /api/network":                true,
	"PUT /api/network":                true,
	"POST /api/network/pairing":       true,
	"DELETE /api/network/pairing":     true,
	"DELETE /api/network/devices/:id": true,
}

// atTheLaptop keeps devices from them.
func atTheLaptop(c *gin.Context) {
	if _, device := network.From(c.Request.Context()); device && here[c.Request.Method+" "+c.FullPath()] {
		refuse(c.Writer, http.StatusForbidden, "this is done at the laptop, where Undaris runs; nothing was done")
		c.Abort()
	}
}
