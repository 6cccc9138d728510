package exercise

import (
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
)

// Drill is a way to walk through the tones of a chord: which tones, and in which
// figure. One entry here appears everywhere.
type Drill struct {
	ID, Name, About string
	Group           string // an ID of [Groups]
	Words           string // what players call it beside its name, to be searched by
	ladder          ladder
	figure          figure
	// fits tells over which chords it is played; nil is over all. Over the others
	// there is silence, and it is said.
	fits func(harmony.Chord) bool
	// plan lays the walks of all chords at once, in place of ladder and figure,
	// where one chord depends on another. Groups follow each other every step ticks.
	plan func(t Task, all []stretch, step int) error
	// ground is what it is practised over, in place of the chords of a form.
	ground  func(form.Progression) form.Progression
	takes   []string         // IDs of [Choices] that it asks for alone
	still   []string         // IDs of [Choices] that change nothing
	slowest int              // the least that each of its groups lasts, in ticks
	settles bool             // each chord's time ends on one of its tones
	Cell    string           // the steps that are played where none are given, as they are typed
	strokes bool             // its strokes are said, down and up in turn
	leads   bool             // it lays what leads into a tone itself
	reaches bool             // its reach is told, however comfortable
	names   int              // of so many notes are the chords that the steps of the key give, which are named over it; 0 is none
	of      func(Task) []int // the steps of the key that are played, from 0; nil is all
}

// rung is a step of a ladder.
type rung struct {
	midi   int
	name   pitch.Name
	degree harmony.Degree
	str    int          // the string it is meant for; 0 is any
	held   int          // for how many units it is held; 0 is one
	bend   int          // bent up from there, in quarter tones
	in     harmony.Role // what it is in the chord that its group makes, where own tells that this is not the one that sounds
	own    bool
	about  bool   // the exercise is about it
	named  string // the chord that begins with it, where that is told
}

// member is what a rung is in its own chord.
func (r rung) member() harmony.Role {
	if r.own {
		return r.in
	}
	return r.degree.Role()
}

// ladder finds the rungs of a chord in a window, low to high.
type ladder func(t Task, c harmony.Chord) []rung

// figure puts rungs in an order: groups of one, or of what sounds together.
type figure func(rungs []rung, t Task) [][]rung

// Groups are the kinds of exercises, in the order in which they are shown.
var Groups = []struct{ ID, Name string }{
	{"arpeggios", "Arpeggios"}, {"triads", "Triads"}, {"scale", "The chord's scale"}, {"key", "The key's scale"},
	{"stops", "Together, and in octaves"}, {"ways", "Ways to the next tone"}, {"bends", "Bends"},
}

// Drills lists the exercises.
var Drills = []Drill{
	{ID: "run", Name: "Up and down", Group: "arpeggios", Words: "arpeggio, chord tones", About: "every chord tone, up and down again", ladder: tones, figure: upAndDown, takes: []string{"octave", "land", "beat", "route"}},
	{ID: "onward", Name: "Onward", Group: "arpeggios", Words: "continuous, linking", About: "chord tones without a break: on through the changes in one direction, turning only at the ends", plan: Task.onward},
	{ID: "alternate", Name: "Up one chord, down the next", About: "chord tones up through one chord and down through the next, from the nearest tone", Group: "arpeggios", Words: "alternating, through the form", plan: Task.alternate, still: []string{"from"}},
	{ID: "twelve-keys", Name: "Through the twelve keys", Group: "arpeggios", Words: "circle of fourths, circle of fifths, cycle", About: "the arpeggio of the first chord round the circle of fourths: the chords become those, a bar each", ladder: tones, figure: upAndDown, ground: roundTheCircle, takes: []string{"octave"}},
	{ID: "orders", Name: "The 24 orders", Group: "arpeggios", Words: "permutations, patterns", About: "four tones in one order, from each root or the degree you start on", ladder: tones, figure: orders, still: []string{"down"}, takes: []string{"order"}},
	{ID: "thirds", Name: "Roots and thirds", Group: "arpeggios", Words: "power, essential", About: "only what tells the chord", ladder: only("R", "3", "b3"), figure: upAndDown, takes: []string{"land", "beat", "route"}},
	{ID: "guides", Name: "Thirds and sevenths", Group: "arpeggios", Words: "guide tones, shell", About: "the guide tones alone", ladder: only("3", "b3", "b7", "7", "6"), figure: upAndDown, takes: []string{"land", "beat", "route"}},
	{ID: "fifths-down", Name: "Approach, 5, 3, R", Group: "arpeggios", Words: "enclosure, chromatic approach", About: "a tone led into, and two more of its chord: a half step below the fifth on the beat, then fifth, third and root, or any tone, order and way in", plan: Task.ledInto, leads: true, still: []string{"from", "into"}, takes: []string{"cell"}, Cell: "5 3 1"},
	{ID: "ninth", Name: "With the ninth", Group: "arpeggios", Words: "dominant nine", About: "the chord's run with its 9, mostly two notes a string", ladder: with("9"), figure: upAndDown, takes: []string{"octave", "land", "beat", "route"}},
	{ID: "extensions", Name: "Extensions", Group: "arpeggios", Words: "upper structure, 9 11 13, tensions", About: "the chord's own shape, then a figure into each 9, 11 and 13 round it", ladder: with("9", "11", "13"), figure: extensions, still: []string{"from"}},
	{ID: "from-third", Name: "Seventh chord on the third", Group: "arpeggios", Words: "half-diminished, m7b5, rootless ninth, superimposed", About: "3 5 ♭7 9: over a dominant the half-diminished chord on its third, over a minor seventh the major seventh on its third", ladder: fromThird, figure: upFrom(harmony.Third), fits: hasSeventh},

	{ID: "third-in-roots", Name: "Root, 3 5 ♭7 9, root", Group: "arpeggios", Words: "half-diminished, m7b5, superimposed", About: "the seventh chord on the third, the root before it, after it or both", ladder: with("9"), figure: rooted, fits: hasSeventh, still: []string{"from"}, takes: []string{"roots"}},
	{ID: "reach", Name: "One tone beyond", Group: "arpeggios", Words: "stretch, beyond", About: "the run, and the next chord tone above it, reached for on the highest string; the reach is told", ladder: reached, figure: upAndDown, reaches: true},
	{ID: "two-positions", Name: "Up here, down there", Group: "arpeggios", Words: "shift, connect positions", About: "up in this position, a shift, and down in the next one", plan: twoPositions(arpeggiated), still: []string{"from", "down"}},

	{ID: "triads", Name: "Triads and inversions", Group: "triads", Words: "inversions, 1 3 5", About: "three tones from each tone in turn", ladder: only(triad...), figure: steps(0, 1, 2), takes: []string{"land", "beat", "route", "together"}},
	{ID: "triad-chords", Name: "Triads as chords", Group: "triads", Words: "inversions, block chords, comping", About: "each inversion struck at once", ladder: only(triad...), figure: chords(0, 1, 2), slowest: tick, still: []string{"from", "approach", "into", "burst"}},
	{ID: "spread", Name: "Spread triads", Group: "triads", Words: "open triads, drop", About: "root, fifth, third above, or any tones counted from the root: 1 5 10 9 8 goes on by steps", ladder: spreadTones, figure: spread(1, 5, 10), still: []string{"from"}, takes: []string{"together", "cell"}, Cell: "1 5 10"},
	{ID: "spread-inversions", Name: "Spread triads, inverted", Group: "triads", Words: "open triads, inversions", About: "every second tone of the triad, from each in turn", ladder: only(triad...), figure: steps(0, 2, 4), takes: []string{"land", "beat", "route", "together"}},
	{ID: "spread-fourth", Name: "Spread triads, the fourth brushed", Group: "triads", Words: "sus, open triads", About: "root, fifth, third, fourth, third", ladder: tones, figure: spread(1, 5, 10, 11, 10), still: []string{"from"}, takes: []string{"together"}, settles: true},
	{ID: "spread-climbing", Name: "Spread triads, climbing on", Group: "triads", Words: "open triads", About: "root, fifth, third, fourth, fifth", ladder: tones, figure: spread(1, 5, 10, 11, 12), still: []string{"from"}, takes: []string{"together"}, settles: true},
	{ID: "key-triads-145", Name: "Triads of I, IV and V, or others", Group: "triads", Words: "primary triads, I IV V", About: "triads of chosen steps of the key, 1 4 5 or any, over whatever chord sounds", ladder: keyScale, figure: keyTriads, names: 3, of: chosen, takes: []string{"cell", "together"}, Cell: "1 4 5"},

	{ID: "string-skips", Name: "String skips", Group: "arpeggios", Words: "skipping, alternate picking, wide", About: "chord tones on strings two apart: one string, the next but one, back to the one between; down and up strokes in turn", ladder: skipping, figure: upAndDown, strokes: true},
	{ID: "scale", Name: "Chord's scale", Group: "scale", Words: "mode, mixolydian, dorian", About: "the chord's scale up and down", ladder: scale, figure: upAndDown, takes: []string{"octave", "land", "beat", "route"}},
	{ID: "scale-thirds", Name: "Thirds, 1 3 2 4", Group: "scale", Words: "intervals, sequence", About: "a third up from each note of the chord's scale", ladder: scale, figure: turned(0, 2, 1, 3), takes: []string{"land", "beat", "route", "together"}},
	{ID: "scale-thirds-down", Name: "Thirds, 3 1 4 2", Group: "scale", Words: "intervals, sequence", About: "a third down to each note", ladder: scale, figure: turned(2, 0, 3, 1), takes: []string{"land", "beat", "route", "together"}},
	{ID: "scale-thirds-up-down", Name: "Thirds, 1 3 4 2", Group: "scale", Words: "intervals, zigzag", About: "one third up, the next one down", ladder: scale, figure: turned(0, 2, 3, 1), takes: []string{"land", "beat", "route", "together"}},
	{ID: "scale-thirds-down-up", Name: "Thirds, 3 1 2 4", Group: "scale", Words: "intervals, zigzag", About: "one third down, the next one up", ladder: scale, figure: turned(2, 0, 1, 3), takes: []string{"land", "beat", "route", "together"}},
	{ID: "scale-fourths", Name: "Fourths", Group: "scale", Words: "intervals, quartal", About: "a fourth up from each note of the chord's scale", ladder: scale, figure: steps(0, 3), takes: []string{"land", "beat", "route"}},
	{ID: "scale-threes", Name: "In threes", Group: "scale", Words: "sequence, groups of three", About: "three notes of the scale from each in turn", ladder: scale, figure: steps(0, 1, 2), takes: []string{"land", "beat", "route"}},
	{ID: "scale-cell", Name: "A cell of your own", Group: "scale", Words: "pattern, motif, digital", About: "a few steps of the scale, such as 1 2 3 5 or those of a lick, carried from each note of the chord's scale; on one string it climbs along it", ladder: scale, figure: cell, takes: []string{"cell", "land", "beat", "route"}, Cell: "1 2 3 5"},
	{ID: "scale-fours", Name: "In fours", Group: "scale", Words: "sequence, groups of four", About: "four notes of the scale from each in turn", ladder: scale, figure: steps(0, 1, 2, 3), takes: []string{"land", "beat", "route"}},
	{ID: "scale-triads", Name: "Scale in triads", Group: "scale", Words: "diatonic triads", About: "a triad from each note of the chord's scale", ladder: scale, figure: stacked(3), takes: []string{"land", "beat", "route", "together"}},
	{ID: "scale-sevenths", Name: "Scale in sevenths", Group: "scale", Words: "diatonic arpeggios", About: "a seventh chord from each note of the chord's scale", ladder: scale, figure: stacked(4), takes: []string{"land", "beat", "route"}},
	{ID: "three-a-string", Name: "Three notes a string", Group: "scale", Words: "3nps, three-note-per-string", About: "the chord's scale, three notes on each string", ladder: perString(3), figure: upAndDown},
	{ID: "four-a-string", Name: "Four notes a string", Group: "scale", Words: "4nps, four-note-per-string", About: "the chord's scale, four notes on each string: the hand climbs", ladder: perString(4), figure: upAndDown},

	{ID: "scale-two-positions", Name: "Scale up here, down there", Group: "scale", Words: "shift, connect positions", About: "the chord's scale up in this position, a shift, and down in the next one", plan: twoPositions(lying(scale)), still: []string{"from", "down"}},
	{ID: "scale-pedal", Name: "One voice stays, the other climbs", Group: "scale", Words: "pedal point, drone, oblique", About: "the lowest root returns between the notes of the chord's scale that climb over it, or is struck under each", ladder: scale, figure: pedal, takes: []string{"together"}},

	{ID: "key-scale", Name: "Key's scale", Group: "key", Words: "major scale, diatonic", About: "the scale of the key over every chord", ladder: keyScale, figure: upAndDown, takes: []string{"octave", "land", "beat", "route"}},
	{ID: "key-thirds", Name: "Key's thirds, 1 3 2 4", Group: "key", Words: "intervals, sequence, diatonic", About: "a third up from each step of the key", ladder: keyScale, figure: turned(0, 2, 1, 3), takes: []string{"land", "beat", "route", "together"}},
	{ID: "key-thirds-down", Name: "Key's thirds, 3 1 4 2", Group: "key", Words: "intervals, sequence, diatonic", About: "a third down to each step of the key", ladder: keyScale, figure: turned(2, 0, 3, 1), takes: []string{"land", "beat", "route", "together"}},
	{ID: "key-thirds-up-down", Name: "Key's thirds, 1 3 4 2", Group: "key", Words: "intervals, zigzag, diatonic", About: "one third of the key up, the next one down", ladder: keyScale, figure: turned(0, 2, 3, 1), takes: []string{"land", "beat", "route", "together"}},
	{ID: "key-thirds-down-up", Name: "Key's thirds, 3 1 2 4", Group: "key", Words: "intervals, zigzag, diatonic", About: "one third of the key down, the next one up", ladder: keyScale, figure: turned(2, 0, 1, 3), takes: []string{"land", "beat", "route", "together"}},
	{ID: "key-threes", Name: "Key's scale in threes", Group: "key", Words: "sequence, groups of three", About: "three notes from each step of the key in turn", ladder: keyScale, figure: steps(0, 1, 2), takes: []string{"land", "beat", "route"}},
	{ID: "key-fours", Name: "Key's scale in fours", Group: "key", Words: "sequence, groups of four", About: "four notes from each step of the key in turn", ladder: keyScale, figure: steps(0, 1, 2, 3), takes: []string{"land", "beat", "route"}},
	{ID: "key-cell", Name: "A cell over the key", Group: "key", Words: "pattern, motif, digital", About: "a few steps of the scale, such as 1 2 3 5 or those of a lick, carried from each step of the key", ladder: keyScale, figure: cell, takes: []string{"cell", "land", "beat", "route"}, Cell: "1 2 3 5"},
	{ID: "key-fourths", Name: "Key's scale in fourths", Group: "key", Words: "intervals, quartal", About: "a fourth from each step of the key", ladder: keyScale, figure: steps(0, 3), takes: []string{"land", "beat", "route"}},
	{ID: "key-triads", Name: "Key's triads", Group: "key", Words: "diatonic triads, harmonised scale", About: "the triad of each step of the key", ladder: keyScale, figure: stacked(3), names: 3, takes: []string{"together"}},
	{ID: "key-sevenths", Name: "Key's seventh chords", Group: "key", Words: "diatonic arpeggios, harmonised scale", About: "the seventh chord of each step of the key", ladder: keyScale, figure: stacked(4), names: 4},

	{ID: "key-spread", Name: "Key's triads, spread", Group: "key", Words: "open triads, diatonic", About: "the triad of each step of the key, its third an octave up", ladder: keyScale, figure: opened, names: 3, takes: []string{"together"}},
	{ID: "key-two-positions", Name: "Key's scale up here, down there", Group: "key", Words: "shift, connect positions", About: "the scale of the key up in this position, a shift, and down in the next one", plan: twoPositions(lying(keyScale)), still: []string{"from", "down"}},
	{ID: "key-pedal", Name: "One voice stays, over the key", Group: "key", Words: "pedal point, drone, oblique", About: "the chord's lowest root returns between the notes of the key that climb over it, or is struck under each", ladder: keyScale, figure: pedal, takes: []string{"together"}},

	{ID: "sixths", Name: "Sixths", Group: "stops", Words: "double stops, soul", About: "roots and thirds turned over, as double stops", ladder: tones, figure: sixths, still: []string{"from", "approach", "into"}},
	{ID: "octaves", Name: "Octaves", Group: "stops", Words: "double stops", About: "each chord tone with its octave", ladder: tones, figure: octaves, still: []string{"from", "approach", "into"}},
	{ID: "cell-octaves", Name: "Cells in octaves", Group: "stops", Words: "displaced", About: "two neighbouring tones, and the same two an octave up on other strings", ladder: tones, figure: cellOctaves, still: []string{"from"}},
	{ID: "sinking-thirds", Name: "Sinking thirds", Group: "stops", Words: "double stops, chromatic", About: "thirds as double stops that sink by half steps onto the next chord", plan: Task.sinkingThirds, still: []string{"from", "down", "approach", "into"}},
	{ID: "shells", Name: "Shell voicings", Group: "stops", Words: "comping, guide tones, voicings, rootless", About: "root, third and seventh for comping: R ♭7 3 on strings 6 4 3 or R 3 ♭7 on 5 4 3, with the least motion", plan: Task.shells, slowest: 2 * tick, still: []string{"from", "down", "approach", "into", "burst"}},
	{ID: "stretched", Name: "Extended shape", Group: "triads", Words: "string skipping, sus", About: "triad with 2 and 4 over three strings: root on string 4, 3 4 5 on 3, R 9 3 on 1, or on the three strings that you choose; the 4 perfect over each chord", ladder: stretched(false), figure: upAndDown, fits: hasThird},
	{ID: "stretched-key", Name: "Extended shape of the key", Group: "triads", Words: "string skipping, lydian", About: "the same with the 4 of the key, so that the IV gets its ♯11", ladder: stretched(true), figure: upAndDown, fits: hasThird},

	{ID: "walk-root-third", Name: "Chromatic, root and third", Group: "ways", Words: "chromatic, passing notes", About: "every half step from the root to the third and back", ladder: tones, figure: chromatic(harmony.Root, harmony.Third), still: []string{"from"}},
	{ID: "walk-seventh-root", Name: "Chromatic, seventh and root", Group: "ways", Words: "chromatic, passing notes", About: "every half step from the seventh to the root and back", ladder: tones, figure: chromatic(harmony.Seventh, harmony.Root), fits: hasSeventh, still: []string{"from"}},
	{ID: "walk-third-fifth", Name: "Chromatic, third and fifth", Group: "ways", Words: "chromatic, passing notes", About: "every half step from the third to the fifth and back", ladder: tones, figure: chromatic(harmony.Third, harmony.Fifth), still: []string{"from"}},
	{ID: "walk-fifth-seventh", Name: "Chromatic, fifth and seventh", Group: "ways", Words: "chromatic, passing notes", About: "every half step from the fifth to the seventh and back", ladder: tones, figure: chromatic(harmony.Fifth, harmony.Seventh), fits: hasSeventh, still: []string{"from"}},
	{ID: "walk-ninth-third", Name: "Chromatic, ninth and third", Group: "ways", Words: "chromatic, passing notes", About: "every half step from the ninth to the third and back", ladder: with("9"), figure: chromatic(harmony.Extension, harmony.Third), still: []string{"from"}},
	{ID: "into-root", Name: "Into the next root", Group: "ways", Words: "targeting, landing, timed", About: "chord tones reckoned so that the last one comes out on the next root", plan: into(harmony.Root), leads: true, still: []string{"from"}},
	{ID: "into-third", Name: "Into the next third", Group: "ways", Words: "guide tones, targeting, landing, timed", About: "chord tones reckoned so that the last one comes out on the next third", plan: into(harmony.Third), leads: true, fits: hasThird, still: []string{"from"}},
	{ID: "match-bend", Name: "Fret it, then bend to it", Group: "bends", Words: "intonation, unison, ear", About: "each chord tone fretted, then bent up to: from a whole step below where the string bears it, else from a half step", ladder: tones, figure: matched(false, 4, 2), still: []string{"from"}},
	{ID: "match-whole", Name: "Whole-step bends", Group: "bends", Words: "intonation, full bend", About: "each chord tone fretted, then bent up to from a whole step below, on strings that are plain", ladder: tones, figure: matched(true, 4), still: []string{"from"}},
	{ID: "match-half", Name: "Half-step bends", Group: "bends", Words: "intonation, half bend", About: "each chord tone fretted, then bent up to from a half step below, on strings that are plain", ladder: tones, figure: matched(true, 2), still: []string{"from"}},
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

var triad = []harmony.Degree{"R", "3", "b3", "5", "b5", "#5"}

func hasSeventh(c harmony.Chord) bool {
	return hasThird(c) && (c.HasDegree("b7") || c.HasDegree("7"))
}

func hasThird(c harmony.Chord) bool { return c.HasDegree("3") || c.HasDegree("b3") }

// on tells whether a string is practised on.
func (t Task) on(str int) bool { return t.Region.Strings.Has(str) }

// around is the window with so many frets more on either side.
func (t Task) around(frets int) neck.Region {
	return neck.Region{Low: max(0, t.Region.Low-frets), High: min(t.In.Last(), t.Region.High+frets), Strings: t.Region.Strings}
}

func abs(n int) int { return max(n, -n) }
