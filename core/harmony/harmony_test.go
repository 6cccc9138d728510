package harmony

import (
	"errors"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/pitch"
)

func degreesOf(c Chord) string {
	var s []string
	for _, t := range c.Tones {
		s = append(s, string(t.Degree))
	}
	return strings.Join(s, " ")
}

func namesOf(c Chord) string {
	var s []string
	for _, t := range c.Tones {
		s = append(s, t.Name.String())
	}
	return strings.Join(s, " ")
}

// symbols is the table of ways people write chords, behind the root.
var symbols = map[string]string{
	"": "R 3 5", "M": "R 3 5", "maj": "R 3 5", "m": "R b3 5", "-": "R b3 5", "min": "R b3 5", "5": "R 5",
	"6": "R 3 5 6", "m6": "R b3 5 6", "6/9": "R 3 5 6 9", "69": "R 3 5 6 9", "m6/9": "R b3 5 6 9",
	"7": "R 3 5 b7", "maj7": "R 3 5 7", "Δ7": "R 3 5 7", "Δ": "R 3 5 7", "M7": "R 3 5 7", "Maj7": "R 3 5 7",
	"m7": "R b3 5 b7", "-7": "R b3 5 b7", "min7": "R b3 5 b7", "mi7": "R b3 5 b7",
	"mMaj7": "R b3 5 7", "m(maj7)": "R b3 5 7", "mM7": "R b3 5 7", "-Δ7": "R b3 5 7", "mmaj7": "R b3 5 7",
	"m7b5": "R b3 b5 b7", "m7♭5": "R b3 b5 b7", "ø": "R b3 b5 b7", "ø7": "R b3 b5 b7", "-7(b5)": "R b3 b5 b7",
	"dim": "R b3 b5", "o": "R b3 b5", "°": "R b3 b5", "°7": "R b3 b5 6", "o7": "R b3 b5 6", "dim7": "R b3 b5 6",
	"aug": "R 3 #5", "+": "R 3 #5", "+7": "R 3 #5 b7", "7+": "R 3 #5 b7", "7#5": "R 3 #5 b7", "aug7": "R 3 #5 b7",
	"9": "R 3 5 b7 9", "m9": "R b3 5 b7 9", "maj9": "R 3 5 7 9", "11": "R 3 5 b7 9 11", "m11": "R b3 5 b7 9 11",
	"13": "R 3 5 b7 9 13", "m13": "R b3 5 b7 9 11 13", "maj13": "R 3 5 7 9 13",
	"7b9": "R 3 5 b7 b9", "7(#9)": "R 3 5 b7 #9", "7#9": "R 3 5 b7 #9", "7♯9": "R 3 5 b7 #9", "7#5#9": "R 3 #5 b7 #9",
	"7#9#5": "R 3 #5 b7 #9", "7(#9,#5)": "R 3 #5 b7 #9", "7#11": "R 3 5 b7 #11", "7b13": "R 3 5 b7 b13",
	"7alt": "R 3 b5 #5 b7 b9 #9", "alt": "R 3 b5 #5 b7 b9 #9", "7b5": "R 3 b5 b7", "7-9": "R 3 5 b7 b9", "7+9": "R 3 5 b7 #9",
	"13b9": "R 3 5 b7 b9 13", "9#11": "R 3 5 b7 9 #11", "maj7#11": "R 3 5 7 #11", "(b5)": "R 3 b5",
	"sus2": "R 5 9", "sus4": "R 5 11", "sus": "R 5 11", "7sus4": "R 5 b7 11", "9sus4": "R 5 b7 9 11", "13sus4": "R 5 b7 9 11 13",
	"add9": "R 3 5 9", "madd9": "R b3 5 9", "(add9)": "R 3 5 9", "add11": "R 3 5 11", "7add13": "R 3 5 b7 13", "add2": "R 3 5 9",
	"6add9": "R 3 5 6 9", "7no5": "R 3 b7", "7no3": "R 5 b7", "7omit5": "R 3 b7", "m7add11": "R b3 5 b7 11",
}

func TestSymbolTableOnEveryRoot(t *testing.T) {
	for suffix, want := range symbols {
		for _, root := range pitch.Roots {
			text := root.String() + suffix
			c, err := Parse(text)
			require.NoError(t, err, text)
			require.Equal(t, want, degreesOf(c), text)
			require.Equal(t, root, c.Root)
			for _, tone := range c.Tones {
				require.Equal(t, root.Up(tone.Interval), tone.Name)
			}
			back, err := Parse(c.String())
			require.NoError(t, err, "%s printed as %s", text, c)
			require.Equal(t, c, back, "%s printed as %s", text, c)
			for _, other := range []pitch.Name{{Letter: 0}, {Letter: 1, Alter: -1}, {Letter: 3, Alter: 1}} {
				require.Equal(t, c, c.On(other).On(root))
			}
		}
	}
}

func TestSpelling(t *testing.T) {
	for symbol, want := range map[string]string{
		"C7": "C E G Bb", "B7": "B D# F# A", "Db7": "Db F Ab Cb", "F#7": "F# A# C# E", "D#7": "D# F## A# C#",
		"Gb7": "Gb Bb Db Fb", "A°7": "A C Eb Gb", "C°7": "C Eb Gb Bbb", "Bm7b5": "B D F A", "Ebmaj7": "Eb G Bb D",
		"A7#9": "A C# E G B#", "Bb13": "Bb D F Ab C G", "C6": "C E G A", "Fsus4": "F C Bb",
	} {
		assert.Equal(t, want, namesOf(MustParse(symbol)), symbol)
	}
}

func TestSlashAndSilence(t *testing.T) {
	c := MustParse("C7/B♭")
	assert.Equal(t, "C7/Bb", c.String())
	assert.Equal(t, "Bb", c.Bass.String())
	assert.Equal(t, "Eb7/Db", c.On(pitch.Name{Letter: 2, Alter: -1}).String())
	assert.Equal(t, "C/E", MustParse("C/E").String())
	assert.Equal(t, "C6/9/E", MustParse("C6/9/E").String())
	nc := MustParse("N.C.")
	assert.True(t, nc.None)
	assert.Equal(t, nc, MustParse(nc.String()))
}

func TestRefusedSymbols(t *testing.T) {
	for text, want := range map[string]struct {
		pos     int
		nearest string
	}{
		"H7": {0, "B7"}, "c7": {0, "C7"}, "Cmja7": {2, "Cmaj7"}, "C77": {2, "C7"}, "C7sus5": {5, "C7sus4"},
		"C7/X": {3, "C7"}, "Cm7b6x": {5, "Cm7b5"}, "C7(b9": {5, "C7b9"}, "Ebm7bb5": {4, "Ebm7b5"}, "": {0, ""},
		"bb7": {0, "Bb7"}, "C#mj7": {3, "C#maj7"}, "F7 ": {2, "F7"}, "♭": {0, ""}, "Verse": {0, ""}, "huh": {0, ""}, "V7/Q": {0, ""}, "(C7)": {0, ""},
	} {
		_, err := Parse(text)
		var refused *SymbolError
		require.True(t, errors.As(err, &refused), text)
		assert.Equal(t, want.pos, refused.Pos, text)
		assert.Equal(t, want.nearest, refused.Nearest, text)
		assert.Contains(t, err.Error(), text)
	}
}

func FuzzParse(f *testing.F) {
	for s := range symbols {
		f.Add("C" + s)
	}
	f.Add("C7/")
	f.Add("Cø♭♭")
	f.Fuzz(func(t *testing.T, text string) {
		c, err := Parse(text)
		if err != nil {
			var refused *SymbolError
			if !errors.As(err, &refused) {
				t.Fatalf("%q: %v", text, err)
			}
			if _, err := Parse(refused.Nearest); err != nil && refused.Nearest != "" {
				t.Fatalf("%q: nearest %q cannot be read", text, refused.Nearest)
			}
			return
		}
		back, err := Parse(c.String())
		if err != nil || degreesOf(back) != degreesOf(c) || back.Root != c.Root || back.Bass != c.Bass {
			t.Fatalf("%q printed as %q, read back as %v, %v", text, c, back, err)
		}
	})
}
