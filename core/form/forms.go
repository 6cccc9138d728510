package form

import "strings"

// Form is a progression in numerals that players know by name.
type Form struct {
	ID, Name string
	Minor    bool
	Text     string // the text form, in numerals
	About    string // one line on where it is used
}

// Forms lists the forms offered; one entry here appears everywhere.
var Forms = []Form{
	{"slow-change", "Twelve-bar, slow change", false,
		"| I7 | I7 | I7 | I7 |\n| IV7 | IV7 | I7 | I7 |\n| V7 | IV7 | I7 | V7 |", "four bars of the one before it moves"},
	{"quick-change", "Twelve-bar, quick change", false,
		"| I7 | IV7 | I7 | I7 |\n| IV7 | IV7 | I7 | I7 |\n| V7 | IV7 | I7 | V7 |", "the four answers already in bar 2"},
	{"minor-blues", "Twelve-bar, minor", true,
		"| i7 | i7 | i7 | i7 |\n| iv7 | iv7 | i7 | i7 |\n| bVI7 | V7 | i7 | V7 |", "minor one and four, a dark flat six before the five"},
	{"jazz-blues", "Twelve-bar, jazz", false,
		"| I7 | IV7 | I7 | v7 I7 |\n| IV7 | #IVdim7 | I7 | VI7 |\n| ii7 | V7 | I7 VI7 | ii7 V7 |", "two–fives lead from chord to chord"},
	{"eight-bar", "Eight-bar, early five", false,
		"| I7 | V7 | IV7 | IV7 |\n| I7 | V7 | I7 | V7 |", "the five comes in bar 2"},
	{"eight-bar-four", "Eight-bar, early four", false,
		"| I7 | I7 | IV7 | IV7 |\n| I7 | V7 | I7 | V7 |", "two bars to a chord, then home"},
	{"sixteen-bar", "Sixteen-bar", false,
		"| I7 | I7 | I7 | I7 |\n| I7 | I7 | I7 | I7 |\n| IV7 | IV7 | I7 | I7 |\n| V7 | IV7 | I7 | V7 |", "a twelve-bar with the first line told twice"},
	{"vamp-flat-seven", "Vamp I–♭VII–IV", false, "| I | bVII | IV | I |", "major triads, minor pentatonic over all"},
	{"vamp-flat-three", "Vamp I–♭III7–IV7", false, "| I7 | bIII7 | IV7 | IV7 |", "dominants a minor third apart"},
	{"vamp-minor", "Vamp i–♭VI–♭VII", true, "| i | bVI | bVII | i |", "minor rock"},
	{"vamp-three", "Vamp I–IV–V", false, "| I | IV | V | IV |", "three major chords round and round"},
	{"two-five-one", "Two–five–one", false, "| ii7 | V7 | Imaj7 | % |", "the cadence of standards"},
	{"one-six-four-five", "I–vi–IV–V", false, "| I | vi | IV | V |", "soul and doo-wop ballads"},
}

// Turnaround is a way to fill the last two bars.
type Turnaround struct {
	ID, Name string
	Minor    bool
	Ending   bool // closes the tune instead of leading back
	Text     string
}

// Turnarounds lists the turnarounds and endings offered.
var Turnarounds = []Turnaround{
	{"plain", "One, five", false, false, "| I7 | V7 |"},
	{"three-six-two-five", "Three–six–two–five", false, false, "| iii7 VI7 | ii7 V7 |"},
	{"dominants", "Dominants in fifths", false, false, "| I7 VI7 | II7 V7 |"},
	{"climbing-bass", "Climbing bass", false, false, "| I7 I7/3 | IV7 #IVdim7 . V7 |"},
	{"half-steps-down", "Dominants in half steps", false, false, "| I7 bIII7 | II7 bII7 |"},
	{"flat-six", "Flat six, five", false, false, "| I7 | bVI7 V7 |"},
	{"ending-sixth", "Ending: half step into the sixth", false, true, "| I7 | bII7 I6 |"},
	{"ending-ninth", "Ending: half step into the ninth", false, true, "| I7 | bII9 I9 |"},
	{"minor-plain", "One, five", true, false, "| i7 | V7 |"},
	{"minor-flat-six", "Flat six, five", true, false, "| i7 | bVI7 V7 |"},
	{"minor-two-five", "Two–five", true, false, "| i7 | ii7b5 V7 |"},
	{"minor-ending", "Ending: half step into the sixth", true, true, "| i7 | bII7 i6 |"},
}

// In writes the form in a key of its own mode or any other.
func (f Form) In(key Key) Progression { return mustRead(f.Text, key) }

// In writes the turnaround's two bars in a key.
func (t Turnaround) In(key Key) Progression { return mustRead(t.Text, key) }

// mustRead reads a text of the tables, in four beats.
func mustRead(text string, key Key) Progression {
	p, err := Read(text, 4, key)
	if err != nil {
		panic("form table: " + err.Error())
	}
	return p
}

// FormByID finds a form of the table.
func FormByID(id string) (Form, bool) {
	for _, f := range Forms {
		if f.ID == id {
			return f, true
		}
	}
	return Form{}, false
}

// MinTempo and MaxTempo bound what can be played, in beats a minute.
const (
	MinTempo = 30
	MaxTempo = 300
)

// MinSwing and MaxSwing bound where the second eighth falls in its beat, in percent: from
// straight to dotted.
const (
	MinSwing = 50
	MaxSwing = 75
)

// Feel is how the band counts a chart.
type Feel struct {
	ID, Name string
	Tempo    int // beats a minute to start from
}

// Feels lists the feels a chart can have.
var Feels = []Feel{
	{"shuffle", "shuffle", 96},
	{InThrees, "slow 12/8", 58},
	{"straight", "straight rock", 112},
	{"funk", "funk sixteenths", 92},
	{"rumba", "rumba blues", 116},
	{"jazz", "jazz walk", 132},
	{"ballad", "ballad", 66},
}

// InThrees is the feel of charts whose beats are three eighths.
const InThrees = "slow-12-8"

// FeelNamed finds a feel by its ID or its name, however it is written.
func FeelNamed(name string) (Feel, bool) {
	for _, f := range Feels {
		if strings.EqualFold(f.ID, strings.TrimSpace(name)) || strings.EqualFold(f.Name, strings.TrimSpace(name)) {
			return f, true
		}
	}
	return Feel{}, false
}

// FeelByID finds a feel of the table.
func FeelByID(id string) (Feel, bool) {
	for _, f := range Feels {
		if f.ID == id {
			return f, true
		}
	}
	return Feel{}, false
}
