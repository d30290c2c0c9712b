// Package count knows how many people are on board.
package count

import (
	"errors"
	"sync"
)

// ErrFull means that nobody else may board: the certificate says how many life jackets there are.
var ErrFull = errors.New("the ferry is full")

// Counter is safe for concurrent use: a terminal may have two gates.
type Counter struct {
	mu       sync.Mutex
	aboard   int
	capacity int
}

func New(capacity int) *Counter { return &Counter{capacity: capacity} }

// Board counts one in.
func (c *Counter) Board() error {
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.aboard >= c.capacity {
		return ErrFull
	}
	c.aboard++
	return nil
}

// Leave counts one out; never below nought, for children who duck under the gate.
func (c *Counter) Leave() {
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.aboard > 0 {
		c.aboard--
	}
}

func (c *Counter) Aboard() int {
	c.mu.Lock()
	defer c.mu.Unlock()
	return c.aboard
}
