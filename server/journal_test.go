package server

import (
	"database/sql"
	"encoding/csv"
	"fmt"
	"log/slog"
	"net/http/httptest"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	_ "modernc.org/sqlite"

	"undaris/core/planner"
	"undaris/demo"
	"undaris/store"
)

// practised is a library with eight weeks of practice in it, and where it lies.
func practised(t *testing.T) (*store.Store, string) {
	dir := t.TempDir()
	s, err := store.Open(dir)
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	require.NoError(t, demo.Fill(s))
	require.NoError(t, demo.Weeks(s, time.Now()))
	return s, dir
}

// damage changes the file behind the program's back.
func damage(t *testing.T, dir, statement string) {
	db, err := sql.Open("sqlite", filepath.Join(dir, store.FileName))
	require.NoError(t, err)
	defer db.Close()
	_, err = db.Exec(statement)
	require.NoError(t, err)
}

func serving(t *testing.T, s *store.Store) *httptest.Server {
	srv := httptest.NewServer(New(s, front, slog.New(slog.DiscardHandler)))
	t.Cleanup(srv.Close)
	return srv
}

var noting = CallLog{Chart: 6, Kind: "tones", Key: "C", Chord: "F7", Degree: "3", Window: store.Frets{Low: 7, High: 11}, Says: "upward", How: "late"}

// recounted is what leaves of the log as a file, counted here, line by line.
func recounted(t *testing.T, srv *httptest.Server, query string) (lines, trials int, minutes float64, changes map[string][]float64) {
	var whole struct{ Log []store.Entry }
	require.Equal(t, 200, ask(t, srv, "GET", "/api/log/files/json"+query, nil, &whole).StatusCode)
	changes = map[string][]float64{}
	for _, e := range whole.Log {
		lines++
		trials += len(e.Trials)
		minutes += e.Seconds / 60
		for _, x := range e.Trials {
			if x.From != "" {
				changes[x.From+" "+x.Chord] = append(changes[x.From+" "+x.Chord], x.Success)
			}
		}
	}
	return lines, trials, minutes, changes
}

// Whatever of the log is looked at: its maps count what leaves of it as a file, also after a start, after more was noted,
// and where all that was counted is gone.
func TestMapsCountWhatIsLookedAt(t *testing.T) {
	s, dir := practised(t)
	srv := serving(t, s)
	equal := func(why string) {
		for _, query := range []string{"", "?chart=1", "?chart=2&weeks=3", "?weeks=1", "?weeks=2", "?weeks=1000", "?tuning=E2,A2,D3,G3,B3,E4", "?tuning=none", "?chart=99"} {
			lines, trials, minutes, changes := recounted(t, srv, query)
			var m LogMaps
			ask(t, srv, "GET", "/api/log/maps"+query, nil, &m)
			var p LogPage
			ask(t, srv, "GET", "/api/log"+query, nil, &p)
			assert.Equal(t, []int{lines, trials}, []int{p.Total, m.Trials}, "%s %s", why, query)
			sum := 0.0
			for _, w := range m.Minutes {
				sum += w.Minutes
			}
			assert.InDelta(t, minutes, sum, 1e-6, "%s %s", why, query)
			assert.Len(t, m.Changes, len(changes), "%s %s", why, query)
			for _, c := range m.Changes {
				all := changes[c.From+" "+c.To]
				mean := 0.0
				for _, x := range all {
					mean += x / float64(len(all))
				}
				assert.Equal(t, len(all), c.Trials, "%s %s", why, query)
				assert.InDelta(t, mean, c.Success, 1e-9, "%s %s", why, query)
			}
		}
	}
	equal("at first")
	srv.Close()
	srv = serving(t, s)
	equal("after a start")
	for range 5 {
		ask(t, srv, "POST", "/api/log/calls", noting, nil)
	}
	equal("after more was noted")
	srv.Close()
	damage(t, dir, `DELETE FROM pictures; DELETE FROM tallies`)
	srv = serving(t, s)
	equal("made anew")
	srv.Close()
	damage(t, dir, `UPDATE pictures SET picture = 'nothing'`)
	srv = serving(t, s)
	equal("damaged, and made anew")
	for _, part := range []string{"chart = 2", "day = -1", "chart = 6"} {
		damage(t, dir, `UPDATE tallies SET sums = x'0102' WHERE `+part)
		ask(t, srv, "POST", "/api/log/calls", noting, nil)
		equal("what was counted of " + part + " is damaged, and made anew")
	}
}

// Lines that cannot be read are left out, counted, and the rest is there; a file of the log has the rest too.
func TestDamagedLinesOfTheLog(t *testing.T) {
	s, dir := practised(t)
	var before, after LogMaps
	srv := serving(t, s)
	ask(t, srv, "GET", "/api/log/maps", nil, &before)
	srv.Close()
	damage(t, dir, `DELETE FROM pictures; UPDATE log SET trials = '[[' WHERE id % 50 = 0; UPDATE log SET at = 'yesterday' WHERE id % 50 = 1`)
	srv = serving(t, s)
	ask(t, srv, "GET", "/api/log/maps", nil, &after)
	assert.Greater(t, after.Lost, 30)
	assert.Less(t, after.Trials, before.Trials)
	var p LogPage
	ask(t, srv, "GET", "/api/log?limit=1000", nil, &p)
	assert.Equal(t, []int{after.Lost, p.Total}, []int{p.Lost, len(p.Rows)})
	lines, trials, _, _ := recounted(t, srv, "")
	assert.Equal(t, []int{p.Total, after.Trials}, []int{lines, trials})
	var plan Today
	assert.Equal(t, 200, ask(t, srv, "GET", "/api/today", nil, &plan).StatusCode)
	assert.Equal(t, []string{fmt.Sprintf("%d lines of the log cannot be read and count for nothing", after.Lost)}, plan.Left)
}

// A log with two years missing, of another time zone, of a bass and of a capo: it is planned all the same, and counts.
func TestALogFromElsewhere(t *testing.T) {
	s, _ := practised(t)
	srv := serving(t, s)
	var before, after Today
	ask(t, srv, "GET", "/api/today", nil, &before)
	for i, zone := range []int{13, -11, 0} {
		at := time.Now().AddDate(-2, 0, -i).In(time.FixedZone("", zone*3600))
		for _, tuning := range []string{"", "E1 A1 D2 G2", "nonsense"} {
			e := store.Entry{At: at, Kind: store.LoggedCall, Tuning: tuning, Trials: store.Trials{{Key: i, Position: -1, Quality: "m7b5", Degree: "extension", Device: "tones", Chord: "Cm7b5", Success: 0.5}}}
			require.NoError(t, s.Log(&e))
		}
	}
	for _, minutes := range []int{5, 20, 60} {
		require.Equal(t, 200, ask(t, srv, "GET", fmt.Sprintf("/api/today?minutes=%d", minutes), nil, &after).StatusCode)
		assert.Equal(t, before.Known+9, after.Known)
		assert.Empty(t, after.Left)
		assert.NotEmpty(t, after.Items)
	}
}

// The log is gone through by numbers to any depth: each line comes once, the newest first.
func TestTheLogIsGoneThrough(t *testing.T) {
	s, _ := practised(t)
	srv := serving(t, s)
	seen, before := 0, uint(0)
	for {
		var p LogPage
		ask(t, srv, "GET", fmt.Sprintf("/api/log?limit=100&before=%d", before), nil, &p)
		if len(p.Rows) == 0 {
			assert.Equal(t, p.Total, seen)
			break
		}
		for _, r := range p.Rows {
			assert.True(t, before == 0 || r.ID < before)
			before = r.ID
		}
		seen += len(p.Rows)
		for _, r := range p.Rows {
			assert.True(t, 0 <= r.Right && r.Right <= r.Asked && float64(r.Right) <= r.Went*float64(r.Asked)+1e-9, "%+v", r)
		}
	}
	resp, err := srv.Client().Get(srv.URL + "/api/log/files/csv")
	require.NoError(t, err)
	defer resp.Body.Close()
	rows, err := csv.NewReader(resp.Body).ReadAll()
	require.NoError(t, err)
	var m LogMaps
	ask(t, srv, "GET", "/api/log/maps", nil, &m)
	// A row for each thing asked, and one for each line in which nothing was: rungs too.
	var whole struct{ Log []store.Entry }
	require.Equal(t, 200, ask(t, srv, "GET", "/api/log/files/json", nil, &whole).StatusCode)
	wanted, k := 1, 1
	for _, e := range whole.Log {
		n := max(1, len(e.Trials))
		wanted += n
		for _, row := range rows[k : k+n] {
			require.Equal(t, fmt.Sprint(e.ID), row[0])
			require.Equal(t, []string{e.Kind, e.Title, fmt.Sprint(e.Tempo), fmt.Sprint(e.Seconds)}, []string{row[2], row[3], row[9], row[10]})
			at, err := time.Parse(time.RFC3339, row[1])
			require.NoError(t, err)
			require.WithinDuration(t, e.At, at, time.Second)
		}
		k += n
	}
	assert.Len(t, rows, wanted)
	assert.Len(t, rows[0], 33)
	assert.Less(t, len(m.Swings), mostSwings+1)
}

// A line that was noted is known at once, whoever's turn it was in between.
func TestWhatIsNotedIsKnown(t *testing.T) {
	s, _ := practised(t)
	srv := serving(t, s)
	for i := range 3 * keepAfter / 2 {
		e := store.Entry{At: time.Now(), Kind: store.LoggedCall, Trials: store.Trials{{Key: i % 12, Quality: "7", Degree: "third", Device: "tones", Success: 1}}}
		require.NoError(t, s.Log(&e))
	}
	var before, after Today
	ask(t, srv, "GET", "/api/today", nil, &before)
	ask(t, srv, "POST", "/api/log/calls", noting, nil)
	ask(t, srv, "GET", "/api/today", nil, &after)
	assert.Equal(t, before.Known+1, after.Known)
	p, err := s.Picture(1, planner.Fitted, 0)
	require.NoError(t, err)
	require.NotNil(t, p, "what was counted is kept on the way")
	assert.Positive(t, p.Tally.Lines)
}

// A line that is taken out counts no more, anywhere, and counts again as before when it is put back; another player's cannot be.
func TestALineIsTakenOutOfTheLog(t *testing.T) {
	s, _ := practised(t)
	srv := serving(t, s)
	var p LogPage
	ask(t, srv, "GET", "/api/log?limit=1000", nil, &p)
	line := p.Rows[len(p.Rows)/2]
	require.Positive(t, line.Asked)
	var before, without, again LogMaps
	var plan, after Today
	ask(t, srv, "GET", "/api/log/maps", nil, &before)
	ask(t, srv, "GET", "/api/today?seed=3", nil, &plan)
	at := fmt.Sprintf("/api/log/%d", line.ID)
	require.Equal(t, 204, ask(t, srv, "DELETE", at, nil, nil).StatusCode)
	ask(t, srv, "GET", "/api/log/maps", nil, &without)
	assert.Equal(t, before.Trials-line.Asked, without.Trials)
	lines, trials, _, _ := recounted(t, srv, "")
	assert.Equal(t, []int{p.Total - 1, without.Trials}, []int{lines, trials})
	require.Equal(t, 204, ask(t, srv, "POST", at+"/restore", nil, nil).StatusCode)
	ask(t, srv, "GET", "/api/log/maps", nil, &again)
	counts := func(m LogMaps) (list [][2]int) { // what is known fades while the test runs
		for _, c := range m.Cells {
			list = append(list, [2]int{c.Trials, c.Right})
		}
		return list
	}
	assert.Equal(t, counts(before), counts(again))
	assert.Equal(t, before.Changes, again.Changes)
	ask(t, srv, "GET", "/api/today?seed=3", nil, &after)
	assert.Equal(t, plan, after, "it is learned again as it was")
	assert.Equal(t, 404, ask(t, srv, "DELETE", "/api/log/999999", nil, nil).StatusCode)
	other, err := s.AddPerson("Wren")
	require.NoError(t, err)
	require.NoError(t, s.Turn(1))
	theirs := store.Entry{Player: other.ID, At: time.Now(), Kind: store.LoggedCall, Trials: store.Trials{}}
	require.NoError(t, s.Log(&theirs))
	assert.Equal(t, 404, ask(t, srv, "DELETE", fmt.Sprintf("/api/log/%d", theirs.ID), nil, nil).StatusCode)
}

// A clock that ran a year ahead for an evening: what it wrote is set to the time before it, said, and nothing stays of that year.
func TestAClockThatRanAhead(t *testing.T) {
	s, dir := practised(t)
	var before LogPage
	srv := serving(t, s)
	ask(t, srv, "GET", "/api/log?limit=1000", nil, &before)
	srv.Close()
	year := time.Now().AddDate(1, 0, 0)
	for i := range 5 {
		e := store.Entry{At: year.Add(time.Duration(i) * time.Minute), Kind: store.LoggedCall, Trials: store.Trials{{Key: i, Quality: "7", Degree: "third", Device: "tones", Success: 1}}}
		require.NoError(t, s.Log(&e))
	}
	srv = serving(t, s)
	var p LogPage
	ask(t, srv, "GET", "/api/log?limit=1000", nil, &p)
	assert.Equal(t, []int{5, before.Total + 5}, []int{p.Ahead, p.Total})
	for _, r := range p.Rows {
		assert.False(t, r.At.After(time.Now().AddDate(0, 0, 1)), "%v", r.At)
	}
	var m LogMaps
	ask(t, srv, "GET", "/api/log/maps?weeks=4", nil, &m)
	_, trials, _, _ := recounted(t, srv, "?weeks=4")
	assert.Equal(t, trials, m.Trials)
	srv.Close()
	srv = serving(t, s)
	ask(t, srv, "GET", "/api/log", nil, &p)
	assert.Zero(t, p.Ahead, "it is done once")
	var plan Today
	ask(t, srv, "GET", "/api/today", nil, &plan)
	assert.Empty(t, plan.Left)
	// All of it: nothing was before.
	damage(t, dir, `DELETE FROM pictures; DELETE FROM tallies; UPDATE log SET at = '2099-01-01 10:00:00+00:00'`)
	srv.Close()
	srv = serving(t, s)
	ask(t, srv, "GET", "/api/log?limit=1000", nil, &p)
	assert.Equal(t, p.Total, p.Ahead)
	assert.Len(t, p.Rows, p.Total)
}

// A lick that went well comes again in the plan, over a chart of another key; which lick it was is noted with a take of it.
func TestALickComesAgain(t *testing.T) {
	s, _ := practised(t)
	srv := serving(t, s)
	var list []LickRow
	ask(t, srv, "GET", "/api/licks?limit=40", nil, &list)
	list = slices.DeleteFunc(list, func(l LickRow) bool { return l.OfKey }) // what is of a key goes through no changes
	lick, other := list[0].ID, list[1].ID
	line := LineBody{LineHead{Title: "It", Key: "C", Feel: "shuffle", Tempo: 96, Beats: 4, Text: "| C7 | F7 |", Low: 7, High: 11}, []store.LineNote{}}
	require.Equal(t, 201, ask(t, srv, "POST", "/api/log/takes", TakeLog{Chart: 6, Mode: "lick", With: other, Title: "It", Line: line, Tempo: 96, Heard: []HeardNote{}}, nil).StatusCode)
	require.Equal(t, 201, ask(t, srv, "POST", "/api/log/takes", TakeLog{Chart: 6, Mode: "thirds", With: other, Title: "It", Line: line, Tempo: 96, Heard: []HeardNote{}}, nil).StatusCode)
	var whole struct{ Log []store.Entry }
	ask(t, srv, "GET", "/api/log/files/json", nil, &whole)
	n := len(whole.Log)
	assert.Equal(t, []uint{other, 0}, []uint{whole.Log[n-2].Lick, whole.Log[n-1].Lick}, "of a mode that is made of one alone")
	e := store.Entry{At: time.Now().AddDate(0, 0, -9), Kind: store.LoggedTake, Chart: 6, Lick: lick, Trials: store.Trials{{Quality: "7", Degree: "third", Device: "lick", From: "C7", Chord: "F7", Success: 1, Met: "on time"}}}
	require.NoError(t, s.Log(&e))
	var p Today
	ask(t, srv, "GET", "/api/today?minutes=20&seed=1", nil, &p)
	end := p.Items[len(p.Items)-1]
	assert.Equal(t, []any{lick, "lick"}, []any{end.Lick, end.Mode})
	assert.Contains(t, end.Why, "not played for 9 days")
	assert.NotEqual(t, uint(6), end.Chart, "elsewhere")
}

// An evening counts for the day, and so for the week, of the place where it was played, whatever day it is in Greenwich.
func TestDaysAreThoseOfThePlace(t *testing.T) {
	s, err := store.Open(t.TempDir())
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	srv := serving(t, s)
	now := time.Now()
	for _, zone := range []int{-11, -5, 0, 3, 13} {
		// The last Sunday there, late in the evening; in the west it is Monday in Greenwich.
		place := time.FixedZone("", zone*3600)
		there := now.In(place).AddDate(0, 0, -7)
		there = time.Date(there.Year(), there.Month(), there.Day()-int(there.Weekday()), 23, 30, 0, 0, place)
		b := noting
		b.Chart, b.At, b.Took, b.Ref = 0, there, 2000, fmt.Sprint("zone ", zone)
		require.Equal(t, 201, ask(t, srv, "POST", "/api/log/calls", b, nil).StatusCode)
		var p LogPage
		ask(t, srv, "GET", "/api/log?limit=1", nil, &p)
		require.Len(t, p.Rows, 1)
		assert.True(t, p.Rows[0].At.Equal(there))
		assert.Equal(t, there.Format(time.DateOnly), p.Rows[0].At.Format(time.DateOnly))
		assert.Equal(t, time.Sunday, p.Rows[0].At.Weekday(), "zone %d", zone)
	}
	var m LogMaps
	ask(t, srv, "GET", "/api/log/maps", nil, &m)
	assert.Len(t, m.Minutes, 1, "one week: %+v", m.Minutes)
}
