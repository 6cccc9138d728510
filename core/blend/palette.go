package blend

import (
	"slices"
	"strings"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
)

// Palette is a stock of notes to play from.
type Palette struct {
	ID, Name string
	OfChord  bool   // counted from the root of each chord, not from the key
	Steps    string // scale degrees from its root
	// Minor and Major are the steps of the two boxes that a palette joins; empty where it
	// is one stock of notes.
	Minor, Major string
}

// Palettes lists the palettes offered.
var Palettes = []Palette{
	{"minor-pentatonic", "minor pentatonic", false, "1 b3 4 5 b7", "", ""},
	{"minor-blues", "minor blues", false, "1 b3 4 b5 5 b7", "", ""},
	{"major-pentatonic", "major pentatonic", false, "1 2 3 5 6", "", ""},
	{"major-blues", "major blues", false, "1 2 b3 3 5 6", "", ""},
	{"mixolydian", "Mixolydian", false, "1 2 3 4 5 6 b7", "", ""},
	{"dorian", "Dorian", false, "1 2 b3 4 5 6 b7", "", ""},
	{"natural-minor", "natural minor", false, "1 2 b3 4 5 b6 b7", "", ""},
	{"composite", "minor blues and Mixolydian together", false, "1 2 b3 3 4 b5 5 6 b7", "", ""},
	{"both-boxes", "minor and major pentatonic, box by box", false, "1 2 b3 3 4 5 6 b7", "1 b3 4 5 b7", "1 2 3 5 6"},
	{"both-blues", "minor and major blues, box by box", false, "1 2 b3 3 4 b5 5 6 b7", "1 b3 4 b5 5 b7", "1 2 b3 3 5 6"},
	{"chord-mixolydian", "Mixolydian of each chord", true, "1 2 3 4 5 6 b7", "", ""},
	{"chord-pentatonic", "pentatonic of each chord", true, "", "", ""}, // major or minor by its third
}

// Own begins the name of a palette of the player's own, which spells itself:
// "own:1 b3 4 5 6".
const (
	Own       = "own:"
	ownFewest = 3 // steps
)

// Steps are those that palettes are made of, upwards.
var Steps = strings.Fields("1 b2 2 b3 3 4 b5 5 b6 6 b7 7")

// PaletteByID finds a palette of the table, or reads one of the player's own.
func PaletteByID(id string) (Palette, error) {
	if text, own := strings.CutPrefix(id, Own); own {
		return ownPalette(text)
	}
	for _, p := range Palettes {
		if p.ID == id {
			return p, nil
		}
	}
	return Palette{}, say.Errorf("there is no palette %q", id)
}

// ownPalette reads steps in any order, each once.
func ownPalette(text string) (Palette, error) {
	asked := strings.Fields(text)
	var steps []string
	for _, step := range Steps {
		if slices.Contains(asked, step) {
			steps = append(steps, step)
		}
	}
	for _, a := range asked {
		if !slices.Contains(Steps, a) {
			return Palette{}, say.Errorf("%q is no step of a palette; they are %s", a, strings.Join(Steps, " "))
		}
	}
	if len(steps) < ownFewest {
		return Palette{}, say.Errorf("a palette has %d steps at least", ownFewest)
	}
	all := strings.Join(steps, " ")
	printed := make([]string, len(steps))
	for i, step := range steps {
		printed[i] = harmony.Degree(step).Printed()
	}
	return Palette{ID: Own + all, Name: strings.Join(printed, " "), Steps: all}, nil
}

// scale gives the intervals of the degrees that palettes are written in.
var scale = map[string]pitch.Interval{
	"1": {}, "b2": {Letters: 1, HalfSteps: 1}, "2": {Letters: 1, HalfSteps: 2}, "b3": {Letters: 2, HalfSteps: 3}, "3": {Letters: 2, HalfSteps: 4},
	"4": {Letters: 3, HalfSteps: 5}, "b5": {Letters: 4, HalfSteps: 6}, "5": {Letters: 4, HalfSteps: 7},
	"b6": {Letters: 5, HalfSteps: 8}, "6": {Letters: 5, HalfSteps: 9}, "b7": {Letters: 6, HalfSteps: 10}, "7": {Letters: 6, HalfSteps: 11},
}

// Member is a note of a palette, with its degree in it.
type Member struct {
	Name   pitch.Name
	Degree string // 1 2 b3 3 4 b5 5 b6 6 b7
	Box    Of     // which of two joined boxes it is from
}

// Notes spells the palette over a chord of a key, from its root upwards.
func (p Palette) Notes(key form.Key, chord harmony.Chord) []Member {
	root, steps := key.Tonic, p.Steps
	if p.OfChord {
		root = chord.Root
		if steps == "" {
			steps = "1 2 3 5 6"
			if chord.Minor() {
				steps = "1 b3 4 5 b7"
			}
		}
	}
	var out []Member
	for _, d := range strings.Fields(steps) {
		out = append(out, Member{root.Up(scale[d]), d, p.boxOf(d)})
	}
	return out
}
