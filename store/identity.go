package store

import (
	"crypto/rand"
	"fmt"
	mathrand "math/rand/v2"
	"strings"

	"gorm.io/gorm"
)

// A database has an identity: a random name, new with each restore. Each thing in it
// has a random number that it is born with, and another for each version. The three
// together are its tag, so that no tag of one history means anything in another: not
// after a restore, and not in a file that was copied back by hand.

// Tag names one version of one thing of one database: "IDENTITY.BORN.VERSION".
type Tag string

// Any stands for whatever version is there.
const Any Tag = "*"

// drawn is a random number that SQLite and JavaScript keep exactly, and never 0.
func drawn() uint { return uint(mathrand.Uint64N(1<<52-1)) + 1 }

// Identity is the name of the database as it stands.
func (s *Store) Identity() string { return *s.identity.Load() }

func (s *Store) tag(born, version uint) Tag {
	return Tag(fmt.Sprintf("%s.%d.%d", s.Identity(), born, version))
}

// matches tells whether a change that is meant for one version is meant for this one.
func (s *Store) matches(want Tag, k *Kept) bool {
	return want == Any || want == s.tag(k.Born, k.Version)
}

// tagged is the tag of a row as SQL says it.
const tagged = `(SELECT name FROM identity) || '.' || born || '.' || version`

// identify gives the database a name that nothing had before.
func identify(tx *gorm.DB) (name string, err error) {
	name = strings.ToLower(rand.Text())
	return name, tx.Exec("INSERT OR REPLACE INTO identity (id, name) VALUES (1, ?)", name).Error
}

// readIdentity learns what the database is called.
func (s *Store) readIdentity() error {
	var name string
	if err := s.db.Raw("SELECT name FROM identity WHERE id = 1").Scan(&name).Error; err != nil {
		return s.fault(err)
	}
	if name == "" { // taken out by hand
		return s.write(func(tx *gorm.DB) error {
			name, err := identify(tx)
			s.identity.Store(&name)
			return err
		})
	}
	s.identity.Store(&name)
	return nil
}

// bear gives every row that there is a birth and a version of its own.
func bear(tx *gorm.DB) error {
	for _, table := range []string{"charts", "licks", "lines", "takes", "sets"} {
		if err := tx.Exec(`UPDATE ` + table + ` SET born = (random() & 4503599627370494) + 1, version = (random() & 4503599627370494) + 1`).Error; err != nil {
			return err
		}
	}
	if err := tx.Exec(`UPDATE players SET version = (random() & 4503599627370494) + 1 WHERE version > 0`).Error; err != nil {
		return err
	}
	_, err := identify(tx)
	return err
}
