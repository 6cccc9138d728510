package life

import (
	"bytes"
	"embed"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"time"

	"undaris/demo"
	"undaris/server"
	"undaris/store"
)

// All is the demo with its eight weeks of practice and a band's life around them.
func All(s *store.Store) error {
	have, err := s.CountCharts(store.All)
	if err != nil || have > 0 {
		return err
	}
	if err := demo.All(s); err != nil {
		return err
	}
	return Lead(s)
}

// Lead adds the life to a store that has the demo's charts.
func Lead(s *store.Store) error {
	h := &hands{handler: server.New(s, embed.FS{}, slog.New(slog.DiscardHandler))}
	charts := titled(s)
	song(s, h)
	others(s, h)
	for i, t := range takes {
		h.take(s, charts[t.chart], t, uint64(i+1))
	}
	evening(s, h)
	lesson(h, charts)
	// What was opened last is what the demo opens.
	h.keep(s.OpenChart(charts["Slipway Shuffle"], time.Now()))
	return h.err
}

// titled are the charts of a store, by their titles.
func titled(s *store.Store) map[string]uint {
	all := map[string]uint{}
	rows, _ := s.Charts(store.All)
	for _, r := range rows {
		all[r.Title] = r.ID
	}
	return all
}

// hands do what a player does in the browser; the first thing that fails stays.
type hands struct {
	handler http.Handler
	err     error
}

func (h *hands) keep(err error) {
	if h.err == nil && err != nil {
		h.err = fmt.Errorf("the demo's life: %w", err)
	}
}

// do asks the program; what it answers is read into out, where that is something.
func (h *hands) do(method, path string, body, out any) {
	if h.err != nil {
		return
	}
	var data io.Reader
	kind := "application/json"
	switch b := body.(type) {
	case nil:
	case []byte:
		data, kind = bytes.NewReader(b), "application/octet-stream"
	default:
		text, err := json.Marshal(b)
		if err != nil {
			h.keep(err)
			return
		}
		data = bytes.NewReader(text)
	}
	r := httptest.NewRequest(method, "http://127.0.0.1"+path, data)
	r.Header.Set("Content-Type", kind)
	w := httptest.NewRecorder()
	h.handler.ServeHTTP(w, r)
	if w.Code >= 300 {
		h.keep(fmt.Errorf("%s %s: %d %s", method, path, w.Code, w.Body))
		return
	}
	switch o := out.(type) {
	case nil:
	case *[]byte:
		*o = w.Body.Bytes()
	default:
		h.keep(json.Unmarshal(w.Body.Bytes(), out))
	}
}

// song is one with a pickup, an introduction and an ending.
func song(s *store.Store, h *hands) {
	c := store.Chart{Title: "Gangway Stomp", Key: "G", Feel: "shuffle", Tempo: 112, Beats: 4, Intro: "turnaround", Ending: "walk-down", Remarks: "two times through, then walk home",
		Text: "pickup: - - - D7 | G7 | C7 | G7 | G7 |\n| C7 | C#dim7 | G7 | E7 |\n| Am7 | D7 | G7 E7 | Am7 D7 |"}
	h.keep(s.CreateChart(&c))
}

// evening is the set that is rehearsed for.
func evening(s *store.Store, h *hands) {
	all := titled(s)
	set := store.Set{Title: "An evening at the landing"}
	for _, p := range []struct {
		title string
		times int
	}{{"Gangway Stomp", 2}, {"Slipway Shuffle", 4}, {"Low Water", 3}, {"Harbourmaster’s Day Off", 3}, {"Last Boat Lights", 6}} {
		set.Items = append(set.Items, store.SetItem{Chart: all[p.title], Choruses: p.times})
	}
	h.keep(s.CreateSet(&set))
}

// lesson is made, opened by a pupil elsewhere, done, and returned.
func lesson(h *hands, charts map[string]uint) {
	const third = "third"
	var made server.Lesson
	h.do("POST", "/api/assignments", server.LessonBody{
		Title: "The quick change by Friday", Words: "Two choruses a day are enough. Say the third before you play it.", Charts: []uint{charts["Slipway Shuffle"]},
		Aims: []server.AimBody{{Kind: "changes", Chart: 1, Mode: "thirds", Percent: 70, Times: 2, Tempo: 80}, {Kind: "calls", Key: "C", Degree: third, Times: 4}, {Kind: "minutes", Times: 20}},
	}, &made)
	var file []byte
	h.do("GET", fmt.Sprintf("/api/assignments/%d/file", made.ID), nil, &file)
	back := h.elsewhere(file)
	h.do("POST", "/api/assignments/results", back, nil)
}

// elsewhere is what a pupil makes of a lesson on a machine of their own.
func (h *hands) elsewhere(file []byte) (back []byte) {
	if h.err != nil {
		return nil
	}
	dir, err := os.MkdirTemp("", "undaris-pupil")
	if h.keep(err); err != nil {
		return nil
	}
	defer os.RemoveAll(dir)
	s, err := store.Open(dir)
	if h.keep(err); err != nil {
		return nil
	}
	defer s.Close()
	pupil := &hands{handler: server.New(s, embed.FS{}, slog.New(slog.DiscardHandler))}
	pupil.do("PUT", "/api/players/1", map[string]string{"name": "Bram"}, nil)
	var given server.Lesson
	pupil.do("POST", "/api/assignments/open", file, &given)
	for i := 0; i < 3 && len(given.Charts) > 0; i++ {
		pupil.take(s, given.Charts[0].ID, played{chart: []string{"", "", "kept"}[i], mode: "thirds", wrong: []float64{0.5, 0.2, 0.05}[i], region: [2]int{7, 11}}, uint64(i+5))
	}
	for _, how := range []string{"late", "right", "right", "right", "right"} {
		pupil.do("POST", "/api/log/calls", server.CallLog{Kind: "tones", Key: "C", Chord: "F7", Degree: "3", Window: store.Frets{Low: 7, High: 11}, Says: "its tones upward, from the 3", How: how, Took: 1900}, nil)
	}
	pupil.do("GET", fmt.Sprintf("/api/assignments/%d/results?words=%s", given.ID, "Bar+5+was+the+hard+one."), nil, &back)
	h.keep(pupil.err)
	return back
}
