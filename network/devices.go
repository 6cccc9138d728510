package network

import (
	"crypto/rand"
	"crypto/sha256"
	"crypto/subtle"
	"encoding/base64"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"time"
	"unicode"
)

// A session is over when it was not used for so long; so many devices there are at most.
const (
	idle        = 30 * 24 * time.Hour
	mostDevices = 16
	longestName = 40
	noted       = 10 * time.Minute // after which the last use is written down anew
)

const devicesFile = "devices.json"

// Device is one that was let in.
type Device struct {
	ID     string    `json:"id"`
	Name   string    `json:"name"`
	Paired time.Time `json:"paired"`
	Used   time.Time `json:"used"`
	Hash   string    `json:"hash"` // SHA-256 of its token, which is nowhere but in its cookie
}

// devices are those that were paired with one database: they are strangers to any other, also to the one that a restore brings.
type devices struct {
	mu       sync.Mutex
	dir      string
	database func() string
	of       string
	all      []Device
	written  time.Time
}

type devicesKept struct {
	Database string   `json:"database"`
	Devices  []Device `json:"devices"`
}

func openDevices(dir string, database func() string) (*devices, error) {
	d := &devices{dir: dir, database: database}
	var kept devicesKept
	text, err := os.ReadFile(filepath.Join(dir, devicesFile))
	if errors.Is(err, os.ErrNotExist) {
		return d, nil
	}
	if err == nil {
		err = json.Unmarshal(text, &kept)
	}
	if err != nil {
		return d, fmt.Errorf("which devices were paired cannot be read, so they are paired anew: %w", err)
	}
	d.of, d.all = kept.Database, kept.Devices[:min(len(kept.Devices), mostDevices)]
	return d, nil
}

// still leaves out whoever was paired with another database, or was not here for long. It tells who is gone.
func (d *devices) still(now time.Time) (gone []string) {
	here := d.database()
	d.all = slices.DeleteFunc(d.all, func(v Device) bool {
		over := d.of != here || now.Sub(v.Used) > idle
		if over {
			gone = append(gone, v.ID)
		}
		return over
	})
	d.of = here
	if gone != nil {
		_ = d.write(now)
	}
	return gone
}

func (d *devices) write(now time.Time) error {
	text, err := json.MarshalIndent(devicesKept{d.of, d.all}, "", " ")
	if err != nil {
		return err
	}
	d.written = now
	return keep(d.dir, devicesFile, text)
}

// add lets a device in. Its token is 256 random bits.
func (d *devices) add(name string, now time.Time) (Device, string, error) {
	d.mu.Lock()
	defer d.mu.Unlock()
	d.still(now)
	if len(d.all) >= mostDevices {
		return Device{}, "", fmt.Errorf("%d devices are paired already; put one out at the laptop", mostDevices)
	}
	var bits, id [32]byte
	_, _ = rand.Read(bits[:]) // never fails
	_, _ = rand.Read(id[:])
	token := base64.RawURLEncoding.EncodeToString(bits[:])
	device := Device{ID: hex.EncodeToString(id[:8]), Name: tidy(name), Paired: now, Used: now, Hash: hashOf(token)}
	d.all = append(d.all, device)
	if err := d.write(now); err != nil {
		d.all = d.all[:len(d.all)-1]
		return Device{}, "", fmt.Errorf("the device could not be kept: %w", err)
	}
	return device, token, nil
}

// known is the device whose token this is.
func (d *devices) known(token string, now time.Time) (device Device, gone []string, ok bool) {
	d.mu.Lock()
	defer d.mu.Unlock()
	gone = d.still(now)
	hash := hashOf(token)
	for i := range d.all {
		if subtle.ConstantTimeCompare([]byte(d.all[i].Hash), []byte(hash)) == 1 {
			d.all[i].Used = now
			if now.Sub(d.written) > noted {
				_ = d.write(now)
			}
			return d.all[i], gone, true
		}
	}
	return Device{}, gone, false
}

// list are the devices, the last used first, and who is gone.
func (d *devices) list(now time.Time) (all []Device, gone []string) {
	d.mu.Lock()
	defer d.mu.Unlock()
	gone = d.still(now)
	all = slices.Clone(d.all)
	slices.SortFunc(all, func(a, b Device) int { return b.Used.Compare(a.Used) })
	return all, gone
}

// remove puts a device out.
func (d *devices) remove(id string, now time.Time) (bool, error) {
	d.mu.Lock()
	defer d.mu.Unlock()
	i := slices.IndexFunc(d.all, func(v Device) bool { return v.ID == id })
	if i < 0 {
		return false, nil
	}
	d.all = slices.Delete(d.all, i, i+1)
	return true, d.write(now)
}

// close writes down when each was used last.
func (d *devices) close(now time.Time) {
	d.mu.Lock()
	defer d.mu.Unlock()
	if len(d.all) > 0 {
		_ = d.write(now)
	}
}

func hashOf(token string) string {
	sum := sha256.Sum256([]byte(token))
	return hex.EncodeToString(sum[:])
}

// tidy is a name as it may be shown: of letters, figures and signs, and not long.
func tidy(name string) string {
	name = strings.TrimSpace(strings.Map(func(r rune) rune {
		if !unicode.IsPrint(r) {
			return -1
		}
		return r
	}, strings.ToValidUTF8(name, "")))
	if runes := []rune(name); len(runes) > longestName {
		name = strings.TrimSpace(string(runes[:longestName]))
	}
	if name == "" {
		return "a device"
	}
	return name
}
