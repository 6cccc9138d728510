package band

import (
	"undaris/core/form"
	"undaris/core/say"
)

// General MIDI drum notes.
const (
	kick, snare, stick, closedHat, openHat, pedalHat = 36, 38, 37, 42, 46, 44
	ride, crash, lowTom, midTom, highTom, clave      = 51, 49, 45, 47, 50, 75
	highBlock, lowBlock                              = 76, 77
)

// hits is one drum's pattern: x hits, o hits softly, . rests. A pattern holds a
// number of steps to the beat over four beats; other metres take what they need.
type hits struct {
	note    int
	pattern string
}

// Groove is a way to play a feel.
type Groove struct {
	Feel  string // an ID of form.Feels
	Steps int    // of the patterns, to the beat
	// Swing is where the second eighth of a beat falls, from 0.5 (straight) to
	// 0.67 (the last of three). Patterns of three to the beat do not swing.
	Swing    float64
	drums    []hits
	ghosts   []hits   // one of these in each bar: what the drums answer with
	bass     string   // an ID of Basses
	upright  bool     // a double bass rather than an electric one
	chords   []string // comping rhythms to choose from, in steps
	hold     float64  // how much of the time to the next stroke a chord rings
	voicings voicings
	pushes   bool // the last stroke of a chord takes the next one
}

// Grooves lists a groove for every feel.
var Grooves = []Groove{
	{"shuffle", 3, 0.67, []hits{
		{ride, "x.ox.ox.ox.o"}, {kick, "x.....x....."}, {snare, "...x.....x.."}, {pedalHat, "...x.....x.."}},
		[]hits{{snare, "............"}, {snare, "........o..."}, {snare, "..o.....o..."}, {snare, "..o..o..o..o"}, {kick, ".....o.....o"}, {snare, ".....o......"}},
		"walking", true, []string{"..o..x..o..x", "x....o...x..", "..x.....x...", "5.56.65.56.x"}, 0.5, shells, true},
	{"slow-12-8", 3, 0.67, []hits{
		{closedHat, "xooxooxooxoo"}, {kick, "x....ox....."}, {snare, "...x.....x.."}},
		[]hits{{ride, "x..x..x..x.."}, {kick, "..o........o"}, {snare, "........o..."}, {openHat, "...........o"}, {snare, ".....o..o..."}},
		"rolling", true, []string{"xooxooxooxoo", "x..o.oxo.o..", "x..o..x..oox"}, 0.9, colours, false},
	{"straight", 2, 0.5, []hits{
		{closedHat, "xoxoxoxo"}, {kick, "x...xo.."}, {snare, "..x...x."}},
		[]hits{{kick, ".......o"}, {openHat, ".......o"}, {kick, "...o...."}, {snare, ".....o.."}, {kick, ".o......"}},
		"driving", false, []string{"xooxooxo", "xoxoxoxo", "xooooxxo", "5566556x"}, 0.7, powers, true},
	{"funk", 4, 0.54, []hits{
		{closedHat, "xoxoxoxoxoxoxoxo"}, {kick, "x..o..x...xo...."}, {snare, "....x..o.o..x..o"}},
		[]hits{{openHat, "......o........."}, {kick, "..............o."}, {snare, "..o............."}, {snare, "...........o.o.."}, {openHat, "..............o."}},
		"on the one", false, []string{"..x...x...x..x..", "x..x......x.....", "....x..x..x.....", "x..x......x...x."}, 0.35, colours, true},
	{"rumba", 4, 0.5, []hits{
		{clave, "x..x...x..x.x..."}, {kick, "x.....x.x.....x."}, {stick, "....x.......x..."}, {closedHat, "x.o.x.o.x.o.x.o."}},
		[]hits{{lowTom, "..............oo"}, {highTom, "......o........."}, {stick, "..........o....."}, {lowTom, "......oo........"}},
		"syncopated", false, []string{"..x.x.x...x.x.x.", "x...x.x.....x.x."}, 0.5, shells, true},
	{"jazz", 3, 0.64, []hits{
		{ride, "x..x.xx..x.x"}, {pedalHat, "...x.....x.."}, {kick, "o..o..o..o.."}},
		[]hits{{snare, "..o........."}, {snare, ".....o..o..."}, {snare, "........o..o"}, {snare, "..o..o......"}, {kick, ".....x......"}, {snare, "...o.......o"}, {kick, "........x..."}, {snare, "............"}},
		"walking", true, []string{"x....x......", "..x.....x...", ".....x...x..", "x....x.....x"}, 0.4, colours, true},
	{"ballad", 3, 0.67, []hits{
		{ride, "x..x.ox..x.o"}, {kick, "x.....x....."}, {stick, "...x.....x.."}},
		[]hits{{pedalHat, "...x.....x.."}, {stick, "........o..."}, {kick, "...........o"}, {ride, "........o..."}},
		"two", true, []string{"x...........", "x.....x.....", "x.....o..o.."}, 1, colours, false},
}

// easing are the tempi between which a swing is straightened, and to how much of it: players
// swing as triplets at a walking pace and almost straight when it is fast.
const (
	easeFrom, easeTo = 130, 300
	eased            = 0.25
)

// SwingAt is where the second eighth falls at a tempo in beats a minute; 0 is a tempo at
// which the groove swings as it is written.
func (g Groove) SwingAt(tempo int) float64 {
	way := min(1, max(0, float64(tempo-easeFrom)/(easeTo-easeFrom)))
	return 0.5 + (g.Swing-0.5)*(1-way*(1-eased))
}

// GrooveOf finds the groove of a feel.
func GrooveOf(feel string) (Groove, error) {
	for _, g := range Grooves {
		if g.Feel == feel {
			return g, nil
		}
	}
	return Groove{}, say.Errorf("there is no groove for the feel %q", feel)
}

// Swings tells whether a feel's eighths are played long and short, and written
// straight with the mark.
func Swings(feel string) bool {
	g, err := GrooveOf(feel)
	return err == nil && g.Swing > 0.6
}

// FeelOf is the feel of a line of which only its swing is known.
func FeelOf(swing bool) string {
	if swing {
		return form.Feels[0].ID
	}
	return "straight"
}

// Tick is the number of ticks to the beat.
const Tick = 960

// at gives the tick of a step within a bar, swung.
func (g Groove) at(step int) int {
	beat, part := step/g.Steps, step%g.Steps
	where := float64(part) / float64(g.Steps)
	switch {
	case g.Steps == 3 && part == 2:
		where = g.Swing
	case g.Steps == 2 && part == 1:
		where = g.Swing
	case g.Steps == 4 && part%2 == 1: // sixteenths swing within the eighth
		where = float64(part/2)/2 + g.Swing/2
	}
	return beat*Tick + int(where*Tick+0.5)
}

// SwingRange holds the least and the most a groove can be swung.
var SwingRange = [2]float64{0.5, 0.75}

// Eighths is where the second eighths of a lead fall at a tempo: a groove of sixteenths
// leaves them straight.
func (g Groove) Eighths(tempo int) float64 {
	if g.Steps == 4 {
		return 0.5
	}
	return g.SwingAt(tempo)
}

// Comper is who plays the chords.
type Comper struct {
	ID      string
	Name    string
	Program int    // General MIDI, from 0
	Range   [2]int // MIDI numbers, both ends included
	Strums  bool   // string after string, and not all at once
}

// Compers lists them; the first is the default.
var Compers = []Comper{
	{"guitar", "Guitar", 26, [2]int{48, 74}, true},
	{"organ", "Organ", 16, [2]int{52, 79}, false},
	{"piano", "Electric piano", 4, [2]int{50, 77}, false},
}

// ComperByID finds a comper; none asked for is the first.
func ComperByID(id string) (Comper, error) {
	if id == "" {
		return Compers[0], nil
	}
	for _, c := range Compers {
		if c.ID == id {
			return c, nil
		}
	}
	return Comper{}, say.Errorf("nobody called %q can comp; there are guitar, organ and piano", id)
}

// Options says how to play.
type Options struct {
	Choruses   int       // 1 to 32
	Seed       uint64    // the same seed gives the same performance
	CountIn    bool      // a bar of sticks before the first
	Metronome  bool      // a click on every beat, on a track of its own
	Comp       string    // an ID of Compers
	DropChords bool      // no comping in every second chorus, so that the line alone has to tell them
	Intensity  int       // 1 to 5; 0 is 3. How hard and how busily the band plays
	Swing      float64   // within SwingRange; 0 is the groove's own
	Lead       []Note    // from the top of the form, in straight eighths; it is swung with the band. Before the top is a pickup, in the count-in
	Without    []string  // names of tracks that do not play
	Ending     string    // an ID of Endings
	Intro      string    // an ID of Intros
	Course     string    // an ID of Courses
	Arc        string    // an ID of Arcs
	Bass       string    // an ID of Basses
	Click      string    // an ID of Clicks
	Tempo      int       // beats a minute, which swing follows; 0 is a walking pace
	Key        *form.Key // whose 9ths and 13ths may be added; none are without it
}

// Limits of the options.
const (
	MaxChoruses  = 32
	MaxIntensity = 5
)

// maxBars keeps a performance to what can be played and sent.
const maxBars = form.MaxBars * 4
