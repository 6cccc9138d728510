package harmony

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/pitch"
)

// spellings are the ways people write each kind of chord: every sign of one
// column before every sign of the next, with the tones they all mean.
var spellings = []struct {
	tones   string
	columns []string // each a list of signs; _ is nothing
}{
	{"R 3 5 7", []string{"maj Maj MAJ ma Ma MA M major Δ △", "7"}},
	{"R 3 5 7 9", []string{"maj Maj MAJ ma Ma MA M major Δ △", "9"}},
	{"R 3 5 7 9 13", []string{"maj Maj MAJ ma Ma MA M major Δ △", "13"}},
	{"R 3 5 7 #11", []string{"maj7 Maj7 MA7 ma7 M7 Δ", "#11 ♯11 (#11) (♯11) +11"}},
	{"R 3 5 6", []string{"6 maj6 M6 ma6 MA6"}},
	{"R 3 5 6 9", []string{"6/9 69 6add9 6(9)"}},
	{"R b3 5", []string{"m min Min MIN mi Mi MI minor - −"}},
	{"R b3 5 b7", []string{"m min Min MIN mi Mi MI minor - −", "7"}},
	{"R b3 5 b7 9", []string{"m min Min MIN mi Mi MI minor - −", "9"}},
	{"R b3 5 b7 9 11", []string{"m min Min MIN mi Mi MI minor - −", "11"}},
	{"R b3 5 b7 9 11 13", []string{"m min Min MIN mi Mi MI minor - −", "13"}},
	{"R b3 5 6", []string{"m min Min MIN mi Mi MI minor - −", "6"}},
	{"R b3 5 7", []string{"m min mi MI -", "maj7 Maj7 MAJ7 ma7 MA7 M7 (maj7) (Maj7) (ma7) (MA7) (M7) Δ7 (Δ7) Δ"}},
	{"R b3 5 7 9", []string{"m min mi MI -", "maj9 (maj9) (ma9) (M9) M9"}},
	{"R b3 b5 b7", []string{"ø ø7 Ø Ø7 m7b5 m7♭5 m7(b5) m7(♭5) m7-5 m7(-5) min7b5 min7(b5) mi7b5 MI7(b5) -7b5 -7(b5)"}},
	{"R b3 b5", []string{"dim Dim ° º o mb5 m(b5)"}},
	{"R b3 b5 6", []string{"dim Dim ° º o", "7"}},
	{"R 3 #5", []string{"aug Aug + (#5) +5"}},
	{"R 3 #5 b7", []string{"7#5 7♯5 7(#5) 7(♯5) 7+ 7+5 +7 aug7 Aug7"}},
	{"R 3 b5", []string{"(b5) (♭5) -5 (-5)"}},
	{"R 3 b5 b7", []string{"7", "b5 ♭5 (b5) (♭5) -5 (-5)"}},
	{"R 3 5 b7", []string{"7 dom7"}},
	{"R 3 5 b7 9", []string{"9 7add9 7(9) 7(add9)"}},
	{"R 3 5 b7 13", []string{"7add13 7(13) 7(add13) 7add6"}},
	{"R 3 5 b7 b9", []string{"7", "b9 ♭9 (b9) (♭9) -9 (-9)"}},
	{"R 3 5 b7 #9", []string{"7", "#9 ♯9 (#9) (♯9) +9 (+9)"}},
	{"R 3 5 b7 #11", []string{"7", "#11 ♯11 (#11) (♯11) +11 (+11)"}},
	{"R 3 5 b7 b13", []string{"7", "b13 ♭13 (b13) (♭13)"}},
	{"R 3 5 b7 b9 b13", []string{"7", "b9b13 (b9b13) (b9,b13) (b9/b13) (♭9,♭13) (b13,b9) b13b9"}},
	{"R 3 #5 b7 b9", []string{"7", "#5b9 b9#5 (b9#5) (b9,#5) (b9/#5) (#5/b9) (#5,b9)"}},
	{"R 3 #5 b7 #9", []string{"7", "#5#9 #9#5 (#9#5) (#9,#5) (#9/#5) (#5/#9)"}},
	{"R 3 b5 #5 b7 b9 #9", []string{"7alt alt 7(alt)"}},
	{"R 3 5 b7 9 13", []string{"13 9add13 9(13)"}},
	{"R 3 5 b7 b9 13", []string{"13b9 13(b9) 13♭9 13-9"}},
	{"R 3 5 b7 9 #11", []string{"9#11 9(#11) 9♯11 9+11"}},
	{"R b3 5 b7 11", []string{"m7 min7 mi7 MI7 -7", "add11 (11) (add11)"}},
	{"R 3 5 9", []string{"add9 (add9) add2 (add2)"}},
	{"R b3 5 9", []string{"m min mi -", "add9 (add9) add2"}},
	{"R 5 9", []string{"sus2 2 (sus2)"}},
	{"R 5 11", []string{"sus sus4 4 (sus4) (sus)"}},
	{"R 5 9 11", []string{"sus2sus4 sus2add11"}},
	{"R 5 b7 11", []string{"7sus 7sus4 7(sus4)"}},
	{"R 5 b7 9 11", []string{"9sus 9sus4 9(sus4)"}},
	{"R 5 b7 b9 11", []string{"7susb9 7sus4b9 7sus(b9) 7b9sus4 7b9sus 7sus4(b9)"}},
	{"R 5 b7 9 11 13", []string{"13sus 13sus4"}},
	{"R 5", []string{"5 no3 (no3) omit3"}},
	{"R 3 b7", []string{"7no5 7(no5) 7omit5"}},
}

// written lists a kind's spellings.
func written(columns []string) []string {
	out := []string{""}
	for _, column := range columns {
		var next []string
		for _, before := range out {
			for _, s := range strings.Fields(column) {
				next = append(next, before+s)
			}
		}
		out = next
	}
	return out
}

func TestSpellingsOfEveryChord(t *testing.T) {
	n := 0
	for _, kind := range spellings {
		for _, suffix := range written(kind.columns) {
			n++
			for _, root := range pitch.Roots {
				c, err := Parse(root.String() + suffix)
				require.NoError(t, err, suffix)
				assert.Equal(t, kind.tones, degreesOf(c), "%s%s", root, suffix)
				back, err := Parse(c.String())
				require.NoError(t, err, "%s is written %s", suffix, c)
				assert.Equal(t, degreesOf(c), degreesOf(back), "%s is written %s", suffix, c)
			}
		}
	}
	assert.GreaterOrEqual(t, n, 300, "%d spellings", n)
	for apart, together := range map[string]string{"C7 b9": "C7b9", "C7 (b9)": "C7b9", "Cm7 b5": "Cm7b5", "C (add9)": "Cadd9"} {
		assert.Equal(t, degreesOf(MustParse(together)), degreesOf(MustParse(apart)), apart)
	}
}

// What cannot be read is offered as nothing else than what was meant.
func TestANearestReadingKeepsThirdAndSeventh(t *testing.T) {
	for text, want := range map[string]string{
		"Cmja7": "Cmaj7", "Cmin77": "Cm7", "Cmi77": "Cm7", "CMA77": "Cmaj7", "Cdimm": "Cdim", "Cmsju9": "", "Cquux": "", "Cmmm7x9": "", "CMAJORR": "Cmaj7",
	} {
		_, err := Parse(text)
		refused, ok := err.(*SymbolError)
		require.True(t, ok, text)
		if refused.Nearest != "" {
			i := meant(text[1:])
			assert.Equal(t, i.minor || i.diminished, MustParse(refused.Nearest).HasDegree("b3"), "%s: %s", text, refused.Nearest)
		}
		if want == "Cmaj7" && refused.Nearest != "" || want == "" {
			assert.NotEqual(t, "C7", refused.Nearest, text)
		}
	}
}
