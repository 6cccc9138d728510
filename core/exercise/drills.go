package exercise

import (
	"context"
	"errors"
	"slices"

	"undaris/core/arpeggio"
	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Drill is a way to walk through the tones of a chord.
type Drill struct {
	ID, Name, About string
	ladder          ladder
	walk            func(rungs []rung, t Task) [][]rung
}

// Task says what is to be practised.
type Task struct {
	In              *neck.Instrument
	Hand            neck.Hand
	Window          neck.Window
	HighStr, LowStr int    // strings, both included; 0 is all
	Drill           string // an ID of Drills
	Pace            string // an ID of Paces
	From            string // a degree to start from; "" is the lowest
	Order           int    // 1 to 24, for the orders of four tones
	Down            bool   // from the top
	Dress           string // an ID of Dresses: what leads into each tone
}

// Pace is how many notes fall on a beat.
type Pace struct {
	ID, Name string
	ticks    int
}

// Paces lists them.
var Paces = []Pace{
	{"quarters", "quarters", 960}, {"eighths", "eighths", 480}, {"triplets", "triplets", 320},
	{"sixteenths", "sixteenths", 240}, {"sextuplets", "sextuplets", 160},
}

// Dress is what leads into each tone of a drill.
type Dress struct {
	ID, Name string
	before   []int // half steps from the tone, in order
}

// Dresses lists them; the scale's own neighbour is taken above, a fret below.
var Dresses = []Dress{
	{"", "plain", nil}, {"below", "approach from a fret below", []int{-1}}, {"above", "approach from a fret above", []int{1}},
	{"enclosure", "enclosure: above, below, tone", []int{2, -1}},
}

// rung is a step of a ladder.
type rung struct {
	midi   int
	name   pitch.Name
	degree harmony.Degree
}

// ladder finds the rungs of a chord in a window, low to high.
type ladder func(t Task, c harmony.Chord) []rung

// Drills lists the walks; one entry here appears everywhere.
var Drills = []Drill{
	{"run", "Up and down", "every chord tone, up and down again", tones(), upAndDown},
	{"one-way", "One way", "up, or down, over and over", tones(), oneWay},
	{"orders", "The 24 orders", "four tones in one order, from each root", tones(), orders},
	{"thirds", "Roots and thirds", "only what tells the chord", only("R", "3", "b3"), upAndDown},
	{"sixths", "Sixths", "roots and thirds turned over, as double stops", tones(), sixths},
	{"guides", "Thirds and sevenths", "the guide tones alone", only("3", "b3", "b7", "7", "6"), upAndDown},
	{"triads", "Triads and inversions", "three tones from each tone in turn", only("R", "3", "b3", "5", "b5", "#5"), groups(3)},
	{"spread", "Spread triads", "root, fifth, third above", tones(), spread("R", "5", "10")},
	{"spread-fourth", "Spread triads, the fourth brushed", "root, fifth, third, fourth, third", tones(), spread("R", "5", "10", "11", "10")},
	{"spread-climbing", "Spread triads, climbing on", "root, fifth, third, fourth, fifth", tones(), spread("R", "5", "10", "11", "12")},
	{"scale", "Scale", "the chord's scale up and down", scale, upAndDown},
	{"scale-thirds", "Scale in thirds", "a third from each note", scale, steps(0, 2)},
	{"scale-triads", "Scale in triads", "a triad from each note", scale, steps(0, 2, 4)},
	{"scale-sevenths", "Scale in sevenths", "a seventh chord from each note", scale, steps(0, 2, 4, 6)},
	{"two-up", "Two up, one down", "forward two, back one", scale, twoUpOneDown},
	{"broken-thirds", "Broken thirds, both ways", "one third up, the next one down", scale, brokenThirds},
	{"half-diminished", "Half-diminished from the third", "the chord's own 3 5 b7 9", halfDiminished, upAndDown},
	{"extensions", "Extensions", "9, 11 and 13 on top of the chord", extended, upAndDown},
	{"shells", "Shell voicings", "root, third, seventh for comping", shells, held},
}

// DrillByID finds a drill of the table.
func DrillByID(id string) (Drill, error) {
	for _, d := range Drills {
		if d.ID == id {
			return d, nil
		}
	}
	return Drill{}, say.Errorf("there is no exercise %q", id)
}

// Over writes a drill over every chord of a form for as long as it lasts: up one
// chord and down the next, each going on from where the hand is.
func Over(ctx context.Context, p form.Progression, t Task) ([]score.Note, error) {
	drill, err := DrillByID(t.Drill)
	if err != nil {
		return nil, err
	}
	pace := slices.IndexFunc(Paces, func(x Pace) bool { return x.ID == t.Pace })
	dress := slices.IndexFunc(Dresses, func(x Dress) bool { return x.ID == t.Dress })
	if pace < 0 || dress < 0 {
		return nil, say.Errorf("there is no pace %q or approach %q", t.Pace, t.Dress)
	}
	if t.HighStr == 0 {
		t.HighStr, t.LowStr = 1, t.In.Strings()
	}
	if t.HighStr < 1 || t.LowStr < t.HighStr || t.LowStr > t.In.Strings() {
		return nil, say.Errorf("strings %d to %d; write the highest first, 1 to %d", t.HighStr, t.LowStr, t.In.Strings())
	}
	if t.Order != 0 && (t.Order < 1 || t.Order > 24) {
		return nil, say.Errorf("order %d; there are 24", t.Order)
	}
	var notes []score.Note
	for _, place := range joined(p) {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		rungs := drill.ladder(t, place.Chord)
		from := (place.Bar*p.Beats + place.Beat) * score.Tick
		to := from + place.Length*score.Tick
		if place.Chord.None || len(rungs) == 0 {
			continue
		}
		here := t
		if drill.ID == "one-way" && len(notes) > 0 { // up one chord and down the next
			t.Down = !t.Down
			here = t
			here.From = ""
			rungs = nearFirst(rungs, notes[len(notes)-1].Pitch.MIDI(), &here)
		}
		walk := slices.DeleteFunc(drill.walk(rungs, here), func(group []rung) bool { return len(group) > 1 && !playable(t, group) })
		if len(walk) == 0 {
			continue
		}
		step := Paces[pace].ticks
		if drill.ID == "shells" {
			step = max(step, 2*score.Tick)
		}
		notes = append(notes, lay(t, walk, Dresses[dress].before, from, to, step)...)
	}
	if len(notes) > score.MaxNotes {
		return nil, say.Errorf("%d notes; a line holds %d. Take a slower pace or fewer bars", len(notes), score.MaxNotes)
	}
	if len(notes) == 0 {
		return nil, errors.New("nothing of it lies on these strings in these frets; widen the window")
	}
	if !finish(t, notes) {
		return nil, errors.New("no hand can play it as asked here; take another position or fewer strings")
	}
	return notes, nil
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

// nearFirst starts a one-way walk at the rung nearest to the last note.
func nearFirst(rungs []rung, midi int, t *Task) []rung {
	best := 0
	for i, r := range rungs {
		if abs(r.midi-midi) < abs(rungs[best].midi-midi) {
			best = i
		}
	}
	if t.Down && best < 2 || !t.Down && best > len(rungs)-3 { // too near the end to go on
		t.Down = !t.Down
	}
	if t.Down {
		return rungs[:best+1]
	}
	return rungs[best:]
}

// lay puts a walk into time, over and over until the chord is over; what leads
// into a tone comes before it.
func lay(t Task, walk [][]rung, before []int, from, to, step int) (notes []score.Note) {
	at := from
	add := func(r rung, at int) {
		notes = append(notes, score.Note{Start: at, Length: min(step, to-at), Pitch: pitch.At(r.midi, r.name), Degree: string(r.degree)})
	}
	for i := 0; at < to; i++ {
		group := walk[i%len(walk)]
		for _, by := range before {
			lead := rung{midi: group[0].midi + by}
			if at+step >= to || len(t.In.Find(lead.midi, t.around(3))) == 0 {
				continue
			}
			lead.name = plain(lead.midi, group[0].name, by)
			add(lead, at)
			at += step
		}
		if at >= to {
			break
		}
		for _, r := range group {
			add(r, at)
		}
		at += step
	}
	return notes
}

// plain names a note that leads to another: from below on the letter below.
func plain(midi int, to pitch.Name, by int) pitch.Name {
	letter := to.Letter + 1
	if by < 0 {
		letter = to.Letter + 6
	}
	for _, n := range pitch.Roots {
		if n.Letter == letter%7 && n.Class() == midi%12 {
			return n
		}
	}
	for _, n := range pitch.Roots {
		if n.Class() == midi%12 {
			return n
		}
	}
	return to
}

// finish finds places and fingers: in the window, a fret around it for notes
// that lead in.
func finish(t Task, notes []score.Note) bool {
	var prefer []int
	if t.HighStr > 1 || t.LowStr < t.In.Strings() {
		prefer = make([]int, len(notes))
		for i, n := range notes {
			for _, p := range t.In.Find(n.Pitch.MIDI(), t.Window) {
				if p.String >= t.HighStr && p.String <= t.LowStr {
					prefer[i] = p.String
				}
			}
		}
	}
	for _, frets := range []int{0, 1, 3} {
		if _, _, ok := score.Place(t.In, notes, t.around(frets), t.Hand, prefer); ok {
			return true
		}
	}
	return false
}

// playable tells whether the hand can hold tones together.
func playable(t Task, group []rung) bool {
	var notes []score.Note
	for _, r := range group {
		notes = append(notes, score.Note{Length: score.Tick, Pitch: pitch.At(r.midi, r.name)})
	}
	return finish(t, notes)
}

// around is the window with so many frets more on either side.
func (t Task) around(frets int) neck.Window {
	return neck.Window{Low: max(0, t.Window.Low-frets), High: min(t.In.Last(), t.Window.High+frets)}
}

func abs(n int) int { return max(n, -n) }

// tones is the ladder of every chord tone in the window.
func tones() ladder {
	return func(t Task, c harmony.Chord) (out []rung) {
		for _, n := range arpeggio.Make(t.In, c, t.Window, t.Hand, nil).Notes {
			if n.String >= t.HighStr && n.String <= t.LowStr {
				out = append(out, rung{n.Pitch.MIDI(), n.Pitch.Name, n.Degree})
			}
		}
		return out
	}
}

// only keeps some degrees of the chord.
func only(degrees ...harmony.Degree) ladder {
	return func(t Task, c harmony.Chord) []rung {
		return slices.DeleteFunc(tones()(t, c), func(r rung) bool { return !slices.Contains(degrees, r.degree) })
	}
}

// scale is the chord's own scale: what rests and what colours over it, with the
// eleventh.
func scale(t Task, c harmony.Chord) []rung {
	table := blend.Sounds(c)
	return inWindow(t, func(midi int) (rung, bool) {
		above := c.Above(midi)
		sound := table[above]
		if sound.Class == blend.Colour && !c.HasDegree(sound.Degree) || above == 5 || sound.Class == blend.ChordTone {
			return named(c, midi, sound.Degree), true
		}
		return rung{}, false
	})
}

// extended is the chord with its 9, 11 and 13.
func extended(t Task, c harmony.Chord) []rung {
	table := blend.Sounds(c)
	return inWindow(t, func(midi int) (rung, bool) {
		above := c.Above(midi)
		_, tone := c.ToneAt(midi % 12)
		return named(c, midi, table[above].Degree), tone || above == 2 || above == 5 || above == 9 && !c.HasDegree("6")
	})
}

// halfDiminished is the half-diminished seventh chord on the third of a dominant;
// over other chords it is the seventh chord on their third.
func halfDiminished(t Task, c harmony.Chord) []rung {
	table := blend.Sounds(c)
	return inWindow(t, func(midi int) (rung, bool) {
		d := table[c.Above(midi)].Degree
		return named(c, midi, d), slices.Contains([]harmony.Degree{"3", "b3", "5", "b7", "7", "9"}, d)
	})
}

// named spells a pitch as a degree of a chord.
func named(c harmony.Chord, midi int, d harmony.Degree) rung {
	if tone, ok := c.ToneAt(midi % 12); ok {
		return rung{midi, tone.Name, tone.Degree}
	}
	i, _ := d.Interval()
	name := c.Root.Up(i)
	if name.Alter < -1 || name.Alter > 1 {
		name = name.Simpler()
	}
	return rung{midi, name, d}
}

// inWindow collects the pitches of a window that are asked for.
func inWindow(t Task, take func(midi int) (rung, bool)) (out []rung) {
	low := t.In.MIDI(neck.Placement{String: t.LowStr, Fret: t.Window.Low})
	high := t.In.MIDI(neck.Placement{String: t.HighStr, Fret: t.Window.High})
	for midi := low; midi <= high; midi++ {
		if r, ok := take(midi); ok && slices.ContainsFunc(t.In.Find(midi, t.Window), func(p neck.Placement) bool {
			return p.String >= t.HighStr && p.String <= t.LowStr
		}) {
			out = append(out, r)
		}
	}
	return out
}
