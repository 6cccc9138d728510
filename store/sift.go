package store

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"slices"

	"gorm.io/gorm"
)

// MostLeft is how many of what was left out are told of one by one.
const MostLeft = 20

// sifting takes out of a database what cannot be used as what it should be.
type sifting struct {
	ctx   context.Context
	db    *gorm.DB
	legal func(thing any) error
	*leavings
}

// leavings are what was left out of a backup.
type leavings struct {
	list []string
	lost int
}

// sift reads every row through its own type. What cannot be read so, what its readers could not
// show, and what legal refuses is taken out and told; what lists tell of the rest is worked out
// anew.
func sift(ctx context.Context, db *gorm.DB, legal func(thing any) error, left *leavings) error {
	if legal == nil {
		legal = func(any) error { return nil }
	}
	s := &sifting{ctx, db.Session(&gorm.Session{NewDB: true, SkipHooks: true}).WithContext(ctx), legal, left}
	err := errors.Join(
		sifted[Chart](s, "chart", func(c *Chart) string { return c.Title }),
		sifted[Lick](s, "lick", func(l *Lick) string { return l.Title }),
		sifted[Line](s, "line", func(l *Line) string { return l.Title }),
		sifted[Take](s, "take", func(t *Take) string { return t.Title }),
		sifted[Set](s, "set", func(c *Set) string { return c.Title }),
		sifted[Recording](s, "recording", func(r *Recording) string { return r.Title }),
		settings(s),
		rows(s, "player", func(p *playerRow) string { return p.Name }, func(*playerRow) error { return nil }),
		rows(s, "line of the log", func(e *Entry) string { return e.Title }, func(e *Entry) error { return legal(*e) }),
		rows(s, "assignment", func(*Assignment) string { return "" }, func(a *Assignment) error { return legal(*a) }),
		rows(s, "result of an assignment", func(*Results) string { return "" }, func(r *Results) error { return legal(*r) }),
	)
	if err != nil {
		return err
	}
	// What belonged to something that went goes with it, and a take says that it sounds where it does.
	for _, tidy := range []string{
		"DELETE FROM sounds WHERE take_id NOT IN (SELECT id FROM takes)",
		"DELETE FROM results WHERE assignment_id NOT IN (SELECT id FROM assignments)",
		"UPDATE takes SET sound = id IN (SELECT take_id FROM sounds) WHERE sound <> (id IN (SELECT take_id FROM sounds))",
	} {
		if err := s.db.Exec(tidy).Error; err != nil {
			return err
		}
	}
	return nil
}

// sifted are the rows of a kind that is kept; what lists tell of one is worked out anew.
func sifted[T any, P thing[T]](s *sifting, name string, title func(*T) string) error {
	return rows(s, name, title, func(t *T) (err error) {
		defer func() {
			if fault := recover(); fault != nil { // whoever opens it would fail on it, too
				err = fmt.Errorf("it cannot be read (%v)", fault)
			}
		}()
		P(t).derive()
		return s.legal(*t)
	})
}

// batch is how many rows are read at once.
const batch = 200

// rows are those of any table that has numbers.
func rows[T any](s *sifting, name string, title func(*T) string, check func(*T) error) error {
	var ids []int64
	if err := s.db.Unscoped().Model(new(T)).Order("id").Pluck("id", &ids).Error; err != nil {
		return err
	}
	for some := range slices.Chunk(ids, batch) {
		var read []T
		err := s.db.Unscoped().Where("id IN ?", some).Order("id").Find(&read).Error
		if e := errors.Join(s.ctx.Err(), diskFull(err)); e != nil {
			return e
		}
		for i, id := range some {
			var row T
			var unread error
			if err == nil {
				row = read[i]
			} else { // one of them cannot be read
				unread = s.db.Unscoped().Where("id = ?", id).Take(&row).Error
			}
			was := row
			if unread = cmp.Or(unread, legible(row)); unread == nil {
				unread = check(&row)
			}
			switch {
			case unread != nil:
				s.add(fmt.Sprintf("%s %d", name, id), title(&row), unread)
				if err := s.db.Unscoped().Where("id = ?", id).Delete(new(T)).Error; err != nil {
					return err
				}
			case !reflect.DeepEqual(was, row):
				if err := s.db.Unscoped().Model(new(T)).Where("id = ?", id).Select("*").UpdateColumns(&row).Error; err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// settings gives players whose own cannot be used the usual ones: their log is theirs.
func settings(s *sifting) error {
	var players []struct {
		ID             int64
		Name, Settings string
	}
	if err := s.db.Raw("SELECT id, CAST(name AS TEXT) AS name, CAST(settings AS TEXT) AS settings FROM players ORDER BY id").Scan(&players).Error; err != nil {
		return err
	}
	for _, p := range players {
		var own Player
		err := json.Unmarshal([]byte(p.Settings), &own)
		if err = cmp.Or(err, s.legal(own)); err == nil {
			continue
		}
		s.add(fmt.Sprintf("the instrument of player %d", p.ID), p.Name, err)
		if err := s.db.Model(&playerRow{}).Where("id = ?", p.ID).Select("settings").UpdateColumns(&playerRow{Settings: DefaultPlayer}).Error; err != nil {
			return err
		}
	}
	return nil
}

// diskFull is an error only where the disk is.
func diskFull(err error) error {
	if isFull(err) {
		return err
	}
	return nil
}

// add tells of one, and why.
func (l *leavings) add(what, title string, why error) {
	if l.lost++; len(l.list) == MostLeft {
		return
	}
	if title != "" {
		what += fmt.Sprintf(" (%.60s)", title)
	}
	l.list = append(l.list, fmt.Sprintf("%s: %v", what, why))
}
