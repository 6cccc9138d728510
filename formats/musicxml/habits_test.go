package musicxml

import (
	"fmt"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/score"
	"undaris/formats"
)

// measures are of a whole note each, C D E …, with what is put into them.
func measures(beats string, more ...string) string {
	var out strings.Builder
	out.WriteString(`<score-partwise><part-list><score-part id="P"><part-name>x</part-name></score-part></part-list><part id="P">`)
	for i, m := range more {
		attributes := ""
		if i == 0 {
			attributes = `<attributes><divisions>1</divisions><time><beats>` + beats + `</beats><beat-type>4</beat-type></time></attributes>`
		}
		note := fmt.Sprintf(`<note><pitch><step>%c</step><octave>4</octave></pitch><duration>4</duration><voice>1</voice></note>`, "CDEFGAB"[i])
		before, behind, _ := strings.Cut(m, "@")
		fmt.Fprintf(&out, `<measure number="%d">%s%s%s%s</measure>`, i+1, attributes, before, note, behind)
	}
	return out.String() + `</part></score-partwise>`
}

func words(text string) string {
	return `<direction><direction-type><words>` + text + `</words></direction-type></direction>`
}

const (
	drawnSegno = `<direction><direction-type><segno/></direction-type></direction>`
	drawnCoda  = `<direction><direction-type><coda/></direction-type></direction>`
	forward    = `<barline location="left"><repeat direction="forward"/></barline>`
)

func backward(times string) string {
	return `<barline location="right"><repeat direction="backward"` + times + `/></barline>`
}

// The order of measures is followed where only words and drawn signs tell it, as where it is told for sounding; a repeat is played as
// often as it says.
func TestTheOrderIsReadFromWordsAndSigns(t *testing.T) {
	for _, c := range []struct{ name, text, notes string }{
		{"as it stands", measures("4", "", "", ""), "CDE"},
		{"twelve times", measures("4", forward+"@", "@"+backward(` times="12"`)), strings.Repeat("CD", 12)},
		{"twice", measures("4", "", "@"+backward("")), "CDCD"},
		{"da capo al fine", measures("4", "", "@"+words("Fine"), "@"+words("D.C. al Fine")), "CDECD"},
		{"in capitals", measures("4", "", "@"+words("FINE"), "@"+words("D.C. AL FINE")), "CDECD"},
		{"dal segno al fine", measures("4", "", drawnSegno+"@", "@"+words("Fine"), "@"+words("D.S. al Fine")), "CDEFDE"},
		{"dal segno al coda", measures("4", "", drawnSegno+"@", "@"+words("To Coda"), "@"+words("D.S. al Coda"), drawnCoda+"@"), "CDEFDEG"},
		{"to coda with its sign", measures("4", "", drawnSegno+"@", `@<direction><direction-type><words>To Coda</words></direction-type><direction-type><coda/></direction-type></direction>`, "@"+words("D.S. al Coda"), drawnCoda+"@"), "CDEFDEG"},
		{"words that say nothing of it", measures("4", words("slowly, with feeling")+"@", ""), "CD"},
	} {
		f, err := formats.Read(t.Context(), "x.musicxml", []byte(c.text), formats.Wish{Base: score.Score{}})
		require.NoError(t, err, c.name)
		got := ""
		for _, n := range f.Notes {
			got += n.Pitch.Name.String()
		}
		assert.Equal(t, c.notes, got, c.name)
	}
}

// A metre of several parts is their sum.
func TestMetresOfSeveralParts(t *testing.T) {
	f, err := formats.Read(t.Context(), "x.musicxml", []byte(measures("3+2", "", "")), formats.Wish{})
	require.NoError(t, err)
	assert.Equal(t, 5, f.Beats)
	for _, bad := range []string{"3+", "+", "0", "2+x", "500+500"} {
		_, err := formats.Read(t.Context(), "x.musicxml", []byte(measures(bad, "")), formats.Wish{})
		assert.ErrorContains(t, err, "a time of", bad)
	}
}

// A measure that stands for the one before it, or for two, has their notes; one that has notes of its own keeps them.
func TestMeasuresThatAreToBeRepeated(t *testing.T) {
	again := func(kind, bars string) string {
		return `<attributes><measure-style><measure-repeat type="` + kind + `">` + bars + `</measure-repeat></measure-style></attributes>`
	}
	rest := `<note><rest measure="yes"/><duration>4</duration><voice>1</voice></note>`
	empty := func(text string) string { // the measures' own notes are taken out where a rest is put in
		var out []string
		for _, m := range strings.Split(text, "<measure ") {
			if strings.Contains(m, "<rest") {
				m = regexp.MustCompile(`<note><pitch>.*?</note>`).ReplaceAllString(m, "")
			}
			out = append(out, m)
		}
		return strings.Join(out, "<measure ")
	}
	for _, c := range []struct{ name, text, notes string }{
		{"one", measures("4", "", again("start", "1")+rest+"@", again("stop", "")+"@"), "C C E"},
		{"one, thrice", measures("4", "", again("start", "1")+rest+"@", rest+"@", rest+"@", again("stop", "")+"@"), "C C C C G"},
		{"two", measures("4", "", "", again("start", "2")+rest+"@", rest+"@"), "C D C D"},
		{"notes of its own", measures("4", "", again("start", "1")+"@"), "C D"},
		{"none before", measures("4", again("start", "1")+rest+"@", again("stop", "")+"@"), "D"},
	} {
		f, err := formats.Read(t.Context(), "x.musicxml", []byte(empty(c.text)), formats.Wish{})
		require.NoError(t, err, c.name)
		var got []string
		for i, n := range f.Notes {
			got = append(got, n.Pitch.Name.String())
			if c.name != "none before" {
				assert.Equal(t, i*4*score.Tick, n.Start, c.name)
			}
		}
		assert.Equal(t, c.notes, strings.Join(got, " "), c.name)
	}
}

// Chords that stand in another part of the file are those of the line too, and of a chart; a part with its own keeps them.
func TestChordsOfAnotherPart(t *testing.T) {
	harmony := func(root string) string {
		return `<harmony><root><root-step>` + root + `</root-step></root><kind>dominant</kind></harmony>`
	}
	part := func(id, first, second string) string {
		note := `<note><pitch><step>C</step><octave>4</octave></pitch><duration>4</duration><voice>1</voice></note>`
		return `<part id="` + id + `"><measure number="1"><attributes><divisions>1</divisions></attributes>` + first + note + `</measure><measure number="2">` + second + note + `</measure></part>`
	}
	file := func(parts ...string) []byte {
		return []byte(`<score-partwise><part-list><score-part id="A"><part-name>Guitar</part-name></score-part><score-part id="B"><part-name>Keys</part-name></score-part></part-list>` + strings.Join(parts, "") + `</score-partwise>`)
	}
	for _, c := range []struct {
		name   string
		data   []byte
		wish   formats.Wish
		chords string
		lent   bool
	}{
		{"lent", file(part("A", "", ""), part("B", harmony("C"), harmony("F"))), formats.Wish{}, "| C7 | F7 |", true},
		{"of a chart", file(part("A", "", ""), part("B", harmony("C"), harmony("F"))), formats.Wish{Chart: true}, "| C7 | F7 |", true},
		{"its own", file(part("A", harmony("G"), ""), part("B", harmony("C"), harmony("F"))), formats.Wish{}, "| G7 | G7 |", false},
		{"the other part", file(part("A", harmony("G"), ""), part("B", "", "")), formats.Wish{Part: 2}, "| G7 | G7 |", true},
		{"none anywhere", file(part("A", "", ""), part("B", "", "")), formats.Wish{}, "| N.C. | N.C. |", false},
	} {
		f, err := formats.Read(t.Context(), "x.musicxml", c.data, c.wish)
		require.NoError(t, err, c.name)
		assert.Equal(t, c.chords, f.Text(), c.name)
		assert.Equal(t, c.lent, strings.Contains(strings.Join(f.Said, "; "), "the chords stand in another part"), c.name)
	}
}
