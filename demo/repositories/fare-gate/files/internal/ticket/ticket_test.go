package ticket

import (
	"testing"
	"time"
)

func TestLatecomersGetAGrace(t *testing.T) {
	expiry := time.Date(2025, 7, 1, 12, 0, 0, 0, time.UTC)
	late := &Ticket{Serial: "1", Zone: ZoneCoast, Expiry: expiry}
	if err := late.Check(ZoneCoast, expiry.Add(time.Minute), 5*time.Minute); err != nil {
		t.Fatalf("a minute late: %v", err)
	}
	if err := late.Check(ZoneCoast, expiry.Add(time.Hour), 5*time.Minute); err != ErrExpired {
		t.Fatalf("an hour late: %v", err)
	}
}

func TestZonesAreKeptApart(t *testing.T) {
	ticket := &Ticket{Zone: ZoneHarbour, Expiry: time.Now().Add(time.Hour)}
	if err := ticket.Check(ZoneIslands, time.Now(), 0); err != ErrZone {
		t.Fatal(err)
	}
}
