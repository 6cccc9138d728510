package planner

import (
	"cmp"
	"slices"
)

// Readiness is how far a tune is for an evening: which of its changes are safe, and so
// can be left, which are not yet, and which were never tried.
type Readiness struct {
	Tune    Tune
	Safe    int
	Weak    []Weak // the weakest first
	Untried [][2]string
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
		for _, c := range tune.Changes {
			n := counted.changes[change{tune.ID, c[0], c[1]}]
			switch {
			case n == nil || n.Trials < safeAfter:
				r.Untried = append(r.Untried, c)
			case n.Share() < safeFrom:
				r.Weak = append(r.Weak, Weak{c[0], c[1], n.Count})
			default:
				r.Safe++
			}
		}
		slices.SortStableFunc(r.Weak, func(a, b Weak) int {
			return cmp.Compare(a.Share(), b.Share())
		})
		list = append(list, r)
	}
	return list
}
