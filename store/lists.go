package store

import (
	"database/sql"
	"slices"
	"strings"
)

// Page is a stretch of a list: of all of it, or of what is sought.
type Page struct {
	Offset, Limit int
	Words         string // each of them is in what a row answers to, in any case
	Tag           string // of things that have some
	Order         string // of those of the list; empty is its first
}

// All is a page that holds any list.
var All = Page{Limit: 1 << 30}

// listing is how the things of a table are listed.
type listing struct {
	table   string
	columns string // the number and the title come first
	answers string // what a row answers to when it is sought, as SQL over @columns
	tags    bool   // it has a list of tags
	orders  []order
}

// order is one in which a list can be asked for. Each goes along an index, so that a page of a long list costs what
// one of a short one does.
type order struct{ name, by string }

// latest is the order of most lists: the one changed last first.
const latest = "updated_at DESC, id DESC"

// listings are all of them. What answers is written into an index by triggers of the migrations; who changes it here
// makes a migration for it.
var listings = []*listing{charted, licked, lined, sets, taken, recorded}

var (
	charted = &listing{"charts", `id, title, ` + tagged + `, key, feel, tempo, swing, beats, bars, bar_lengths, chords, tags, updated_at`,
		`@title || ' ' || @key || ' ' || replace(@feel, '-', ' ') || ' ' || @chords || ' ' || @tags`, false, []order{{"", "coalesce(opened_at, created_at) DESC, id DESC"}}}
	licked = &listing{"licks", `id, title, ` + tagged + `, chord, of_key, lands_on, leans, length, begins, level, hard, tags, updated_at`,
		`@title || ' ' || replace(replace(replace(@tags, '["', ''), '","', ' '), '"]', '') || CASE @of_key WHEN 1 THEN ' key' ELSE ' over ' || CASE @chord WHEN '' THEN 'major' ELSE @chord END END || ' lands on ' || @lands_on || ' begins on ' || @begins || ' ' || @leans`, true,
		[]order{{"", latest}, {"easiest", "level = 0, level, id DESC"}, {"hardest", "level DESC, id DESC"}, {"begins", "begins, id DESC"}}}
	lined = &listing{"lines", `id, title, ` + tagged + `, key, feel, tempo, beats, bars, low, high, sounding, exercise, updated_at`,
		`@title || ' ' || @key`, false, []order{{"", latest}}}
	sets  = &listing{"sets", `id, title, ` + tagged + `, items, updated_at`, `@title`, false, []order{{"", latest}}}
	taken = &listing{"takes", `id, title, ` + tagged + `, mode, stage, tempo, changes, landed, sounding, good, sound, created_at`,
		`@title || ' ' || @mode`, false, []order{{"", "created_at DESC, id DESC"}}}
	recorded = &listing{"recordings", `id, title, ` + tagged + `, hash, bytes, media, seconds, chart, key, tempo, settled, updated_at`,
		`@title || ' ' || @key || ' ' || @remark`, false, []order{{"", latest}}}
)

// shortest is how many letters a word needs to be found by the index; shorter ones are looked for row by row.
const shortest = 3

// sought are the words of a search. What something leans, lands or begins on is one with it: "leans on 11".
func sought(text string) (words []string) {
	fields := strings.Fields(text)
	for i := 0; i < len(fields); i++ {
		verb := slices.Contains([]string{"leans", "lands", "begins"}, strings.ToLower(fields[i]))
		if verb && i+2 < len(fields) && strings.EqualFold(fields[i+1], "on") {
			words = append(words, fields[i]+" on "+strings.NewReplacer("♭", "b", "♯", "#").Replace(fields[i+2]))
			i += 2
			continue
		}
		words = append(words, fields[i])
	}
	return words
}

// where is what of a list is sought.
func (l *listing) where(p Page) (where string, args []any) {
	where = "deleted_at IS NULL"
	var match []string
	for _, word := range sought(p.Words) {
		if len([]rune(word)) >= shortest {
			match = append(match, `"`+strings.ReplaceAll(word, `"`, `""`)+`"`)
			continue
		}
		where += ` AND id IN (SELECT rowid FROM ` + l.table + `_words WHERE words LIKE ? ESCAPE '\')`
		args = append(args, "%"+strings.NewReplacer(`\`, `\\`, "%", `\%`, "_", `\_`).Replace(word)+"%")
	}
	if len(match) > 0 {
		where += ` AND id IN (SELECT rowid FROM ` + l.table + `_words WHERE words MATCH ?)`
		args = append(args, strings.Join(match, " AND "))
	}
	if p.Tag != "" && l.tags {
		where += ` AND EXISTS (SELECT 1 FROM json_each(CASE WHEN json_valid(tags) THEN tags ELSE '[]' END) WHERE value = ?)`
		args = append(args, p.Tag)
	}
	return where, args
}

// query is the SQL of a page.
func (l *listing) query(p Page) (text string, args []any) {
	by := l.orders[0].by
	for _, o := range l.orders {
		if o.name == p.Order {
			by = o.by
		}
	}
	where, args := l.where(p)
	return "SELECT " + l.columns + " FROM " + l.table + " WHERE " + where + " ORDER BY " + by + " LIMIT ? OFFSET ?", append(args, p.Limit, p.Offset)
}

// summaries reads a page of a list row by row, so that a damaged row costs only
// itself: spoilt makes what stands for it.
func summaries[S any](s *Store, l *listing, p Page, scan func(rows *sql.Rows, into *S) error, spoilt func(id uint, title, says string) S) ([]S, error) {
	text, args := l.query(p)
	rows, err := s.db.Raw(text, args...).Rows()
	if err != nil {
		return nil, s.fault(err)
	}
	defer rows.Close()
	list := []S{}
	for rows.Next() {
		var row S
		err := scan(rows, &row)
		if err == nil {
			err = legible(row)
		}
		if err != nil {
			id, title, err := salvage(rows, err)
			row = spoilt(id, title, unreadable(id, err))
		}
		list = append(list, row)
	}
	return list, s.fault(rows.Err())
}

// count is how many things of a list are there, or are found.
func (s *Store) count(l *listing, p Page) (n int, err error) {
	where, args := l.where(p)
	err = s.db.Raw("SELECT count(*) FROM "+l.table+" WHERE "+where, args...).Scan(&n).Error
	return n, s.fault(err)
}

// Tagged is a tag with how many things have it.
type Tagged struct {
	Name string `json:"name"`
	N    int    `json:"n"`
}

// LickTags are the tags of all licks, the most frequent first.
func (s *Store) LickTags() (list []Tagged, err error) {
	list = []Tagged{}
	err = s.db.Raw(`SELECT value AS name, count(*) AS n FROM licks, json_each(CASE WHEN json_valid(tags) THEN tags ELSE '[]' END)
		WHERE deleted_at IS NULL GROUP BY value ORDER BY n DESC, name`).Scan(&list).Error
	return list, s.fault(err)
}

// findable keeps an index of the words that the rows of a table answer to.
func findable(l *listing) []string {
	table := l.table + "_words"
	of := func(row string) string { return strings.ReplaceAll(l.answers, "@", row+".") }
	return []string{
		`CREATE VIRTUAL TABLE ` + table + ` USING fts5 (words, tokenize = 'trigram')`,
		`INSERT INTO ` + table + ` (rowid, words) SELECT id, ` + of(l.table) + ` FROM ` + l.table,
		`CREATE TRIGGER ` + table + `_made AFTER INSERT ON ` + l.table + ` BEGIN INSERT INTO ` + table + ` (rowid, words) VALUES (new.id, ` + of("new") + `); END`,
		`CREATE TRIGGER ` + table + `_changed AFTER UPDATE ON ` + l.table + ` WHEN ` + of("new") + ` IS NOT ` + of("old") + ` BEGIN UPDATE ` + table + ` SET words = ` + of("new") + ` WHERE rowid = new.id; END`,
		`CREATE TRIGGER ` + table + `_gone AFTER DELETE ON ` + l.table + ` BEGIN DELETE FROM ` + table + ` WHERE rowid = old.id; END`,
	}
}
