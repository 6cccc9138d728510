package form

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Charts as players write them: what is wanted was written down before they were read. said is a part of what has to be told.
var habits = []struct {
	text, want, said string
	beats            int
}{
	// A metre before the first bar line is that of the bars.
	{"3/4 | C | F |", "| 3/4 C | F |", "", 0},
	{"(3/4) | C | F |", "| 3/4 C | F |", "", 0},
	{"6/8 | C | F |", "| 2/4 C | F |", "6/8 is charted as 2 beats of three eighths", 0},
	{"9/8 | C | F |", "| 3/4 C | F |", "9/8 is charted as 3 beats of three eighths", 0},
	{"12/8 | C | F |", "| C | F |", "12/8 is charted as 4 beats", 0},
	{"| C |\n3/4 | F | G |", "| C |\n| 3/4 F | G |", "", 0},
	// Endings, however they are numbered.
	{"|: C7 |1 F7 :|2 G7 |", "| C7 | F7 | C7 | G7 |", "", 0},
	{"|: C7 |1. F7 :|2. G7 |", "| C7 | F7 | C7 | G7 |", "", 0},
	{"|: C7 |1) F7 :|2) G7 |", "| C7 | F7 | C7 | G7 |", "", 0},
	{"|: C7 | 1st F7 :| 2nd G7 |", "| C7 | F7 | C7 | G7 |", "", 0},
	{"|: C7 | 1st time F7 :| 2nd time G7 |", "| C7 | F7 | C7 | G7 |", "", 0},
	{"|: C7 |1,2. F7 :|3. G7 |", "| C7 | F7 | C7 | F7 | C7 | G7 |", "", 0},
	{"|: C7 |1-2. F7 :|3. G7 |", "| C7 | F7 | C7 | F7 | C7 | G7 |", "", 0},
	{"|: C7 |1.-3. F7 :|4. G7 |", "| C7 | F7 | C7 | F7 | C7 | F7 | C7 | G7 |", "", 0},
	// Steps in figures stay what they are.
	{"|1 |4 |5 |", "| C | F | G |", "", 0},
	{"|1 4 |5 1 |", "| C F | G C |", "", 0},
	{"|17 |47 :|", "| C7 | F7 | C7 | F7 |", "", 0},
	// A letter by itself, or before the first bar line, is the name of a part; among triads it is a chord.
	{"A\n| C7 | F7 |", "| [A] C7 | F7 |", "", 0},
	{"A | C7 | F7 |", "| [A] C7 | F7 |", "A before the bar line is taken for the name of the part", 0},
	{"A | D | E |", "| A | D | E |", "", 0},
	{"A7 | D7 | E7 |", "| A7 | D7 | E7 |", "", 0},
	{"A: | C7 | F7 |", "| [A] C7 | F7 |", "", 0},
	{"Verse: | C7 | F7 |", "| [Verse] C7 | F7 |", "", 0},
	{"Verse 2: C7 | F7 |", "| [Verse 2] C7 | F7 |", "", 0},
	{"Intro | C7 | F7 |", "| [Intro] C7 | F7 |", "", 0},
	{"[Verse] | C7 | F7 |", "| [Verse] C7 | F7 |", "", 0},
	// A part that is named again, with nothing of its own, is played again.
	{"[Verse]\n| C7 | F7 |\n[Chorus]\n| G7 | D7 |\n[Verse]\n", "| [Verse] C7 | F7 |\n| [Chorus] G7 | D7 |\n| [Verse] C7 | F7 |", "Verse is played again", 0},
	{"[Verse]\n| C7 | F7 |\n[Chorus]\n| G7 | D7 |\n[Verse]\n[Chorus]", "| [Verse] C7 | F7 |\n| [Chorus] G7 | D7 |\n| [Verse] C7 | F7 |\n| [Chorus] G7 | D7 |", "Chorus is played again", 0},
	{"[Verse]\n| C7 | F7 |\n[Solo]\n[Verse]\n| G7 |", "| [Verse] C7 | F7 |\n| [Verse] G7 |", "Solo has no bars", 0},
	{"[Verse] x2\n| C7 | F7 |\n[Bridge]\n| G7 |", "| [Verse] C7 | F7 |\n| [Verse] C7 | F7 |\n| [Bridge] G7 |", "", 0},
	{"Verse (x2):\n| C7 | F7 |", "| [Verse] C7 | F7 |\n| [Verse] C7 | F7 |", "", 0},
	{"[Verse] 2x\n|: C7 :|\n| F7 |", "| [Verse] C7 | [Verse] C7 |\n| F7 |\n| [Verse] C7 | [Verse] C7 |\n| F7 |", "", 0},
	{"[Verse]\n| C7 |\n[Verse] x2\n[Coda]\n| G7 |", "| [Verse] C7 |\n| [Verse] C7 |\n| [Verse] C7 |\n| [Coda] G7 |", "Verse is played again", 0},
	// Signs at a chord.
	{"| (G7) C7 | F7 |", "| G7 C7 | F7 |", "a chord in brackets is played as the others", 0},
	{"| C7 | (F7) |", "| C7 | F7 |", "a chord in brackets is played as the others", 0},
	{"| C7 (b9) | F7 |", "| C7b9 | F7 |", "", 0},
	{"| >F7 | C7 |", "| F7 | C7 |", "a push is not charted", 0},
	{"| C7 >F7 | <G7 |", "| C7 F7 | G7 |", "a push is not charted", 0},
	{"| V7/V | V7 | I7 |", "| D7 | G7 | C7 |", "", 0},
	{"| V7/ii | iim7 | V7/IV | IV7 | viio7/V |", "| A7 | Dm7 | C7 | F7 | F#dim7 |", "", 0},
	{"| I7/3 | IV7 |", "| C7/E | F7 |", "", 0},
	// Remarks, and the order in capitals.
	{"| C7 | F7 | // slowly", "| C7 | F7 |", "", 0},
	{"// an old tune\n| C7 | F7 |", "| C7 | F7 |", "", 0},
	{"| C7 // F7 | G7 |", "| C7 . . F7 | G7 |", "", 0},
	{"| C7 | F7 FINE | G7 | D.C. AL FINE", "| C7 | F7 | G7 | C7 | F7 |", "", 0},
	{"| C7 | F7 Fine | G7 | d.c. al fine", "| C7 | F7 | G7 | C7 | F7 |", "", 0},
	{"| C7 F7 | x12", strings.Repeat("| C7 F7 ", 12) + "|", "", 0},
	{"|: C7 :| x10", strings.Repeat("| C7 ", 10) + "|", "", 0},
}

func TestChartsInTheHabitsOfPlayers(t *testing.T) {
	flat := func(text string) string {
		return strings.Join(strings.Fields(strings.NewReplacer("|\n|", " | ", "|", " | ").Replace(text)), " ")
	}
	for _, c := range habits {
		beats := 4
		s, found, err := ReadSong(c.text, beats, Key{})
		if !assert.NoError(t, err, c.text) {
			continue
		}
		want, err := Read(c.want, beats, Key{})
		require.NoError(t, err, c.want)
		got := s.Play(MaxBars)
		assert.Equal(t, flat(want.Text()), flat(got.Text()), c.text)
		if c.said == "" {
			assert.Empty(t, found.Said, c.text)
		} else {
			assert.Contains(t, strings.Join(found.Said, "; "), c.said, c.text)
		}
		// What is written of it is read as the same.
		again, err := Read(s.Text(), beats, Key{})
		require.NoError(t, err, s.Text())
		assert.Equal(t, got.Text(), again.Text(), c.text)
	}
}

// Names of notes from elsewhere are known by what stands beside them, and offered in the names that are read here.
func TestNamesFromElsewhere(t *testing.T) {
	for text, want := range map[string]string{
		"| Es7 | As7 | B7 |":           "| Eb7 | Ab7 | Bb7 |",
		"| Fis7 | H7 | Cism7 |":        "| F#7 | B7 | C#m7 |",
		"| H7 | E7 | B |":              "| B7 | E7 | Bb |",
		"| Des7 | Ges7 | Asus4 |":      "| Db7 | Gb7 | Asus4 |",
		"| Do7 | Fa7 | Sol7 |":         "| C7 | F7 | G7 |",
		"| Lam7 | Rem7 | Mi7 | Sib7 |": "| Am7 | Dm7 | E7 | Bb7 |",
		"| La7/Do# | Fa#m |":           "| A7/C# | F#m |",
	} {
		got, ok := FromElsewhere(text)
		require.True(t, ok, text)
		assert.Equal(t, want, got, text)
		_, err := Read(got, 4, Key{})
		assert.NoError(t, err, got)
	}
	for _, text := range []string{"| C7 | F7 |", "| Asus4 | Esus4 | Dsus2 |", "| Do7 | C7 |", "| B7 | E7 |", "[Refrain]\n| A7 | D7 |", "| Dom7 |", ""} {
		_, ok := FromElsewhere(text)
		assert.False(t, ok, text)
	}
}

// What cannot be read is offered as a chord on the same root, or as none.
func TestAProposalKeepsTheRoot(t *testing.T) {
	for text, want := range map[string]string{"Es7": "Eb7", "As7": "Ab7", "Fis7": "F#7", "H7": "B7", "Verse": "", "V7/Q": "", "huh": "", "Cmja7": "Cmaj7", "Solo": "", "?F7": "", "AL": "A"} {
		_, err := Read("| "+text+" |", 4, Key{})
		var problems Problems
		require.ErrorAs(t, err, &problems, text)
		if want == "A" { // of a letter that is left over the root alone may be meant
			assert.Contains(t, []string{"", "A", "A7"}, problems[0].Nearest, text)
			continue
		}
		assert.Equal(t, want, problems[0].Nearest, text)
	}
}
