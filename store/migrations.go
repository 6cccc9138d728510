package store

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"

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
	withRows(step("0006-plans-in-parts"), typePlans),
	step("0007-takes", `
		CREATE TABLE takes (
			id INTEGER PRIMARY KEY AUTOINCREMENT, version INTEGER NOT NULL DEFAULT 1,
			title TEXT NOT NULL, mode TEXT NOT NULL, stage INTEGER NOT NULL, tempo INTEGER NOT NULL,
			changes INTEGER NOT NULL, landed INTEGER NOT NULL, good TEXT NOT NULL, try TEXT NOT NULL,
			line TEXT NOT NULL, heard TEXT NOT NULL, sounding INTEGER NOT NULL,
			created_at DATETIME NOT NULL, updated_at DATETIME NOT NULL, deleted_at DATETIME)`,
		`CREATE INDEX takes_order ON takes (created_at, id) WHERE deleted_at IS NULL`),
	step("0008-sounds-of-takes",
		`CREATE TABLE sounds (take_id INTEGER PRIMARY KEY REFERENCES takes (id), wav BLOB NOT NULL)`,
		`ALTER TABLE takes ADD COLUMN sound INTEGER NOT NULL DEFAULT 0`),
	step("0009-log", `
		CREATE TABLE log (
			id INTEGER PRIMARY KEY AUTOINCREMENT, at DATETIME NOT NULL, kind TEXT NOT NULL, title TEXT NOT NULL,
			chart INTEGER NOT NULL, take INTEGER NOT NULL, tuning TEXT NOT NULL, tempo INTEGER NOT NULL,
			seconds REAL NOT NULL, trials TEXT NOT NULL)`,
		`CREATE INDEX log_at ON log (at)`),
	// Several players may share an installation; whoever was there is the first of them.
	step("0010-several-players", `
		CREATE TABLE people (
			id INTEGER PRIMARY KEY AUTOINCREMENT, name TEXT NOT NULL, settings TEXT NOT NULL,
			version INTEGER NOT NULL DEFAULT 0, here INTEGER NOT NULL DEFAULT 0)`,
		`INSERT INTO people (id, name, settings, version, here) SELECT 1, 'Player', settings, version, 1 FROM players`,
		`DROP TABLE players`,
		`ALTER TABLE people RENAME TO players`,
		`ALTER TABLE log ADD COLUMN player INTEGER NOT NULL DEFAULT 1`,
		`CREATE INDEX log_player ON log (player, id)`),
	// Which line was played and how it swung; players who left; what a teacher sets a pupil, and what comes back.
	step("0011-lessons",
		`ALTER TABLE log ADD COLUMN line INTEGER NOT NULL DEFAULT 0`,
		`ALTER TABLE log ADD COLUMN swing REAL NOT NULL DEFAULT 0`,
		`ALTER TABLE log ADD COLUMN swung REAL NOT NULL DEFAULT 0`,
		`ALTER TABLE log ADD COLUMN notes INTEGER NOT NULL DEFAULT 0`,
		`ALTER TABLE log ADD COLUMN good INTEGER NOT NULL DEFAULT 0`,
		`ALTER TABLE players ADD COLUMN gone INTEGER NOT NULL DEFAULT 0`, `
		CREATE TABLE assignments (
			id INTEGER PRIMARY KEY AUTOINCREMENT, player INTEGER NOT NULL, given INTEGER NOT NULL, ref TEXT NOT NULL, since INTEGER NOT NULL,
			document TEXT NOT NULL, known TEXT NOT NULL, things TEXT NOT NULL, created_at DATETIME NOT NULL, deleted_at DATETIME)`, `
		CREATE TABLE results (
			id INTEGER PRIMARY KEY AUTOINCREMENT, assignment_id INTEGER NOT NULL REFERENCES assignments (id),
			ref TEXT NOT NULL, document TEXT NOT NULL, created_at DATETIME NOT NULL)`,
		`CREATE INDEX results_of ON results (assignment_id)`),
	step("0012-regions", `ALTER TABLE lines ADD COLUMN strings TEXT NOT NULL DEFAULT ''`),
	// The strings of a thread were neighbours, high and low; now they are any set, "1-3".
	step("0013-strings-of-threads", `UPDATE charts
		SET plan = json_set(plan, '$.strings', json_extract(plan, '$.strings.high') || '-' || json_extract(plan, '$.strings.low'))
		WHERE json_valid(plan) AND json_type(plan, '$.strings') = 'object'`),
	withRows(step("0014-licks-are-graded",
		`ALTER TABLE licks ADD COLUMN begins TEXT NOT NULL DEFAULT ''`,
		`ALTER TABLE licks ADD COLUMN level REAL NOT NULL DEFAULT 0`,
		`ALTER TABLE licks ADD COLUMN hard TEXT NOT NULL DEFAULT ''`), gradeLicks),
	step("0015-remarks-and-tags-of-charts",
		`ALTER TABLE charts ADD COLUMN remarks TEXT NOT NULL DEFAULT ''`,
		`ALTER TABLE charts ADD COLUMN tags TEXT NOT NULL DEFAULT ''`),
	step("0016-sets", `
		CREATE TABLE sets (
			id INTEGER PRIMARY KEY AUTOINCREMENT, version INTEGER NOT NULL DEFAULT 1,
			title TEXT NOT NULL, items TEXT NOT NULL,
			created_at DATETIME NOT NULL, updated_at DATETIME NOT NULL, deleted_at DATETIME)`,
		`CREATE INDEX sets_order ON sets (updated_at, id) WHERE deleted_at IS NULL`),
	step("0017-lengths-of-bars", `ALTER TABLE charts ADD COLUMN lengths TEXT NOT NULL DEFAULT ''`),
	step("0018-swing-of-charts", `ALTER TABLE charts ADD COLUMN swing INTEGER NOT NULL DEFAULT 0`),
	withRows(step("0019-identity",
		`CREATE TABLE identity (id INTEGER PRIMARY KEY CHECK (id = 1), name TEXT NOT NULL)`,
		`ALTER TABLE charts ADD COLUMN born INTEGER NOT NULL DEFAULT 0`,
		`ALTER TABLE licks ADD COLUMN born INTEGER NOT NULL DEFAULT 0`,
		`ALTER TABLE lines ADD COLUMN born INTEGER NOT NULL DEFAULT 0`,
		`ALTER TABLE takes ADD COLUMN born INTEGER NOT NULL DEFAULT 0`,
		`ALTER TABLE sets ADD COLUMN born INTEGER NOT NULL DEFAULT 0`,
		// What a page notes twice, since it heard no answer, is noted once.
		`ALTER TABLE log ADD COLUMN ref TEXT NOT NULL DEFAULT ''`,
		`CREATE UNIQUE INDEX log_ref ON log (ref) WHERE ref <> ''`), bear),
	// Sounds become files, so that neither the database nor a backup's document grows with them.
	withRows(step("0020-sounds-are-files",
		`CREATE TABLE heard (take_id INTEGER PRIMARY KEY REFERENCES takes (id), hash TEXT NOT NULL, bytes INTEGER NOT NULL)`), soundsBecomeFiles),
	// Lists go along their own index, which one of the deleted alone led them away from; and how long bars are becomes a list:
	// the text of before stays, and is read no more.
	withRows(step("0021-lists",
		`DROP INDEX charts_deleted`, `DROP INDEX licks_deleted`, `DROP INDEX lines_deleted`,
		`ALTER TABLE charts ADD COLUMN bar_lengths TEXT NOT NULL DEFAULT '[]'`), listLengths),
	// What the log adds up to stands beside it (see tallies.go), and is made of it when it is asked for first.
	step("0022-counted-and-found", slices.Concat([]string{`
		CREATE TABLE tallies (
			player INTEGER NOT NULL, day INTEGER NOT NULL, chart INTEGER NOT NULL, tuning TEXT NOT NULL, sums BLOB NOT NULL,
			PRIMARY KEY (player, day, chart, tuning))`, `
		CREATE TABLE pictures (
			player INTEGER NOT NULL, day INTEGER NOT NULL, read INTEGER NOT NULL, picture TEXT NOT NULL, PRIMARY KEY (player, day))`,
		`DROP INDEX log_at`,
		`ALTER TABLE log ADD COLUMN gone INTEGER NOT NULL DEFAULT 0`, // taken out by its player
		`CREATE INDEX log_chart ON log (player, chart, id)`,
		`CREATE INDEX log_line ON log (player, line, id) WHERE line <> 0`,
		`CREATE INDEX log_kind ON log (player, kind, id)`,
		`CREATE INDEX log_swung ON log (player, id) WHERE swung > 0`,
		// Lists are sought in an index of words, and each order has one of its own.
		`CREATE INDEX licks_easiest ON licks (level = 0, level, id DESC) WHERE deleted_at IS NULL`,
		`CREATE INDEX licks_hardest ON licks (level DESC, id DESC) WHERE deleted_at IS NULL`,
		`CREATE INDEX licks_begins ON licks (begins, id DESC) WHERE deleted_at IS NULL`},
		findable(charted), findable(licked22), findable(lined), findable(sets), findable(taken))...),
	// Licks are found by what they lean on.
	withRows(step("0023-licks-lean", slices.Concat([]string{
		`ALTER TABLE licks ADD COLUMN leans TEXT NOT NULL DEFAULT ''`,
		`DROP TRIGGER licks_words_made`, `DROP TRIGGER licks_words_changed`, `DROP TRIGGER licks_words_gone`, `DROP TABLE licks_words`},
		findable(licked))...), leanLicks),
	// How hard a lick is counts its strokes now.
	withRows(step("0024-licks-by-their-strokes"), gradeLicks),
	step("0025-intros-and-endings", `ALTER TABLE charts ADD COLUMN intro TEXT NOT NULL DEFAULT ''`, `ALTER TABLE charts ADD COLUMN ending TEXT NOT NULL DEFAULT ''`,
		`ALTER TABLE lines ADD COLUMN closing TEXT NOT NULL DEFAULT ''`),
	step("0026-hands", `ALTER TABLE charts ADD COLUMN reading TEXT NOT NULL DEFAULT ''`,
		`ALTER TABLE licks ADD COLUMN home TEXT NOT NULL DEFAULT '{}'`,
		`ALTER TABLE licks ADD COLUMN remark TEXT NOT NULL DEFAULT ''`, `ALTER TABLE licks ADD COLUMN source TEXT NOT NULL DEFAULT ''`,
		`ALTER TABLE lines ADD COLUMN remark TEXT NOT NULL DEFAULT ''`, `ALTER TABLE lines ADD COLUMN source TEXT NOT NULL DEFAULT ''`),
	step("0027-licks-practised", `ALTER TABLE log ADD COLUMN lick INTEGER NOT NULL DEFAULT 0`),
	step("0028-recordings", append([]string{
		`ALTER TABLE licks ADD COLUMN heard TEXT`, `ALTER TABLE lines ADD COLUMN heard TEXT`, `
		CREATE TABLE recordings (
			id INTEGER PRIMARY KEY AUTOINCREMENT, title TEXT NOT NULL, remark TEXT NOT NULL DEFAULT '', hash TEXT NOT NULL DEFAULT '',
			bytes INTEGER NOT NULL DEFAULT 0, media TEXT NOT NULL DEFAULT '', seconds REAL NOT NULL DEFAULT 0, chart INTEGER NOT NULL DEFAULT 0,
			key TEXT NOT NULL DEFAULT '', tempo REAL NOT NULL DEFAULT 0, settled INTEGER NOT NULL DEFAULT 0, hearing TEXT NOT NULL,
			version INTEGER NOT NULL, born INTEGER NOT NULL DEFAULT 0, created_at DATETIME, updated_at DATETIME, deleted_at DATETIME)`,
		`CREATE INDEX recordings_order ON recordings (updated_at, id) WHERE deleted_at IS NULL`}, findable(recorded)...)...),
}

// licked22 is what licks answered to before they told what they lean on.
var licked22 = &listing{table: "licks", answers: strings.TrimSuffix(licked.answers, ` || ' ' || @leans`)}

// leanLicks writes down what each lick leans on.
func leanLicks(tx *gorm.DB) error {
	return eachLick(tx, func(l Lick) error {
		return tx.Exec("UPDATE licks SET leans = ? WHERE id = ?", l.Leans, l.ID).Error
	})
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

// listLengths writes the beats of bars as a list, where they were a text with blanks between.
func listLengths(tx *gorm.DB) error {
	var rows []struct {
		ID      uint
		Lengths string
	}
	if err := tx.Raw("SELECT id, lengths FROM charts WHERE lengths <> ''").Scan(&rows).Error; err != nil {
		return err
	}
	for _, r := range rows {
		list, err := json.Marshal(strings.Fields(r.Lengths))
		if err != nil {
			return err
		}
		numbers := strings.ReplaceAll(string(list), `"`, "")
		if !json.Valid([]byte(numbers)) {
			continue // nobody could read it before either
		}
		if err := tx.Exec("UPDATE charts SET bar_lengths = ? WHERE id = ?", numbers, r.ID).Error; err != nil {
			return err
		}
	}
	return nil
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
			bars, chords := gist(played(r.Text, r.Beats, r.Key))
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

// gradeLicks writes down where each lick begins and how hard it is.
func gradeLicks(tx *gorm.DB) error {
	return eachLick(tx, func(l Lick) error {
		return tx.Exec("UPDATE licks SET begins = ?, level = ?, hard = ? WHERE id = ?", l.Begins, l.Level, l.Hard, l.ID).Error
	})
}

// measureLicks writes down how long each lick is and where it lands. One whose
// notes cannot be read keeps its place, and says so when it is opened.
func measureLicks(tx *gorm.DB) error {
	return eachLick(tx, func(l Lick) error {
		return tx.Exec("UPDATE licks SET lands_on = ?, length = ? WHERE id = ?", l.LandsOn, l.Length, l.ID).Error
	})
}

// eachLick measures the licks that can be read, one by one.
func eachLick(tx *gorm.DB, write func(l Lick) error) error {
	var rows []struct {
		ID           uint
		Chord, Notes string
		OfKey        bool
	}
	if err := tx.Raw("SELECT id, chord, of_key, notes FROM licks").Scan(&rows).Error; err != nil {
		return err
	}
	for _, r := range rows {
		l := Lick{Kept: Kept{ID: r.ID}, Chord: r.Chord, OfKey: r.OfKey}
		if json.Unmarshal([]byte(r.Notes), &l.Notes) != nil {
			continue
		}
		l.derive()
		if err := write(l); err != nil {
			return err
		}
	}
	return nil
}

// typePlans writes what plans kept as texts ("7-11 2.1 3:8") in parts. A text that
// cannot be read said nothing before either and is left out; so is nothing else.
func typePlans(tx *gorm.DB) error {
	var rows []struct {
		ID   uint
		Plan string
	}
	if err := tx.Raw("SELECT id, plan FROM charts").Scan(&rows).Error; err != nil {
		return err
	}
	for _, r := range rows {
		var old struct {
			Picks, Pins      []string
			Targets, Strings string
			Allowed          map[string]string
		}
		var plan map[string]any
		if json.Unmarshal([]byte(r.Plan), &old) != nil || json.Unmarshal([]byte(r.Plan), &plan) != nil {
			continue
		}
		for _, key := range []string{"picks", "pins", "targets", "strings", "allowed"} {
			delete(plan, key)
		}
		put := func(key string, is bool, v any) {
			if is {
				plan[key] = v
			}
		}
		var picks []Pick
		for _, text := range old.Picks {
			var p Pick
			if n, err := fmt.Sscanf(text, "%d-%d %d:%d", &p.Low, &p.High, &p.String, &p.Fret); err == nil && n == 4 {
				picks = append(picks, p)
			}
		}
		put("picks", picks != nil, picks)
		var pins []Pin
		for _, text := range old.Pins {
			var p Pin
			if n, err := fmt.Sscanf(text, "%d-%d %d.%d %d:%d", &p.Low, &p.High, &p.Bar, &p.Beat, &p.String, &p.Fret); err == nil && n == 6 {
				pins = append(pins, p)
			}
		}
		put("pins", pins != nil, pins)
		targets := commas(old.Targets)
		put("targets", len(targets) > 0, targets)
		allowed := map[string][]string{}
		for numeral, roles := range old.Allowed {
			if list := commas(roles); len(list) > 0 {
				allowed[numeral] = list
			}
		}
		put("allowed", len(allowed) > 0, allowed)
		var set struct {
			High int `json:"high"`
			Low  int `json:"low"`
		}
		n, err := fmt.Sscanf(old.Strings, "%d-%d", &set.High, &set.Low)
		put("strings", err == nil && n == 2, set)
		text, err := json.Marshal(plan)
		if err != nil {
			return err
		}
		if err := tx.Exec("UPDATE charts SET plan = ? WHERE id = ?", string(text), r.ID).Error; err != nil {
			return err
		}
	}
	return nil
}

// commas are the words of "third,seventh".
func commas(text string) []string {
	return strings.FieldsFunc(text, func(r rune) bool { return r == ',' || r == ' ' })
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
