package exercise

import (
	"slices"

	"undaris/core/approach"
	"undaris/core/harmony"
)

// Choice is something of an exercise that may be asked for.
type Choice struct {
	ID, Name string
	Kind     string   // "list", "switch", "number" or "steps"
	Options  []Option // of a list; the first is usual
	Needs    string   // the ID of the choice without which it changes nothing
	alone    bool     // it is asked for by few exercises
	given    func(*Task)
	changes  []func(*Task) // some of what it can be, other than usual
}

// Option is what a choice can be.
type Option struct{ ID, Name string }

var roles = []Option{{"root", "the root"}, {"third", "the third"}, {"fifth", "the fifth"}, {"seventh", "the sixth or seventh"}}

// Choices lists them. Which of them an exercise offers stands with it: the others would change nothing.
var Choices = []Choice{
	{ID: "from", Name: "Start", Kind: "list", Options: []Option{{"", "from the lowest tone"}, {"R", "from the root"}, {"3", "from the 3"}, {"b3", "from the ♭3"}, {"5", "from the 5"}, {"b7", "from the ♭7"}, {"7", "from the 7"}},
		changes: []func(*Task){func(t *Task) { t.From = "3" }, func(t *Task) { t.From = "5" }, func(t *Task) { t.From = "R" }, func(t *Task) { t.From = "b3" }}},
	{ID: "order", Name: "Order", Kind: "number", alone: true, changes: []func(*Task){func(t *Task) { t.Order = 7 }}},
	{ID: "cell", Name: "Steps", Kind: "steps", alone: true, changes: []func(*Task){func(t *Task) { t.Cell = []int{1, 3, 2} }, func(t *Task) { t.Cell = []int{1, 5, 10, 12} }}},
	{ID: "roots", Name: "Root", Kind: "list", alone: true, Options: []Option{{"", "before and after"}, {"before", "before"}, {"after", "after"}},
		changes: []func(*Task){func(t *Task) { t.Roots = "before" }, func(t *Task) { t.Roots = "after" }}},
	{ID: "approach", Name: "Lead in", Kind: "list", Options: append([]Option{{"", "nothing"}}, each(approach.Ways, func(w approach.Way) Option { return Option{w.ID, w.Name()} })...), changes: []func(*Task){func(t *Task) { t.Approach = "above" }, func(t *Task) { t.Approach = "enclosure" }}},
	{ID: "into", Name: "Only into", Kind: "list", Needs: "approach", Options: append([]Option{{"", "every tone"}}, roles...),
		given: func(t *Task) { t.Approach = "below" }, changes: []func(*Task){func(t *Task) { t.Into = []harmony.Role{harmony.Third} }, func(t *Task) { t.Into = []harmony.Role{harmony.Root} }}},
	{ID: "land", Name: "Timed to", Kind: "list", alone: true, Options: append([]Option{{"", "nothing: from the start"}}, each(roles, func(o Option) Option { return Option{o.ID, "land on " + o.Name} })...),
		changes: []func(*Task){func(t *Task) { t.Land = []harmony.Role{harmony.Root} }}},
	{ID: "beat", Name: "Sets out", Kind: "list", Needs: "land", alone: true, Options: []Option{{"0", "at once"}, {"2", "on beat 2 of the last bar"}, {"3", "on beat 3 of the last bar"}, {"4", "on beat 4 of the last bar"}},
		given: func(t *Task) { t.Land = []harmony.Role{harmony.Root} }, changes: []func(*Task){func(t *Task) { t.Beat = 3 }}},
	{ID: "route", Name: "Way", Kind: "list", Needs: "land", alone: true, Options: []Option{{"0", "the first"}, {"2", "the second as short"}, {"3", "the third as short"}, {"4", "the fourth as short"}},
		given: func(t *Task) { t.Land = []harmony.Role{harmony.Root} }, changes: []func(*Task){func(t *Task) { t.Route = 2 }, func(t *Task) { t.Route, t.Beat = 2, 3 }}},
	{ID: "burst", Name: "Bursts", Kind: "list", Options: []Option{{"0", "none: evenly"}, {"3", "of three, the last held"}, {"4", "of four, the last held"}, {"5", "of five, the last held"}, {"6", "of six, the last held"}},
		changes: []func(*Task){func(t *Task) { t.Burst = 4 }}},
	{ID: "until", Name: "Rest", Kind: "list", Options: []Option{{"0", "none: through every bar"}, {"1", "after beat 1 of each chord’s last bar"}, {"2", "after beat 2 of each chord’s last bar"}, {"3", "after beat 3 of each chord’s last bar"}},
		changes: []func(*Task){func(t *Task) { t.Until = 2 }}},
	{ID: "offset", Name: "Begins", Kind: "list", Options: []Option{{"0", "on the chord"}, {"1", "1 sixteenth late"}, {"2", "2 sixteenths late"}, {"3", "3 sixteenths late"}, {"4", "1 beat late"}, {"8", "2 beats late"}},
		changes: []func(*Task){func(t *Task) { t.Offset = 4 }}},
	{ID: "together", Name: "struck at once", Kind: "switch", alone: true, changes: []func(*Task){func(t *Task) { t.Together = true }}},
	{ID: "octave", Name: "one octave", Kind: "switch", alone: true, changes: []func(*Task){func(t *Task) { t.Octave = true }}},
	{ID: "down", Name: "downwards", Kind: "switch", changes: []func(*Task){func(t *Task) { t.Down = true }}},
	{ID: "double", Name: "double time in the second half of each chord", Kind: "switch", changes: []func(*Task){func(t *Task) { t.Double = true }}},
}

// Offers lists the choices that act on a drill, by their IDs in the order of [Choices].
func (d Drill) Offers() (list []string) {
	for _, c := range Choices {
		if c.alone && slices.Contains(d.takes, c.ID) || !c.alone && !slices.Contains(d.still, c.ID) {
			list = append(list, c.ID)
		}
	}
	return list
}

func each[A, B any](list []A, of func(A) B) (out []B) {
	for _, x := range list {
		out = append(out, of(x))
	}
	return out
}
