package store

import "gorm.io/gorm/clause"

// Player is the player's instrument and habits.
type Player struct {
	Tuning  string  `json:"tuning"` // as neck.New reads it
	Frets   int     `json:"frets"`
	Scale   float64 `json:"scale"` // millimetres
	Capo    int     `json:"capo"`
	Left    bool    `json:"left"`    // left-handed: the neck is mirrored
	Comfort float64 `json:"comfort"` // widest comfortable reach in millimetres
	Habit   string  `json:"habit"`   // "stay" or "shift"
}

// DefaultPlayer has a guitar in standard tuning and a usual hand.
var DefaultPlayer = Player{Tuning: "E2,A2,D3,G3,B3,E4", Frets: 22, Scale: 648, Comfort: 100, Habit: "stay"}

type playerRow struct {
	ID       uint
	Settings Player `gorm:"serializer:json"`
}

func (playerRow) TableName() string { return "players" }

// Player returns the settings, the defaults when none were saved.
func (s *Store) Player() (Player, error) {
	var rows []playerRow
	if err := s.db.Limit(1).Find(&rows).Error; err != nil || len(rows) == 0 {
		return DefaultPlayer, err
	}
	return rows[0].Settings, nil
}

// SetPlayer saves the settings.
func (s *Store) SetPlayer(p Player) error {
	return s.db.Clauses(clause.OnConflict{UpdateAll: true}).Create(&playerRow{1, p}).Error
}
