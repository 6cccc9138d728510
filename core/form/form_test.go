package form

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

func mustKey(t testing.TB, text string) Key {
	k, err := ParseKey(text)
	require.NoError(t, err)
	return k
}

func flat(p Progression) string {
	return strings.Join(strings.Fields(strings.ReplaceAll(p.Text(), "|", " ")), " ")
}

func TestAllKeysAreTwelve(t *testing.T) {
	for _, minor := range []bool{false, true} {
		classes := map[int]bool{}
		for _, k := range AllKeys(minor) {
			assert.Equal(t, minor, k.Minor)
			classes[k.Tonic.Class()] = true
		}
		assert.Len(t, classes, 12)
	}
}

func TestFormsInKeys(t *testing.T) {
	for _, c := range []struct{ form, key, want string }{
		{"slow-change", "C", "C7 C7 C7 C7 F7 F7 C7 C7 G7 F7 C7 G7"},
		{"quick-change", "Ab", "Ab7 Db7 Ab7 Ab7 Db7 Db7 Ab7 Ab7 Eb7 Db7 Ab7 Eb7"},
		{"minor-blues", "Bm", "Bm7 Bm7 Bm7 Bm7 Em7 Em7 Bm7 Bm7 G7 F#7 Bm7 F#7"},
		{"jazz-blues", "Eb", "Eb7 Ab7 Eb7 Bbm7 Eb7 Ab7 Adim7 Eb7 C7 Fm7 Bb7 Eb7 C7 Fm7 Bb7"},
		{"jazz-blues", "B", "B7 E7 B7 F#m7 B7 E7 Fdim7 B7 G#7 C#m7 F#7 B7 G#7 C#m7 F#7"},
		{"vamp-flat-three", "Db", "Db7 E7 Gb7 Gb7"},
		{"vamp-flat-seven", "Db", "Db B Gb Db"},
		{"two-five-one", "F#", "G#m7 C#7 F#maj7 F#maj7"},
	} {
		f, ok := FormByID(c.form)
		require.True(t, ok)
		assert.Equal(t, c.want, flat(f.In(mustKey(t, c.key))), "%s in %s", c.form, c.key)
	}
}

func TestTurnarounds(t *testing.T) {
	c := mustKey(t, "C")
	want := map[string]string{
		"plain": "C7 G7", "three-six-two-five": "Em7 A7 Dm7 G7", "dominants": "C7 A7 D7 G7",
		"climbing-bass": "C7 C7/E F7 F#dim7 . G7", "half-steps-down": "C7 Eb7 D7 Db7", "flat-six": "C7 Ab7 G7",
		"ending-sixth": "C7 Db7 C6", "ending-ninth": "C7 Db9 C9",
	}
	for _, turn := range Turnarounds {
		if w, ok := want[turn.ID]; ok {
			assert.Equal(t, w, flat(turn.In(c)), turn.ID)
		}
		slow, _ := FormByID("slow-change")
		p := slow.In(c).ReplaceEnd(turn.In(c))
		assert.Len(t, p.Bars, 12)
		assert.Equal(t, flat(turn.In(c)), flat(Progression{Beats: 4, Bars: p.Bars[10:]}))
	}
}

// keys are all tonics in both modes.
func keys() (out []Key) {
	for _, r := range pitch.Roots {
		out = append(out, Key{r, false}, Key{r, true})
	}
	return out
}

func TestFormsAndTurnaroundsRoundTripInEveryKey(t *testing.T) {
	texts := map[string]string{}
	for _, f := range Forms {
		texts[f.ID] = f.Text
	}
	for _, u := range Turnarounds {
		texts[u.ID] = u.Text
	}
	home := mustKey(t, "C")
	for id, text := range texts {
		plan := mustRead(text, home)
		for _, k := range keys() {
			p := mustRead(text, k)
			require.Equal(t, plan.NumeralText(home), p.NumeralText(k), "%s in %s", id, k)
			back, err := Read(p.Text(), 4, k)
			require.NoError(t, err)
			require.Equal(t, p, back)
			for _, to := range keys() {
				require.Equal(t, mustRead(text, to), p.Transpose(k, to), "%s from %s to %s", id, k, to)
			}
			for _, place := range p.Places() {
				require.Contains(t, pitch.Roots, place.Chord.Root)
			}
		}
	}
}

func TestNumeralsOfAnyChordReadBack(t *testing.T) {
	suffixes := []string{"", "7", "m7", "m", "maj7", "6", "m6", "6/9", "9", "13", "m7b5", "dim7", "dim", "aug", "7#5", "7#9", "sus4", "5", "mmaj7", "add9", "(b5)"}
	rapid.Check(t, func(t *rapid.T) {
		k := rapid.SampledFrom(keys()).Draw(t, "key")
		c := harmony.MustParse(rapid.SampledFrom(pitch.Roots).Draw(t, "root").String() + rapid.SampledFrom(suffixes).Draw(t, "suffix"))
		if rapid.Bool().Draw(t, "slash") {
			c.Bass = rapid.SampledFrom(c.Tones).Draw(t, "bass").Name.Simpler()
		}
		n := Numeral(c, k)
		back, err := ReadNumeral(n, k)
		require.NoError(t, err, n)
		assert.Equal(t, c.Root.Class(), back.Root.Class(), n)
		assert.Equal(t, c.Suffix(), back.Suffix(), n)
		assert.Equal(t, c.Bass.Class(), back.Bass.Class(), n)
		assert.Equal(t, n, Numeral(back, k))
	})
}

func TestTextPlacesChordsOnBeats(t *testing.T) {
	p, err := Read("[Head] C7 | C7 A7 | Dm7 G7 Em7 | C7 . . G7 ||\n| % | I7 bVI7 | N.C. | C F G C |", 4, mustKey(t, "C"))
	require.NoError(t, err)
	var got []string
	for _, place := range p.Places() {
		got = append(got, fmt.Sprintf("%d.%d %s %d", place.Bar+1, place.Beat+1, place.Chord, place.Length))
	}
	assert.Equal(t, []string{"1.1 C7 4", "2.1 C7 2", "2.3 A7 2", "3.1 Dm7 2", "3.3 G7 1", "3.4 Em7 1", "4.1 C7 3", "4.4 G7 1",
		"5.1 C7 3", "5.4 G7 1", "6.1 C7 2", "6.3 Ab7 2", "7.1 N.C. 4", "8.1 C 1", "8.2 F 1", "8.3 G 1", "8.4 C 1"}, got)
	assert.Equal(t, "Head", p.Bars[0].Section)
	assert.True(t, p.Bars[4].Row)
	back, err := Read(p.Text(), 4, mustKey(t, "C"))
	require.NoError(t, err)
	assert.Equal(t, p, back)
}

func TestTextProblemsSayWhere(t *testing.T) {
	for text, want := range map[string]Problem{
		"| C7 | Fx7 | C7 |": {Text: "Fx7", Offset: 7, Length: 3, Bar: 2, Nearest: "F7"},
		"| C7 |  | C7 |":    {Text: "  ", Offset: 6, Length: 2, Bar: 2, Nearest: "%"},
		"| C7 |\n| F7 | ♭9": {Text: "♭9", Offset: 14, Length: 2, Bar: 3, Nearest: ""},
		"% | C7":            {Text: "%", Offset: 0, Length: 1, Bar: 1},
		"| C7 . G7 |":       {Text: "C7", Offset: 2, Length: 2, Bar: 1},
		"| C F G C7 A7 |":   {Text: "C", Offset: 2, Length: 1, Bar: 1},
		"| . C7 . . |":      {Text: ".", Offset: 2, Length: 1, Bar: 1},
		"| [Verse C7 |":     {Text: "[Verse C7 ", Offset: 2, Length: 10, Bar: 1},
		"":                  {},
		"  \n ":             {},
	} {
		_, err := Read(text, 4, mustKey(t, "C"))
		var ps Problems
		require.ErrorAs(t, err, &ps, text)
		got := ps[0]
		assert.NotEmpty(t, got.Message)
		got.Message = ""
		assert.Equal(t, want, got, text)
	}
	_, err := Read(strings.Repeat("| C7 ", 513), 4, mustKey(t, "C"))
	assert.ErrorContains(t, err, "more than 512 bars")
	_, err = Read(strings.Repeat("| C7 ", 512), 4, mustKey(t, "C"))
	assert.NoError(t, err)
	_, err = Read("| C7 |", 1, mustKey(t, "C"))
	assert.ErrorContains(t, err, "between 2 and 12")
}

func TestKeys(t *testing.T) {
	for text, want := range map[string]string{"C": "C", "B♭": "Bb", "Bm": "Bm", "F# minor": "F#m", "Eb major": "Eb"} {
		assert.Equal(t, want, mustKey(t, text).String())
	}
	for _, bad := range []string{"", "H", "c", "E#", "Cdim", "C7", "Bbb"} {
		_, err := ParseKey(bad)
		assert.ErrorContains(t, err, "is no key", bad)
	}
}

func FuzzRead(f *testing.F) {
	f.Add("| C7 | F7 | C7 | % |")
	f.Add("| I7 bVI7 . V7 |\n[x] % | N.C. |")
	for _, c := range habits {
		f.Add(c.text)
	}
	f.Fuzz(func(t *testing.T, text string) {
		p, err := Read(text, 4, Key{})
		if err != nil {
			return
		}
		back, err := Read(p.Text(), 4, Key{})
		if err != nil || back.Text() != p.Text() {
			t.Fatalf("%q printed as %q, read back as %q, %v", text, p.Text(), back.Text(), err)
		}
	})
}

func TestHIsReadOnRequest(t *testing.T) {
	text, ok := FromElsewhere("| [Bridge] H7 | Em B7/H | Hb B♭ |")
	assert.True(t, ok)
	assert.Equal(t, "| [Bridge] B7 | Em Bb7/B | Bb B♭ |", text)
	_, ok = FromElsewhere("| B7 | Bb |")
	assert.False(t, ok)
}

func TestRepeatsAreWrittenOut(t *testing.T) {
	for text, want := range map[string]string{
		"|: C7 | F7 :|":                   "| C7 | F7 |\n| C7 | F7 |",
		"| C7 |: F7 | G7 :| C7 |":         "| C7 | F7 | G7 |\n| F7 | G7 | C7 |",
		"||: C7 | F7 :||":                 "| C7 | F7 |\n| C7 | F7 |",
		"| C7 | F7 :|":                    "| C7 | F7 |\n| C7 | F7 |",
		"|: C7 :|: F7 :|":                 "| C7 |\n| C7 | F7 |\n| F7 |",
		"|: C7 | % :|\n| F7 |":            "| C7 | C7 |\n| C7 | C7 |\n| F7 |",
		"| C7 b9 F7 | C7 (b9) | Am7 b5 |": "| C7b9 F7 | C7b9 | Am7b5 |",
	} {
		p, err := Read(text, 4, Key{})
		require.NoError(t, err, text)
		assert.Equal(t, want, p.Text(), text)
	}
	_, err := Read("|: "+strings.Repeat("C7 | ", 300)+"C7 :|", 4, Key{})
	assert.ErrorContains(t, err, "as it is played")
}
