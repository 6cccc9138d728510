//go:build unix

package store

import (
	"errors"

	"golang.org/x/sys/unix"
)

// freeAt is how many bytes a player may still write where a directory is.
func freeAt(dir string) (int64, error) {
	var disk unix.Statfs_t
	if err := unix.Statfs(dir, &disk); err != nil {
		return 0, err
	}
	return int64(disk.Bavail) * int64(disk.Bsize), nil
}

// noRoom tells whether a system refused to write for want of room.
func noRoom(err error) bool { return errors.Is(err, unix.ENOSPC) || errors.Is(err, unix.EDQUOT) }
