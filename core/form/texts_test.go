package form

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// texts are charts as they are found elsewhere, with words, directives and remarks round the
// chords, and what is played. In the key of C, four beats.
var texts = map[string]string{
	// Chords in brackets among words.
	"[C7]Down by the [F7]water":                                                "| C7 | F7 |",
	"[C7]Down by the water\n[F7]down by the [C7]pier":                          "| C7 |\n| F7 | C7 |",
	"[Verse]\n[C7]Down by the [F7]water":                                       "| [Verse] C7 | F7 |",
	"{title: Low Water}\n{key: C}\n[C7]Down by the [F7]water":                  "| C7 | F7 |",
	"{t: Low Water}\n{c: slowly}\n[C7]Down by the [G7]water":                   "| C7 | G7 |",
	"{start_of_verse}\n[C7]Down by the [F7]water\n{end_of_verse}":              "| [Verse] C7 | F7 |",
	"{start_of_verse: Verse 2}\n[C7]Down [F7]here\n{end_of_verse}":             "| [Verse 2] C7 | F7 |",
	"{sov}\n[C7]Down [F7]here\n{eov}":                                          "| [Verse] C7 | F7 |",
	"{soc}\n[C]Oh the [G]tide\n{eoc}\n{sov}\n[Am]Up [F]again\n{eov}\n{chorus}": "| [Chorus] C | G |\n| [Verse] Am | F |\n| [Chorus] C | G |",
	"{start_of_bridge}\n[Am]Turn [D7]round\n{end_of_bridge}":                   "| [Bridge] Am | D7 |",
	"{start_of_grid}\n| C7 . . . | F7 . G7 . |\n{end_of_grid}":                 "| C7 | F7 G7 |",
	"{sog}\n|| C7 / / / | F7 / / / ||\n{eog}":                                  "| C7 | F7 |",
	"{capo: 2}\n{tempo: 96}\n{time: 4/4}\n[C]Low [F]water":                     "| C | F |",
	"[C7]":                                "",
	"[Am7]Slack [D7/F#]tide [Gmaj7]turns": "| Am7 | D7/F# | Gmaj7 |",
	"[N.C.]Stop and [C7]go":               "| N.C. | C7 |",
	"[C7] [F7] [C7] [G7]":                 "| C7 | F7 | C7 | G7 |",
	// Chords over words.
	"C7            F7\nDown by the water":                            "| C7 | F7 |",
	"C7       F7\nDown by the water\nC7       G7\nup on the pier":    "| C7 | F7 |\n| C7 | G7 |",
	"Verse 1\nC7       F7\nDown by the water":                        "| [Verse 1] C7 | F7 |",
	"Chorus:\nAm    D7\nturn of the tide":                            "| [Chorus] Am | D7 |",
	"[Chorus]\nAm    D7\nturn of the tide":                           "| [Chorus] Am | D7 |",
	"| C7 | F7 |\nDown by the water":                                 "| C7 | F7 |",
	"| C7 | F7 |\nDown by the water\n| G7 | C7 |\nback on the shore": "| C7 | F7 |\n| G7 | C7 |",
	// Words of the whole.
	"Title: Low Water\nKey: C\nTempo: 120\n| C7 | F7 |": "| C7 | F7 |",
	"Key = C\n| C7 | F7 |":                              "| C7 | F7 |",
	"By: nobody\n| C7 | F7 |":                           "| C7 | F7 |",
	"Capo: 3\n| C7 | F7 |":                              "| C7 | F7 |",
	"Intro\n| C7 | F7 |":                                "| [Intro] C7 | F7 |",
	"INTRO\n| C7 | F7 |\nVerse 2\n| G7 |":               "| [INTRO] C7 | F7 |\n| [Verse 2] G7 |",
	"Pre-chorus\n| C7 |":                                "| [Pre-chorus] C7 |",
	"Middle eight\n| F7 |":                              "| [Middle eight] F7 |",
	"Solo:\n| C7 | F7 |":                                "| [Solo] C7 | F7 |",
	// More bar lines.
	"|C7 |F7 |\n|C7 |G7 |":      "| C7 | F7 |\n| C7 | G7 |",
	"C7|F7|C7|G7":               "| C7 | F7 | C7 | G7 |",
	"|| C7 | F7 || G7 | C7 |]":  "| C7 | F7 | G7 | C7 |",
	"| C7 || F7 |":              "| C7 | F7 |",
	"|\tC7\t|\tF7\t|":           "| C7 | F7 |",
	"| C7   |\n\n| F7   |":      "| C7 |\n| F7 |",
	"\n\n| C7 | F7 |\n\n":       "| C7 | F7 |",
	"| C7 | F7 |\r\n| G7 |\r\n": "| C7 | F7 |\n| G7 |",
	// Repeats.
	"|: C7 :|":                             "| C7 |\n| C7 |",
	"|: C7 | F7 :|: G7 :|":                 "| C7 | F7 |\n| C7 | F7 | G7 |\n| G7 |",
	"|: C7 | F7 :| x4":                     "| C7 | F7 |\n| C7 | F7 |\n| C7 | F7 |\n| C7 | F7 |",
	"|: C7 | F7 :| 3x":                     "| C7 | F7 |\n| C7 | F7 |\n| C7 | F7 |",
	"|: C7 | F7 :| (4 times)":              "| C7 | F7 |\n| C7 | F7 |\n| C7 | F7 |\n| C7 | F7 |",
	"|: C7 |1. F7 :|2. G7 |":               "| C7 | F7 |\n| C7 | G7 |",
	"|: C7 |[1.] F7 :|[2.] G7 |":           "| C7 | F7 |\n| C7 | G7 |",
	"|: C7 | 1. F7 :| 2. G7 ||":            "| C7 | F7 |\n| C7 | G7 |",
	"| C7 | F7 |\nD.C.":                    "| C7 | F7 |\n| C7 | F7 |",
	"| C7 | F7 | DC |":                     "| C7 | F7 |\n| C7 | F7 |",
	"| C7 | F7 Fine | G7 | D.C. al Fine |": "| C7 | F7 | G7 |\n| C7 | F7 |",
	"| C7 | Segno F7 | G7 | D.S. |":        "| C7 | F7 | G7 |\n| F7 | G7 |",
	// The bar before again, beats and strokes.
	"| C7 | % | % | % |": "| C7 | C7 | C7 | C7 |",
	"| C7 / F7 / |":      "| C7 F7 |",
	"| C7 . . F7 |":      "| C7 . . F7 |",
	"| C7 / / F7 |":      "| C7 . . F7 |",
	"| C7 F7 G7 C7 |":    "| C7 F7 G7 C7 |",
	"| C7 F7 G7 |":       "| C7 F7 G7 |",
	"C7 / F7 /":          "| C7 F7 |",
	// Spellings of chords.
	"| CM7 | Cma7 | Cmaj7 | CΔ7 |":      "| Cmaj7 | Cmaj7 | Cmaj7 | Cmaj7 |",
	"| Cmin7 | C-7 | Cmi7 | Cm7 |":      "| Cm7 | Cm7 | Cm7 | Cm7 |",
	"| C° | Co7 | Cdim7 | Cø |":         "| Cdim | Cdim7 | Cdim7 | Cm7b5 |",
	"| C+ | Caug | C7+5 | C7#5 |":       "| Caug | Caug | C7#5 | C7#5 |",
	"| Csus | Csus4 | C7sus | C9sus4 |": "| Csus4 | Csus4 | C7sus4 | C9sus4 |",
	"| B♭7 | F♯m7 | E♭maj7 |":           "| Bb7 | F#m7 | Ebmaj7 |",
	"| C/E | Am7/G | D7/F# |":           "| C/E | Am7/G | D7/F# |",
	"| C5 | C6 | C69 | C13 |":           "| C5 | C6 | C6/9 | C13 |",
	"| C7#9 | C7(#9) | C7 #9 |":         "| C7#9 | C7#9 | C7#9 |",
	"| I7 | IV7 | V7 |":                 "| C7 | F7 | G7 |",
	"| I7 | ii7 V7 | I7 |":              "| C7 | Dm7 G7 | C7 |",
	"| I | vi | IV | V |":               "| C | Am | F | G |",
	"I7 IV7 I7 V7":                      "| C7 | F7 | C7 | G7 |",
	"| 1 | 6m | 4 | 5 |":                "| C | Am | F | G |",
	"| 1 | 6- | 4 | 57 |":               "| C | Am | F | G7 |",
	"| N.C. | NC | n.c. |":              "| N.C. | N.C. | N.C. |",
	// What cannot be read is told.
	"| C7 | Q7 |":             "",
	"| C7 | F7 G7 C7 F7 G7 |": "",
	"| C7 . F7 |":             "",
	"| | C7 |":                "",
	"[Verse C7 | F7 |":        "",
	"| D.S. |":                "",
	"Down by the water":       "",
	"C7 Fx7 G7":               "",
}

// Of all of them none is read otherwise than it is meant; what was taken for granted is said.
func TestTextsAsTheyAreFound(t *testing.T) {
	for text, want := range texts {
		s, _, err := ReadSong(text, 4, mustKey(t, "C"))
		if want == "" {
			var ps Problems
			require.ErrorAs(t, err, &ps, text)
			require.NotEmpty(t, ps[0].Message, text)
			continue
		}
		require.NoError(t, err, text)
		assert.Equal(t, want, s.Play(MaxBars).Text(), text)
		back, _, err := ReadSong(s.Text(), 4, mustKey(t, "C"))
		require.NoError(t, err, s.Text())
		assert.Equal(t, s, back, text)
	}
	assert.GreaterOrEqual(t, len(texts)+len(ways)+len(orders), 150)
	for text, want := range map[string][]string{
		"[C7]Down by the [F7]water":       {"there are no bar lines: each chord is taken for a bar", "a line of words was left out: line 1"},
		"| C7 |\n[C7]Down by the [F7]bay": {"among words there are no bar lines: each chord is taken for a bar", "a line of words was left out: line 2"},
		"| C7 | F7 |\nDown by the water":  {"a line of words was left out: line 2"},
		"| C7 |\nDown by\nthe water":      {"2 lines of words were left out, the first: line 2"},
		"C7 F7\nDown by the water":        {"there are no bar lines: each chord is taken for a bar", "a line of words was left out: line 2"},
		"{title: Low Water}\n| C7 |":      nil,
	} {
		_, found, err := ReadSong(text, 4, mustKey(t, "C"))
		require.NoError(t, err, text)
		assert.Equal(t, want, found.Said, text)
	}
	_, found, err := ReadSong("{title: Low Water}\n{key: Am}\n{tempo: 96 bpm}\n{time: 3/4}\n| Am |", 4, mustKey(t, "C"))
	require.NoError(t, err)
	assert.Equal(t, Found{Title: "Low Water", Key: "Am", Tempo: 96, Beats: 3}, found)
	_, found, err = ReadSong("Title: Low Water\nKey: Bb\nTempo = 200\nTime: 6/8\n| Bb7 |", 4, mustKey(t, "C"))
	require.NoError(t, err)
	assert.Equal(t, Found{Title: "Low Water", Key: "Bb", Tempo: 200, Feel: "slow-12-8", Beats: 2, Said: []string{"6/8 is charted as 2 beats of three eighths, as the slow 12/8 feel plays them"}}, found)
	_, found, err = ReadSong("{key: H#}\n{tempo: 9999}\n{time: 99/4}\n| C7 |", 4, mustKey(t, "C"))
	require.NoError(t, err)
	assert.Empty(t, found.Key)
	assert.Zero(t, found.Beats)
}

// A problem among words or directives still stands where it is in the text.
func TestProblemsAmongWordsStandInPlace(t *testing.T) {
	for text, want := range map[string]string{
		"{title: x}\n[C7]Down [Fx7]by the [G7]bay": "Fx7",
		"Verse 1\nC7 Fx7\nDown by the water":       "Fx7",
		"Key: C\n| C7 | Gx |":                      "Gx",
	} {
		_, _, err := ReadSong(text, 4, mustKey(t, "C"))
		var ps Problems
		require.ErrorAs(t, err, &ps, text)
		assert.Equal(t, want, ps[0].Text, text)
		assert.Equal(t, want, string([]rune(text)[ps[0].Offset:ps[0].Offset+ps[0].Length]), text)
	}
}
