package planner

import (
	"encoding/binary"
	"math"
	"time"

	"undaris/core/say"
)

// A tally is kept in few bytes, since a log has one for each day, chart and instrument: numbers as
// variable lengths, texts with theirs, and so many entries of each map.

const tallyFormat = 2

// errTally is a tally that cannot be read.
var errTally = say.Errorf("this is no tally of a log")

// MarshalBinary writes a tally, so that it can be kept.
func (s *Tally) MarshalBinary() ([]byte, error) {
	w := writer{tallyFormat}
	w.ints(s.Lines, s.Trials)
	put(&w, s.cells, func(k cell) { w.ints(k.Key, k.Position) }, w.count)
	put(&w, s.spots, func(k spot) { w.ints(k.Position, k.String); w.text(k.Degree) }, w.count)
	put(&w, s.starts, func(k start) { w.text(k.Degree); w.ints(downLast(k.Down)) }, w.count)
	put(&w, s.asks, func(k ask) { w.ints(k.Key, k.Position); w.text(k.Degree); w.ints(downLast(k.Down)) }, w.count)
	put(&w, s.changes, func(k change) { w.ints(int(k.Chart)); w.text(k.From); w.text(k.To) }, func(m *Met) { w.count(&m.Count); w.ints(m.Silent, m.OnRoot, m.Other) })
	put(&w, s.weeks, func(k int) { w.ints(k) }, func(x *week) {
		w.float(x.Seconds)
		put(&w, x.Degrees, func(d string) { w.text(d) }, func(n int) { w.ints(n) })
	})
	w.ints(len(s.timing.Bins))
	w.ints(s.timing.Bins...)
	w.float(s.timing.Sum)
	w.float(s.timing.Square)
	w.ints(s.timing.Trials)
	return w, nil
}

// UnmarshalBinary reads what [Tally.MarshalBinary] wrote.
func (s *Tally) UnmarshalBinary(data []byte) error {
	r := reader{data: data}
	if len(data) == 0 || r.byte() != tallyFormat {
		return errTally
	}
	*s = Tally{Lines: r.int(), Trials: r.int()}
	s.cells = take(&r, func() cell { return cell{r.int(), r.int()} }, r.count)
	s.spots = take(&r, func() spot { return spot{r.int(), r.int(), r.text()} }, r.count)
	s.starts = take(&r, func() start { return start{r.text(), r.int() == 1} }, r.count)
	s.asks = take(&r, func() ask { return ask{r.int(), r.int(), r.text(), r.int() == 1} }, r.count)
	s.changes = take(&r, func() change { return change{uint(r.int()), r.text(), r.text()} }, func() *Met { return &Met{*r.count(), r.int(), r.int(), r.int()} })
	s.weeks = take(&r, r.int, func() *week { return &week{Seconds: r.float(), Degrees: take(&r, r.text, r.int)} })
	if n := r.int(); n == bins {
		s.timing.Bins = make([]int, bins)
		for i := range bins {
			s.timing.Bins[i] = r.int()
		}
	} else if n != 0 {
		return errTally
	}
	s.timing.Sum, s.timing.Square, s.timing.Trials = r.float(), r.float(), r.int()
	if r.bad || len(r.data) > 0 {
		*s = Tally{}
		return errTally
	}
	return nil
}

type writer []byte

func (w *writer) ints(list ...int) {
	for _, n := range list {
		*w = binary.AppendVarint(*w, int64(n))
	}
}

func (w *writer) float(x float64) { *w = binary.LittleEndian.AppendUint64(*w, math.Float64bits(x)) }

func (w *writer) text(s string) {
	w.ints(len(s))
	*w = append(*w, s...)
}

func (w *writer) count(c *Count) {
	w.ints(c.Trials, c.Right, c.sum, c.Then.Day, c.Then.Trials, c.Then.Right)
	last := int64(0)
	if !c.Last.IsZero() {
		last = c.Last.UnixMilli()
	}
	w.ints(int(last), len(c.Behind))
	for _, b := range c.Behind {
		w.ints(int(b.Entry), b.Bar, b.Trials, b.Right)
	}
}

func put[K comparable, V any](w *writer, m map[K]V, key func(K), value func(V)) {
	w.ints(len(m))
	for k, v := range m {
		key(k)
		value(v)
	}
}

// reader reads on as if nothing was there once something is bad.
type reader struct {
	data []byte
	bad  bool
}

func (r *reader) next(n int) []byte {
	if n < 0 || n > len(r.data) {
		r.bad, r.data = true, nil
		return nil
	}
	part := r.data[:n]
	r.data = r.data[n:]
	return part
}

func (r *reader) byte() byte {
	if part := r.next(1); part != nil {
		return part[0]
	}
	return 0
}

func (r *reader) int() int {
	x, n := binary.Varint(r.data)
	if n <= 0 {
		r.bad, r.data = true, nil
		return 0
	}
	r.data = r.data[n:]
	return int(x)
}

func (r *reader) float() float64 {
	if part := r.next(8); part != nil {
		return math.Float64frombits(binary.LittleEndian.Uint64(part))
	}
	return 0
}

func (r *reader) text() string { return string(r.next(r.int())) }

func (r *reader) count() *Count {
	c := &Count{}
	if trials, right, sum := r.int(), r.int(), r.int(); trials > 0 {
		c.gain(trials, right, sum)
	} else {
		r.bad = true
	}
	c.Then = Then{r.int(), r.int(), r.int()}
	if last := r.int(); last != 0 {
		c.Last = time.UnixMilli(int64(last)).UTC()
	}
	n := r.int()
	if n < 0 || n > behind {
		r.bad, r.data = true, nil
		return c
	}
	for range n {
		c.Behind = append(c.Behind, Behind{uint(r.int()), r.int(), r.int(), r.int()})
	}
	return c
}

// take reads a map; an entry has a byte at least, so a length that lies costs nothing.
func take[K comparable, V any](r *reader, key func() K, value func() V) map[K]V {
	n := r.int()
	if n < 0 || n > len(r.data) {
		r.bad, r.data = true, nil
		return nil
	}
	if n == 0 {
		return nil
	}
	m := make(map[K]V, n)
	for i := 0; i < n && !r.bad; i++ {
		k := key()
		m[k] = value()
	}
	return m
}
