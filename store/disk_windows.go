package store

import (
	"errors"
	"math"
	"syscall"

	"golang.org/x/sys/windows"
)

// freeAt is how many bytes a player may still write where a directory is.
func freeAt(dir string) (int64, error) {
	path, err := windows.UTF16PtrFromString(dir)
	if err != nil {
		return 0, err
	}
	var free uint64
	if err := windows.GetDiskFreeSpaceEx(path, &free, nil, nil); err != nil {
		return 0, err
	}
	return int64(min(free, math.MaxInt64)), nil
}

// noRoom tells whether a system refused to write for want of room.
func noRoom(err error) bool {
	return errors.Is(err, windows.ERROR_DISK_FULL) || errors.Is(err, windows.ERROR_HANDLE_DISK_FULL) || errors.Is(err, syscall.ENOSPC)
}
