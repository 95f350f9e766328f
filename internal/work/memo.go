package work

import (
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"sync"
)

// memo remembers what was computed of what; it lets go of all of it when it is full.
type memo[T any] struct {
	mu    sync.Mutex
	known map[[32]byte]T
}

// memoMost is how much it remembers.
const memoMost = 500

// get is what is known of a key, or what is made of it; an error is not remembered.
func (m *memo[T]) get(key any, compute func() (T, error)) (T, error) {
	text, err := json.Marshal(key)
	if err != nil {
		var none T
		return none, fmt.Errorf("work: %w", err) // a figure that is no number
	}
	sum := sha256.Sum256(text)
	m.mu.Lock()
	known, ok := m.known[sum]
	m.mu.Unlock()
	if ok {
		return known, nil
	}
	made, err := compute()
	if err != nil {
		return made, err
	}
	m.mu.Lock()
	defer m.mu.Unlock()
	if m.known == nil || len(m.known) >= memoMost {
		m.known = map[[32]byte]T{}
	}
	m.known[sum] = made
	return made, nil
}
