package pack

import (
	"time"

	"epitrope/core/prove"
	"epitrope/core/signoff"
)

// Certificate is what was signed for: what was proven with its values beside its bands, what was waived and stated, and what
// is kept for others.
type Certificate struct {
	Number   int            `json:"number"`
	By       string         `json:"by"`
	At       time.Time      `json:"at"`
	Lines    []ProvenLine   `json:"lines"`
	Gates    []signoff.Gate `json:"gates"`
	Reserved []string       `json:"reserved"`
	Photos   []Photograph   `json:"photos"`
}

// Values are what was read, by reading.
func (c Certificate) Values() map[string]float64 {
	values := map[string]float64{}
	for _, l := range c.Lines {
		values[l.Reading] = l.Value
	}
	return values
}

// ProvenLine is a reading that was taken.
type ProvenLine struct {
	Reading string      `json:"reading"`
	Station string      `json:"station"`
	What    string      `json:"what"`
	Where   string      `json:"where"`
	Read    string      `json:"read"`
	Expect  string      `json:"expect"`
	Level   prove.Level `json:"level"`
	Value   float64     `json:"value"`
	By      string      `json:"by"`
	With    string      `json:"with"`
	At      time.Time   `json:"at"`
	Raw     string      `json:"raw" doc:"As it was entered"`
}

// Photograph is a photograph of a job.
type Photograph struct {
	Tied   string    `json:"tied"`
	Note   string    `json:"note,omitempty"`
	By     string    `json:"by"`
	At     time.Time `json:"at"`
	Digest string    `json:"digest"`
	JPEG   []byte    `json:"-"`
}

// Certified is a certificate of a proof as it stands: each reading's last entry, in the order of the proof.
func Certified(p *prove.Proof, outcome prove.Findings, gates []signoff.Gate, reserved []string,
	last func(reading string) ProvenLine) Certificate {
	c := Certificate{Lines: []ProvenLine{}, Gates: gates, Reserved: reserved, Photos: []Photograph{}}
	for _, station := range p.Stations {
		for _, r := range p.Readings {
			if r.Station != station.ID {
				continue
			}
			for _, v := range outcome.Verdicts {
				if v.ID != r.ID {
					continue
				}
				l := last(r.ID)
				l.Reading, l.Station, l.What, l.Where, l.Read, l.Expect, l.Level, l.Value = r.ID, station.Name, r.What, r.Where(), v.Read,
					v.Expect, v.Level, v.Value
				c.Lines = append(c.Lines, l)
			}
		}
	}
	return c
}
