package planner_test

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/neck"
	"undaris/core/planner"
)

var monday = time.Date(2026, 3, 2, 18, 0, 0, 0, time.UTC)

func third(key, position int) planner.Ask {
	return planner.Ask{Key: key, Position: position, Quality: "7", Degree: "third", Device: "tones", Tempo: 80}
}

// Success makes success likelier, failure less; what is not practised fades and
// becomes uncertain; spaced success lasts longer than crammed.
func TestTheModelLearnsAndForgets(t *testing.T) {
	m := planner.New(planner.Fitted)
	before, unsure := m.Predict(third(0, 1), monday)
	for range 20 {
		m.Learn(third(0, 1), 1, monday)
	}
	after, sure := m.Predict(third(0, 1), monday)
	assert.Greater(t, after, before)
	assert.Less(t, sure, unsure)
	later, less := m.Predict(third(0, 1), monday.AddDate(1, 0, 0))
	assert.Less(t, later, after)
	assert.Greater(t, less, sure)
	back, _ := m.Predict(third(0, 1), monday.AddDate(-3, 0, 0))
	assert.InDelta(t, after, back, 1e-9, "a clock that goes backwards changes nothing")
	for range 20 {
		m.Learn(third(0, 1), 0, monday)
	}
	failed, _ := m.Predict(third(0, 1), monday)
	assert.Less(t, failed, after)

	place := planner.Skill{Kind: planner.Place, Key: 0, Position: 1}
	crammed, spaced := planner.New(planner.Fitted), planner.New(planner.Fitted)
	for i := range 10 {
		crammed.Learn(third(0, 1), 1, monday)
		spaced.Learn(third(0, 1), 1, monday.AddDate(0, 0, 4*i))
	}
	assert.Greater(t, spaced.Strength(place, monday).Half, crammed.Strength(place, monday).Half)
}

// The same shape in the next keys and the next positions in the same key gain a part.
func TestNeighboursBorrow(t *testing.T) {
	m := planner.New(planner.Fitted)
	of := func(key, position int) float64 {
		return m.Strength(planner.Skill{Kind: planner.Place, Key: key, Position: position}, monday).Mean
	}
	for range 10 {
		m.Learn(third(0, 1), 1, monday)
	}
	for _, n := range [][2]int{{5, 1}, {7, 1}, {0, 0}, {0, 2}} {
		assert.Positive(t, of(n[0], n[1]), n)
		assert.Less(t, of(n[0], n[1]), of(0, 1))
	}
	for _, far := range [][2]int{{6, 1}, {0, 3}, {5, 2}} {
		assert.Zero(t, of(far[0], far[1]), far)
	}
}

// Whatever was practised and however long there is: the plan fits into its time, ends
// in music, has one new thing at most, rests, and says why of everything.
func TestEveryPlanHolds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		m := planner.New(planner.Fitted)
		var trials []planner.Trial
		for i := range rapid.IntRange(0, 80).Draw(t, "trials") {
			a := third(rapid.IntRange(0, 11).Draw(t, "key"), rapid.IntRange(0, 4).Draw(t, "position"))
			success := float64(rapid.IntRange(0, 1).Draw(t, "success"))
			at := monday.AddDate(0, 0, -i)
			m.Learn(a, success, at)
			x := planner.Trial{Ask: a, At: at, Entry: uint(i + 1), Chart: 1, Chord: "F7", Success: success}
			if i%3 == 0 {
				x.From = "C7"
			}
			trials = append(trials, x)
		}
		o := planner.Order{In: neck.Standard(), Hand: neck.UsualHand, Minutes: rapid.IntRange(0, 90).Draw(t, "minutes"), Seed: rapid.Uint64().Draw(t, "seed")}
		for i := range rapid.IntRange(0, 3).Draw(t, "tunes") {
			o.Tunes = append(o.Tunes, planner.Tune{ID: uint(i + 1), Title: "Slipway", Tempo: 100})
		}
		for i := range rapid.IntRange(0, 3).Draw(t, "pieces") {
			o.Pieces = append(o.Pieces, planner.Written{ID: uint(i + 1), Title: "Low Water", Exercise: i%2 == 0, Tempo: 80,
				Count: planner.Count{Trials: i, Success: 0.5, Last: monday.AddDate(0, 0, -5*i)}})
			o.Licks = append(o.Licks, planner.Written{ID: uint(i + 1), Title: "Ebb"})
		}
		for i := range rapid.IntRange(0, 6).Draw(t, "set") {
			o.Set = append(o.Set, planner.Item{ID: fmt.Sprint("set ", i), Kind: planner.Changes, Chart: 1, Title: "Slipway", Why: "it is asked for", Done: "met", Minutes: 3})
		}
		plan := m.Plan(o, counted(trials...), monday)
		require.Equal(t, plan, m.Plan(o, counted(trials...), monday), "the same seed plans the same")
		total, fresh, since := 0, 0, 0
		ids := map[string]bool{}
		for i, item := range plan {
			require.False(t, ids[item.ID], item.ID)
			ids[item.ID] = true
			require.Positive(t, item.Minutes)
			require.NotEmpty(t, item.Title)
			require.NotEmpty(t, item.Why)
			require.NotEmpty(t, item.Done)
			require.Equal(t, i == len(plan)-1, item.Kind == planner.Music)
			if total += item.Minutes; item.New {
				fresh++
			}
			if since += item.Minutes; item.Kind == planner.Rest {
				since = 0
			}
			require.LessOrEqual(t, since, 33)
		}
		if len(o.Set) > 0 && o.Minutes >= 20 {
			require.True(t, ids["set 0"], "what a teacher asks for comes first")
		}
		require.LessOrEqual(t, total, max(planner.MinMinutes, min(planner.MaxMinutes, o.Minutes)))
		require.GreaterOrEqual(t, total, max(planner.MinMinutes, min(planner.MaxMinutes, o.Minutes))-3)
		if len(trials) > 0 {
			require.LessOrEqual(t, fresh, 1)
		}
		o.Without = []string{plan[0].ID}
		for _, item := range m.Plan(o, counted(trials...), monday) {
			require.NotEqual(t, plan[0].ID, item.ID, "what was swapped away is gone")
		}
	})
}

// The change that is met least is practised, and what presses comes first.
func TestThePlanLooksAtTheWeakestChange(t *testing.T) {
	m := planner.New(planner.Fitted)
	var trials []planner.Trial
	for i := range 12 {
		for chart, success := range map[uint]float64{1: 0, 2: float64(i % 2)} {
			trials = append(trials, planner.Trial{Ask: third(0, 1), At: monday, Entry: uint(i + 1), Chart: chart, From: "C7", Chord: "F7", Success: success})
		}
	}
	find := func(o planner.Order) planner.Item {
		for _, i := range m.Plan(o, counted(trials...), monday) {
			if i.Kind == planner.Changes {
				return i
			}
		}
		return planner.Item{}
	}
	o := planner.Order{In: neck.Standard(), Hand: neck.UsualHand, Minutes: 30, Tunes: []planner.Tune{{ID: 1, Title: "Slipway Shuffle", Tempo: 96}, {ID: 2, Title: "Low Water", Tempo: 70}}}
	assert.Equal(t, uint(1), find(o).Chart)
	assert.Contains(t, find(o).Why, "0 times of 12")
	o.Tunes[1].By, o.Tunes[1].Changes = monday.AddDate(0, 0, 4), [][2]string{{"C7", "F7"}}
	assert.Equal(t, uint(2), find(o).Chart, "the rehearsal is on Friday")
}

// An evening tells which changes are safe, which are not yet, and which were not tried.
func TestAnEveningIsMadeReady(t *testing.T) {
	var trials []planner.Trial
	for i := range 10 {
		for to, success := range map[string]float64{"F7": 1, "G7": float64(i % 2), "A7": 0} {
			trials = append(trials, planner.Trial{Chart: 3, From: "C7", Chord: to, Success: success, At: monday})
		}
	}
	tune := planner.Tune{ID: 3, Changes: [][2]string{{"C7", "F7"}, {"C7", "G7"}, {"C7", "A7"}, {"F7", "C7"}}}
	r := planner.Evening([]planner.Tune{tune}, counted(trials...))
	require.Len(t, r, 1)
	assert.Equal(t, 1, r[0].Safe)
	assert.Equal(t, []string{"A7", "G7"}, []string{r[0].Weak[0].To, r[0].Weak[1].To})
	assert.Equal(t, [][2]string{{"F7", "C7"}}, r[0].Untried)
}

// Maps count what they are told, and keep what is asked for.
func TestMapsCount(t *testing.T) {
	m := planner.New(planner.Fitted)
	var trials []planner.Trial
	for i := range 30 {
		x := planner.Trial{Ask: third(i%12, i%5), At: monday.AddDate(0, 0, i), Entry: uint(i + 1), Chart: uint(1 + i%2), String: 1 + i%6, Success: float64(i % 2), Chord: "F7", Ms: float64(i - 15), Timed: true}
		if i%3 == 0 {
			x.From, x.On, x.Met = "C7", "R", "on time"
		}
		trials = append(trials, x)
	}
	all := planner.Draw(counted(trials...), m, monday)
	assert.Equal(t, 30, all.Trials)
	assert.Len(t, all.Cells, 60)
	n, strings := 0, 0
	for _, c := range all.Cells {
		n += c.Trials
	}
	for _, s := range all.Spots {
		strings += s.Trials
	}
	assert.Equal(t, []int{30, 30}, []int{n, strings})
	require.Len(t, all.Changes, 1)
	assert.Equal(t, 1., all.Changes[0].OnRoot)
	assert.Equal(t, uint(1), all.Changes[0].Chart)
	assert.Len(t, all.Changes[0].Behind, 6)
	assert.Equal(t, uint(28), all.Changes[0].Behind[0].Entry, "the newest first")
	assert.InDelta(t, -0.5, all.Timing.Mean, 1e-9)
	sum := 0
	for _, b := range all.Timing.Bins {
		sum += b
	}
	assert.Equal(t, 30, sum)
	assert.GreaterOrEqual(t, len(all.Weeks), 4)
	one := planner.Draw(counted(slices.DeleteFunc(trials, func(t planner.Trial) bool { return t.Chart != 1 })...), m, monday)
	assert.Equal(t, 15, one.Trials)
}
