package server

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/demo"
	"undaris/store"
)

var front = fstest.MapFS{
	"index.html":      {Data: []byte("<!doctype html><title>Undaris</title>")},
	"assets/a-123.js": {Data: []byte("1")},
}

func serve(t testing.TB) *httptest.Server {
	s, err := store.Open(t.TempDir())
	require.NoError(t, err)
	require.NoError(t, demo.Fill(s))
	return serveStore(t, s)
}

// serveStore serves whatever is in a store.
func serveStore(t testing.TB, s *store.Store) *httptest.Server {
	srv := httptest.NewServer(New(s, front, slog.New(slog.DiscardHandler)))
	t.Cleanup(func() { srv.Close(); s.Close() })
	return srv
}

// ask sends a request and decodes the answer.
func ask(t testing.TB, srv *httptest.Server, method, path string, body, into any) *http.Response {
	t.Helper()
	var send io.Reader
	if body != nil {
		data, err := json.Marshal(body)
		require.NoError(t, err)
		send = bytes.NewReader(data)
	}
	req, err := http.NewRequest(method, srv.URL+path, send)
	require.NoError(t, err)
	if body != nil {
		req.Header.Set("Content-Type", "application/json")
	}
	if method == "PUT" || method == "DELETE" { // of whatever is there; versions have tests of their own
		req.Header.Set("If-Match", "*")
	}
	resp, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer resp.Body.Close()
	data, err := io.ReadAll(resp.Body)
	require.NoError(t, err)
	if into != nil {
		require.NoError(t, json.Unmarshal(data, into), string(data))
	}
	return resp
}

// everyOne reads every thing of a list.
func everyOne[T any](t testing.TB, srv *httptest.Server, path string) (all []T) {
	var rows []struct{ ID uint }
	ask(t, srv, "GET", path, nil, &rows)
	for _, row := range rows {
		var one T
		require.Equal(t, 200, ask(t, srv, "GET", fmt.Sprintf("%s/%d", path, row.ID), nil, &one).StatusCode)
		all = append(all, one)
	}
	return all
}

// refusal is a problem document.
type refusal struct {
	Status int
	Detail string
	Errors []struct{ Location, Message string }
}

func TestQuestions(t *testing.T) {
	srv := serve(t)
	var chord Chord
	ask(t, srv, "GET", "/api/chords?symbol=Db7", nil, &chord)
	assert.Equal(t, "Db", chord.Root)
	assert.Equal(t, Tone{"b7", "Cb", "B", 10}, chord.Tones[3])

	var positions []Position
	ask(t, srv, "GET", "/api/positions?key=C", nil, &positions)
	assert.Equal(t, Position{Number: 1, Shape: "C", Low: 0, High: 4}, positions[0])
	assert.Len(t, positions, 8)

	var run Run
	ask(t, srv, "GET", "/api/runs?chord=G7&low=0&high=4", nil, &run)
	assert.Len(t, run.Notes, 10)
	assert.Len(t, run.Alternatives, 1)
	ask(t, srv, "GET", "/api/runs?chord=G7&low=0&high=4&tuning=E1,A1,D2,G2&frets=20&scale=864&habit=shift", nil, &run)
	assert.Equal(t, 4, run.Notes[0].String)
	assert.Equal(t, "b7", run.Notes[0].Degree)

	var document struct {
		OpenAPI string
		Paths   map[string]any
	}
	ask(t, srv, "GET", "/api/openapi.json", nil, &document)
	assert.Equal(t, "3.1.0", document.OpenAPI)
	assert.Contains(t, document.Paths, "/api/runs")
}

func TestBadQuestionsAreRefusedAtTheField(t *testing.T) {
	srv := serve(t)
	window := "&low=7&high=11"
	for path, want := range map[string]struct{ location, says string }{
		"/api/chords?symbol=Cmja7":                             {"query.symbol", "did you mean Cmaj7?"},
		"/api/chords?symbol=":                                  {"query.symbol", "missing"},
		"/api/positions?key=H":                                 {"query.key", "is no key"},
		"/api/runs?chord=X" + window:                           {"query.chord", "cannot read"},
		"/api/runs?chord=C7&low=-3&high=3":                     {"query.low", "the nearest is frets 0 to 6"},
		"/api/runs?chord=C7&low=20&high=24":                    {"query.high", "the nearest is frets 18 to 22"},
		"/api/runs?chord=C7&low=9&high=8":                      {"query.high", "the nearest is frets 8 to 9"},
		"/api/runs?chord=C7&strings=5,9" + window:              {"query.strings", `"9" is no string`},
		"/api/runs?chord=C7&strings=5,8" + window:              {"query.strings", "the nearest is frets 7 to 11 on string 5"},
		"/api/runs?chord=C7&low=7":                             {"query.high", "required"},
		"/api/runs?chord=C7&low=x&high=9":                      {"query.low", "invalid integer"},
		"/api/runs?chord=C7&tuning=E2,A2,D3,G3,H3,E4" + window: {"query.tuning", `"H3" is not a pitch`},
		"/api/runs?chord=C7&frets=99" + window:                 {"query.frets", "between 12 and 27"},
		"/api/runs?chord=C7&capo=15" + window:                  {"query.capo", "capo at fret 15"},
		"/api/runs?chord=C7&habit=fly" + window:                {"query.habit", "stay or shift"},
		"/api/runs?chord=C7&comfort=5" + window:                {"query.comfort", "between 50 and 250"},
	} {
		var r refusal
		resp := ask(t, srv, "GET", path, nil, &r)
		assert.Equal(t, 422, resp.StatusCode, path)
		assert.Equal(t, "application/problem+json", resp.Header.Get("Content-Type"), path)
		require.NotEmpty(t, r.Errors, path)
		assert.Equal(t, want.location, r.Errors[0].Location, path)
		assert.Contains(t, r.Errors[0].Message, want.says, path)
	}
}

var good = ChartBody{Title: "Gangway", Key: "A♭", Feel: "shuffle", Tempo: 100, Beats: 4, Text: "| I7 | IV7 | % | N.C. |"}

func TestChartsLiveThroughTheAPI(t *testing.T) {
	srv := serve(t)
	var c Chart
	assert.Equal(t, 201, ask(t, srv, "POST", "/api/charts", good, &c).StatusCode)
	assert.Equal(t, "| Ab7 | Db7 | Db7 | N.C. |", c.Text, "numerals become chords of the key")
	path := fmt.Sprintf("/api/charts/%d", c.ID)

	changed := c.ChartBody
	changed.Title = "Gangplank"
	ask(t, srv, "PUT", path, changed, &c)
	assert.Equal(t, "Gangplank", c.Title)
	ask(t, srv, "PUT", path+"/plan", store.Plan{Picks: []store.Pick{{Frets: store.Frets{Low: 0, High: 4}, Spot: store.Spot{String: 3, Fret: 4}}}}, &c)
	ask(t, srv, "PUT", path, changed, &c)
	assert.Equal(t, []store.Pick{{Frets: store.Frets{Low: 0, High: 4}, Spot: store.Spot{String: 3, Fret: 4}}}, c.Plan.Picks, "a change of the chart keeps its plan")

	assert.Equal(t, 204, ask(t, srv, "DELETE", path, nil, nil).StatusCode)
	assert.Equal(t, 404, ask(t, srv, "GET", path, nil, nil).StatusCode)
	assert.Equal(t, 404, ask(t, srv, "GET", path+"/map", nil, nil).StatusCode)
	ask(t, srv, "POST", path+"/restore", nil, &c)
	assert.Equal(t, "Gangplank", c.Title)
	assert.Equal(t, 204, ask(t, srv, "POST", path+"/opened", nil, nil).StatusCode)
	var all []Chart
	ask(t, srv, "GET", "/api/charts", nil, &all)
	assert.Equal(t, c.ID, all[0].ID, "the one opened last comes first")
}

func TestBadChartsAreRefusedAndNothingIsSaved(t *testing.T) {
	srv := serve(t)
	with := func(change func(*ChartBody)) ChartBody { b := good; change(&b); return b }
	for location, body := range map[string]ChartBody{
		"body.title": with(func(b *ChartBody) { b.Title = "  " }),
		"body.key":   with(func(b *ChartBody) { b.Key = "H" }),
		"body.feel":  with(func(b *ChartBody) { b.Feel = "polka" }),
		"body.tempo": with(func(b *ChartBody) { b.Tempo = 900 }),
		"body.text":  with(func(b *ChartBody) { b.Text = "| C7 | | C7 |" }),
	} {
		for _, at := range []struct{ method, path string }{{"POST", "/api/charts"}, {"PUT", "/api/charts/1"}} {
			var r refusal
			assert.Equal(t, 422, ask(t, srv, at.method, at.path, body, &r).StatusCode, location)
			require.NotEmpty(t, r.Errors)
			assert.Equal(t, location, r.Errors[0].Location)
		}
	}
	for _, text := range []string{"", "| Cmja7 |", strings.Repeat("| C7 ", 513), "| C D E F G |"} {
		assert.Equal(t, 422, ask(t, srv, "POST", "/api/charts", with(func(b *ChartBody) { b.Text = text }), nil).StatusCode, text)
	}
	assert.Equal(t, 422, ask(t, srv, "PUT", "/api/charts/1/plan", map[string]any{"picks": []string{"nonsense"}}, nil).StatusCode)
	var all []Chart
	ask(t, srv, "GET", "/api/charts", nil, &all)
	assert.Len(t, all, 6)
	var first Chart
	ask(t, srv, "GET", "/api/charts/1", nil, &first)
	assert.Equal(t, "The Long Pier", first.Title)
}

func TestReadingsFollowWhatIsTyped(t *testing.T) {
	srv := serve(t)
	var r Reading
	ask(t, srv, "POST", "/api/readings", ReadingRequest{Text: "| C7 | Fx |", Key: "C"}, &r)
	require.Len(t, r.Problems, 1)
	assert.Equal(t, 7, r.Problems[0].Offset)
	ask(t, srv, "POST", "/api/readings", ReadingRequest{Form: "quick-change", Turnaround: "three-six-two-five", Key: "Ab", From: "Ab"}, &r)
	assert.Equal(t, "| Eb7 | Db7 | Cm7 F7 | Bbm7 Eb7 |", r.Text[strings.LastIndex(r.Text, "\n")+1:])
	ask(t, srv, "POST", "/api/readings", ReadingRequest{Text: r.Text, Key: "C", From: "Ab"}, &r)
	assert.Contains(t, r.Text, "| Em7 A7 | Dm7 G7 |")
	for _, bad := range []ReadingRequest{{Key: "H", Text: "| C |"}, {Key: "C", Form: "none"}, {Key: "C", Text: "| C |", Turnaround: "none"}} {
		assert.Equal(t, 422, ask(t, srv, "POST", "/api/readings", bad, nil).StatusCode)
	}
	var c Catalogue
	ask(t, srv, "GET", "/api/catalogue", nil, &c)
	assert.GreaterOrEqual(t, len(c.Forms), 13)
}

func TestMapHoldsAllBarsAndPositions(t *testing.T) {
	srv := serve(t)
	var m Map
	ask(t, srv, "GET", "/api/charts/6/map?low=5&high=8", nil, &m)
	require.Len(t, m.Bars, 12)
	assert.Equal(t, "IV7", m.Bars[1].Changes[0].Numeral)
	assert.Len(t, m.Chords, 3)
	require.Len(t, m.Positions, 9)
	assert.Equal(t, Position{Low: 5, High: 8}, m.Positions[8])
	require.Len(t, m.ByPosition, 9)
	assert.Equal(t, "b7", m.ByPosition[2].Runs[0].Notes[0].Degree, "C7 in 4-8 begins on its flat seventh")
	assert.Equal(t, 422, ask(t, srv, "GET", "/api/charts/6/map?low=20&high=30", nil, nil).StatusCode)
	assert.Equal(t, 422, ask(t, srv, "GET", "/api/charts/6/map?low=3", nil, nil).StatusCode)
}

func TestPlayerChangesTheNeck(t *testing.T) {
	srv := serve(t)
	p := store.DefaultPlayer
	p.Tuning, p.Frets, p.Scale, p.Left = "E1,A1,D2,G2", 20, 864, true
	ask(t, srv, "PUT", "/api/player", p, nil)
	var m Map
	ask(t, srv, "GET", "/api/charts/6/map", nil, &m)
	assert.Equal(t, []string{"G", "D", "A", "E"}, m.Instrument.Open)
	assert.True(t, m.Instrument.Left)
	p.Tuning = "E1,A1,D2,A2,A2"
	var r refusal
	assert.Equal(t, 422, ask(t, srv, "PUT", "/api/player", p, &r).StatusCode)
	assert.Equal(t, "body.tuning", r.Errors[0].Location)
}

func TestForeignRequestsAreRefused(t *testing.T) {
	srv := serve(t)
	try := func(change func(*http.Request)) int {
		req, _ := http.NewRequest("GET", srv.URL+"/api/charts", nil)
		change(req)
		resp, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		resp.Body.Close()
		return resp.StatusCode
	}
	assert.Equal(t, 200, try(func(*http.Request) {}))
	assert.Equal(t, 200, try(func(r *http.Request) { r.Header.Set("Origin", srv.URL) }))
	assert.Equal(t, 403, try(func(r *http.Request) { r.Header.Set("Origin", "http://elsewhere.example") }))
	assert.Equal(t, 403, try(func(r *http.Request) { r.Header.Set("Origin", "null") }))
	assert.Equal(t, 421, try(func(r *http.Request) { r.Host = "rebound.example" }))
	assert.Equal(t, 200, try(func(r *http.Request) { r.Host = "localhost:1" }))
	resp := ask(t, srv, "POST", "/api/charts", ChartBody{Title: strings.Repeat("x", 2<<20)}, nil)
	assert.Equal(t, http.StatusRequestEntityTooLarge, resp.StatusCode)
}

func TestPagesAreServedSafely(t *testing.T) {
	srv := serve(t)
	resp := ask(t, srv, "GET", "/bench/3", nil, nil)
	assert.Equal(t, 200, resp.StatusCode)
	assert.Contains(t, resp.Header.Get("Content-Type"), "text/html")
	policy := resp.Header.Get("Content-Security-Policy")
	assert.Contains(t, policy, "script-src 'self' 'wasm-unsafe-eval';")
	assert.Equal(t, "nosniff", resp.Header.Get("X-Content-Type-Options"))
	assert.Contains(t, ask(t, srv, "GET", "/assets/a-123.js", nil, nil).Header.Get("Cache-Control"), "immutable")
	assert.Equal(t, 404, ask(t, srv, "GET", "/assets/gone.js", nil, nil).StatusCode)
	assert.Equal(t, 404, ask(t, srv, "GET", "/api/nothing", nil, nil).StatusCode)
	assert.Equal(t, 405, ask(t, srv, "POST", "/bench", nil, nil).StatusCode)
}

func TestManyAtOnce(t *testing.T) {
	srv := serve(t)
	var all sync.WaitGroup
	for i := range 16 {
		all.Go(func() {
			b := good
			b.Title = fmt.Sprint("Gangway ", i)
			assert.Equal(t, 201, ask(t, srv, "POST", "/api/charts", b, nil).StatusCode)
			assert.Equal(t, 200, ask(t, srv, "GET", "/api/charts/6/map", nil, nil).StatusCode)
		})
	}
	all.Wait()
	var charts []Chart
	ask(t, srv, "GET", "/api/charts", nil, &charts)
	assert.Len(t, charts, 22)
}
