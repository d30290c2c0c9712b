// Package berths has the awkward cases of the language: func Ghost() {}
package berths

import "sync"

const (
	_ = iota
	First
	Second, Third = 2, 3
)

const depth = 1.
const width = 2

var _ sync.Locker = (*Berth)(nil)

var (
	open, closed int
	table        = []struct {
		name string
		want func(a int) error
	}{
		{"a", func(a int) error { return nil }},
	}
)

var makers = map[string]func() Gate{
	"plain": func() Gate {
		type local struct{ at int }
		return nil
	},
}

type predicate struct {
	test func(r rune) bool
	name string
}

var isOpen = predicate{
	func(r rune) bool {
		return r != 0
	},
	"open",
}

type Gate interface {
	sync.Locker
	Open(ticket string) (bool, error)
}

type (
	Depth  float64
	Alias  = struct{ Inner int }
	Either interface{ ~int | ~string }
)

type Berth struct {
	sync.Mutex
	*Pair[string, int]
	name, side string `json:"name"`
	done       <-chan struct{}
	inner      struct {
		hidden int
	}
}

type Pair[K comparable, V any] struct {
	Key   K
	Value V
}

func (p *Pair[K, V]) Swap(with func() interface{}) interface{} {
	if with == nil {
		return nil
	}
	return with()
}

func (Berth) Reading() <-chan struct{} {
	return nil
}

func (b *Berth) Free() struct{ at int } {
	return struct{ at int }{1}
}

func Map[T, U any](in []T, f func(T) U) (out []U, err error) {
	type pair struct {
		left T
		right U
	}
	for _, some := range in {
		out = append(out, f(some))
	}
	return out, nil
}

func _() {
	var x [1]struct{}
	_ = x[0]
}

func after() string { return `func raw() {
}` + "func no() {" + string('{') }

func init() {}
