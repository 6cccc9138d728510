package musicxml

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/neck"
	"undaris/core/score"
)

// Repeats, endings and jumps are played: bars, chords and notes come as often as they are
// heard, and that is said.
func TestMeasuresAreReadInTheirOrder(t *testing.T) {
	const (
		fwd   = `<barline location="left"><repeat direction="forward"/></barline>`
		back  = `<barline location="right"><repeat direction="backward"/></barline>`
		first = `<barline location="left"><ending number="1" type="start"/></barline>`
		other = `<barline location="left"><ending number="2" type="start"/></barline>`
	)
	sound := func(what string) string {
		return `<direction><direction-type><words>x</words></direction-type><sound ` + what + `/></direction>`
	}
	for i, c := range []struct {
		bars []string // what stands beside the note of each bar
		want string   // the steps that are heard
		says string
	}{
		{[]string{"", "", ""}, "CDE", ""},
		{[]string{fwd, back, ""}, "CDCDE", "1–2, 1–3"},
		{[]string{"", back, ""}, "CDCDE", "1–2, 1–3"},
		{[]string{fwd, first + back, other}, "CDCE", "1–2, 1, 3"},
		{[]string{sound(`fine="yes"`), "", sound(`dacapo="yes"`)}, "CDEC", "1–3, 1"},
		{[]string{"", sound(`segno="s"`), sound(`dalsegno="s"`)}, "CDEDE", "1–3, 2–3"},
		{[]string{sound(`tocoda="c"`), sound(`dacapo="yes"`), sound(`coda="c"`)}, "CDCE", "1–2, 1, 3"},
		{[]string{fwd, `<barline location="right"><repeat direction="backward" times="3"/></barline>`, ""}, "CDCDCDE", "7 bars"},
	} {
		var text strings.Builder
		text.WriteString(`<score-partwise version="4.0"><part-list><score-part id="P1"><part-name>x</part-name></score-part></part-list><part id="P1">`)
		for bar, beside := range c.bars {
			fmt.Fprintf(&text, `<measure number="%d">`, bar+1)
			if bar == 0 {
				text.WriteString(`<attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>`)
			}
			step := "CDE"[bar : bar+1]
			fmt.Fprintf(&text, `%s<harmony><root><root-step>%s</root-step></root><kind>dominant</kind></harmony><note><pitch><step>%s</step><octave>4</octave></pitch><duration>4</duration><voice>1</voice></note></measure>`, beside, step, step)
		}
		text.WriteString(`</part></score-partwise>`)
		f, err := Read(t.Context(), []byte(text.String()))
		require.NoError(t, err, i)
		heard := ""
		for k, n := range f.Notes {
			heard += n.Pitch.Name.String()
			assert.Equal(t, k*4*score.Tick, n.Start)
		}
		assert.Equal(t, c.want, heard, i)
		assert.Len(t, f.Bars, len(c.want))
		for k, b := range f.Bars {
			assert.Equal(t, c.want[k:k+1], b.Changes[0].Chord.Root.String())
		}
		all := strings.Join(f.Said, "; ")
		if c.says == "" {
			assert.NotContains(t, all, "repeats")
			continue
		}
		assert.Contains(t, all, c.says)
	}
}

// A tempo that is only printed is read; later ones, cue notes and heads that only mark the
// beat are said.
func TestTempiCuesAndSlashes(t *testing.T) {
	read := func(inside string) (*Found, string) {
		text := `<score-partwise version="4.0"><part-list><score-part id="P1"><part-name>x</part-name></score-part></part-list><part id="P1"><measure number="1">
			<attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>` + inside + `</measure></part></score-partwise>`
		f, err := Read(t.Context(), []byte(text))
		require.NoError(t, err)
		return &f, strings.Join(f.Said, "; ")
	}
	const note = `<note><pitch><step>C</step><octave>4</octave></pitch><duration>2</duration><voice>1</voice></note>`
	metronome := func(unit, minute string) string {
		return `<direction><direction-type><metronome><beat-unit>` + unit + `</beat-unit><per-minute>` + minute + `</per-minute></metronome></direction-type></direction>`
	}
	f, said := read(metronome("quarter", "84") + note + note)
	assert.Equal(t, 84, f.Tempo)
	assert.NotContains(t, said, "tempo")
	f, _ = read(metronome("half", "60") + note + note)
	assert.Equal(t, 120, f.Tempo)
	_, said = read(metronome("quarter", "84") + note + metronome("quarter", "60") + note)
	assert.Contains(t, said, "the tempo changes in bar 1; the first, 84")
	f, said = read(strings.Replace(note, "<note>", "<note><cue/>", 1) + note)
	assert.Contains(t, said, "cue notes")
	require.Len(t, f.Notes, 1)
	assert.Equal(t, 2*score.Tick, f.Notes[0].Start)
	f, said = read(note + strings.Replace(note, "</note>", "<notehead>slash</notehead></note>", 1))
	assert.Contains(t, said, "only mark the beat")
	assert.Len(t, f.Notes, 1)
}

// A metre may change, a bar may be cut in two, and the first or last may be short: each is as
// long as it stands, and what is no whole beat is filled and said.
func TestBarsAreAsLongAsTheyStand(t *testing.T) {
	time := func(beats int) string {
		return fmt.Sprintf(`<attributes><divisions>1</divisions><time><beats>%d</beats><beat-type>4</beat-type></time></attributes>`, beats)
	}
	note := func(d string) string {
		return `<note><pitch><step>C</step><octave>4</octave></pitch><duration>` + d + `</duration><voice>1</voice></note>`
	}
	for i, c := range []struct {
		measures string
		beats    int
		lengths  []int
		says     string
	}{
		{`<measure number="1">` + time(4) + note("4") + `</measure><measure number="2">` + time(2) + note("2") + `</measure><measure number="3">` + time(4) + note("4") + `</measure>`, 4, []int{4, 2, 4}, ""},
		{`<measure number="1">` + time(4) + note("2") + `</measure><measure number="X1" implicit="yes">` + note("2") + `</measure><measure number="2">` + note("4") + `</measure>`, 4, []int{2, 2, 4}, "bar 1 has 2 beats of 4, as it stands; bar 2 has 2 beats of 4, as it stands"},
		{`<measure number="1">` + time(4) + note("1") + `</measure><measure number="2">` + note("4") + `</measure><measure number="3">` + note("3") + `</measure>`, 4, []int{4, 3}, "the first bar has 1 beats of 4: it was taken for a pickup"},
		{`<measure number="1">` + time(4) + note("4") + `</measure><measure number="2">` + note("2.5") + `</measure><measure number="3">` + note("4") + `</measure>`, 4, nil, "bar 2 has 2.5 beats of 4; it was filled"},
		{`<measure number="1">` + time(4) + note("4") + `</measure><measure number="2">` + note("2") + `</measure><measure number="3">` + note("4") + `</measure>`, 4, nil, "bar 2 has 2 beats of 4; it was filled"},
		{`<measure number="0" implicit="yes">` + time(3) + note("1") + `</measure><measure number="1">` + note("3") + `</measure><measure number="2">` + note("3") + `</measure>`, 3, nil, ""},
	} {
		f, err := Read(t.Context(), []byte(`<score-partwise version="4.0"><part-list><score-part id="P1"><part-name>x</part-name></score-part></part-list><part id="P1">`+c.measures+`</part></score-partwise>`))
		require.NoError(t, err, i)
		assert.Equal(t, c.beats, f.Beats, i)
		assert.Equal(t, c.lengths, f.Lengths(), i)
		said := strings.Join(f.Said, "; ")
		if c.says == "" {
			assert.NotContains(t, said, "beats of", i)
		} else {
			assert.Contains(t, said, c.says, i)
		}
	}
}

// What is tied only as it looks is one note; frets without a tuning are those of the standard
// one where they fit; harmonics are said.
func TestWhatOtherProgramsWrite(t *testing.T) {
	head := `<measure number="1"><attributes><divisions>1</divisions></attributes>`
	note := func(step string, d int, notations string) string {
		return fmt.Sprintf(`<note><pitch><step>%s</step><octave>4</octave></pitch><duration>%d</duration><voice>1</voice><notations>%s</notations></note>`, step, d, notations)
	}
	for says, c := range map[string]struct {
		notes string
		want  []score.Note
	}{
		"": {note("E", 3, `<tied type="start"/>`) + note("E", 1, `<tied type="stop"/>`), []score.Note{{Length: 4 * score.Tick}}},
		"its frets fit the standard one": {note("E", 2, `<technical><string>2</string><fret>5</fret></technical>`) + note("D", 2, `<technical><string>2</string><fret>3</fret></technical>`),
			[]score.Note{{Length: 2 * score.Tick, Placement: neck.Placement{String: 2, Fret: 5}}, {Start: 2 * score.Tick, Length: 2 * score.Tick, Placement: neck.Placement{String: 2, Fret: 3}}}},
		"2 of 2 notes have no place": {note("E", 2, `<technical><string>2</string><fret>5</fret></technical>`) + note("D", 2, `<technical><string>2</string><fret>4</fret></technical>`),
			[]score.Note{{Length: 2 * score.Tick}, {Start: 2 * score.Tick, Length: 2 * score.Tick}}},
		"harmonics are read as plain notes, from bar 1 on": {note("E", 4, `<technical><harmonic/></technical>`), []score.Note{{Length: 4 * score.Tick}}},
	} {
		f, err := Read(t.Context(), []byte(`<score-partwise><part-list/><part id="P1">`+head+c.notes+`</measure></part></score-partwise>`))
		require.NoError(t, err, says)
		require.Len(t, f.Notes, len(c.want), says)
		for i, n := range c.want {
			got := f.Notes[i]
			assert.Equal(t, []any{n.Start, n.Length, n.Placement}, []any{got.Start, got.Length, got.Placement}, says)
		}
		assert.Contains(t, strings.Join(f.Said, "; "), says)
	}
}
