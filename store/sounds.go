package store

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"syscall"
	"time"

	"gorm.io/gorm"
)

// shelf is a directory beside the database for files that are named by the SHA-256 of what is
// in them, so that one is never written twice and never changed. A file is on the disk before its
// row says so; one that no row names is swept when the store is opened.
type shelf struct {
	dir, ending string
	named       string // SQL of the hashes that a database names
}

// The shelves: how takes sounded, and recordings, whose media type their rows tell.
var (
	soundShelf     = shelf{"sounds", ".wav", "SELECT hash FROM sounds"}
	recordingShelf = shelf{"recordings", "", "SELECT hash FROM recordings WHERE hash <> ''"}
	shelves        = []shelf{soundShelf, recordingShelf}
)

// partFile begins the name of a file that is being written.
const partFile = ".part-"

// sound tells where the sound of a take lies: a WAV that begins with the first bar.
type sound struct {
	TakeID uint `gorm:"primaryKey"`
	Hash   string
	Bytes  int64
}

// file is the name of a file in a data directory or a backup.
func (s shelf) file(hash string) string { return s.dir + "/" + hash + s.ending }

// isHash tells whether a text can name a sound.
func isHash(text string) bool {
	raw, err := hex.DecodeString(text)
	return err == nil && len(raw) == sha256.Size && strings.ToLower(text) == text
}

// hash is what the name of a file in a backup tells; nothing where it does not stand on this shelf.
func (s shelf) hash(name string) string {
	hash, of := strings.CutPrefix(name, s.dir+"/")
	hash, ends := strings.CutSuffix(hash, s.ending)
	if !of || !ends || !isHash(hash) {
		return ""
	}
	return hash
}

// onShelf is where a file of a backup belongs.
func onShelf(name string) (s shelf, hash string) {
	for _, s := range shelves {
		if hash := s.hash(name); hash != "" {
			return s, hash
		}
	}
	return shelf{}, ""
}

// put writes a file beside the database in home and tells its name. Where it returns
// without an error the file is on the disk.
func (s shelf) put(home string, from io.Reader) (hash string, size int64, err error) {
	at := filepath.Join(home, s.dir)
	if err := os.MkdirAll(at, 0o700); err != nil {
		return "", 0, err
	}
	f, err := os.CreateTemp(at, partFile)
	if err != nil {
		return "", 0, err
	}
	defer os.Remove(f.Name())
	defer f.Close()
	sum := sha256.New()
	if size, err = io.Copy(io.MultiWriter(f, sum), from); err != nil {
		return "", 0, err
	}
	hash = hex.EncodeToString(sum.Sum(nil))
	if err := errors.Join(f.Sync(), f.Close(), os.Rename(f.Name(), filepath.Join(home, s.file(hash)))); err != nil {
		return "", 0, err
	}
	return hash, size, synced(at)
}

// KeepSound keeps how a take sounded, in place of what was kept of it before.
func (s *Store) KeepSound(id uint, wav io.Reader) error {
	if _, err := s.Take(id); err != nil {
		return err
	}
	hash, size, err := soundShelf.put(filepath.Dir(s.path), wav)
	if err != nil {
		return s.fault(err)
	}
	return s.write(func(tx *gorm.DB) error {
		var t Take
		if err := tx.Select("id").First(&t, id).Error; err != nil {
			return err
		}
		if err := tx.Save(&sound{id, hash, size}).Error; err != nil {
			return err
		}
		return tx.Model(&Take{}).Where("id = ?", id).UpdateColumn("sound", true).Error
	})
}

// Sound opens how a take sounded. The caller closes it.
func (s *Store) Sound(id uint) (*os.File, error) {
	if _, err := s.Take(id); err != nil {
		return nil, err
	}
	var kept sound
	if err := s.db.First(&kept, id).Error; err != nil {
		return nil, s.fault(err)
	}
	f, err := os.Open(filepath.Join(filepath.Dir(s.path), soundShelf.file(kept.Hash)))
	if err != nil {
		return nil, &Fault{Unreadable, "how this take sounded is no longer beside the database; the take itself is whole", err}
	}
	return f, nil
}

// errSpoilt is why a sound that is there cannot be used.
var errSpoilt = errors.New("it is damaged")

// soundless lists the takes whose sound is not where its row says, or not what it says, and why.
func soundless(ctx context.Context, db querier, dir string) (takes map[int64]error, err error) {
	rows, err := db.QueryContext(ctx, "SELECT take_id, hash, bytes FROM sounds")
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	takes = map[int64]error{}
	for rows.Next() {
		var take int64
		var hash, size any
		if err := rows.Scan(&take, &hash, &size); err != nil {
			return nil, err
		}
		name, _ := hash.(string)
		at, err := os.Stat(filepath.Join(dir, soundShelf.file(name)))
		switch {
		case !isHash(name):
			takes[take] = errSpoilt
		case err != nil:
			takes[take] = err
		case at.Size() != size:
			takes[take] = errSpoilt
		}
	}
	return takes, rows.Err()
}

// sweepFiles removes what was being written when the program was killed, and every file that
// neither the database nor a copy beside it names. Where one of them cannot be asked, all stay.
func (s *Store) sweepFiles() {
	if s.forgetRecordings(time.Now()) != nil {
		return
	}
	for _, shelf := range shelves {
		shelf.sweep(s.path)
	}
}

func (s shelf) sweep(path string) {
	at := filepath.Join(filepath.Dir(path), s.dir)
	there, err := os.ReadDir(at)
	if err != nil || len(there) == 0 {
		return
	}
	named := map[string]bool{}
	for _, copied := range append(copiesOf(path), FileName) {
		if err := s.namedIn(filepath.Join(filepath.Dir(path), copied), named); err != nil {
			return
		}
	}
	for _, f := range there {
		if hash := s.hash(s.dir + "/" + f.Name()); strings.HasPrefix(f.Name(), partFile) || hash != "" && !named[hash] {
			os.Remove(filepath.Join(at, f.Name()))
		}
	}
}

// namedIn notes the files that a database names; one of an older version has none, or holds them itself.
func (s shelf) namedIn(path string, named map[string]bool) error {
	db, err := sql.Open("sqlite", source(path, "mode=ro"))
	if err != nil {
		return err
	}
	defer db.Close()
	ctx := context.Background()
	if columns, err := columnsOf(ctx, db, s.dir); err != nil || !slices.Contains(columns, "hash") {
		return err
	}
	hashes, err := names(ctx, db, s.named)
	for _, hash := range hashes {
		named[hash] = true
	}
	return err
}

// soundsBecomeFiles writes the sounds that stood in the database beside it.
func soundsBecomeFiles(tx *gorm.DB) error {
	var file string
	if err := tx.Raw("SELECT file FROM pragma_database_list WHERE name = 'main'").Scan(&file).Error; err != nil {
		return err
	}
	var takes []uint
	if err := tx.Raw("SELECT take_id FROM sounds ORDER BY take_id").Scan(&takes).Error; err != nil {
		return err
	}
	for _, take := range takes { // one at a time: all of them may be larger than the memory
		var wav []byte
		if err := tx.Raw("SELECT wav FROM sounds WHERE take_id = ?", take).Row().Scan(&wav); err != nil {
			return err
		}
		hash, size, err := soundShelf.put(filepath.Dir(file), strings.NewReader(string(wav)))
		if err != nil {
			return err
		}
		if err := tx.Exec("INSERT INTO heard (take_id, hash, bytes) VALUES (?, ?, ?)", take, hash, size).Error; err != nil {
			return err
		}
	}
	for _, s := range []string{"DROP TABLE sounds", "ALTER TABLE heard RENAME TO sounds"} {
		if err := tx.Exec(s).Error; err != nil {
			return err
		}
	}
	return nil
}

// roomFor says so where a disk has less room than is needed. What cannot be asked is tried.
func roomFor(dir string, bytes int64) error {
	free, err := freeAt(dir)
	if err != nil || free >= bytes {
		return nil
	}
	return fmt.Errorf("%d MB are needed and %d MB free: %w", bytes>>20+1, free>>20, syscall.ENOSPC)
}
