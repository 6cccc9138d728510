package store

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/planner"
)

// logOf reads the log of a player, of which nothing may be lost.
func logOf(t require.TestingT, s *Store, player uint) (log []Entry) {
	for l, err := range s.Logged(LogAsk{Player: player}) {
		require.NoError(t, err)
		require.False(t, l.Lost)
		log = append(log, l.Entry)
	}
	return log
}

// someLog notes lines of several days, charts and instruments, some of them late.
func someLog(t *testing.T, s *Store, n int) {
	rng := rand.New(rand.NewPCG(1, 1))
	var log []*Entry
	for i := range n {
		e := &Entry{At: time.Date(2026, 5, 1, 12, 0, 0, 0, time.UTC).AddDate(0, 0, i*40/n-40-rng.IntN(3)), Kind: []string{LoggedCall, LoggedTake, LoggedRung, LoggedSkip, LoggedByEar}[rng.IntN(5)], Title: fmt.Sprint("line ", i),
			Chart: uint(rng.IntN(4)), Line: uint(rng.IntN(3)), Tuning: []string{"", "E2,A2,D3,G3,B3,E4", "D2,A2,D3,G3,B3,E4"}[rng.IntN(3)], Tempo: 80, Seconds: 12}
		for k := range rng.IntN(4) {
			e.Trials = append(e.Trials, Trial{Key: rng.IntN(12), Position: k, Quality: "7", Degree: "third", Device: "land", Chord: "F7", From: "C7", String: 1 + k, Bar: k, Met: "on time", On: "3", Success: float64(rng.IntN(2)), Ms: 3.5, Timed: true})
		}
		log = append(log, e)
	}
	require.NoError(t, s.Log(log...))
}

// tell reads a log and keeps what it adds up to, as often as that.
func tell(t *testing.T, s *Store, every int) *planner.Picture {
	p, err := s.Picture(1, planner.Fitted, 0)
	require.NoError(t, err)
	if p == nil {
		p = planner.NewPicture(planner.Fitted)
	}
	fresh, n := map[Slot]*planner.Tally{}, 0
	keep := func() {
		require.NoError(t, s.KeepPicture(1, p, fresh))
		fresh, n = map[Slot]*planner.Tally{}, 0
	}
	for l, err := range s.Logged(LogAsk{Player: 1, After: p.Read}) {
		require.NoError(t, err)
		p.Add(l.Played())
		at := SlotOf(l.Played(), l.Tuning)
		if fresh[at] == nil {
			fresh[at] = &planner.Tally{}
		}
		fresh[at].Add(l.Played())
		if n++; n == every {
			keep()
		}
	}
	keep()
	return p
}

// recounted counts what a filter keeps, line by line.
func recounted(t *testing.T, s *Store, of Tallied) *planner.Tally {
	sum := &planner.Tally{}
	for _, e := range logOf(t, s, of.Player) {
		if (of.Chart == 0 || e.Chart == of.Chart) && (of.Tuning == "" || e.Tuning == of.Tuning) && (of.Since == 0 || planner.Day(e.At) >= of.Since) {
			sum.Add(e.Played())
		}
	}
	return sum
}

func same(t *testing.T, want, got *planner.Tally, why any) {
	t.Helper()
	end := time.Date(2026, 5, 1, 0, 0, 0, 0, time.UTC)
	a, b := planner.Draw(want, planner.New(planner.Fitted), end), planner.Draw(got, planner.New(planner.Fitted), end)
	assert.Equal(t, []any{a.Lines, a.Trials, a.Timing.Bins, a.Weeks, len(a.Spots)}, []any{b.Lines, b.Trials, b.Timing.Bins, b.Weeks, len(b.Spots)}, why)
	for i := range a.Cells {
		assert.Equal(t, []any{a.Cells[i].Trials, a.Cells[i].Behind}, []any{b.Cells[i].Trials, b.Cells[i].Behind}, why)
		assert.InDelta(t, a.Cells[i].Success, b.Cells[i].Success, 1e-9, why)
	}
}

var filters = func() (list []Tallied) {
	for _, chart := range []uint{0, 1, 3, 9} {
		for _, tuning := range []string{"", "D2,A2,D3,G3,B3,E4", "none"} {
			for _, days := range []int{0, 1, 8, 1000} {
				of := Tallied{Player: 1, Chart: chart, Tuning: tuning}
				if days > 0 {
					of.Since = planner.Day(time.Date(2026, 5, 1, 0, 0, 0, 0, time.UTC)) - days
				}
				list = append(list, of)
			}
		}
	}
	return list
}()

// Whatever is looked at, and however often it was kept: what is kept beside the log is what a recount of it gives.
func TestTalliesEqualARecount(t *testing.T) {
	for _, every := range []int{1, 7, 1000} {
		s := open(t, t.TempDir())
		someLog(t, s, 150)
		tell(t, s, every)
		someLog(t, s, 30) // of the same days
		tell(t, s, every)
		for _, of := range filters {
			got, err := s.Tally(of)
			require.NoError(t, err)
			same(t, recounted(t, s, of), got, of)
		}
	}
}

// A line that is taken out is in nothing any more, one that is put back in all as before; who relearns begins
// where the log was as it is.
func TestALineIsTakenOutAndPutBack(t *testing.T) {
	s := open(t, t.TempDir())
	someLog(t, s, 60)
	tell(t, s, 9)
	line := logOf(t, s, 1)[20]
	for _, gone := range []bool{true, false} {
		require.NoError(t, s.Unlog(1, line.ID, gone))
		left := 60
		if gone {
			left = 59
		}
		assert.Len(t, logOf(t, s, 1), left)
		for _, of := range filters {
			got, err := s.Tally(of)
			require.NoError(t, err)
			same(t, recounted(t, s, of), got, of)
		}
		before, err := s.Picture(1, planner.Fitted, line.ID)
		require.NoError(t, err)
		assert.Less(t, before.Read, line.ID)
		assert.Positive(t, before.Read, "and not from the beginning")
		for l, err := range s.Logged(LogAsk{Player: 1, After: before.Read}) {
			require.NoError(t, err)
			before.Add(l.Played())
		}
		same(t, recounted(t, s, Tallied{Player: 1}), before.Tally, gone)
	}
	assert.ErrorIs(t, s.Unlog(2, line.ID, true), ErrNotFound, "another player's")
	assert.ErrorIs(t, s.Unlog(1, 9999, true), ErrNotFound)
}

// What was kept of a log and cannot be used any more is made anew, with all that was counted beside it.
func TestAPictureOfBeforeIsForgotten(t *testing.T) {
	for _, damage := range []string{`UPDATE pictures SET picture = '{'`, `UPDATE pictures SET picture = '{"Version":0}'`, `DELETE FROM pictures`} {
		s := open(t, t.TempDir())
		someLog(t, s, 40)
		tell(t, s, 5)
		require.NoError(t, s.db.Exec(damage).Error)
		p, err := s.Picture(1, planner.Fitted, 0)
		require.NoError(t, err)
		assert.Nil(t, p, damage)
		tell(t, s, 1000)
		for _, of := range filters {
			got, err := s.Tally(of)
			require.NoError(t, err)
			same(t, recounted(t, s, of), got, damage)
		}
	}
}

// Pictures are kept for each day of the last month, and one of every four weeks before.
func TestPicturesBecomeFew(t *testing.T) {
	s := open(t, t.TempDir())
	p := planner.NewPicture(planner.Fitted)
	begin := planner.Day(time.Date(2025, 1, 1, 0, 0, 0, 0, time.UTC))
	for day := range 300 {
		p.Add(planner.Played{Entry: uint(day + 1), At: planner.DateOf(begin + day)})
		require.NoError(t, s.KeepPicture(1, p, nil))
	}
	var days []int
	require.NoError(t, s.db.Table("pictures").Order("day").Pluck("day", &days).Error)
	assert.InDelta(t, 32+(300-32)/28, len(days), 1)
	assert.Equal(t, begin+299, days[len(days)-1])
}

// Trials are kept as lists; those that were kept with names are read as well, and what is neither is a line that is lost.
func TestHowTrialsAreKept(t *testing.T) {
	want := Trials{{Key: 10, Position: 4, Quality: "m7b5", Degree: "third", Down: true, Device: "land", Chord: "Bbm7b5", From: "F7", String: 2, Bar: 11, Met: "on time", On: "b3", Success: 0.7, Ms: -12.25, Timed: true}, {}}
	kept, err := want.Value()
	require.NoError(t, err)
	named, err := json.Marshal(want)
	require.NoError(t, err)
	assert.Less(t, 2*len(kept.(string)), len(named)+60)
	for _, text := range []any{kept, []byte(kept.(string)), string(named)} {
		var got Trials
		require.NoError(t, got.Scan(text))
		assert.Equal(t, want, got)
	}
	for _, bad := range []any{nil, 3, "", "{", "[1]", "[[1]]", `[["C"]]`, `[{"key":"C"}]`, "null and void"} {
		assert.Error(t, new(Trials).Scan(bad), bad)
	}
}

// Lines of a log are asked for in parts: each way to ask gives what looking at all of them gives.
func TestWaysToAskALog(t *testing.T) {
	s := open(t, t.TempDir())
	someLog(t, s, 1200) // more than is read at once
	all := logOf(t, s, 1)
	require.Len(t, all, 1200)
	day := planner.Day(all[0].At)
	for name, c := range map[string]struct {
		ask  LogAsk
		keep func(Entry) bool
	}{
		"after":   {LogAsk{After: 700}, func(e Entry) bool { return e.ID > 700 }},
		"before":  {LogAsk{Before: 700}, func(e Entry) bool { return e.ID < 700 }},
		"only":    {LogAsk{Only: []uint{3, 900, 9999}}, func(e Entry) bool { return e.ID == 3 || e.ID == 900 }},
		"chart":   {LogAsk{Chart: 2}, func(e Entry) bool { return e.Chart == 2 }},
		"line":    {LogAsk{Line: 2}, func(e Entry) bool { return e.Line == 2 }},
		"either":  {LogAsk{Charts: []uint{1, 2}, Lines: []uint{1}}, func(e Entry) bool { return e.Chart == 1 || e.Chart == 2 || e.Line == 1 }},
		"tuning":  {LogAsk{Tuning: "D2,A2,D3,G3,B3,E4"}, func(e Entry) bool { return e.Tuning == "D2,A2,D3,G3,B3,E4" }},
		"since":   {LogAsk{Since: day}, func(e Entry) bool { return planner.Day(e.At) >= day }},
		"kind":    {LogAsk{Kind: LoggedRung}, func(e Entry) bool { return e.Kind == LoggedRung }},
		"nothing": {LogAsk{Chart: 77}, func(Entry) bool { return false }},
	} {
		var want []uint
		for _, e := range all {
			if c.keep(e) {
				want = append(want, e.ID)
			}
		}
		for _, newest := range []bool{false, true} {
			for _, limit := range []int{0, 3, 640} {
				ask := c.ask
				ask.Player, ask.Newest, ask.Limit = 1, newest, limit
				var got []uint
				for l, err := range s.Logged(ask) {
					require.NoError(t, err)
					got = append(got, l.ID)
				}
				some := append([]uint(nil), want...)
				if newest {
					for i, id := range want {
						some[len(want)-1-i] = id
					}
				}
				if limit > 0 {
					some = some[:min(limit, len(some))]
				}
				assert.Equal(t, some, got, "%s %v %d", name, newest, limit)
			}
		}
	}
}
