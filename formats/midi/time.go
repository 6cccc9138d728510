package midi

import (
	"slices"

	"undaris/core/band"
	"undaris/core/form"
	"undaris/core/say"
)

// Metre is a time signature at a tick. Beats is in quarters; 0 where a bar is no whole number
// of them.
type Metre struct {
	At, Beats int
	Text      string // such as 6/8

	threes   bool
	inThrees int // beats of three eighths, where it has such
	ticks    int // how long a bar is
}

// leads takes a first metre that holds for one bar, and for a shorter one than the next, for a pickup: what follows is the file's.
func (f *File) leads() {
	marked := slices.ContainsFunc(f.Markers, func(m band.Marker) bool { return m.Name == "chorus 1" })
	if len(f.Metres) == 0 || marked {
		return
	}
	next := f.Metres[0]
	if f.first != next.At || f.first == 0 || f.first >= next.ticks {
		return
	}
	f.Pickup, f.Metre, f.Metres = f.first, next.Text, f.Metres[1:]
	f.Threes, f.beats, f.Odd = next.threes, next.inThrees, unread(next)
	if !f.Odd {
		f.Beats = next.Beats
	}
}

// inThrees counts a file in dotted quarters where that is how all its bars go.
func (f *File) inThrees() {
	if f.Threes = f.Threes && !slices.ContainsFunc(f.Metres, func(m Metre) bool { return !m.threes }); !f.Threes {
		return
	}
	f.Ticks, f.Tempo, f.Beats, f.Odd = f.Ticks*3/2, f.Tempo*2/3, f.beats, false
	for i := range f.Metres {
		f.Metres[i].Beats = f.Metres[i].inThrees
	}
	if f.Feel == "" {
		f.Feel = form.InThrees
	}
}

// tempo notes a tempo: the first is the file's.
func (f *File) tempo(t float64) {
	switch {
	case !f.timed:
		f.Tempo, f.timed = t, true
	case t != f.Tempo:
		f.Tempi++
	}
}

// metre notes a signature: the first is the file's. Bars are counted in quarters.
func (f *File) metre(at, beats, of int) {
	text := say.F("%d/%d", beats, of)
	n, threes, ok := form.Metre(beats, of)
	threes = threes && ok && f.Ticks%2 == 0
	switch {
	case f.Metre == "":
		f.Metre = text
		f.Threes, f.beats, f.first = threes, n, f.Ticks*4*beats/of
		if f.Odd = beats*4%of != 0 || beats*4/of > form.MaxBeats; !f.Odd {
			f.Beats = beats * 4 / of
		}
	case len(f.Metres) > 0 && f.Metres[len(f.Metres)-1].Text == text, len(f.Metres) == 0 && f.Metre == text:
	case len(f.Metres) < form.MaxBars:
		m := Metre{At: at, Text: text, threes: threes, inThrees: n, ticks: f.Ticks * 4 * beats / of}
		if beats*4%of == 0 {
			m.Beats = beats * 4 / of
		}
		f.Metres = append(f.Metres, m)
	}
}
