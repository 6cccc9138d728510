package musicxml

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// Every chord is told by its kind and its degrees alone, for programs that do not read the
// text it shows; what they show apart from the degrees does not hide them.
func TestEveryChordIsToldByKindAndDegrees(t *testing.T) {
	others := 0
	for _, root := range []string{"C", "F#", "Bb"} {
		for _, suffix := range symbols {
			c, err := harmony.Parse(root + suffix)
			require.NoError(t, err, suffix)
			kind, degrees := kindOf(c)
			require.NotEmpty(t, kind, suffix)
			h := harmonyXML{}
			h.Root.Step, h.Root.Alter = steps[c.Root.Letter:c.Root.Letter+1], float64(c.Root.Alter)
			h.Kind.Value = kind
			for _, d := range degrees {
				h.Degrees = append(h.Degrees, struct {
					Value int    `xml:"degree-value"`
					Alter int    `xml:"degree-alter"`
					Type  string `xml:"degree-type"`
				}{d.value, d.alter, d.how})
			}
			if len(degrees) > 0 {
				others++
			}
			// A reader that shows the label and the degrees behind it shows each once.
			label, hidden := labelled(c, kind, degrees)
			if len(degrees) > 0 && hidden == "" {
				base, err := harmony.Parse("C" + label)
				require.NoError(t, err, "%s%s", root, suffix)
				assert.NotEqual(t, degreesOf(harmony.MustParse("C"+c.Suffix())), degreesOf(base), "%s%s shows %q and degrees", root, suffix, label)
			} else {
				assert.Equal(t, c.Suffix(), label)
			}
			h.Kind.Text = label
			written, ok := chordOf(&h)
			require.True(t, ok)
			assert.Equal(t, c.String(), written.String(), "as it is written it comes back the same")
			for _, shown := range []string{"", "7", c.Suffix()} {
				h.Kind.Text = shown
				if shown == "7" && len(degrees) == 0 {
					continue // what is shown is believed where nothing speaks against it
				}
				back, ok := chordOf(&h)
				require.True(t, ok, "%s%s as %s %v", root, suffix, kind, degrees)
				assert.Equal(t, degreesOf(c), degreesOf(back), "%s%s as %s %v came back as %s", root, suffix, kind, degrees, back)
			}
		}
	}
	assert.Greater(t, others, 40)
	assert.Equal(t, []degree{{9, 1, "add"}}, second(kindOf(harmony.MustParse("C7#9"))))
	assert.Equal(t, "dominant", first(kindOf(harmony.MustParse("C7#9"))))
	assert.Equal(t, "major-minor", first(kindOf(harmony.MustParse("CmMaj7"))))
	assert.Equal(t, "augmented-seventh", first(kindOf(harmony.MustParse("C7#5"))))
	// What no symbol says is not read as something near.
	h := harmonyXML{}
	h.Root.Step, h.Kind.Value = "C", "dominant"
	h.Degrees = append(h.Degrees, struct {
		Value int    `xml:"degree-value"`
		Alter int    `xml:"degree-alter"`
		Type  string `xml:"degree-type"`
	}{2, -3, "add"})
	_, ok := chordOf(&h)
	assert.False(t, ok)
}

func first(kind string, _ []degree) string { return kind }
func second(_ string, d []degree) []degree { return d }

// A chord within a bar stands before the note that it begins with, and comes back there; one
// that begins within a note says by how much.
func TestChordsStandWhereTheyBegin(t *testing.T) {
	p, err := form.Read("| C7 F7 | G7 . . C7 |", 4, form.Key{})
	require.NoError(t, err)
	s := score.Score{Title: "x", Progression: p, In: neck.Standard(), Tempo: 96}
	for i := range 6 {
		place := neck.Placement{String: 3, Fret: 5}
		s.Notes = append(s.Notes, score.Note{Start: i * score.Tick, Length: score.Tick, Placement: place, Pitch: pitch.At(s.In.MIDI(place), pitch.Name{})})
	}
	s.Notes[5].Length = 3 * score.Tick
	text := string(Write(s))
	parts := strings.Split(text, "<harmony>")
	require.Len(t, parts, 5)
	assert.Equal(t, 2, strings.Count(parts[1], "<note>"), "two quarters before F7")
	assert.NotContains(t, parts[2], "<offset>")
	f, err := Read(t.Context(), []byte(text))
	require.NoError(t, err)
	assert.Equal(t, p.Text(), f.Progression.Text())
}

// A part for a transposing instrument comes back as it sounds: key, chords and notes alike.
func TestTransposingPartsSound(t *testing.T) {
	const part = `<score-partwise version="4.0"><part-list><score-part id="P1"><part-name>x</part-name></score-part></part-list><part id="P1"><measure number="1">
		<attributes><divisions>1</divisions><key><fifths>2</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time><transpose><chromatic>-2</chromatic></transpose></attributes>
		<harmony><root><root-step>D</root-step></root><kind>dominant</kind></harmony>
		<note><pitch><step>F</step><alter>1</alter><octave>4</octave></pitch><duration>2</duration><voice>1</voice></note>
		<harmony><root><root-step>B</root-step></root><kind>minor-seventh</kind><bass><bass-step>A</bass-step></bass></harmony>
		<note><pitch><step>D</step><octave>4</octave></pitch><duration>2</duration><voice>1</voice></note></measure></part></score-partwise>`
	f, err := Read(t.Context(), []byte(part))
	require.NoError(t, err)
	assert.Equal(t, "C", f.Key.String())
	assert.Equal(t, "| C7 Am7/G |", f.Progression.Text())
	assert.Equal(t, 64, f.Notes[0].Pitch.MIDI(), "the third of C7")
}
