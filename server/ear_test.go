package server

import (
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/gorilla/websocket"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/ear"
	"undaris/core/judge"
	"undaris/core/score"
)

func dial(t testing.TB, srv *httptest.Server, header http.Header) (*websocket.Conn, *http.Response) {
	c, resp, err := websocket.DefaultDialer.Dial(strings.Replace(srv.URL, "http", "ws", 1)+"/api/ear", header)
	if err != nil {
		return nil, resp
	}
	t.Cleanup(func() { _ = c.Close() })
	return c, resp
}

func wireObservations(all []ear.Observation) []Observation {
	return each(all, func(o ear.Observation) Observation {
		w := Observation{Seq: o.Seq, Kind: o.Kind, Of: o.Of, Tick: o.Tick, MIDI: o.MIDI, Clarity: o.Clarity, Level: o.Level, Fresh: o.Fresh}
		for _, c := range o.Candidates {
			w.Candidates = append(w.Candidates, [2]float64{float64(c.MIDI), c.Strength})
		}
		return w
	})
}

// A simulated player is heard over the socket, judged as it goes, and judged at the
// end as it would be from what it played.
func TestATakeIsListenedTo(t *testing.T) {
	srv := serve(t)
	body := everyOne[Line](t, srv, "/api/lines")[0].LineBody
	line, err := json.Marshal(body)
	require.NoError(t, err)
	var played []HeardNote
	ask(t, srv, "POST", "/api/lines/simulate", map[string]any{"line": body, "wrong": 0.2, "late": 0.2, "seed": 5}, &played)
	var want Take
	ask(t, srv, "POST", "/api/lines/judge", map[string]any{"line": body, "heard": played}, &want)

	heard := each(played, func(h HeardNote) judge.Heard { return judge.Heard(h) })
	all := wireObservations(ear.Noticed(heard, nil))

	c, _ := dial(t, srv, nil)
	require.NotNil(t, c)
	require.NoError(t, c.WriteJSON(said{Line: line}))
	var out told
	require.NoError(t, c.ReadJSON(&out))
	require.Empty(t, out.Error)
	seen := map[int]string{}
	var notes []HeardNote
	take := func(out told) {
		notes = append(notes[:out.From], out.Heard...)
		for _, v := range out.Verdicts {
			seen[v.Note] = v.Is
		}
	}
	for i := 0; i < len(all); i += 5 {
		batch := all[i:min(i+5, len(all))]
		require.NoError(t, c.WriteJSON(said{Observations: batch, Now: batch[len(batch)-1].Tick}))
		out = told{}
		require.NoError(t, c.ReadJSON(&out))
		require.Empty(t, out.Error)
		take(out)
	}
	require.NoError(t, c.WriteJSON(said{End: true, Now: 12 * 4 * score.Tick}))
	out = told{}
	require.NoError(t, c.ReadJSON(&out))
	take(out)
	require.NotNil(t, out.Take)
	assert.Equal(t, each(want.Verdicts, is), each(out.Take.Verdicts, is))
	assert.Len(t, notes, len(played))
	for _, v := range out.Take.Verdicts {
		assert.Equal(t, v.Is, seen[v.Note], "note %d was judged while it was played", v.Note)
	}
}

func is(v Verdict) string { return v.Is }

// What is no observation is refused in words, and the program goes on.
func TestTheEarRefuses(t *testing.T) {
	srv := serve(t)
	for name, c := range map[string]struct{ send, says string }{
		"no JSON":          {`{"observations": [`, "not what an ear notices"},
		"another kind":     {`{"observations": 7}`, "not what an ear notices"},
		"a line of no key": {`{"line": {"title":"x","key":"H#","feel":"shuffle","tempo":96,"beats":4,"text":"| C7 |","low":5,"high":9,"notes":[]}}`, "H#"},
		"a line too high":  {`{"line": {"title":"x","key":"C","feel":"shuffle","tempo":96,"beats":4,"text":"| C7 |","low":5,"high":9,"notes":[{"start":0,"length":480,"note":"","fret":99}]}}`, "27 at most"},
		"a wild tempo":     {`{"tempo": 100000, "line": {"title":"x","key":"C","feel":"shuffle","tempo":96,"beats":4,"text":"| C7 |","low":5,"high":9,"notes":[]}}`, "30 to 300"},
	} {
		t.Run(name, func(t *testing.T) {
			conn, _ := dial(t, srv, nil)
			require.NoError(t, conn.WriteMessage(websocket.TextMessage, []byte(c.send)))
			var out told
			require.NoError(t, conn.ReadJSON(&out))
			assert.Contains(t, out.Error, c.says)
		})
	}
	_, resp := dial(t, srv, http.Header{"Origin": {"http://elsewhere.example"}})
	assert.Equal(t, http.StatusForbidden, resp.StatusCode, "another site may not listen")
	conn, _ := dial(t, srv, nil)
	require.NoError(t, conn.WriteJSON(said{Observations: []Observation{{Seq: 1, Kind: "nonsense", Tick: 1e300}, {Seq: 2, Kind: ear.Attack}, {Seq: 3, Kind: ear.Settled, Of: 2, MIDI: 60}}}))
	var out told
	require.NoError(t, conn.ReadJSON(&out))
	assert.Len(t, out.Heard, 1, "without a line, what is heard is told")
}
