package server

import (
	"slices"
	"sync"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/gorilla/websocket"
	"github.com/segmentio/encoding/json"

	"undaris/network"
)

// Deed is something that a device has the page do that plays.
type Deed string

// deeds are all there are.
var deeds = []Deed{"play", "next", "back", "loop", "again", "slower", "faster", "show", "keep"}

// What goes over a socket of those that follow. A page at the laptop says where it stands; devices say what it shall do; each tells
// what it kept, and asks for the time.
type joined struct {
	Ping *float64        `json:"ping,omitempty"` // the asker's clock, to be given back
	Pong *float64        `json:"pong,omitempty"`
	At   *float64        `json:"at,omitempty"`    // with pong: this server's clock in milliseconds
	Lead json.RawMessage `json:"lead,omitempty"`  // where a page stands and what it plays; null when it no longer does
	Do   Deed            `json:"do,omitempty"`    // of a device
	News json.RawMessage `json:"news,omitempty"`  // what was kept, as tabs of one browser tell each other
	Note string          `json:"error,omitempty"` // why nothing was done
}

// Limits of such a socket.
const (
	mostFollowed  = 16 << 10 // bytes in a message
	mostFollowers = 48
	mostSecond    = 60 // messages in a second; more is no player
	mostWaiting   = 64 // messages to somebody slow
	followSilent  = 45 * time.Second
	followPings   = 15 * time.Second
)

// hub joins those that follow with the page that plays.
type hub struct {
	mu     sync.Mutex
	began  time.Time
	all    []*follower
	leader *follower
	lead   json.RawMessage // what the leader said last
}

type follower struct {
	device  bool
	waiting chan joined
	out     func()
}

func (h *hub) milliseconds() float64 { return float64(time.Since(h.began).Microseconds()) / 1000 }

// enter lets somebody in and tells where the band stands.
func (h *hub) enter(f *follower) bool {
	h.mu.Lock()
	defer h.mu.Unlock()
	if len(h.all) >= mostFollowers {
		return false
	}
	h.all = append(h.all, f)
	if f.device && h.lead != nil {
		f.tell(joined{Lead: h.lead})
	}
	return true
}

func (h *hub) leave(f *follower) {
	h.mu.Lock()
	defer h.mu.Unlock()
	h.all = slices.DeleteFunc(h.all, func(g *follower) bool { return g == f })
	if h.leader == f {
		h.leader, h.lead = nil, nil
		h.others(f, true, joined{Lead: json.RawMessage("null")})
	}
}

// others tells all but one; those that are too slow to be told are put out, and come back.
func (h *hub) others(but *follower, devices bool, what joined) {
	for _, f := range h.all {
		if f != but && (!devices || f.device) {
			f.tell(what)
		}
	}
}

func (f *follower) tell(what joined) {
	select {
	case f.waiting <- what:
	default:
		f.out()
	}
}

// hear does what one of them said; its answer is for the sayer.
func (h *hub) hear(f *follower, in joined) (answer *joined) {
	h.mu.Lock()
	defer h.mu.Unlock()
	switch {
	case in.Ping != nil:
		now := h.milliseconds()
		return &joined{Pong: in.Ping, At: &now}
	case in.Lead != nil && f.device:
		return &joined{Note: "a device follows; it does not lead"}
	case in.Lead != nil:
		var playing struct{ Playing bool }
		if err := json.Unmarshal(in.Lead, &playing); err != nil {
			return &joined{Note: "what was said of the band cannot be read"}
		}
		// Of several pages the one that plays leads, or else the one that spoke last.
		var before struct{ Playing bool }
		_ = json.Unmarshal(h.lead, &before)
		if h.leader != nil && h.leader != f && before.Playing && !playing.Playing {
			return nil
		}
		h.leader, h.lead = f, in.Lead
		h.others(f, true, joined{Lead: in.Lead})
	case in.Do != "":
		if !slices.Contains(deeds, in.Do) {
			return &joined{Note: "there is no such deed"}
		}
		if h.leader == nil {
			return &joined{Note: "no page is open at the laptop"}
		}
		h.leader.tell(joined{Do: in.Do})
	case in.News != nil:
		h.others(f, false, joined{News: in.News})
	}
	return nil
}

// follows joins pages at the laptop with devices: one socket for each.
func (s *server) follows(engine *gin.Engine) {
	h := &hub{began: time.Now()}
	engine.GET("/api/follow", func(c *gin.Context) {
		_, device := network.From(c.Request.Context())
		f := &follower{device: device, waiting: make(chan joined, mostWaiting)}
		conn, err := upgrader.Upgrade(c.Writer, c.Request, nil)
		if err != nil {
			return // it was answered
		}
		defer func() { _ = conn.Close() }()
		f.out = func() { _ = conn.Close() }
		if !h.enter(f) {
			_ = conn.WriteControl(websocket.CloseMessage, websocket.FormatCloseMessage(websocket.CloseTryAgainLater, "too many follow already"), time.Now().Add(time.Second))
			return
		}
		defer h.leave(f)
		done := make(chan struct{})
		defer close(done)
		go f.write(conn, done)
		conn.SetReadLimit(mostFollowed)
		quiet := func(string) error { return conn.SetReadDeadline(time.Now().Add(followSilent)) }
		_ = quiet("")
		conn.SetPongHandler(quiet)
		second, many := time.Now(), 0
		for {
			_, message, err := conn.ReadMessage()
			if err != nil {
				return
			}
			_ = quiet("")
			if time.Since(second) > time.Second {
				second, many = time.Now(), 0
			}
			if many++; many > mostSecond {
				return
			}
			var in joined
			if deeper(message, maxDepth) || json.Unmarshal(message, &in) != nil {
				f.tell(joined{Note: "this is no message of a page of Undaris"})
				continue
			}
			if answer := h.hear(f, in); answer != nil {
				f.tell(*answer)
			}
		}
	})
}

// write writes what waits for one of them until it is gone, and asks now and then whether it is still there.
func (f *follower) write(conn *websocket.Conn, done chan struct{}) {
	alive := time.NewTicker(followPings)
	defer alive.Stop()
	for {
		var err error
		select {
		case <-done:
			return
		case what := <-f.waiting:
			_ = conn.SetWriteDeadline(time.Now().Add(writesFor))
			err = conn.WriteJSON(what)
		case <-alive.C:
			err = conn.WriteControl(websocket.PingMessage, nil, time.Now().Add(writesFor))
		}
		if err != nil {
			_ = conn.Close()
			return
		}
	}
}
