package network

import (
	"net"
	"net/netip"
	"sync"
)

// Connections of strangers: so many at once, and so many from one address.
const (
	mostStrangers = 64
	mostFromOne   = 8
	mostOfDevice  = 32 // of one that was let in
)

// gate counts who is at the door, and knows the connections of each device.
type gate struct {
	mu        sync.Mutex
	strangers int
	from      map[netip.Addr]int
	of        map[string]map[*conn]bool
}

func newGate() *gate { return &gate{from: map[netip.Addr]int{}, of: map[string]map[*conn]bool{}} }

// gated lets in as many as there is room for; others are closed at once.
type gated struct {
	net.Listener
	gate *gate
}

func (l gated) Accept() (net.Conn, error) {
	for {
		raw, err := l.Listener.Accept()
		if err != nil {
			return nil, err
		}
		if c := l.gate.enter(raw); c != nil {
			return c, nil
		}
		_ = raw.Close()
	}
}

// conn is one connection: of a stranger until a device is known.
type conn struct {
	net.Conn
	gate   *gate
	from   netip.Addr
	device string
	closed bool
}

// counted is the address that somebody is counted by: of IPv6 the network, since each machine has very many of them.
func counted(a net.Addr) netip.Addr {
	at, err := netip.ParseAddrPort(a.String())
	if err != nil {
		return netip.Addr{}
	}
	ip := at.Addr().Unmap()
	if ip.Is6() {
		if p, err := ip.WithZone("").Prefix(64); err == nil {
			return p.Addr()
		}
	}
	return ip
}

func (g *gate) enter(raw net.Conn) *conn {
	c := &conn{Conn: raw, gate: g, from: counted(raw.RemoteAddr())}
	g.mu.Lock()
	defer g.mu.Unlock()
	if g.strangers >= mostStrangers || g.from[c.from] >= mostFromOne {
		return nil
	}
	g.strangers++
	g.from[c.from]++
	return c
}

func (g *gate) leave(c *conn) {
	g.strangers--
	if g.from[c.from]--; g.from[c.from] <= 0 {
		delete(g.from, c.from)
	}
}

// prove makes a connection one of a device; false where that has as many as it may.
func (c *conn) prove(device string) bool {
	g := c.gate
	g.mu.Lock()
	defer g.mu.Unlock()
	if c.closed || c.device == device {
		return true
	}
	if len(g.of[device]) >= mostOfDevice {
		return false
	}
	if c.device == "" {
		g.leave(c)
	} else {
		g.forget(c)
	}
	c.device = device
	if g.of[device] == nil {
		g.of[device] = map[*conn]bool{}
	}
	g.of[device][c] = true
	return true
}

func (g *gate) forget(c *conn) {
	delete(g.of[c.device], c)
	if len(g.of[c.device]) == 0 {
		delete(g.of, c.device)
	}
}

func (c *conn) Close() error {
	g := c.gate
	g.mu.Lock()
	if !c.closed {
		c.closed = true
		if c.device == "" {
			g.leave(c)
		} else {
			g.forget(c)
		}
	}
	g.mu.Unlock()
	return c.Conn.Close()
}

// putOut closes all that a device has open, sockets too.
func (g *gate) putOut(device string) {
	g.mu.Lock()
	var all []*conn
	for c := range g.of[device] {
		all = append(all, c)
	}
	g.mu.Unlock()
	for _, c := range all {
		_ = c.Close()
	}
}

// open is how many connections a device has.
func (g *gate) open(device string) int {
	g.mu.Lock()
	defer g.mu.Unlock()
	return len(g.of[device])
}
