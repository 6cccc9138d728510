package server

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/ear"
	"undaris/core/judge"
	"undaris/core/score"
)

// A take that is stopped in the fourth bar is told and logged as far as it went, free or written, by the ear and at once: nothing
// that was not reached is a failure, and the time is that which was played.
func TestATakeThatIsStoppedIsLoggedAsFarAsItWent(t *testing.T) {
	srv := serve(t)
	line := everyOne[Line](t, srv, "/api/lines")[0].LineBody
	played := PlayedSpan{From: 0, To: 3.5 * 4 * score.Tick}
	for _, mode := range []string{"", "land"} {
		over := line
		simulate, judged := "/api/lines/simulate", "/api/lines/judge"
		ask1 := map[string]any{"line": over, "seed": 5}
		if mode != "" {
			over = bluesIn("A")
			simulate, judged = "/api/practice/simulate", "/api/practice/judge"
			ask1 = map[string]any{"over": over, "seed": 5}
		}
		var all, heard []HeardNote
		require.Equal(t, 200, ask(t, srv, "POST", simulate, ask1, &all).StatusCode)
		for _, h := range all {
			if h.At < played.To {
				heard = append(heard, h)
			}
		}
		text, err := json.Marshal(over)
		require.NoError(t, err)
		c, _ := dial(t, srv, nil)
		require.NoError(t, c.WriteJSON(said{Line: text, Mode: mode, Known: 12, Observations: wireObservations(ear.Noticed(each(heard, func(h HeardNote) judge.Heard { return judge.Heard(h) }), nil)), Now: played.To, End: true, Played: &played}))
		var out told
		require.NoError(t, c.ReadJSON(&out))
		reached := 0
		if mode == "" {
			require.NotNil(t, out.Take)
			assert.True(t, out.Take.Partial)
			for _, n := range over.Notes {
				if float64(n.Start) < played.To {
					reached++
				}
			}
			assert.Len(t, out.Take.Verdicts, reached)
			assert.Equal(t, out.Take.Verdicts, out.Verdicts)
			var now Take
			require.Equal(t, 200, ask(t, srv, "POST", judged, map[string]any{"line": over, "heard": heard, "played": played}, &now).StatusCode)
			assert.Len(t, now.Verdicts, reached)
			assert.True(t, now.Partial)
			reached = len(now.Landings)
		} else {
			require.NotNil(t, out.Free)
			assert.True(t, out.Free.Partial)
			for _, l := range out.Free.Landings {
				assert.Less(t, float64(l.At), played.To)
			}
			reached = len(out.Free.Landings)
			assert.Contains(t, out.Free.Good, "changes are landed")
		}
		require.Positive(t, reached)
		var row LogRow
		require.Equal(t, 201, ask(t, srv, "POST", "/api/log/takes", TakeLog{Title: "Stopped", Mode: mode, Line: over, Tempo: 96, Heard: heard, Played: &played}, &row).StatusCode)
		assert.Equal(t, reached, row.Asked, "%q", mode)
		assert.InDelta(t, 3.5*4*60/96, row.Seconds, 0.01)
	}
	for _, bad := range []map[string]any{{"from": 0}, {"from": 0, "to": 1e9}, {"from": "a", "to": 0}} {
		assert.Equal(t, 422, ask(t, srv, "POST", "/api/lines/judge", map[string]any{"line": line, "heard": []HeardNote{}, "played": bad}, nil).StatusCode)
	}
}
