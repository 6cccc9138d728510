package blend

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// In every key: the half-diminished chord on the third of a dominant brings its 9, the
// minor seventh on its fifth 9 and 11; the chord itself comes first and brings nothing.
func TestOtherArpeggiosOverADominant(t *testing.T) {
	for _, tonic := range pitch.Roots {
		five := harmony.MustParse(tonic.String() + "7")
		key := form.Key{Tonic: tonic.Up(pitch.Interval{Letters: 3, HalfSteps: 5})}
		found := map[harmony.Degree]string{}
		for i, o := range Others(key, five) {
			require.Len(t, o.Sounds, 4)
			require.Equal(t, 4, o.Rests()+o.Colours()+o.Moves())
			require.True(t, o.KeyStep > 0 || o.ScaleStep > 0)
			if i == 0 {
				assert.Equal(t, five.Printed()+" itself", o.Says(five))
				assert.True(t, o.KeyStep == 5 && o.ScaleStep == 1, "the dominant's scale is the key's")
			}
			found[o.Degree] = o.Says(five)
		}
		assert.Len(t, found, 7, tonic)
		assert.Equal(t, "brings 9, leaves out R", found["3"], tonic)
		assert.Equal(t, "brings 9 and 11, leaves out R and 3", found["5"], tonic)
	}
	assert.Empty(t, Others(form.Key{}, harmony.Chord{None: true}))
	minor := form.Key{Tonic: pitch.Roots[0], Minor: true}
	raised := false
	for _, o := range Others(minor, harmony.MustParse(minor.Tonic.String()+"m7")) {
		raised = raised || o.Raised && o.KeyStep == 5 && o.Chord.Dominant() && o.Degree == "5"
	}
	assert.True(t, raised, "a minor key's dominant")
}

// Other arpeggios are named by what sounds: over every kind of chord in every key no tone of one has a double sign, where another
// name of its root has none; the chord itself keeps its name.
func TestOtherArpeggiosAreNamedByWhatSounds(t *testing.T) {
	named := 0
	for _, quality := range []string{"7", "7alt", "dim7", "m7", "m7b5", "maj7", "7b9", "aug", "6"} {
		for _, tonic := range pitch.Roots {
			over := harmony.MustParse(tonic.String() + quality)
			for _, key := range []form.Key{{Tonic: tonic}, {Tonic: tonic, Minor: true}} {
				for _, o := range Others(key, over) {
					if o.Chord.String() == over.String() {
						continue
					}
					doubled := func(c harmony.Chord) bool {
						for _, x := range c.Tones {
							if x.Name.Alter < -1 || x.Name.Alter > 1 {
								return true
							}
						}
						return false
					}
					for _, root := range pitch.Roots {
						if root.Class() == o.Chord.Root.Class() && !doubled(o.Chord.On(root)) {
							require.False(t, doubled(o.Chord), "%s over %s could be %s", o.Chord, over, o.Chord.On(root))
						}
					}
					named++
				}
			}
		}
	}
	assert.Greater(t, named, 1000)
	found := false
	for _, o := range Others(form.Key{}, harmony.MustParse("Edim7")) {
		found = found || o.Chord.String() == "C#dim7"
	}
	assert.True(t, found, "C♯°7 over E°7")
}

// Over a plain triad the note between the thirds is its flat third, over a dominant a sharp ninth; both are curled.
func TestTheBlueThirdHasItsName(t *testing.T) {
	for _, tonic := range pitch.Roots {
		for quality, want := range map[string]harmony.Degree{"": "b3", "6": "b3", "7": "#9", "9": "#9", "m7": "b3"} {
			c := harmony.MustParse(tonic.String() + quality)
			assert.Equal(t, want, Sounds(c)[3].Degree, c)
			curls := 0
			for _, b := range Bends(neck.Standard(), Over(form.Key{Tonic: tonic}, Palettes[0], c), c, neck.Region{Low: 3, High: 10}, false) {
				if b.HalfSteps == 0 {
					curls++
				}
			}
			assert.Equal(t, quality != "m7", curls > 0, c)
		}
	}
}

func TestWhatAnExtensionImplies(t *testing.T) {
	chart := []harmony.Chord{harmony.MustParse("Am7"), harmony.MustParse("Dm7"), harmony.MustParse("E7")}
	assert.Equal(t, "13 over Am7 is Dorian; but Dm7 has F, the ♭6 here", Implies(chart[0], "13", chart))
	assert.Equal(t, "13 over Am7 is Dorian", Implies(chart[0], "13", chart[:1]))
	assert.Equal(t, "♯11 over Cmaj7 is Lydian", Implies(harmony.MustParse("Cmaj7"), "#11", nil))
	assert.Empty(t, Implies(chart[0], "9", chart), "Dorian and natural minor have it both")
	assert.Empty(t, Implies(harmony.Chord{None: true}, "13", chart))
	for row, degrees := range implied {
		require.Contains(t, tables, row)
		for d := range degrees {
			_, ok := d.Interval()
			require.True(t, ok, "%s over %s", d, row)
		}
	}
}

func TestPalettesOfOnesOwn(t *testing.T) {
	p, err := PaletteByID("own:5 1 b3 4 6")
	require.NoError(t, err)
	assert.Equal(t, Palette{ID: "own:1 b3 4 5 6", Name: "1 ♭3 4 5 6", Steps: "1 b3 4 5 6"}, p)
	again, err := PaletteByID(p.ID)
	require.NoError(t, err)
	assert.Equal(t, p, again)
	for id, says := range map[string]string{
		"own:1 b3 8": `"8" is no step of a palette; they are 1 b2 2 b3 3 4 b5 5 b6 6 b7 7`,
		"own:1 5":    "a palette has 3 steps at least",
		"own:":       "a palette has 3 steps at least",
	} {
		_, err := PaletteByID(id)
		assert.EqualError(t, err, says)
	}
	for _, tonic := range pitch.Roots {
		for i, m := range (Palette{Steps: "1 b2 2 b3 3 4 b5 5 b6 6 b7 7"}).Notes(form.Key{Tonic: tonic}, harmony.Chord{}) {
			assert.Equal(t, (tonic.Class()+i)%12, m.Name.Class(), "%s of %s", m.Degree, tonic)
		}
	}
}

// The slide from ♭3 to 3 lies a fret up on every string, in every key.
func TestSlidesBetweenTheBoxes(t *testing.T) {
	in := neck.Standard()
	both, err := PaletteByID("both-boxes")
	require.NoError(t, err)
	for _, tonic := range pitch.Roots {
		c := harmony.MustParse(tonic.String() + "7")
		w := neck.Region{Low: 1, High: 13}
		slides := Slides(in, both, c, w)
		strings := map[int]bool{}
		for _, s := range slides {
			strings[s.From.String] = true
			assert.Equal(t, neck.Placement{String: s.From.String, Fret: s.From.Fret + 1}, s.To)
			tone, _ := c.ToneAt(in.MIDI(s.To) % 12)
			assert.Equal(t, harmony.Degree("3"), tone.Degree)
		}
		assert.Len(t, strings, 6)
		assert.Empty(t, Slides(in, Palettes[0], c, w))
		assert.Empty(t, Slides(in, both, harmony.MustParse(tonic.String()+"m7"), w))
	}
}
