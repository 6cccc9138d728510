package server

import (
	"bytes"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
)

// Every chart of the demo leaves in every kind a chart can have and comes back with its chords,
// bars, metres, key and tempo; what is only read is not kept.
func TestEveryChartLeavesAndComesBack(t *testing.T) {
	srv := serve(t)
	require.Equal(t, 201, ask(t, srv, "POST", "/api/charts", ChartBody{Title: "Bollard Lane", Key: "C", Feel: "shuffle", Tempo: 104, Beats: 4,
		Swing: 61, Intro: "five", Ending: "held", Tags: "fast, harbour", Remarks: "brushes\nbar 3: watch the stop",
		Text: "|: 1/4 G7 | 4/4 [Verse] C7 | 1. 2/4 F7 :| 2. 3/4 F7 |\n| 4/4 Bbmaj7 . C7#9 . | Dm7b5 |"}, &struct{}{}).StatusCode)
	charts := everyOne[Chart](t, srv, "/api/charts")
	require.Greater(t, len(charts), 5)
	for _, c := range charts {
		key, err := form.ParseKey(c.Key)
		require.NoError(t, err)
		song, _, err := form.ReadSong(c.Text, c.Beats, key)
		require.NoError(t, err)
		for ending, path := range map[string]string{"txt": "text", "cho": "chordpro", "musicxml": "musicxml?of=chords&low=0&high=4", "mxl": "mxl?of=chords&low=0&high=4", "mid": "midi?choruses=2&countIn=true&ending=own"} {
			what := c.Title + " as " + ending
			got, no := bringAs(t, srv, "chart", "x."+ending, fetch(t, fmt.Sprintf("%s/api/charts/%d/%s", srv.URL, c.ID, path)), "")
			require.Zero(t, no.Status, "%s: %s", what, no.Detail)
			assert.Equal(t, []any{c.Title, c.Key, c.Tempo, c.Feel}, []any{got.Chart.Title, got.Chart.Key, got.Chart.Tempo, got.Chart.Feel}, what)
			want := song.Play(form.MaxBars)
			p, err := form.Read(got.Chart.Text, got.Chart.Beats, key)
			require.NoError(t, err, what)
			require.Len(t, p.Bars, len(want.Bars), what)
			for i := range p.Bars {
				assert.Equal(t, want.BeatsOf(i), p.BeatsOf(i), "%s, bar %d", what, i+1)
				assert.Equal(t, changes(want.Bars[i]), changes(p.Bars[i]), "%s, bar %d", what, i+1)
				assert.Equal(t, want.Bars[i].Section, p.Bars[i].Section, "%s, bar %d", what, i+1)
			}
			if ending != "mid" {
				assert.Equal(t, []any{c.Swing, c.Intro, c.Ending, c.Tags, c.Remarks}, []any{got.Chart.Swing, got.Chart.Intro, got.Chart.Ending, got.Chart.Tags, got.Chart.Remarks}, what)
				assert.Equal(t, c.Text, got.Chart.Text, "%s: with its repeats", what)
			}
			out, no := bringAs(t, srv, "chart", "x."+ending, fetch(t, fmt.Sprintf("%s/api/charts/%d/%s", srv.URL, c.ID, path)), "&out=true")
			require.Zero(t, no.Status, no.Detail)
			assert.Empty(t, out.Order, what)
			assert.Len(t, out.Sheet.Bars, len(want.Bars), what)
		}
	}
	assert.Len(t, everyOne[Chart](t, srv, "/api/charts"), len(charts), "nothing is kept")
}

// changes are a bar's chords with their beats.
func changes(b form.Bar) (out []string) {
	for _, c := range b.Changes {
		out = append(out, fmt.Sprint(c.Beat, " ", c.Chord))
	}
	return out
}

// A part can be chosen, and what others a file has is told.
func TestAPartIsChosen(t *testing.T) {
	srv := serve(t)
	note := func(step, voice string) string {
		return `<note><pitch><step>` + step + `</step><octave>4</octave></pitch><duration>4</duration><voice>` + voice + `</voice></note>`
	}
	part := func(id, notes string) string {
		return `<part id="` + id + `"><measure number="1"><attributes><divisions>1</divisions></attributes>` + notes + `</measure></part>`
	}
	file := []byte(`<score-partwise><part-list><score-part id="A"><part-name>Rhythm</part-name></score-part><score-part id="B"><part-name>Solo</part-name></score-part></part-list>` +
		part("A", note("C", "1")+`<backup><duration>4</duration></backup>`+note("E", "2")) + part("B", note("G", "1")) + `</score-partwise>`)
	for i, want := range []string{"C4", "C4", "E4", "G4"} {
		got, no := bringAs(t, srv, "line", "x.musicxml", file, fmt.Sprintf("&part=%d", i))
		require.Zero(t, no.Status, no.Detail)
		require.Len(t, got.Score.Notes, 1)
		assert.Equal(t, want, got.Score.Notes[0].Note)
		assert.Equal(t, []Part{{"Rhythm, voice 1", 1, i < 2}, {"Rhythm, voice 2", 1, i == 2}, {"Solo", 1, i == 3}}, got.Parts)
	}
	_, no := bringAs(t, srv, "line", "x.musicxml", file, "&part=4")
	assert.Contains(t, no.Detail, "there is no part 4; the file has 3")

	solo := fetch(t, srv.URL+"/api/lines/3/files/midi?choruses=1")
	got, no := bringAs(t, srv, "line", "x.mid", solo, "")
	require.Zero(t, no.Status, no.Detail)
	require.Len(t, got.Parts, 3)
	assert.Equal(t, "lead", got.Parts[2].Name)
	assert.True(t, got.Parts[2].Read)
	bass, no := bringAs(t, srv, "line", "x.mid", solo, "&part=1")
	require.Zero(t, no.Status, no.Detail)
	assert.True(t, bass.Parts[0].Read)
	assert.Equal(t, "bass", bass.Parts[0].Name)
	assert.Contains(t, strings.Join(got.Said, ";"), "tracks")
}

// A text names its key or has it guessed; what cannot be read is refused with the reason.
func TestChartsFromTexts(t *testing.T) {
	srv := serve(t)
	got, no := bringAs(t, srv, "chart", "Low Water.txt", []byte("Key: Bb\nTime: 3/4\n| Bb7 | Eb7 | I7 |"), "")
	require.Zero(t, no.Status, no.Detail)
	assert.Equal(t, ChartBody{Title: "Low Water", Key: "Bb", Feel: "shuffle", Tempo: 96, Beats: 3, Text: "| Bb7 | Eb7 | Bb7 |"}, *got.Chart)
	got, no = bringAs(t, srv, "chart", "x.txt", []byte("G7 C7 G7 D7"), "")
	require.Zero(t, no.Status, no.Detail)
	assert.Equal(t, "G", got.Chart.Key)
	assert.Contains(t, strings.Join(got.Said, ";"), "G was guessed")
	for says, data := range map[string]string{
		"cannot read":         "| C7 | Hx7 |",
		"there are no bars":   "la la la, by the water",
		"this is no text":     "\x00\x01\x02",
		"has 58 at most":      strings.Repeat("| C7 ", 20_000),
		"has no chords":       `<score-partwise><part-list/><part id="P"><measure number="1"><note><pitch><step>C</step><octave>4</octave></pitch><duration>4</duration></note></measure></part></score-partwise>`,
		"head is missing":     "MThd",
		"this MusicXML":       "<?xml version='1.0'?><score-partwise><part",
		"more than 512 bars;": "|: C7 | F7 :| x9 |\n" + strings.Repeat("|: C7 | F7 :| x9 |\n", 40),
	} {
		_, no := bringAs(t, srv, "chart", "x.txt", []byte(data), "")
		assert.Equal(t, 422, no.Status, says)
		assert.Contains(t, no.Detail, strings.TrimSuffix(says, ";"))
	}
}

// Several licks leave as one file and come back one by one, with what each is.
func TestLicksLeaveAndComeBack(t *testing.T) {
	srv := serve(t)
	licks := everyOne[Lick](t, srv, "/api/licks")
	require.Greater(t, len(licks), 59)
	for ending, path := range map[string]string{"musicxml": "musicxml", "mxl": "mxl", "txt": "tab"} {
		for from := 0; from < len(licks); from += 20 {
			some := licks[from:min(len(licks), from+20)]
			ids := ""
			for _, l := range some {
				ids += fmt.Sprintf("&id=%d", l.ID)
			}
			data := fetch(t, srv.URL+"/api/licks/"+path+"?"+ids[1:])
			got, no := bringAs(t, srv, "licks", "x."+ending, data, "")
			require.Zero(t, no.Status, no.Detail)
			require.Len(t, got.Licks, len(some), "%s: %v", ending, got.Said)
			for i, l := range some {
				what := l.Title + " as " + ending
				back := got.Licks[i]
				assert.Equal(t, []any{l.Title, len(l.Notes)}, []any{back.Title, len(back.Notes)}, what)
				for k, n := range l.Notes {
					m := back.Notes[k]
					assert.Equal(t, []any{n.Start, n.Length, n.Degree, n.Ornaments}, []any{m.Start, m.Length, m.Degree, m.Ornaments}, "%s, note %d", what, k+1)
				}
			}
		}
	}
	one := fetch(t, fmt.Sprintf("%s/api/licks/files/midi?id=%d", srv.URL, licks[0].ID))
	assert.True(t, bytes.HasPrefix(one, []byte("MThd")))
	var no refusal
	assert.Equal(t, 404, ask(t, srv, "GET", "/api/licks/files/tab?id=99999", nil, &no).StatusCode)
}

// Of a chart nothing is told of its notes, nor that repeats were written out which were kept; what becomes of its chords is.
func TestAChartsPreviewSpeaksOfTheChart(t *testing.T) {
	srv := serve(t)
	for _, c := range everyOne[Chart](t, srv, "/api/charts") {
		for ending, path := range map[string]string{"musicxml": "musicxml?of=chords&low=0&high=4", "mid": "midi?choruses=2&ending=own", "txt": "text", "cho": "chordpro"} {
			got, no := bringAs(t, srv, "chart", "x."+ending, fetch(t, fmt.Sprintf("%s/api/charts/%d/files/%s", srv.URL, c.ID, path)), "")
			require.Zero(t, no.Status, no.Detail)
			assert.Empty(t, got.Said, "%s as %s", c.Title, ending)
		}
	}
	note := `<note><pitch><step>C</step><octave>4</octave></pitch><duration>4</duration><notations><slur type="start"/><ornaments><turn/></ornaments></notations></note>`
	xml := `<score-partwise><part-list><score-part id="P"><part-name>x</part-name></score-part></part-list><part id="P"><measure number="1"><attributes><divisions>1</divisions></attributes>` +
		`<barline location="left"><repeat direction="forward"/></barline><harmony><root><root-step>C</root-step></root><kind>dominant</kind><inversion>1</inversion></harmony><direction><direction-type><words>softly</words></direction-type></direction>` + note +
		`<barline location="right"><repeat direction="backward"/></barline></measure></part></score-partwise>`
	got, no := bringAs(t, srv, "chart", "x.xml", []byte(xml), "")
	require.Zero(t, no.Status, no.Detail)
	assert.Equal(t, []string{"words were left out: “softly” (bar 1)", "an inversion of a chord was left out, in bar 1"}, got.Said)
	assert.Equal(t, []Where{{Bar: 1}, {Bar: 1}}, got.Where)
	assert.Equal(t, "|: C7 :|", got.Chart.Text)
	line, no := bringAs(t, srv, "line", "x.xml", []byte(xml), "")
	require.Zero(t, no.Status, no.Detail)
	assert.Contains(t, strings.Join(line.Said, "; "), "a turn was left out, in bar 1")
}
