package hostile

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const bigNeck = `{"tuning":"A1,B1,E2,A2,D3,G3,B3,E4","frets":27,"scale":648,"capo":0,"left":false,"comfort":250,"habit":"stay"}`

// longText is as many bars and chords as a chart may hold.
func longText() string {
	chords := []string{"C13", "F#m11", "Bb7#9", "Ebmaj9", "A7b9", "D13", "Gm11", "Db9"}
	var b strings.Builder
	for bar := range 512 {
		b.WriteString("| ")
		for i := range 4 {
			b.WriteString(chords[(bar+i*3)%len(chords)] + " ")
		}
	}
	return b.String() + "|"
}

type object = map[string]any

func bigLine(notes int) object {
	list := make([]object, notes)
	for i := range list {
		list[i] = object{"start": i * 240, "length": 240, "note": "", "string": 1 + i%6, "fret": 3 + i%9}
	}
	return object{"title": "Big", "key": "C", "feel": "shuffle", "tempo": 96, "beats": 4, "text": longText(), "low": 0, "high": 27, "notes": list}
}

// The largest things that are legal, each within a second's work.
func TestTheSlowestLegalRequests(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	status, data := p.ask("PUT", "/api/player", bigNeck)
	require.Equal(t, 200, status, string(data))
	chart := object{"title": "Long", "key": "C", "feel": "jazz", "tempo": 300, "beats": 4, "text": longText()}
	status, data, _ = p.timed("keep a chart of 512 bars", "POST", "/api/charts", chart)
	require.Equal(t, 201, status, string(data))
	p.timed("read its text", "POST", "/api/readings", object{"text": longText(), "key": "C", "beats": 4})
	p.timed("its map with the whole neck", "GET", "/api/charts/7/map?low=0&high=27", nil)
	p.timed("its map", "GET", "/api/charts/7/map", nil)
	p.timed("its band, 4 choruses", "GET", "/api/charts/7/files/midi?choruses=4", nil)
	p.timed("its thread, played", "GET", "/api/charts/7/files/midi?choruses=4&lead=thread&low=0&high=9", nil)
	p.timed("its thread on paper", "GET", "/api/charts/7/score?of=thread&low=0&high=9", nil)
	text := url.QueryEscape(strings.Repeat("| C13 F#m11 Bb7#9 Ebmaj9 ", 40) + "|")
	for _, high := range []int{5, 9, 12, 20, 27} {
		p.timed(fmt.Sprintf("thread through 160 chords, frets 0 to %d", high), "GET",
			fmt.Sprintf("/api/threads?key=C&mode=any&low=0&high=%d&tuning=A1,B1,E2,A2,D3,G3,B3,E4&frets=27&text=%s", high, text), nil)
	}
	line := bigLine(4000)
	status, data, _ = p.timed("keep a line of 4,000 notes", "POST", "/api/lines", line)
	require.Equal(t, 201, status, string(data[:min(300, len(data))]))
	p.timed("study it", "POST", "/api/lines/study", line)
	p.timed("open it", "GET", "/api/lines/5", nil)
	p.timed("fit it", "POST", "/api/lines/fit", object{"line": line, "at": 3840 * 100})
	p.timed("re-aim it", "POST", "/api/lines/blend", object{"line": line, "amount": 1})
	p.timed("move it", "POST", "/api/lines/move", object{"line": line, "key": "F#"})
	p.timed("exercise over it", "POST", "/api/lines/drill", object{"line": line, "task": object{"drill": "scale", "pace": "sextuplets"}})
	p.timed("a lick through it", "POST", "/api/lines/lick", object{"line": line, "lick": 1, "land": true})
	p.timed("it as MIDI", "GET", "/api/lines/5/files/midi?choruses=1", nil)
	p.timed("it as MusicXML", "GET", "/api/lines/5/files/musicxml", nil)
	p.timed("it as text", "GET", "/api/lines/5/files/tab", nil)
	line["notes"] = []any{}
	for _, bars := range []int{12, 96, 512} {
		for _, high := range []int{4, 12, 27} {
			line["low"], line["high"] = 0, high
			wish := object{"rhythm": "sixteenths", "density": 5, "approach": true, "seed": 3, "from": 1, "to": bars}
			p.timed(fmt.Sprintf("write %d bars of sixteenths, frets 0 to %d", bars, high), "POST", "/api/lines/write", object{"line": line, "wish": wish})
		}
	}
	lick := object{"title": "Long lick", "chord": "7", "ofKey": false, "tags": []string{}}
	var notes []object
	for i := range 256 {
		notes = append(notes, object{"start": i * 240, "length": 240, "degree": []string{"R", "3", "5", "b7"}[i%4], "octave": i % 2})
	}
	lick["notes"] = notes
	p.timed("keep a lick of 256 notes", "POST", "/api/licks", lick)
	p.timed("a chart of 2,049 chords is refused", "POST", "/api/charts", object{"title": "Too long", "key": "C", "feel": "jazz", "tempo": 300, "beats": 12, "text": strings.Repeat("| C7 F7 G7 A7 B7 ", 410) + "|"})
}

// Work ends soon after the one who asked has gone.
func TestWorkStopsWithTheAsker(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	p.ask("PUT", "/api/player", bigNeck)
	line := bigLine(4000)
	bare := bigLine(0)
	bare["high"] = 12
	questions := map[string]struct {
		path string
		body any
	}{
		"write":    {"/api/lines/write", object{"line": bare, "wish": object{"rhythm": "sixteenths", "density": 5, "approach": true, "from": 1, "to": 90}}},
		"study":    {"/api/lines/study", line},
		"re-aim":   {"/api/lines/blend", object{"line": line, "amount": 1}},
		"exercise": {"/api/lines/drill", object{"line": line, "task": object{"drill": "scale", "pace": "sextuplets"}}},
		"lick":     {"/api/lines/lick", object{"line": line, "lick": 1, "land": true}},
		"import":   {"/api/imports?name=a.musicxml", []byte(longXML(20_000))},
		"midi":     {"/api/imports?name=a.mid", wheelMIDI(200_000)},
	}
	for name, q := range questions {
		var body []byte
		kind := "application/octet-stream"
		if raw, ok := q.body.([]byte); ok {
			body = raw
		} else {
			kind = "application/json"
			body, _ = json.Marshal(q.body)
		}
		for _, after := range []time.Duration{30, 80, 150, 300} {
			ctx, gone := context.WithTimeout(t.Context(), after*time.Millisecond)
			req, _ := http.NewRequestWithContext(ctx, "POST", p.url+q.path, strings.NewReader(string(body)))
			req.Header.Set("Content-Type", kind)
			resp, err := http.DefaultClient.Do(req)
			if err == nil {
				resp.Body.Close()
			}
			gone()
			time.Sleep(maxAfter)
			begun := p.busy()
			time.Sleep(300 * time.Millisecond)
			more := p.busy() - begun
			t.Logf("%-9s gone after %3d ms: %3d ms of work later than %v", name, after, more.Milliseconds(), maxAfter)
			assert.LessOrEqual(t, more, 60*time.Millisecond, "%s", name) // the collector may tidy up
		}
	}
	p.alive()
}

func TestItEndsWithinASecond(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	p.ask("PUT", "/api/player", bigNeck)
	for range 6 {
		go p.try("POST", "/api/lines/study", bigLine(4000))
	}
	time.Sleep(150 * time.Millisecond)
	took := p.end()
	t.Logf("ended %d ms after SIGTERM under load", took.Milliseconds())
	assert.Less(t, took, maxEnding)
}

// Long lists cost little more than empty ones.
func TestLongListsAreCheap(t *testing.T) {
	dir := t.TempDir()
	p := start(t, "serve", dir)
	best := func(path string) time.Duration {
		least := time.Hour
		for range 15 {
			now := time.Now()
			status, data := p.ask("GET", path, nil)
			require.Equal(t, 200, status, string(data))
			least = min(least, time.Since(now))
		}
		return least
	}
	bodies := map[string]string{
		"/api/charts": `{"title":"Chart %d","key":"C","feel":"shuffle","tempo":96,"beats":4,"text":"| C7 | F7 | C7 | C7 | F7 | F7 | C7 | C7 | G7 | F7 | C7 | G7 |"}`,
		"/api/licks":  `{"title":"Lick %d","chord":"7","ofKey":false,"tags":["box"],"notes":[{"start":0,"length":960,"degree":"R","octave":0}]}`,
		"/api/lines":  `{"title":"Line %d","key":"C","feel":"shuffle","tempo":96,"beats":4,"text":"| C7 |","low":7,"high":11,"notes":[{"start":0,"length":960,"note":"C4","string":3,"fret":5}]}`,
	}
	for path, body := range bodies {
		empty := best(path)
		for i := range 1000 {
			status, data := p.ask("POST", path, fmt.Sprintf(body, i))
			require.Equal(t, 201, status, string(data))
		}
		full := best(path + "?limit=1000")
		t.Logf("%-12s empty %.2f ms, 1,000 of them %.2f ms: %.0f times", path, ms(empty), ms(full), float64(full)/float64(empty))
		assert.LessOrEqual(t, full, 60*empty, path)
	}
	t.Logf("peak %d MB", p.peak())
	assert.LessOrEqual(t, p.peak(), 150)
}

func ms(d time.Duration) float64 { return float64(d.Microseconds()) / 1000 }
