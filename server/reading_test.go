package server

import (
	"fmt"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
)

// Whatever a chart is, it comes back the same from every format that leaves: its chords as they sound, its pickup, and in which
// pitch it is read.
func TestAChartKeepsItsPickupAndItsReading(t *testing.T) {
	srv := serve(t)
	for i, f := range form.Forms {
		key := form.AllKeys(f.Minor)[i%12]
		reading := form.Readings[(i*5+1)%len(form.Readings)]
		p := f.In(key)
		if p.Beats > 2 {
			p.Pickup = form.Pickup{Beats: 1 + i%(p.Beats-1), Changes: []form.Change{{Chord: p.Bars[len(p.Bars)-1].Changes[0].Chord}}}
		}
		body := ChartBody{Title: "Low Water " + f.ID, Key: key.String(), Feel: "straight", Tempo: 96, Beats: p.Beats, Text: p.Text(), Reading: reading.ID}
		if reading.Up == 0 {
			body.Reading = ""
		}
		var made Chart
		require.Equal(t, 201, ask(t, srv, "POST", "/api/charts", body, &made).StatusCode, f.ID)
		assert.Equal(t, body.Reading, made.Reading)
		if reading.Up != 0 {
			assert.Equal(t, []any{reading.Key(key).String(), reading.Capo()}, []any{made.ReadIn, made.Capo})
		}
		for ending, path := range map[string]string{"txt": "text", "cho": "files/chordpro", "musicxml": "files/musicxml?of=chords", "mid": "files/midi?choruses=2&ending=none"} {
			what := f.ID + " as " + ending
			got, no := bringAs(t, srv, "chart", "x."+ending, fetch(t, fmt.Sprintf("%s/api/charts/%d/%s", srv.URL, made.ID, path)), "")
			require.Empty(t, no.Detail, what)
			require.NotNil(t, got.Chart, what)
			back, err := form.Read(got.Chart.Text, got.Chart.Beats, key)
			require.NoError(t, err)
			was := form.Progression{Beats: p.Beats, Bars: p.Bars, Pickup: p.Pickup}
			require.Equal(t, was.Pickup.Beats, back.Pickup.Beats, "%s: %s", what, got.Chart.Text)
			for j, c := range was.Pickup.Changes {
				require.Equal(t, c.Chord.Root.Class(), back.Pickup.Changes[j].Chord.Root.Class(), what)
			}
			require.Len(t, back.Bars, len(was.Bars), what)
			for j, place := range was.Places() {
				other := back.Places()[j]
				require.Equal(t, []any{place.Bar, place.Beat, place.Chord.Root.Class(), place.Chord.Suffix()}, []any{other.Bar, other.Beat, other.Chord.Root.Class(), other.Chord.Suffix()}, what)
			}
			if ending != "mid" { // a MIDI file holds what sounds
				require.Equal(t, body.Reading, got.Chart.Reading, what)
			}
		}
		// On paper and on the stand it is read in its pitch.
		var leaf, solo Leaf
		for of, into := range map[string]*Leaf{"band": &leaf, "solo": &solo} {
			require.Equal(t, 200, ask(t, srv, "GET", fmt.Sprintf("/api/charts/%d/leaf?reading=%s&of=%s", made.ID, reading.ID, of), nil, into).StatusCode)
		}
		assert.Equal(t, reading.Key(key).String(), leaf.Key)
		assert.Equal(t, leaf, solo, "where nothing is imagined they are the same")
		require.Equal(t, 204, ask(t, srv, "DELETE", fmt.Sprintf("/api/charts/%d", made.ID), nil, nil).StatusCode)
	}
}

// What somebody else writes of a capo is kept, or refused with what would do.
func TestACapoThatIsBroughtIn(t *testing.T) {
	srv := serve(t)
	for text, want := range map[string][]any{
		"Title: Mole End\nKey: C\nCapo: 3\n| C7 | F7 | G7 |":  {"Eb", "| Eb7 | Ab7 | Bb7 |", "capo-3"},
		"{title: Mole End}\n{key: G}\n{capo: 2}\n| G7 | C7 |": {"A", "| A7 | D7 |", "capo-2"},
		"{key: C}\n{transpose: 2}\n| C7 | F7 |":               {"D", "| D7 | G7 |", ""},
		"Key: C\nReading: bb\n| C7 | F7 |":                    {"C", "| C7 | F7 |", "bb"},
		"Key: C\nCapo: 12\n| C7 | F7 |":                       {"C", "| C7 | F7 |", ""},
	} {
		got, no := bringAs(t, srv, "chart", "x.txt", []byte(text), "")
		require.Empty(t, no.Detail, text)
		assert.Equal(t, want, []any{got.Chart.Key, got.Chart.Text, got.Chart.Reading}, text)
		if strings.Contains(text, "12") {
			assert.Contains(t, strings.Join(got.Said, "; "), "beyond fret 11")
		}
		var r Reading
		require.Equal(t, 200, ask(t, srv, "POST", "/api/readings", ReadingRequest{Text: text, Key: "C", Beats: 4}, &r).StatusCode)
		assert.Equal(t, want[2], r.Found.Reading, text)
		if r.Found.Text != "" {
			assert.Equal(t, want[:2], []any{r.Found.Key, r.Found.Text}, "what is typed can be taken over as it sounds")
		}
	}
	var no refusal
	body := ChartBody{Title: "x", Key: "C", Feel: "shuffle", Tempo: 96, Beats: 4, Text: "| C7 |", Reading: "capo-99"}
	require.Equal(t, 422, ask(t, srv, "POST", "/api/charts", body, &no).StatusCode)
	assert.Equal(t, "body.reading", no.Errors[0].Location)
}

// Every lick of the demo, kept from where it is shown, comes back there as it was typed; over the chord a whole step lower its own
// shape is two frets down, in twelve keys.
func TestALickStaysWhereItWasWritten(t *testing.T) {
	srv := serve(t)
	moved := 0
	for _, row := range everyOne[LickRow](t, srv, "/api/licks") {
		var was Lick
		require.Equal(t, 200, ask(t, srv, "GET", fmt.Sprintf("/api/licks/%d", row.ID), nil, &was).StatusCode)
		if was.Line == nil {
			continue
		}
		for i, key := range form.AllKeys(false) {
			if (i+int(row.ID))%4 > 0 && row.ID > 12 { // twelve licks in every key, the others in three
				continue
			}
			chord := key.Tonic.String() + was.Chord
			var ways []Way
			require.Equal(t, 200, ask(t, srv, "GET", fmt.Sprintf("/api/licks/%d/ways?chord=%s&low=0&high=15", row.ID, url.QueryEscape(chord)), nil, &ways).StatusCode)
			if ways[0].Line == nil {
				continue
			}
			line := *ways[0].Line
			for j := range line.Notes {
				line.Notes[j].ID = j + 1
			}
			var body LickBody
			require.Equal(t, 200, ask(t, srv, "POST", "/api/licks/keep", map[string]any{"line": line, "first": 1, "last": len(line.Notes), "ofKey": was.OfKey}, &body).StatusCode)
			body.Title, body.Tags = "Kept", was.Tags
			require.NotNil(t, body.Home)
			var kept Lick
			require.Equal(t, 201, ask(t, srv, "POST", "/api/licks", body, &kept).StatusCode)
			what := fmt.Sprintf("%s over %s", was.Title, chord)
			require.NotNil(t, kept.Line, what)
			for j, n := range kept.Line.Notes {
				require.Equal(t, []int{line.Notes[j].String, line.Notes[j].Fret, line.Notes[j].Start}, []int{n.String, n.Fret, n.Start}, what)
			}
			for j, n := range was.Notes {
				got := kept.Notes[j]
				require.Equal(t, []any{n.Start, n.Length, n.Degree, n.Octave - was.Notes[0].Octave}, []any{got.Start, got.Length, got.Degree, got.Octave - kept.Notes[0].Octave}, what)
			}
			lower := form.Reading{Up: -2}.Key(key).Tonic.String() + was.Chord
			var places []LickPlace
			require.Equal(t, 200, ask(t, srv, "GET", fmt.Sprintf("/api/licks/%d/places?chord=%s", kept.ID, url.QueryEscape(lower)), nil, &places).StatusCode)
			fits := true
			for _, n := range line.Notes {
				fits = fits && n.Fret > 2
			}
			if fits {
				moved++
				require.NotEmpty(t, places, what)
				require.True(t, places[0].Shape, what)
				for j, n := range places[0].Line.Notes {
					require.Equal(t, []int{line.Notes[j].String, line.Notes[j].Fret - 2}, []int{n.String, n.Fret}, "%s, to %s", what, lower)
				}
			}
			require.Equal(t, 204, ask(t, srv, "DELETE", fmt.Sprintf("/api/licks/%d", kept.ID), nil, nil).StatusCode)
		}
	}
	assert.Greater(t, moved, 100)
}
