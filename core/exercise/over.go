package exercise

import (
	"context"
	"slices"
	"strings"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Task says what is to be practised.
type Task struct {
	In       *neck.Instrument
	Hand     neck.Hand
	Region   neck.Region
	Key      form.Key // for what is taken from the key
	Drill    string   // an ID of Drills
	Pace     string   // an ID of Paces
	From     string   // a degree to start from; "" is the lowest
	Order    int      // 1 to 24, for the orders of four tones
	Cell     []int    // steps of the scale from 1, for the cell that is carried through it
	Down     bool     // from the top
	Approach string   // an ID of Approaches: what leads into each tone
	Offset   int      // sixteenths after the chord begins, 0 to 15
	Double   bool     // the second half of each chord goes at twice the pace
	Until    int      // the beat of its last bar on which each chord's last note falls; 0 plays through
}

// Pace is how many notes fall on a beat.
type Pace struct {
	ID, Name string
	Step     int // ticks from note to note
}

// Paces lists them.
var Paces = []Pace{
	{"quarters", "quarters", 960}, {"eighths", "eighths", 480}, {"triplets", "triplets", 320},
	{"sixteenths", "sixteenths", 240}, {"sextuplets", "sextuplets", 160},
}

// stretch is a chord of the form with the groups played over it.
type stretch struct {
	chord    harmony.Chord
	from, to int // ticks
	walk     [][]rung
}

// Over writes a drill over every chord of a form for as long as it lasts. said
// tells over which chords it is not played, and what else a player should know.
func Over(ctx context.Context, p form.Progression, t Task) (notes []score.Note, said []string, err error) {
	drill, pace, approach, err := t.check()
	if err != nil {
		return nil, nil, err
	}
	var all []stretch
	var silent []string
	for _, place := range joined(p) {
		if ctx.Err() != nil {
			return nil, nil, ctx.Err()
		}
		if place.Chord.None {
			continue
		}
		s := stretch{chord: place.Chord, from: p.BeatOf(place) * score.Tick}
		s.to = s.from + place.Length*score.Tick
		if t.Until > 0 {
			if end := s.to - p.BeatsOf(place.Bar)*score.Tick + t.Until*score.Tick; end > s.from {
				s.to = min(s.to, end)
			}
		}
		s.from = min(s.to, s.from+t.Offset*score.Tick/4)
		if drill.fits == nil || drill.fits(place.Chord) {
			all = append(all, s)
		} else if symbol := place.Chord.Printed(); !slices.Contains(silent, symbol) {
			silent = append(silent, symbol)
		}
	}
	step := max(pace.Step, drill.slowest)
	if drill.leads {
		approach = Approaches[0]
	}
	if drill.plan != nil {
		if err := drill.plan(t, all, approach.unit(step)); err != nil {
			return nil, nil, err
		}
	} else {
		for i := range all {
			walk := drill.figure(drill.ladder(t, all[i].chord), t)
			t.title(walk, drill)
			all[i].walk = t.held(walk)
		}
	}
	for _, s := range all {
		if symbol := s.chord.Printed(); len(s.walk) == 0 && !slices.Contains(silent, symbol) {
			silent = append(silent, symbol)
		}
	}
	all = slices.DeleteFunc(all, func(s stretch) bool { return len(s.walk) == 0 || s.from >= s.to })
	if len(all) == 0 {
		return nil, nil, t.noRoom(drill, silent)
	}
	if len(silent) > 0 {
		said = append(said, say.F("not over %s: %s", orList(silent), drill.absence()))
	}
	notes = t.lay(all, approach, step)
	if len(notes) > score.MaxNotes {
		return nil, nil, say.Errorf("%d notes; a line holds %d. Take a slower pace or fewer bars", len(notes), score.MaxNotes)
	}
	reach, ok := t.finish(notes)
	if !ok {
		return nil, nil, say.Errorf("no hand can play it as asked here; take another position, more strings or fewer approaches")
	}
	if reach.Millimetres > t.Hand.Comfort || drill.reaches {
		said = append(said, say.F("its widest reach is %.0f mm, frets %d to %d; warm up first, or play it higher up", reach.Millimetres, reach.Low, reach.High))
	}
	if names := t.steps(drill); names != "" {
		said = append(said, names)
	}
	return notes, said, nil
}

// Ground is what a drill is practised over: the chords of a form, or for some
// drills others in their place.
func Ground(p form.Progression, drill string) form.Progression {
	if d, err := DrillByID(drill); err == nil && d.ground != nil {
		return d.ground(p)
	}
	return p
}

// roundTheCircle is the first chord of a form on all twelve roots by fourths, a
// bar each.
func roundTheCircle(p form.Progression) form.Progression {
	i := slices.IndexFunc(p.Places(), func(x form.Place) bool { return !x.Chord.None })
	if i < 0 {
		return p
	}
	chord := p.Places()[i].Chord
	out := form.Progression{Beats: p.Beats}
	root := chord.Root
	for k := range 12 {
		out.Bars = append(out.Bars, form.Bar{Row: k > 0 && k%4 == 0, Changes: []form.Change{{Chord: chord.On(root)}}})
		root = root.Up(pitch.Interval{Letters: 3, HalfSteps: 5}).Simpler()
	}
	return out
}

// check reads what is asked for.
func (t *Task) check() (d Drill, p Pace, a Approach, err error) {
	if d, err = DrillByID(t.Drill); err != nil {
		return d, p, a, err
	}
	pace := slices.IndexFunc(Paces, func(x Pace) bool { return x.ID == t.Pace })
	approach := slices.IndexFunc(Approaches, func(x Approach) bool { return x.ID == t.Approach })
	if pace < 0 || approach < 0 {
		return d, p, a, say.Errorf("there is no pace %q or approach %q", t.Pace, t.Approach)
	}
	if err := t.In.CheckRegion(t.Region); err != nil {
		return d, p, a, err
	}
	if t.Order != 0 && (t.Order < 1 || t.Order > 24) {
		return d, p, a, say.Errorf("order %d; there are 24", t.Order)
	}
	for _, step := range t.Cell {
		if step < 1 || step > 15 {
			return d, p, a, say.Errorf("step %d of a cell; 1 to 15 can be carried", step)
		}
	}
	if t.Offset < 0 || t.Offset > 15 {
		return d, p, a, say.Errorf("%d sixteenths late; up to 15 can be", t.Offset)
	}
	return d, Paces[pace], Approaches[approach], nil
}

// absence says why a drill is not played over a chord.
func (d Drill) absence() string {
	if d.fits != nil {
		return "they have no such tones"
	}
	return "these frets and strings do not hold it there"
}

// noRoom says what is missing where nothing can be played, and what would fit.
func (t Task) noRoom(d Drill, silent []string) error {
	if d.fits != nil && len(silent) > 0 {
		return say.Errorf("%s is not played over %s: %s. Choose it over a chart with seventh chords", d.Name, orList(silent), d.absence())
	}
	return say.Errorf("nothing of it lies in %s; take more strings, or five frets or more", t.Region.Says())
}

// orList joins chords; of many it tells the first.
func orList(chords []string) string {
	if n := len(chords); n > 4 {
		return say.F("%s, %s, %s and %d other chords", chords[0], chords[1], chords[2], n-3)
	}
	return say.List(chords, "or")
}

// joined are the places of a form with repeated chords taken together.
func joined(p form.Progression) (out []form.Place) {
	for _, place := range p.Places() {
		if n := len(out); n > 0 && out[n-1].Chord.String() == place.Chord.String() {
			out[n-1].Length += place.Length
			continue
		}
		out = append(out, place)
	}
	return out
}

// held keeps the groups that a hand can hold together.
func (t Task) held(walk [][]rung) [][]rung {
	return slices.DeleteFunc(walk, func(group []rung) bool {
		if len(group) < 2 {
			return false
		}
		var notes []score.Note
		for _, r := range group {
			notes = append(notes, score.Note{Length: score.Tick, Pitch: pitch.At(r.midi, r.name), Degree: string(r.degree), Placement: neck.Placement{String: r.str}})
		}
		_, ok := t.finish(notes)
		return !ok
	})
}

// onStep is the chord of so many notes that a step of the key gives, from 0.
func (t Task) onStep(step, notes int) harmony.Chord {
	c, _ := harmony.Stacked(t.Key.Scale(), step, notes)
	return c
}

// steps names the chords that the steps of the key give.
func (t Task) steps(d Drill) string {
	if d.names == 0 {
		return ""
	}
	var text []string
	for step := range 7 {
		if d.of == nil || slices.Contains(d.of(t), step) {
			text = append(text, t.onStep(step, d.names).Printed())
		}
	}
	return say.F("the steps of %s give %s", t.Key, strings.Join(text, ", "))
}

// title names each chord of a walk that the steps of the key give, on its first
// note.
func (t Task) title(walk [][]rung, d Drill) {
	for k := 0; d.names > 0 && k+d.names <= len(walk); {
		classes := map[int]bool{}
		for _, group := range walk[k : k+d.names] {
			classes[pitch.Class(group[0].midi)] = true
		}
		step := slices.IndexFunc([]int{0, 1, 2, 3, 4, 5, 6}, func(step int) bool {
			tones := t.onStep(step, d.names).Tones
			return len(tones) == len(classes) && !slices.ContainsFunc(tones, func(x harmony.Tone) bool { return !classes[x.Name.Class()] })
		})
		if step < 0 {
			k++
			continue
		}
		walk[k] = slices.Clone(walk[k])
		walk[k][0].named = t.onStep(step, d.names).String()
		k += d.names
	}
}
