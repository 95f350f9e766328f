package shelf

import (
	"crypto/rand"
	"crypto/subtle"
	"errors"
	"fmt"
	"math/big"
	"sync"
	"time"
)

// How long a code counts, how often it may be tried, and how long the next try waits after so many wrong ones.
const (
	CodeFor   = 5 * time.Minute
	CodeTries = 5
	waitAfter = time.Second // doubled with every wrong try
)

// Errors of a pairing. A code that is wrong, run out, used or was never asked for is told alike.
var (
	ErrCode = errors.New("shelf: no such code")
	ErrSlow = errors.New("shelf: too soon after a wrong code")
)

// pairing is the code that the bench shows, if any.
type pairing struct {
	mu    sync.Mutex
	now   func() time.Time
	code  string
	kind  string // of who is paired by it
	until time.Time
	wrong int
	next  time.Time // that it may be tried again
}

// begin makes another code; the one before counts no more.
func (p *pairing) begin(kind string) (code string, until time.Time, err error) {
	n, err := rand.Int(rand.Reader, big.NewInt(1_000_000))
	if err != nil {
		return "", until, fmt.Errorf("shelf: %w", err)
	}
	p.mu.Lock()
	defer p.mu.Unlock()
	p.kind = kind
	p.code, p.until, p.wrong, p.next = fmt.Sprintf("%06d", n.Int64()), p.now().Add(CodeFor), 0, time.Time{}
	return p.code, p.until, nil
}

// end forgets the code.
func (p *pairing) end() {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.code = ""
}

// open is the code that counts now, if any.
func (p *pairing) open() (code, kind string, until time.Time, left int) {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.code == "" || !p.now().Before(p.until) {
		return "", "", time.Time{}, 0
	}
	return p.code, p.kind, p.until, CodeTries - p.wrong
}

// try takes a code; one that is right counts no more. After a wrong one the next has to wait, whoever tries it, and after
// five there is no code. It answers with the kind that is paired. Errors are ErrCode and ErrSlow.
func (p *pairing) try(given string) (kind string, err error) {
	p.mu.Lock()
	defer p.mu.Unlock()
	now := p.now()
	if now.Before(p.next) {
		return "", ErrSlow
	}
	counts := p.code != "" && now.Before(p.until)
	if counts && subtle.ConstantTimeCompare([]byte(p.code), []byte(given)) == 1 {
		p.code = ""
		return p.kind, nil
	}
	p.wrong++
	p.next = now.Add(waitAfter << min(p.wrong-1, 6))
	if p.wrong >= CodeTries {
		p.code = ""
	}
	return "", ErrCode
}
