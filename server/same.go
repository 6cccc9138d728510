package server

import (
	"net/http"

	"github.com/gin-gonic/gin"
)

// databaseHeader carries the identity of a database: of the one that answers, and of the
// one that a page means.
const databaseHeader = "Undaris-Database"

// sameDatabase tells with every answer which database gave it, and does nothing for a page
// that has another in hand: after a restore, or where another data directory is served at
// the same address. Programs that do not say which they mean are not asked.
func (s *server) sameDatabase(c *gin.Context) {
	if !api(c.Request) {
		return
	}
	now := s.store.Identity()
	c.Header(databaseHeader, now)
	if meant := c.GetHeader(databaseHeader); meant != "" && meant != now && c.Request.Method != http.MethodGet {
		refuse(c.Writer, http.StatusPreconditionFailed, "something else is open in Undaris now than on this page: a backup was restored, or other data is served. Nothing was done")
		c.Abort()
	}
}
