package store

import (
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every list of the store goes along an index in each of its orders, so that a page of a long one costs what one of a
// short one does.
func TestListsGoAlongTheirIndex(t *testing.T) {
	s := open(t, t.TempDir())
	for _, l := range listings {
		for _, o := range l.orders {
			for name, p := range map[string]Page{"all": {Limit: 50, Offset: 100, Order: o.name}, "of a tag": {Limit: 50, Order: o.name, Tag: "slow"}} {
				text, args := l.query(p)
				plan := planOf(t, s, text, args...)
				assert.NotContains(t, plan, "TEMP B-TREE", "%s %s %s", l.table, o.name, name)
				assert.Contains(t, plan, l.table+"_"+map[string]string{"": "order"}[o.name]+o.name, "%s %s %s", l.table, o.name, name)
			}
		}
		text, args := l.query(Page{Limit: 50, Words: "lantern"})
		assert.Contains(t, planOf(t, s, text, args...), "VIRTUAL TABLE INDEX", l.table)
	}
}

// planOf is how SQLite would go about a query.
func planOf(t *testing.T, s *Store, text string, args ...any) string {
	rows, err := s.db.Raw("EXPLAIN QUERY PLAN "+text, args...).Rows()
	require.NoError(t, err, text)
	defer rows.Close()
	var plan []string
	for rows.Next() {
		var id, parent, unused int
		var detail string
		require.NoError(t, rows.Scan(&id, &parent, &unused, &detail))
		plan = append(plan, detail)
	}
	return strings.Join(plan, "; ")
}

// A lick is found by what it leans on, and not by where it lands or begins alone.
func TestLicksAreFoundByWhatTheyLeanOn(t *testing.T) {
	s := open(t, t.TempDir())
	for title, notes := range map[string][]LickNote{
		"held":    {{Start: 0, Length: 1920, Degree: "11"}, {Start: 1920, Length: 480, Degree: "3"}},
		"strong":  {{Start: 0, Length: 480, Degree: "9"}, {Start: 480, Length: 480, Degree: "R"}},
		"passing": {{Start: 0, Length: 480, Degree: "R"}, {Start: 480, Length: 480, Degree: "11"}, {Start: 960, Length: 480, Degree: "5"}},
		"last":    {{Start: 0, Length: 480, Degree: "11"}, {Start: 480, Length: 480, Degree: "13"}},
	} {
		require.NoError(t, s.CreateLick(&Lick{Title: title, Chord: "7", Notes: notes}))
	}
	found := func(words string) (titles []string) {
		rows, err := s.Licks(Page{Words: words, Limit: 50})
		require.NoError(t, err)
		for _, r := range rows {
			titles = append(titles, r.Title)
		}
		slices.Sort(titles)
		return titles
	}
	assert.Equal(t, []string{"held", "last"}, found("leans on 11"))
	assert.Equal(t, []string{"strong"}, found("Leans on 9"))
	assert.Equal(t, []string{"last"}, found("leans on 13"))
	assert.Equal(t, []string{"last"}, found("lands on 13 leans on 11"))
	assert.Equal(t, []string{"held"}, found("lands on 3"))
	assert.Empty(t, found("leans on ♭9"))
	assert.Equal(t, []string{"held", "last", "strong"}, found("leans on"))
}

// What is sought is found by any part of what a row answers to, in any case, as far as all words are in it; what was
// changed, deleted, taken back or restored is found as it is now.
func TestThingsAreFound(t *testing.T) {
	s := open(t, t.TempDir())
	for _, l := range []*Lick{
		{Title: "Two Lanterns", Chord: "7", Tags: []string{"slow", "bends"}, Begins: "3", LandsOn: "R", Level: 2},
		{Title: "Dog Watch", Chord: "m7", Tags: []string{"slow"}, Begins: "b3", LandsOn: "5", Level: 1},
		{Title: "100 % Tide_Line", OfKey: true, Begins: "R", LandsOn: "3", Level: 0},
		{Title: `Øre "quay"`, Chord: "", Begins: "5", LandsOn: "R", Level: 3},
	} {
		made := *l
		require.NoError(t, s.CreateLick(&made))
		// They are derived of notes; here they are said.
		require.NoError(t, s.db.Exec("UPDATE licks SET begins = ?, lands_on = ?, level = ? WHERE id = ?", l.Begins, l.LandsOn, l.Level, made.ID).Error)
	}
	found := func(p Page) (titles []string) {
		p.Limit = 50
		rows, err := s.Licks(p)
		require.NoError(t, err, p.Words)
		n, err := s.CountLicks(p)
		require.NoError(t, err)
		assert.Equal(t, len(rows), n, p)
		for _, r := range rows {
			titles = append(titles, strings.Fields(r.Title)[0])
		}
		return titles
	}
	for words, want := range map[string][]string{
		"":               {"Øre", "100", "Dog", "Two"},
		"lantern":        {"Two"},
		"LANTERN slow":   {"Two"},
		"antern":         {"Two"},
		"slow":           {"Dog", "Two"},
		"og":             {"Dog"},
		"b3":             {"Dog"},
		"lands 5":        {"Øre", "Dog"},
		"over m7":        {"Dog"},
		"over major":     {"Øre"},
		"%":              {"100"},
		"_":              {"100"},
		`"quay"`:         {"Øre"},
		`"`:              {"Øre"},
		"øre":            {"Øre"},
		"lantern dog":    nil,
		"NOT AND OR (":   nil,
		"title:lantern*": nil,
		`\\`:             nil,
	} {
		assert.Equal(t, want, found(Page{Words: words}), words)
	}
	assert.Equal(t, []string{"Dog", "Two"}, found(Page{Tag: "slow"}))
	assert.Equal(t, []string{"Two"}, found(Page{Tag: "slow", Words: "bend"}))
	assert.Equal(t, []string{"Dog", "Two", "Øre", "100"}, found(Page{Order: "easiest"}))
	assert.Equal(t, []string{"Øre", "Two", "Dog", "100"}, found(Page{Order: "hardest"}))
	assert.Equal(t, []string{"Two", "Øre", "100", "Dog"}, found(Page{Order: "begins"}))
	tags, err := s.LickTags()
	require.NoError(t, err)
	assert.Equal(t, []Tagged{{"slow", 2}, {"bends", 1}}, tags)

	dog, err := s.ChangeLick(2, Any, func(l *Lick) error { l.Title = "Stern Wave"; return nil })
	require.NoError(t, err)
	assert.Equal(t, [][]string{{"Stern"}, nil}, [][]string{found(Page{Words: "stern"}), found(Page{Words: "dog"})})
	require.NoError(t, s.DeleteLick(dog.ID, Any))
	assert.Empty(t, found(Page{Words: "stern"}))
	_, err = s.RestoreLick(dog.ID)
	require.NoError(t, err)
	assert.Equal(t, []string{"Stern"}, found(Page{Words: "stern"}))
}

// Of every list something is found that was made before its index was, and after.
func TestEveryListIsSought(t *testing.T) {
	s := open(t, t.TempDir())
	require.NoError(t, s.CreateChart(&Chart{Title: "Harbour", Key: "Bb", Feel: "slow-blues", Beats: 4, Text: "| Bb7 |", Tags: "gig"}))
	require.NoError(t, s.CreateLine(&Line{Title: "Harbour", Key: "C"}))
	require.NoError(t, s.CreateLick(&Lick{Title: "Harbour"}))
	require.NoError(t, s.CreateSet(&Set{Title: "Harbour"}))
	require.NoError(t, s.CreateTake(&Take{Title: "Harbour"}))
	require.NoError(t, s.CreateRecording(&Recording{Title: "Harbour"}))
	for _, l := range listings {
		n, err := s.count(l, Page{Words: "harb"})
		require.NoError(t, err)
		assert.Equal(t, 1, n, l.table)
		n, err = s.count(l, Page{Words: "harbor"})
		require.NoError(t, err)
		assert.Zero(t, n, l.table)
	}
	n, err := s.CountCharts(Page{Words: "slow gig bb"})
	require.NoError(t, err)
	assert.Equal(t, 1, n)
}

// The rows of a list of a hundred thousand, and a search of it, are there at once: nothing is read that is not shown.
func BenchmarkListOf100000(b *testing.B) {
	s := open(b, b.TempDir())
	db, err := s.db.DB()
	require.NoError(b, err)
	_, err = db.Exec(`WITH RECURSIVE n (i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 100000)
		INSERT INTO lines (title, key, feel, tempo, beats, text, low, high, notes, created_at, updated_at)
		SELECT 'Tide ' || i, 'C', 'shuffle', 90, 4, '| C7 |', 5, 8, '[]', '2026-01-01 00:00:00+00:00', '2026-01-01 00:00:00+00:00' FROM n`)
	require.NoError(b, err)
	few := open(b, b.TempDir())
	for i := range 100 {
		require.NoError(b, few.CreateLine(&Line{Title: fmt.Sprint("Tide ", i), Key: "C", Text: "| C7 |"}))
	}
	first := func(s *Store) float64 {
		var all []time.Duration
		for range 41 {
			start := time.Now()
			_, err := s.Lines(Page{Limit: 100})
			require.NoError(b, err)
			all = append(all, time.Since(start))
		}
		slices.Sort(all)
		return float64(all[20])
	}
	if x := first(s) / first(few); x > 1.5 {
		b.Errorf("the first page of 100,000 takes %.1f times that of 100; 1.5 at most", x)
	}
	for _, p := range []Page{{Limit: 100}, {Limit: 100, Offset: 90000}, {Limit: 100, Words: "tide 77"}, {Limit: 100, Words: "77777"}} {
		b.Run(fmt.Sprintf("%d %s", p.Offset, p.Words), func(b *testing.B) {
			for b.Loop() {
				rows, err := s.Lines(p)
				if err != nil || len(rows) == 0 {
					b.Fatal(err, len(rows))
				}
			}
		})
	}
}
