package server

import (
	"bytes"
	"fmt"
	"io"
	"math"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/store"
)

// upload puts a file, as a page does.
func upload(t testing.TB, url, media string, body io.Reader) (status int, said string) {
	req, err := http.NewRequest("PUT", url, body)
	require.NoError(t, err)
	req.Header.Set("Content-Type", media)
	resp, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer resp.Body.Close()
	data, err := io.ReadAll(resp.Body)
	require.NoError(t, err)
	return resp.StatusCode, string(data)
}

var tape = RecordingBody{Title: "Tape", Seconds: 30, Key: "C", Hearing: store.Hearing{Beats: 4, Feel: "shuffle", Chords: "| C7 | F7 |", Anchors: []store.Anchor{{Beat: 0, At: 0.5}, {Beat: 8, At: 4.5}}, From: 0.5, To: 4.5,
	Markers: []store.Marker{}, Notes: []store.NoteByEar{{ID: 3, At: 0.5, Length: 0.4, Pitch: 64, Sure: 0.9}, {ID: 4, At: 2.5, Length: 0.4, Pitch: 67, Bend: 2, Sure: 0.4}}}}

// A recording is made, its file comes and goes in any ranges, as what it is and as nothing that a browser would run.
func TestTheFileOfARecording(t *testing.T) {
	srv := serve(t)
	var made Recording
	require.Equal(t, 201, ask(t, srv, "POST", "/api/recordings", tape, &made).StatusCode)
	at := fmt.Sprintf("%s/api/recordings/%d/file", srv.URL, made.ID)
	assert.Equal(t, 404, ask(t, srv, "GET", fmt.Sprintf("/api/recordings/%d/file", made.ID), nil, nil).StatusCode)
	sound := bytes.Repeat([]byte("0123456789"), 300_000) // three megabytes: more than other bodies may have
	status, said := upload(t, at, "audio/wav", bytes.NewReader(sound))
	require.Equal(t, 200, status, said)
	var now Recording
	ask(t, srv, "GET", fmt.Sprintf("/api/recordings/%d", made.ID), nil, &now)
	assert.Equal(t, []any{int64(3_000_000), "audio/wav", 2}, []any{now.Bytes, now.Media, len(now.Hearing.Notes)})
	for asked, want := range map[string]string{"bytes=0-9": "0123456789", "bytes=2999995-": "56789", "bytes=-3": "789", "": string(sound)} {
		req, _ := http.NewRequest("GET", at, nil)
		if asked != "" {
			req.Header.Set("Range", asked)
		}
		resp, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		got, err := io.ReadAll(resp.Body)
		require.NoError(t, err)
		resp.Body.Close()
		assert.True(t, string(got) == want, asked)
		assert.Equal(t, asked != "", resp.StatusCode == http.StatusPartialContent, asked)
		assert.Equal(t, "audio/wav", resp.Header.Get("Content-Type"))
		assert.Contains(t, resp.Header.Get("Content-Security-Policy"), "sandbox")
		assert.Equal(t, "nosniff", resp.Header.Get("X-Content-Type-Options"))
	}
	// What calls itself a page is bytes.
	for _, media := range []string{"text/html", "image/svg+xml", "application/javascript", "", "audio/", "nonsense;;;"} {
		status, said = upload(t, at, media, strings.NewReader("<script>alert(1)</script>"))
		require.Equal(t, 200, status, said)
		resp, err := http.Get(at)
		require.NoError(t, err)
		resp.Body.Close()
		assert.Equal(t, bytesAlone, resp.Header.Get("Content-Type"), media)
	}
	for _, media := range medias {
		assert.Equal(t, media, mediaOf(media+"; codecs=opus"))
		assert.NotEqual(t, ".", ending(media))
	}
	for _, id := range []string{"99", "0", "-1", "x", "1x", "4294967296", "01"} {
		status, _ = upload(t, srv.URL+"/api/recordings/"+id+"/file", "audio/wav", strings.NewReader("x"))
		assert.Equal(t, 404, status, id)
	}
}

// What promises more than can be taken is refused before it is read.
func TestAFileThatIsTooLarge(t *testing.T) {
	srv := serve(t)
	req, err := http.NewRequest("PUT", srv.URL+"/api/recordings/1/file", strings.NewReader("x"))
	require.NoError(t, err)
	req.ContentLength = maxRecording + 1
	resp, err := http.DefaultClient.Do(req)
	if err == nil { // it may end the connection before all was sent
		defer resp.Body.Close()
		assert.Equal(t, http.StatusRequestEntityTooLarge, resp.StatusCode)
	}
}

// What nobody could have found in a recording is refused, and says where.
func TestWhatIsFoundInARecording(t *testing.T) {
	srv := serve(t)
	for where, spoil := range map[string]func(*RecordingBody){
		"body.title":            func(b *RecordingBody) { b.Title = " " },
		"body.key":              func(b *RecordingBody) { b.Key = "H" },
		"body.hearing.anchors":  func(b *RecordingBody) { b.Hearing.Anchors = []store.Anchor{{Beat: 4, At: 1}, {Beat: 2, At: 2}} },
		"body.hearing.feel":     func(b *RecordingBody) { b.Hearing.Feel = "tango" },
		"body.hearing.chords":   func(b *RecordingBody) { b.Hearing.Chords = "| H7 |" },
		"body.hearing.high":     func(b *RecordingBody) { b.Hearing.Low, b.Hearing.High = 9, 3 },
		"body.hearing.notes[1]": func(b *RecordingBody) { b.Hearing.Notes = []store.NoteByEar{{ID: 1, At: 1}, {ID: 1, At: 2}} },
		"body.hearing.beats":    func(b *RecordingBody) { b.Hearing.Beats = 0 },
	} {
		b := tape
		spoil(&b)
		var no struct{ Errors []struct{ Location string } }
		require.Equal(t, 422, ask(t, srv, "POST", "/api/recordings", b, &no).StatusCode, where)
		require.NotEmpty(t, no.Errors, where)
		assert.Contains(t, no.Errors[0].Location, where)
	}
	b := tape
	b.Hearing.Notes = []store.NoteByEar{{ID: 2, At: 3}, {ID: 1, At: 1}}
	var made Recording
	require.Equal(t, 201, ask(t, srv, "POST", "/api/recordings", b, &made).StatusCode)
	assert.Equal(t, 1, made.Hearing.Notes[0].ID, "in order of time")
}

// The stretch in hand is written down: over its own chords, or a chart's, in words, as a line that can be kept.
func TestAStretchIsWrittenDown(t *testing.T) {
	srv := serve(t)
	var heard Heard
	require.Equal(t, 200, ask(t, srv, "POST", "/api/recordings/study", tape, &heard).StatusCode)
	require.NotNil(t, heard.Line)
	require.NotNil(t, heard.Study)
	assert.Equal(t, []RecordedBar{{0, 0, 0.5, 2.5, []BarChange{{0, "C7"}}}, {1, 1, 2.5, 4.5, []BarChange{{0, "F7"}}}}, heard.Bars)
	assert.Equal(t, "E over C7, bar 1, beat 1", heard.Told[0].Where)
	assert.Equal(t, "the 3, bent up from G, a whole step", heard.Told[1].Does)
	assert.Equal(t, "| C7 | F7 |", heard.Line.Text)
	var line Line
	heard.Line.Heard = &store.Passage{Recording: 1, From: 0.5, To: 4.5}
	require.Equal(t, 201, ask(t, srv, "POST", "/api/lines", heard.Line, &line).StatusCode)
	assert.Equal(t, heard.Line.Heard, line.Heard)
	var kept LickBody
	require.Equal(t, 200, ask(t, srv, "POST", "/api/licks/keep", map[string]any{"line": heard.Line, "first": 3, "last": 4, "ofKey": false}, &kept).StatusCode)
	assert.Equal(t, heard.Line.Heard, kept.Heard)
	kept.Title = "Off the tape"
	var lick Lick
	require.Equal(t, 201, ask(t, srv, "POST", "/api/licks", kept, &lick).StatusCode)
	assert.Equal(t, heard.Line.Heard, lick.Heard)

	onChart := tape
	onChart.Chart, onChart.Hearing.First = 1, 8
	require.Equal(t, 200, ask(t, srv, "POST", "/api/recordings/study", onChart, &heard).StatusCode)
	assert.Equal(t, 8, heard.Bars[0].Of)
	onChart.Chart = 999
	assert.Equal(t, 404, ask(t, srv, "POST", "/api/recordings/study", onChart, nil).StatusCode)

	for why, spoil := range map[string]func(*RecordingBody){
		"no stretch":  func(b *RecordingBody) { b.Hearing.To = 0 },
		"beats fall":  func(b *RecordingBody) { b.Hearing.Anchors = []store.Anchor{} },
		"nothing is":  func(b *RecordingBody) { b.Hearing.Notes = []store.NoteByEar{} },
		"shorter one": func(b *RecordingBody) { b.Hearing.To = 500 },
	} {
		b := tape
		spoil(&b)
		heard = Heard{}
		require.Equal(t, 200, ask(t, srv, "POST", "/api/recordings/study", b, &heard).StatusCode, why)
		assert.Contains(t, heard.Why, why)
		assert.Nil(t, heard.Line)
	}
}

// measuredBand is a band of plain strokes at 100 beats a minute, a chord a bar.
func measuredBand(seconds int) Measured {
	m := Measured{OnsetRate: 100, ToneRate: 10, Onsets: make([]byte, 100*seconds), Low: make([]byte, 100*seconds), High: make([]byte, 100*seconds), Tones: make([]byte, 120*seconds), Bass: make([]byte, 120*seconds)}
	chords := [][]int{{0, 4, 7, 10}, {5, 9, 0, 3}, {0, 4, 7, 10}, {7, 11, 2, 5}}
	for beat := 0; beat*60 < 100*seconds; beat++ {
		at := beat * 60
		m.Onsets[at] = 220
		if beat%2 == 0 {
			m.Low[at] = 240
		} else {
			m.High[at] = 240
		}
		for f := beat * 6; f < min(beat*6+6, 10*seconds); f++ {
			chord := chords[beat/4%4]
			for _, c := range chord {
				m.Tones[12*f+c] = 180
			}
			m.Bass[12*f+chord[0]] = 200
		}
	}
	return m
}

// What a page measured gets its beats and its chords; what does not go together is refused.
func TestWhatIsMeasuredIsNamed(t *testing.T) {
	srv := serve(t)
	m := measuredBand(40)
	type pulse struct {
		Measured
		Beats int `json:"beats"`
	}
	var pulses []PulseGuess
	require.Equal(t, 200, ask(t, srv, "POST", "/api/recordings/pulse", pulse{m, 4}, &pulses).StatusCode)
	require.NotEmpty(t, pulses)
	assert.InDelta(t, 100, pulses[0].Tempo, 0.5)
	type named struct {
		Measured
		Recording RecordingBody `json:"recording"`
	}
	b := tape
	b.Key, b.Hearing.Chords, b.Seconds, b.Hearing.Anchors = "", "", 40, pulses[0].Anchors
	var chords ChordsByEar
	require.Equal(t, 200, ask(t, srv, "POST", "/api/recordings/chords", named{m, b}, &chords).StatusCode)
	assert.Equal(t, "C", chords.Keys[0].Key)
	assert.True(t, strings.HasPrefix(chords.Text, "| C7 | F7 | C7 | G7 |"), chords.Text)
	b.Key, b.Hearing.Chords = "C", "| C7 | F7 | Am7 | G7 |"
	require.Equal(t, 200, ask(t, srv, "POST", "/api/recordings/chords", named{m, b}, &chords).StatusCode)
	assert.Equal(t, []bool{true, true, false, true}, []bool{chords.Chords[0].Agrees, chords.Chords[1].Agrees, chords.Chords[2].Agrees, chords.Chords[3].Agrees})
	b.Hearing.Anchors = []store.Anchor{}
	assert.Equal(t, 422, ask(t, srv, "POST", "/api/recordings/chords", named{m, b}, nil).StatusCode)
	m.Low = m.Low[:5]
	assert.Equal(t, 422, ask(t, srv, "POST", "/api/recordings/pulse", pulse{m, 4}, nil).StatusCode)

	var anchors []store.Anchor
	tap := map[string]any{"anchors": []any{}, "beats": 4, "taps": []float64{1, 1.5, 2, 2.5}}
	require.Equal(t, 200, ask(t, srv, "POST", "/api/recordings/tap", tap, &anchors).StatusCode)
	assert.Equal(t, []store.Anchor{{Beat: 0, At: 1}, {Beat: 1, At: 1.5}, {Beat: 2, At: 2}, {Beat: 3, At: 2.5}}, anchors)
	require.Equal(t, 200, ask(t, srv, "POST", "/api/recordings/tap", map[string]any{"anchors": anchors, "beats": 4, "first": 2}, &anchors).StatusCode)
	assert.Equal(t, -2, anchors[0].Beat)
	require.Equal(t, 200, ask(t, srv, "POST", "/api/recordings/tap", map[string]any{"anchors": anchors, "beats": 4, "tempo": 90, "until": 20}, &anchors).StatusCode)
	assert.InDelta(t, 60.0/90, (anchors[1].At-anchors[0].At)/float64(anchors[1].Beat-anchors[0].Beat), 1e-9)
}

// Notes of an ear, with and without a model beside it, for the neck in hand and the hand's position on it.
func TestNotesByEar(t *testing.T) {
	srv := serve(t)
	stroke := func(seq int, at, midi float64) []map[string]any {
		return []map[string]any{{"seq": seq, "kind": "attack", "at": at}, {"seq": seq + 1, "kind": "settled", "of": seq, "at": at + 0.03, "midi": midi, "clarity": 0.97},
			{"seq": seq + 2, "kind": "salience", "of": seq, "at": at + 0.09, "fresh": 0.8, "level": -20, "candidates": [][2]float64{{math.Round(midi), 1}}}}
	}
	noticed := append(append(stroke(1, 1, 63.7), stroke(4, 1.5, 66.7)...), stroke(7, 2, 27.7)...)
	var notes []store.NoteByEar
	body := map[string]any{"noticed": noticed, "cents": -30, "settled": []any{}}
	require.Equal(t, 200, ask(t, srv, "POST", "/api/recordings/notes", body, &notes).StatusCode)
	require.Len(t, notes, 2, "the third lies beneath the neck")
	assert.Equal(t, []int{64, 67}, []int{notes[0].Pitch, notes[1].Pitch})
	body["sounded"] = []SoundedByEar{{At: 1, Length: 0.5, MIDI: 64, Strength: 0.8, Onset: 0.9}, {At: 3, Length: 0.5, MIDI: 60, Strength: 0.8, Onset: 0.95}}
	body["cents"] = 0
	require.Equal(t, 200, ask(t, srv, "POST", "/api/recordings/notes", body, &notes).StatusCode)
	assert.Contains(t, []int{notes[0].Pitch, notes[len(notes)-1].Pitch}, 60)
	body["low"], body["high"] = 12, 15
	require.Equal(t, 200, ask(t, srv, "POST", "/api/recordings/notes", body, &notes).StatusCode)
	for _, n := range notes {
		assert.GreaterOrEqual(t, n.Pitch, 52)
	}
}

// What was played in a turn is set beside the record, for the neck in hand; what cannot be is said.
func TestATurnByEar(t *testing.T) {
	srv := serve(t)
	stroke := func(seq int, at, midi float64) []map[string]any {
		return []map[string]any{{"seq": seq, "kind": "attack", "at": at}, {"seq": seq + 1, "kind": "settled", "of": seq, "at": at + 0.03, "midi": midi, "clarity": 0.97},
			{"seq": seq + 2, "kind": "salience", "of": seq, "at": at + 0.09, "fresh": 0.8, "level": -20, "candidates": [][2]float64{{math.Round(midi), 1}}}}
	}
	record := []store.NoteByEar{{ID: 3, At: 1, Length: 0.4, Pitch: 64, Sure: 1}, {ID: 4, At: 1.5, Length: 0.4, Pitch: 67, Sure: 1}}
	var turn TurnByEar
	body := map[string]any{"noticed": append(stroke(1, 1.02, 64), stroke(4, 1.52, 66)...), "record": record}
	require.Equal(t, 200, ask(t, srv, "POST", "/api/recordings/turn", body, &turn).StatusCode)
	assert.Equal(t, "1 of 2 notes as on the record. Note 2 was a half step too low.", turn.Says)
	assert.Len(t, turn.Mine, 2)
	assert.Equal(t, []bool{true, false}, []bool{turn.Answers[0].Right, turn.Answers[1].Right})
	assert.Equal(t, 4, turn.Answers[1].ID)
	require.Equal(t, 200, ask(t, srv, "POST", "/api/recordings/turn", map[string]any{"noticed": []any{}, "record": record}, &turn).StatusCode)
	assert.Equal(t, "Nothing was heard in your turn.", turn.Says)
	long := make([]store.NoteByEar, 501)
	for i := range long {
		long[i] = store.NoteByEar{ID: i + 1, At: float64(i), Length: 0.4, Pitch: 60, Sure: 1}
	}
	assert.Equal(t, 422, ask(t, srv, "POST", "/api/recordings/turn", map[string]any{"noticed": []any{}, "record": long}, nil).StatusCode)
}

// Time with a recording is a line of the log that counts as time and tells nothing of what is known.
func TestTimeByEarIsLogged(t *testing.T) {
	srv := serve(t)
	var row LogRow
	require.Equal(t, 201, ask(t, srv, "POST", "/api/log/ears", map[string]any{"title": "Tape", "seconds": 90}, &row).StatusCode)
	assert.Equal(t, []any{"ear", "Tape", 90.0, 0}, []any{row.Kind, row.Title, row.Seconds, row.Asked})
	for _, seconds := range []float64{0, 3601} {
		assert.Equal(t, 422, ask(t, srv, "POST", "/api/log/ears", map[string]any{"title": "Tape", "seconds": seconds}, nil).StatusCode)
	}
	var page LogPage
	require.Equal(t, 200, ask(t, srv, "GET", "/api/log?limit=10", nil, &page).StatusCode)
	assert.Equal(t, "ear", page.Rows[0].Kind)
}
