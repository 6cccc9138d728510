package store

import (
	"errors"

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
	Rests   string  `json:"rests,omitempty" maxLength:"60"` // what may rest over a chord, as line.RuleByID reads it
	// Palettes are those of the player's own.
	Palettes []OwnPalette `json:"palettes,omitempty" maxItems:"40"`
	// Instruments are those that the player keeps; the one in hand is above.
	Instruments []OwnInstrument `json:"instruments,omitempty" maxItems:"40"`
}

// OwnInstrument is an instrument that a player keeps, by a name.
type OwnInstrument struct {
	Name   string  `json:"name" minLength:"1" maxLength:"60"`
	Tuning string  `json:"tuning" maxLength:"80"`
	Frets  int     `json:"frets"`
	Scale  float64 `json:"scale"` // millimetres
	Capo   int     `json:"capo"`
	Left   bool    `json:"left"`
}

// OwnPalette is a stock of notes that a player has made.
type OwnPalette struct {
	Name string `json:"name" minLength:"1" maxLength:"60"`
	ID   string `json:"id" maxLength:"40" doc:"own: and its steps, such as own:1 b3 4 5 6"`
}

// DefaultPlayer has a guitar in standard tuning and a usual hand.
var DefaultPlayer = Player{Tuning: "E2,A2,D3,G3,B3,E4", Frets: 22, Scale: 648, Comfort: 100, Habit: "stay"}

// PlayerVersion is the settings with their tag, and whose they are.
type PlayerVersion struct {
	Player
	Tag  Tag    `json:"version" doc:"its ETag, without the quotes"`
	ID   uint   `json:"id" doc:"of the player"`
	Name string `json:"name"`
}

// Person is one of the players who share an installation. Each has an instrument and
// a log; charts, licks and lines are everybody's.
type Person struct {
	ID   uint   `json:"id"`
	Name string `json:"name" maxLength:"60"`
	Here bool   `json:"here" doc:"whose turn it is"`
}

// ErrNamed is returned where two players would have one name.
var ErrNamed = errors.New("there is a player of that name already; two of one name cannot be told apart")

type playerRow struct {
	ID       uint
	Name     string
	Version  uint
	Settings Player `gorm:"serializer:json"`
	Here     bool
	Gone     bool // left, with everything kept
}

func (playerRow) TableName() string { return "players" }

// usually is what a player is called who has not said.
const usually = "Player"

// here is the row of whose turn it is; a new one where there is none.
func here(tx *gorm.DB) (playerRow, error) {
	var rows []playerRow
	err := tx.Where("gone = 0").Order("here DESC, id").Limit(1).Find(&rows).Error
	if err != nil || len(rows) == 0 {
		return playerRow{ID: 1, Name: usually, Settings: DefaultPlayer, Here: true}, err
	}
	return rows[0], nil
}

func (s *Store) settings(r playerRow) PlayerVersion {
	return PlayerVersion{r.Settings, s.tag(r.ID, r.Version), r.ID, r.Name}
}

// Player returns the settings of whose turn it is, the defaults when none were saved.
func (s *Store) Player() (PlayerVersion, error) {
	row, err := here(s.db)
	return s.settings(row), s.fault(err)
}

// PlayerByID returns the settings of one player, whoever's turn it is, also of one who left.
func (s *Store) PlayerByID(id uint) (PlayerVersion, error) {
	now, err := s.Player()
	if err != nil || id == 0 || id == now.ID {
		return now, err
	}
	var row playerRow
	err = s.db.First(&row, id).Error
	return s.settings(row), s.fault(err)
}

// SetPlayer saves the settings of whose turn it is, in place of the version named. With
// [ErrStale] it returns what is there now.
func (s *Store) SetPlayer(p Player, match Tag) (PlayerVersion, error) {
	var now PlayerVersion
	err := s.write(func(tx *gorm.DB) error {
		row, err := here(tx)
		if err != nil {
			return err
		}
		if now = s.settings(row); match != Any && match != now.Tag {
			return ErrStale
		}
		row.Settings, row.Version, row.Here = p, drawn(), true
		now = s.settings(row)
		return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&row).Error
	})
	return now, err
}

// People lists the players, in the order they came.
func (s *Store) People() ([]Person, error) {
	var rows []playerRow
	if err := s.db.Where("gone = 0").Order("id").Find(&rows).Error; err != nil {
		return nil, s.fault(err)
	}
	if len(rows) == 0 {
		return []Person{{1, usually, true}}, nil
	}
	people := make([]Person, len(rows))
	for i, r := range rows {
		people[i] = Person{r.ID, r.Name, r.Here}
	}
	return people, nil
}

// AddPerson makes a new player, whose turn it is from now on.
func (s *Store) AddPerson(name string) (p Person, err error) {
	err = s.write(func(tx *gorm.DB) error {
		first, err := here(tx)
		if err != nil {
			return err
		}
		if first.Version == 0 { // whoever was here without having saved anything stays
			if err := tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&first).Error; err != nil {
				return err
			}
		}
		if err := unnamed(tx, 0, name); err != nil {
			return err
		}
		row := playerRow{Name: name, Settings: DefaultPlayer}
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		p = Person{row.ID, name, true}
		return turn(tx, row.ID)
	})
	return p, err
}

// RenamePerson gives a player another name.
func (s *Store) RenamePerson(id uint, name string) error {
	return s.write(func(tx *gorm.DB) error {
		if err := unnamed(tx, id, name); err != nil {
			return err
		}
		row, err := here(tx)
		if err == nil && row.ID == id { // who is not stored yet is now
			err = tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&row).Error
		}
		if err != nil {
			return err
		}
		done := tx.Model(&playerRow{}).Where("id = ?", id).UpdateColumn("name", name)
		if done.Error == nil && done.RowsAffected == 0 {
			return ErrNotFound
		}
		return done.Error
	})
}

// ErrLast is returned where the only player would leave.
var ErrLast = errors.New("somebody has to play: the only player cannot be removed")

// RemovePerson lets a player go; what is theirs is kept, for them to come back.
func (s *Store) RemovePerson(id uint) error {
	return s.write(func(tx *gorm.DB) error {
		var others int64
		if err := tx.Model(&playerRow{}).Where("id <> ? AND gone = 0", id).Count(&others).Error; err != nil {
			return err
		}
		if others == 0 {
			return ErrLast
		}
		done := tx.Model(&playerRow{}).Where("id = ? AND gone = 0", id).UpdateColumns(map[string]any{"gone": true, "here": false})
		if done.Error == nil && done.RowsAffected == 0 {
			return ErrNotFound
		}
		if done.Error != nil {
			return done.Error
		}
		next, err := here(tx) // whose turn it was may have left
		if err != nil {
			return err
		}
		return turn(tx, next.ID)
	})
}

// RestorePerson takes back that a player left. Where another has the name by now, it
// is an [ErrNamed].
func (s *Store) RestorePerson(id uint) error {
	return s.write(func(tx *gorm.DB) error {
		var row playerRow
		if err := tx.First(&row, id).Error; err != nil {
			return err
		}
		if err := unnamed(tx, id, row.Name); err != nil {
			return err
		}
		return tx.Model(&playerRow{}).Where("id = ?", id).UpdateColumn("gone", false).Error
	})
}

// Turn says whose turn it is.
func (s *Store) Turn(id uint) error {
	return s.write(func(tx *gorm.DB) error {
		var n, all int64
		if err := tx.Model(&playerRow{}).Count(&all).Where("id = ? AND gone = 0", id).Count(&n).Error; err != nil {
			return err
		}
		if n == 0 && !(id == 1 && all == 0) { // the first is there before anything is kept
			return ErrNotFound
		}
		return turn(tx, id)
	})
}

func turn(tx *gorm.DB, id uint) error {
	return tx.Exec("UPDATE players SET here = (id = ?)", id).Error
}

// unnamed checks that nobody else has a name, in capitals or not.
func unnamed(tx *gorm.DB, id uint, name string) error {
	var n int64
	err := tx.Model(&playerRow{}).Where("lower(name) = lower(?) AND id <> ? AND gone = 0", name, id).Count(&n).Error
	if err == nil && n > 0 {
		err = ErrNamed
	}
	return err
}
