package judge

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/score"
)

func TestWhatWasNotReachedWasNotAsked(t *testing.T) {
	s := score.Score{}
	for at := -score.Tick; at < 8*score.Tick; at += score.Tick {
		s.Notes = append(s.Notes, score.Note{Start: at, Length: 480})
	}
	starts := func(p Span) (list []int, whole bool) {
		of, whole := p.Of(s)
		for _, n := range of.Notes {
			list = append(list, n.Start/score.Tick)
		}
		return list, whole
	}
	for _, c := range []struct {
		span  Span
		want  []int
		whole bool
	}{
		{Span{}, []int{-1, 0, 1, 2, 3, 4, 5, 6, 7}, true},
		{Span{0, 8 * score.Tick}, []int{-1, 0, 1, 2, 3, 4, 5, 6, 7}, true},
		{Span{-3000, 3.5 * score.Tick}, []int{-1, 0, 1, 2, 3}, false},
		{Span{0, 3 * score.Tick}, []int{-1, 0, 1, 2}, false},
		{Span{4 * score.Tick, 6 * score.Tick}, []int{4, 5}, false},
		{Span{4.2 * score.Tick, 6 * score.Tick}, []int{4, 5}, false}, // the clock is told now and then
		{Span{20 * score.Tick, 30 * score.Tick}, nil, false},
	} {
		got, whole := starts(c.span)
		assert.Equal(t, c.want, got, "%v", c.span)
		assert.Equal(t, c.whole, whole, "%v", c.span)
	}
	assert.Len(t, s.Notes, 9, "the score stays as it is")
}
