package planner_test

import (
	"encoding/json"
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/edit"
	"undaris/core/form"
	"undaris/core/judge"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/planner"
	"undaris/core/practice"
	"undaris/core/score"
)

// counted counts trials, each of the line of the log that it says.
func counted(trials ...planner.Trial) *planner.Tally {
	t := &planner.Tally{}
	for _, x := range trials {
		t.Add(planner.Played{Entry: x.Entry, At: x.At, Chart: x.Chart, Trials: []planner.Trial{x}})
	}
	return t
}

func trials(n int, of planner.Trial, success ...float64) (list []planner.Trial) {
	for i := range n {
		of.Entry, of.Success = uint(i+1), success[i%len(success)]
		if of.At.IsZero() {
			of.At = monday
		}
		list = append(list, of)
	}
	return list
}

// A change is safe from four times of five on, after three tries; the weakest comes first.
func TestWhenAChangeIsSafe(t *testing.T) {
	to := func(chord string, n int, success ...float64) []planner.Trial {
		return trials(n, planner.Trial{Chart: 1, From: "C7", Chord: chord}, success...)
	}
	var all []planner.Trial
	all = append(all, to("F7", 5, 1, 1, 1, 1, 0)...)                                      // 0.8
	all = append(all, to("G7", 10, 1, 1, 1, 0)...)                                        // 0.8 at ten
	all = append(all, to("A7", 2, 1)...)                                                  // not often enough
	all = append(all, to("D7", 3, 1)...)                                                  // just often enough
	all = append(all, to("E7", 4, 1, 1, 1, 0)...)                                         // 0.75
	all = append(all, to("B7", 4, 0)...)                                                  // the weakest
	all = append(all, to("Bb7", 4, 1, 0, 1, 0)...)                                        // between
	all = append(all, trials(5, planner.Trial{Chart: 2, From: "C7", Chord: "Db7"}, 1)...) // another tune's
	all = append(all, trials(5, planner.Trial{Chart: 1, Chord: "Db7"}, 1)...)             // no change
	tune := planner.Tune{ID: 1}
	for _, chord := range []string{"F7", "G7", "A7", "D7", "E7", "B7", "Bb7", "Db7"} {
		tune.Changes = append(tune.Changes, [2]string{"C7", chord})
	}
	r := planner.Evening([]planner.Tune{tune}, counted(all...))[0]
	assert.Equal(t, 3, r.Safe)
	assert.Equal(t, [][2]string{{"C7", "A7"}, {"C7", "Db7"}}, r.Untried)
	require.Len(t, r.Weak, 3)
	assert.Equal(t, []string{"B7", "Bb7", "E7"}, []string{r.Weak[0].To, r.Weak[1].To, r.Weak[2].To})
	assert.InDelta(t, 0.75, r.Weak[2].Success, 1e-9)
}

// Timing lies in bins of ten milliseconds from −150 on, what is further in the outermost; mean and
// spread are those of all.
func TestTimingIsCounted(t *testing.T) {
	var all []planner.Trial
	for _, ms := range []float64{-900, -150, -141, -1, 0, 9, 10, 149, 900} {
		all = append(all, planner.Trial{At: monday, Ms: ms, Timed: true})
	}
	all = append(all, planner.Trial{At: monday, Ms: 50}) // was not timed
	timing := planner.Draw(counted(all...), planner.New(planner.Fitted), monday).Timing
	want := make([]int, 30)
	want[0], want[14], want[15], want[16], want[29] = 3, 1, 2, 1, 2
	assert.Equal(t, want, timing.Bins)
	assert.Equal(t, 9, timing.Trials)
	assert.InDelta(t, -13.7778, timing.Mean, 1e-3)
	two := planner.Draw(counted(planner.Trial{Ms: 10, Timed: true}, planner.Trial{Ms: 30, Timed: true}), planner.New(planner.Fitted), monday).Timing
	assert.InDelta(t, 20, two.Mean, 1e-9)
	assert.InDelta(t, 10, two.Spread, 1e-9)
}

// How a change was met is counted in parts: by silence, on the root, by what was wrong or late.
func TestHowChangesAreMet(t *testing.T) {
	of := func(met, on string, success float64) planner.Trial {
		return planner.Trial{At: monday, From: "C7", Chord: "F7", Met: met, On: on, Success: success, Entry: 1}
	}
	all := []planner.Trial{of("silent", "", 0), of("on time", "R", 1), of("late", "R", 0.4), of("wrong note", "b9", 0), of("late", "3", 0.49), of("late", "3", 0.5), of("on time", "3", 1), of("on time", "b7", 1)}
	all = append(all, planner.Trial{At: monday, From: "F7", Chord: "C7", Success: 0}, planner.Trial{At: monday, Chord: "G7"})
	maps := planner.Draw(counted(all...), planner.New(planner.Fitted), monday)
	require.Len(t, maps.Changes, 2)
	assert.Equal(t, "F7", maps.Changes[0].From, "the weakest first")
	c := maps.Changes[1]
	assert.Equal(t, []float64{1. / 8, 2. / 8, 2. / 8}, []float64{c.Silent, c.OnRoot, c.Other})
	require.Len(t, maps.Weeks, 1)
	assert.Equal(t, map[string]int{"R": 2, "b9": 1, "3": 3, "b7": 1, "–": 2}, maps.Weeks[0].Degrees)
}

// Days are those of where something was played; weeks begin on their Mondays, and end on their Sundays.
func TestDaysAndWeeks(t *testing.T) {
	east, west := time.FixedZone("", 9*3600), time.FixedZone("", -8*3600)
	late := time.Date(2026, 3, 1, 23, 59, 59, 0, time.UTC) // a Sunday
	assert.Equal(t, []int{planner.Day(late), planner.Day(late) + 1, planner.Day(late)}, []int{planner.Day(late), planner.Day(late.In(east)), planner.Day(late.In(west))})
	assert.Equal(t, time.Date(2026, 3, 1, 0, 0, 0, 0, time.UTC), planner.DateOf(planner.Day(late)))
	assert.Equal(t, planner.Day(late)-6, planner.Since(1, late), "a week is today and six days")
	week := func(at time.Time) time.Time {
		return planner.Draw(counted(planner.Trial{At: at, From: "C7", Chord: "F7"}), planner.New(planner.Fitted), at).Weeks[0].Begins
	}
	begins := time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC)
	for _, at := range []time.Time{begins, monday, begins.AddDate(0, 0, 7).Add(-time.Second), late.In(east)} {
		assert.Equal(t, begins, week(at), at)
	}
	assert.Equal(t, begins.AddDate(0, 0, -7), week(late))
	assert.Equal(t, begins.AddDate(0, 0, 7), week(begins.AddDate(0, 0, 7)))
	assert.Equal(t, time.Date(1969, 12, 29, 0, 0, 0, 0, time.UTC), week(time.Date(1970, 1, 4, 9, 0, 0, 0, time.UTC)))
}

// A count keeps the newest six lines of the log, each once, with the place where it went worst.
func TestWhatIsBehindACount(t *testing.T) {
	var all []planner.Trial
	for entry := range uint(9) {
		for bar, success := range []float64{1, 0, 0.5} {
			all = append(all, planner.Trial{Ask: third(0, 1), At: monday, Entry: entry + 1, Bar: bar + 1, Success: success})
		}
	}
	all = append(all, planner.Trial{Ask: third(0, 1), At: monday, Success: 1})
	maps := planner.Draw(counted(all...), planner.New(planner.Fitted), monday)
	var cell planner.Cell
	for _, c := range maps.Cells {
		if c.Key == 0 && c.Position == 1 {
			cell = c
		}
	}
	assert.Equal(t, 28, cell.Trials)
	assert.InDelta(t, (9*1.5+1)/28, cell.Success, 1e-9)
	assert.Equal(t, []planner.Behind{{9, 2, 3, 1}, {8, 2, 3, 1}, {7, 2, 3, 1}, {6, 2, 3, 1}, {5, 2, 3, 1}, {4, 2, 3, 1}}, cell.Behind)
}

// A window is the position that shares most frets with it; none shares none.
func TestWhichPositionAWindowIs(t *testing.T) {
	in := neck.Standard()
	for _, p := range in.Positions(0) {
		assert.Equal(t, p.Number-1, planner.PositionOf(in, 0, p.Region), p.Region)
		within := p.Region
		within.High = within.Low + 1
		assert.Equal(t, p.Region.Low <= within.Low, planner.PositionOf(in, 0, within) >= 0)
	}
	assert.Equal(t, -1, planner.PositionOf(in, 0, neck.Region{Low: 30, High: 33}))
}

// played is a line over C7 F7 with a note on each change.
func played(t *testing.T) edit.Line {
	key := form.Key{Tonic: pitch.Roots[0]}
	p, err := form.Read("| C7 | F7 |", 4, key)
	require.NoError(t, err)
	l := edit.Line{Hand: neck.UsualHand, Region: neck.Standard().Positions(0)[3].Region}
	l.Score = score.Score{Key: key, Tempo: 120, Progression: p, In: neck.Standard()}
	for i, n := range []struct{ at, midi int }{{0, 64}, {3840, 63}} {
		at := l.In.Find(n.midi, l.Region)[0]
		l.Notes = append(l.Notes, score.Note{ID: i + 1, Start: n.at, Length: 960, Placement: at, Pitch: pitch.At(n.midi, l.Spell(n.at, n.midi))})
	}
	return l
}

// A take is evidence of each change: right in time is success, right otherwise half of one.
func TestWhatATakeIsEvidenceOf(t *testing.T) {
	l := played(t)
	at := func(first, second float64) []judge.Heard {
		return []judge.Heard{{At: first, Length: 900, Pitch: 64}, {At: second, Length: 900, Pitch: 63}}
	}
	of := func(heard []judge.Heard) []planner.Trial {
		return planner.FromTake(judge.Prescribed(l.Score, heard, 120, 0.5), l, 120)
	}
	good := of(at(0, 3840))
	require.Len(t, good, 2)
	second := good[1]
	assert.Equal(t, []any{"F7", "C7", "7", "b7", "seventh", 2, 1., true, true, 120, 0, 3, "line"}, []any{second.Chord, second.From, second.Quality, second.On, second.Degree, second.Bar, second.Success, second.Timed, second.Down, second.Tempo, second.Key, second.Position, second.Device})
	assert.Equal(t, l.Notes[1].String, second.String)
	assert.Empty(t, good[0].From, "nothing comes before the first bar")
	late := of(at(0, 3840+600))
	assert.Equal(t, []any{0.5, true}, []any{late[1].Success, late[1].Timed})
	wrong := of([]judge.Heard{{At: 0, Length: 900, Pitch: 64}, {At: 3840, Length: 900, Pitch: 66}})
	assert.Equal(t, []any{0., false, "wrong note"}, []any{wrong[1].Success, wrong[1].Timed, wrong[1].Met})
	silent := of(at(0, 3840)[:1])
	assert.Equal(t, []any{0., false, "silent"}, []any{silent[1].Success, silent[1].Timed, silent[1].Met})
}

// So is a pass of a mode; what lands on another tone than the one asked for is half of a success.
func TestWhatAPassIsEvidenceOf(t *testing.T) {
	l := played(t)
	m, err := practice.ModeByID("thirds")
	require.NoError(t, err)
	heard := []judge.Heard{{At: 48, Length: 900, Pitch: 64}, {At: 3840, Length: 900, Pitch: 63}}
	f, err := m.Judge(l, 0, heard, 120, 0.5)
	require.NoError(t, err)
	got := planner.FromFree(f, m, 0, heard, 120)
	require.Len(t, got, 2)
	assert.Equal(t, []any{1., "third", "3", "thirds", true}, []any{got[0].Success, got[0].Degree, got[0].On, got[0].Device, got[0].Timed})
	assert.InDelta(t, 25, got[0].Ms, 0.1, "48 ticks of 960 at 120 beats a minute")
	assert.Equal(t, []any{0.5, "third", "b7", "another tone"}, []any{got[1].Success, got[1].Degree, got[1].On, got[1].Met})
	f, err = m.Judge(l, 0, heard[:1], 120, 0.5)
	require.NoError(t, err)
	got = planner.FromFree(f, m, 0, heard[:1], 120)
	assert.Equal(t, []any{0., line.Silent, false}, []any{got[1].Success, got[1].Met, got[1].Timed})
}

// The line that is due most is planned: what went worst, what was not played for longest; one that
// was never played only where none was. Its reason tells which.
func TestWhichLineIsDue(t *testing.T) {
	m := planner.New(planner.Fitted)
	piece := func(id uint, trials int, success float64, days int) planner.Written {
		return planner.Written{ID: id, Title: "Across", Tempo: 90, Count: planner.Count{Trials: trials, Success: success, Last: monday.AddDate(0, 0, -days)}}
	}
	of := func(pieces ...planner.Written) (planner.Item, bool) {
		for _, i := range m.Plan(planner.Order{In: neck.Standard(), Hand: neck.UsualHand, Minutes: 60, Pieces: pieces}, counted(), monday) {
			if i.Kind == planner.Piece {
				return i, true
			}
		}
		return planner.Item{}, false
	}
	first := func(pieces ...planner.Written) uint {
		i, ok := of(pieces...)
		require.True(t, ok)
		return i.Line
	}
	assert.Equal(t, uint(2), first(piece(1, 5, 0.9, 1), piece(2, 5, 0.5, 1)), "what went worst")
	assert.Equal(t, uint(1), first(piece(1, 5, 0.9, 12), piece(2, 5, 0.7, 1)), "what was not played for longest")
	assert.Equal(t, uint(2), first(piece(1, 5, 0.9, 14), piece(2, 5, 0.8, 99)), "two weeks are as long as any")
	assert.Equal(t, uint(2), first(piece(1, 0, 0, 0), piece(2, 5, 1, 0)))
	i, _ := of(piece(3, 5, 0.916, 6))
	assert.Equal(t, []any{"92 % of its notes were right on average in its last 5 takes", false, 90}, []any{i.Why, i.New, i.Tempo})
	i, _ = of(piece(3, 5, 0.914, 7))
	assert.Equal(t, "not played for 7 days; 91 % of its notes were right on average in its last 5 takes", i.Why)
	i, _ = of(piece(3, 0, 0, 0))
	assert.Equal(t, []any{"it was never played with the band", true}, []any{i.Why, i.New})
	never := piece(3, 0, 0, 0)
	never.Exercise = true
	i, _ = of(never)
	assert.Equal(t, "an exercise that was never played", i.Why)
	_, ok := of()
	assert.False(t, ok)
	// What was swapped away does not come again.
	for _, i := range m.Plan(planner.Order{In: neck.Standard(), Hand: neck.UsualHand, Minutes: 60, Pieces: []planner.Written{piece(3, 5, 0.5, 1)}, Without: []string{"line 3"}}, counted(), monday) {
		assert.NotEqual(t, planner.Piece, i.Kind)
	}
}

// A change is planned where it was tried three times and met less than four times of five.
func TestWhichChangeIsPlanned(t *testing.T) {
	m := planner.New(planner.Fitted)
	of := func(all []planner.Trial) (found []string) {
		for _, i := range m.Plan(planner.Order{In: neck.Standard(), Hand: neck.UsualHand, Minutes: 30, Tunes: []planner.Tune{{ID: 1, Title: "Slipway", Tempo: 100}}}, counted(all...), monday) {
			if strings.HasPrefix(i.ID, "change ") {
				found = append(found, i.Title+": "+i.Why)
			}
		}
		return found
	}
	change := planner.Trial{Ask: third(0, 1), Chart: 1, From: "C7", Chord: "F7"}
	assert.Equal(t, []string{"Slipway: the change from C7 to F7: it was met 1 times of 3"}, of(trials(3, change, 1, 0, 0)))
	assert.Empty(t, of(trials(2, change, 0)), "too few tries")
	assert.Empty(t, of(trials(5, change, 1, 1, 1, 1, 0)), "safe")
	assert.Len(t, of(trials(4, change, 1, 1, 1, 0)), 1)
	other := change
	other.Chart = 2
	assert.Empty(t, of(trials(5, other, 0)), "another tune's")
}

// What a teacher asks for is planned until it is reached, and says how far it is; minutes come by themselves.
func TestWhatATeacherAsksForIsPlanned(t *testing.T) {
	m := planner.New(planner.Fitted)
	set := func(a planner.Aim, p planner.Progress) planner.Item {
		i, ok := m.Set(a, p, "aim 1", "so much of it", "Bo", monday)
		require.True(t, ok)
		assert.Equal(t, []any{"aim 1", "so much of it", "the aim is reached", a.Tempo}, []any{i.ID, i.Title, i.Done, i.Tempo})
		return i
	}
	changes := planner.Aim{Kind: "changes", Chart: 4, Tempo: 90, Times: 3}
	assert.Equal(t, "Bo asks for it; it was not tried yet", set(changes, planner.Progress{}).Why)
	assert.Equal(t, "Bo asks for it; 2 in a row so far", set(changes, planner.Progress{Tries: 5, Row: 2, Best: 0.9}).Why)
	assert.Equal(t, "Bo asks for it; the best of 5 tries was 67 %", set(changes, planner.Progress{Tries: 5, Best: 0.666}).Why)
	once := changes
	once.Times = 1
	assert.Equal(t, "Bo asks for it; the best of 5 tries was 50 %", set(once, planner.Progress{Tries: 5, Row: 1, Best: 0.5}).Why)
	i := set(changes, planner.Progress{})
	assert.Equal(t, []any{planner.Changes, uint(4), "land"}, []any{i.Kind, i.Chart, i.Mode})
	changes.Mode = "thirds"
	assert.Equal(t, "thirds", set(changes, planner.Progress{}).Mode)
	i = set(planner.Aim{Kind: "line", Line: 7}, planner.Progress{})
	assert.Equal(t, []any{planner.Piece, uint(7)}, []any{i.Kind, i.Line})
	i = set(planner.Aim{Kind: "calls", Key: 5, Degree: "seventh"}, planner.Progress{})
	assert.Equal(t, []any{planner.Calls, 5, "seventh"}, []any{i.Kind, i.Ask.Key, i.Ask.Degree})
	_, ok := m.Set(changes, planner.Progress{Reached: true}, "", "", "", monday)
	assert.False(t, ok)
	_, ok = m.Set(planner.Aim{Kind: "minutes", Times: 30}, planner.Progress{}, "", "", "", monday)
	assert.False(t, ok)
}

func TestAimsInWords(t *testing.T) {
	for want, a := range map[string]planner.Aim{
		"Slipway: 100 % of the changes met":                          {Kind: "changes", Times: 1},
		"Slipway, thirds: 67 % of the changes met at 90 or faster":   {Kind: "changes", Mode: "x", Part: 0.666, Tempo: 90},
		"Slipway: 90 % of the notes right, 2 times in a row":         {Kind: "line", Part: 0.9, Times: 2},
		"calls in E♭ from the third right at once, 8 times in a row": {Kind: "calls", Key: 3, Degree: "third", Times: 8},
		"calls in C right at once":                                   {Kind: "calls", Part: 0.5},
		"30 minutes played":                                          {Kind: "minutes", Times: 30},
	} {
		mode := ""
		if a.Mode != "" {
			mode = "thirds"
		}
		assert.Equal(t, want, a.Says("Slipway", mode))
	}
}

// A trial that cannot be is said to be none.
func TestTrialsThatCannotBe(t *testing.T) {
	good := planner.Trial{Ask: third(11, 4), Success: 1}
	assert.NoError(t, good.Check())
	good.Position, good.Success = -1, 0
	assert.NoError(t, good.Check())
	for _, bad := range []func(*planner.Trial){
		func(t *planner.Trial) { t.Key = 12 }, func(t *planner.Trial) { t.Key = -1 }, func(t *planner.Trial) { t.Position = 5 }, func(t *planner.Trial) { t.Position = -2 },
		func(t *planner.Trial) { t.Success = 1.01 }, func(t *planner.Trial) { t.Success = -0.01 }, func(t *planner.Trial) { t.String = -1 }, func(t *planner.Trial) { t.Bar = -1 }, func(t *planner.Trial) { t.Tempo = -1 },
	} {
		x := good
		bad(&x)
		assert.Error(t, x.Check())
	}
}

// A warm-up begins where frets are narrow: within the reach of the hand, in every key and for every hand; where no position
// is, in the highest.
func TestAWarmUpIsWithinReach(t *testing.T) {
	seen, beyond := 0, 0
	for _, tuning := range neck.Tunings {
		in, err := neck.New(tuning.Open, tuning.Frets, tuning.Scale, 0)
		require.NoError(t, err)
		for key := range 12 {
			for _, comfort := range []float64{60, 80, 100, 130} {
				m := planner.New(planner.Fitted)
				items := m.Plan(planner.Order{In: in, Hand: neck.Hand{Comfort: comfort}, Minutes: 30, Tunes: []planner.Tune{{ID: 1, Title: "Slipway", Key: key, Tempo: 100}}}, counted(), monday)
				require.Equal(t, planner.WarmUp, items[0].Kind)
				p := items[0].Where
				require.Positive(t, p.Number)
				seen++
				if math.Round(in.Reach(p.Low, p.High)) > comfort {
					beyond++
					all := in.Positions(key)
					require.Equal(t, all[len(all)-1], p, "the highest, where none is narrow enough")
					require.NotContains(t, items[0].Why, "no fret is beyond your reach")
					continue
				}
				require.Contains(t, items[0].Why, p.Says()+", where no fret is beyond your reach")
			}
		}
	}
	t.Log(seen, "warm-ups,", beyond, "for hands that no position suits")
}

// A lick that was known comes again, over a chart in another key than the last, some days after it was played, each time that it went well
// twice as many; one that never went well, or was never played, comes by chance alone.
func TestWhatWasKnownComesAgain(t *testing.T) {
	tunes := []planner.Tune{{ID: 1, Title: "Slipway", Key: 0, Tempo: 90, Qualities: []string{"7"}}, {ID: 2, Title: "Low Water", Key: 9, Tempo: 70, Qualities: []string{"7"}}, {ID: 3, Title: "Eight Bells", Key: 0, Tempo: 80, Qualities: []string{"7"}}}
	rapid.Check(t, func(t *rapid.T) {
		takes, days := rapid.IntRange(1, 5).Draw(t, "takes"), rapid.IntRange(0, 90).Draw(t, "days")
		good := rapid.Bool().Draw(t, "good")
		over := rapid.SampledFrom([]uint{1, 2, 3, 9}).Draw(t, "over")
		x := planner.NewPicture(planner.Fitted)
		for i := range takes {
			at := monday.AddDate(0, 0, -days-10*(takes-1-i))
			success := 0.
			if good {
				success = 1
			}
			x.Add(planner.Played{Entry: uint(i + 1), At: at, Chart: over, Lick: 7, Trials: []planner.Trial{{Ask: third(0, 1), At: at, From: "C7", Chord: "F7", Success: success, Met: "on time"}}})
		}
		w := planner.Written{ID: 7, Title: "Ebb"}
		w.Count, w.Over = x.Lick(7)
		o := planner.Order{In: neck.Standard(), Hand: neck.UsualHand, Minutes: 20, Tunes: tunes, Licks: []planner.Written{{ID: 5, Title: "Never"}, w}, Seed: rapid.Uint64().Draw(t, "seed")}
		plan := x.Model.Plan(o, x.Tally, monday)
		end := plan[len(plan)-1]
		due := good && float64(days) >= 4*math.Exp2(float64(min(4, takes-1)))
		comes := end.Lick == 7 && strings.Contains(end.Why, "it was known")
		assert.Equal(t, due, comes, "%s: %s", end.Title, end.Why)
		if due {
			assert.Contains(t, end.Why, fmt.Sprintf("not played for %d days", days))
			if over == 1 || over == 3 {
				assert.Equal(t, uint(2), end.Chart, "in another key")
			} else {
				assert.NotEqual(t, over, end.Chart)
			}
		}
		kept, err := json.Marshal(x)
		assert.NoError(t, err)
		again, err := planner.ReadPicture(kept, planner.Fitted)
		assert.NoError(t, err)
		c, chart := again.Lick(7)
		assert.Equal(t, []any{w.Count, w.Over}, []any{c, chart})
	})
}
