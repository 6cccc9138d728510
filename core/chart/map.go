package chart

import (
	"context"
	"slices"
	"sync"

	"undaris/core/arpeggio"
	"undaris/core/blend"
	"undaris/core/crossing"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// Map is everything about a chart on a neck.
type Map struct {
	Chords  []harmony.Chord // the different ones the soloist follows, in the order they come
	Of      []int           // for each place of the form, its chord
	Beside  map[int]Beside  // by place: what the band plays there, where the soloist imagines another chord
	Pairs   []Pair
	Spans   []form.Span
	Neck    [][]arpeggio.Note // for each chord, its tones on the whole neck
	Blends  []blend.Laid      // for each chord, the palette over it on the whole neck
	Windows []InWindow
	in      *neck.Instrument
	regions []neck.Region // of the windows
}

// Pair is two chords that follow each other, with what moves, ranked.
type Pair struct {
	From, To int
	Moves    []crossing.Move // wherever they lie
	Enclosed []crossing.Enclosure
}

// InWindow is what lies in one window.
type InWindow struct {
	Runs     []arpeggio.Run  // for each chord
	Shapes   []string        // the movable open shape that each chord takes
	Alike    []int           // for each run a number: runs of one number have the same fingering
	Grips    []arpeggio.Grip // for each chord, held at once; empty where no hand holds what tells it
	Thread   Thread
	NoThread error // why there is none
}

// mostGripped is how far apart the first and last fret of a region may be in which a grip is looked for.
const mostGripped = 7

// Map lays the chart on the neck, in each of the windows.
func (c Chart) Map(ctx context.Context, windows []neck.Region) Map {
	t := c.ready()
	m := Map{Beside: t.beside, Windows: make([]InWindow, len(windows)), in: c.In, regions: windows}
	m.Chords, m.Of = form.Different(t.places)
	m.Pairs = pairs(m.Of)
	m.Spans = c.Solo.Spans(c.Key)
	for i, p := range m.Pairs {
		m.Pairs[i].Moves = crossing.Steps(m.Chords[p.From], m.Chords[p.To], c.Plan.By)
		m.Pairs[i].Enclosed = crossing.Enclosures(m.Chords[p.From], m.Chords[p.To])
	}
	whole := neck.Region{Low: 0, High: c.In.Last()}
	for _, chord := range m.Chords {
		m.Neck = append(m.Neck, arpeggio.Neck(c.In, chord))
		m.Blends = append(m.Blends, blend.Lay(c.In, c.Key, c.Plan.Palette, chord, whole, false))
	}
	var all sync.WaitGroup
	for i, w := range windows {
		all.Go(func() { m.Windows[i] = c.within(ctx, &m, t, w) })
	}
	all.Wait()
	m.alike()
	return m
}

// Places tells for some of the pairs, for each of its moves, where it lies in a window, nearest
// first. It is found when it is asked for: of a long chart it is by far the most.
func (m Map) Places(window int, pairs []Pair) [][][]crossing.Place {
	places := make([][][]crossing.Place, len(pairs))
	for i, p := range pairs {
		places[i] = make([][]crossing.Place, len(p.Moves))
		for j, move := range p.Moves {
			places[i][j] = crossing.Places(m.in, move, m.regions[window])
		}
	}
	return places
}

// alike numbers the runs by their fingerings.
func (m *Map) alike() {
	var kinds []arpeggio.Run
	for i := range m.Windows {
		w := &m.Windows[i]
		for _, r := range w.Runs {
			k := slices.IndexFunc(kinds, r.SameFingering)
			if k < 0 {
				k = len(kinds)
				kinds = append(kinds, r)
			}
			w.Alike = append(w.Alike, k)
		}
	}
	m.named(len(kinds))
}

// named gives runs of one fingering one shape: that which most of them have. Those of a diminished seventh are alike on
// four roots.
func (m *Map) named(kinds int) {
	names := make([]map[string]int, kinds)
	for _, w := range m.Windows {
		for c, k := range w.Alike {
			if names[k] == nil {
				names[k] = map[string]int{}
			}
			names[k][w.Shapes[c]]++
		}
	}
	for _, w := range m.Windows {
		for c, k := range w.Alike {
			for name, n := range names[k] {
				if most := names[k][w.Shapes[c]]; n > most || n == most && name < w.Shapes[c] {
					w.Shapes[c] = name
				}
			}
		}
	}
}

// within finds runs and the thread in one window.
func (c Chart) within(ctx context.Context, m *Map, t tied, w neck.Region) InWindow {
	in := InWindow{Runs: make([]arpeggio.Run, len(m.Chords)), Shapes: make([]string, len(m.Chords)), Grips: make([]arpeggio.Grip, len(m.Chords))}
	prefer := c.Plan.picks(w)
	for i, chord := range m.Chords {
		in.Runs[i] = arpeggio.Make(c.In, chord, w, c.Hand, prefer)
		in.Shapes[i] = c.In.Shape(chord.Root.Class(), w)
		if w.High-w.Low <= mostGripped {
			in.Grips[i], _ = arpeggio.Hold(c.In, chord, w, c.Hand)
		}
	}
	in.Thread, in.NoThread = c.tie(ctx, t, w)
	return in
}

// pairs lists the different pairs of chords that follow each other, the last of
// the form leading to the first.
func pairs(order []int) (out []Pair) {
	for i, from := range order {
		to := order[(i+1)%len(order)]
		if from != to && !slices.ContainsFunc(out, func(p Pair) bool { return p.From == from && p.To == to }) {
			out = append(out, Pair{From: from, To: to})
		}
	}
	return out
}
