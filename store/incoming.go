package store

import (
	"archive/tar"
	"bufio"
	"bytes"
	"cmp"
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io"
	"maps"
	"os"
	"path/filepath"
	"slices"

	"gorm.io/gorm"
)

// incoming is a backup that is read into a directory of its own: its tables into a database,
// its sounds beside that.
type incoming struct {
	db     *gorm.DB
	raw    *sql.DB
	dir    string
	beside int64           // bytes of the database that it takes the place of, which is copied aside
	files  map[string]bool // by their names in the backup
	spoilt map[string]bool // sounds that are not what they are named by
}

// read reads a backup to its end, of either form.
func (in *incoming) read(ctx context.Context, r io.Reader) error {
	in.files, in.spoilt = map[string]bool{}, map[string]bool{}
	size := int64(0)
	if f, ok := r.(interface{ Stat() (os.FileInfo, error) }); ok {
		if at, err := f.Stat(); err == nil && at.Mode().IsRegular() {
			size = at.Size()
		}
	}
	from := bufio.NewReaderSize(r, 1<<16)
	if head, _ := from.Peek(512); !isTar(head) {
		if err := in.roomForDocument(size); err != nil {
			return err
		}
		return fill(ctx, in.db, in.raw, from)
	}
	parts := tar.NewReader(from)
	for first := true; ; first = false {
		part, err := parts.Next()
		if err == io.EOF && !first {
			return nil
		} else if errors.Is(err, tar.ErrHeader) {
			return ErrBackup{"the backup cannot be read: what comes after its first parts is damaged; nothing was changed"}
		} else if err != nil {
			return cut(err)
		}
		shelf, hash := onShelf(part.Name)
		switch {
		case part.Typeflag != tar.TypeReg:
			err = ErrBackup{fmt.Sprintf("the backup has %q in it, which is no file; nothing was changed", part.Name)}
		case first && part.Name == backupDocument:
			if err = in.roomForDocument(part.Size); err == nil {
				err = fill(ctx, in.db, in.raw, parts)
			}
		case first:
			err = ErrBackup{"this is no backup of Undaris: it does not begin as one; nothing was changed"}
		case hash == "" || in.files[part.Name]:
			err = ErrBackup{fmt.Sprintf("the backup has a file %q that Undaris does not know; nothing was changed", part.Name)}
		default:
			in.files[part.Name] = true
			err = in.file(parts, shelf, hash, part.Size)
		}
		if err != nil {
			return err
		}
	}
}

func isTar(head []byte) bool { return len(head) >= 512 && bytes.HasPrefix(head[257:], []byte("ustar")) }

// roomForDocument says so where the disk has no room for it: here, in the journal and in the
// database, beside the copy of what is there.
func (in *incoming) roomForDocument(size int64) error { return roomFor(in.dir, 3*size+in.beside) }

// file puts one by, under what it is and not what it is called.
func (in *incoming) file(from io.Reader, on shelf, hash string, size int64) error {
	if err := roomFor(in.dir, size); err != nil {
		return err
	}
	is, n, err := on.put(in.dir, from)
	var path *os.PathError
	switch {
	case errors.As(err, &path):
		return err
	case err != nil || n != size:
		return cut(cmp.Or(err, io.ErrUnexpectedEOF))
	}
	if is != hash {
		in.spoilt[hash] = true
	}
	return nil
}

// complete makes sure that each sound that is named is there. A document alone lacks them, and
// so does a backup that was cut between two of them.
func (in *incoming) complete(ctx context.Context, left *leavings) error {
	without, err := soundless(ctx, in.raw, in.dir)
	if err != nil {
		return err
	}
	for _, take := range slices.Sorted(maps.Keys(without)) {
		if !errors.Is(without[take], errSpoilt) {
			var hash string
			if err := in.raw.QueryRowContext(ctx, "SELECT hash FROM sounds WHERE take_id = ?", take).Scan(&hash); err != nil {
				return err
			}
			if !in.spoilt[hash] {
				return ErrBackup{"the backup ends too early: sounds of takes are missing that it names; nothing was changed"}
			}
		}
		if _, err := in.raw.ExecContext(ctx, "DELETE FROM sounds WHERE take_id = ?", take); err != nil {
			return err
		}
		left.add(fmt.Sprintf("how take %d sounded", take), "", errSpoilt)
	}
	return nil
}

// moveFiles puts the sounds and recordings beside the database that will name them.
func (in *incoming) moveFiles(home string) error {
	for _, s := range shelves {
		there, err := os.ReadDir(filepath.Join(in.dir, s.dir))
		if err != nil || len(there) == 0 {
			continue // there are none
		}
		if err := os.MkdirAll(filepath.Join(home, s.dir), 0o700); err != nil {
			return err
		}
		for _, f := range there {
			if err := os.Rename(filepath.Join(in.dir, s.dir, f.Name()), filepath.Join(home, s.dir, f.Name())); err != nil {
				return err
			}
		}
		if err := synced(filepath.Join(home, s.dir)); err != nil {
			return err
		}
	}
	return nil
}
