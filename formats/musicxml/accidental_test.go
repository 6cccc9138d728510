package musicxml

import (
	"bytes"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// An accidental stands where a reader needs it, and nowhere else.
func TestAccidentals(t *testing.T) {
	for _, c := range []struct {
		key   string
		notes []string // quarters
		signs []string
	}{
		{"C", []string{"F#4", "F#4", "F4", "F#3", "F#4", "F4", "B4", "Bb4"}, []string{"sharp", "", "natural", "sharp", "sharp", "natural", "", "flat"}},
		{"G", []string{"F#4", "F4", "F#4", "C#4", "F4", "F4", "G4", "F#4"}, []string{"", "natural", "sharp", "sharp", "natural", "", "", "sharp"}},
		{"Eb", []string{"Bb3", "Eb4", "A4", "Ab4", "Db4", "D4", "E4", "Eb4"}, []string{"", "", "natural", "flat", "flat", "natural", "natural", "flat"}},
		{"Bm", []string{"C#4", "A#4", "A4", "F#4", "E#4", "F#4", "C4", "D4"}, []string{"", "sharp", "natural", "", "sharp", "", "natural", ""}},
		{"F#", []string{"E#4", "E4", "B#3", "A#4", "G#4", "A4", "Cb4", "C#4"}, []string{"", "natural", "sharp", "", "", "natural", "flat", "sharp"}},
	} {
		key, err := form.ParseKey(c.key)
		require.NoError(t, err)
		p, err := form.Read("| C7 | F7 |", 4, key)
		require.NoError(t, err)
		s := score.Score{Key: key, Tempo: 100, Progression: p, In: neck.Standard()}
		for i, name := range c.notes {
			n := score.Note{Start: i * score.Tick, Length: score.Tick}
			n.Pitch, err = pitch.ParsePitch(name)
			require.NoError(t, err)
			places := s.In.Find(n.Pitch.MIDI(), neck.Region{Low: 0, High: 22})
			require.NotEmpty(t, places, name)
			n.Placement = places[0]
			s.Notes = append(s.Notes, n)
		}
		xml := string(Write(s))
		var got []string
		for _, note := range regexp.MustCompile(`<note>.*?</note>`).FindAllString(xml, -1) {
			if !regexp.MustCompile(`<staff>1</staff>`).MatchString(note) {
				assert.NotContains(t, note, "<accidental>", "tablature has none")
				continue
			}
			sign := regexp.MustCompile(`<accidental>(.*)</accidental>`).FindStringSubmatch(note)
			if sign == nil {
				sign = []string{"", ""}
			}
			got = append(got, sign[1])
		}
		assert.Equal(t, c.signs, got, c.key)
	}
}

// An accent stands once, on the notation, and is read from there.
func TestSignsStandOnce(t *testing.T) {
	p, err := form.Read("| C7 |", 4, form.Key{})
	require.NoError(t, err)
	s := score.Score{Tempo: 96, Progression: p, In: neck.Standard(), Notes: []score.Note{{Length: score.Tick, Pitch: pitch.At(64, pitch.Name{Letter: 2}), Placement: neck.Placement{String: 1}, Ornaments: score.Ornaments{Accent: true, Staccato: true}}}}
	out := Write(s)
	assert.Equal(t, 1, bytes.Count(out, []byte("<accent/>")))
	assert.Equal(t, 1, bytes.Count(out, []byte("<staccato/>")))
	assert.Equal(t, 1, bytes.Count(out, []byte("<midi-program>28</midi-program>")))
	f, err := Read(t.Context(), out)
	require.NoError(t, err)
	assert.Equal(t, s.Notes[0].Ornaments, f.Notes[0].Ornaments)
}
