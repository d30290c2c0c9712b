package tide

import (
	q "ferries.example/harbour/quay"
)

// Reading has the name of another.
type Reading struct {
	Depth float64
	name  string
}

type Table[T any] struct {
	rows []T
}

func (t *Table[R]) First() R { return t.rows[0] }

func (t *Table[R]) Add(row R) *Table[R] {
	t.rows = append(t.rows, row)
	return t
}

func Sound(sounder q.Sounder, piers ...string) (*Table[*q.Reading], error) {
	table := &Table[*q.Reading]{}
	for _, pier := range piers {
		reading, err := sounder.Sound(pier)
		if err != nil {
			return nil, err
		}
		table.Add(reading)
	}
	return table, nil
}

func compare(one Reading, other *q.Reading, anything any) float64 {
	switch it := anything.(type) {
	case *q.Gauge:
		if found, err := it.Sound("north"); err == nil {
			return float64(found.Depth)
		}
		return float64(it.Depth)
	case Reading:
		return it.Depth
	case interface{ Sum() q.Depth }:
		return float64(it.Sum())
	}
	name := one.name
	_ = q.Reading{Depth: 3, Pier: name}
	_ = Reading{Depth: 1.5, name: name}
	return one.Depth - float64(other.Depth)
}
