package server

import (
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

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
	bends, scoops := write(WishBody{Word: "box-blues", Approach: true, Seed: 2})
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
	// The band's file ends with a last chord where that is asked for.
	plain := fetch(t, srv.URL+"/api/charts/6/midi?choruses=1")
	ended := fetch(t, srv.URL+"/api/charts/6/midi?"+url.Values{"choruses": {"1"}, "ending": {"true"}, "arc": {"grow"}}.Encode())
	assert.Contains(t, string(ended), "ending")
	assert.NotContains(t, string(plain), "ending")
	assert.Equal(t, 422, ask(t, srv, "GET", "/api/charts/6/midi?arc=zigzag", nil, nil).StatusCode)
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
	assert.Equal(t, "| Cmaj7 | Dm7b5 | G7 |\n| Cmaj7 | Dm7b5 | Csus2 |", r.Text)
}
