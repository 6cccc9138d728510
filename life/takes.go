package life

import (
	"bytes"
	"fmt"

	"undaris/core/judge"
	"undaris/server"
	"undaris/store"
)

// played is a chorus as somebody played it.
type played struct {
	chart, mode string // chart is none where it is not kept
	wrong       float64
	region      [2]int
	sounds      bool // it was recorded
}

// takes are those that were kept, the oldest first.
var takes = []played{
	{"Slipway Shuffle", "thirds", 0.75, [2]int{7, 11}, false},
	{"Low Water", "land", 0.2, [2]int{5, 9}, true},
	{"Slipway Shuffle", "thirds", 0.01, [2]int{7, 11}, true},
}

// take plays a chorus, has it judged, noted in the log and kept.
func (h *hands) take(s *store.Store, id uint, p played, seed uint64) {
	if h.err != nil {
		return
	}
	c, err := s.Chart(id)
	if h.keep(err); err != nil {
		return
	}
	over := map[string]any{"title": c.Title, "key": c.Key, "feel": c.Feel, "tempo": c.Tempo, "beats": c.Beats, "text": c.Text, "low": p.region[0], "high": p.region[1], "notes": []any{}}
	var heard []server.HeardNote
	h.do("POST", "/api/practice/simulate", map[string]any{"over": over, "tempo": c.Tempo, "mode": p.mode, "wrong": p.wrong, "late": p.wrong / 2, "seed": seed}, &heard)
	var free server.FreeTake
	h.do("POST", "/api/practice/judge", map[string]any{"over": over, "mode": p.mode, "heard": heard, "tempo": c.Tempo}, &free)
	var row server.LogRow
	h.do("POST", "/api/log/takes", map[string]any{"chart": id, "title": c.Title, "mode": p.mode, "line": over, "tempo": c.Tempo, "heard": heard}, &row)
	if p.chart == "" {
		return // it was not kept
	}
	var kept struct{ ID uint }
	h.do("POST", "/api/takes", map[string]any{"title": fmt.Sprintf("%s, %s", c.Title, map[string]string{"land": "land on chord tones", "thirds": "land on thirds"}[p.mode]), "mode": p.mode, "tempo": c.Tempo, "changes": len(free.Landings), "landed": free.Landed,
		"good": free.Good, "try": free.Try, "line": free.Line, "heard": heard}, &kept)
	h.do("PUT", fmt.Sprintf("/api/log/%d/take", row.ID), map[string]any{"take": kept.ID}, nil)
	if p.sounds && h.err == nil {
		notes := make([]judge.Heard, len(heard))
		for i, n := range heard {
			notes[i] = judge.Heard(n)
		}
		h.keep(s.KeepSound(kept.ID, bytes.NewReader(sounded(notes, c.Tempo))))
	}
}
