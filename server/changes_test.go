package server

import (
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/band"
	"undaris/formats/midi"
	"undaris/store"
)

func TestQuestionsAboutChanges(t *testing.T) {
	srv := serve(t)
	var moves []Move
	ask(t, srv, "GET", "/api/crossings?from=C7&to=F7&low=7&high=11", nil, &moves)
	assert.Equal(t, Step{ToneName{"b7", "Bb"}, ToneName{"3", "A"}, -1, "half step", true}, moves[0].Step)
	assert.Equal(t, MovePlace{Place{2, 11}, Place{2, 10}, 20.4}, moves[0].Places[0])
	ask(t, srv, "GET", "/api/crossings?from=C7&to=F7&low=7&high=11&nearest=true", nil, &moves)
	assert.Equal(t, "hold", moves[0].Kind)

	var b Blend
	ask(t, srv, "GET", "/api/blend?key=C&palette=minor-pentatonic&chord=F7&low=7&high=11", nil, &b)
	var degrees []string
	for _, n := range b.Notes {
		degrees = append(degrees, n.Degree)
	}
	assert.Equal(t, []string{"5", "b7", "R", "9", "11"}, degrees)
	require.Len(t, b.Added, 1)
	assert.Equal(t, ToneName{"3", "A"}, b.Added[0].ToneName)

	var readings []PlaceReading
	ask(t, srv, "GET", "/api/places?string=2&fret=3&chords=C7&chords=F7&chords=G7", nil, &readings)
	require.Len(t, readings, 3)
	assert.Contains(t, readings[0].Bent, BentTo{ToneName{"3", "E"}, 2})
	assert.Contains(t, readings[1].Bent, BentTo{ToneName{"b7", "Eb"}, 1})
	assert.Equal(t, "5", readings[2].Degree)

	var thread Thread
	text := "text=%7C+C7+%7C+F7+%7C+C7+%7C+G7+%7C&key=C"
	ask(t, srv, "GET", "/api/threads?low=7&high=11&"+text, nil, &thread)
	require.Len(t, thread.Targets, 4)
	ask(t, srv, "GET", "/api/threads?low=7&high=11&pins=2.1+6:8&"+text, nil, &thread)
	assert.True(t, thread.Targets[1].Pinned)
	assert.Equal(t, "5", thread.Targets[1].Degree)

	ask(t, srv, "GET", "/api/threads?low=7&high=11&lowest=64&"+text, nil, &thread)
	for _, target := range thread.Targets {
		assert.GreaterOrEqual(t, target.MIDI, 64)
	}

	for path, want := range map[string]struct{ location, says string }{
		"/api/crossings?from=C7&to=F7&low=7&high=11&targets=ninth": {"query.targets", "is no target"},
		"/api/crossings?from=C7&to=Q&low=7&high=11":                {"query.to", "cannot read"},
		"/api/blend?key=C&palette=purple&chord=F7&low=7&high=11":   {"query.palette", "no palette"},
		"/api/threads?low=7&high=11&mode=none&" + text:             {"query.thread", "there is no way"},
		"/api/threads?low=7&high=11&strings=9&" + text:             {"query.strings", "is no string"},
		"/api/threads?low=7&high=11&pins=2.1+6:3&" + text:          {"query.pins", "in bar 2, the target chosen by hand at 6:3 lies outside frets 7 to 11"},
		"/api/threads?low=7&high=11&pins=nonsense&" + text:         {"query.pins", "is no pin"},
		"/api/threads?low=7&high=11&key=C&text=%7C+Cx7+%7C":        {"query.text", "bar 1"},
		"/api/places?string=9&fret=3&chords=C7":                    {"query.fret", "not on this neck"},
	} {
		var r refusal
		assert.Equal(t, 422, ask(t, srv, "GET", path, nil, &r).StatusCode, path)
		require.NotEmpty(t, r.Errors, path)
		assert.Equal(t, want.location, r.Errors[0].Location, path)
		assert.Contains(t, r.Errors[0].Message, want.says, path)
	}
}

// pinned is a target chosen on string 3 for bar 2, in frets 7 to 11.
func pinned(fret int) []store.Pin {
	return []store.Pin{{Frets: store.Frets{Low: 7, High: 11}, Bar: 2, Beat: 1, Spot: store.Spot{String: 3, Fret: fret}}}
}

func TestPlansAreKeptAndFollowed(t *testing.T) {
	srv := serve(t)
	plan := store.Plan{Palette: "major-pentatonic", Thread: "thirds", Pins: pinned(8),
		Imagined: &store.Imagined{Bar: 11, Text: "| iii7 VI7 | ii7 V7 |"}}
	assert.Equal(t, 200, ask(t, srv, "PUT", "/api/charts/6/plan", plan, nil).StatusCode)
	var m Map
	ask(t, srv, "GET", "/api/charts/6/map", nil, &m)
	assert.True(t, m.Imagined)
	assert.Equal(t, "C7", m.Bars[10].Band)
	require.Len(t, m.Bars[10].Changes, 2)
	assert.Equal(t, []Rub{{ToneName{"3", "C#"}, "b9", "C7"}}, m.Bars[10].Changes[1].Rubs)
	seven := m.ByPosition[3]
	assert.Equal(t, 7, m.Positions[3].Low)
	require.Nil(t, seven.Thread.Problem)
	assert.Equal(t, Target{Step: 1, String: 3, Fret: 8, MIDI: 63, Degree: "b7", Note: "Eb", Move: -1, Pinned: true}, seven.Thread.Targets[1])
	assert.Equal(t, "b9", seven.Thread.Targets[11].Against, "the third of the imagined A7 rubs against C7")
	assert.Equal(t, "b7", m.Blends[0].Added[0].Degree)

	plan.Pins = pinned(9)
	ask(t, srv, "PUT", "/api/charts/6/plan", plan, nil)
	ask(t, srv, "GET", "/api/charts/6/map", nil, &m)
	require.NotNil(t, m.ByPosition[3].Thread.Problem)
	assert.True(t, m.ByPosition[3].Thread.Problem.Pinned)
	assert.Equal(t, 1, m.ByPosition[3].Thread.Problem.Step)
	assert.Contains(t, m.ByPosition[3].Thread.Problem.Message, "bar 2")

	// A shorter chart drops the imagined bars it no longer has, and keeps the rest.
	short := m.Chart.ChartBody
	short.Text = "| C7 | F7 |"
	var c Chart
	ask(t, srv, "PUT", "/api/charts/6", short, &c)
	assert.Nil(t, c.Plan.Imagined)
	assert.Equal(t, "thirds", c.Plan.Thread)
	assert.Equal(t, 200, ask(t, srv, "GET", "/api/charts/6/map", nil, &m).StatusCode)

	for location, bad := range map[string]store.Plan{
		"body.palette":        {Palette: "purple"},
		"body.thread":         {Thread: "golden"},
		"body.targets[0]":     {Targets: []string{"ninth"}},
		"body.pins[0].string": {Pins: []store.Pin{{Bar: 1, Beat: 1}}},
		"body.strings":        {Strings: "3-1"},
		"body.allowed":        {Allowed: map[string][]string{"I7": {"tenth"}}},
		"body.imagined":       {Imagined: &store.Imagined{Bar: 12, Text: "| I7 | V7 |"}},
	} {
		var r refusal
		assert.Equal(t, 422, ask(t, srv, "PUT", "/api/charts/6/plan", bad, &r).StatusCode, location)
		assert.Equal(t, location, r.Errors[0].Location)
	}
}

func TestTheBandIsExported(t *testing.T) {
	srv := serve(t)
	fetch := func(path string) (*http.Response, []byte) {
		resp, err := http.Get(srv.URL + path)
		require.NoError(t, err)
		defer resp.Body.Close()
		data, err := io.ReadAll(resp.Body)
		require.NoError(t, err)
		return resp, data
	}
	resp, data := fetch("/api/charts/6/files/midi?choruses=2")
	assert.Equal(t, "audio/midi", resp.Header.Get("Content-Type"))
	assert.Contains(t, resp.Header.Get("Content-Disposition"), `"slipway-shuffle.mid"`)
	file, err := midi.Read(t.Context(), data)
	require.NoError(t, err)
	assert.Equal(t, "Slipway Shuffle", file.Title)
	var names []string
	for _, track := range file.Tracks {
		names = append(names, track.Name)
	}
	assert.Equal(t, []string{"drums", "bass", "chords", "count-in"}, names)
	assert.InDelta(t, 96, file.Tempo, 0.01)
	_, again := fetch("/api/charts/6/files/midi?choruses=2")
	assert.Equal(t, data, again)
	_, data = fetch("/api/charts/6/files/midi?choruses=2&lead=thread&low=7&high=11&metronome=true&countIn=false&without=bass&tempo=140&comp=organ")
	file, err = midi.Read(t.Context(), data)
	require.NoError(t, err)
	require.Len(t, file.Tracks, 4)
	lead := file.Tracks[3]
	assert.Equal(t, "lead", lead.Name)
	assert.Len(t, lead.Notes, 2*12, "a target for each bar of two choruses")
	assert.InDelta(t, 140, file.Tempo, 0.01)
	played := func(query, body string) (int, []byte) {
		resp, err := http.Post(srv.URL+"/api/bands/midi?"+query, "application/json", strings.NewReader(body))
		require.NoError(t, err)
		defer resp.Body.Close()
		data, err := io.ReadAll(resp.Body)
		require.NoError(t, err)
		return resp.StatusCode, data
	}
	_, data = played("choruses=1&countIn=false", `{"text":"| C7 | F7 |","lead":[{"midi":64,"beats":3},{"beats":1},{"midi":65,"beats":4}]}`)
	file, err = midi.Read(t.Context(), data)
	require.NoError(t, err)
	notes := file.Tracks[len(file.Tracks)-1].Notes
	assert.Equal(t, []int{64, 65}, []int{notes[0].MIDI, notes[1].MIDI})
	assert.Equal(t, 4*band.Tick, notes[1].Start)
	for _, bad := range []string{`{"text":"|C7|","lead":[{"midi":64}]}`, `{"text":"|C7|","lead":[{"midi":64,"beats":0}]}`, `{"text":"|C7|","lead":[{"midi":200,"beats":1}]}`, `{"text":"|H9|"}`, `{"text":"|C7|","feel":"polka"}`} {
		status, _ := played("", bad)
		assert.Equal(t, 422, status, bad)
	}
	for _, bad := range []string{"tempo=5", "swing=0.9", "comp=tuba", "intensity=9"} {
		status, _ := played(bad, `{"text":"|C7|"}`)
		assert.Equal(t, 422, status, bad)
	}
	resp, _ = fetch("/api/charts/6/files/midi?choruses=0")
	assert.Equal(t, 422, resp.StatusCode)
	resp, _ = fetch("/api/charts/99/files/midi")
	assert.Equal(t, 404, resp.StatusCode)
}
