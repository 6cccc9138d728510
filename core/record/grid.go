package record

import (
	"math"
	"slices"
	"sort"

	"undaris/core/say"
	"undaris/core/score"
)

// Anchor is a beat, counted from the first bar that is meant, and when it falls, in seconds.
type Anchor struct {
	Beat int
	At   float64
}

// Grid is where the beats of a recording fall: at its anchors, evenly between two of them, and beyond the outer ones as
// quickly as beside them. Beats before the first bar are negative.
type Grid struct {
	PerBar  int // beats in a bar
	Anchors []Anchor
}

// Limits of a tempo, quarter notes a minute.
const (
	slowest = 20
	fastest = 400
)

// Even is a grid of one tempo, quarter notes a minute, whose beat 0 falls at so many seconds.
func Even(perBar int, first, tempo, until float64) Grid {
	beats := max(1, int((until-first)*tempo/60))
	return Grid{perBar, []Anchor{{0, first}, {beats, first + float64(beats)*60/tempo}}}
}

// Known tells that the grid says anything.
func (g Grid) Known() bool { return len(g.Anchors) > 1 }

// Check says why a grid cannot be used: anchors out of order, or so near or far apart that no tempo is.
func (g Grid) Check() error {
	for i := range g.Anchors {
		if i == 0 {
			continue
		}
		a, b := g.Anchors[i-1], g.Anchors[i]
		if b.Beat <= a.Beat || b.At <= a.At {
			return say.Errorf("the beats of the grid are not in order: beat %d at %.2f s and beat %d at %.2f s", a.Beat, a.At, b.Beat, b.At)
		}
		if t := 60 * float64(b.Beat-a.Beat) / (b.At - a.At); t < slowest || t > fastest {
			return say.Errorf("between beat %d and beat %d the grid has %.0f beats a minute; from %d to %d can be used", a.Beat, b.Beat, t, slowest, fastest)
		}
	}
	return nil
}

// piece is which two anchors a place lies between, or nearest to.
func (g Grid) piece(after func(Anchor) bool) (a, b Anchor) {
	i := sort.Search(len(g.Anchors), func(i int) bool { return after(g.Anchors[i]) })
	i = min(max(i, 1), len(g.Anchors)-1)
	return g.Anchors[i-1], g.Anchors[i]
}

// Beat is which beat a second is, with its part. A grid that knows nothing says 0.
func (g Grid) Beat(at float64) float64 {
	if !g.Known() {
		return 0
	}
	a, b := g.piece(func(x Anchor) bool { return x.At > at })
	return float64(a.Beat) + (at-a.At)*float64(b.Beat-a.Beat)/(b.At-a.At)
}

// At is the second at which a beat falls.
func (g Grid) At(beat float64) float64 {
	if !g.Known() {
		return 0
	}
	a, b := g.piece(func(x Anchor) bool { return float64(x.Beat) > beat })
	return a.At + (beat-float64(a.Beat))*(b.At-a.At)/float64(b.Beat-a.Beat)
}

// Tick is Beat in ticks of a score.
func (g Grid) Tick(at float64) int { return int(math.Round(g.Beat(at) * score.Tick)) }

// Tempo is how quick it is about a second, in quarter notes a minute.
func (g Grid) Tempo(at float64) float64 {
	if !g.Known() {
		return 0
	}
	a, b := g.piece(func(x Anchor) bool { return x.At > at })
	return 60 * float64(b.Beat-a.Beat) / (b.At - a.At)
}

// Bar is the bar that a beat lies in, from 0; negative before the first.
func (g Grid) Bar(beat float64) int { return int(math.Floor(beat / float64(max(1, g.PerBar)))) }

// Tapped is the grid after a player tapped beats: from the first tap to the last they are where they were tapped, one
// beat apart, and bar 1 stays where it was. Where nothing was known the first tap begins it. Taps that are too near to
// each other to be beats count once.
func (g Grid) Tapped(taps []float64) Grid {
	taps = slices.Clone(taps)
	slices.Sort(taps)
	taps = slices.CompactFunc(taps, func(a, b float64) bool { return math.Abs(a-b) < 60.0/fastest })
	if len(taps) < 2 {
		return g
	}
	first := 0
	if g.Known() {
		first = int(math.Round(g.Beat(taps[0])))
	}
	out := Grid{PerBar: g.PerBar}
	for _, a := range g.Anchors {
		if a.Beat < first && a.At < taps[0] {
			out.Anchors = append(out.Anchors, a)
		}
	}
	for i, at := range taps {
		out.Anchors = append(out.Anchors, Anchor{first + i, at})
	}
	last := out.Anchors[len(out.Anchors)-1]
	for _, a := range g.Anchors {
		if a.Beat > last.Beat && a.At > last.At {
			out.Anchors = append(out.Anchors, a)
		}
	}
	if out.Check() != nil { // what was there before does not go with what was tapped
		out.Anchors = out.Anchors[:0]
		for i, at := range taps {
			out.Anchors = append(out.Anchors, Anchor{first + i, at})
		}
	}
	return out
}

// From is the grid with bar 1 beginning at another of its beats.
func (g Grid) From(beat int) Grid {
	out := Grid{PerBar: g.PerBar, Anchors: slices.Clone(g.Anchors)}
	for i := range out.Anchors {
		out.Anchors[i].Beat -= beat
	}
	return out
}

// Times is the grid with so many beats for each one: 2 is twice as quick. Of half as many the first bar stays.
func (g Grid) Times(by float64) Grid {
	out := Grid{PerBar: g.PerBar}
	for _, a := range g.Anchors {
		beat := float64(a.Beat) * by
		if beat != math.Trunc(beat) {
			continue
		}
		out.Anchors = append(out.Anchors, Anchor{int(beat), a.At})
	}
	if len(out.Anchors) < 2 && len(g.Anchors) > 1 {
		first, last := g.Anchors[0], g.Anchors[len(g.Anchors)-1]
		from := math.Ceil(float64(first.Beat) * by)
		to := math.Floor(float64(last.Beat) * by)
		to = max(to, from+1)
		out.Anchors = []Anchor{{int(from), g.At(from / by)}, {int(to), g.At(to / by)}}
	}
	return out
}

// On is the grid with bar 1 beginning at a second: its nearest beat does, and where that lies a little off all beats move
// with it.
func (g Grid) On(at float64) Grid {
	beat := math.Round(g.Beat(at))
	by := at - g.At(beat)
	out := g.From(int(beat))
	for i := range out.Anchors {
		out.Anchors[i].At += by
	}
	return out
}
