package form

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The ways in which players write charts, and what each says. In the key of C.
var ways = map[string]string{
	// Bar lines.
	"| C7 | F7 |":          "| C7 | F7 |",
	"C7 | F7":              "| C7 | F7 |",
	"|| C7 | F7 ||":        "| C7 | F7 |",
	"[| C7 | F7 |]":        "| C7 | F7 |",
	"| C7 | F7 |]":         "| C7 | F7 |",
	"│ C7 │ F7 │":          "| C7 | F7 |",
	"‖ C7 | F7 ‖":          "| C7 | F7 |",
	"|C7|F7|":              "| C7 | F7 |",
	"| C7, F7 | G7 |":      "| C7 F7 | G7 |",
	"| C7 - F7 | G7 |":     "| C7 F7 | G7 |",
	"| C7 – F7 | G7 — C |": "| C7 F7 | G7 C |",
	"| C7;F7 | G7 |":       "| C7 F7 | G7 |",
	"| C7(b9,#11) | F7 |":  "| C7b9#11 | F7 |",
	// No bar lines: a chord is a bar.
	"C7 F7 C7 G7":         "| C7 | F7 | C7 | G7 |",
	"C7, F7, C7":          "| C7 | F7 | C7 |",
	"C7 - F7 - C7":        "| C7 | F7 | C7 |",
	"C7\nF7\nG7":          "| C7 |\n| F7 |\n| G7 |",
	"C7 % F7":             "| C7 | C7 | F7 |",
	"I IV V":              "| C | F | G |",
	"C7 / / /\nF7 / G7 /": "| C7 |\n| F7 G7 |",
	"C7 . . G7":           "| C7 . . G7 |",
	// Repeats and endings.
	"|: C7 | F7 :|":                          "| C7 | F7 |\n| C7 | F7 |",
	"|: C7 | F7 |1. C7 | G7 :|2. C7 | C7 ||": "| C7 | F7 | C7 | G7 |\n| C7 | F7 | C7 | C7 |",
	"|: C7 | F7 |[1. G7 :|[2. C7 |]":         "| C7 | F7 | G7 |\n| C7 | F7 | C7 |",
	"| A7 |: C7 |1. F7 :|2. G7 |: D7 :|":     "| A7 | C7 | F7 |\n| C7 | G7 | D7 |\n| D7 |",
	// The bar before again.
	"| C7 | % | F7 |":        "| C7 | C7 | F7 |",
	"| C7 | F7 | %% | G7 |":  "| C7 | F7 | C7 | F7 | G7 |",
	"| C7 | sim. | F7 |":     "| C7 | C7 | F7 |",
	"| C7 | simile | F7 |":   "| C7 | C7 | F7 |",
	"| C7 | /// | F7 |":      "| C7 | C7 | F7 |",
	"| C7 | / / / / | F7 |":  "| C7 | C7 | F7 |",
	"| C7 F7 | //// |":       "| C7 F7 | F7 |",
	"| C7/// | F7/G7/ |":     "",
	"| C7/// | F7// G7 |":    "| C7 | F7 . . G7 |",
	"| C7 /// | F7 / G7 / |": "| C7 | F7 G7 |",
	// Headings and remarks.
	"[Verse]\n| C7 | F7 |":            "| [Verse] C7 | F7 |",
	"Verse:\n| C7 | F7 |":             "| [Verse] C7 | F7 |",
	"| C7 |\nBridge:\n| F7 |":         "| C7 |\n| [Bridge] F7 |",
	"[1. Verse] C7 | F7":              "| [1. Verse] C7 | F7 |",
	"[Verse 2]\nC7 F7":                "| [Verse 2] C7 | F7 |",
	"# the first chorus\n| C7 | F7 |": "| C7 | F7 |",
	"| C7 | F7 | # twice":             "| C7 | F7 |",
	"| C7 | #IVdim7 |":                "| C7 | F#dim7 |",
	// Steps in figures, and chords as they are spelled.
	"1 4 5":                           "| C | F | G |",
	"1-4-5":                           "| C | F | G |",
	"| 1 | 4 | 57 |":                  "| C | F | G7 |",
	"| 17 | 2m7 57 | b7 |":            "| C7 | Dm7 G7 | Bb |",
	"| 6- | 2-7 | 5 |":                "| Am | Dm7 | G |",
	"| 1maj7 | 4 |":                   "| Cmaj7 | F |",
	"| C^7 | Ch7 | C-9 | C2 | CMI7 |": "| Cmaj7 | Cm7b5 | Cm9 | Csus2 | Cm7 |",
	"| C^ | Dh |":                     "| Cmaj7 | Dm7b5 |",
}

func TestEveryWayToWriteAChart(t *testing.T) {
	for text, want := range ways {
		p, err := Read(text, 4, mustKey(t, "C"))
		if want == "" {
			assert.Error(t, err, text)
			continue
		}
		require.NoError(t, err, text)
		assert.Equal(t, want, p.Text(), text)
		back, err := Read(p.Text(), 4, mustKey(t, "C"))
		require.NoError(t, err, text)
		assert.Equal(t, p.Text(), back.Text())
	}
}

// What is taken for granted is said; what cannot be read is shown where it stands.
func TestNothingIsAssumedInSilence(t *testing.T) {
	for text := range ways {
		_, found, _ := ReadSong(text, 4, mustKey(t, "C"))
		said := found.Said
		if strings.ContainsAny(text, "|│‖") || strings.Contains(text, " . ") || strings.Contains(text, " / ") {
			assert.Empty(t, said, text)
			continue
		}
		assert.Equal(t, []string{"there are no bar lines: each chord is taken for a bar"}, said, text)
	}
	for text, want := range map[string]Problem{
		"Verse:\n| C7 | Fx7 |": {Text: "Fx7", Offset: 14, Length: 3, Bar: 2, Nearest: "F7"},
		"│ C7, Fx7 │":          {Text: "Fx7", Offset: 6, Length: 3, Bar: 1, Nearest: "F7"},
		"C7 Fx7":               {Text: "Fx7", Offset: 3, Length: 3, Bar: 2, Nearest: "F7"},
		"| %% |":               {Text: "%%", Offset: 2, Length: 2, Bar: 1},
		"| sim |":              {Text: "sim", Offset: 2, Length: 3, Bar: 1},
		"|: C7 |1. Fx7 :|":     {Text: "Fx7", Offset: 10, Length: 3, Bar: 2, Nearest: "F7"},
	} {
		_, err := Read(text, 4, mustKey(t, "C"))
		var ps Problems
		require.ErrorAs(t, err, &ps, text)
		got := ps[0]
		got.Message = ""
		assert.Equal(t, want, got, text)
	}
}
