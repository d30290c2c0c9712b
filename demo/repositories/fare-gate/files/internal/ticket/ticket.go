// Package ticket knows which tickets are good.
package ticket

import (
	"crypto/ed25519"
	"encoding/base64"
	"errors"
	"strings"
	"time"
)

// Zone is a stretch of water; a ticket is good in one or in all.
type Zone string

const (
	ZoneHarbour Zone = "harbour"
	ZoneCoast   Zone = "coast"
	ZoneIslands Zone = "islands"
	ZoneAll     Zone = "all"
)

var (
	ErrMalformed = errors.New("this is not a ticket")
	ErrForged    = errors.New("the signature is wrong")
	ErrExpired   = errors.New("the ticket has expired")
	ErrZone      = errors.New("the ticket is not good here")
)

// Ticket as it is printed in the square code: serial|zone|expiry|signature
type Ticket struct {
	Serial string
	Zone   Zone
	Expiry time.Time
}

// Parse reads a code and checks its signature.
func Parse(code string, key ed25519.PublicKey) (*Ticket, error) {
	fields := strings.Split(code, "|")
	if len(fields) != 4 {
		return nil, ErrMalformed
	}
	signature, err := base64.RawURLEncoding.DecodeString(fields[3])
	if err != nil {
		return nil, ErrMalformed
	}
	if !ed25519.Verify(key, []byte(strings.Join(fields[:3], "|")), signature) {
		return nil, ErrForged
	}
	expiry, err := time.Parse(time.RFC3339, fields[2])
	if err != nil {
		return nil, ErrMalformed
	}
	return &Ticket{Serial: fields[0], Zone: Zone(fields[1]), Expiry: expiry}, nil
}

// Check says whether a ticket lets its bearer through now. Latecomers get a grace, because queues are our fault.
func (t *Ticket) Check(zone Zone, now time.Time, grace time.Duration) error {
	if now.After(t.Expiry.Add(grace)) {
		return ErrExpired
	}
	if t.Zone != ZoneAll && t.Zone != zone {
		return ErrZone
	}
	return nil
}
