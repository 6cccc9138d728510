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
	slowest int              // the least that each of its groups lasts, in ticks
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
	str    int    // the string it is meant for; 0 is any
	bend   int    // bent up from there, in quarter tones
	named  string // the chord that begins with it, where that is told
}

// ladder finds the rungs of a chord in a window, low to high.
type ladder func(t Task, c harmony.Chord) []rung

// figure puts rungs in an order: groups of one, or of what sounds together.
type figure func(rungs []rung, t Task) [][]rung

// Drills lists the exercises.
var Drills = []Drill{
	{ID: "run", Name: "Up and down", About: "every chord tone, up and down again", ladder: tones, figure: upAndDown},
	{ID: "onward", Name: "Onward", About: "chord tones without a break: on through the changes in one direction, turning only at the ends", plan: Task.onward},
	{ID: "twelve-keys", Name: "Through the twelve keys", About: "the arpeggio of the first chord round the circle of fourths: the chords become those, a bar each", ladder: tones, figure: upAndDown, ground: roundTheCircle},
	{ID: "orders", Name: "The 24 orders", About: "four tones in one order, from each root or the degree you start on", ladder: tones, figure: orders},
	{ID: "thirds", Name: "Roots and thirds", About: "only what tells the chord", ladder: only("R", "3", "b3"), figure: upAndDown},
	{ID: "guides", Name: "Thirds and sevenths", About: "the guide tones alone", ladder: only("3", "b3", "b7", "7", "6"), figure: upAndDown},
	{ID: "fifths-down", Name: "Approach, 5, 3, R", About: "four down: a half step below the fifth on the beat, then fifth, third and root", ladder: tones, figure: approachDown},
	{ID: "ninth", Name: "With the ninth", About: "the chord's run with its 9, mostly two notes a string", ladder: with("9"), figure: upAndDown},
	{ID: "extensions", Name: "Extensions", About: "the chord's own shape, then a figure into each 9, 11 and 13 round it", ladder: with("9", "11", "13"), figure: extensions},
	{ID: "from-third", Name: "Seventh chord on the third", About: "3 5 ♭7 9: over a dominant the half-diminished chord on its third, over a minor seventh the major seventh on its third", ladder: fromThird, figure: upAndDown, fits: hasSeventh},

	{ID: "third-in-roots", Name: "Root, 3 5 ♭7 9, root", About: "the seventh chord on the third, the root before and after it", ladder: with("9"), figure: spreadOut(0, 2, 4, 6, 8, 7), fits: hasSeventh},
	{ID: "reach", Name: "One tone beyond", About: "the run, and the next chord tone above it, reached for on the highest string; the reach is told", ladder: reached, figure: upAndDown, reaches: true},
	{ID: "two-positions", Name: "Up here, down there", About: "up in this position, a shift, and down in the next one", plan: Task.twoPositions},

	{ID: "triads", Name: "Triads and inversions", About: "three tones from each tone in turn", ladder: only(triad...), figure: steps(0, 1, 2)},
	{ID: "triad-chords", Name: "Triads as chords", About: "each inversion struck at once", ladder: only(triad...), figure: chords(0, 1, 2), slowest: tick},
	{ID: "spread", Name: "Spread triads", About: "root, fifth, third above", ladder: tones, figure: spread("R", "5", "10")},
	{ID: "spread-inversions", Name: "Spread triads, inverted", About: "every second tone of the triad, from each in turn", ladder: only(triad...), figure: steps(0, 2, 4)},
	{ID: "spread-fourth", Name: "Spread triads, the fourth brushed", About: "root, fifth, third, fourth, third", ladder: tones, figure: spread("R", "5", "10", "11", "10")},
	{ID: "spread-climbing", Name: "Spread triads, climbing on", About: "root, fifth, third, fourth, fifth", ladder: tones, figure: spread("R", "5", "10", "11", "12")},
	{ID: "key-triads-145", Name: "Triads of I, IV and V, or others", About: "triads of chosen steps of the key, 1 4 5 or any, over whatever chord sounds", ladder: keyScale, figure: keyTriads, names: 3, of: chosen},

	{ID: "scale", Name: "Chord's scale", About: "the chord's scale up and down", ladder: scale, figure: upAndDown},
	{ID: "scale-thirds", Name: "Thirds, 1 3 2 4", About: "a third up from each note of the chord's scale", ladder: scale, figure: turned(0, 2, 1, 3)},
	{ID: "scale-thirds-down", Name: "Thirds, 3 1 4 2", About: "a third down to each note", ladder: scale, figure: turned(2, 0, 3, 1)},
	{ID: "scale-thirds-up-down", Name: "Thirds, 1 3 4 2", About: "one third up, the next one down", ladder: scale, figure: turned(0, 2, 3, 1)},
	{ID: "scale-thirds-down-up", Name: "Thirds, 3 1 2 4", About: "one third down, the next one up", ladder: scale, figure: turned(2, 0, 1, 3)},
	{ID: "scale-fourths", Name: "Fourths", About: "a fourth up from each note of the chord's scale", ladder: scale, figure: steps(0, 3)},
	{ID: "scale-threes", Name: "In threes", About: "three notes of the scale from each in turn", ladder: scale, figure: steps(0, 1, 2)},
	{ID: "scale-cell", Name: "A cell of your own", About: "a few steps of the scale, such as 1 2 3 5 or those of a lick, carried from each note of the chord's scale; on one string it climbs along it", ladder: scale, figure: cell},
	{ID: "scale-fours", Name: "In fours", About: "four notes of the scale from each in turn", ladder: scale, figure: steps(0, 1, 2, 3)},
	{ID: "scale-triads", Name: "Scale in triads", About: "a triad from each note of the chord's scale", ladder: scale, figure: steps(0, 2, 4)},
	{ID: "scale-sevenths", Name: "Scale in sevenths", About: "a seventh chord from each note of the chord's scale", ladder: scale, figure: steps(0, 2, 4, 6)},
	{ID: "three-a-string", Name: "Three notes a string", About: "the chord's scale, three notes on each string", ladder: perString(3), figure: upAndDown},
	{ID: "four-a-string", Name: "Four notes a string", About: "the chord's scale, four notes on each string: the hand climbs", ladder: perString(4), figure: upAndDown},

	{ID: "key-scale", Name: "Key's scale", About: "the scale of the key over every chord", ladder: keyScale, figure: upAndDown},
	{ID: "key-thirds", Name: "Key's scale in thirds", About: "a third from each step of the key", ladder: keyScale, figure: turned(0, 2, 1, 3)},
	{ID: "key-fourths", Name: "Key's scale in fourths", About: "a fourth from each step of the key", ladder: keyScale, figure: steps(0, 3)},
	{ID: "key-triads", Name: "Key's triads", About: "the triad of each step of the key", ladder: keyScale, figure: steps(0, 2, 4), names: 3},
	{ID: "key-sevenths", Name: "Key's seventh chords", About: "the seventh chord of each step of the key", ladder: keyScale, figure: steps(0, 2, 4, 6), names: 4},

	{ID: "sixths", Name: "Sixths", About: "roots and thirds turned over, as double stops", ladder: tones, figure: sixths},
	{ID: "octaves", Name: "Octaves", About: "each chord tone with its octave", ladder: tones, figure: octaves},
	{ID: "cell-octaves", Name: "Cells in octaves", About: "two neighbouring tones, and the same two an octave up on other strings", ladder: tones, figure: cellOctaves},
	{ID: "sinking-thirds", Name: "Sinking thirds", About: "thirds as double stops that sink by half steps onto the next chord", plan: Task.sinkingThirds},
	{ID: "shells", Name: "Shell voicings", About: "root, third and seventh for comping: R ♭7 3 on strings 6 4 3 or R 3 ♭7 on 5 4 3, with the least motion", plan: Task.shells, slowest: 2 * tick},
	{ID: "stretched", Name: "Extended shape", About: "triad with 2 and 4 and a string skipped: root on string 4, 3 4 5 on 3, R 9 3 on 1; the 4 perfect over each chord", ladder: stretched(false), figure: upAndDown, fits: hasThird},
	{ID: "stretched-key", Name: "Extended shape of the key", About: "the same with the 4 of the key, so that the IV gets its ♯11", ladder: stretched(true), figure: upAndDown, fits: hasThird},

	{ID: "walk-root-third", Name: "Chromatic, root and third", About: "every half step from the root to the third and back", ladder: tones, figure: chromatic(harmony.Root, harmony.Third)},
	{ID: "walk-seventh-root", Name: "Chromatic, seventh and root", About: "every half step from the seventh to the root and back", ladder: tones, figure: chromatic(harmony.Seventh, harmony.Root), fits: hasSeventh},
	{ID: "walk-third-fifth", Name: "Chromatic, third and fifth", About: "every half step from the third to the fifth and back", ladder: tones, figure: chromatic(harmony.Third, harmony.Fifth)},
	{ID: "walk-fifth-seventh", Name: "Chromatic, fifth and seventh", About: "every half step from the fifth to the seventh and back", ladder: tones, figure: chromatic(harmony.Fifth, harmony.Seventh), fits: hasSeventh},
	{ID: "walk-ninth-third", Name: "Chromatic, ninth and third", About: "every half step from the ninth to the third and back", ladder: with("9"), figure: chromatic(harmony.Extension, harmony.Third)},
	{ID: "into-root", Name: "Into the next root", About: "chord tones reckoned so that the last one comes out on the next root", plan: Task.intoRoots, leads: true},
	{ID: "match-bend", Name: "Fret it, then bend to it", About: "each chord tone fretted, then bent up to from a whole step below", ladder: tones, figure: matched},
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
