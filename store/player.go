package store

import (
	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Player is the player's instrument and habits.
type Player struct {
	Tuning  string  `json:"tuning" maxLength:"80"` // as neck.New reads it
	Frets   int     `json:"frets"`
	Scale   float64 `json:"scale"` // millimetres
	Capo    int     `json:"capo"`
	Left    bool    `json:"left"`                           // left-handed: the neck is mirrored
	Comfort float64 `json:"comfort"`                        // widest comfortable reach in millimetres
	Habit   string  `json:"habit" maxLength:"20"`           // "stay" or "shift"
	Rests   string  `json:"rests,omitempty" maxLength:"20"` // an ID of line.Rules: what may rest over a chord
}

// DefaultPlayer has a guitar in standard tuning and a usual hand.
var DefaultPlayer = Player{Tuning: "E2,A2,D3,G3,B3,E4", Frets: 22, Scale: 648, Comfort: 100, Habit: "stay"}

// PlayerVersion is the settings with their version; 0 while none were saved.
type PlayerVersion struct {
	Player
	Version uint `json:"version"`
}

type playerRow struct {
	ID       uint
	Version  uint
	Settings Player `gorm:"serializer:json"`
}

func (playerRow) TableName() string { return "players" }

// Player returns the settings, the defaults when none were saved.
func (s *Store) Player() (PlayerVersion, error) {
	var rows []playerRow
	if err := s.db.Limit(1).Find(&rows).Error; err != nil || len(rows) == 0 {
		return PlayerVersion{Player: DefaultPlayer}, s.fault(err)
	}
	return PlayerVersion{rows[0].Settings, rows[0].Version}, nil
}

// SetPlayer saves the settings in place of the version named; any may be the
// one that is there. With [ErrStale] it returns what is there now.
func (s *Store) SetPlayer(p Player, version uint, any bool) (PlayerVersion, error) {
	var now PlayerVersion
	err := s.write(func(tx *gorm.DB) error {
		var rows []playerRow
		if err := tx.Limit(1).Find(&rows).Error; err != nil {
			return err
		}
		now.Player = DefaultPlayer
		if len(rows) > 0 {
			now = PlayerVersion{rows[0].Settings, rows[0].Version}
		}
		if !any && version != now.Version {
			return ErrStale
		}
		now = PlayerVersion{p, now.Version + 1}
		return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&playerRow{1, now.Version, p}).Error
	})
	return now, err
}
