package count

import "testing"

func TestNobodyBoardsAFullFerry(t *testing.T) {
	c := New(1)
	if err := c.Board(); err != nil {
		t.Fatal(err)
	}
	if err := c.Board(); err != ErrFull {
		t.Fatal("expected a full ferry")
	}
}
