package server

import (
	"bytes"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"reflect"
	"strings"
	"testing"

	"github.com/segmentio/encoding/json"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/formats/musicxml"
	"undaris/store"
)

// Chains and other arpeggios over HTTP: in the region, with what is asked, and what cannot
// be had said.
func TestChainsAndOtherArpeggios(t *testing.T) {
	srv := serve(t)
	var chains []Chain
	require.Equal(t, 200, ask(t, srv, "GET", "/api/chains?chords=Dm7&chords=G7&chords=Cmaj7&voices=2&roles=third,seventh&low=2&high=6", nil, &chains).StatusCode)
	require.NotEmpty(t, chains)
	for _, c := range chains {
		require.Len(t, c.Links, 3)
		for _, l := range c.Links {
			require.Len(t, l.Tones, 2)
			for _, tone := range l.Tones {
				assert.True(t, tone.Fret >= 2 && tone.Fret <= 6)
				assert.Contains(t, []string{"b3", "3", "b7", "7"}, tone.Degree)
			}
		}
	}
	assert.Equal(t, 2, chains[0].HalfSteps, "one guide tone moves at each change, the other stays")

	var over OtherArpeggios
	require.Equal(t, 200, ask(t, srv, "GET", "/api/arpeggios?key=F&chord=C7&low=7&high=11&strings=5,4,3,2", nil, &over).StatusCode)
	assert.Len(t, over.Scale, 7)
	for _, p := range over.Places {
		assert.True(t, p.String >= 2 && p.String <= 5 && p.Fret >= 7 && p.Fret <= 11)
	}
	for _, o := range over.Arpeggios {
		require.Len(t, o.Tones, 4)
		assert.NotEmpty(t, o.Says)
		for _, n := range append(o.Run.Notes, o.Octave...) {
			assert.Contains(t, []string{o.Tones[0].Degree, o.Tones[1].Degree, o.Tones[2].Degree, o.Tones[3].Degree}, n.Degree, "degrees are over the chord that sounds")
		}
	}
	for path, want := range map[string]struct{ location, says string }{
		"/api/chains?chords=C7&chords=F7&voices=2&low=5&high=9&strings=3": {"query.chords", "no 2 tones of C7 lie under one hand"},
		"/api/chains?chords=C7&low=5&high=9&from=nowhere":                 {"query.from", "is no place"},
		"/api/chains?chords=C7&low=5&high=9&from=9:3":                     {"query.from", "not on this neck"},
		"/api/chains?chords=C7&low=5&high=9&roles=ninth":                  {"query.roles", "is no target"},
		"/api/arpeggios?key=C&chord=Q&low=5&high=9":                       {"query.chord", "cannot read"},
		"/api/charts/6/map?way=spiral":                                    {"query.way", "no way"},
		"/api/charts/6/map?strings=8":                                     {"query.strings", "the nearest is"},
	} {
		var r refusal
		assert.Equal(t, 422, ask(t, srv, "GET", path, nil, &r).StatusCode, path)
		require.NotEmpty(t, r.Errors, path)
		assert.Equal(t, want.location, r.Errors[0].Location, path)
		assert.Contains(t, r.Errors[0].Message, want.says, path)
	}
}

// A map that is remembered is not an old one: what is decided about the chart or changed
// on the instrument is in the next answer; another way to divide the neck has its regions.
func TestARememberedMapIsNeverStale(t *testing.T) {
	srv := serve(t)
	var before, again, after Map
	ask(t, srv, "GET", "/api/charts/6/map", nil, &before)
	ask(t, srv, "GET", "/api/charts/6/map", nil, &again)
	assert.Equal(t, before, again)
	require.Equal(t, 200, ask(t, srv, "PUT", "/api/charts/6/plan", store.Plan{Palette: "own:1 b3 4 5 6", Thread: "roots", Strings: "5,2", Boxes: []store.BoxTurn{{Bar: 2, Beat: 1, Box: "major"}}}, nil).StatusCode)
	ask(t, srv, "GET", "/api/charts/6/map", nil, &after)
	assert.Len(t, after.Blends[0].Notes, 5)
	assert.Equal(t, "major", after.Chart.Plan.Boxes[0].Box)
	for _, target := range after.ByPosition[2].Thread.Targets {
		assert.Equal(t, "R", target.Degree)
		assert.Contains(t, []int{5, 2}, target.String)
	}
	require.Equal(t, 200, ask(t, srv, "PUT", "/api/player", store.Player{Tuning: "D2,A2,D3,G3,B3,E4", Frets: 20, Scale: 648, Comfort: 100, Habit: "stay", Palettes: []store.OwnPalette{{Name: "Five", ID: "own:1 b3 4 5 6"}}}, nil).StatusCode)
	ask(t, srv, "GET", "/api/charts/6/map", nil, &after)
	assert.Equal(t, 20, after.Instrument.Last)
	var three Map
	ask(t, srv, "GET", "/api/charts/6/map?way=three&strings=1-3", nil, &three)
	require.NotEmpty(t, three.Positions)
	for _, p := range three.Positions {
		assert.Equal(t, []int{3, 2, 1}, p.Strings)
		assert.NotEmpty(t, p.Name)
	}
	var no refusal
	bad := store.Player{Tuning: "E2,A2,D3,G3,B3,E4", Frets: 22, Scale: 648, Comfort: 100, Habit: "stay", Palettes: []store.OwnPalette{{Name: "x", ID: "own:1 9"}}}
	require.Equal(t, 422, ask(t, srv, "PUT", "/api/player", bad, &no).StatusCode)
	assert.Equal(t, "body.palettes[0].id", no.Errors[0].Location)
}

// A line in a word is written with its ways of playing; a wish that gave way is named, and
// what there is not is refused.
func TestALineInAWord(t *testing.T) {
	srv := serve(t)
	body := bluesIn("C")
	body.Low, body.High = 7, 11
	var st Study
	write := func(wish WishBody) (bends, scoops int) {
		st = Study{}
		require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/write", map[string]any{"line": body, "wish": wish}, &st).StatusCode)
		for _, n := range st.body().Notes {
			if n.Bend > 0 {
				bends++
			}
			if n.Scoop > 0 {
				scoops++
			}
		}
		return bends, scoops
	}
	bends, scoops := 0, 0
	for seed := range uint64(4) { // a chorus may have none of one of them
		b, s := write(WishBody{Word: "box-blues", Approach: true, Seed: seed})
		bends, scoops = bends+b, scoops+s
	}
	assert.Positive(t, bends)
	assert.Positive(t, scoops)
	for _, l := range st.Report.Landings {
		assert.True(t, l.Landed)
	}
	bends, _ = write(WishBody{Word: "box-blues", Approach: true, Seed: 2, Spice: &SpiceBody{"bends": 0}})
	assert.Zero(t, bends)
	write(WishBody{Word: "box-blues", ChordTones: true, Seed: 2})
	assert.Contains(t, strings.Join(st.Said, "; "), "bends gave way")
	for location, wish := range map[string]WishBody{
		"body.wish.word":        {Word: "polka"},
		"body.wish.spice.salt":  {Spice: &SpiceBody{"salt": 3}},
		"body.wish.spice.bends": {Spice: &SpiceBody{"bends": 11}},
	} {
		var no refusal
		require.Equal(t, 422, ask(t, srv, "POST", "/api/lines/write", map[string]any{"line": body, "wish": wish}, &no).StatusCode, location)
		assert.Equal(t, location, no.Errors[0].Location)
	}
	// The band's file ends where that is asked for.
	plain := fetch(t, srv.URL+"/api/charts/6/files/midi?choruses=1")
	ended := fetch(t, srv.URL+"/api/charts/6/files/midi?"+url.Values{"choruses": {"1"}, "ending": {"own"}, "intro": {"five"}, "course": {"trade"}, "arc": {"grow"}}.Encode())
	assert.Contains(t, string(ended), "ending")
	assert.Contains(t, string(ended), "lead-in")
	assert.NotContains(t, string(plain), "ending")
	for _, bad := range []string{"ending=fade", "intro=fanfare", "course=fugue", "ending=true"} {
		assert.Equal(t, 422, ask(t, srv, "GET", "/api/charts/6/files/midi?"+bad, nil, nil).StatusCode, bad)
	}
	assert.Equal(t, 422, ask(t, srv, "GET", "/api/charts/6/files/midi?arc=zigzag", nil, nil).StatusCode)
}

// A text is read in the ways players write it; what is taken for granted is said.
func TestAReadingSaysWhatItAssumes(t *testing.T) {
	srv := serve(t)
	var r Reading
	ask(t, srv, "POST", "/api/readings", ReadingRequest{Text: "Verse:\nC7 F7 C7 G7", Key: "C", Beats: 4}, &r)
	require.Empty(t, r.Problems)
	assert.Len(t, r.Bars, 4)
	assert.Equal(t, "Verse", r.Bars[0].Section)
	assert.Equal(t, []string{"there are no bar lines: each chord is taken for a bar"}, r.Said)
	ask(t, srv, "POST", "/api/readings", ReadingRequest{Text: "|: C^7 | Dh7 |1. G7 :|2. C2 |]", Key: "C", Beats: 4}, &r)
	assert.Empty(t, r.Said)
	assert.Equal(t, "|: Cmaj7 | Dm7b5 | 1. G7 :| 2. Csus2 |", r.Text)
}

// Instruments are kept by names of their own, each one that can be strung; a reach is told
// on the neck that is asked for.
func TestInstrumentsAreKept(t *testing.T) {
	srv := serve(t)
	var p store.PlayerVersion
	ask(t, srv, "GET", "/api/player", nil, &p)
	bass := store.OwnInstrument{Name: "log", Tuning: "E1,A1,D2,G2", Frets: 20, Scale: 864}
	put := func(list ...store.OwnInstrument) int {
		body := p.Player
		body.Instruments = list
		text, err := json.Marshal(body)
		require.NoError(t, err)
		req, err := http.NewRequest("PUT", srv.URL+"/api/player", bytes.NewReader(text))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "application/json")
		req.Header.Set("If-Match", "*")
		resp, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		resp.Body.Close()
		return resp.StatusCode
	}
	assert.Equal(t, 200, put(bass))
	assert.Equal(t, 422, put(bass, bass), "two of one name")
	bad := bass
	bad.Tuning = "E1,x"
	assert.Equal(t, 422, put(bad))
	var reaches []Reach
	ask(t, srv, "GET", "/api/reach?from=5&scale=648", nil, &reaches)
	require.Len(t, reaches, 6)
	assert.Equal(t, Reach{9, 100.1}, reaches[2])
	ask(t, srv, "GET", "/api/reach?from=20&frets=20", nil, &reaches)
	assert.Empty(t, reaches)
}

// The chords of a chart as others read them; what nobody reads in is refused.
func TestLeaves(t *testing.T) {
	srv := serve(t)
	chart := ChartBody{Title: "Reading", Key: "Bb", Feel: "shuffle", Tempo: 96, Beats: 4, Text: "| Bb7 | Eb7 |"}
	var made Chart
	ask(t, srv, "POST", "/api/charts", chart, &made)
	for reading, want := range map[string]string{"concert": "Bb Bb7 Eb7", "bb": "C C7 F7", "eb": "G G7 C7", "capo-1": "A A7 D7"} {
		var leaf Leaf
		ask(t, srv, "GET", fmt.Sprintf("/api/charts/%d/leaf?reading=%s", made.ID, reading), nil, &leaf)
		assert.Equal(t, want, leaf.Key+" "+leaf.Sheet.Chords[0].Symbol+" "+leaf.Sheet.Chords[1].Symbol)
		assert.Equal(t, "Bb", leaf.Sounds)
	}
	resp, err := http.Get(fmt.Sprintf("%s/api/charts/%d/leaf?reading=tuba", srv.URL, made.ID))
	require.NoError(t, err)
	resp.Body.Close()
	assert.Equal(t, 422, resp.StatusCode)
}

// What a player remarks of a chart, and the tags it is found by, are kept when it changes.
func TestRemarksAreKept(t *testing.T) {
	srv := serve(t)
	body := ChartBody{Title: "Remarked", Key: "C", Feel: "shuffle", Tempo: 96, Beats: 4, Text: "| C7 |", Tags: "a"}
	var made, now Chart
	ask(t, srv, "POST", "/api/charts", body, &made)
	body.Remarks, body.Tags = "horns at the bridge", " duo ,evening,, duo"
	text, err := json.Marshal(body)
	require.NoError(t, err)
	req, err := http.NewRequest("PUT", fmt.Sprintf("%s/api/charts/%d", srv.URL, made.ID), bytes.NewReader(text))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set("If-Match", "*")
	resp, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	resp.Body.Close()
	require.Equal(t, 200, resp.StatusCode)
	ask(t, srv, "GET", fmt.Sprintf("/api/charts/%d", made.ID), nil, &now)
	assert.Equal(t, "horns at the bridge", now.Remarks)
	assert.Equal(t, "duo, evening", now.Tags)
}

// A chart leaves as text, as ChordPro and as MusicXML, and comes back as it was.
func TestChartsLeave(t *testing.T) {
	srv := serve(t)
	chart := ChartBody{Title: "Leaving", Key: "G", Feel: "shuffle", Tempo: 96, Swing: 58, Beats: 4, Text: "|: [Verse] G7 | C7 | 1. D7 :| 2. G7#9 |"}
	var made Chart
	ask(t, srv, "POST", "/api/charts", chart, &made)
	for _, name := range []string{"text", "chordpro"} {
		resp, err := http.Get(fmt.Sprintf("%s/api/charts/%d/%s", srv.URL, made.ID, name))
		require.NoError(t, err)
		text, err := io.ReadAll(resp.Body)
		resp.Body.Close()
		require.NoError(t, err)
		var r Reading
		ask(t, srv, "POST", "/api/readings", ReadingRequest{Text: string(text), Key: "G", Beats: 4}, &r)
		assert.Equal(t, chart.Text, r.Text, name)
		assert.Equal(t, Found{"Leaving", "G", "shuffle", 96, 58, 4, "", ""}, r.Found)
	}
	resp, err := http.Get(fmt.Sprintf("%s/api/charts/%d/files/musicxml?of=chords&low=0&high=4", srv.URL, made.ID))
	require.NoError(t, err)
	text, err := io.ReadAll(resp.Body)
	resp.Body.Close()
	require.NoError(t, err)
	require.Equal(t, 200, resp.StatusCode, string(text))
	f, err := musicxml.Read(t.Context(), text)
	require.NoError(t, err)
	assert.Equal(t, "| [Verse] G7 | C7 | D7 |\n| [Verse] G7 | C7 | G7#9 |", f.Progression.Text())
	assert.Empty(t, f.Notes)
}

// A chart's swing is kept with it and played, unless the player asks for another.
func TestAChartKeepsItsSwing(t *testing.T) {
	srv := serve(t)
	body := ChartBody{Title: "Lilt", Key: "C", Feel: "shuffle", Tempo: 96, Beats: 4, Text: "| C7 | F7 |"}
	file := func(swing int, query string) []byte {
		body.Swing = swing
		var made Chart
		ask(t, srv, "POST", "/api/charts", body, &made)
		require.Equal(t, swing, made.Swing)
		return fetch(t, fmt.Sprintf("%s/api/charts/%d/files/midi?choruses=1%s", srv.URL, made.ID, query))
	}
	assert.Equal(t, file(58, ""), file(0, "&swing=0.58"))
	assert.Equal(t, file(58, "&swing=0.7"), file(0, "&swing=0.7"))
	assert.NotEqual(t, file(58, ""), file(0, ""))
	for _, swing := range []int{-1, 1, 49, 76} {
		body.Swing = swing
		var no refusal
		require.Equal(t, 422, ask(t, srv, "POST", "/api/charts", body, &no).StatusCode, "%d", swing)
		assert.Contains(t, no.Errors[0].Location, "body.swing")
	}
	listed := false
	for _, row := range everyOne[ChartRow](t, srv, "/api/charts") {
		listed = listed || row.Title == "Lilt" && row.Swing == 58
	}
	assert.True(t, listed)
}

// Whatever a player says of a chart is kept when it is changed.
func TestEveryFieldOfAChartIsChanged(t *testing.T) {
	srv := serve(t)
	var made, got Chart
	ask(t, srv, "POST", "/api/charts", ChartBody{Title: "Before", Key: "C", Feel: "shuffle", Tempo: 96, Beats: 4, Text: "| C7 | F7 |"}, &made)
	after := ChartBody{Title: "After", Key: "Bb", Feel: "straight", Tempo: 120, Swing: 58, Intro: "five", Ending: "hit", Reading: "capo-3", Beats: 3, Text: "| Bb7 | Eb7 |", Remarks: "slower", Tags: "duo"}
	for i, v := 0, reflect.ValueOf(after); i < v.NumField(); i++ {
		require.False(t, v.Field(i).IsZero(), v.Type().Field(i).Name)
	}
	text, err := json.Marshal(after)
	require.NoError(t, err)
	path := fmt.Sprintf("/api/charts/%d", made.ID)
	resp, body := send(t, srv, "PUT", path, etag(made.Version), string(text))
	require.Equal(t, 200, resp.StatusCode, string(body))
	ask(t, srv, "GET", path, nil, &got)
	assert.Equal(t, after, got.ChartBody)
}
