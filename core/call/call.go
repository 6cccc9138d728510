package call

import (
	"context"
	"math/rand/v2"
	"slices"
	"strconv"

	"undaris/core/arpeggio"
	"undaris/core/blend"
	"undaris/core/exercise"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Ground is a key with chords in it, and where they are asked for.
type Ground struct {
	Key     form.Key
	Chords  []harmony.Chord
	Windows []neck.Region
}

// Wish is what calls are drawn from. Empty lists allow everything; of orders and
// devices, the plain one.
type Wish struct {
	In       *neck.Instrument
	Hand     neck.Hand
	Grounds  []Ground
	Kinds    []string
	Starts   []harmony.Role // to start from
	Ends     []harmony.Role // to land on
	Orders   []string       // IDs of Orders
	Devices  []string       // IDs of Devices
	Paces    []string       // IDs of Paces
	Tempo    int            // beats a minute, where a pace asks for one
	Only     string         // "up" or "down"; "" is either
	Strings  []neck.Strings // sets, also of strings apart
	Advanced bool           // bends of three half steps too
	Plain    bool           // chord tones alone, and none of them bent to
	Seed     uint64
}

// Check says which window or string set the instrument does not have.
func (w Wish) Check() error {
	for _, g := range w.Grounds {
		for _, window := range g.Windows {
			if err := w.In.CheckRegion(window); err != nil {
				return err
			}
		}
	}
	for _, set := range w.Strings {
		if err := w.In.CheckRegion(neck.Region{Strings: set}); err != nil {
			return err
		}
	}
	return nil
}

// Note is a tone to be named or found, with every place of the window and the
// strings where it may be found.
type Note struct {
	Tone   harmony.Tone
	MIDI   int
	Places []neck.Placement
}

// Call is one thing asked.
type Call struct {
	Kind    string
	Key     form.Key
	Chord   harmony.Chord
	Numeral string
	Region  neck.Region
	Down    bool
	Notes   []Note         // that are to be named or found, in the order they are asked for
	Free    bool           // in any order
	Named   bool           // of [Every]: the note is asked for by its name, not by its degree
	Lead    int            // how many of them lead into the first tone
	Leans   bool           // of [Tones]: the last is no tone of the chord but a 9, 11 or 13 over it
	Order   string         // of [Tones], an ID of Orders
	Device  string         // likewise of Devices
	Pace    string         // an ID of Paces
	Tempo   int            // of a pace
	Drill   string         // of [Material]: its name
	Given   neck.Placement // of the other two
	Bent    int            // half steps that the given place is bent by, of [Place]
	Goal    harmony.Tone   // of [Bend]: what it is to become
	Options []string       // what may be answered: degrees, or half steps
	Answer  string         // of [Place] and [Bend]
	Reads   *pitch.Pitch   // of [Written]: the note, as it sounds
}

// Degree is what is asked for: the degree to start from, to name, or to bend to.
func (c Call) Degree() harmony.Degree { return c.kind().degree(c) }

// Sounds are the MIDI notes of its answer, as they follow: the tones that are asked for, or what a place is, or is bent to.
func (c Call) Sounds(in *neck.Instrument) (midi []int) {
	for _, n := range c.Notes {
		midi = append(midi, n.MIDI)
	}
	if c.Given.String > 0 {
		up := c.Bent
		if c.Kind == Bend {
			up, _ = strconv.Atoi(c.Answer)
		}
		midi = append(midi, in.MIDI(c.Given)+up)
	}
	return midi
}

// length is how many tones are asked for in a row.
const length = 4

// tries is how often a call of a kind is drawn that cannot be had before that kind is given up.
const tries = 400

// Draw draws calls; the same wish and seed draw the same. No call follows itself. Kinds come in rounds, each once, so that none
// is asked more than another; one that cannot be had is left out. It is an error when nothing that is wished for can be had.
func Draw(ctx context.Context, w Wish, count int) ([]Call, error) {
	rng := rand.New(rand.NewPCG(w.Seed, 13))
	kinds := slices.Clone(w.Kinds)
	if len(kinds) == 0 {
		for _, k := range Kinds {
			kinds = append(kinds, k.ID)
		}
	}
	var out []Call
	var round []string
	for len(out) < count {
		if len(round) == 0 {
			round = slices.Clone(kinds)
			rng.Shuffle(len(round), func(i, j int) { round[i], round[j] = round[j], round[i] })
		}
		if len(round) == 0 {
			return nil, say.Errorf("nothing of it can be asked in these frets and on these strings; allow more strings, another position or other degrees")
		}
		kind := round[0]
		round = round[1:]
		c, ok, err := w.first(ctx, rng, kind, out)
		if err != nil {
			return nil, err
		}
		if !ok {
			kinds = slices.DeleteFunc(kinds, func(k string) bool { return k == kind })
			continue
		}
		out = append(out, c)
	}
	return out, nil
}

// first is the first call of a kind that can be had and is not the one before.
func (w Wish) first(ctx context.Context, rng *rand.Rand, kind string, before []Call) (Call, bool, error) {
	for range tries {
		if ctx.Err() != nil {
			return Call{}, false, ctx.Err()
		}
		c, ok := w.draw(rng, kind)
		if ok && (len(before) == 0 || !same(c, before[len(before)-1])) {
			return c, true, nil
		}
	}
	return Call{}, false, nil
}

func same(a, b Call) bool {
	read := func(c Call) (p pitch.Pitch) {
		if c.Reads != nil {
			p = *c.Reads
		}
		return p
	}
	return a.Chord.String() == b.Chord.String() && a.Region == b.Region && a.Says() == b.Says() && read(a) == read(b)
}

// one picks an element of a list, or the zero value of an empty one.
func one[T any](rng *rand.Rand, list []T) (x T) {
	if len(list) > 0 {
		x = list[rng.IntN(len(list))]
	}
	return x
}

func (w Wish) draw(rng *rand.Rand, asked string) (Call, bool) {
	g := one(rng, w.Grounds)
	sounding := slices.DeleteFunc(slices.Clone(g.Chords), func(c harmony.Chord) bool { return c.None })
	if len(sounding) == 0 || len(g.Windows) == 0 {
		return Call{}, false
	}
	c := Call{Kind: asked, Key: g.Key, Chord: one(rng, sounding), Region: one(rng, g.Windows), Down: rng.IntN(2) == 0}
	if set := one(rng, w.Strings); set != 0 {
		c.Region.Strings = set
	}
	if w.Only != "" {
		c.Down = w.Only == "down"
	}
	c.Numeral = form.Numeral(c.Chord, c.Key)
	kind := c.kind()
	if kind.Paced {
		c.Pace, c.Tempo = one(rng, allowed(Paces, w.Paces, func(p Pace) string { return p.ID })).ID, w.Tempo
	}
	if kind.draw == nil { // there is no such kind
		return c, false
	}
	return kind.draw(w, rng, c)
}

// most is how many notes of an exercise are asked for.
const most = 8

// material asks for the first notes of an exercise; of one that strikes notes
// together, or that has no room there, nothing is asked.
func (w Wish) material(rng *rand.Rand, c Call) (Call, bool) {
	d := exercise.Drills[rng.IntN(len(exercise.Drills))]
	p := form.Progression{Beats: 4, Bars: []form.Bar{{Changes: []form.Change{{Chord: c.Chord}}}}}
	notes, _, err := exercise.Over(context.Background(), p, exercise.Task{In: w.In, Hand: w.Hand, Region: c.Region, Key: c.Key, Drill: d.ID, Pace: "eighths", Down: c.Down})
	if err != nil || len(notes) < length || len(score.Stretches(w.In, notes[:min(most, len(notes))], w.Hand)) > 0 {
		return c, false // what needs a warm-up is not sprung on a player
	}
	c.Drill = d.Name
	sounds := blend.Sounds(c.Chord)
	for i, n := range notes[:min(most, len(notes))] {
		if i > 0 && n.Start == notes[i-1].Start {
			return c, false
		}
		to := Note{Tone: harmony.Tone{Degree: sounds[c.Chord.Above(n.Pitch.MIDI())].Degree, Name: n.Pitch.Name}, MIDI: n.Pitch.MIDI()}
		if to.Places = w.within(c, to.MIDI); len(to.Places) == 0 { // a shift or a reach goes beyond the window
			to.Places = []neck.Placement{n.Placement}
		}
		if first := c.Notes; len(first) == 0 && len(w.Starts) > 0 && !slices.Contains(w.Starts, to.Tone.Degree.Role()) {
			return c, false
		}
		c.Notes = append(c.Notes, to)
	}
	for _, s := range sounds {
		c.Options = append(c.Options, string(s.Degree))
	}
	return c, w.ends(c)
}

// tones asks for a chord's tones in a row, from one that the wish allows.
func (w Wish) tones(rng *rand.Rand, c Call) (Call, bool) {
	arp := arpeggio.Make(w.In, c.Chord, c.Region, w.Hand, nil)
	byPitch := map[int]*Note{}
	var all []*Note
	for _, n := range append(slices.Clone(arp.Notes), arp.Alternatives...) {
		midi := n.Pitch.MIDI()
		if byPitch[midi] == nil {
			tone, _ := c.Chord.ToneAt(midi % 12)
			byPitch[midi] = &Note{Tone: tone, MIDI: midi}
			all = append(all, byPitch[midi])
		}
		byPitch[midi].Places = append(byPitch[midi].Places, n.Placement)
	}
	slices.SortFunc(all, func(a, b *Note) int { return a.MIDI - b.MIDI })
	var from []begun
	for _, down := range []bool{false, true} {
		if way := map[bool]string{false: "up", true: "down"}[down]; w.Only == "" || w.Only == way {
			from = append(from, w.begins(all, down)...)
		}
		slices.Reverse(all)
	}
	if len(from) == 0 {
		return c, false
	}
	start := evenly(rng, from)
	c.Down = start.down
	if c.Down {
		slices.Reverse(all)
	}
	run := make([]Note, length)
	for i, n := range all[start.at : start.at+length] {
		run[i] = *n
	}
	c, ok := w.shaped(rng, c, run)
	if c.Lead > 0 || c.Leans {
		for _, s := range blend.Sounds(c.Chord) {
			c.Options = append(c.Options, string(s.Degree))
		}
		return c, ok
	}
	for _, t := range c.Chord.Tones {
		c.Options = append(c.Options, string(t.Degree))
	}
	return c, ok
}

// begun is where tones may begin: with which of them, in which direction, on which string.
type begun struct {
	at, str int
	down    bool
	degree  harmony.Degree
}

// begins lists where tones in an order may begin.
func (w Wish) begins(all []*Note, down bool) (list []begun) {
	for i, n := range all {
		if i+length <= len(all) && (len(w.Starts) == 0 || slices.Contains(w.Starts, n.Tone.Degree.Role())) {
			list = append(list, begun{i, n.Places[0].String, down, n.Tone.Degree})
		}
	}
	return list
}

// evenly draws a degree first, then a string, each as likely as the others, and then one of what begins so.
func evenly(rng *rand.Rand, list []begun) begun {
	var degrees []harmony.Degree
	for _, b := range list {
		if !slices.Contains(degrees, b.degree) {
			degrees = append(degrees, b.degree)
		}
	}
	degree := one(rng, degrees)
	list = slices.DeleteFunc(list, func(b begun) bool { return b.degree != degree })
	var strings []int
	for _, b := range list {
		if !slices.Contains(strings, b.str) {
			strings = append(strings, b.str)
		}
	}
	str := one(rng, strings)
	return one(rng, slices.DeleteFunc(list, func(b begun) bool { return b.str != str }))
}
