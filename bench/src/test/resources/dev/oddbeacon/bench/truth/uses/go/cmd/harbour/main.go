package main

import (
	"fmt"

	"ferries.example/harbour/quay"
	"ferries.example/harbour/tide"
)

type watch struct {
	gauges map[string]*quay.Gauge
	done   chan *quay.Reading
}

func (w *watch) all() []*quay.Gauge {
	var all []*quay.Gauge
	for name, gauge := range w.gauges {
		if name == quay.Name(gauge) {
			all = append(all, gauge)
		}
	}
	return all
}

func main() {
	w := watch{gauges: map[string]*quay.Gauge{}, done: make(chan *quay.Reading)}
	w.gauges["north"] = quay.NewGauge("north")
	sound := func(gauge *quay.Gauge) (*quay.Reading, error) { return gauge.Sound("south") }
	for _, gauge := range w.all() {
		if reading, err := sound(gauge); err == nil {
			fmt.Println(reading.Depth.String(), gauge.Sum())
		}
	}
	table, err := tide.Sound(w.gauges["north"], "east", "west")
	if err != nil {
		fmt.Println(err)
		return
	}
	first := table.First()
	fmt.Println(first.Depth, first.Pier, table.Add(first).First().Pier)
	select {
	case reading := <-w.done:
		fmt.Println(reading.Pier)
	default:
		quay := "no package"
		fmt.Println(quay)
	}
	(&quay.Gauge{}).Sound("none")
}
