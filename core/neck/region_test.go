package neck

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestSetsOfStrings(t *testing.T) {
	for text, want := range map[string]struct {
		list []int
		says string
	}{
		"":      {nil, ""},
		"5,2":   {[]int{5, 2}, "strings 5 and 2"},
		"2, 5":  {[]int{5, 2}, "strings 5 and 2"},
		"6,4,2": {[]int{6, 4, 2}, "strings 6, 4 and 2"},
		"1,2,3": {[]int{3, 2, 1}, "strings 1 to 3"},
		"1-3":   {[]int{3, 2, 1}, "strings 1 to 3"},
		"3":     {[]int{3}, "string 3"},
		"4,3":   {[]int{4, 3}, "strings 4 and 3"},
	} {
		s, err := ParseStrings(text)
		require.NoError(t, err, text)
		assert.Equal(t, want.list, s.List(), text)
		assert.Equal(t, want.says, s.Says(), text)
		again, err := ParseStrings(s.String())
		require.NoError(t, err)
		assert.Equal(t, s, again)
	}
	for _, bad := range []string{"0", "9", "x", "1,-2", "1;2", "3-1", "1-9", "1-"} {
		_, err := ParseStrings(bad)
		assert.ErrorContains(t, err, "is no string", bad)
	}
}

// Whatever region is asked for: the nearest is on the neck, as wide where there is room,
// and itself where it was on the neck already; one that is not is refused with it.
func TestTheNearestRegion(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		tuning := rapid.SampledFrom(Tunings).Draw(t, "tuning")
		in, err := New(tuning.Open, tuning.Frets, tuning.Scale, 0)
		require.NoError(t, err)
		r := Region{Low: rapid.IntRange(-30, 60).Draw(t, "low"), High: rapid.IntRange(-30, 60).Draw(t, "high"), Strings: Strings(rapid.Uint8().Draw(t, "strings"))}
		near := in.Nearest(r)
		require.GreaterOrEqual(t, near.Low, 0)
		require.GreaterOrEqual(t, near.High, near.Low)
		require.LessOrEqual(t, near.High, in.Last())
		require.Equal(t, near, in.Nearest(near))
		for _, s := range near.Strings.List() {
			require.LessOrEqual(t, s, in.Strings())
			require.True(t, r.Strings.Has(s))
		}
		if width := max(r.High-r.Low, r.Low-r.High); width <= in.Last() {
			require.Equal(t, width, near.High-near.Low)
		}
		if err := in.CheckRegion(r); near != r {
			require.ErrorContains(t, err, near.Says())
		} else {
			require.NoError(t, err)
		}
	})
	// Strings that a bass has not: all of it is offered.
	bass, err := New("E1,A1,D2,G2", 20, 864, 0)
	require.NoError(t, err)
	assert.ErrorContains(t, bass.CheckRegion(Region{Low: 5, High: 9, Strings: StringsOf(5, 6)}), "frets 5 to 9 on strings 6 and 5 is not on this neck, which has strings 1 to 4 and frets 0 to 20; the nearest is frets 5 to 9")
}

// Shapes with so many notes a string have that many on each, each note the next of the
// scale; in every key and tuning there are some.
func TestShapesWithSoManyNotesAString(t *testing.T) {
	pentatonic, major := []int{0, 3, 5, 7, 10}, []int{0, 2, 4, 5, 7, 9, 11}
	for _, tuning := range Tunings {
		in, err := New(tuning.Open, tuning.Frets, tuning.Scale, 0)
		require.NoError(t, err)
		for tonic := range 12 {
			for id, count := range map[string]int{"two": 2, "three": 3, "four": 4} {
				steps := major
				if count == 2 {
					steps = pentatonic
				}
				var scale []int
				for _, s := range steps {
					scale = append(scale, (tonic+s)%12)
				}
				w, err := WayByID(id)
				require.NoError(t, err)
				shapes := w.Regions(in, tonic, scale)
				require.NotEmpty(t, shapes, "%s in %s", id, tuning.Name)
				for _, shape := range shapes {
					require.Len(t, shape.Places, count*in.Strings())
					at := slices.Index(scale, in.MIDI(shape.Places[0])%12)
					for i, p := range shape.Places {
						require.Equal(t, in.Strings()-i/count, p.String)
						require.True(t, shape.Has(p))
						require.Equal(t, scale[(at+i)%len(scale)], in.MIDI(p)%12, "the next of the scale")
						require.True(t, i == 0 || in.MIDI(p) > in.MIDI(shape.Places[i-1]))
					}
					for _, u := range in.Unisons(shape) {
						require.True(t, shape.Has(u))
						require.NotContains(t, shape.Places, u)
					}
				}
			}
		}
	}
	_, err := WayByID("five")
	assert.Error(t, err)
}

// B♭, three notes a string: from the tonic on the lowest string.
func TestThreeNotesAStringInBFlat(t *testing.T) {
	w, err := WayByID("three")
	require.NoError(t, err)
	shapes := w.Regions(Standard(), 10, []int{10, 0, 2, 3, 5, 7, 9})
	i := slices.IndexFunc(shapes, func(n Named) bool { return n.Name == "from step 1" })
	require.GreaterOrEqual(t, i, 0)
	assert.Equal(t, []Placement{{6, 6}, {6, 8}, {6, 10}, {5, 6}, {5, 8}, {5, 10}, {4, 7}, {4, 8}, {4, 10}, {3, 7}, {3, 8}, {3, 10}, {2, 8}, {2, 10}, {2, 11}, {1, 8}, {1, 10}, {1, 11}}, shapes[i].Places)
	assert.Equal(t, Region{Low: 6, High: 11}, shapes[i].Region)
}

// A tuning that has no name, as of an instrument that is gone, is told by its strings.
func TestTuningsAreTold(t *testing.T) {
	for _, x := range Tunings {
		assert.Equal(t, x.Name, TuningName(x.Open))
	}
	assert.Equal(t, "C2,G2,D3,A3", TuningName("C2,G2,D3,A3"))
}
