package form

import (
	"testing"

	"undaris/core/harmony"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// Bars of their own length as they are written, with what comes of them.
func TestBarsOfAnotherLength(t *testing.T) {
	for _, c := range []struct {
		text, written string
		lengths       []int
	}{
		{"| C7 | 2/4 F7 | 4/4 C7 |", "| C7 | 2/4 F7 | 4/4 C7 |", []int{4, 2, 4}},
		{"| C7 | (2/4) F7 | G7 |", "| C7 | 2/4 F7 | G7 |", []int{4, 2, 2}},
		{"| no pickup 1/4 G7 | 4/4 C7 | % | 3/4 F7 |", "| no pickup 1/4 G7 | 4/4 C7 | C7 | 3/4 F7 |", []int{1, 4, 4, 3}},
		{"| C7 | 3/4 F7 . G7 | [5/4] C7 A7 |", "| C7 | 3/4 F7 G7 | 5/4 C7 A7 |", []int{4, 3, 5}},
		{"|: C7 | 1. 2/4 F7 :| 2. 3/4 G7 |", "|: C7 | 1. 2/4 F7 :| 2. 3/4 G7 |", []int{4, 2, 4, 3}},
		{"| 12/8 C7 | 6/8 F7 | C7 G7 |", "| C7 | 2/4 F7 | C7 G7 |", []int{4, 2, 2}},
		{"| C7 | F7 |\nTime: 3/4\n| G7 | C7 |", "| C7 | F7 |\n| 3/4 G7 | C7 |", []int{4, 4, 3, 3}},
		{"{time: 3/4}\n| G7 | C7 |", "| G7 | C7 |", nil},
		{"| 1 | (2/4) 5 | (4/4) 1 |", "| C | 2/4 G | 4/4 C |", []int{4, 2, 4}},
		{"| 5/4 1/3 | 4 |", "| G/F C/E | F |", nil},
		{"| C7 | 2/4 [Bridge] F7 | [Coda] 4/4 G7 |", "| C7 | [Bridge] 2/4 F7 | [Coda] 4/4 G7 |", []int{4, 2, 4}},
		{"C7 2/4 F7 (4/4) G7", "| C7 | 2/4 F7 | 4/4 G7 |", []int{4, 2, 4}},
		{"| 2/4 |", "| D/F |", nil},
		{"| C7 | 2/4 F7 | % | G7", "| C7 | 2/4 F7 | F7 | G7 |", []int{4, 2, 2, 2}},
	} {
		s, _, err := ReadSong(c.text, 4, mustKey(t, "C"))
		require.NoError(t, err, c.text)
		p := s.Play(MaxBars)
		assert.Equal(t, c.lengths, p.Lengths(), c.text)
		assert.Equal(t, c.written, s.Text())
		again, _, err := ReadSong(s.Text(), 4, mustKey(t, "C"))
		require.NoError(t, err, s.Text())
		assert.Equal(t, s, again, c.text)
	}
	for text, want := range map[string]string{
		"| C7 | 13/4 F7 |":           "bar 2: 13/4 cannot be charted",
		"| C7 | 0/4 F7 |":            "bar 2: 0/4 cannot be charted",
		"| C7 | 7/8 F7 |":            "bar 2: 7/8 cannot be charted",
		"| C7 | 2/4 F7 . . . |":      "bar 2 has 4 beats written out; it needs 2",
		"| C7 . . G7 | 2/4 % |":      "bar 2 has 2 beats, and the one that comes again has a chord on beat 4",
		"| C7 | 2/4 F7 G7 C7 |":      "bar 2 has 3 chords on 2 beats",
		"| C7 | 2/4 F7 | C7 . . . |": "bar 3 has 4 beats written out; it needs 2",
	} {
		_, _, err := ReadSong(text, 4, mustKey(t, "C"))
		assert.ErrorContains(t, err, want, text)
	}
	_, found, err := ReadSong("| 1 | 4/4 5 |", 4, mustKey(t, "C"))
	require.NoError(t, err)
	assert.Equal(t, []string{"bar 2: 4/4 is read as a chord; for a metre write (4/4)"}, found.Said)
}

// Uneven bars lie end to end: each beat is in one, and none is lost on the way to the text and
// back, in any key.
func TestBeatsAndBars(t *testing.T) {
	seventh, err := harmony.Parse("C7")
	require.NoError(t, err)
	fourth, err := harmony.Parse("F7")
	require.NoError(t, err)
	rapid.Check(t, func(t *rapid.T) {
		p := Progression{Beats: rapid.IntRange(MinBeats, MaxBeats).Draw(t, "beats")}
		for range rapid.IntRange(1, 9).Draw(t, "bars") {
			b := Bar{Row: len(p.Bars) > 0 && rapid.Bool().Draw(t, "row"), Beats: rapid.IntRange(0, MaxBeats).Draw(t, "own"), Changes: []Change{{0, seventh}}}
			if b.Beats == p.Beats {
				b.Beats = 0
			}
			p.Bars = append(p.Bars, b)
			if n := p.BeatsOf(len(p.Bars) - 1); n > 1 {
				last := &p.Bars[len(p.Bars)-1]
				last.Changes = append(last.Changes, Change{rapid.IntRange(1, n-1).Draw(t, "change"), fourth})
			}
		}
		total := 0
		for _, place := range p.Places() {
			total += place.Length
			assert.Positive(t, place.Length)
		}
		assert.Equal(t, total, p.Length())
		last := -p.Beats - 1
		for beat := -p.Beats; beat < p.Length()+3; beat++ {
			bar, in := p.BarAt(beat)
			require.Equal(t, beat, p.StartOf(bar)+in)
			require.Less(t, in, p.BeatsOf(bar))
			require.GreaterOrEqual(t, bar, last)
			last = bar
		}
		for _, tonic := range []string{"C", "F#", "Bb", "C#m"} {
			k, err := ParseKey(tonic)
			require.NoError(t, err)
			there := p.Transpose(Key{Tonic: p.Bars[0].Changes[0].Chord.Root}, k)
			back, err := Read(there.Text(), p.Beats, k)
			require.NoError(t, err, there.Text())
			assert.Equal(t, there, back)
		}
	})
}
