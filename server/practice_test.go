package server

import (
	"bytes"
	"encoding/json"
	"fmt"
	"net/http"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/ear"
	"undaris/core/judge"
	"undaris/core/practice"
	"undaris/store"
)

// Every mode over every demo chart: a simulated player is judged alike whether it is
// told at once or heard, and what it played is kept, read, turned into a line, and
// taken away.
func TestEveryModeIsPractised(t *testing.T) {
	srv := serve(t)
	var notes []store.LickNote
	ask(t, srv, "POST", "/api/licks/read", map[string]string{"text": "5/e b7/e 9/e 3/h"}, &notes)
	require.Equal(t, 201, ask(t, srv, "POST", "/api/licks", LickBody{Title: "Down to the third", Chord: "7", Notes: notes, Tags: []string{}}, nil).StatusCode)
	for _, m := range practice.Modes {
		over := bluesIn("A")
		var ground PracticeGround
		require.Equal(t, 200, ask(t, srv, "POST", "/api/practice/over", map[string]any{"over": over, "mode": m.ID, "with": 1}, &ground).StatusCode)
		assert.Equal(t, m.Writes(), len(ground.Line.Notes) > 0)
		assert.Equal(t, m.Writes() && !m.ByEar, ground.Shown != nil)
		assert.Equal(t, m.ByEar, ground.Lead != nil)
		if m.Writes() {
			over = ground.Line // what is to be played is sent along
		}
		switch m.ID {
		case "root-first":
			require.Len(t, ground.Bars, 16)
			assert.Equal(t, "A7", ground.Bars[15][0].Chord)
			assert.True(t, ground.Band)
		case "fours":
			require.Len(t, ground.Bars, 24)
			assert.Equal(t, ground.Bars[:4][1][0].Chord, ground.Bars[4:8][1][0].Chord)
			assert.True(t, ground.Band)
		case "tune": // its own chords, each four bars twice
			require.Len(t, ground.Bars, 24)
			assert.Equal(t, "Bm7", ground.Bars[1][0].Chord)
			assert.True(t, ground.Band)
		case "twelve-keys":
			assert.Equal(t, []string{"A7", "D7", "G7"}, []string{ground.Bars[0][0].Chord, ground.Bars[1][0].Chord, ground.Bars[2][0].Chord})
			assert.True(t, ground.Band)
		case "imagined":
			assert.Equal(t, []string{"C#m7", "F#7", "Bm7", "E7"}, each(append(ground.Bars[10], ground.Bars[11]...), func(c PracticeChange) string { return c.Chord }))
			assert.False(t, ground.Band, "it is in the player's mind alone")
		default:
			require.Len(t, ground.Bars, 12)
			assert.Equal(t, "D7", ground.Bars[1][0].Chord)
			assert.False(t, ground.Band, m.ID)
		}
		var heard []HeardNote
		require.Equal(t, 200, ask(t, srv, "POST", "/api/practice/simulate", map[string]any{"over": over, "seed": 3, "wrong": 0.1}, &heard).StatusCode)
		require.NotEmpty(t, heard)
		var want FreeTake
		require.Equal(t, 200, ask(t, srv, "POST", "/api/practice/judge", map[string]any{"over": over, "mode": m.ID, "pass": 1, "heard": heard}, &want).StatusCode)
		assert.Equal(t, m.Stage(1).Says, want.Asked)

		c, _ := dial(t, srv, nil)
		text, err := json.Marshal(over)
		require.NoError(t, err)
		all := wireObservations(ear.Noticed(each(heard, func(h HeardNote) judge.Heard { return judge.Heard(h) }), nil))
		require.NoError(t, c.WriteJSON(said{Line: text, Mode: m.ID, Pass: 1}))
		var out told
		require.NoError(t, c.ReadJSON(&out))
		require.NoError(t, c.WriteJSON(said{Observations: all, Now: 1e6}))
		out = told{}
		require.NoError(t, c.ReadJSON(&out))
		assert.Len(t, out.Landings, len(want.Landings), "every change is told once it is over")
		require.NoError(t, c.WriteJSON(said{End: true, Now: 1e6}))
		out = told{}
		require.NoError(t, c.ReadJSON(&out))
		require.NotNil(t, out.Free)
		assert.Equal(t, want.Good, out.Free.Good, m.ID)

		body := TakeBody{Title: m.Name, Mode: m.ID, Stage: 1, Tempo: 96, Changes: len(want.Landings), Landed: want.Landed, Good: want.Good, Try: want.Try, Line: want.Line, Heard: heard}
		var kept KeptTake
		require.Equal(t, 201, ask(t, srv, "POST", "/api/takes", body, &kept).StatusCode)
		var read KeptTake
		ask(t, srv, "GET", fmt.Sprintf("/api/takes/%d", kept.ID), nil, &read)
		assert.Equal(t, heard, read.Heard)
		assert.Len(t, read.Line.Notes, len(want.Line.Notes))
		assert.Equal(t, 201, ask(t, srv, "POST", "/api/lines", read.Line, nil).StatusCode, "a take becomes a line")
	}
	assert.Len(t, everyOne[TakeRow](t, srv, "/api/takes"), len(practice.Modes))
	wav := append([]byte("RIFF....WAVEfmt "), make([]byte, 3<<20)...)
	put := func(path string, body []byte) int {
		req, err := http.NewRequest("PUT", srv.URL+path, bytes.NewReader(body))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "audio/wav")
		resp, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		resp.Body.Close()
		return resp.StatusCode
	}
	assert.Equal(t, 204, put("/api/takes/1/sound", wav))
	assert.Equal(t, wav, fetch(t, srv.URL+"/api/takes/1/sound"))
	assert.Equal(t, 422, put("/api/takes/1/sound", []byte("no sound")))
	assert.Equal(t, 413, put("/api/takes/1/sound", make([]byte, 9<<20)))
	assert.Equal(t, 404, put("/api/takes/9999/sound", wav))
	assert.Equal(t, 404, ask(t, srv, "GET", "/api/takes/2/sound", nil, nil).StatusCode)
	var rows []TakeRow
	ask(t, srv, "GET", "/api/takes", nil, &rows)
	for _, row := range rows {
		assert.Equal(t, row.ID == 1, row.Sound)
	}
	assert.Equal(t, 204, ask(t, srv, "DELETE", "/api/takes/1", nil, nil).StatusCode)
	assert.Len(t, everyOne[TakeRow](t, srv, "/api/takes"), len(practice.Modes)-1)
	assert.Equal(t, 422, ask(t, srv, "POST", "/api/practice/judge", map[string]any{"over": bluesIn("A"), "mode": "none", "heard": []HeardNote{}}, nil).StatusCode)
	assert.Equal(t, 422, ask(t, srv, "POST", "/api/takes", map[string]any{"title": " ", "tempo": 96, "changes": 1, "landed": 1, "good": "", "try": "", "line": bluesIn("A"), "heard": []HeardNote{}}, nil).StatusCode)
}

// A simulated player aims at what is asked for, plays otherwise with another seed, and the less it errs the more it lands.
func TestASimulatedPlayerAimsAndImproves(t *testing.T) {
	srv := serve(t)
	var c ChartBody
	ask(t, srv, "GET", "/api/charts/6", nil, &c)
	over := map[string]any{"title": c.Title, "key": c.Key, "feel": c.Feel, "tempo": c.Tempo, "beats": 4, "text": c.Text, "low": 7, "high": 11, "notes": []any{}}
	play := func(mode string, wrong float64, seed int) (heard []HeardNote, landed float64) {
		body := map[string]any{"over": over, "tempo": 96, "mode": mode, "wrong": wrong, "seed": seed}
		require.Equal(t, 200, ask(t, srv, "POST", "/api/practice/simulate", body, &heard).StatusCode)
		var free FreeTake
		require.Equal(t, 200, ask(t, srv, "POST", "/api/practice/judge", map[string]any{"over": over, "mode": mode, "heard": heard, "tempo": 96}, &free).StatusCode)
		return heard, float64(free.Landed) / float64(len(free.Landings))
	}
	for _, mode := range []string{"roots", "thirds", "fifths", "sevenths", "land"} {
		mean := map[float64]float64{}
		for seed := range 8 {
			for _, wrong := range []float64{0, 0.25, 0.6} {
				_, landed := play(mode, wrong, seed+1)
				mean[wrong] += landed / 8
			}
		}
		assert.Greater(t, mean[0], 0.95, "%s: who does not err lands", mode)
		assert.Greater(t, mean[0], mean[0.25], mode)
		assert.Greater(t, mean[0.25], mean[0.6], mode)
	}
	one, _ := play("thirds", 0.1, 1)
	again, _ := play("thirds", 0.1, 1)
	other, _ := play("thirds", 0.1, 2)
	assert.Equal(t, one, again)
	assert.NotEqual(t, one, other)
	var no refusal
	assert.Equal(t, 422, ask(t, srv, "POST", "/api/practice/simulate", map[string]any{"over": over, "mode": "riddle"}, &no).StatusCode)
}

// A take that is kept afterwards is behind its line, whether that was read before or not.
func TestAKeptTakeIsBehindItsLine(t *testing.T) {
	srv := serve(t)
	whole := longLine(40)
	for _, before := range []bool{false, true} {
		var row LogRow
		require.Equal(t, 201, ask(t, srv, "POST", "/api/log/takes", TakeLog{Chart: 6, Title: "Kept", Line: whole, Tempo: 96, Heard: []HeardNote{}}, &row).StatusCode)
		var page LogPage
		if before {
			ask(t, srv, "GET", "/api/log", nil, &page)
		}
		require.Equal(t, 204, ask(t, srv, "PUT", fmt.Sprintf("/api/log/%d/take", row.ID), map[string]uint{"take": 7}, nil).StatusCode)
		ask(t, srv, "GET", "/api/log?limit=1", nil, &page)
		assert.Equal(t, uint(7), page.Rows[0].Take)
	}
}

// What is practised is logged, drawn as maps, planned from, and handed out; a line of the
// log that cannot be read costs itself alone.
func TestTheLogAndThePlan(t *testing.T) {
	srv := serve(t)
	var today Today
	require.Equal(t, 200, ask(t, srv, "GET", "/api/today?minutes=20", nil, &today).StatusCode)
	assert.Zero(t, today.Known)
	require.NotEmpty(t, today.Items)

	for i := range 12 {
		how := []string{"right", "late", "passed"}[i%3]
		call := CallLog{Chart: 6, Kind: "tones", Key: "C", Chord: "F7", Degree: "3", Window: store.Frets{Low: 7, High: 11}, Says: "upward, from the 3", How: how, Took: 1500}
		var row LogRow
		require.Equal(t, 201, ask(t, srv, "POST", "/api/log/calls", call, &row).StatusCode)
	}
	over := bluesIn("C")
	over.Low, over.High = 7, 11
	var heard []HeardNote
	ask(t, srv, "POST", "/api/practice/simulate", map[string]any{"over": over, "seed": 3, "wrong": 0.1}, &heard)
	require.Equal(t, 201, ask(t, srv, "POST", "/api/log/takes", TakeLog{Chart: 6, Title: "A chorus", Mode: "thirds", Line: over, Tempo: 96, Heard: heard}, nil).StatusCode)
	whole := longLine(40)
	require.Equal(t, 201, ask(t, srv, "POST", "/api/log/takes", TakeLog{Title: "A line", Line: whole, Tempo: 96, Heard: []HeardNote{}}, nil).StatusCode)
	for _, tempo := range []int{80, 85, 90} {
		require.Equal(t, 201, ask(t, srv, "POST", "/api/log/rungs", RungLog{Title: "A line", Tempo: tempo}, nil).StatusCode)
	}

	var page LogPage
	ask(t, srv, "GET", "/api/log?limit=5", nil, &page)
	assert.Equal(t, 17, page.Total)
	assert.Len(t, page.Rows, 5)
	assert.Equal(t, "rung", page.Rows[0].Kind, "the newest first")
	ask(t, srv, "GET", "/api/log?chart=6", nil, &page)
	assert.Equal(t, 13, page.Total)

	var maps LogMaps
	require.Equal(t, 200, ask(t, srv, "GET", "/api/log/maps", nil, &maps).StatusCode)
	require.Len(t, maps.Cells, 60)
	asked := 0
	for _, c := range maps.Cells {
		if asked += c.Trials; c.Trials > 0 {
			assert.Equal(t, "C", c.Key)
		}
	}
	assert.Equal(t, maps.Trials, asked)
	require.NotEmpty(t, maps.Changes)
	assert.LessOrEqual(t, maps.Changes[0].Success, 0.5)
	require.Len(t, maps.Ladders, 1)
	assert.Len(t, maps.Ladders[0].Rungs, 3)
	var one LogMaps
	ask(t, srv, "GET", "/api/log/maps?chart=99", nil, &one)
	assert.Zero(t, one.Trials)
	ask(t, srv, "GET", "/api/log?id="+fmt.Sprint(maps.Changes[0].Behind[0].ID), nil, &page)
	assert.Len(t, page.Rows, 1)

	require.Equal(t, 200, ask(t, srv, "GET", "/api/today?minutes=30&chart=6&by=2026-11-27", nil, &today).StatusCode)
	assert.Equal(t, maps.Trials, today.Known)
	require.Len(t, today.Ready, 1)
	r := today.Ready[0]
	assert.Equal(t, "Slipway Shuffle", r.Title)
	assert.Equal(t, 5, r.Safe+len(r.Weak)+len(r.Untried), "C7–F7, F7–C7, C7–G7, G7–F7, G7–C7")
	minutes, calls := 0, 0
	for _, i := range today.Items {
		minutes += i.Minutes
		if i.Kind == "calls" {
			calls++
			assert.NotNil(t, i.Window)
		}
	}
	assert.Equal(t, 30, minutes)
	assert.Positive(t, calls)
	assert.Contains(t, today.Evening, "has passed")
	by := time.Now().AddDate(0, 0, 3).Format(time.DateOnly)
	today = Today{}
	require.Equal(t, 200, ask(t, srv, "GET", "/api/today?minutes=30&chart=6&by="+by, nil, &today).StatusCode)
	own := 0
	for _, i := range today.Items {
		if i.Chart == 6 {
			own += i.Minutes
		}
		if i.Change != "" {
			assert.Regexp(t, `^\S+7,\S+7$`, i.Change)
		}
	}
	assert.GreaterOrEqual(t, own, 24, "four fifths")
	assert.Contains(t, today.Evening, fmt.Sprintf("%d of 30 minutes are for the evening in 3 days", own))
	assert.Len(t, append(today.Ready[0].Bars, today.Ready[0].Open...), 9, "as often as the chord changes, and back to the top")
	assert.Equal(t, 422, ask(t, srv, "GET", "/api/today?by=friday", nil, nil).StatusCode)

	assert.Contains(t, string(fetch(t, srv.URL+"/api/log/files/csv")), "thirds")
	var out struct {
		Version int
		Log     []store.Entry
	}
	require.NoError(t, json.Unmarshal(fetch(t, srv.URL+"/api/log/files/json"), &out))
	assert.Len(t, out.Log, 17)
	for _, bad := range []CallLog{{Key: "H#", Chord: "C7"}, {Key: "C", Chord: "nonsense"}} {
		bad.How = "right"
		assert.Equal(t, 422, ask(t, srv, "POST", "/api/log/calls", bad, nil).StatusCode)
	}
}

// Two players of one installation: each has an instrument and a log of their own, and
// no two have one name.
func TestPlayersHaveALogOfTheirOwn(t *testing.T) {
	srv := serve(t)
	var people []store.Person
	ask(t, srv, "GET", "/api/players", nil, &people)
	assert.Equal(t, []store.Person{{ID: 1, Name: "Player", Here: true}}, people)
	call := CallLog{Chart: 6, Kind: "tones", Key: "C", Chord: "F7", Degree: "3", Window: store.Frets{Low: 7, High: 11}, Says: "upward", How: "right"}
	require.Equal(t, 201, ask(t, srv, "POST", "/api/log/calls", call, nil).StatusCode)
	require.Equal(t, 204, ask(t, srv, "PUT", "/api/players/1", map[string]string{"name": "Oda"}, nil).StatusCode)
	var second store.Person
	require.Equal(t, 201, ask(t, srv, "POST", "/api/players", map[string]string{"name": " Bram "}, &second).StatusCode)
	assert.Equal(t, store.Person{ID: 2, Name: "Bram", Here: true}, second)
	total := func() int {
		var page LogPage
		ask(t, srv, "GET", "/api/log", nil, &page)
		return page.Total
	}
	assert.Zero(t, total(), "a new player begins anew")
	for range 2 {
		ask(t, srv, "POST", "/api/log/calls", call, nil)
	}
	assert.Equal(t, 2, total())
	require.Equal(t, 204, ask(t, srv, "PUT", "/api/players/1/here", nil, nil).StatusCode)
	assert.Equal(t, 1, total())
	ask(t, srv, "GET", "/api/players", nil, &people)
	assert.Equal(t, []store.Person{{ID: 1, Name: "Oda", Here: true}, {ID: 2, Name: "Bram"}}, people)
	for _, name := range []string{"bram", " ", ""} {
		assert.Equal(t, 422, ask(t, srv, "POST", "/api/players", map[string]string{"name": name}, nil).StatusCode)
		assert.Equal(t, 422, ask(t, srv, "PUT", "/api/players/1", map[string]string{"name": name}, nil).StatusCode)
	}
	assert.Equal(t, 404, ask(t, srv, "PUT", "/api/players/9/here", nil, nil).StatusCode)
	assert.Equal(t, 404, ask(t, srv, "DELETE", "/api/players/9", nil, nil).StatusCode)

	// One leaves: whoever is left plays on, the name is free, and both can come back.
	require.Equal(t, 204, ask(t, srv, "DELETE", "/api/players/1", nil, nil).StatusCode)
	assert.Equal(t, 2, total(), "it is Bram's turn")
	ask(t, srv, "GET", "/api/players", nil, &people)
	assert.Equal(t, []store.Person{{ID: 2, Name: "Bram", Here: true}}, people)
	assert.Equal(t, 404, ask(t, srv, "PUT", "/api/players/1/here", nil, nil).StatusCode)
	assert.Equal(t, 409, ask(t, srv, "DELETE", "/api/players/2", nil, nil).StatusCode, "somebody has to play")
	require.Equal(t, 204, ask(t, srv, "POST", "/api/players/1/restore", nil, nil).StatusCode)
	require.Equal(t, 204, ask(t, srv, "PUT", "/api/players/1/here", nil, nil).StatusCode)
	assert.Equal(t, 1, total(), "with the log as it was")
	require.Equal(t, 204, ask(t, srv, "DELETE", "/api/players/1", nil, nil).StatusCode)
	require.Equal(t, 204, ask(t, srv, "PUT", "/api/players/2", map[string]string{"name": "Oda"}, nil).StatusCode)
	assert.Equal(t, 409, ask(t, srv, "POST", "/api/players/1/restore", nil, nil).StatusCode, "two of one name")
	require.Equal(t, 204, ask(t, srv, "PUT", "/api/players/2", map[string]string{"name": "Bram"}, nil).StatusCode)
	require.Equal(t, 204, ask(t, srv, "POST", "/api/players/1/restore", nil, nil).StatusCode)
	assert.Equal(t, 404, ask(t, srv, "PUT", "/api/players/9", map[string]string{"name": "Nobody"}, nil).StatusCode)
}
