package musicxml

import (
	"cmp"
	"errors"
	"maps"
	"slices"
	"strings"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/core/score"
)

// accented gives a note the accents and the like that stand on the notation alone.
func (r *reader) accented(n *score.Note) {
	key := [2]int{n.Start, n.Pitch.MIDI()}
	list := r.signed[key]
	if len(list) == 0 {
		return
	}
	r.signed[key] = list[1:]
	for _, way := range score.Ways {
		if v := way.Of(list[0]); v != 0 && way.XML.Tag != "" {
			way.Put(&n.Ornaments, v)
		}
	}
}

// usual is the metre of most bars, of those that are longer than a pickup of so many ticks; where none is, another.
func usual(metres []int, lead, otherwise int) int {
	best, times := otherwise, map[int]int{}
	for _, n := range metres {
		if n*score.Tick <= lead {
			continue
		}
		if times[n]++; times[n] > times[best] {
			best = n
		}
	}
	return best
}

// finish puts chords into bars and checks the places on the neck.
func (r *reader) finish() error {
	f := r.f
	f.Beats = max(form.MinBeats, usual(r.metres, r.lead, cmp.Or(r.led, r.beats)))
	f.Progression.Pickup = f.Progression.Pickup.Within(f.Beats)
	f.Tempo = cmp.Or(f.Tempo, 100)
	if r.threes && !r.simple {
		f.Feel = cmp.Or(f.Feel, form.InThrees)
	}
	score.Sort(f.Notes)
	end := 1
	if n := len(f.Notes); n > 0 {
		end = f.Notes[n-1].Start + 1
	}
	for i := 0; i < len(r.lengths) || f.End() < end; i++ {
		if i == form.MaxBars {
			return say.Errorf("a line of more than the %d bars that can be read", form.MaxBars)
		}
		var bar form.Bar
		if i < len(r.lengths) && r.lengths[i] != f.Beats {
			bar.Beats = r.lengths[i]
		}
		f.Bars = append(f.Bars, bar)
	}
	if len(r.chords) == 0 && len(r.lent) > 0 {
		r.chords = r.lent
		f.say("the chords stand in another part, %s, and were taken from there", cmp.Or(strings.TrimSpace(r.lentOf), "without a name"))
	}
	chord := harmony.Chord{None: true}
	changes := slices.Sorted(maps.Keys(r.chords))
	for i := range f.Bars {
		f.Bars[i] = form.Bar{Beats: f.Bars[i].Beats, Section: r.sections[i], Row: r.rows[i], Changes: []form.Change{{Chord: chord}}}
		for len(changes) > 0 && changes[0] < f.At(i+1) {
			at, c := changes[0], r.chords[changes[0]]
			changes = changes[1:]
			chord = c
			beat := max(0, at-f.At(i)) / score.Tick
			if max(0, at-f.At(i))%score.Tick != 0 {
				f.say("a chord in bar %d begins between beats; it was moved to its beat", i+1)
			}
			list := &f.Bars[i].Changes
			if last := &(*list)[len(*list)-1]; last.Beat == beat {
				last.Chord = c
			} else {
				*list = append(*list, form.Change{Beat: beat, Chord: c})
			}
		}
	}
	r.borrow()
	r.standard()
	guessed := 0
	fingered := slices.ContainsFunc(f.Notes, func(n score.Note) bool { return n.Finger > 0 })
	for i := range f.Notes {
		n := &f.Notes[i]
		if !fingered { // the fingers may stand on the notation alone
			n.Finger = r.fingers[[2]int{n.Start, n.Pitch.MIDI()}]
		}
		r.accented(n)
		if n.Start < -f.MostPickup() {
			return errors.New("the pickup is longer than a bar")
		}
		n.Length = max(n.Length, 1)
		if f.In == nil || f.In.CheckPlacement(n.Placement) != nil || f.In.MIDI(n.Placement) != n.Pitch.MIDI() {
			n.Placement = neck.Placement{}
			guessed++
		}
	}
	if guessed > 0 {
		f.say("%d of %d notes have no place on the neck that fits; one was found for them", guessed, len(f.Notes))
	}
	if r.aside {
		return nil
	}
	return r.unfold()
}

// borrow gives notes without frets those of the tablature that stands in another part, with its
// signs, where most of them are found there.
func (r *reader) borrow() {
	f := r.f
	if r.frets == nil || r.frets.In == nil {
		return
	}
	there := map[[2]int]*score.Note{}
	for i := range r.frets.Notes {
		if n := &r.frets.Notes[i]; n.String > 0 {
			there[[2]int{n.Start, n.Pitch.MIDI()}] = n
		}
	}
	found := func(n score.Note) *score.Note { return there[[2]int{n.Start, n.Pitch.MIDI()}] }
	met := 0
	for _, n := range f.Notes {
		if n.String > 0 {
			return
		}
		if found(n) != nil {
			met++
		}
	}
	if met*2 <= len(f.Notes) {
		return
	}
	f.In = r.frets.In
	for i := range f.Notes {
		n := &f.Notes[i]
		if t := found(*n); t != nil {
			n.Placement, n.Finger = t.Placement, cmp.Or(n.Finger, t.Finger)
			for _, way := range score.Ways {
				if v := way.Of(t.Ornaments); v != 0 && way.Of(n.Ornaments) == 0 {
					way.Put(&n.Ornaments, v)
				}
			}
			if n.Join == score.Picked {
				n.Join = t.Join
			}
		}
	}
	f.say("the frets stand in another part, %s, and were taken from there", cmp.Or(r.fretsOf, "in tablature"))
}

// standard takes the standard tuning for a file that gives frets and names no tuning, where all
// of them fit.
func (r *reader) standard() {
	in, placed := neck.Standard(), false
	for _, n := range r.f.Notes {
		if n.String == 0 {
			continue
		}
		if placed = true; in.CheckPlacement(n.Placement) != nil || in.MIDI(n.Placement) != n.Pitch.MIDI() {
			return
		}
	}
	if r.f.In == nil && placed {
		r.f.In = in
		r.f.say("it names no tuning; its frets fit the standard one")
	}
}
