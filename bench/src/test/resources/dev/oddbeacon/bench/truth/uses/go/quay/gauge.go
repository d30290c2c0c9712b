// Package quay has what is measured at a quay.
package quay

import (
	"fmt"
	"sync"
)

// Depth in centimetres.
type Depth int

func (d Depth) String() string { return fmt.Sprintf("%d cm", int(d)) }

type Reading struct {
	Depth Depth
	Pier  string
	next  *Reading
}

type Sounder interface {
	Sound(pier string) (*Reading, error)
}

type Gauge struct {
	sync.Mutex
	Reading
	name, pier string
	readings   []*Reading
	byPier     map[string]*Reading
	onSound    func(*Reading) Depth
}

func NewGauge(name string) *Gauge {
	return &Gauge{name: name, byPier: map[string]*Reading{"": {Pier: name}}}
}

func (g *Gauge) last() *Reading {
	if n := len(g.readings); n > 0 {
		return g.readings[n-1]
	}
	return nil
}
