package store

import (
	"iter"
	"strings"
	"time"

	"gorm.io/gorm"

	"undaris/core/planner"
)

// Entry is a line of the log: a call, a take or a rung of a ladder, with everything
// that was asked in it.
type Entry struct {
	ID      uint
	Player  uint // whose it is
	At      time.Time
	Kind    string // one of those below
	Title   string
	Chart   uint   // 0 where none was
	Line    uint   // that was played; 0 where none was
	Lick    uint   // that was sent through the changes; 0 where none was
	Take    uint   // that was kept of it; 0 where none was
	Tuning  string // of the instrument it was played on
	Tempo   int
	Seconds float64
	Swing   float64 // asked: where the second eighth of a beat falls; 0 where none was
	Swung   float64 // the same as it was played; 0 where it was not heard
	Notes   int     // of a line: that were to be played
	Good    int     // of those: that were right
	Trials  Trials
	Ref     string // of the page that noted it; what is noted twice under one is noted once
}

// The kinds of entries.
const (
	LoggedCall  = "call"
	LoggedTake  = "take"
	LoggedRung  = "rung"
	LoggedByEar = "ear"  // time with a recording: it tells nothing of what is known
	LoggedSkip  = "skip" // a call that was let go on purpose: it tells nothing of how well it is known
)

// TableName is where the log is kept.
func (Entry) TableName() string { return "log" }

// Log adds lines to the log, of whose turn it is where they do not say whose they are. One
// that was noted before under the same reference is read in its place.
func (s *Store) Log(entries ...*Entry) error {
	player, err := s.Player()
	if err != nil {
		return err
	}
	for _, e := range entries {
		if e.Player == 0 {
			e.Player = player.ID
		}
		e.At = placed(e.At)
	}
	return s.write(func(tx *gorm.DB) error {
		fresh := []*Entry{}
		for _, e := range entries {
			if e.Ref != "" {
				var there Entry
				if err := tx.Where("ref = ?", e.Ref).Limit(1).Find(&there).Error; err != nil {
					return err
				}
				if there.ID != 0 {
					*e = there
					continue
				}
			}
			fresh = append(fresh, e)
		}
		if len(fresh) == 0 {
			return nil
		}
		return tx.CreateInBatches(fresh, 200).Error
	})
}

// LogAsk is which lines of a log are asked for: those of a player, of what else is not zero.
type LogAsk struct {
	Player        uint
	After, Before uint   // numbers
	Only          []uint // numbers
	Chart, Line   uint
	Charts, Lines []uint // of any of these charts, or of any of these lines
	Tuning        string
	Since         int // a day, see [planner.Day]
	Kind          string
	Swung         bool // a swing was heard
	Notes         bool // there were notes to be played
	Newest        bool // the newest first, else the oldest
	Limit, Offset int  // 0 is all
}

func (a LogAsk) where() (where string, args []any) {
	where, args = "player = ? AND gone = 0", []any{a.Player}
	also := func(is bool, text string, arg ...any) {
		if is {
			where, args = where+" AND "+text, append(args, arg...)
		}
	}
	among := func(column string, ids []uint) (text string, list []any) {
		for _, id := range ids {
			list = append(list, id)
		}
		return column + " IN (?" + strings.Repeat(", ?", max(0, len(ids)-1)) + ")", list
	}
	also(a.After != 0, "id > ?", a.After)
	also(a.Before != 0, "id < ?", a.Before)
	also(a.Chart != 0, "chart = ?", a.Chart)
	also(a.Line != 0, "line = ?", a.Line)
	also(a.Tuning != "", "tuning = ?", a.Tuning)
	also(a.Since != 0, "substr(at, 1, 10) >= ?", planner.DateOf(a.Since).Format(time.DateOnly)) // where it was, it was that day
	also(a.Kind != "", "kind = ?", a.Kind)
	also(a.Swung, "swung > 0")
	also(a.Notes, "notes > 0")
	if len(a.Only) > 0 {
		text, list := among("id", a.Only)
		also(true, text, list...)
	}
	var either []string
	var ids []any
	for column, list := range map[string][]uint{"chart": a.Charts, "line": a.Lines} {
		if len(list) > 0 {
			text, of := among(column, list)
			either, ids = append(either, text), append(ids, of...)
		}
	}
	also(len(either) > 0, "("+strings.Join(either, " OR ")+")", ids...)
	return where, args
}

// logged is how many lines of a log are held at once.
const logged = 500

// Logged goes through lines of a log. A line that cannot be read is lost, of which only the number
// is told.
func (s *Store) Logged(ask LogAsk) iter.Seq2[LogLine, error] { return loggedIn(s.db, ask) }

func loggedIn(db *gorm.DB, ask LogAsk) iter.Seq2[LogLine, error] {
	return func(yield func(LogLine, error) bool) {
		left := ask.Limit
		for {
			part := ask
			if part.Limit = logged; left > 0 {
				part.Limit = min(logged, left)
			}
			lines, err := lines(db, part)
			if err != nil {
				yield(LogLine{}, err)
				return
			}
			for _, l := range lines {
				if !yield(l, nil) {
					return
				}
			}
			if left -= len(lines); len(lines) < part.Limit || left == 0 {
				return
			}
			ask.Offset = 0
			if last := lines[len(lines)-1].ID; ask.Newest {
				ask.Before = last
			} else {
				ask.After = last
			}
		}
	}
}

// LogLine is a line as it was read.
type LogLine struct {
	Entry
	Lost bool
}

const columns = 17

func lines(db *gorm.DB, ask LogAsk) (lines []LogLine, err error) {
	fault := (*Store)(nil).fault
	where, args := ask.where()
	order, from := "id", "log"
	if ask.Swung { // few of them are; SQLite would rather go through all of a chart
		from = "log INDEXED BY log_swung"
	}
	if ask.Newest {
		order = "id DESC"
	}
	rows, err := db.Raw(`SELECT id, player, at, kind, title, chart, line, lick, take, tuning, tempo, seconds, swing, swung, notes, good, trials FROM `+from+` WHERE `+where+` ORDER BY `+order+` LIMIT ? OFFSET ?`,
		append(args, ask.Limit, ask.Offset)...).Rows()
	if err != nil {
		return nil, fault(err)
	}
	defer rows.Close()
	for rows.Next() {
		var l LogLine
		e := &l.Entry
		if rows.Scan(&e.ID, &e.Player, &e.At, &e.Kind, &e.Title, &e.Chart, &e.Line, &e.Lick, &e.Take, &e.Tuning, &e.Tempo, &e.Seconds, &e.Swing, &e.Swung, &e.Notes, &e.Good, &e.Trials) != nil {
			l = LogLine{Lost: true}
			rest := make([]any, columns)
			for i := range rest {
				rest[i] = new(any)
			}
			rest[0] = &l.ID
			if err := rows.Scan(rest...); err != nil {
				return nil, fault(err)
			}
		}
		lines = append(lines, l)
	}
	return lines, fault(rows.Err())
}

// Unlog takes a line out of the log, or puts it back. What the log adds up to from there on is forgotten, and made
// anew of it by whoever asks next.
func (s *Store) Unlog(player, id uint, gone bool) error {
	return s.write(func(tx *gorm.DB) error {
		done := tx.Model(&Entry{}).Where("id = ? AND player = ?", id, player).UpdateColumn("gone", gone)
		if done.Error == nil && done.RowsAffected == 0 {
			return ErrNotFound
		}
		if done.Error != nil {
			return done.Error
		}
		if err := tx.Exec(`DELETE FROM pictures WHERE player = ? AND read >= ?`, player, id).Error; err != nil {
			return err
		}
		return recount(tx, player, id)
	})
}

// LogTake tells which kept take is behind a line of the log.
func (s *Store) LogTake(entry, take uint) error {
	return s.write(func(tx *gorm.DB) error {
		done := tx.Model(&Entry{}).Where("id = ?", entry).UpdateColumn("take", take)
		if done.Error == nil && done.RowsAffected == 0 {
			return ErrNotFound
		}
		return done.Error
	})
}

// MinutesSince is how long a player played after a line of the log.
func (s *Store) MinutesSince(player, line uint) (minutes float64, err error) {
	err = s.db.Raw(`SELECT coalesce(sum(seconds), 0) / 60 FROM log WHERE player = ? AND gone = 0 AND id > ?`, player, line).Scan(&minutes).Error
	return minutes, s.fault(err)
}
