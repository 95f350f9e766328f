package shelf

import (
	"net"
	"net/http"
	"sync"

	"golang.org/x/time/rate"
)

// How much one address may ask, and how many addresses are remembered.
const (
	perSecond = 25
	atOnce    = 120
	mostPeers = 500
)

// rates counts requests by address.
type rates struct {
	mu  sync.Mutex
	all map[string]*rate.Limiter
}

func newRates() *rates { return &rates{all: map[string]*rate.Limiter{}} }

// may tells whether an address may ask once more.
func (r *rates) may(req *http.Request) bool {
	host, _, err := net.SplitHostPort(req.RemoteAddr)
	if err != nil {
		host = req.RemoteAddr
	}
	r.mu.Lock()
	defer r.mu.Unlock()
	l := r.all[host]
	if l == nil {
		if len(r.all) >= mostPeers {
			clear(r.all)
		}
		l = rate.NewLimiter(perSecond, atOnce)
		r.all[host] = l
	}
	return l.Allow()
}
