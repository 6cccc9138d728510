package store

import (
	"encoding/json"
	"errors"
	"fmt"

	"gorm.io/gorm"

	"undaris/core/planner"
)

// What a log adds up to is kept beside it, so that nobody has to read it all again: tallies of the
// lines of a day on a chart and an instrument, the same over all days, and how the picture of a
// player was at the end of each day. They are made of the log alone, and can be made anew of it.

// ever is the day of tallies of all days.
const ever = -1

// ErrTallies is what was counted of a log and cannot be read any more; it is to be forgotten, and made anew.
var ErrTallies = errors.New("what was counted of the log cannot be read")

// Slot is what lines of a log have in common that are counted together.
type Slot struct {
	Day    int
	Chart  uint
	Tuning string
}

// SlotOf is where a line is counted.
func SlotOf(p planner.Played, tuning string) Slot { return Slot{planner.Day(p.At), p.Chart, tuning} }

// Tallied is what is asked of tallies: a chart, an instrument, a first day, or nothing.
type Tallied struct {
	Player, Chart uint
	Tuning        string
	Since         int
}

// Tally adds up what was counted of a part of a log.
func (s *Store) Tally(of Tallied) (*planner.Tally, error) { return tallied(s.db, of) }

func tallied(tx *gorm.DB, of Tallied) (*planner.Tally, error) {
	rows := tx.Table("tallies").Select("sums").Where("player = ?", of.Player)
	if of.Since != 0 {
		rows = rows.Where("day >= ?", of.Since)
	} else {
		rows = rows.Where("day = ?", ever)
	}
	if of.Chart != 0 {
		rows = rows.Where("chart = ?", of.Chart)
	}
	if of.Tuning != "" {
		rows = rows.Where("tuning = ?", of.Tuning)
	}
	sum := &planner.Tally{}
	found, err := rows.Rows()
	if err != nil {
		return sum, (*Store)(nil).fault(err)
	}
	defer found.Close()
	for found.Next() {
		var text []byte
		var t planner.Tally
		if err := found.Scan(&text); err != nil {
			return sum, (*Store)(nil).fault(err)
		}
		if err := t.UnmarshalBinary(text); err != nil {
			return sum, fmt.Errorf("%w: %w", ErrTallies, err)
		}
		sum.Join(&t)
	}
	return sum, (*Store)(nil).fault(found.Err())
}

// Tunings are those of the instruments that were played.
func (s *Store) Tunings(player uint) (list []string, err error) {
	err = s.db.Table("tallies").Where("player = ? AND day = ? AND tuning <> ''", player, ever).Distinct().Order("tuning").Pluck("tuning", &list).Error
	return list, s.fault(err)
}

// KeepPicture keeps a picture, and what was counted since it was kept before.
func (s *Store) KeepPicture(player uint, p *planner.Picture, counted map[Slot]*planner.Tally) error {
	picture, err := json.Marshal(p)
	if err != nil {
		return err
	}
	return s.write(func(tx *gorm.DB) error {
		for at, t := range counted {
			for _, day := range []int{at.Day, ever} {
				if err := addTally(tx, player, Slot{day, at.Chart, at.Tuning}, t); err != nil {
					return err
				}
			}
		}
		if err := tx.Exec(`INSERT INTO pictures (player, day, read, picture) VALUES (?, ?, ?, ?)
			ON CONFLICT (player, day) DO UPDATE SET read = excluded.read, picture = excluded.picture`, player, p.Day, p.Read, string(picture)).Error; err != nil {
			return err
		}
		// Of a month ago and before, one of every four weeks is enough.
		return tx.Exec(`DELETE FROM pictures WHERE player = ? AND day < ? AND day % 28 <> 0`, player, p.Day-31).Error
	})
}

func addTally(tx *gorm.DB, player uint, at Slot, t *planner.Tally) error {
	var kept [][]byte
	if err := tx.Table("tallies").Where("player = ? AND day = ? AND chart = ? AND tuning = ?", player, at.Day, at.Chart, at.Tuning).Pluck("sums", &kept).Error; err != nil {
		return err
	}
	sum := &planner.Tally{}
	if len(kept) > 0 {
		if err := sum.UnmarshalBinary(kept[0]); err != nil {
			return fmt.Errorf("%w: %w", ErrTallies, err)
		}
	}
	sum.Join(t)
	return setTally(tx, player, at, sum)
}

func setTally(tx *gorm.DB, player uint, at Slot, sum *planner.Tally) error {
	sums, err := sum.MarshalBinary()
	if err != nil {
		return err
	}
	return tx.Exec(`INSERT INTO tallies (player, day, chart, tuning, sums) VALUES (?, ?, ?, ?, ?)
		ON CONFLICT (player, day, chart, tuning) DO UPDATE SET sums = excluded.sums`, player, at.Day, at.Chart, at.Tuning, sums).Error
}

// Picture is how the picture of a player was when it was kept last, before any line of a number on; 0 is
// any. One that cannot be used any more is forgotten with all that was counted, and nil is
// returned where there is none: then the log is to be read from its beginning.
func (s *Store) Picture(player uint, params planner.Params, before uint) (*planner.Picture, error) {
	var text []string
	rows := s.db.Table("pictures").Where("player = ?", player)
	if before != 0 {
		rows = rows.Where("read < ?", before)
	}
	if err := rows.Order("read DESC").Limit(1).Pluck("picture", &text).Error; err != nil {
		return nil, s.fault(err)
	}
	if len(text) == 0 {
		return nil, s.ForgetTallies(player)
	}
	p, err := planner.ReadPicture([]byte(text[0]), params)
	if err == nil {
		return p, nil
	}
	return nil, s.ForgetTallies(player)
}

// ForgetTallies lets go of what was made of a log.
func (s *Store) ForgetTallies(player uint) error {
	var there int64
	err := s.db.Raw(`SELECT (SELECT count(*) FROM pictures WHERE player = ?) + (SELECT count(*) FROM tallies WHERE player = ?)`, player, player).Scan(&there).Error
	if err != nil || there == 0 {
		return s.fault(err)
	}
	return s.write(func(tx *gorm.DB) error { return forgetTallies(tx, player) })
}

func forgetTallies(tx *gorm.DB, player uint) error {
	if err := tx.Exec(`DELETE FROM pictures WHERE player = ?`, player).Error; err != nil {
		return err
	}
	return tx.Exec(`DELETE FROM tallies WHERE player = ?`, player).Error
}

// recount makes the tallies anew that a line of the log is part of.
func recount(tx *gorm.DB, player, id uint) error {
	var e Entry
	if err := tx.Where("id = ?", id).Take(&e).Error; err != nil {
		return err
	}
	at := SlotOf(e.Played(), e.Tuning)
	sum := &planner.Tally{}
	for l, err := range loggedIn(tx, LogAsk{Player: player, Chart: at.Chart, Tuning: at.Tuning, Since: at.Day}) {
		if err != nil {
			return err
		}
		if !l.Lost && SlotOf(l.Played(), l.Tuning) == at {
			sum.Add(l.Played())
		}
	}
	if err := setTally(tx, player, at, sum); err != nil {
		return err
	}
	var days [][]byte
	if err := tx.Table("tallies").Where("player = ? AND day <> ? AND chart = ? AND tuning = ?", player, ever, at.Chart, at.Tuning).Pluck("sums", &days).Error; err != nil {
		return err
	}
	all := &planner.Tally{}
	for _, kept := range days {
		var day planner.Tally
		if err := day.UnmarshalBinary(kept); err != nil {
			return fmt.Errorf("%w: %w", ErrTallies, err)
		}
		all.Join(&day)
	}
	return setTally(tx, player, Slot{ever, at.Chart, at.Tuning}, all)
}
