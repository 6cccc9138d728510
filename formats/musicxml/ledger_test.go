package musicxml

import (
	"context"
	"encoding/xml"
	"errors"
	"io"
	"os"
	"path/filepath"
	"reflect"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/formats"
)

// No element stands in two tables, and each reason says what it excuses: as many as there are.
func TestEveryElementHasOneAccount(t *testing.T) {
	all := strings.Fields(used)
	counts := []int{}
	for _, reason := range idle {
		all = append(all, strings.Fields(reason.names)...)
		counts = append(counts, len(strings.Fields(reason.names)))
	}
	for _, l := range lost {
		all = append(all, l.name)
	}
	slices.Sort(all)
	assert.Equal(t, slices.Compact(slices.Clone(all)), all)
	assert.Equal(t, []int{65, 18, 39, 22, 11, 22, 81}, counts, "what does not matter, by its reason; another is another decision")
	assert.Len(t, all, len(accounts))
}

// What the reader takes from an element is what stands in the table as used, and nothing that stands there is read by nobody.
func TestWhatIsUsedIsRead(t *testing.T) {
	read := map[string]bool{}
	var walk func(reflect.Type)
	seen := map[reflect.Type]bool{}
	walk = func(at reflect.Type) {
		switch at.Kind() {
		case reflect.Pointer, reflect.Slice:
			walk(at.Elem())
		case reflect.Struct:
			if seen[at] {
				return
			}
			seen[at] = true
			for i := range at.NumField() {
				f := at.Field(i)
				tag, how, _ := strings.Cut(f.Tag.Get("xml"), ",")
				if !strings.Contains(how, "attr") && tag != "" {
					for _, name := range strings.Split(tag, ">") {
						read[name] = true
					}
				}
				walk(f.Type)
			}
		}
	}
	walk(reflect.TypeFor[entry]())
	source := ""
	for _, file := range []string{"scout.go", "read.go", "notes.go", "../../core/score/ways.go"} {
		text, err := os.ReadFile(file)
		require.NoError(t, err)
		source += string(text)
	}
	otherwise := "work identification miscellaneous part-list unpitched slur" // which hold what is read, or are told in other words
	for _, name := range strings.Fields(used) {
		assert.True(t, read[name] || slices.Contains(strings.Fields(otherwise), name) || strings.Contains(source, `"`+name+`"`), "%s is said to be used", name)
	}
	for name := range read {
		assert.Equal(t, isUsed, accounts[name], "%s is read", name)
	}
}

// within puts an element into a measure where it may stand.
func within(in, element string) string {
	note := func(inside string) string {
		return `<note><pitch><step>C</step><octave>4</octave></pitch><duration>4</duration><voice>1</voice>` + inside + `</note>`
	}
	switch in {
	case "note":
		return note(element)
	case "notations":
		return note(`<notations>` + element + `</notations>`)
	case "articulations", "ornaments", "technical":
		return note(`<notations><` + in + `>` + element + `</` + in + `></notations>`)
	case "direction-type":
		return `<direction><direction-type>` + element + `</direction-type></direction>` + note("")
	case "harmony":
		return `<harmony><root><root-step>C</root-step></root><kind>dominant</kind>` + element + `</harmony>` + note("")
	case "key", "time", "measure-style":
		return `<attributes><` + in + `>` + element + `</` + in + `></attributes>` + note("")
	}
	return element + note("")
}

func onePart(bars ...string) []byte {
	return []byte(`<score-partwise><part-list><score-part id="P"><part-name>x</part-name></score-part></part-list><part id="P"><measure number="1"><attributes><divisions>1</divisions></attributes>` +
		strings.Join(bars, `</measure><measure>`) + `</measure></part></score-partwise>`)
}

func saidOf(t *testing.T, data []byte, w formats.Wish) string {
	t.Helper()
	f, err := read(t.Context(), data, w)
	require.NoError(t, err, "%s", data)
	return strings.Join(f.Said, "; ")
}

// Whatever is lost is told with its bar, once and twice; what does not matter is not; what nobody knows is.
func TestWhatIsLostIsTold(t *testing.T) {
	plain := within("", "")
	for _, l := range lost {
		text := `<` + l.name + `/>`
		if l.name == "lyric" {
			text = `<lyric><text>oh</text></lyric>`
		}
		element := within(l.in, text)
		assert.NotContains(t, saidOf(t, onePart(plain), formats.Wish{}), "left out")
		assert.Contains(t, saidOf(t, onePart(plain, element), formats.Wish{}), l.one+" was left out, in bar 2", l.name)
		assert.Contains(t, saidOf(t, onePart(plain, element, plain, element), formats.Wish{}), "2 "+l.many+" were left out, the first in bar 2", l.name)
	}
	for _, reason := range idle {
		for _, name := range strings.Fields(reason.names) {
			assert.NotContains(t, saidOf(t, onePart(within("note", `<`+name+`/>`)), formats.Wish{}), "left out", name)
		}
	}
	for _, in := range []string{"note", "notations", "technical", "direction-type", "harmony", "measure"} {
		assert.Contains(t, saidOf(t, onePart(plain, within(in, `<bananas/>`)), formats.Wish{}), `"bananas", which is not known here, was left out, the first in bar 2`, in)
	}
}

// Slurs are told where nothing else says how they are played; words with their bars; signs by their texts; of degrees under
// the notes, and of voices that are not read, nothing.
func TestWhatTheReaderTells(t *testing.T) {
	slurs := within("notations", `<slur type="start" number="1"/>`) + within("notations", `<slur type="stop" number="1"/>`)
	assert.Contains(t, saidOf(t, onePart(within("", ""), slurs), formats.Wish{}), "a slur was left out, in bar 2")
	assert.Contains(t, saidOf(t, onePart(slurs, slurs), formats.Wish{}), "2 slurs were left out, the first in bar 1")
	assert.NotContains(t, saidOf(t, onePart(slurs+within("technical", `<hammer-on type="stop"/>`)), formats.Wish{}), "slur")
	assert.Contains(t, saidOf(t, onePart(words("let ring")+within("", ""), words("rit.")+within("", "")), formats.Wish{}), "words were left out: “let ring” (bar 1), “rit.” (bar 2)")
	assert.NotContains(t, saidOf(t, onePart(words("Fine")+words("Swing")+words("♩ = 96")+within("", "")), formats.Wish{}), "words")
	assert.Contains(t, saidOf(t, onePart(within("technical", `<other-technical>slap</other-technical>`)), formats.Wish{}), "a sign in bar 1, “slap”, was left out")
	assert.Contains(t, saidOf(t, onePart(within("ornaments", `<other-ornament>wobble</other-ornament>`)), formats.Wish{}), "an ornament in bar 1, “wobble”, was left out")
	for _, degree := range []string{"R", "♭3", "b7", "13", "#11"} {
		assert.NotContains(t, saidOf(t, onePart(within("note", `<lyric><text>`+degree+`</text></lyric>`)), formats.Wish{}), "syllable")
	}
	other := strings.ReplaceAll(within("ornaments", `<turn/>`), "<voice>1", "<voice>2")
	both := onePart(within("", "") + `<backup><duration>4</duration></backup>` + other)
	assert.NotContains(t, saidOf(t, both, formats.Wish{}), "turn")
	assert.Contains(t, saidOf(t, both, formats.Wish{Part: 2}), "a turn was left out")
	f, err := read(context.Background(), onePart(words("Medium swing")+within("", "")), formats.Wish{})
	require.NoError(t, err)
	assert.True(t, f.Swing)
}

// Two staves may use one number for their voices: they are two voices.
func TestStavesHaveVoicesOfTheirOwn(t *testing.T) {
	on := func(staff, step string) string {
		return strings.Replace(strings.Replace(within("", ""), "<step>C", "<step>"+step, 1), "</voice>", "</voice><staff>"+staff+"</staff>", 1)
	}
	data := onePart(on("1", "E") + `<backup><duration>4</duration></backup>` + on("2", "G"))
	for part, want := range map[int]string{0: "E4", 1: "E4", 2: "G4"} {
		f, err := read(t.Context(), data, formats.Wish{Part: part})
		require.NoError(t, err)
		require.Len(t, f.Notes, 1)
		assert.Equal(t, want, f.Notes[0].Pitch.String())
		require.Len(t, f.Parts, 2)
		assert.Equal(t, "x, voice 1, staff 2", f.Parts[1].Name)
	}
}

// No element of any file of others is met that is not known.
func TestNothingInTheFilesIsUnaccountedFor(t *testing.T) {
	files, err := filepath.Glob("../testdata/musicxml/*")
	require.NoError(t, err)
	require.NotEmpty(t, files)
	met := 0
	for _, file := range files {
		data, err := os.ReadFile(file)
		require.NoError(t, err)
		if Compressed(data) {
			if data, err = unpack(data); err != nil {
				continue
			}
		}
		dec := decoder(formats.Decoded(data))
		for root := ""; ; {
			tok, err := dec.Token()
			if err != nil {
				if !errors.Is(err, io.EOF) {
					t.Logf("%s: %v", file, err)
				}
				break
			}
			if e, ok := tok.(xml.StartElement); ok {
				if root == "" {
					root = e.Name.Local
				}
				if root == "score-partwise" && e.Name.Local != "wobble" { // which is nobody's, and told
					met++
					assert.NotEqual(t, unknown, accounts[e.Name.Local], "%s: %s", file, e.Name.Local)
				}
			}
		}
	}
	assert.Greater(t, met, 3000)
}
