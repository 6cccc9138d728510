package hostile

import (
	"encoding/json"
	"fmt"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/gorilla/websocket"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// ear opens a socket that listens to a line.
func (p *program) ear(line any) (*websocket.Conn, error) {
	c, _, err := websocket.DefaultDialer.Dial(strings.Replace(p.url, "http", "ws", 1)+"/api/ear", nil)
	if err != nil {
		return nil, err
	}
	if err := c.WriteJSON(object{"line": line, "tempo": 120}); err != nil {
		return nil, err
	}
	var out struct{ Error string }
	if err := c.ReadJSON(&out); err != nil {
		return nil, err
	}
	if out.Error != "" {
		return nil, fmt.Errorf("%s", out.Error)
	}
	return c, nil
}

// strokes are what an ear notices of notes of a line, from one up to another.
func strokes(from, to int) (list []object) {
	for i := from; i < to; i++ {
		at, midi := float64(i*240), 60+i%9
		list = append(list,
			object{"seq": 3*i + 1, "kind": "attack", "tick": at},
			object{"seq": 3*i + 2, "kind": "settled", "of": 3*i + 1, "tick": at + 30, "midi": midi},
			object{"seq": 3*i + 3, "kind": "salience", "of": 3*i + 1, "tick": at + 60, "fresh": 0.9, "level": -20, "candidates": [][]float64{{float64(midi), 1}}})
	}
	return list
}

// Twenty takes of the longest line at once, each note of it: questions of others are answered as
// before, in little memory, and it ends within a second.
func TestTwentyEars(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	p.ask("PUT", "/api/player", bigNeck)
	line := bigLine(4000)
	one := func() time.Duration {
		least := time.Hour
		for range 7 {
			now := time.Now()
			status, data := p.ask("GET", "/api/charts/1/map?low=3&high=7", nil)
			require.Equal(t, 200, status, string(data))
			least = min(least, time.Since(now))
		}
		return least
	}
	alone := one()
	p.reset()
	var ears []*websocket.Conn
	for range 20 {
		c, err := p.ear(line)
		require.NoError(t, err)
		defer c.Close()
		ears = append(ears, c)
	}
	var messages, slowest atomic.Int64
	var playing sync.WaitGroup
	over := make(chan struct{})
	for _, c := range ears {
		playing.Go(func() {
			for i := 0; i < 4000; i += 10 {
				select {
				case <-over:
					return
				default:
				}
				data, _ := json.Marshal(object{"observations": strokes(i, i+10), "now": float64(i+10) * 240})
				now := time.Now()
				if c.WriteMessage(websocket.TextMessage, data) != nil {
					return
				}
				var out struct{ Error string }
				if c.ReadJSON(&out) != nil {
					return
				}
				assert.Empty(t, out.Error)
				messages.Add(1)
				slowest.Store(max(slowest.Load(), int64(time.Since(now))))
				time.Sleep(time.Until(now.Add(100 * time.Millisecond))) // as a page does
			}
		})
	}
	time.Sleep(3 * time.Second)
	beside := one()
	time.Sleep(38 * time.Second)
	late := one()
	peak := p.peak()
	took := p.end()
	close(over)
	playing.Wait()
	t.Logf("20 takes of 4,000 notes: %d messages, slowest %d ms; a map %.1f ms alone, %.1f beside them, %.1f when they are long; peak %d MB; ended in %d ms",
		messages.Load(), slowest.Load()/1e6, ms(alone), ms(beside), ms(late), peak, took.Milliseconds())
	assert.Greater(t, messages.Load(), int64(20*350))
	assert.LessOrEqual(t, late, 20*alone+20*time.Millisecond)
	assert.LessOrEqual(t, peak, 150)
	assert.Less(t, took, maxEnding)
}

// There are no more ears than there can be, and one that closes makes room; a take that is too long
// is ended in words.
func TestTooManyEarsAndTooLong(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	p.ask("PUT", "/api/player", bigNeck)
	line := bigLine(1)
	var ears []*websocket.Conn
	for {
		c, err := p.ear(line)
		if err != nil {
			break
		}
		ears = append(ears, c)
		require.Less(t, len(ears), 100)
	}
	require.Greater(t, len(ears), 19)
	ears[0].Close()
	require.Eventually(t, func() bool { c, err := p.ear(line); return err == nil && c.Close() == nil }, 5*time.Second, 50*time.Millisecond)
	for i := 0; ; i += 500 {
		require.Less(t, i, 200_000, "it is ended at last")
		require.NoError(t, ears[1].WriteJSON(object{"observations": strokes(i, i+500)}))
		var out struct{ Error string }
		require.NoError(t, ears[1].ReadJSON(&out))
		if out.Error != "" {
			assert.Contains(t, out.Error, "play a part of it")
			break
		}
	}
	p.alive()
	assert.LessOrEqual(t, p.peak(), 150)
	t.Logf("%d ears at most, peak %d MB", len(ears), p.peak())
}
