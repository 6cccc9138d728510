package store

import (
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
