package server

import (
	"encoding/json"
	"net/http"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// plainMusic is a note or degree in plain letters, as data has it.
var plainMusic = regexp.MustCompile(`(^|[^A-Za-z♭♯])([A-G][b#]|[b#]\d)`)

// TestSentencesPrintMusic asks for everything that is told of every demo line in
// every palette, and of each change, and finds no plain accidental in it.
func TestSentencesPrintMusic(t *testing.T) {
	srv := serve(t)
	sentences := 0
	for _, l := range everyOne[Line](t, srv, "/api/lines") {
		for _, key := range []string{l.Key, "Ab", "F#", "Db"} {
			var moved Study
			ask(t, srv, http.MethodPost, "/api/lines/move", map[string]any{"line": l.LineBody, "key": keyOf(key, l.Key)}, &moved)
			check(t, &sentences, moved)
			var blended Turned
			ask(t, srv, http.MethodPost, "/api/lines/blend", map[string]any{"line": moved.body(), "amount": 1}, &blended)
			check(t, &sentences, blended)
			for _, landing := range moved.Report.Landings {
				var fixes Fixes
				ask(t, srv, http.MethodPost, "/api/lines/fit", map[string]any{"line": moved.body(), "at": landing.At}, &fixes)
				check(t, &sentences, fixes.Why)
				for _, f := range fixes.Fixes {
					check(t, &sentences, f.Says)
				}
			}
		}
	}
	assert.Greater(t, sentences, 1000)
}

// keyOf is a key of the mode of another.
func keyOf(tonic, like string) string {
	if tonic != like && like[len(like)-1] == 'm' {
		return map[string]string{"Ab": "G#m", "F#": "F#m", "Db": "C#m"}[tonic]
	}
	return tonic
}

// check looks at all strings of more than two words in a value.
func check(t *testing.T, sentences *int, v any) {
	data, err := json.Marshal(v)
	require.NoError(t, err)
	var parsed any
	require.NoError(t, json.Unmarshal(data, &parsed))
	var walk func(any)
	walk = func(v any) {
		switch v := v.(type) {
		case map[string]any:
			for k, part := range v {
				if k != "text" && k != "title" {
					walk(part)
				}
			}
		case []any:
			for _, part := range v {
				walk(part)
			}
		case string:
			if regexp.MustCompile(`[a-z]+ .*[a-z]+ `).MatchString(v) {
				*sentences++
				assert.NotRegexp(t, plainMusic, v)
			}
		}
	}
	walk(parsed)
}
