package store

import (
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"strings"

	"github.com/gofrs/flock"
)

// hold is a data directory taken for one program. It ends with the program, however that ends.
type hold struct{ lock *flock.Flock }

// TakenError says that another program has a data directory.
type TakenError struct{ dir, process string }

func (e *TakenError) Error() string {
	return fmt.Sprintf("another Undaris%s uses the data in %s; stop it, or name another directory with --data", e.process, e.dir)
}

// claim takes a data directory. What is locked is a file of its own, never the database.
func claim(dir string) (*hold, error) {
	path := filepath.Join(dir, "undaris.lock")
	lock := flock.New(path, flock.SetPermissions(0o600))
	got, err := lock.TryLock()
	if err != nil {
		return nil, fmt.Errorf("the data directory %s cannot be written to; look at its rights, or name another with --data: %w", dir, err)
	}
	if !got {
		who, _ := os.ReadFile(path) // where the system lets it be read
		name := ""
		if pid := strings.TrimSpace(string(who[:min(20, len(who))])); pid != "" {
			name = " (process " + pid + ")"
		}
		return nil, &TakenError{dir, name}
	}
	_ = os.WriteFile(path, []byte(strconv.Itoa(os.Getpid())+"\n"), 0o600) // only for that message
	return &hold{lock}, nil
}

func (h *hold) release() { _ = h.lock.Close() }

// claimed notices when the file that the claim stands on was deleted or replaced: then
// another program may have the directory too, and nothing is written any more.
func (s *Store) claimed() error {
	held, err := s.lock.lock.Stat()
	if err == nil {
		var now os.FileInfo
		if now, err = os.Stat(s.lock.lock.Path()); err == nil && os.SameFile(held, now) {
			return nil
		}
	}
	s.gone = &Fault{Gone, "the file undaris.lock was removed from the data directory while Undaris was running, so another Undaris may use the same data; nothing can be saved any more. Stop Undaris and start it again", err}
	return s.gone
}
