package server

import (
	"bytes"
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/planner"
	"undaris/store"
)

// Restored is what a restored backup brought.
type Restored struct {
	Things int `json:"things" doc:"charts, licks, lines, takes, lines of the log and what else there is now"`
}

func (s *server) backups(api huma.API) {
	deliver(s, api, "/api/backup", "backup", "Everything that is kept, as one JSON document", "application/json",
		func(ctx context.Context, _ *struct{}) (none download, err error) {
			var all bytes.Buffer
			if err := s.store.Backup(ctx, &all); err != nil {
				return none, err
			}
			return file("application/json", "undaris backup "+time.Now().Format(time.DateOnly), "json", all.Bytes()), nil
		})
	op := operation(http.MethodPost, "/api/restore", "restore", "A backup put in place of everything that is kept, which is copied aside first", 0)
	register(s, api, op, body(queued(s, func(ctx context.Context, in *struct{ RawBody []byte }) (Restored, error) {
		n, err := s.store.Restore(ctx, bytes.NewReader(in.RawBody))
		var bad store.ErrBackup
		if errors.As(err, &bad) {
			return Restored{}, at("body", "", bad)
		}
		s.forget()
		return Restored{n}, err
	})))
}

// forget lets go of what is remembered of the store, which is another one now.
func (s *server) forget() {
	s.maps.clear()
	j := &s.journal
	j.mu.Lock()
	j.entries, j.trials, j.last, j.lost, j.model = nil, nil, 0, 0, (*planner.Model)(nil)
	j.mu.Unlock()
}
