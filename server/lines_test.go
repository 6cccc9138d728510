package server

import (
	"bytes"
	"cmp"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/store"
)

// fetch reads a file.
func fetch(t *testing.T, url string) []byte {
	resp, err := http.Get(url)
	require.NoError(t, err)
	defer resp.Body.Close()
	require.Equal(t, 200, resp.StatusCode)
	data, err := io.ReadAll(resp.Body)
	require.NoError(t, err)
	return data
}

func bluesIn(key string) LineBody {
	return LineBody{LineHead{Title: "Test", Key: key, Feel: "shuffle", Tempo: 96, Beats: 4, Low: 5, High: 9,
		Text: "| I7 | IV7 | I7 | % |\n| IV7 | % | I7 | % |\n| V7 | IV7 | I7 | V7 |"}, []store.LineNote{}}
}

// body is the line of a study, as it is sent back.
func (st Study) body() LineBody {
	return LineBody{st.Line, each(st.Score.Notes, func(n Written) store.LineNote {
		n.LineNote.ID, n.LineNote.String = n.ID, n.String
		return n.LineNote
	})}
}

// mended takes a proposal, as the page does.
func mended(t testing.TB, srv *httptest.Server, line LineBody, f Fix) (st Study) {
	notes := f.Put
	for _, n := range line.Notes {
		if !slices.Contains(f.Gone, n.ID) && !slices.ContainsFunc(f.Put, func(p store.LineNote) bool { return p.ID == n.ID }) {
			notes = append(notes, n)
		}
	}
	line.Notes = notes
	require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/study", line, &st).StatusCode)
	return st
}

func lickNamed(t *testing.T, all []Lick, title string) Lick {
	for _, l := range all {
		if l.Title == title {
			return l
		}
	}
	require.Fail(t, "no lick", title)
	return Lick{}
}

// TestALickBecomesAChorus goes the way of a player: a box lick through a quick
// change in B flat, one landing mended, bars written anew, out and in again.
func TestALickBecomesAChorus(t *testing.T) {
	srv := serve(t)
	licks := everyOne[Lick](t, srv, "/api/licks")
	require.GreaterOrEqual(t, len(licks), 40)
	for _, l := range licks {
		assert.NotEmpty(t, l.LandsOn, l.Title)
		require.NotNil(t, l.Score, "%s: %s", l.Title, l.Problem)
	}
	gangway := lickNamed(t, licks, "Gangway")
	var st Study
	ask(t, srv, "POST", "/api/lines/lick", map[string]any{"line": bluesIn("Bb"), "lick": gangway.ID, "land": true}, &st)
	require.NotEmpty(t, st.Score.Notes)
	assert.Equal(t, "| Bb7 | Eb7 | Bb7 | Bb7 |\n| Eb7 | Eb7 | Bb7 | Bb7 |\n| F7 | Eb7 | Bb7 | F7 |", st.Line.Text)
	for _, l := range st.Report.Landings[1:] {
		assert.Equal(t, "on time", l.When, "%s in bar %d", l.Chord, l.Bar)
	}

	// One landing comes too late, and is mended.
	spoilt := st.Report.Landings[4]
	late := st.body()
	for i, n := range late.Notes {
		if n.ID == spoilt.Note {
			late.Notes[i].Start += 480
		}
	}
	ask(t, srv, "POST", "/api/lines/study", late, &st)
	last := st.Report.Landings[4]
	require.Equal(t, "late", last.When)
	var fixes Fixes
	ask(t, srv, "POST", "/api/lines/fit", map[string]any{"line": st.body(), "at": last.At}, &fixes)
	require.NotEmpty(t, fixes.Fixes, fixes.Why)
	st = mended(t, srv, st.body(), fixes.Fixes[0])
	assert.Equal(t, "on time", st.Report.Landings[4].When, fixes.Fixes[0].Says)

	before := st.body().Notes
	st.Line.Locked = []int{10}
	var written Study
	ask(t, srv, "POST", "/api/lines/write", map[string]any{"line": st.body(), "wish": WishBody{From: 9, To: 12, Seed: 4}}, &written)
	bar := func(n store.LineNote) int { return n.Start/3840 + 1 }
	stays := func(notes []store.LineNote) (out []string) {
		for _, n := range notes {
			if b := bar(n); b < 9 || b == 10 {
				out = append(out, fmt.Sprint(n.Start, n.Note, n.String, n.Fret))
			}
		}
		return out
	}
	assert.Equal(t, stays(before), stays(written.body().Notes))

	var kept Line
	resp := ask(t, srv, "POST", "/api/lines", written.body(), &kept)
	require.Equal(t, 201, resp.StatusCode)
	for _, format := range []string{"musicxml", "tab"} {
		data := fetch(t, fmt.Sprintf("%s/api/lines/%d/%s", srv.URL, kept.ID, format))
		back, no := bring(t, srv, "chorus."+map[string]string{"tab": "txt"}[format], data, 0)
		require.Empty(t, no.Detail)
		assert.Empty(t, back.Said, format)
		require.Len(t, back.Score.Notes, len(kept.Notes), format)
		for i, n := range kept.Notes {
			got := back.body().Notes[i]
			if format == "tab" { // text has no spelling and no fingers of its own
				got.Finger, got.Note = n.Finger, n.Note
			}
			got.ID = n.ID // a file knows no numbers
			assert.Equal(t, n, got, "%s, note %d", format, i)
		}
	}
	assert.True(t, bytes.HasPrefix(fetch(t, fmt.Sprintf("%s/api/lines/%d/files/midi?choruses=1", srv.URL, kept.ID)), []byte("MThd")))

	ask(t, srv, "DELETE", fmt.Sprintf("/api/lines/%d", kept.ID), nil, nil)
	assert.Equal(t, 404, ask(t, srv, "GET", fmt.Sprintf("/api/lines/%d", kept.ID), nil, nil).StatusCode)
	var restored Line
	ask(t, srv, "POST", fmt.Sprintf("/api/lines/%d/restore", kept.ID), nil, &restored)
	assert.Equal(t, kept.Notes, restored.Notes)
}

func TestBlendDrillAndWays(t *testing.T) {
	srv := serve(t)
	licks := everyOne[Lick](t, srv, "/api/licks")
	var st Study
	ask(t, srv, "POST", "/api/lines/lick", map[string]any{"line": bluesIn("C"), "lick": lickNamed(t, licks, "Tide Table").ID}, &st)
	var turned Turned
	ask(t, srv, "POST", "/api/lines/blend", map[string]any{"line": st.body(), "amount": 1}, &turned)
	require.NotEmpty(t, turned.Turns)
	assert.Zero(t, turned.Study.Report.Palette+turned.Study.Report.Others, "all chord tones")
	ask(t, srv, "POST", "/api/lines/blend", map[string]any{"line": st.body(), "amount": 0}, &turned)
	assert.Empty(t, turned.Turns)

	line := bluesIn("C")
	line.Low, line.High = 7, 11
	ask(t, srv, "POST", "/api/lines/drill", map[string]any{"line": line, "task": DrillBody{Drill: "onward", Pace: "eighths"}}, &st)
	assert.Len(t, st.Score.Notes, 95)
	assert.Equal(t, 95, st.Report.ChordTones)

	var ways []Way
	ask(t, srv, "GET", fmt.Sprintf("/api/licks/%d/ways?chord=F7", lickNamed(t, licks, "Four Posts").ID), nil, &ways)
	require.Len(t, ways, 2)
	for _, w := range ways {
		require.NotNil(t, w.Score, w.Problem)
	}
	assert.Greater(t, ways[0].Travel, ways[1].Travel)
}

func TestLicksAreKeptFromTextAndFromLines(t *testing.T) {
	srv := serve(t)
	var notes []store.LickNote
	ask(t, srv, "POST", "/api/licks/read", map[string]string{"text": "R/e b3/es 3/e 5/q"}, &notes)
	require.Len(t, notes, 4)
	var kept Lick
	resp := ask(t, srv, "POST", "/api/licks", LickBody{Title: "Mine", Chord: "7", Notes: notes, Tags: []string{" Box ", "box"}}, &kept)
	require.Equal(t, 201, resp.StatusCode)
	assert.Equal(t, []string{"box"}, kept.Tags)
	assert.Equal(t, "5", kept.LandsOn)
	assert.Equal(t, "R/e b3/es 3/e 5/q", kept.Text, "it is written as it is read")
	var tried Lick
	require.Equal(t, 200, ask(t, srv, "POST", "/api/licks/study", LickBody{Title: "Tried", Chord: "m7", Notes: notes[:2], Tags: []string{}}, &tried).StatusCode)
	assert.Equal(t, []any{"b3", "R/e b3/es", uint(0)}, []any{tried.LandsOn, tried.Text, tried.ID})
	require.NotNil(t, tried.Score)
	var st Study
	ask(t, srv, "POST", "/api/lines/lick", map[string]any{"line": bluesIn("G"), "lick": kept.ID, "bar": 2}, &st)
	var back LickBody
	ask(t, srv, "POST", "/api/licks/keep", map[string]any{"line": st.body(), "first": st.Score.Notes[0].ID, "last": st.Score.Notes[3].ID}, &back)
	for i := range back.Notes {
		back.Notes[i].String = 0
	}
	assert.Equal(t, kept.Notes, back.Notes, "a lick moved and taken back is the same lick")

	var no refusal
	ask(t, srv, "POST", "/api/licks/read", map[string]string{"text": "R/e huh"}, &no)
	assert.Equal(t, 422, no.Status)
	ask(t, srv, "POST", "/api/licks", LickBody{Title: " ", Notes: notes, Tags: []string{}}, &no)
	assert.Contains(t, no.Detail, "title")
	ask(t, srv, "POST", "/api/licks", LickBody{Title: "x", Notes: []store.LickNote{}, Tags: []string{}}, &no)
	assert.Contains(t, no.Detail, "at least one note")
	assert.Equal(t, 404, ask(t, srv, "PUT", "/api/licks/9999", LickBody{Title: "x", Chord: "7", Notes: notes, Tags: []string{}}, &no).StatusCode)
}

func TestImportsUnderstoodOrRefused(t *testing.T) {
	srv := serve(t)
	send := func(name, data string, chart uint) (Study, refusal) { return bring(t, srv, name, []byte(data), chart) }
	row := func(dashes string) string { return strings.Repeat("e|"+dashes+"|\n", 1) }
	tab := row("--3---5--") + strings.Repeat("x|---------|\n", 0) + strings.Repeat("B|---------|\n", 5)
	st, no := send("a.txt", tab, 6)
	require.Zero(t, no.Status, no.Detail)
	assert.Contains(t, strings.Join(st.Said, ";"), "guessed")
	assert.True(t, strings.HasPrefix(st.Line.Text, "| C7 "), "the chart's chords are laid under: %s", st.Line.Text)

	// Another tuning: it stays on the neck it is written for.
	st, _ = send("b.txt", "Tuning: D2,A2,D3,F#3,A3,D4\n"+tab, 0)
	assert.Contains(t, strings.Join(st.Said, ";"), "tuned D2,A2,D3,F#3,A3,D4, and stays on it")
	assert.Equal(t, []any{"D2,A2,D3,F#3,A3,D4", 1, 3}, []any{st.Line.Tuning, st.Score.Notes[0].String, st.Score.Notes[0].Fret})
	assert.Equal(t, "F4", st.Score.Notes[0].Note)

	low := `<score-partwise><part id="P"><measure number="1"><attributes><divisions>1</divisions></attributes>` +
		`<note><pitch><step>C</step><octave>1</octave></pitch><duration>1</duration></note>` +
		`<note><pitch><step>E</step><octave>3</octave></pitch><duration>1</duration></note></measure></part></score-partwise>`
	st, _ = send("low.xml", low, 0)
	assert.Contains(t, strings.Join(st.Said, ";"), "it stands on another, Five-string bass")
	require.Len(t, st.Score.Notes, 2)
	st, _ = send("lower.xml", strings.Replace(low, "<octave>1", "<octave>0", 1), 0)
	assert.Contains(t, strings.Join(st.Said, ";"), "beyond the neck")
	require.Len(t, st.Score.Notes, 1)
	assert.True(t, st.Score.Notes[0].PlaceGuessed)
	assert.False(t, st.Score.Notes[0].RhythmGuessed)

	fives := `<score-partwise><part id="P"><measure number="1"><attributes><divisions>5</divisions></attributes>` +
		strings.Repeat(`<note><pitch><step>E</step><octave>4</octave></pitch><duration>1</duration><time-modification><actual-notes>5</actual-notes><normal-notes>4</normal-notes></time-modification></note>`, 5) + `</measure></part></score-partwise>`
	st, _ = send("fives.xml", fives, 0)
	assert.Contains(t, strings.Join(st.Said, ";"), "fives or sevens")
	assert.Equal(t, 192, st.Score.Notes[1].Start)
	require.Len(t, st.Score.Notes, 5)
	assert.Equal(t, []bool{false, true}, []bool{st.Score.Notes[0].RhythmGuessed, st.Score.Notes[1].RhythmGuessed})

	st, _ = send("band.mid", string(fetch(t, srv.URL+"/api/charts/6/files/midi?choruses=1")), 6)
	assert.NotEmpty(t, st.Score.Notes)

	for name, data := range map[string]string{"x.bin": "\x00\x01", "x.mid": "MThd nothing", "x.xml": "<html/>", "x.txt": "no strings"} {
		_, no = send(name, data, 0)
		assert.Equal(t, 422, no.Status, name)
		assert.NotEmpty(t, no.Detail)
	}
	_, no = send("huge.txt", strings.Repeat("-", 9<<20), 0)
	assert.Equal(t, 413, no.Status)
}

func TestALineGoesToAnotherKey(t *testing.T) {
	srv := serve(t)
	line := bluesIn("Bb")
	line.Low, line.High = 5, 9
	var st, up, near, back Study
	ask(t, srv, "POST", "/api/lines/drill", map[string]any{"line": line, "task": DrillBody{Drill: "onward", Pace: "eighths"}}, &st)
	move := func(l LineBody, key string, shape bool, to any) int {
		return ask(t, srv, "POST", "/api/lines/move", map[string]any{"line": l, "key": key, "shape": shape}, to).StatusCode
	}
	require.Equal(t, 200, move(st.body(), "C", true, &up))
	require.Equal(t, 200, move(st.body(), "C", false, &near))
	assert.True(t, strings.HasPrefix(up.Line.Text, "| C7 "), up.Line.Text)
	assert.Equal(t, []int{7, 11}, []int{up.Line.Low, up.Line.High})
	assert.Equal(t, []int{6, 11}, []int{near.Line.Low, near.Line.High}, "the notes lie a fret higher")
	assert.Contains(t, strings.Join(near.Said, ";"), "beyond frets 5 to 9 in this key: ")
	for i, n := range st.Score.Notes {
		assert.Equal(t, []int{n.String, n.Fret + 2, n.Finger}, []int{up.Score.Notes[i].String, up.Score.Notes[i].Fret, up.Score.Notes[i].Finger})
		assert.Equal(t, up.Score.Notes[i].Note, near.Score.Notes[i].Note)
		assert.Equal(t, n.Does.Degree, near.Score.Notes[i].Does.Degree)
	}
	var away Study
	move(near.body(), "F", false, &away)
	for _, n := range away.Score.Notes {
		assert.True(t, n.Fret == 0 || n.Fret >= away.Line.Low-4 && n.Fret <= away.Line.High+4, "the window goes with the hand")
	}
	if away.Line.Low != near.Line.Low {
		assert.Contains(t, strings.Join(away.Said, ";"), "the hand goes where they lie")
	}
	move(up.body(), "Bb", true, &back)
	assert.Equal(t, st.body(), back.body())
	var no refusal
	assert.Equal(t, 422, move(st.body(), "Cm", true, &no))
	assert.Contains(t, no.Detail, "own mode")
}

func note(name string, start int) store.LineNote {
	return store.LineNote{Start: start, Length: 480, Note: name}
}

// A line is written for its instrument: with any other in hand it is opened,
// edited and kept without losing a note, and laid on it when asked.
func TestALineKeepsItsInstrument(t *testing.T) {
	srv := serve(t)
	lines := everyOne[Line](t, srv, "/api/lines")
	for _, tuning := range neck.Tunings {
		player := store.Player{Tuning: tuning.Open, Frets: tuning.Frets, Scale: tuning.Scale, Comfort: 100, Habit: "stay"}
		require.Equal(t, 200, ask(t, srv, "PUT", "/api/player", player, nil).StatusCode)
		for _, l := range lines {
			what := l.Title + " with " + tuning.ID
			var st Study
			ask(t, srv, "POST", "/api/lines/study", l.LineBody, &st)
			require.Equal(t, len(l.Notes), len(st.Score.Notes), what)
			assert.Equal(t, "E2,A2,D3,G3,B3,E4", st.Line.Tuning, what)
			body := st.body()
			body.Notes[0].Vibrato = !body.Notes[0].Vibrato
			var kept Line
			require.Equal(t, 200, ask(t, srv, "PUT", fmt.Sprintf("/api/lines/%d", l.ID), body, &kept).StatusCode, what)
			require.Len(t, kept.Notes, len(l.Notes), what)
			for i, n := range kept.Notes {
				assert.Equal(t, []any{l.Notes[i].Note, l.Notes[i].String, l.Notes[i].Fret}, []any{n.Note, n.String, n.Fret}, what)
			}
			var laid Laying
			require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/lay", l.LineBody, &laid).StatusCode, what)
			assert.Len(t, laid.Study.Score.Notes, len(l.Notes), what)
			assert.Equal(t, tuning.Open, laid.Study.Line.Tuning, what)
			assert.Regexp(t, `none is left out$|^every note keeps its place$`, laid.Says, what)
		}
	}
}

// st7 is the dominant of a key.
func st7(key string) string {
	k, _ := form.ParseKey(key)
	c, _ := form.ReadNumeral("V7", k)
	return c.String()
}

// A file keeps its hands: whatever a line is written for, it comes back on the same neck, with the same capo, from every format,
// and loses no note; those that hold places bring back each.
func TestAFileKeepsItsHands(t *testing.T) {
	srv := serve(t)
	lines := everyOne[Line](t, srv, "/api/lines")
	usual := store.Player{Tuning: neck.Tunings[0].Open, Frets: 22, Scale: 648, Comfort: 100, Habit: "stay"}
	for _, tuning := range append(slices.Clone(neck.Tunings), neck.Tuning{ID: "all-fourths", Open: "E2,A2,D3,G3,C4,F4", Scale: 648, Frets: 24}) {
		for _, capo := range []int{0, 3} {
			for _, l := range lines {
				what := fmt.Sprintf("%s on %s, capo %d", l.Title, tuning.ID, capo)
				require.Equal(t, 200, ask(t, srv, "PUT", "/api/player", store.Player{Tuning: tuning.Open, Frets: tuning.Frets, Capo: capo, Scale: tuning.Scale, Comfort: 100, Habit: "stay"}, nil).StatusCode)
				var laid Laying
				require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/lay", l.LineBody, &laid).StatusCode, what)
				body := laid.Study.body()
				pickup := ""
				if capo > 0 && l.Beats > 2 { // with a pickup of its chords too
					pickup = "| pickup 2/4 " + st7(l.Key) + " "
					body.Text = pickup + body.Text
				}
				var kept Line
				require.Equal(t, 201, ask(t, srv, "POST", "/api/lines", body, &kept).StatusCode, what)
				require.Equal(t, 200, ask(t, srv, "PUT", "/api/player", usual, nil).StatusCode)
				for _, format := range []string{"musicxml", "mxl", "tab", "midi?ending=none"} {
					ending := map[string]string{"tab": "txt", "midi?ending=none": "mid"}[format]
					data := fetch(t, fmt.Sprintf("%s/api/lines/%d/files/%s", srv.URL, kept.ID, format))
					back, no := bring(t, srv, "x."+cmp.Or(ending, format), data, 0)
					require.Empty(t, no.Detail, "%s as %s", what, format)
					require.Equal(t, []any{kept.Tuning, kept.Capo}, []any{back.Line.Tuning, back.Line.Capo}, "%s as %s", what, format)
					require.Equal(t, pickup != "", strings.HasPrefix(back.Line.Text, "| pickup"), "%s as %s: %s", what, format, back.Line.Text)
					require.True(t, strings.HasPrefix(back.Line.Text, pickup), "%s as %s: %s", what, format, back.Line.Text)
					if ending == "mid" { // it plays choruses on end, and has no places
						assert.GreaterOrEqual(t, len(back.Score.Notes), len(kept.Notes), what)
						continue
					}
					require.Len(t, back.Score.Notes, len(kept.Notes), "%s as %s", what, format)
					for i, n := range kept.Notes {
						got := back.body().Notes[i]
						require.Equal(t, []int{n.Start, n.Length, n.String, n.Fret}, []int{got.Start, got.Length, got.String, got.Fret}, "%s as %s, note %d", what, format, i)
					}
				}
				require.Equal(t, 204, ask(t, srv, "DELETE", fmt.Sprintf("/api/lines/%d", kept.ID), nil, nil).StatusCode)
			}
		}
	}
}

// What the page sends of a long line to have one change mended (the notes round
// it, see around in its notes.ts) is answered as the whole line is.
func TestFitNeedsOnlyWhatIsNear(t *testing.T) {
	srv := serve(t)
	var whole Study
	require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/study", longLine(500), &whole).StatusCode)
	body := longLine(500)
	for i, n := range whole.Score.Notes {
		body.Notes[i] = n.LineNote
		body.Notes[i].ID, body.Notes[i].String = n.ID, n.String
	}
	for _, l := range whole.Report.Landings {
		var all, near Fixes
		require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/fit", map[string]any{"line": body, "at": l.At}, &all).StatusCode)
		some := body
		at := l.At / 480
		some.Notes = append(append([]store.LineNote{}, body.Notes[max(0, at-79):min(500, at+25)]...), body.Notes[499])
		if at+25 > 499 {
			some.Notes = some.Notes[:len(some.Notes)-1]
		}
		require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/fit", map[string]any{"line": some, "at": l.At}, &near).StatusCode)
		require.Equal(t, all, near, "at %d", l.At)
	}
}

// What may rest goes by the player's rule over each chord of the form: in a line that is looked at and in a pass that is judged.
func TestWhatMayRestGoesByTheChordOfTheForm(t *testing.T) {
	srv := serve(t)
	line := bluesIn("A") // the 9 over the one in bar 7, over the five in bar 9
	line.Notes = []store.LineNote{{ID: 1, Start: 6 * 3840, Length: 1920, String: 1, Fret: 7}, {ID: 2, Start: 8 * 3840, Length: 1920, String: 2, Fret: 7}}
	heard := []HeardNote{{At: 6 * 3840, Length: 1920, Pitch: 71}, {At: 8 * 3840, Length: 1920, Pitch: 66}}
	for rests, want := range map[string][]string{"": {"leaned on", "leaned on"}, "strict": {"wrong note", "wrong note"}, "strict,five:wide": {"wrong note", "leaned on"}, "usual,five:strict": {"leaned on", "wrong note"}} {
		require.Equal(t, 200, ask(t, srv, "PUT", "/api/player", store.Player{Tuning: "E2,A2,D3,G3,B3,E4", Frets: 22, Scale: 648, Comfort: 110, Habit: "stay", Rests: rests}, nil).StatusCode)
		var st Study
		require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/study", line, &st).StatusCode)
		var take FreeTake
		require.Equal(t, 200, ask(t, srv, "POST", "/api/practice/judge", map[string]any{"over": line, "mode": "land", "heard": heard}, &take).StatusCode)
		at := func(tick int) bool { return tick == 6*3840 || tick == 8*3840 }
		var written, played []string
		for _, l := range st.Report.Landings {
			if at(l.At) {
				written = append(written, l.When)
			}
		}
		for _, l := range take.Landings {
			if at(l.At) {
				played = append(played, l.When)
			}
		}
		assert.Equal(t, want, written, "by %q", rests)
		assert.Equal(t, want, played, "by %q", rests)
	}
	for _, bad := range []string{"usual,six:wide", "usual,five:loose", "usual,five:wide,five:wide", strings.Repeat("usual,", 20)} {
		assert.Equal(t, 422, ask(t, srv, "PUT", "/api/player", store.Player{Tuning: "E2,A2,D3,G3,B3,E4", Frets: 22, Scale: 648, Comfort: 110, Habit: "stay", Rests: bad}, nil).StatusCode, bad)
	}
}

// A line that closes on an ending is kept with it, and the band stops as the line does.
func TestTheBandEndsAsTheLineCloses(t *testing.T) {
	srv := serve(t)
	body := bluesIn("A")
	body.Text = "| I7 | IV7 | I7 | % |\n| IV7 | % | I7 | % |\n| V7 | IV7 | I7 | % |"
	for closing, ending := range map[string]string{"walk-home": "walk-down", "half-step-above": "half-step", "held-ninth": "held", "none": "held", "walk-down": "held"} {
		var st Study
		require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/write", map[string]any{"line": body, "wish": WishBody{Seed: 3, Closing: closing, Word: "box-blues"}}, &st).StatusCode)
		want := closing
		if closing == "none" {
			want = ""
		}
		assert.Equal(t, want, st.Line.Closing, closing)
		var kept Line
		require.Equal(t, 201, ask(t, srv, "POST", "/api/lines", st.body(), &kept).StatusCode)
		assert.Equal(t, want, kept.Closing)
		file := func(ending string) string {
			return string(fetch(t, fmt.Sprintf("%s/api/lines/%d/files/midi?choruses=1&ending=%s", srv.URL, kept.ID, ending)))
		}
		assert.Equal(t, file(ending), file("own"), closing)
		assert.NotEqual(t, file("none"), file("own"), closing)
		// Its last bars written anew without a closing, it has none any more.
		var anew Study
		require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/write", map[string]any{"line": st.body(), "wish": WishBody{Seed: 4, From: 9, To: 12}}, &anew).StatusCode)
		assert.Empty(t, anew.Line.Closing)
		require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/write", map[string]any{"line": st.body(), "wish": WishBody{Seed: 4, From: 1, To: 4}}, &anew).StatusCode)
		assert.Equal(t, want, anew.Line.Closing, "its first bars alone change nothing of it")
	}
	body.Closing = "grand-finale"
	var no refusal
	assert.Equal(t, 422, ask(t, srv, "POST", "/api/lines/study", body, &no).StatusCode)
	assert.Contains(t, no.Detail+no.Errors[0].Message, "grand-finale")
}
