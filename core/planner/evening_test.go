package planner_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/planner"
)

var roots = []string{"C7", "F7", "G7", "A7", "D7", "E7", "B7"}

// tune is one of so many changes, in bars of four beats.
func tune(id uint, changes, bars, tempo int) planner.Tune {
	t := planner.Tune{ID: id, Title: fmt.Sprintf("Tune %d", id), Key: int(id) % 12, Tempo: tempo, Beats: 4 * bars, Qualities: []string{"7"}}
	for i := range changes {
		t.Changes = append(t.Changes, [2]string{roots[i%7], roots[(i+1+i/7)%7]})
		t.Arrives = append(t.Arrives, []int{1 + i%bars})
	}
	return t
}

// tried notes that the changes of an item were tried, and how.
func tried(into *[]planner.Trial, t planner.Tune, change [2]string, times int, success func() float64, day int) {
	for _, c := range t.Changes {
		if change == [2]string{} || change == c {
			for range times {
				*into = append(*into, planner.Trial{Chart: t.ID, From: c[0], Chord: c[1], Success: success(), At: monday.AddDate(0, 0, day), Entry: uint(len(*into) + 1)})
			}
		}
	}
}

func minutesOf(items []planner.Item, kinds func(planner.Item) bool) (n int) {
	for _, i := range items {
		if kinds(i) {
			n += i.Minutes
		}
	}
	return n
}

// An evening that comes has four fifths of every plan, whatever a teacher asks for beside it; before the day every change is tried, as far as
// the minutes go; on the day everything is played through, and nothing else.
func TestPlansTowardAnEvening(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		days, minutes := rapid.IntRange(0, 6).Draw(t, "days"), rapid.SampledFrom([]int{5, 10, 20, 30, 45, 60}).Draw(t, "minutes")
		o := planner.Order{In: neck.Standard(), Hand: neck.UsualHand, Minutes: minutes}
		for id := range rapid.IntRange(1, 5).Draw(t, "tunes") {
			c := tune(uint(id+1), rapid.IntRange(0, 8).Draw(t, "changes"), rapid.SampledFrom([]int{8, 12, 16, 24}).Draw(t, "bars"), rapid.IntRange(40, 220).Draw(t, "tempo"))
			c.By = monday.AddDate(0, 0, days)
			o.Tunes = append(o.Tunes, c)
		}
		aims := rapid.Bool().Draw(t, "a teacher asks")
		if aims {
			o.Set = []planner.Item{{ID: "aim 1", Kind: planner.Piece, Line: 7, Title: "a line", Minutes: 3}, {ID: "aim 2", Kind: planner.Changes, Chart: 99, Title: "another chart", Minutes: 3}}
		}
		rng := rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "seed"), 1))
		success := func() float64 { return float64(rng.IntN(2)) }
		var log []planner.Trial
		m := planner.New(planner.Fitted)
		wholes, longestWhole, room := 0, 0, 0
		for day := range days + 1 {
			at := monday.AddDate(0, 0, day)
			items := m.Plan(o, counted(log...), at)
			require.Equal(t, minutes, minutesOf(items, func(planner.Item) bool { return true }), "all of it")
			ids := map[string]bool{}
			for _, i := range items {
				require.Positive(t, i.Minutes, i.Title)
				require.False(t, ids[i.ID], "%s comes once", i.ID)
				ids[i.ID] = true
			}
			evening := func(i planner.Item) bool {
				return slices.ContainsFunc(o.Tunes, func(t planner.Tune) bool { return t.ID == i.Chart })
			}
			rest := func(i planner.Item) bool { return i.Kind == planner.Rest }
			own := minutesOf(items, evening)
			require.GreaterOrEqual(t, float64(own), 0.8*float64(minutes))
			if day == days {
				for _, i := range items {
					require.True(t, rest(i) || evening(i) && i.Kind == planner.Music, "on the day: %s", i.Title)
				}
				break
			}
			if others := minutes - own - minutesOf(items, rest); aims && minutes >= 20 {
				require.GreaterOrEqual(t, others, 2, "the rest is the teacher's")
			}
			// What was hardly tried is, from the first evening on.
			if day == 0 {
				room = minutes
				for _, c := range o.Tunes {
					if tempo := max(form.MinTempo, c.Tempo*3/4); len(c.Changes) > 0 {
						n := max(2, min(10, (3*c.Beats+tempo-1)/tempo+1))
						wholes, longestWhole = wholes+n, max(longestWhole, n)
					}
				}
			}
			room = min(room, own-minutesOf(items, func(i planner.Item) bool { return i.Kind == planner.WarmUp })-items[len(items)-1].Minutes)
			for _, c := range o.Tunes { // as often as there is time for
				whole, tempo := 0, 1
				for _, i := range items {
					switch {
					case i.Chart != c.ID || i.Kind != planner.Changes:
					case i.Change == [2]string{}:
						whole, tempo = whole+i.Minutes, i.Tempo
					default:
						tried(&log, c, i.Change, 4, success, day)
					}
				}
				tried(&log, c, [2]string{}, whole*tempo/c.Beats, success, day)
			}
		}
		if days == 0 || room < longestWhole || days*(room-longestWhole) < wholes+len(o.Tunes)*longestWhole && room < wholes {
			return // there is no time for all of them
		}
		for _, r := range planner.Evening(o.Tunes, counted(log...)) {
			require.Empty(t, r.Untried, "%s was not tried before the day", r.Tune.Title)
		}
	})
}

// The weakest comes first, chart by chart; what is safe is left, and said by its bars.
func TestTheWeakestComesFirst(t *testing.T) {
	a, b, vamp := tune(1, 4, 12, 96), tune(2, 4, 12, 96), tune(3, 0, 4, 96)
	o := planner.Order{In: neck.Standard(), Hand: neck.UsualHand, Minutes: 30, Tunes: []planner.Tune{a, b, vamp}}
	for i := range o.Tunes {
		o.Tunes[i].By = monday.AddDate(0, 0, 3)
	}
	var log []planner.Trial
	part := func(p float64) func() float64 {
		n := 0
		return func() float64 { n++; return float64(int(float64(n)*p+1e-9) - int(float64(n-1)*p+1e-9)) }
	}
	tried(&log, a, a.Changes[0], 10, part(1), 0)
	tried(&log, a, a.Changes[1], 10, part(0.5), 0)
	tried(&log, a, a.Changes[2], 10, part(0.9), 0)
	tried(&log, a, a.Changes[3], 10, part(1), 0)
	for i, p := range []float64{0.2, 0.6, 0, 0.4} {
		tried(&log, b, b.Changes[i], 10, part(p), 0)
	}
	var order []string
	for _, i := range planner.New(planner.Fitted).Plan(o, counted(log...), monday) {
		if i.Kind == planner.Changes {
			order = append(order, fmt.Sprintf("%d%v", i.Chart, i.Change))
			assert.Contains(t, i.Why, "in 3 days")
		}
	}
	assert.Equal(t, []string{"2[G7 A7]", "2[C7 F7]", "2[A7 D7]", "2[F7 G7]", "1[F7 G7]"}, order)
	r := planner.Evening(o.Tunes, counted(log...))
	assert.Equal(t, []int{1, 3, 4}, r[0].Bars)
	assert.Equal(t, []int{2}, r[0].Open)
	assert.Equal(t, []int{1, 2, 3, 4}, r[1].Open)
	// A day that has passed presses no more.
	later := planner.New(planner.Fitted).Plan(o, counted(log...), monday.AddDate(0, 0, 4))
	assert.NotContains(t, fmt.Sprint(later), "the evening is")
}

// Learners of two kinds, who are not those that the plan knows: one learns from every try alike, one from what went well alone, and
// both lose some overnight. With the date more changes are safe at the evening than without it.
func TestMoreIsSafeAtTheEvening(t *testing.T) {
	kinds := map[string]func(p, went float64) float64{
		"from every try":      func(p, _ float64) float64 { return p + 0.012*(1-p) },
		"from what went well": func(p, went float64) float64 { return p + 0.02*went*(1-p) },
	}
	const learners, days, minutes = 60, 5, 20
	for name, learn := range kinds {
		var gain []float64
		for seed := range uint64(learners) {
			safe := map[bool]int{}
			for _, dated := range []bool{true, false} {
				rng := rand.New(rand.NewPCG(seed, 7))
				o := planner.Order{In: neck.Standard(), Hand: neck.UsualHand, Minutes: minutes, Seed: seed}
				p := map[string]float64{}
				for id := range uint(3) {
					c := tune(id+1, 4+rng.IntN(3), 12, 80+10*rng.IntN(6))
					if dated {
						c.By = monday.AddDate(0, 0, days)
					}
					for _, ch := range c.Changes {
						p[fmt.Sprint(c.ID, ch)] = 0.15 + 0.5*rng.Float64()
					}
					o.Tunes = append(o.Tunes, c)
				}
				var log []planner.Trial
				for day := range days {
					for _, i := range planner.New(planner.Fitted).Plan(o, counted(log...), monday.AddDate(0, 0, day)) {
						at := slices.IndexFunc(o.Tunes, func(t planner.Tune) bool { return t.ID == i.Chart })
						if at < 0 || i.Kind == planner.Calls {
							continue
						}
						c := o.Tunes[at]
						beats, tempo := c.Beats, max(i.Tempo, 40)
						if i.Tempo == 0 {
							tempo = c.Tempo
						}
						if i.Change != [2]string{} {
							beats = 8
						}
						for range i.Minutes * tempo / beats {
							for _, ch := range c.Changes {
								if i.Change != [2]string{} && i.Change != ch {
									continue
								}
								k := fmt.Sprint(c.ID, ch)
								went := 0.0
								if rng.Float64() < p[k] {
									went = 1
								}
								tried(&log, c, ch, 1, func() float64 { return went }, day)
								p[k] = learn(p[k], went)
							}
						}
					}
					for k := range p {
						p[k] -= 0.08 * (p[k] - 0.15)
					}
				}
				for _, now := range p {
					if now >= 0.8 {
						safe[dated]++
					}
				}
			}
			gain = append(gain, float64(safe[true]-safe[false]))
		}
		mean, square := 0.0, 0.0
		for _, g := range gain {
			mean += g / learners
		}
		for _, g := range gain {
			square += (g - mean) * (g - mean) / (learners - 1)
		}
		half := 1.96 * math.Sqrt(square/learners)
		t.Logf("%s: %.2f ± %.2f more changes are safe", name, mean, half)
		assert.Greater(t, mean-half, 0., name)
	}
}
