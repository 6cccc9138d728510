package planner

import (
	"cmp"
	"fmt"
	"slices"
	"time"

	"undaris/core/form"
	"undaris/core/say"
)

// Readiness is how far a tune is for an evening: which of its changes are safe, and so
// can be left, which are not yet, and which were never tried.
type Readiness struct {
	Tune    Tune
	Safe    int
	Weak    []Weak // the weakest first
	Untried [][2]string
	// Bars are those in which safe changes come, and Open those of the others, in order.
	Bars, Open []int
}

// Weak is a change that is not safe yet.
type Weak struct {
	From, To string
	Count
}

// A change is safe when it was met four times of five at least, and tried three times.
const (
	safeFrom  = 0.8
	safeAfter = 3
)

// Evening looks at the changes of tunes, as far as they were counted.
func Evening(tunes []Tune, counted *Tally) (list []Readiness) {
	for _, tune := range tunes {
		r := Readiness{Tune: tune}
		for i, c := range tune.Changes {
			into := &r.Open
			n := counted.changes[change{tune.ID, c[0], c[1]}]
			switch {
			case n == nil || n.Trials < safeAfter:
				r.Untried = append(r.Untried, c)
			case n.Share() < safeFrom:
				r.Weak = append(r.Weak, Weak{c[0], c[1], n.Count})
			default:
				r.Safe++
				into = &r.Bars
			}
			if i < len(tune.Arrives) {
				*into = append(*into, tune.Arrives[i]...)
			}
		}
		slices.SortStableFunc(r.Weak, func(a, b Weak) int {
			return cmp.Compare(a.Share(), b.Share())
		})
		slices.Sort(r.Bars)
		slices.Sort(r.Open)
		list = append(list, r)
	}
	return list
}

// coming are the tunes of an evening that is not over, and in how many days it is.
func (o Order) coming(at time.Time) (tunes []Tune, days int) {
	for _, t := range o.Tunes {
		left := Day(t.By) - Day(at)
		if t.By.IsZero() || left < 0 {
			continue
		}
		if len(tunes) == 0 || left < days {
			tunes, days = nil, left
		}
		if left == days {
			tunes = append(tunes, t)
		}
	}
	return tunes, days
}

// Tells says what of a plan is for an evening; "" where no day was given.
func (o Order) Tells(plan []Item, at time.Time) string {
	tunes, days := o.coming(at)
	if len(tunes) == 0 {
		if slices.ContainsFunc(o.Tunes, func(t Tune) bool { return !t.By.IsZero() }) {
			return "that day has passed, so this is planned as on any other"
		}
		return ""
	}
	if days == 0 {
		return "it is today: everything is played through, and nothing new is begun"
	}
	own, all := 0, 0
	for _, i := range plan {
		if all += i.Minutes; slices.ContainsFunc(tunes, func(t Tune) bool { return t.ID == i.Chart }) {
			own += i.Minutes
		}
	}
	text := say.F("%d of %d minutes are for the evening %s", own, all, inDays(days))
	if len(o.Set) > 0 && own < all {
		text += "; the others are for what your teacher asks for"
	}
	if !slices.ContainsFunc(tunes, func(t Tune) bool { return len(t.Changes) > 0 }) {
		text += "; there is no change in it, so it is played through"
	}
	return text
}

// toward is a plan for an evening: chart by chart, the weakest first, what was hardly tried as a whole and what is weak by itself. On its
// day everything is played through, and nothing else.
func (m *Model) toward(o Order, tunes []Tune, days int, counted *Tally, at time.Time) []Item {
	minutes := max(MinMinutes, min(MaxMinutes, o.Minutes))
	open := slices.DeleteFunc(Evening(tunes, counted), func(r Readiness) bool { return slices.Contains(o.Without, fmt.Sprintf("through %d", r.Tune.ID)) })
	if len(open) == 0 {
		open = Evening(tunes, counted)
	}
	slices.SortStableFunc(open, func(a, b Readiness) int { return cmp.Compare(a.safe(), b.safe()) })
	rests := minutes / (restAfter + resting + 1)
	if days == 0 {
		items, unused := rested(parted(throughs(open, minutes-rests*resting, days)), rests)
		items[len(items)-1].Minutes += unused * resting
		return items
	}
	played := minutes - rests*resting
	end := through(open[0].Tune, max(2, min(5, played/4)), days)
	left := played - end.Minutes
	var items, others []Item
	// An evening has four fifths; the rest is a teacher's, or is for what is due.
	fifth := minutes - rests*resting - (minutes*4+4)/5
	for _, i := range o.Set {
		if i.Minutes = min(i.Minutes, fifth); i.Minutes >= 2 && !slices.Contains(o.Without, i.ID) {
			others = append(others, i)
			fifth -= i.Minutes
			left -= i.Minutes
		}
	}
	if len(others) == 0 && fifth >= 2 {
		if asks, _ := m.due(o, counted, Mixed, at, o.Seed+uint64(at.YearDay()), false); len(asks) > 0 && counted.Trials > 0 {
			item := m.calls(o.In, asks, counted, at)
			item.Minutes = min(fifth, block)
			others = append(others, item)
			left -= item.Minutes
		}
	}
	if left >= 6 {
		w := o.warmUp(warmUps[0], open[0].Tune)
		items = append(items, w)
		left -= w.Minutes
	}
	// Every change is tried before one is practised by itself; of what does not fit, most comes tomorrow.
	var own [][]Item
	use := func(k int, i Item) {
		if left >= i.Minutes && !slices.Contains(o.Without, i.ID) {
			own[k] = append(own[k], i)
			left -= i.Minutes
		}
	}
	own = make([][]Item, len(open))
	untried := slices.SortedStableFunc(slices.Values(upTo(len(open))), func(a, b int) int { return cmp.Compare(len(open[b].Untried), len(open[a].Untried)) })
	for _, k := range untried {
		if len(open[k].Untried) > 0 {
			i := open[k].whole(days)
			if once := (open[k].Tune.Beats + i.Tempo - 1) / i.Tempo; left >= max(2, once) { // what is begun today is gone on with tomorrow
				i.Minutes = min(i.Minutes, left)
			}
			use(k, i)
		}
	}
	for k, r := range open {
		for _, w := range r.Weak {
			i := r.Tune.change(w.From, w.To, w.Count)
			i.Minutes, i.Why = 2, say.F("%s; the evening is %s", i.Why, inDays(days))
			use(k, i)
		}
	}
	for k, r := range open {
		if len(own[k]) == 0 && k > 0 { // the first ends the plan
			use(k, through(r.Tune, 2, days))
		}
	}
	for _, list := range own {
		items = append(items, list...)
	}
	// Where little is left to learn, its tunes are played in other ways, so that nothing goes on for ever.
	for _, e := range endings {
		for _, r := range open {
			if left <= shortest*len(items) || e.takes != "" || e.mode == "melody" {
				break
			}
			i := Item{ID: fmt.Sprintf("evening %s %d", e.mode, r.Tune.ID), Kind: Music, Chart: r.Tune.ID, Mode: e.mode, Minutes: 2, Title: say.F("%s: %s", r.Tune.Title, e.title), Why: say.F("the evening is %s; %s", inDays(days), e.why), Done: e.done}
			if !slices.Contains(o.Without, i.ID) {
				items = append(items, i)
				left -= i.Minutes
			}
		}
	}
	for i := 0; left > 0 && i < MaxMinutes*len(items); i++ {
		if k := &items[i%len(items)]; k.Kind == Changes || k.Kind == Music {
			k.Minutes++
			left--
		}
	}
	items, unused := rested(parted(append(items, others...)), rests)
	end.Minutes += left + unused*resting
	return append(items, end)
}

// shortest is how many minutes more each item is given at most, before there are others.
const shortest = 3

func upTo(n int) (list []int) {
	for i := range n {
		list = append(list, i)
	}
	return list
}

// safe is which part of its changes is safe; all of them where there are none.
func (r Readiness) safe() float64 {
	n := len(r.Tune.Changes)
	if n == 0 {
		return 1
	}
	return float64(r.Safe) / float64(n)
}

// whole is an item that tries every change of a tune, as often as it takes to tell how it is met.
func (r Readiness) whole(days int) Item {
	t := r.Tune
	tempo := max(form.MinTempo, t.Tempo*3/4)
	passes := (safeAfter*t.Beats + tempo - 1) / tempo // minutes
	return Item{ID: fmt.Sprintf("whole %d", t.ID), Kind: Changes, Chart: t.ID, Mode: "land", Tempo: tempo, Minutes: max(2, min(longest, passes+1)),
		Title: say.F("%s: every change of it", t.Title), Why: say.F("%d of its %d changes were hardly tried; the evening is %s", len(r.Untried), len(t.Changes), inDays(days)), Done: "three choruses in which every change was tried"}
}

// through is a tune as it is played on the evening.
func through(t Tune, minutes, days int) Item {
	return Item{ID: fmt.Sprintf("through %d", t.ID), Kind: Music, Chart: t.ID, Mode: "land", Tempo: t.Tempo, Minutes: minutes,
		Title: say.F("%s: through, as on the evening", t.Title), Why: say.F("the evening is %s", inDays(days)), Done: "once from the top to the end, whatever happens"}
}

// throughs are so many minutes of tunes that are played through, the first of them longer where they do not come out even.
func throughs(open []Readiness, minutes, days int) (items []Item) {
	n := min(len(open), minutes)
	for k, r := range open[:n] {
		items = append(items, through(r.Tune, minutes/n+min(1, max(0, minutes%n-k)), days))
	}
	return items
}

func inDays(days int) string {
	switch days {
	case 0:
		return "today"
	case 1:
		return "tomorrow"
	}
	return say.F("in %d days", days)
}
