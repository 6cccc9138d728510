package blend

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

func over(t require.TestingT, key form.Key, palette, numeral string) (Blend, harmony.Chord) {
	p, err := PaletteByID(palette)
	require.NoError(t, err)
	c, err := form.ReadNumeral(numeral, key)
	require.NoError(t, err)
	return Over(key, p, c), c
}

func TestPalettesOverABluesInEveryKey(t *testing.T) {
	for _, fact := range []struct{ palette, chord, degrees, added string }{
		{"minor-pentatonic", "I7", "R #9 11 5 b7", "3"},
		{"minor-pentatonic", "IV7", "5 b7 R 9 11", "3"},
		{"minor-pentatonic", "V7", "11 b13 b7 R #9", "3 5"},
		{"major-pentatonic", "I7", "R 9 3 5 13", "b7"},
		{"major-pentatonic", "IV7", "5 13 7 9 3", "R b7"},
		{"major-pentatonic", "V7", "11 5 13 R 9", "3 b7"},
		{"minor-blues", "I7", "R #9 11 #11 5 b7", "3"},
		{"mixolydian", "I7", "R 9 3 11 5 13 b7", ""},
		{"composite", "I7", "R 9 #9 3 11 #11 5 13 b7", ""},
		{"chord-mixolydian", "V7", "R 9 3 11 5 13 b7", ""},
		{"chord-pentatonic", "IV7", "R 9 3 5 13", "b7"},
		{"chord-pentatonic", "i7", "R b3 11 5 b7", ""},
		{"dorian", "i7", "R 9 b3 11 5 13 b7", ""},
		{"natural-minor", "iv7", "5 13 b7 R 9 b3 11", ""},
	} {
		for _, tonic := range pitch.Roots {
			b, _ := over(t, form.Key{Tonic: tonic}, fact.palette, fact.chord)
			var degrees, added []string
			for _, n := range b.Notes {
				degrees = append(degrees, string(n.Sound.Degree))
			}
			for _, a := range b.Added {
				added = append(added, string(a.Degree))
			}
			assert.Equal(t, fact.degrees, strings.Join(degrees, " "), "%s over %s in %s", fact.palette, fact.chord, tonic)
			assert.Equal(t, fact.added, strings.Join(added, " "), "%s over %s in %s", fact.palette, fact.chord, tonic)
		}
	}
}

func TestClassesOverADominant(t *testing.T) {
	want := map[Class][]int{ChordTone: {0, 4, 7, 10}, Colour: {2, 9}, Blue: {3, 6}, Tension: {5}, Passing: {1, 8, 11}}
	sounds := Sounds(harmony.MustParse("A7"))
	for class, steps := range want {
		for _, h := range steps {
			assert.Equal(t, class, sounds[h].Class, h)
		}
	}
	assert.Equal(t, []harmony.Degree{"3"}, sounds[3].Wants)
	assert.Equal(t, []harmony.Degree{"3"}, sounds[5].Wants)
	assert.Equal(t, []harmony.Degree{"5"}, sounds[6].Wants)
	assert.Equal(t, []harmony.Degree{"b7", "R"}, sounds[11].Wants)
	assert.Equal(t, "wants 3", sounds[5].Reason())
	minor := Sounds(harmony.MustParse("Am7"))
	for h, class := range []Class{ChordTone, Passing, Colour, ChordTone, Passing, Colour, Blue, ChordTone, Passing, Colour, ChordTone, Passing} {
		assert.Equal(t, class, minor[h].Class, h)
	}
	alt := Sounds(harmony.MustParse("A7b9"))
	assert.Equal(t, Passing, alt[2].Class, "a natural ninth contradicts a flat one")
}

// Whatever the chord: its tones rest, nothing else does, a half step above a
// chord tone never colours except on open fifths, and what must move knows where.
func TestEveryChordHasATable(t *testing.T) {
	suffixes := []string{"", "m", "5", "6", "m6", "6/9", "7", "maj7", "m7", "mmaj7", "m7b5", "dim", "dim7", "aug", "7#5", "9", "m9", "maj9", "11", "13", "7b9", "7#9", "7#11", "7alt", "sus2", "sus4", "7sus4", "add9"}
	for _, suffix := range suffixes {
		c := harmony.MustParse("C" + suffix)
		seen := map[harmony.Degree]bool{}
		for h, s := range Sounds(c) {
			tone, is := c.ToneAt(h)
			assert.Equal(t, is, s.Class == ChordTone, "%s %d", c, h)
			if is {
				assert.Equal(t, tone.Degree, s.Degree)
			}
			i, known := s.Degree.Interval()
			require.True(t, known, "%s %d %q", c, h, s.Degree)
			assert.Equal(t, h, i.HalfSteps, "%s %s", c, s.Degree)
			assert.False(t, seen[s.Degree], "%s has two of %s", c, s.Degree)
			seen[s.Degree] = true
			assert.NotEmpty(t, s.Class, "%s %d", c, h)
			assert.Equal(t, s.Class == ChordTone || s.Class == Colour, len(s.Wants) == 0, "%s %s", c, s.Degree)
			for _, d := range s.Wants {
				assert.True(t, c.HasDegree(d))
			}
		}
	}
}

func TestOneFretOverThreeChords(t *testing.T) {
	in := neck.Standard()
	for _, tonic := range pitch.Roots {
		key := form.Key{Tonic: tonic}
		var chords []harmony.Chord
		for _, n := range []string{"I7", "IV7", "V7"} {
			_, c := over(t, key, "major-pentatonic", n)
			chords = append(chords, c)
		}
		// The second of the key on string 2: the core finds what bending makes of it.
		second := (tonic.Class() + 2) % 12
		for _, p := range Places(in, second, neck.Region{Low: 2, High: 15}) {
			if p.String != 2 {
				continue
			}
			r := OnePlace(in, p, chords, false)
			bent := func(i, halfSteps int) harmony.Degree {
				for _, b := range r[i].Bent {
					if b.HalfSteps == halfSteps {
						return b.To.Degree
					}
				}
				return ""
			}
			assert.Equal(t, harmony.Degree("3"), bent(0, 2))
			assert.Equal(t, harmony.Degree("b7"), bent(1, 1))
			assert.Equal(t, harmony.Degree("5"), r[2].Degree)
			assert.Equal(t, ChordTone, r[2].Class)
		}
	}
}

func TestImaginedChordsRub(t *testing.T) {
	rubs := Rubs(harmony.MustParse("A7"), harmony.MustParse("C7"))
	require.Len(t, rubs, 1)
	assert.Equal(t, "C#", rubs[0].Tone.Name.String())
	assert.Equal(t, harmony.Degree("b9"), rubs[0].Over.Degree)
	assert.Empty(t, Rubs(harmony.MustParse("C7"), harmony.MustParse("C7")))
	assert.Empty(t, Rubs(harmony.MustParse("N.C."), harmony.MustParse("C7")))
}

func TestBendsReachChordTones(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		tuning := rapid.SampledFrom(neck.Tunings).Draw(t, "tuning")
		in, err := neck.New(tuning.Open, tuning.Frets, tuning.Scale, 0)
		require.NoError(t, err)
		key := form.Key{Tonic: rapid.SampledFrom(pitch.Roots).Draw(t, "key")}
		p := rapid.SampledFrom(Palettes).Draw(t, "palette")
		b, c := over(t, key, p.ID, rapid.SampledFrom([]string{"I7", "IV7", "V7", "i7", "#IVdim7", "VI7"}).Draw(t, "chord"))
		low := rapid.IntRange(0, 15).Draw(t, "low")
		w := neck.Region{Low: low, High: low + 4}
		advanced := rapid.Bool().Draw(t, "advanced")
		for _, bend := range Bends(in, b, c, w, advanced) {
			midi := in.MIDI(bend.From)
			require.Positive(t, bend.From.Fret)
			require.True(t, slices.ContainsFunc(b.Notes, func(n Note) bool { return n.Name.Class() == midi%12 }), "from a note of the palette")
			require.LessOrEqual(t, bend.HalfSteps, Limit(in, bend.From, advanced))
			if bend.HalfSteps > 0 {
				require.Equal(t, bend.To.Name.Class(), (midi+bend.HalfSteps)%12)
			} else {
				require.Equal(t, Blue, bend.Class)
			}
		}
	})
}

func TestStringsThatBend(t *testing.T) {
	in := neck.Standard()
	for s, want := range map[int]int{1: 2, 2: 2, 3: 2, 4: 1, 5: 0, 6: 0} {
		assert.Equal(t, want, Limit(in, neck.Placement{String: s, Fret: 7}, false), s)
	}
	assert.Equal(t, 3, Limit(in, neck.Placement{String: 1, Fret: 7}, true))
	assert.Zero(t, Limit(in, neck.Placement{String: 1}, true))
}

// A place is told by its name in the key, its degree there, and its other places.
func TestAboutAPlace(t *testing.T) {
	in := neck.Standard()
	for _, c := range []struct {
		key    form.Key
		at     neck.Placement
		note   string
		degree harmony.Degree
		others []neck.Placement
	}{
		{form.Key{Tonic: pitch.Name{}}, neck.Placement{String: 2, Fret: 3}, "D4", "2", []neck.Placement{{String: 6, Fret: 22}, {String: 5, Fret: 17}, {String: 4, Fret: 12}, {String: 3, Fret: 7}}},
		{form.Key{Tonic: pitch.Name{Letter: 6, Alter: -1}}, neck.Placement{String: 6, Fret: 9}, "Db3", "b3", []neck.Placement{{String: 5, Fret: 4}}},
		{form.Key{Tonic: pitch.Name{}}, neck.Placement{String: 6, Fret: 2}, "Gb2", "b5", nil},
		{form.Key{Tonic: pitch.Name{}}, neck.Placement{String: 6, Fret: 8}, "C3", "R", []neck.Placement{{String: 5, Fret: 3}}},
		{form.Key{Tonic: pitch.Name{Letter: 5}, Minor: true}, neck.Placement{String: 1, Fret: 0}, "E4", "5", []neck.Placement{{String: 6, Fret: 24}, {String: 5, Fret: 19}, {String: 4, Fret: 14}, {String: 3, Fret: 9}, {String: 2, Fret: 5}}},
	} {
		a := AboutPlace(in, c.key, c.at)
		assert.Equal(t, c.note, a.Pitch.String())
		assert.Equal(t, c.degree, a.Degree)
		if in.Last() < 24 {
			c.others = slices.DeleteFunc(c.others, func(p neck.Placement) bool { return p.Fret > in.Last() })
		}
		assert.Equal(t, c.others, a.Others)
	}
}

func TestBoxesLieWithThePositions(t *testing.T) {
	in := neck.Standard()
	minor, _ := PaletteByID("minor-pentatonic")
	for _, tonic := range pitch.Roots {
		boxes := Boxes(in, tonic.Class())
		require.GreaterOrEqual(t, len(boxes), 5)
		for _, box := range boxes {
			for s := 1; s <= in.Strings(); s++ {
				if !box.Region.Strings.Has(s) {
					continue
				}
				n := 0
				for fret := box.Region.Low; fret <= box.Region.High; fret++ {
					class := in.MIDI(neck.Placement{String: s, Fret: fret}) % 12
					if slices.ContainsFunc(minor.Notes(form.Key{Tonic: tonic}, harmony.Chord{}), func(m Member) bool { return m.Name.Class() == class }) {
						n++
					}
				}
				assert.True(t, n == 2 || n == 3, "%s in %s: %d notes on string %d", box.Name, tonic, n, s)
			}
		}
	}
	small, ok := SmallBox(in, 0)
	require.True(t, ok)
	assert.Equal(t, neck.Region{Low: 12, High: 16, Strings: neck.StringsOf(1, 2, 3)}, small.Region)
	_, err := PaletteByID("purple")
	assert.ErrorContains(t, err, `no palette "purple"`)
}
