package server

import (
	"errors"
	"fmt"
	"io"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"

	"undaris/store"
)

// Restored is what a restored backup brought.
type Restored struct {
	Things int      `json:"things" doc:"charts, licks, lines, takes, lines of the log and what else there is now"`
	Left   []string `json:"left" doc:"what was left out of it and why; the first twenty"`
	Lost   int      `json:"lost" doc:"how many were left out"`
}

// backupPart is how long each part of a backup may take to be read.
const backupPart = 20 * time.Second

// patient writes to a slow reader: as long as it reads at all, it may take its time.
type patient struct {
	http.ResponseWriter
	conn *http.ResponseController
}

func (p patient) Write(data []byte) (int, error) {
	_ = p.conn.SetWriteDeadline(time.Now().Add(backupPart))
	return p.ResponseWriter.Write(data)
}

// patientBody is the body of an answer to a slow reader.
func patientBody(c huma.Context) io.Writer {
	w := humagin.Unwrap(c).Writer
	return patient{w, http.NewResponseController(w)}
}

// backups streams them: neither is ever whole in memory. They are no operations of Huma,
// which reads and writes bodies whole.
func (s *server) backups(engine *gin.Engine) {
	engine.GET("/api/backup", func(c *gin.Context) {
		h := c.Writer.Header()
		h.Set("Content-Type", "application/x-tar")
		h.Set("Content-Disposition", fmt.Sprintf(`attachment; filename="undaris backup %s.tar"`, time.Now().Format(time.DateOnly)))
		out := patient{c.Writer, http.NewResponseController(c.Writer)}
		if err := s.store.Backup(c.Request.Context(), out, c.Query("recordings") == "yes"); err != nil {
			s.log.Error("backup", "error", err.Error())
			if !c.Writer.Written() {
				h.Del("Content-Disposition")
				s.refused(c, err)
				return
			}
			panic(http.ErrAbortHandler) // what was sent is no backup, and must not look like one
		}
	})
	engine.POST("/api/restore", func(c *gin.Context) {
		if !s.restoring.TryLock() {
			refuse(c.Writer, http.StatusConflict, "another backup is being restored; wait until it is done")
			return
		}
		defer s.restoring.Unlock()
		_ = http.NewResponseController(c.Writer).SetWriteDeadline(time.Time{})
		done, err := s.store.Restore(c.Request.Context(), c.Request.Body, store.Asked{Empty: c.Query("empty") == "yes", Legal: Legal})
		var bad store.ErrBackup
		switch {
		case errors.Is(err, store.ErrEmpties):
			refuse(c.Writer, http.StatusConflict, err.Error())
		case errors.As(err, &bad):
			refuse(c.Writer, http.StatusUnprocessableEntity, bad.Error())
		case err != nil:
			s.refused(c, err)
		default:
			s.forget()
			c.Header(databaseHeader, s.store.Identity())
			c.JSON(http.StatusOK, Restored{done.Rows, done.Left, done.Lost})
		}
	})
}

// refused tells an error outside of Huma.
func (s *server) refused(c *gin.Context, err error) {
	var known huma.StatusError
	if errors.As(s.told(err), &known) {
		refuse(c.Writer, known.GetStatus(), known.Error())
	}
}

// forget lets go of what is remembered of the store, which is another one now.
func (s *server) forget() {
	s.maps.clear()
	j := &s.journal
	j.mu.Lock()
	j.forget()
	j.mu.Unlock()
}
