package planner

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"math/rand/v2"
	"slices"
	"time"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
)

// Item is a part of a plan.
type Item struct {
	ID      string // the same thing has the same one
	Kind    string // one of those below
	Title   string
	Why     string // in a sentence, with its evidence
	Done    string // how to know that it is done
	Minutes int
	Ask     Ask           // of calls: the first of
	Asks    []Ask         // what comes in turn
	Where   neck.Position // of calls and the warm-up; none where the neck has none, or anywhere will do
	Chart   uint          // of changes and music
	Line    uint          // that is played, or found by ear
	Lick    uint          // of a mode that takes one
	Mode    string        // an ID of practice.Modes
	Change  [2]string     // of changes: that one alone goes round; none where it is the whole form
	New     bool          // it was never practised before
	Tempo   int           // beats a minute to begin at; 0 where that is the chart's
}

// The kinds of items.
const (
	WarmUp  = "warm-up"
	Calls   = "calls"
	Changes = "changes"
	Rest    = "rest"
	Piece   = "line" // a line or an exercise, as it is written
	Music   = "music"
)

// Tune is a chart that may be planned for.
type Tune struct {
	ID    uint
	Title string
	Key   int // pitch class of its tonic
	Tempo int
	// Qualities are the kinds of its chords, as symbols without their roots, in the order in which they come.
	Qualities []string
	// By is when it must be safe; zero where nothing presses.
	By time.Time
	// Changes are those of its chart, each once: from one chord to another.
	Changes [][2]string
	// Arrives are the bars that each of them comes in, from 1; there may be none.
	Arrives [][]int
	// Beats is how long its form is.
	Beats int
}

// Written is a line, an exercise or a lick, with how it went so far.
type Written struct {
	ID       uint
	Title    string
	Exercise bool
	Tempo    int
	Count
	Over uint // of a lick: the chart it was played over last
}

// Order is what a plan is asked for.
type Order struct {
	Minutes int // 5 to 60
	In      *neck.Instrument
	Hand    neck.Hand
	Tunes   []Tune
	Pieces  []Written
	Licks   []Written
	Set     []Item   // what a teacher asks for, and is not reached yet
	Without []string // IDs of items that were swapped away
	Seed    uint64
}

// Limits of a plan, in minutes. Resting every 20 to 25 minutes is usual advice to
// players of instruments.
const (
	MinMinutes, MaxMinutes = 5, 60
	restAfter              = 22
	resting                = 2
	block                  = 3
)

type warmUp struct{ id, title, done string }

// warmUps begin a plan: nothing new, nothing fast.
var warmUps = []warmUp{
	{"land", "Land on chord tones, slowly", "a chorus in which most changes are met"},
	{"tones", "Nothing but chord tones", "a chorus with hardly a note beside the chord"},
}

// ending is how a plan may end.
type ending struct {
	mode, title, why, done string
	takes                  string // what it needs beside a chart: a lick or a line
}

var endings = []ending{
	{"thirds", "A chorus with one aim: thirds", "what was practised in pieces is to be music in the end", "one chorus, played to its end, whatever happens", ""},
	{"fours", "Trade fours with the band", "to play by ear what was practised by eye", "four bars given back as they came", ""},
	{"land", "A chorus of your own", "the changes are there for this", "a chorus that you would keep; one key keeps it", ""},
	{"melody", "Write a melody", "what is written slowly is played freely later", "eight bars that can be sung, each change landed", ""},
	{"tune", "A tune to learn by ear", "the ear finds what the eye does not", "its first four bars given back as they came", "line"},
	{"lick", "One lick through the changes", "a lick is known when it lands on every chord", "a chorus of it without a stop", "lick"},
}

// Plan makes what to practise today: the due and the weak with the most to gain, one
// new thing at most, keys and positions in turn, a rest where it is long, and music
// in the end.
func (m *Model) Plan(o Order, counted *Tally, at time.Time) []Item {
	rng := rand.New(rand.NewPCG(o.Seed+uint64(at.YearDay()), 53))
	if tunes, days := o.coming(at); len(tunes) > 0 {
		return m.toward(o, tunes, days, counted, at)
	}
	var items []Item
	left := max(MinMinutes, min(MaxMinutes, o.Minutes))
	use := func(i Item) {
		if left >= i.Minutes && !slices.Contains(o.Without, i.ID) {
			items = append(items, i)
			left -= i.Minutes
		}
	}
	// What ends it is set aside first.
	end := music(o, at, rng)
	end.Minutes = max(2, min(5, left/4))
	rests := left / (restAfter + resting + 1)
	left -= end.Minutes + rests*resting
	if left >= 6 && len(o.Tunes) > 0 {
		use(o.warmUp(warmUps[rng.IntN(len(warmUps))], o.Tunes[rng.IntN(len(o.Tunes))]))
	}
	// What a teacher asks for has half of the time at most.
	for half, i := left/2, 0; i < len(o.Set) && left-block >= half; i++ {
		use(o.Set[i])
	}
	if c, ok := weakest(o.Tunes, counted); ok && left >= 2*block {
		use(c)
	}
	if i, ok := written(o, at); ok && left >= 4*block {
		use(i)
	}
	isNew := slices.ContainsFunc(items, func(i Item) bool { return i.New })
	asks, next := m.due(o, counted, (left/block+1+len(o.Without))*Mixed, at, o.Seed+uint64(at.YearDay()), !isNew)
	asks = slices.DeleteFunc(asks, func(a Ask) bool { return slices.Contains(o.Without, callsID(a)) })
	call := func(asks []Ask) {
		item := m.calls(o.In, asks, counted, at)
		item.Minutes = min(left, block)
		use(item)
	}
	if next != nil && left >= 2 {
		call([]Ask{*next})
	}
	mixed := Mixed
	if counted.Trials == 0 {
		mixed = 1
	}
	for i := 0; i < len(asks) && left >= 2; i += mixed {
		call(asks[i:min(len(asks), i+mixed)])
	}
	// Who knows little yet plays tunes that were hardly played.
	for _, c := range begun(o.Tunes, counted) {
		if left < 2 {
			break
		}
		c.Minutes = min(left, block)
		use(c)
	}
	// What is left over is given to what is there, so that little is practised longer.
	for i := 0; left > 0 && i < MaxMinutes*len(items); i++ {
		if k := &items[i%len(items)]; k.Kind == Calls || k.Kind == Changes || k.Kind == Piece {
			k.Minutes++
			left--
		}
	}
	items, unused := rested(parted(items), rests)
	end.Minutes += left + unused*resting
	return append(items, end)
}

// warmUp begins slowly over a tune, where the hand stretches least. One that asks for changes is not over a chart that has none.
func (o Order) warmUp(w warmUp, tune Tune) Item {
	if len(tune.Changes) == 0 && tune.Beats > 0 {
		w = warmUps[1]
	}
	item := Item{ID: "warm-up " + w.id, Kind: WarmUp, Title: w.title, Done: w.done, Minutes: 2, Chart: tune.ID, Mode: w.id, Tempo: max(form.MinTempo, tune.Tempo*4/5)}
	item.Why = say.F("the hands first: %s, %d beats a minute or slower", tune.Title, item.Tempo)
	if p, ok := o.In.Narrow(tune.Key, o.Hand); ok {
		item.Where = p
		item.Why += ", at " + p.Says()
		if math.Round(o.In.Reach(p.Low, p.High)) <= o.Hand.Comfort {
			item.Why += ", where no fret is beyond your reach"
		}
	}
	return item
}

// longest is how many minutes an item has at most; what is longer comes again.
const longest = 10

// parted cuts items that are too long to stay with, as there are where little is known yet.
func parted(items []Item) (out []Item) {
	for _, i := range items {
		n := (i.Minutes + longest - 1) / longest
		for k := range n {
			part := i
			part.Minutes = i.Minutes*(k+1)/n - i.Minutes*k/n
			if k > 0 {
				part.ID, part.Title, part.New = fmt.Sprintf("%s again %d", i.ID, k), say.F("%s, again", i.Title), false
			}
			out = append(out, part)
		}
	}
	return out
}

// rested puts rests between items, where enough was played since the last; unused are
// those for which there was no need.
func rested(items []Item, rests int) (out []Item, unused int) {
	since := 0
	for _, i := range items {
		if rests > 0 && since > 0 && since+i.Minutes > restAfter {
			out = append(out, Item{ID: fmt.Sprintf("rest %d", len(out)), Kind: Rest, Title: "Rest", Why: say.F("%d minutes were played: hands and ears need it", since), Done: "two minutes without the instrument", Minutes: resting})
			rests--
			since = 0
		}
		out = append(out, i)
		since += i.Minutes
	}
	return out, rests
}

// written is the line or exercise that is due most: what went least well, and what was
// not played for longest. One that was never played comes only where none was.
func written(o Order, at time.Time) (item Item, ok bool) {
	var best *Written
	most := -1.0
	for i := range o.Pieces {
		w := &o.Pieces[i]
		due := 0.0
		if w.Trials > 0 {
			due = 0.5 + 1 - w.Success + min(1, max(0, at.Sub(w.Last).Hours()/24/14))
		}
		if id := pieceID(w.ID); due > most && !slices.Contains(o.Without, id) {
			best, most = w, due
		}
	}
	if best == nil {
		return item, false
	}
	item = Item{ID: pieceID(best.ID), Kind: Piece, Line: best.ID, Title: best.Title, Minutes: block, Tempo: best.Tempo, Done: "three takes in a row without a wrong note", New: best.Trials == 0}
	switch days := int(at.Sub(best.Last).Hours() / 24); {
	case best.Trials == 0 && best.Exercise:
		item.Why = "an exercise that was never played"
	case best.Trials == 0:
		item.Why = "it was never played with the band"
	case days > 6:
		item.Why = say.F("not played for %d days; %s", days, best.went())
	default:
		item.Why = best.went()
	}
	return item, true
}

// went tells how its last takes went.
func (w Written) went() string {
	if w.Trials == 1 {
		return say.F("%d %% of its notes were right in its last take", int(100*w.Success+0.5))
	}
	return say.F("%d %% of its notes were right on average in its last %d takes", int(100*w.Success+0.5), w.Trials)
}

func pieceID(line uint) string { return fmt.Sprintf("line %d", line) }

// calls is an item that asks for tones in a key and a position.
func (m *Model) calls(in *neck.Instrument, asks []Ask, counted *Tally, at time.Time) Item {
	a := asks[0]
	key := form.Key{Tonic: keyNames[a.Key]}
	way := "upward"
	if a.Down {
		way = "downward"
	}
	where := "all positions"
	place, ok := in.Numbered(a.Key, a.Position+1)
	if ok {
		where = place.Says()
	}
	p, _ := m.Predict(a, at)
	item := Item{ID: callsID(a), Kind: Calls, Ask: a, Asks: asks, Where: place,
		Title: say.F("Calls in %s, %s, %s from the %s", key, where, way, a.Degree),
		Done:  "eight calls in a row right at once", Minutes: block}
	// Every number here is a count of the log's own trials: of this very call, in this key and position.
	own := counted.asked(a)
	switch seen := counted.cell(a); {
	case seen == nil:
		item.New = true
		item.Why = say.F("%s at %s was never asked for", key, where)
	case own == nil:
		item.Why = say.F("%s from the %s was never asked for in %s at %s", way, a.Degree, key, where)
	case at.Sub(own.Last) > 14*24*time.Hour:
		item.Why = say.F("not asked for in %d days; on the last %d of %d were right at once", int(at.Sub(own.Last).Hours()/24), own.Then.Right, own.Then.Trials)
	default:
		item.Why = say.F("%d of %d such calls were right at once; the next is likely to be, %d times of ten", own.Right, own.Trials, int(10*p+0.5))
	}
	if len(asks) > 1 {
		item.Title += say.F(", and %d more", len(asks)-1)
		item.Why += "; the others come in turn with it, so that nothing is asked twice in a row"
	}
	return item
}

func callsID(a Ask) string {
	return fmt.Sprintf("calls %d %d %s %t", a.Key, a.Position, a.Degree, a.Down)
}

// begun are tunes whose changes were hardly played: their roots first, then their other tones.
func begun(tunes []Tune, counted *Tally) (items []Item) {
	played := map[uint]int{}
	for k, c := range counted.changes {
		played[k.Chart] += c.Trials
	}
	for _, way := range beginnings {
		for _, t := range tunes {
			if played[t.ID] >= hardly {
				continue
			}
			tempo := max(form.MinTempo, t.Tempo*3/4)
			items = append(items, Item{ID: fmt.Sprintf("begin %d %s", t.ID, way.mode), Kind: Changes, Chart: t.ID, Mode: way.mode, Tempo: tempo, Minutes: block,
				Title: say.F("%s: %s on its changes", t.Title, way.on), Why: say.F("its changes were hardly played; at %d beats a minute there is time for them", tempo), Done: say.F("a chorus with %s on every change", way.each)})
		}
	}
	return items
}

// beginnings are the ways to begin with a tune.
var beginnings = []struct{ mode, on, each string }{{"roots", "roots", "a root"}, {"fifths", "fifths", "a fifth"}, {"land", "any chord tone", "a chord tone"}}

// hardly is beneath how many changes of it that were played a tune was hardly played.
const hardly = 12

// keyNames are the usual names of the twelve keys, by pitch class.
var keyNames = func() (names [12]pitch.Name) {
	for _, k := range form.AllKeys(false) {
		names[k.Tonic.Class()] = k.Tonic
	}
	return names
}()

// KeyName is the usual name of a major key.
func KeyName(class int) pitch.Name { return keyNames[(class%12+12)%12] }

// weakest is the change that is met least, of the tunes that press most.
func weakest(tunes []Tune, counted *Tally) (best Item, ok bool) {
	worst := 0.8 // what is met better is safe
	ordered := slices.SortedStableFunc(slices.Values(tunes), func(a, b Tune) int {
		return cmp.Or(cmp.Compare(pressing(a), pressing(b)), a.By.Compare(b.By))
	})
	for _, t := range ordered {
		inOrder := slices.SortedFunc(maps.Keys(counted.changes), func(a, b change) int {
			return cmp.Or(cmp.Compare(a.From, b.From), cmp.Compare(a.To, b.To))
		})
		for _, k := range inOrder {
			c := counted.changes[k]
			if k.Chart != t.ID || c.Trials < 3 || c.Share() >= worst {
				continue
			}
			worst = c.Share()
			best, ok = t.change(k.From, k.To, c.Count), true
		}
		if ok && !t.By.IsZero() {
			break // what presses comes first
		}
	}
	return best, ok
}

// change is an item of one change of a tune that was tried: it alone goes round.
func (t Tune) change(from, to string, n Count) Item {
	return Item{ID: fmt.Sprintf("change %d %s %s", t.ID, from, to), Kind: Changes, Chart: t.ID, Mode: "land", Minutes: block, Change: [2]string{from, to},
		Title: say.F("%s: the change from %v to %v", t.Title, chord(from), chord(to)),
		Why:   say.F("it was met %d times of %d", n.Right, n.Trials),
		Done:  "met four times in a row"}
}

// chord is a symbol as it was noted, so that it is printed.
func chord(symbol string) any {
	if c, err := harmony.Parse(symbol); err == nil {
		return c
	}
	return symbol
}

func pressing(t Tune) int {
	if t.By.IsZero() {
		return 1
	}
	return 0
}

// music is how a plan ends.
func music(o Order, at time.Time, rng *rand.Rand) Item {
	has := map[string][]Written{"line": o.Pieces, "lick": o.Licks}
	n := rng.IntN(len(endings))
	for tries := 0; tries < len(endings) && (slices.Contains(o.Without, "music "+endings[n].mode) || endings[n].takes != "" && len(has[endings[n].takes]) == 0); tries++ {
		n = (n + 1) % len(endings)
	}
	known := o.fading(at)
	if known != nil {
		n = slices.IndexFunc(endings, func(e ending) bool { return e.takes == "lick" })
	}
	k := endings[n]
	i := Item{ID: "music " + k.mode, Kind: Music, Title: k.title, Why: k.why, Done: k.done, Mode: k.mode}
	if known != nil {
		i.Why = known.fades(at)
	}
	if list := has[k.takes]; len(list) > 0 {
		w := list[rng.IntN(len(list))]
		if known != nil {
			w = *known
		}
		if i.Title = say.F("%s: %s", k.title, w.Title); k.takes == "line" {
			i.Line = w.ID
			return i
		}
		i.Lick = w.ID
	}
	if len(o.Tunes) > 0 {
		tune := o.Tunes[0]
		if known != nil {
			tune = elsewhere(o.Tunes, known.Over)
		}
		for _, t := range o.Tunes {
			if !t.By.IsZero() && t.By.After(at) {
				tune = t
				break
			}
		}
		i.Chart, i.Title = tune.ID, say.F("%s: %s", tune.Title, i.Title)
	}
	return i
}

// Set is what a teacher asks for as a part of a plan, if it is not reached and can be
// planned: minutes come by themselves.
func (m *Model) Set(a Aim, p Progress, id, says, from string, at time.Time) (item Item, ok bool) {
	kind := a.of()
	if p.Reached || kind.plan == nil {
		return item, false
	}
	item = Item{ID: id, Title: says, Done: "the aim is reached", Minutes: block, Tempo: a.Tempo}
	switch {
	case p.Tries == 0:
		item.Why = say.F("%s asks for it; it was not tried yet", from)
	case a.Times > 1 && p.Row > 0:
		item.Why = say.F("%s asks for it; %d in a row so far", from, p.Row)
	default:
		item.Why = say.F("%s asks for it; the best of %d tries was %d %%", from, p.Tries, int(100*p.Best+0.5))
	}
	kind.plan(m, a, at, &item)
	return item, true
}
