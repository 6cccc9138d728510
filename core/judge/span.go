package judge

import (
	"slices"

	"undaris/core/score"
)

// Span is how far a pass was played, in ticks: who stops the band in the middle was not asked for what comes after, nor who begins
// there for what comes before. The zero Span is all of it.
type Span struct{ From, To float64 }

// ahead is how long before a change a note may be that belongs to it, and how long before its place a pass may be joined.
const ahead = score.Tick / 2

// Has tells that what stands on a tick was asked for.
func (p Span) Has(at int) bool {
	return p == Span{} || float64(at) >= p.From-ahead && float64(at) < p.To
}

// Of is a score with the notes that were asked for, and whether those are all.
func (p Span) Of(s score.Score) (of score.Score, whole bool) {
	of = s
	of.Notes = slices.DeleteFunc(slices.Clone(s.Notes), func(n score.Note) bool { return n.Start >= 0 && !p.Has(n.Start) || n.Start < 0 && p.From > 0 })
	return of, len(of.Notes) == len(s.Notes)
}
