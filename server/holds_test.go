package server

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/ear"
	"undaris/core/judge"
	"undaris/core/practice"
)

// Limits go with every way to practise that leaves open what is played; they are judged alike whether a take is told at once or
// heard, and what cannot be held to is refused wherever it is asked for.
func TestLimitsAreHeldToInEveryMode(t *testing.T) {
	srv := serve(t)
	var heard []HeardNote
	require.Equal(t, 200, ask(t, srv, "POST", "/api/practice/simulate", map[string]any{"over": bluesIn("A"), "seed": 3}, &heard).StatusCode)
	hold := Holding{Kinds: []string{"strings:1-3", "few:1"}, Every: 4, Seed: 2}
	for _, m := range practice.Modes {
		if m.With != "" {
			continue
		}
		var ground PracticeGround
		require.Equal(t, 200, ask(t, srv, "POST", "/api/practice/over", map[string]any{"over": bluesIn("A"), "mode": m.ID}, &ground).StatusCode)
		body := map[string]any{"over": ground.Line, "mode": m.ID, "pass": 2, "hold": hold}
		var holds Holds
		require.Equal(t, 200, ask(t, srv, "POST", "/api/practice/holds", body, &holds).StatusCode, m.ID)
		require.Len(t, holds.Kinds, len(practice.HoldKinds))
		body["heard"] = heard
		var want FreeTake
		require.Equal(t, 200, ask(t, srv, "POST", "/api/practice/judge", body, &want).StatusCode, m.ID)
		require.Len(t, want.Held, len(holds.Holds), m.ID)
		if m.Writes() {
			assert.Empty(t, holds.Holds, m.ID)
			continue
		}
		require.Len(t, holds.Holds, 2*((len(ground.Bars)+3)/4), m.ID)
		for i, h := range holds.Holds {
			assert.Equal(t, []any{h.Says, h.From, h.To}, []any{want.Held[i].Says, want.Held[i].From, want.Held[i].To})
			assert.Equal(t, []string{"strings 1 to 3", "at most one note a bar"}[i%2], h.Says)
		}
		assert.Positive(t, want.Broken, m.ID)
		text, err := json.Marshal(ground.Line)
		require.NoError(t, err)
		c, _ := dial(t, srv, nil)
		require.NoError(t, c.WriteJSON(said{Line: text, Mode: m.ID, Pass: 2, Hold: &hold, Observations: wireObservations(ear.Noticed(each(heard, func(h HeardNote) judge.Heard { return judge.Heard(h) }), nil)), Now: 1e6, End: true}))
		var out told
		require.NoError(t, c.ReadJSON(&out))
		require.NotNil(t, out.Free, m.ID)
		assert.Equal(t, want.Held, out.Free.Held, m.ID)
	}
	for _, bad := range [][]string{{"riddle"}, {"few:99"}, {"strings:1-9"}, {"few", "few", "few", "few", "few", "few", "few", "few", "few"}} {
		body := map[string]any{"over": bluesIn("A"), "mode": "land", "hold": Holding{Kinds: bad}, "heard": heard}
		assert.Equal(t, 422, ask(t, srv, "POST", "/api/practice/judge", body, nil).StatusCode, bad)
		text, _ := json.Marshal(bluesIn("A"))
		c, _ := dial(t, srv, nil)
		require.NoError(t, c.WriteJSON(said{Line: text, Mode: "land", Hold: &Holding{Kinds: bad}}))
		var out told
		require.NoError(t, c.ReadJSON(&out))
		assert.NotEmpty(t, out.Error, bad)
	}
}

// One chord is looped in every way to practise, in the place of the chart, and what is written is written over it.
func TestOneChordIsLoopedInEveryMode(t *testing.T) {
	srv := serve(t)
	for _, m := range practice.Modes {
		if m.With == practice.Tune { // a tune brings its own chords
			continue
		}
		var ground PracticeGround
		require.Equal(t, 200, ask(t, srv, "POST", "/api/practice/over", map[string]any{"over": bluesIn("A"), "mode": m.ID, "chord": "D7", "with": 1}, &ground).StatusCode, m.ID)
		assert.True(t, ground.Band, m.ID)
		chords := map[string]bool{}
		for _, b := range ground.Bars {
			for _, c := range b {
				chords[c.Chord] = true
			}
		}
		if m.ID == "twelve-keys" {
			assert.Len(t, chords, 12)
			assert.Equal(t, "D7", ground.Bars[0][0].Chord)
		} else {
			assert.Equal(t, map[string]bool{"D7": true}, chords, m.ID)
		}
		assert.Equal(t, m.Writes(), len(ground.Line.Notes) > 0, m.ID)
	}
	assert.Equal(t, 422, ask(t, srv, "POST", "/api/practice/over", map[string]any{"over": bluesIn("A"), "mode": "land", "chord": "H7"}, nil).StatusCode)
}
