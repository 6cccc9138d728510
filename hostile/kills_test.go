package hostile

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"os"
	"slices"
	"strconv"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Killed in the middle of edits and started again: what was acknowledged is there.
func TestKills(t *testing.T) {
	rounds := 40
	if n, err := strconv.Atoi(os.Getenv("KILLS")); err == nil {
		rounds = n
	}
	dir := t.TempDir()
	rng := rand.New(rand.NewPCG(1, 2))
	kept := map[string]int{} // last acknowledged number by path
	sent := map[string]int{} // last number sent
	var lock sync.Mutex
	edits, lost := 0, 0
	for round := range rounds {
		p := start(t, "demo", dir)
		for path, n := range kept {
			_, data := p.ask("GET", path, nil)
			var now struct{ Title string }
			require.NoError(t, json.Unmarshal(data, &now))
			var got int
			fmt.Sscanf(now.Title, "Round %d", &got)
			if got < n || got > sent[path] {
				lost++
				t.Errorf("round %d: %s says %q; %d was acknowledged", round, path, now.Title, n)
			}
		}
		bodies := map[string]string{
			"/api/charts/1": `{"title":"Round %d","key":"C","feel":"shuffle","tempo":96,"beats":4,"text":"| C7 |"}`,
			"/api/licks/1":  `{"title":"Round %d","chord":"7","ofKey":false,"tags":[],"notes":[{"start":0,"length":960,"degree":"R","octave":0}]}`,
			"/api/lines/1":  `{"title":"Round %d","key":"C","feel":"shuffle","tempo":96,"beats":4,"text":"| C7 |","low":7,"high":11,"notes":[{"start":0,"length":960,"note":"C4","string":3,"fret":5}]}`,
			"/api/lines/2":  `{"title":"Round %d","key":"C","feel":"shuffle","tempo":96,"beats":4,"text":"| C7 |","low":7,"high":11,"notes":[]}`,
		}
		var all sync.WaitGroup
		for path, body := range bodies {
			all.Go(func() {
				for {
					lock.Lock()
					sent[path]++
					n := sent[path]
					lock.Unlock()
					status, _, err := p.try("PUT", path, fmt.Sprintf(body, n))
					if err != nil || status != 200 {
						return
					}
					lock.Lock()
					kept[path] = n
					edits++
					lock.Unlock()
				}
			})
		}
		time.Sleep(time.Duration(20+rng.IntN(180)) * time.Millisecond)
		p.kill()
		all.Wait()
	}
	p := start(t, "serve", dir)
	status, _ := p.ask("GET", "/api/charts", nil)
	assert.Equal(t, 200, status)
	t.Logf("%d kills, %d acknowledged edits, %d lost", rounds, edits, lost)
}

func TestLostUpdates(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	version := func() string {
		_, data := p.ask("GET", "/api/charts/6", nil)
		var c struct{ Version string }
		require.NoError(t, json.Unmarshal(data, &c))
		return fmt.Sprintf("%q", c.Version)
	}
	lost, turnedDown := 0, 0
	for i := range 400 {
		title, targets := fmt.Sprintf("Title %d", i), [][]string{{"third"}, {"fifth"}}[i%2]
		var both sync.WaitGroup
		for path, body := range map[string]any{
			"/api/charts/6":      map[string]any{"title": title, "key": "C", "feel": "shuffle", "tempo": 96, "beats": 4, "text": "| C7 |"},
			"/api/charts/6/plan": map[string]any{"targets": targets},
		} {
			both.Go(func() {
				for {
					status, _ := p.ask("PUT", path, body, "If-Match", version())
					if status == 200 {
						return
					}
					assert.Equal(t, 412, status)
					turnedDown++
				}
			})
		}
		both.Wait()
		_, data := p.ask("GET", "/api/charts/6", nil)
		var c struct {
			Title string
			Plan  struct{ Targets []string }
		}
		require.NoError(t, json.Unmarshal(data, &c))
		if c.Title != title || !slices.Equal(c.Plan.Targets, targets) {
			lost++
		}
	}
	t.Logf("400 rounds of two writers: %d refused and sent anew, %d lost", turnedDown, lost)
	assert.Zero(t, lost)
}
