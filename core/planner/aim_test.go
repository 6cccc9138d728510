package planner_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/planner"
)

// An aim is reached by so many tries in a row, at the tempo and by the part that are
// asked for; what is something else counts neither way.
func TestAimsAreMeasured(t *testing.T) {
	chorus := func(chart uint, mode string, tempo int, landed ...float64) planner.Played {
		p := planner.Played{At: monday, Chart: chart, Tempo: tempo, Seconds: 30}
		for _, s := range landed {
			p.Trials = append(p.Trials, planner.Trial{Ask: planner.Ask{Device: mode}, Success: s})
		}
		return p
	}
	take := func(line uint, tempo, good, notes int) planner.Played {
		return planner.Played{At: monday, Line: line, Tempo: tempo, Good: good, Notes: notes, Seconds: 90}
	}
	call := func(key int, degree string, success float64) planner.Played {
		return planner.Played{At: monday, Call: true, Trials: []planner.Trial{{Ask: planner.Ask{Key: key, Degree: degree}, Success: success}}}
	}
	good, weak := chorus(1, "thirds", 100, 1, 1, 1, 0), chorus(1, "thirds", 100, 1, 0.5, 1, 0)
	for _, c := range []struct {
		name string
		aim  planner.Aim
		log  []planner.Played
		want planner.Progress
	}{
		{"three in a row", planner.Aim{Kind: "changes", Chart: 1, Part: 0.75, Times: 3}, []planner.Played{good, good, good}, planner.Progress{Tries: 3, Best: 0.75, Row: 3, Reached: true, Last: monday}},
		{"a weak one between", planner.Aim{Kind: "changes", Chart: 1, Part: 0.75, Times: 3}, []planner.Played{good, weak, good, good}, planner.Progress{Tries: 4, Best: 0.75, Row: 2, Last: monday}},
		{"another chart between", planner.Aim{Kind: "changes", Chart: 1, Part: 0.75, Times: 2}, []planner.Played{good, chorus(2, "thirds", 100, 0), good}, planner.Progress{Tries: 2, Best: 0.75, Row: 2, Reached: true, Last: monday}},
		{"too slow", planner.Aim{Kind: "changes", Chart: 1, Part: 0.75, Times: 1, Tempo: 110}, []planner.Played{good}, planner.Progress{}},
		{"another mode", planner.Aim{Kind: "changes", Chart: 1, Mode: "land", Part: 0.75, Times: 1}, []planner.Played{good}, planner.Progress{}},
		{"a line", planner.Aim{Kind: "line", Line: 4, Part: 0.9, Tempo: 80}, []planner.Played{take(4, 80, 17, 20), take(5, 80, 20, 20), take(4, 90, 18, 20)}, planner.Progress{Tries: 2, Best: 0.9, Row: 1, Reached: true, Last: monday}},
		{"calls", planner.Aim{Kind: "calls", Key: 2, Degree: "third", Times: 2}, []planner.Played{call(2, "third", 1), call(2, "root", 0), call(2, "third", 1)}, planner.Progress{Tries: 2, Best: 1, Row: 2, Reached: true, Last: monday}},
		{"calls in time alone", planner.Aim{Kind: "calls", Key: 2, Times: 2}, []planner.Played{call(2, "third", 1), call(2, "third", 0.4)}, planner.Progress{Tries: 2, Best: 1, Row: 1, Last: monday}},
		{"minutes", planner.Aim{Kind: "minutes", Times: 2}, []planner.Played{good, take(4, 80, 1, 2)}, planner.Progress{Tries: 2, Best: 2, Reached: true, Last: monday}},
		{"nothing played", planner.Aim{Kind: "minutes", Times: 2}, nil, planner.Progress{}},
	} {
		got := progress(c.aim, c.log)
		assert.InDelta(t, c.want.Best, got.Best, 1e-9, c.name)
		got.Best = c.want.Best
		assert.Equal(t, c.want, got, c.name)
	}
	assert.Equal(t, "Low Water, land on thirds: 75 % of the changes met at 90 or faster, 3 times in a row",
		planner.Aim{Kind: "changes", Part: 0.75, Times: 3, Tempo: 90}.Says("Low Water", "land on thirds"))
}

// Every kind of aim is whole: it is chosen by a name, begins with something that can be tried and
// said, is tried by something that is played, and what is not reached is planned, unless it adds up by itself.
func TestEveryKindOfAimIsWhole(t *testing.T) {
	log := []planner.Played{
		{At: monday, Chart: 7, Line: 7, Tempo: 100, Seconds: 3600, Notes: 8, Good: 8, Trials: []planner.Trial{{Ask: planner.Ask{Device: "land"}, Success: 1}}},
		{At: monday, Call: true, Trials: []planner.Trial{{Ask: planner.Ask{Key: 0, Degree: "third"}, Success: 1}}},
	}
	seen := map[string]bool{}
	for _, k := range planner.AimKinds {
		assert.False(t, seen[k.ID] || seen[k.Name], k.ID)
		seen[k.ID], seen[k.Name] = true, true
		assert.NotEmpty(t, k.Name, k.ID)
		assert.NotEmpty(t, k.Unit, k.ID)
		assert.Contains(t, []string{"chart", "line", "exercise", ""}, k.Of, k.ID)
		for _, what := range k.Asks {
			assert.Contains(t, []string{"mode", "key", "degree", "percent", "tempo"}, what, k.ID)
		}
		found, err := planner.AimKindByID(k.ID)
		assert.NoError(t, err)
		assert.Equal(t, k.Name, found.Name)

		a := k.Usual
		a.Kind, a.Chart, a.Line = k.ID, 7, 7
		assert.LessOrEqual(t, a.Times, k.Most, k.ID)
		assert.NotEmpty(t, a.Says("Low Water", ""), k.ID)
		assert.NotContains(t, a.Says("Low Water", ""), "another kind", k.ID)
		a.Times = min(a.Times, 1)
		p := progress(a, log)
		assert.Equal(t, []any{true, monday}, []any{p.Reached, p.Last}, k.ID)
		assert.Positive(t, p.Tries, k.ID)

		item, ok := planner.New(planner.Fitted).Set(a, planner.Progress{}, "set", "says", "Reed", monday)
		if assert.Equal(t, !k.Adds, ok, k.ID); ok {
			assert.NotEmpty(t, item.Kind, k.ID)
		}
	}
	assert.Equal(t, planner.Progress{}, progress(planner.Aim{Kind: "dance"}, log))
	_, err := planner.AimKindByID("dance")
	assert.ErrorContains(t, err, "dance")
}

func progress(a planner.Aim, log []planner.Played) planner.Progress {
	f := a.Follow(0)
	for _, p := range log {
		f.Add(p)
	}
	return f.Progress()
}
