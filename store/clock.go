package store

import (
	"time"

	"gorm.io/gorm"
)

// RepairClock puts right lines of a log that bear a day to come, as a clock that ran ahead wrote them: each gets the time of the line
// before it that does not, or where there is none the time that is told. What was counted is forgotten then, and made anew by whoever
// asks. It tells how many there were.
func (s *Store) RepairClock(player uint, now time.Time) (repaired int, err error) {
	// A day ahead may be another time zone.
	last := now.UTC().AddDate(0, 0, 1).Format(time.DateOnly)
	var ahead int64
	if err := s.db.Raw(`SELECT count(*) FROM log WHERE player = ? AND substr(at, 1, 10) > ?`, player, last).Scan(&ahead).Error; err != nil || ahead == 0 {
		return 0, s.fault(err)
	}
	err = s.write(func(tx *gorm.DB) error {
		done := tx.Exec(`UPDATE log SET at = coalesce((SELECT b.at FROM log b WHERE b.player = log.player AND b.id < log.id AND substr(b.at, 1, 10) <= ? ORDER BY b.id DESC LIMIT 1), ?)
			WHERE player = ? AND substr(at, 1, 10) > ?`, last, now, player, last)
		if repaired = int(done.RowsAffected); done.Error != nil {
			return done.Error
		}
		return forgetTallies(tx, player)
	})
	return repaired, err
}

// farthest is how far a place on earth is from UTC, and a bit.
const farthest = 15 * 3600

// placed gives a time whose zone has no name one that can be read back: the day of a line of the log is that of the place where it was.
func placed(at time.Time) time.Time {
	name, off := at.Zone()
	switch {
	case off > farthest || off < -farthest:
		return at.UTC()
	case name == "":
		return at.In(time.FixedZone("LOC", off))
	}
	return at
}
