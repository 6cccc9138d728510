package exercise

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"undaris/core/approach"
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
	Key      form.Key       // for what is taken from the key
	Drill    string         // an ID of Drills
	Pace     string         // an ID of Paces
	From     string         // a degree to start from; "" is the lowest
	Order    int            // 1 to 24, for the orders of four tones
	Cell     []int          // steps of the scale from 1, for the cell that is carried through it
	Down     bool           // from the top
	Together bool           // struck at once, what the drill plays one after the other
	Octave   bool           // one octave, from the start
	Roots    string         // of a chord over a root: "before" or "after" it; "" is both
	Land     []harmony.Role // the run is timed to come out on one of these of the next chord; none leaves it
	Beat     int            // of its last bar, on which a run that is timed sets out; 0 is at once
	Route    int            // which of the runs that are as short, from 1; 0 is the first
	Burst    int            // so many notes, the last held until a beat; 0 plays evenly
	Approach string         // an ID of approach.Ways: what leads into each tone; "" is nothing
	Into     []harmony.Role // the only tones that are led into, in the chord that sounds or that their group makes; none is all
	Offset   int            // sixteenths after the chord begins, 0 to 15
	Double   bool           // the second half of each chord goes at twice the pace
	Until    int            // the beat of its last bar on which each chord's last note falls; 0 plays through
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
	bar      int // how long its last bar is, in ticks
	walk     [][]rung
}

// Over writes a drill over every chord of a form for as long as it lasts. said
// tells over which chords it is not played, and what else a player should know.
func Over(ctx context.Context, p form.Progression, t Task) (notes []score.Note, said []string, err error) {
	drill, pace, way, err := t.check()
	if err != nil {
		return nil, nil, err
	}
	var all []stretch
	var silent, short []string // chords over which it is not played: they have none of it, or no time for it
	for _, place := range joined(p) {
		if ctx.Err() != nil {
			return nil, nil, ctx.Err()
		}
		if place.Chord.None {
			continue
		}
		s := stretch{chord: place.Chord, from: p.BeatOf(place) * score.Tick}
		s.to, s.bar = s.from+place.Length*score.Tick, p.BeatsOf(place.Bar)*score.Tick
		if t.Until > 0 {
			if end := s.to - s.bar + t.Until*score.Tick; end > s.from {
				s.to = min(s.to, end)
			}
		}
		s.from = min(s.to, s.from+t.Offset*score.Tick/4)
		if s.from == s.to {
			if symbol := place.Chord.Printed(); !slices.Contains(short, symbol) {
				short = append(short, symbol)
			}
			continue
		}
		if drill.fits == nil || drill.fits(place.Chord) {
			all = append(all, s)
		} else if symbol := place.Chord.Printed(); !slices.Contains(silent, symbol) {
			silent = append(silent, symbol)
		}
	}
	t = t.of(drill)
	step := max(pace.Step, drill.slowest)
	leads := drill.leads || len(t.Land) > 0
	if leads || slices.Contains(drill.still, "approach") {
		way = approach.Way{}
	}
	switch {
	case len(t.Land) > 0:
		said = append(said, t.timed(drill, all, step)...)
	case drill.plan != nil:
		if err := drill.plan(t, all, unit(way, step)); err != nil {
			return nil, nil, err
		}
	default:
		for i := range all {
			walk := drill.figure(t.spanned(drill.ladder(t, all[i].chord)), t)
			t.title(walk, drill)
			all[i].walk = t.held(walk)
		}
	}
	for i, s := range all {
		count := (s.to - s.from + unit(way, step) - 1) / unit(way, step)
		all[i].walk = fitted(s.walk, count)
		if drill.settles {
			all[i].walk = settled(all[i].walk, count, s.chord)
		}
		if symbol := s.chord.Printed(); len(s.walk) == 0 && !slices.Contains(silent, symbol) {
			silent = append(silent, symbol)
		}
	}
	all = slices.DeleteFunc(all, func(s stretch) bool { return len(s.walk) == 0 })
	if len(all) == 0 && len(short) > 0 {
		return nil, nil, say.Errorf("no time is left over %s: begin it sooner", orList(short))
	}
	if len(all) == 0 {
		return nil, nil, t.noRoom(drill, silent)
	}
	if len(silent) > 0 {
		said = append(said, say.F("not over %s: %s", orList(silent), drill.absence()))
	}
	if len(short) > 0 {
		said = append(said, say.F("not over %s: it is over before the exercise begins", orList(short)))
	}
	notes = t.lay(all, way, step)
	if t.Until == 0 && !leads {
		notes = t.ending(notes, all[len(all)-1])
	}
	if len(notes) > score.MaxNotes {
		return nil, nil, say.Errorf("%d notes; a line holds %d. Take a slower pace or fewer bars", len(notes), score.MaxNotes)
	}
	if drill.strokes {
		for i := range notes {
			notes[i].Stroke = [2]score.PickingHand{score.DownStroke, score.UpStroke}[i%2]
		}
	}
	if !t.finish(notes) {
		return nil, nil, say.Errorf("no hand can play it as asked here; take another position, more strings or fewer approaches")
	}
	for _, says := range []string{t.leaves(notes), t.reach(notes, drill.reaches)} {
		if says != "" {
			said = append(said, says)
		}
	}
	if names := t.steps(drill); names != "" {
		said = append(said, names)
	}
	return notes, said, nil
}

// of leaves out what a drill does not offer.
func (t Task) of(d Drill) Task {
	offers := d.Offers()
	has := func(choice string) bool { return slices.Contains(offers, choice) }
	if !has("cell") {
		t.Cell = nil
	}
	if !has("burst") {
		t.Burst = 0
	}
	t.Together = t.Together && has("together")
	t.Octave = t.Octave && has("octave")
	if !has("land") {
		t.Land = nil
	}
	return t
}

// spanned keeps one octave of the rungs where that is asked: from the start that is asked for, else from a root; none
// where the window holds no such octave.
func (t Task) spanned(rungs []rung) []rung {
	if !t.Octave {
		return rungs
	}
	from := t.From
	if from == "" {
		from = "R"
	}
	for i := range rungs {
		if t.Down {
			i = len(rungs) - 1 - i
		}
		low := rungs[i].midi
		if t.Down {
			low -= 12
		}
		within := slices.DeleteFunc(slices.Clone(rungs), func(r rung) bool { return r.midi < low || r.midi > low+12 })
		if string(rungs[i].degree) == from && len(within) > 1 && within[0].midi == low && within[len(within)-1].midi == low+12 {
			return within
		}
	}
	return nil
}

// leaves tells where notes lie beyond the frets that were asked for. Open strings are within the reach of any hand.
func (t Task) leaves(notes []score.Note) string {
	low, high := t.Region.Low, t.Region.High
	for _, n := range notes {
		if n.Fret > 0 {
			low, high = min(low, n.Fret), max(high, n.Fret)
		}
	}
	if low == t.Region.Low && high == t.Region.High {
		return ""
	}
	return say.F("it goes beyond frets %d to %d: it lies at frets %d to %d", t.Region.Low, t.Region.High, low, high)
}

// reach tells the widest stretch, and where it is narrower; where the drill is about its reach, one within comfort too.
func (t Task) reach(notes []score.Note, always bool) string {
	stretches := score.Stretches(t.In, notes, t.Hand)
	if len(stretches) == 0 && always {
		widest := t.In.Widest(score.Hands(t.In, notes, t.Hand), t.Hand)
		return say.F("its widest reach is %.0f mm, frets %d to %d, within your comfort of %.0f", widest.Millimetres, widest.Low, widest.High, t.Hand.Comfort)
	}
	if len(stretches) == 0 {
		return ""
	}
	return "its widest reach is " + slices.MaxFunc(stretches, func(a, b score.Stretch) int { return cmp.Compare(a.Millimetres, b.Millimetres) }).Says()
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
func (t *Task) check() (d Drill, p Pace, a approach.Way, err error) {
	if d, err = DrillByID(t.Drill); err != nil {
		return d, p, a, err
	}
	pace := slices.IndexFunc(Paces, func(x Pace) bool { return x.ID == t.Pace })
	if t.Approach == "fifth" { // as older exercises say it
		t.Approach, t.Into = "below", []harmony.Role{harmony.Fifth}
	}
	a, known := approach.ByID(t.Approach)
	if pace < 0 || !known && t.Approach != "" {
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
	if t.Burst != 0 && (t.Burst < 2 || t.Burst > 12) || t.Beat < 0 || t.Route < 0 {
		return d, p, a, say.Errorf("bursts of %d notes, from beat %d, way %d; bursts are of 2 to 12 notes", t.Burst, t.Beat, t.Route)
	}
	if t.Offset < 0 || t.Offset > 15 {
		return d, p, a, say.Errorf("%d sixteenths late; up to 15 can be", t.Offset)
	}
	return d, Paces[pace], a, nil
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
		return !t.finish(notes)
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
	size := d.names
	if t.Together {
		size = 1 // a group is a whole chord
	}
	for k := 0; d.names > 0 && k+size <= len(walk); {
		classes := map[int]bool{}
		for _, r := range slices.Concat(walk[k : k+size]...) {
			classes[pitch.Class(r.midi)] = true
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
		k += size
	}
}
