package server

import (
	"bytes"
	"io/fs"
	"net/http"
	"path"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
)

// site serves the built front end. Paths that are no file belong to the
// application's own addresses and get its page.
func site(front fs.FS) gin.HandlerFunc {
	return func(c *gin.Context) {
		name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
		if strings.HasPrefix(name, "api/") || name == "api" {
			refuse(c.Writer, http.StatusNotFound, "there is nothing at this address; /api/openapi.json lists what there is")
			return
		}
		if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
			refuse(c.Writer, http.StatusMethodNotAllowed, "pages can only be read")
			return
		}
		data, err := fs.ReadFile(front, name)
		switch {
		case err == nil && strings.HasPrefix(name, "assets/"): // their names change with their contents
			c.Header("Cache-Control", "public, max-age=31536000, immutable")
		case err == nil:
			c.Header("Cache-Control", "no-cache")
		case strings.HasPrefix(name, "assets/"):
			refuse(c.Writer, http.StatusNotFound, "this file is not part of the program")
			return
		default:
			name = "index.html"
			c.Header("Cache-Control", "no-cache")
			if data, err = fs.ReadFile(front, name); err != nil {
				refuse(c.Writer, http.StatusNotFound, "the front end was not built into this program; run make build")
				return
			}
		}
		c.Status(http.StatusOK)
		http.ServeContent(c.Writer, c.Request, name, time.Time{}, bytes.NewReader(data))
	}
}
