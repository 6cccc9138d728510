package server

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every demo line, played by the simulated player: perfect, with mistakes, and not
// at all.
func TestTakesAreJudged(t *testing.T) {
	srv := serve(t)
	for _, l := range everyOne[Line](t, srv, "/api/lines") {
		var heard []HeardNote
		var take Take
		require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/simulate", map[string]any{"line": l.LineBody}, &heard).StatusCode)
		require.Len(t, heard, len(l.Notes), l.Title)
		require.Equal(t, 200, ask(t, srv, "POST", "/api/lines/judge", map[string]any{"line": l.LineBody, "heard": heard}, &take).StatusCode)
		for _, v := range take.Verdicts {
			assert.Equal(t, "right, on time", v.Says, l.Title)
			assert.NotZero(t, v.Note)
		}
		assert.Equal(t, len(l.Notes), take.Heard, l.Title)
		heard[0].Pitch++
		ask(t, srv, "POST", "/api/lines/judge", map[string]any{"line": l.LineBody, "heard": heard}, &take)
		assert.Equal(t, "wrong note", take.Verdicts[0].Is, l.Title)
		ask(t, srv, "POST", "/api/lines/judge", map[string]any{"line": l.LineBody, "heard": []HeardNote{}}, &take)
		assert.Equal(t, "nothing was heard", take.Good, l.Title)
		for _, v := range take.Verdicts {
			assert.Equal(t, "not heard", v.Is)
		}
	}
	assert.Equal(t, 422, ask(t, srv, "POST", "/api/lines/judge", map[string]any{"line": bluesIn("C"), "heard": []map[string]any{{"at": 0, "pitch": 500}}}, nil).StatusCode)
}
