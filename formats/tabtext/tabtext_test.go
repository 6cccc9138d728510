package tabtext

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
	"undaris/formats/scoretest"
)

func TestWhatIsWrittenReadsBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f := rapid.SampledFrom(form.Forms).Draw(t, "form")
		key := form.Key{Tonic: rapid.SampledFrom(pitch.Roots).Draw(t, "tonic"), Minor: f.Minor}
		tuning := rapid.SampledFrom(neck.Tunings).Draw(t, "tuning")
		in, err := neck.New(tuning.Open, 22, 648, rapid.IntRange(0, 3).Draw(t, "capo"))
		require.NoError(t, err)
		s := score.Score{Title: "Low Water", Key: key, Tempo: rapid.IntRange(30, 300).Draw(t, "tempo"), Swing: rapid.Bool().Draw(t, "swing"), Progression: scoretest.Leads(t, scoretest.Uneven(t, f.In(key))), In: in}
		rhythms := [][]int{{480, 480}, {320, 320, 320}, {960}, {640, 320}, {240, 240, 480}, {720, 240}, {1920}, {1440, 480}}
		now := rapid.SampledFrom([]int{0, -960, -1920}).Draw(t, "pickup")
		for now < min(s.At(3), s.End()-score.Tick) {
			for _, length := range rapid.SampledFrom(rhythms).Draw(t, "rhythm") {
				if now >= s.End() {
					break
				}
				n := score.Note{Start: now, Length: min(length, s.End()-now), Placement: neck.Placement{String: rapid.IntRange(1, 4).Draw(t, "string"), Fret: rapid.IntRange(1, 12).Draw(t, "fret")}}
				midi := in.MIDI(n.Placement)
				n.Pitch = pitch.At(midi, key.Spell(midi%12))
				n.Ornaments = scoretest.Ornaments(t)
				s.Notes = append(s.Notes, n)
				now += length
			}
		}
		for i := range s.Notes {
			if next, ok := s.Joined(i); ok {
				s.Notes[next].Join = scoretest.Join(t)
			}
		}
		s.Undoable()
		require.NoError(t, s.Check())
		got, said, err := Read(t.Context(), Write(s), neck.Standard())
		require.NoError(t, err)
		require.Empty(t, said, "%s", Write(s))
		require.Equal(t, []any{s.Title, s.Key, s.Tempo, s.Swing, s.Text()}, []any{got.Title, got.Key, got.Tempo, got.Swing, got.Text()})
		require.Equal(t, s.In.Tuning(), got.In.Tuning())
		require.Equal(t, s.Notes, got.Notes, "%s", Write(s))
	})
}

func TestTextFromElsewhere(t *testing.T) {
	s, said, err := Read(t.Context(), []byte(`
  A little phrase

e|----------------|--------8-----|
B|----------8--11-|--------------|
G|-----8h9--------|--10b12-8-----|
D|--10------------|--------------|
A|----------------|--------------|
E|----------------|--------------|
`), neck.Standard())
	require.NoError(t, err)
	assert.Contains(t, strings.Join(said, "; "), "guessed")
	require.Len(t, s.Notes, 8)
	assert.Equal(t, score.Hammer, s.Notes[2].Join)
	assert.Equal(t, 9, s.Notes[2].Fret)
	assert.Equal(t, 4, s.Notes[5].Bend)
	assert.Len(t, s.Bars, 2)
	require.NoError(t, s.Check())
}

func TestTextRefusedOrNamed(t *testing.T) {
	for says, text := range map[string]string{
		"no tablature":   "nothing here",
		"row of 7":       strings.Repeat("e|--3--|\n", 7),
		"is no key":      "Key: H\n",
		"a time of 7/8":  "Time: 7/8\n",
		"under a tuning": "Tuning: E2,A2,D3,G3,B3,E4\n\n" + strings.Repeat("e|--3--|\n", 5),
		"chords cannot":  "Chords: | Zork |\n\n" + strings.Repeat("e|--3--|\n", 6),
	} {
		_, _, err := Read(t.Context(), []byte(text), neck.Standard())
		assert.ErrorContains(t, err, says)
	}
	_, said, err := Read(t.Context(), []byte("    q  q  q\n"+strings.Repeat("e|--3--55-|\n", 6)), neck.Standard())
	require.NoError(t, err)
	assert.NotEmpty(t, said)
}

func FuzzRead(f *testing.F) {
	f.Add([]byte("Key: C\nChords: | C7 |\n\n    q e e3 e3 e3 h\n" + strings.Repeat("e|--3b5r-h7--(3)/5~-x3-|\n", 6)))
	f.Add([]byte(strings.Repeat("e|--3--|--5h7--|\n", 6)))
	f.Fuzz(func(t *testing.T, data []byte) {
		s, _, err := Read(t.Context(), data, neck.Standard())
		if err != nil {
			return
		}
		if err := s.Check(); err != nil {
			t.Fatal(err)
		}
	})
}
