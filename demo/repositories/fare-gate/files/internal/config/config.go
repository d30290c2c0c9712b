// Package config reads what a gate has to know about itself.
package config

import (
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"time"
)

// Settings of one gate.
type Settings struct {
	Gate       string        `json:"gate"`
	Terminal   string        `json:"terminal"`
	Capacity   int           `json:"capacity"`
	PublicKey  string        `json:"publicKey"`
	OpenFor    Duration      `json:"openFor"`
	OfficeURL  string        `json:"officeUrl"`
	GraceAfter Duration      `json:"graceAfter"`
}

// Duration reads "4s" and the like.
type Duration struct{ time.Duration }

func (d *Duration) UnmarshalJSON(data []byte) error {
	var text string
	if err := json.Unmarshal(data, &text); err != nil {
		return err
	}
	value, err := time.ParseDuration(text)
	d.Duration = value
	return err
}

var errNoCapacity = errors.New("capacity must be positive: a gate without it would let everybody in")

// Load reads and checks a file.
func Load(path string) (*Settings, error) {
	data, err := os.ReadFile(path)
	if err != nil {
		return nil, err
	}
	settings := &Settings{}
	if err := json.Unmarshal(data, settings); err != nil {
		return nil, fmt.Errorf("%s: %w", path, err)
	}
	if settings.Capacity <= 0 {
		return nil, fmt.Errorf("%s: %w", path, errNoCapacity)
	}
	return settings, nil
}
