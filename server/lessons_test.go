package server

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/store"
)

// hand posts a file and decodes what is answered, or says why it was refused.
func hand(t *testing.T, srv *httptest.Server, path string, file []byte, into any) (status int, says string) {
	t.Helper()
	resp, err := http.Post(srv.URL+path, "application/octet-stream", bytes.NewReader(file))
	require.NoError(t, err)
	defer resp.Body.Close()
	data, err := io.ReadAll(resp.Body)
	require.NoError(t, err)
	if resp.StatusCode >= 300 {
		var why struct{ Detail string }
		require.NoError(t, json.Unmarshal(data, &why))
		return resp.StatusCode, why.Detail
	}
	require.NoError(t, json.Unmarshal(data, into))
	return resp.StatusCode, ""
}

// turn makes another player, whose turn it is.
func turn(t *testing.T, srv *httptest.Server, name string) {
	t.Helper()
	require.Equal(t, 201, ask(t, srv, "POST", "/api/players", map[string]string{"name": name}, nil).StatusCode)
}

// everything is an assignment with all that one may hold.
func everything(t *testing.T, srv *httptest.Server) Lesson {
	t.Helper()
	var lines []LineRow
	ask(t, srv, "GET", "/api/lines", nil, &lines)
	var licks []LickRow
	ask(t, srv, "GET", "/api/licks", nil, &licks)
	var made Lesson
	require.Equal(t, 201, ask(t, srv, "POST", "/api/assignments", LessonBody{
		Title: "Thirds by Friday", Words: "Slowly at first.\nThen not.", Charts: []uint{6, 5}, Licks: []uint{licks[0].ID}, Lines: []uint{lines[0].ID},
		Exercises: []AssignedExercise{{Title: "Thirds up and down", Chart: 1, Position: 2, Task: DrillBody{Drill: "run", Pace: "eighths"}}},
		Aims: []AimBody{
			{Kind: "changes", Chart: 1, Mode: "thirds", Percent: 50, Times: 2, Tempo: 80},
			{Kind: "line", Line: 1, Percent: 90},
			{Kind: "exercise", Exercise: 1, Percent: 90, Tempo: 60},
			{Kind: "calls", Key: "C", Degree: "third", Times: 3},
			{Kind: "minutes", Times: 1},
		},
	}, &made).StatusCode)
	return made
}

// An assignment is made, opened by another player, done, returned and read.
func TestAnAssignmentThereAndBack(t *testing.T) {
	srv := serve(t)
	require.Equal(t, 204, ask(t, srv, "PUT", "/api/players/1", map[string]string{"name": "Oda"}, nil).StatusCode)
	made := everything(t, srv)
	assert.False(t, made.Given)
	assert.Len(t, made.Aims, 5)
	out := fetch(t, srv.URL+fmt.Sprintf("/api/assignments/%d/file", made.ID))
	assert.Contains(t, string(out), "\n  \"title\": \"Thirds by Friday\"", "it can be read")

	var before, after []ChartRow
	ask(t, srv, "GET", "/api/charts", nil, &before)
	turn(t, srv, "Bram")
	var given Lesson
	status, says := hand(t, srv, "/api/assignments/open", out, &given)
	require.Equal(t, 201, status, says)
	assert.True(t, given.Given)
	assert.Equal(t, []string{"Thirds by Friday", "Oda", "Slowly at first.\nThen not."}, []string{given.Title, given.From, given.Words})
	assert.Empty(t, given.Said)
	assert.Equal(t, made.Charts, given.Charts, "what is here already is not taken in twice")
	assert.Equal(t, made.Licks, given.Licks)
	assert.Equal(t, made.Lines, given.Lines)
	assert.Equal(t, made.Exercises, given.Exercises)
	ask(t, srv, "GET", "/api/charts", nil, &after)
	assert.Len(t, after, len(before))
	for _, a := range given.Aims {
		assert.Zero(t, a.Tries)
		assert.NotEmpty(t, a.Says)
	}

	// The plan has it, and says whose wish it is.
	var today Today
	ask(t, srv, "GET", "/api/today?minutes=30", nil, &today)
	assert.Contains(t, today.Items[1].Why, "Oda asks for it")
	assert.Equal(t, "thirds", today.Items[1].Mode)

	// It is done.
	over := bluesIn("C")
	over.Low, over.High = 7, 11
	for range 2 {
		var heard []HeardNote
		ask(t, srv, "POST", "/api/practice/simulate", map[string]any{"over": over, "seed": 3}, &heard)
		require.Equal(t, 201, ask(t, srv, "POST", "/api/log/takes", TakeLog{Chart: 6, Title: "A chorus", Mode: "land", Line: over, Tempo: 96, Heard: heard}, nil).StatusCode)
	}
	var line Line
	ask(t, srv, "GET", fmt.Sprintf("/api/lines/%d", given.Lines[0].ID), nil, &line)
	var heard []HeardNote
	ask(t, srv, "POST", "/api/lines/simulate", map[string]any{"line": line.LineBody}, &heard)
	require.Equal(t, 201, ask(t, srv, "POST", "/api/log/takes", TakeLog{Of: line.ID, Title: line.Title, Line: line.LineBody, Tempo: line.Tempo, Heard: heard}, nil).StatusCode)
	for _, how := range []string{"right", "right", "late", "right", "right", "right"} {
		call := CallLog{Kind: "tones", Key: "C", Chord: "F7", Degree: "3", Window: store.Frets{Low: 7, High: 11}, Says: "upward", How: how}
		require.Equal(t, 201, ask(t, srv, "POST", "/api/log/calls", call, nil).StatusCode)
	}
	ask(t, srv, "GET", fmt.Sprintf("/api/assignments/%d", given.ID), nil, &given)
	reached := each(given.Aims, func(a LessonAim) bool { return a.Reached })
	assert.Equal(t, []bool{false, true, false, true, true}, reached, "the chorus landed on any tone, and thirds are asked for")
	assert.Equal(t, 3, given.Aims[3].Row)

	// It is returned, and read by who made it.
	back := fetch(t, srv.URL+fmt.Sprintf("/api/assignments/%d/results?words=%s", given.ID, "Harder+than+it+looks"))
	_, says = hand(t, srv, "/api/assignments/results", back, nil)
	assert.Contains(t, says, "another player made this assignment")
	require.Equal(t, 204, ask(t, srv, "PUT", "/api/players/1/here", nil, nil).StatusCode)
	for range 2 { // twice is once
		status, says = hand(t, srv, "/api/assignments/results", back, &made)
		require.Equal(t, 201, status, says)
	}
	assert.Equal(t, []string{}, made.Said)
	require.Len(t, made.Results, 1)
	r := made.Results[0]
	assert.Equal(t, []string{"Bram", "Harder than it looks"}, []string{r.Pupil, r.Words})
	assert.Equal(t, reached, each(r.Aims, func(a ResultAim) bool { return a.Reached }))
	assert.Len(t, r.Played, 3, "two choruses and a take of the line")
	assert.Positive(t, r.Minutes)
	for _, a := range made.Aims {
		assert.Zero(t, a.Tries, "what the pupil played is not in the teacher's log")
	}
	var rows []LessonRow
	ask(t, srv, "GET", "/api/assignments", nil, &rows)
	require.Len(t, rows, 1)
	assert.Equal(t, 1, rows[0].Results)

	// Deleted and taken back; a stranger's is not there.
	require.Equal(t, 204, ask(t, srv, "DELETE", fmt.Sprintf("/api/assignments/%d", made.ID), nil, nil).StatusCode)
	_, says = hand(t, srv, "/api/assignments/results", back, nil)
	assert.Contains(t, says, "not made here, or was deleted")
	require.Equal(t, 204, ask(t, srv, "POST", fmt.Sprintf("/api/assignments/%d/restore", made.ID), nil, nil).StatusCode)
	assert.Equal(t, 404, ask(t, srv, "GET", fmt.Sprintf("/api/assignments/%d", given.ID), nil, nil).StatusCode)
	assert.Equal(t, 404, ask(t, srv, "POST", fmt.Sprintf("/api/assignments/%d/restore", given.ID), nil, nil).StatusCode)
	assert.Equal(t, 404, ask(t, srv, "POST", "/api/assignments/999/restore", nil, nil).StatusCode)
}

// On another machine all of it is made anew, the exercise on the instrument that is
// there; the same file twice is one assignment.
func TestAnAssignmentElsewhere(t *testing.T) {
	here := serve(t)
	out := fetch(t, here.URL+fmt.Sprintf("/api/assignments/%d/file", everything(t, here).ID))
	s, err := store.Open(t.TempDir())
	require.NoError(t, err)
	srv := serveStore(t, s)
	bass := store.Player{Tuning: "E1,A1,D2,G2", Frets: 20, Scale: 864, Comfort: 110, Habit: "stay"}
	require.Equal(t, 200, ask(t, srv, "PUT", "/api/player", bass, nil).StatusCode)
	var given, again Lesson
	_, says := hand(t, srv, "/api/assignments/open", out, &given)
	require.Empty(t, says)
	assert.Empty(t, given.Said)
	var line Line
	require.Equal(t, 200, ask(t, srv, "GET", fmt.Sprintf("/api/lines/%d", given.Exercises[0].ID), nil, &line).StatusCode)
	assert.Equal(t, "E1,A1,D2,G2", line.Tuning)
	assert.NotEmpty(t, line.Notes)
	require.Equal(t, 200, ask(t, srv, "GET", fmt.Sprintf("/api/lines/%d", given.Lines[0].ID), nil, &line).StatusCode)
	assert.Equal(t, "E2,A2,D3,G3,B3,E4", line.Tuning, "a line knows its instrument")
	_, says = hand(t, srv, "/api/assignments/open", out, &again)
	require.Empty(t, says)
	assert.Equal(t, given.ID, again.ID)
	assert.Contains(t, again.Said[0], "has it already")
	var charts []ChartRow
	ask(t, srv, "GET", "/api/charts", nil, &charts)
	assert.Len(t, charts, 2)
}

// What is foreign is refused with the reason; of the rest the known part works, what is
// left out is said, and the file is kept as it came.
func TestForeignAndNewerFiles(t *testing.T) {
	srv := serve(t)
	made := everything(t, srv)
	out := string(fetch(t, srv.URL+fmt.Sprintf("/api/assignments/%d/file", made.ID)))
	turn(t, srv, "Bram")
	for file, why := range map[string]string{
		" ":                              "cannot be read as JSON",
		"MThd\x00\x00":                   "cannot be read as JSON",
		"[]":                             "cannot be read as JSON",
		"{}":                             "its kind is not",
		`{"kind": "something else"}`:     "its kind is not",
		`{"kind": "undaris assignment"}`: "which version",
		`{"kind": "undaris results"}`:    "a file of results, not of assignment",
		`{"kind": "undaris assignment", "version": 1}`:                                                                                             "is missing",
		`{"kind": "undaris assignment", "version": 1, "ref": "x", "title": "T", "from": "O", "made": "yesterday"}`:                                 "made",
		`{"kind": "undaris assignment", "version": 1, "ref": "x", "title": 5, "from": "O", "made": "2026-11-26T10:00:00Z"}`:                        "title",
		`{"kind": "undaris assignment", "version": 1, "ref": "x", "title": "T", "from": "O", "made": "2026-11-26T10:00:00Z", "charts": "none"}`:    "charts",
		`{"kind": "undaris assignment", "version": 1, "ref": "", "title": "T", "from": "O", "made": "2026-11-26T10:00:00Z", "unknown": {"a": []}}`: "ref",
	} {
		status, says := hand(t, srv, "/api/assignments/open", []byte(file), nil)
		assert.Equal(t, 422, status, file)
		assert.Contains(t, says, why, file)
	}
	var rows []LessonRow
	ask(t, srv, "GET", "/api/assignments", nil, &rows)
	assert.Empty(t, rows, "nothing was kept of them")

	var doc map[string]any
	require.NoError(t, json.Unmarshal([]byte(out), &doc))
	entry := func(list string, i int) map[string]any { return doc[list].([]any)[i].(map[string]any) }
	doc["version"], doc["song"], doc["ref"] = 3, map[string]any{"verse": 1}, "newer"
	entry("charts", 0)["dance"] = "slow"
	entry("charts", 1)["text"] = "| C7 | H13 |"
	entry("licks", 0)["notes"].([]any)[0].(map[string]any)["degree"] = "55555"
	entry("aims", 0)["kind"] = "sing"
	entry("aims", 1)["line"] = 9
	entry("exercises", 0)["task"].(map[string]any)["drill"] = "juggling"
	newer, err := json.Marshal(doc)
	require.NoError(t, err)
	var given Lesson
	_, says := hand(t, srv, "/api/assignments/open", newer, &given)
	require.Empty(t, says)
	said := strings.Join(given.Said, "\n")
	for _, want := range []string{"newer Undaris (version 3", "“song” is not known here", "“dance” of chart 1", "chart 2, “", "lick 1 is left out", "aim 1 is left out", "aim 2 is left out: it speaks of line 9", "exercise 1, “Thirds up and down”, is left out", "aim 3 is left out: exercise 1 is left out"} {
		assert.Contains(t, said, want)
	}
	assert.False(t, given.Charts[0].Gone)
	assert.True(t, given.Charts[1].Gone)
	assert.True(t, given.Licks[0].Gone)
	assert.False(t, given.Lines[0].Gone)
	assert.Equal(t, []string{"calls", "minutes"}, each(given.Aims, func(a LessonAim) string { return a.Kind }))
	var kept map[string]any
	require.NoError(t, json.Unmarshal(fetch(t, srv.URL+fmt.Sprintf("/api/assignments/%d/file", given.ID)), &kept))
	assert.Equal(t, "slow", kept["charts"].([]any)[0].(map[string]any)["dance"], "nothing is lost of it")

	// What a teacher says that cannot be is refused.
	for _, bad := range []LessonBody{{Title: " "}, {Title: "A", Charts: []uint{99}}, {Title: "A", Lines: []uint{99}}, {Title: "A", Licks: []uint{99}},
		{Title: "A", Aims: []AimBody{{Kind: "changes", Chart: 1}}}, {Title: "A", Charts: []uint{6}, Aims: []AimBody{{Kind: "changes", Chart: 1, Mode: "none"}}},
		{Title: "A", Aims: []AimBody{{Kind: "calls", Key: "H"}}}} {
		assert.GreaterOrEqual(t, ask(t, srv, "POST", "/api/assignments", bad, nil).StatusCode, 400, bad)
	}
}

// Whatever a file holds: it is refused in words, or what is known of it is usable.
func FuzzOpen(f *testing.F) {
	s, err := store.Open(f.TempDir())
	require.NoError(f, err)
	srv := serveStore(f, s)
	f.Add([]byte(`{"kind": "undaris assignment", "version": 1, "ref": "x", "title": "T", "from": "O", "made": "2026-11-26T10:00:00Z", "charts": [{"title": "A", "key": "C", "feel": "shuffle", "tempo": 90, "beats": 4, "text": "| C7 |"}, null], "aims": [{"kind": "changes", "chart": 1}]}`))
	f.Add([]byte(`{"kind": "undaris results", "version": 2, "ref": [], "aims": {}}`))
	f.Fuzz(func(t *testing.T, file []byte) {
		for _, path := range []string{"open", "results"} {
			resp, err := http.Post(srv.URL+"/api/assignments/"+path, "application/octet-stream", bytes.NewReader(file))
			require.NoError(t, err)
			resp.Body.Close()
			require.Contains(t, []int{201, 400, 413, 422}, resp.StatusCode)
		}
		require.Equal(t, 200, ask(t, srv, "GET", "/api/assignments", nil, nil).StatusCode)
	})
}
