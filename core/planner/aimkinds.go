package planner

import (
	"cmp"
	"slices"
	"time"

	"undaris/core/say"
)

// AimKind is something that an aim can be about: what a teacher chooses it by, what can be asked
// for, how a line of the log is found to be a try at it, and how it becomes a part of a plan.
type AimKind struct {
	ID   string
	Name string // as it is chosen
	Of   string // what it is about: "chart", "line", "exercise" or nothing that is kept
	// What can be asked for: "mode", "key", "degree", "percent", "tempo"; how often can be always.
	Asks  []string
	Adds  bool   // tries add up, and Times is their sum; else so many in a row are asked for
	Unit  string // of Times
	Most  int    // of Times
	Usual Aim    // as it begins; Part is of 1

	calls bool // nothing but calls is a try at it
	try   func(a Aim, p Played) (went float64, yes bool)
	says  func(a Aim, of, mode string) string
	plan  func(m *Model, a Aim, at time.Time, item *Item) // nil where it comes by itself
}

// InARow is how tries are counted that do not add up.
const InARow = "in a row"

// AimKinds are all of them.
var AimKinds = []AimKind{
	{ID: "changes", Name: "changes met", Of: "chart", Asks: []string{"mode", "percent", "tempo"}, Unit: InARow, Most: 100, Usual: Aim{Mode: "land", Part: 0.8, Times: 2},
		try: func(a Aim, p Played) (went float64, yes bool) {
			n := len(p.Trials)
			yes = !p.Call && a.Chart == p.Chart && n > 0 && (a.Mode == "" || p.Trials[0].Device == a.Mode) && p.Tempo >= a.Tempo
			for _, t := range p.Trials {
				if t.Success == 1 {
					went += 1 / float64(n)
				}
			}
			return went, yes
		},
		says: func(a Aim, of, mode string) string {
			if mode != "" {
				mode = ", " + mode
			}
			return say.F("%s%s: %d %% of the changes met", of, mode, a.percent())
		},
		plan: func(_ *Model, a Aim, _ time.Time, item *Item) {
			item.Kind, item.Chart, item.Mode = Changes, a.Chart, cmp.Or(a.Mode, "land")
		}},
	{ID: "line", Name: "a line", Of: "line", Asks: []string{"percent", "tempo"}, Unit: InARow, Most: 100, Usual: Aim{Part: 0.9},
		try: tryLine, says: sayLine, plan: planLine},
	{ID: "exercise", Name: "an exercise", Of: "exercise", Asks: []string{"percent", "tempo"}, Unit: InARow, Most: 100, Usual: Aim{Part: 0.9},
		try: tryLine, says: sayLine, plan: planLine},
	{ID: "calls", calls: true, Name: "calls", Asks: []string{"key", "degree"}, Unit: InARow, Most: 100, Usual: Aim{Degree: "third", Times: 8},
		try: func(a Aim, p Played) (went float64, yes bool) {
			if !p.Call || len(p.Trials) == 0 {
				return 0, false
			}
			t := p.Trials[0]
			return t.Success, t.Key == a.Key && (a.Degree == "" || t.Degree == a.Degree)
		},
		says: func(a Aim, _, _ string) string {
			from := ""
			if a.Degree != "" {
				from = " from the " + a.Degree
			}
			return say.F("calls in %s%s right at once", KeyName(a.Key), from)
		},
		plan: func(m *Model, a Aim, at time.Time, item *Item) {
			asks := slices.DeleteFunc(Everything(), func(x Ask) bool { return x.Key != a.Key || a.Degree != "" && x.Degree != a.Degree })
			item.Kind, item.Ask = Calls, m.Choose(asks, 1, at, 1)[0]
		}},
	{ID: "minutes", Name: "minutes", Adds: true, Unit: "minutes", Most: 6000, Usual: Aim{Times: 60},
		try:  func(_ Aim, p Played) (went float64, yes bool) { return p.Seconds / 60, true },
		says: func(a Aim, _, _ string) string { return say.F("%d minutes played", a.Times) }},
}

// AimKindByID finds one.
func AimKindByID(id string) (AimKind, error) {
	for _, k := range AimKinds {
		if k.ID == id {
			return k, nil
		}
	}
	return AimKind{}, say.Errorf("there is no aim about %q", id)
}

// of is the kind of an aim; of one that is of no kind nothing is a try.
func (a Aim) of() AimKind {
	k, err := AimKindByID(a.Kind)
	if err != nil {
		return AimKind{try: func(Aim, Played) (float64, bool) { return 0, false }, says: func(Aim, string, string) string { return "an aim of another kind" }}
	}
	return k
}

// wanted is the part that is asked for; where none can be a try is right or not.
func (a Aim) wanted() float64 {
	if !slices.Contains(a.of().Asks, "percent") {
		return 1
	}
	return cmp.Or(a.Part, 1)
}

func (a Aim) percent() int { return int(100*cmp.Or(a.Part, 1) + 0.5) }

func tryLine(a Aim, p Played) (went float64, yes bool) {
	return float64(p.Good) / float64(max(1, p.Notes)), !p.Call && a.Line == p.Line && p.Notes > 0 && p.Tempo >= a.Tempo
}

func sayLine(a Aim, of, _ string) string {
	return say.F("%s: %d %% of the notes right", of, a.percent())
}

func planLine(_ *Model, a Aim, _ time.Time, item *Item) { item.Kind, item.Line = Piece, a.Line }
