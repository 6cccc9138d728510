package planner

import (
	"cmp"
	"math"
	"slices"
	"time"

	"undaris/core/say"
)

// A lick that was known comes again after some days, each time that it went well twice as many.
const (
	fadesAfter = 4
	fadesMost  = 4 // times that the days are doubled
	knownFrom  = 0.7
)

// due is how far a lick that was played is due by a time, 1 or more where it is; one that never went well is not known, and one that was
// never played neither.
func (w Written) due(at time.Time) float64 {
	if w.Trials == 0 || w.Success < knownFrom {
		return 0
	}
	days := max(0, at.Sub(w.Last).Hours()/24)
	return days / (fadesAfter * math.Exp2(float64(min(fadesMost, w.Trials-1))))
}

// fading is the lick that is due most; nil where none is.
func (o Order) fading(at time.Time) *Written {
	if len(o.Licks) == 0 || len(o.Tunes) == 0 || slices.Contains(o.Without, "music lick") {
		return nil
	}
	best := slices.MaxFunc(o.Licks, func(a, b Written) int { return cmp.Compare(a.due(at), b.due(at)) })
	if best.due(at) < 1 {
		return nil
	}
	return &best
}

// fades tells why a lick comes again.
func (w Written) fades(at time.Time) string {
	return say.F("it was known, and was not played for %d days: over other chords it shows whether it still is", int(at.Sub(w.Last).Hours()/24))
}

// elsewhere is a tune in another key than the one of a chart; where there is none, another tune, else the first.
func elsewhere(tunes []Tune, than uint) Tune {
	was := slices.IndexFunc(tunes, func(t Tune) bool { return t.ID == than })
	if was < 0 {
		return tunes[0]
	}
	for _, other := range []func(Tune) bool{func(t Tune) bool { return t.Key != tunes[was].Key }, func(t Tune) bool { return t.ID != than }} {
		if i := slices.IndexFunc(tunes, other); i >= 0 {
			return tunes[i]
		}
	}
	return tunes[0]
}
