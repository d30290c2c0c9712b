package quay

import "errors"

var errNone = errors.New("no reading")

func (g *Gauge) Sound(pier string) (*Reading, error) {
	g.Lock()
	defer g.Unlock()
	if reading, ok := g.byPier[pier]; ok {
		reading.Depth++
		return reading, nil
	}
	last := g.last()
	if last == nil {
		return nil, errNone
	}
	made := &Reading{Depth: last.Depth, Pier: pier, next: last}
	g.readings = append(g.readings, made)
	g.byPier[made.Pier] = made
	if g.onSound != nil {
		g.Reading.Depth = g.onSound(made)
	}
	return made, nil
}

// Name is a function, not the name of a gauge.
func Name(g *Gauge) string { return g.name }

func sum(all []*Reading) (total Depth) {
	for _, one := range all {
		for at := one; at != nil; at = at.next {
			total += at.Depth
		}
	}
	return total
}

func (g *Gauge) Sum() Depth { return sum(g.readings) }
