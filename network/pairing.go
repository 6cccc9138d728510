package network

import (
	"crypto/rand"
	"crypto/subtle"
	"fmt"
	"math/big"
	"sync"
	"time"
)

// A code is good once, for so long, until so many wrong ones came from wherever. It is one of a hundred million, so a guess in all
// that time is right once in ten million.
const (
	codeLasts  = 2 * time.Minute
	codeDigits = 8
	mostWrong  = 10
)

// Why there is no code.
const (
	neverBegun = ""
	wasUsed    = "The code was used."
	wasLate    = "The code was not typed within two minutes."
	wasGuessed = "Ten wrong codes came, so pairing is over. If that was not you, somebody in your network is guessing."
)

// pairing is the code that is waited for, if any.
type pairing struct {
	mu    sync.Mutex
	code  string
	until time.Time
	wrong int
	over  string // why there is none now
}

func (p *pairing) begin(now time.Time) (string, error) {
	n, err := rand.Int(rand.Reader, big.NewInt(100_000_000))
	if err != nil {
		return "", err
	}
	p.mu.Lock()
	defer p.mu.Unlock()
	p.code, p.until, p.wrong, p.over = fmt.Sprintf("%0*d", codeDigits, n), now.Add(codeLasts), 0, neverBegun
	return p.code, nil
}

func (p *pairing) end(why string) {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.code, p.over = "", why
}

// now is the code that is waited for, until when, and why there is none.
func (p *pairing) now(now time.Time) (code string, until time.Time, over string) {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.expire(now)
	return p.code, p.until, p.over
}

func (p *pairing) expire(now time.Time) {
	if p.code != "" && !now.Before(p.until) {
		p.code, p.over = "", wasLate
	}
}

// take tells whether this is the code, and then it is used.
func (p *pairing) take(code string, now time.Time) bool {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.expire(now)
	if p.code == "" {
		return false
	}
	if subtle.ConstantTimeCompare([]byte(code), []byte(p.code)) != 1 {
		if p.wrong++; p.wrong >= mostWrong {
			p.code, p.over = "", wasGuessed
		}
		return false
	}
	p.code, p.over = "", wasUsed
	return true
}
