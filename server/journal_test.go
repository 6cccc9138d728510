package server

import (
	"database/sql"
	"encoding/csv"
	"fmt"
	"log/slog"
	"net/http/httptest"
	"path/filepath"
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
	assert.Equal(t, 200, ask(t, srv, "GET", "/api/today", nil, nil).StatusCode)
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
	}
	resp, err := srv.Client().Get(srv.URL + "/api/log/files/csv")
	require.NoError(t, err)
	defer resp.Body.Close()
	rows, err := csv.NewReader(resp.Body).ReadAll()
	require.NoError(t, err)
	var m LogMaps
	ask(t, srv, "GET", "/api/log/maps", nil, &m)
	assert.Len(t, rows, m.Trials+1)
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
