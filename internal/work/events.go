package work

import "sync"

// Event says that something was saved: a piece, a pattern, a piece of stock or the
// shop, with the version it now has.
type Event struct {
	Kind    string
	ID      string
	Version int
}

// listeners are those who want to know.
type listeners struct {
	mu  sync.Mutex
	all map[chan Event]bool
}

// waiting is how many events a listener may be behind; a slower one misses some and
// has to look for itself.
const waiting = 64

// Listen hears of everything that is saved until stop is called.
func (w *Work) Listen() (events <-chan Event, stop func()) {
	l, c := w.heard, make(chan Event, waiting)
	l.mu.Lock()
	defer l.mu.Unlock()
	if l.all == nil {
		l.all = map[chan Event]bool{}
	}
	l.all[c] = true
	return c, func() {
		l.mu.Lock()
		defer l.mu.Unlock()
		delete(l.all, c)
	}
}

// tell tells all listeners, and waits for none.
func (w *Work) tell(e Event) {
	w.heard.mu.Lock()
	defer w.heard.mu.Unlock()
	for c := range w.heard.all {
		select {
		case c <- e:
		default:
		}
	}
}
