package store

import (
	"encoding/json"

	"github.com/go-gormigrate/gormigrate/v2"
	"gorm.io/gorm"
)

// migrations are numbered and never changed once released; the tables are
// written out here so that later changes of the models do not alter history.
var migrations = []*gormigrate.Migration{
	step("0001-charts-and-player", `
		CREATE TABLE charts (
			id INTEGER PRIMARY KEY AUTOINCREMENT,
			title TEXT NOT NULL, key TEXT NOT NULL, feel TEXT NOT NULL,
			tempo INTEGER NOT NULL, beats INTEGER NOT NULL, text TEXT NOT NULL,
			plan TEXT NOT NULL DEFAULT '{}',
			created_at DATETIME NOT NULL, updated_at DATETIME NOT NULL,
			opened_at DATETIME, deleted_at DATETIME)`,
		`CREATE INDEX charts_deleted ON charts (deleted_at)`,
		`CREATE TABLE players (id INTEGER PRIMARY KEY CHECK (id = 1), settings TEXT NOT NULL)`),
	step("0002-licks-and-lines", `
		CREATE TABLE licks (
			id INTEGER PRIMARY KEY AUTOINCREMENT,
			title TEXT NOT NULL, chord TEXT NOT NULL, of_key INTEGER NOT NULL,
			notes TEXT NOT NULL, tags TEXT NOT NULL DEFAULT '[]',
			created_at DATETIME NOT NULL, updated_at DATETIME NOT NULL, deleted_at DATETIME)`,
		`CREATE INDEX licks_deleted ON licks (deleted_at)`,
		`CREATE TABLE lines (
			id INTEGER PRIMARY KEY AUTOINCREMENT,
			title TEXT NOT NULL, key TEXT NOT NULL, feel TEXT NOT NULL,
			tempo INTEGER NOT NULL, beats INTEGER NOT NULL, text TEXT NOT NULL,
			palette TEXT NOT NULL DEFAULT '', low INTEGER NOT NULL, high INTEGER NOT NULL,
			notes TEXT NOT NULL, locked TEXT NOT NULL DEFAULT '[]',
			created_at DATETIME NOT NULL, updated_at DATETIME NOT NULL, deleted_at DATETIME)`,
		`CREATE INDEX lines_deleted ON lines (deleted_at)`),
	withRows(step("0003-versions",
		`ALTER TABLE charts ADD COLUMN version INTEGER NOT NULL DEFAULT 1`,
		`ALTER TABLE licks ADD COLUMN version INTEGER NOT NULL DEFAULT 1`,
		`ALTER TABLE lines ADD COLUMN version INTEGER NOT NULL DEFAULT 1`,
		`ALTER TABLE players ADD COLUMN version INTEGER NOT NULL DEFAULT 1`,
		`ALTER TABLE charts ADD COLUMN bars INTEGER NOT NULL DEFAULT 0`,
		`ALTER TABLE charts ADD COLUMN chords TEXT NOT NULL DEFAULT ''`,
		`ALTER TABLE lines ADD COLUMN bars INTEGER NOT NULL DEFAULT 0`,
		`ALTER TABLE lines ADD COLUMN sounding INTEGER NOT NULL DEFAULT 0`,
		`UPDATE lines SET sounding = json_array_length(notes) WHERE json_valid(notes)`,
		`ALTER TABLE licks ADD COLUMN lands_on TEXT NOT NULL DEFAULT ''`,
		`ALTER TABLE licks ADD COLUMN length REAL NOT NULL DEFAULT 0`,
		`CREATE INDEX charts_order ON charts (coalesce(opened_at, created_at), id) WHERE deleted_at IS NULL`,
		`CREATE INDEX licks_order ON licks (updated_at, id) WHERE deleted_at IS NULL`,
		`CREATE INDEX lines_order ON lines (updated_at, id) WHERE deleted_at IS NULL`),
		countBars("charts"), countBars("lines"), measureLicks),
	// A line is written for an instrument; until now for the one that was in hand.
	step("0004-a-line-knows-its-instrument",
		`ALTER TABLE lines ADD COLUMN tuning TEXT NOT NULL DEFAULT 'E2,A2,D3,G3,B3,E4'`,
		`ALTER TABLE lines ADD COLUMN frets INTEGER NOT NULL DEFAULT 22`,
		`ALTER TABLE lines ADD COLUMN capo INTEGER NOT NULL DEFAULT 0`,
		`UPDATE lines SET tuning = json_extract(p.settings, '$.tuning'), frets = json_extract(p.settings, '$.frets'), capo = json_extract(p.settings, '$.capo')
			FROM players p WHERE json_valid(p.settings) AND json_extract(p.settings, '$.tuning') IS NOT NULL`),
	step("0005-exercises-are-known", `ALTER TABLE lines ADD COLUMN exercise TEXT NOT NULL DEFAULT ''`),
}

type migration = gormigrate.Migration

// withRows does more, row by row, after a step's statements.
func withRows(m *migration, fill ...func(tx *gorm.DB) error) *migration {
	statements := m.Migrate
	m.Migrate = func(tx *gorm.DB) error {
		return tx.Transaction(func(tx *gorm.DB) error {
			if err := statements(tx); err != nil {
				return err
			}
			for _, f := range fill {
				if err := f(tx); err != nil {
					return err
				}
			}
			return nil
		})
	}
	return m
}

// countBars writes down how many bars each text of a table has.
func countBars(table string) func(tx *gorm.DB) error {
	return func(tx *gorm.DB) error {
		var rows []struct {
			ID        uint
			Text, Key string
			Beats     int
		}
		if err := tx.Raw("SELECT id, text, key, beats FROM " + table).Scan(&rows).Error; err != nil {
			return err
		}
		for _, r := range rows {
			bars, chords := gist(r.Text, r.Beats, r.Key)
			if err := tx.Exec("UPDATE "+table+" SET bars = ? WHERE id = ?", bars, r.ID).Error; err != nil {
				return err
			}
			if table != "charts" {
				continue
			}
			if err := tx.Exec("UPDATE charts SET chords = ? WHERE id = ?", chords, r.ID).Error; err != nil {
				return err
			}
		}
		return nil
	}
}

// measureLicks writes down how long each lick is and where it lands. One whose
// notes cannot be read keeps its place, and says so when it is opened.
func measureLicks(tx *gorm.DB) error {
	var rows []struct {
		ID    uint
		Notes string
	}
	if err := tx.Raw("SELECT id, notes FROM licks").Scan(&rows).Error; err != nil {
		return err
	}
	for _, r := range rows {
		var l Lick
		if json.Unmarshal([]byte(r.Notes), &l.Notes) != nil {
			continue
		}
		l.derive()
		if err := tx.Exec("UPDATE licks SET lands_on = ?, length = ? WHERE id = ?", l.LandsOn, l.Length, r.ID).Error; err != nil {
			return err
		}
	}
	return nil
}

func step(id string, statements ...string) *gormigrate.Migration {
	return &gormigrate.Migration{ID: id, Migrate: func(tx *gorm.DB) error {
		return tx.Transaction(func(tx *gorm.DB) error {
			for _, s := range statements {
				if err := tx.Exec(s).Error; err != nil {
					return err
				}
			}
			return nil
		})
	}}
}
