package store

import (
	"database/sql"
	"time"

	"github.com/segmentio/encoding/json"
	"gorm.io/gorm"

	"undaris/core/planner"
)

// Entry is a line of the log: a call, a take or a rung of a ladder, with everything
// that was asked in it.
type Entry struct {
	ID      uint
	Player  uint // whose it is
	At      time.Time
	Kind    string // of Entries
	Title   string
	Chart   uint   // 0 where none was
	Line    uint   // that was played; 0 where none was
	Take    uint   // that was kept of it; 0 where none was
	Tuning  string // of the instrument it was played on
	Tempo   int
	Seconds float64
	Swing   float64 // asked: where the second eighth of a beat falls; 0 where none was
	Swung   float64 // the same as it was played; 0 where it was not heard
	Notes   int     // of a line: that were to be played
	Good    int     // of those: that were right
	Trials  []Trial `gorm:"serializer:json"`
	Ref     string  // of the page that noted it; what is noted twice under one is noted once
}

// The kinds of entries.
const (
	LoggedCall = "call"
	LoggedTake = "take"
	LoggedRung = "rung"
	LoggedSkip = "skip" // a call that was let go on purpose: it tells nothing of how well it is known
)

// TableName is where the log is kept.
func (Entry) TableName() string { return "log" }

// Trial is planner.Trial as it is kept, without what its entry says.
type Trial struct {
	Key      int     `json:"key"`
	Position int     `json:"position"`
	Quality  string  `json:"quality"`
	Degree   string  `json:"degree"`
	Down     bool    `json:"down,omitempty"`
	Device   string  `json:"device"`
	Chord    string  `json:"chord"`
	From     string  `json:"from,omitempty"`
	String   int     `json:"string,omitempty"`
	Bar      int     `json:"bar,omitempty"`
	Met      string  `json:"met,omitempty"`
	On       string  `json:"on,omitempty"`
	Success  float64 `json:"success"`
	Ms       float64 `json:"ms,omitempty"`
	Timed    bool    `json:"timed,omitempty"`
}

// TrialOf is a trial as it is kept.
func TrialOf(t planner.Trial) Trial {
	return Trial{Key: t.Key, Position: t.Position, Quality: t.Quality, Degree: t.Degree, Down: t.Down, Device: t.Device, Chord: t.Chord, From: t.From, String: t.String, Bar: t.Bar,
		Met: t.Met, On: t.On, Success: t.Success, Ms: t.Ms, Timed: t.Timed}
}

// Asked are the trials of an entry, with what it says of all of them.
func (e Entry) Asked() []planner.Trial {
	asked := make([]planner.Trial, len(e.Trials))
	for i, t := range e.Trials {
		asked[i] = planner.Trial{Ask: planner.Ask{Key: t.Key, Position: t.Position, Quality: t.Quality, Degree: t.Degree, Down: t.Down, Device: t.Device, Tempo: e.Tempo},
			At: e.At, Entry: e.ID, Chart: e.Chart, Tuning: e.Tuning, Chord: t.Chord, From: t.From, String: t.String, Bar: t.Bar, Met: t.Met, On: t.On, Success: t.Success, Ms: t.Ms, Timed: t.Timed}
	}
	return asked
}

// Played is an entry as far as aims are concerned.
func (e Entry) Played() planner.Played {
	return planner.Played{At: e.At, Chart: e.Chart, Line: e.Line, Call: e.Kind == LoggedCall, Tempo: e.Tempo, Seconds: e.Seconds, Notes: e.Notes, Good: e.Good, Trials: e.Asked()}
}

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

// Logged reads the log of a player from a number on, the oldest first. A line that cannot be read
// is left out, and counted.
func (s *Store) Logged(player, after uint) (entries []Entry, lost int, err error) {
	db, err := s.db.DB()
	if err != nil {
		return nil, 0, s.fault(err)
	}
	rows, err := db.Query(`SELECT id, player, at, kind, title, chart, line, take, tuning, tempo, seconds, swing, swung, notes, good, trials FROM log WHERE player = ? AND id > ? ORDER BY id`, player, after)
	if err != nil {
		return nil, 0, s.fault(err)
	}
	defer rows.Close()
	for rows.Next() {
		var e Entry
		var trials sql.RawBytes
		if rows.Scan(&e.ID, &e.Player, &e.At, &e.Kind, &e.Title, &e.Chart, &e.Line, &e.Take, &e.Tuning, &e.Tempo, &e.Seconds, &e.Swing, &e.Swung, &e.Notes, &e.Good, &trials) != nil || json.Unmarshal(trials, &e.Trials) != nil {
			lost++
			continue
		}
		entries = append(entries, e)
	}
	return entries, lost, s.fault(rows.Err())
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
