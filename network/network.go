package network

import (
	"crypto/tls"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"log"
	"log/slog"
	"net"
	"net/http"
	"net/netip"
	"os"
	"path/filepath"
	"slices"
	"sync"
	"time"
)

const (
	settingsFile = "settings.json"
	usualPort    = 4765
	looks        = 5 * time.Second // after which it looks whether addresses changed
)

// Network is the second listener: off until it is switched on.
type Network struct {
	dir     string
	log     *slog.Logger
	now     func() time.Time
	private func() ([]netip.Addr, error)
	read    func([]string) ([]netip.Addr, error)
	pairing pairing
	devices *devices
	gate    *gate
	server  *http.Server

	mu      sync.Mutex
	on      bool
	set     settings
	stays   bool // it was switched on for good, not for this start alone
	open    map[netip.Addr]net.Listener
	cert    tls.Certificate
	told    string // what changed since the player looked
	trouble string // what keeps it from being reached
	stop    chan struct{}
}

// settings are there as long as it is switched on.
type settings struct {
	Addresses []string `json:"addresses"` // none: all private ones that there are
	Port      int      `json:"port"`
}

// State is what a player sees of it.
type State struct {
	On          bool      `json:"on" doc:"other devices in the network can be let in"`
	Addresses   []Address `json:"addresses" doc:"private addresses of this machine, and those that were named"`
	Named       bool      `json:"named" doc:"the addresses were named; else all private ones are taken"`
	Fingerprint string    `json:"fingerprint" doc:"SHA-256 of the certificate, to compare with what the browser of a device shows"`
	Until       time.Time `json:"until" doc:"how long the certificate is good"`
	Told        string    `json:"told" doc:"what changed: addresses, and with them the certificate"`
	Trouble     string    `json:"trouble" doc:"why it cannot be reached, if so"`
	Code        string    `json:"code" doc:"eight digits, while a device is waited for"`
	CodeUntil   time.Time `json:"codeUntil"`
	Over        string    `json:"over" doc:"why there is no code any more"`
	Devices     []Seen    `json:"devices" doc:"those that were paired, the last used first"`
}

// Address is one to be reached by.
type Address struct {
	Address string `json:"address"`
	URL     string `json:"url" doc:"nothing where it is not listened on"`
	Here    bool   `json:"here" doc:"this machine has it now"`
	QR      Drawn  `json:"qr" doc:"the way to pair there, while a device is waited for"`
}

// Seen is a device as a player sees it.
type Seen struct {
	ID     string    `json:"id"`
	Name   string    `json:"name"`
	Paired time.Time `json:"paired"`
	Used   time.Time `json:"used"`
	Open   int       `json:"open" doc:"connections that it has now"`
}

// New is the network of a library, switched on if it was. database names the library's database, and changes with a restore.
func New(data string, database func() string, log *slog.Logger) *Network {
	n := &Network{dir: filepath.Join(data, "network"), log: log, now: time.Now, private: Addresses, read: named, gate: newGate(), open: map[netip.Addr]net.Listener{}}
	var err error
	if n.devices, err = openDevices(n.dir, database); err != nil {
		log.Error("devices", "error", err.Error())
		n.told = "Which devices were paired could not be read; pair them anew."
	}
	return n
}

// Serve hands over what is behind the door, and goes on with what was switched on before.
func (n *Network) Serve(behind http.Handler) error {
	n.server = &http.Server{Handler: door{n, behind}, ConnContext: withConn, ReadHeaderTimeout: strangerTime, WriteTimeout: time.Minute,
		IdleTimeout: 2 * time.Minute, MaxHeaderBytes: 16 << 10, ErrorLog: log.New(io.Discard, "", 0)} // strangers cannot fill the log
	n.server.Protocols = new(http.Protocols)
	n.server.Protocols.SetHTTP1(true)
	text, err := os.ReadFile(filepath.Join(n.dir, settingsFile))
	if errors.Is(err, os.ErrNotExist) {
		return nil
	}
	var set settings
	if err == nil {
		err = json.Unmarshal(text, &set)
	}
	if err != nil {
		return fmt.Errorf("what the network was set to cannot be read: %w", err)
	}
	return n.On(set.Addresses, true)
}

// On opens it at the addresses named, or at all private ones where none is; named ones that are not there yet are waited for. Where it
// stays, it is so the next time too.
func (n *Network) On(addresses []string, stays bool) error {
	if _, err := n.read(addresses); err != nil {
		return err
	}
	n.mu.Lock()
	defer n.mu.Unlock()
	n.set.Addresses, n.stays = addresses, stays
	if n.set.Port == 0 {
		n.set.Port = n.keptPort()
	}
	if !n.on {
		n.on, n.stop = true, make(chan struct{})
		go n.look(n.stop)
	}
	n.listen()
	return n.save()
}

func (n *Network) keptPort() int {
	var set settings
	text, err := os.ReadFile(filepath.Join(n.dir, settingsFile))
	if err == nil && json.Unmarshal(text, &set) == nil && set.Port > 0 && set.Port < 1<<16 {
		return set.Port
	}
	return usualPort
}

func (n *Network) save() error {
	if !n.stays {
		return nil
	}
	text, err := json.Marshal(n.set)
	if err != nil {
		return err
	}
	return keep(n.dir, settingsFile, text)
}

// Off closes it and whatever came by it. Which devices were paired is kept, for the next time.
func (n *Network) Off() error {
	n.mu.Lock()
	defer n.mu.Unlock()
	n.shut()
	if err := os.Remove(filepath.Join(n.dir, settingsFile)); err != nil && !errors.Is(err, os.ErrNotExist) {
		return err
	}
	return nil
}

func (n *Network) shut() {
	if !n.on {
		return
	}
	n.on = false
	close(n.stop)
	n.pairing.end(neverBegun)
	for a, l := range n.open {
		_ = l.Close()
		delete(n.open, a)
	}
	n.told, n.trouble = "", ""
	devices, _ := n.devices.list(n.now())
	for _, d := range devices {
		n.gate.putOut(d.ID)
	}
}

// Close ends it with the program; what was switched on stays so.
func (n *Network) Close() {
	n.mu.Lock()
	n.shut()
	n.mu.Unlock()
	if n.server != nil {
		_ = n.server.Close()
	}
	n.devices.close(n.now())
}

// look follows the machine from network to network, and puts out whoever a restore made a stranger.
func (n *Network) look(stop chan struct{}) {
	for {
		select {
		case <-stop:
			return
		case <-time.After(looks):
		}
		n.mu.Lock()
		if n.on && n.stop == stop {
			n.listen()
		}
		n.mu.Unlock()
		_, gone := n.devices.list(n.now())
		for _, id := range gone {
			n.gate.putOut(id)
		}
	}
}

// wanted are the addresses to listen on now: those named, or all, as far as this machine has them.
func (n *Network) wanted() []netip.Addr {
	have, err := n.private()
	if err != nil {
		n.trouble = fmt.Sprintf("Which addresses this machine has cannot be told: %v", err)
		return nil
	}
	if len(n.set.Addresses) == 0 {
		return have
	}
	want, _ := n.read(n.set.Addresses)
	return slices.DeleteFunc(want, func(a netip.Addr) bool { return !slices.Contains(have, a) })
}

// listen opens and closes listeners until they are at the addresses wanted, with a certificate for them.
func (n *Network) listen() {
	n.trouble = ""
	want := n.wanted()
	for a, l := range n.open {
		if !slices.Contains(want, a) {
			_ = l.Close()
			delete(n.open, a)
		}
	}
	if len(want) == 0 {
		if n.trouble == "" {
			n.trouble = "This machine is in no network of its own now; Undaris looks again every few seconds."
		}
		return
	}
	cert, fresh, err := certificate(n.dir, want, n.now())
	if err != nil {
		n.trouble = err.Error()
		return
	}
	if fresh {
		n.told = "The addresses changed or the certificate was at its end, so there is a new certificate: each device warns once more, and its fingerprint is another."
	}
	n.cert = cert
	for _, a := range want {
		if n.open[a] != nil {
			continue
		}
		l, err := net.Listen("tcp", netip.AddrPortFrom(a, uint16(n.set.Port)).String())
		if err != nil && len(n.open) == 0 { // another program has the port: any other, from now on
			if l, err = net.Listen("tcp", netip.AddrPortFrom(a, 0).String()); err == nil {
				n.set.Port = l.Addr().(*net.TCPAddr).Port
				_ = n.save()
			}
		}
		if err != nil {
			n.trouble = fmt.Sprintf("%s cannot be listened on: %v", a, err)
			continue
		}
		n.open[a] = l
		secured := tls.NewListener(gated{l, n.gate}, &tls.Config{MinVersion: tls.VersionTLS12, NextProtos: []string{"http/1.1"},
			GetCertificate: func(*tls.ClientHelloInfo) (*tls.Certificate, error) {
				n.mu.Lock()
				defer n.mu.Unlock()
				return &n.cert, nil
			}})
		go func() {
			if err := n.server.Serve(secured); err != nil && !errors.Is(err, net.ErrClosed) && !errors.Is(err, http.ErrServerClosed) {
				n.log.Error("network", "error", err.Error())
			}
		}()
	}
}

// Pair begins to wait for a device, with a new code.
func (n *Network) Pair() error {
	n.mu.Lock()
	defer n.mu.Unlock()
	if !n.on {
		return errors.New("the network is switched off")
	}
	n.told = "" // who pairs anew has seen it
	_, err := n.pairing.begin(n.now())
	return err
}

// EndPairing waits no longer.
func (n *Network) EndPairing() { n.pairing.end(neverBegun) }

// PutOut ends the session of a device and closes all that it has open.
func (n *Network) PutOut(id string) (bool, error) {
	was, err := n.devices.remove(id, n.now())
	n.gate.putOut(id)
	return was, err
}

// State is how it stands.
func (n *Network) State() State {
	devices, gone := n.devices.list(n.now())
	for _, id := range gone {
		n.gate.putOut(id)
	}
	n.mu.Lock()
	defer n.mu.Unlock()
	s := State{On: n.on, Named: len(n.set.Addresses) > 0, Told: n.told, Trouble: n.trouble, Addresses: []Address{}, Devices: []Seen{}}
	for _, d := range devices {
		s.Devices = append(s.Devices, Seen{d.ID, d.Name, d.Paired, d.Used, n.gate.open(d.ID)})
	}
	have, _ := n.private()
	all := slices.Clone(have)
	if named, err := n.read(n.set.Addresses); err == nil {
		for _, a := range named {
			if !slices.Contains(all, a) {
				all = append(all, a)
			}
		}
	}
	if n.on {
		s.Fingerprint = fingerprint(n.cert)
		if n.cert.Leaf != nil {
			s.Until = n.cert.Leaf.NotAfter
		}
		s.Code, s.CodeUntil, s.Over = n.pairing.now(n.now())
	}
	for _, a := range all {
		at := Address{Address: a.String(), Here: slices.Contains(have, a)}
		if l := n.open[a]; l != nil {
			at.URL = "https://" + l.Addr().String()
			if s.Code != "" {
				at.QR, _ = draw(at.URL + pairPath + "#" + s.Code)
			}
		}
		s.Addresses = append(s.Addresses, at)
	}
	return s
}

// Printed is how it stands, for a terminal: addresses, fingerprint, and while a device is waited for its code.
func (n *Network) Printed() string {
	s := n.State()
	out := ""
	for _, a := range s.Addresses {
		if a.URL == "" {
			continue
		}
		out += fmt.Sprintf("Devices in your network find it at %s\n", a.URL)
		if s.Code != "" {
			if code, err := printed(a.URL + pairPath + "#" + s.Code); err == nil {
				out += code
			}
		}
	}
	if s.Code != "" {
		out += fmt.Sprintf("Code: %s, good once and for two minutes; the application gives others.\n", s.Code)
	}
	if s.Trouble != "" {
		out += s.Trouble + "\n"
	}
	if s.Fingerprint != "" && out != "" {
		out += "The browser of a device warns of a certificate that nobody vouches for; it is this one if its SHA-256 is\n" + s.Fingerprint + "\n"
	}
	return out
}
