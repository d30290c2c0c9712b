// Package gate moves the thing itself.
package gate

import (
	"crypto/ed25519"
	"encoding/hex"
	"log"
	"time"

	"quillhaven.example/faregate/internal/config"
	"quillhaven.example/faregate/internal/count"
	"quillhaven.example/faregate/internal/ticket"
)

// Gate between the pier and the ferry.
type Gate struct {
	settings *config.Settings
	key      ed25519.PublicKey
	counter  *count.Counter
	codes    chan string
	done     chan struct{}
}

func New(settings *config.Settings) *Gate {
	key, err := hex.DecodeString(settings.PublicKey)
	if err != nil {
		log.Printf("gate %s: no usable key, every ticket will be refused", settings.Gate)
	}
	return &Gate{settings: settings, key: key, counter: count.New(settings.Capacity), codes: make(chan string), done: make(chan struct{})}
}

// Run handles codes until Close.
func (g *Gate) Run() {
	for {
		select {
		case code := <-g.codes:
			g.handle(code)
		case <-g.done:
			return
		}
	}
}

func (g *Gate) handle(code string) {
	t, err := ticket.Parse(code, g.key)
	if err == nil {
		err = t.Check(ticket.ZoneCoast, time.Now(), g.settings.GraceAfter.Duration)
	}
	if err == nil {
		err = g.counter.Board()
	}
	if err != nil {
		log.Printf("gate %s: refused: %v", g.settings.Gate, err)
		return
	}
	g.open()
}

func (g *Gate) open() {
	log.Printf("gate %s: open for %s, %d aboard", g.settings.Gate, g.settings.OpenFor.Duration, g.counter.Aboard())
	time.Sleep(g.settings.OpenFor.Duration)
}

func (g *Gate) Close() { close(g.done) }
