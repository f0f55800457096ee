// Package retrofit judges what was found on a vehicle by the rules of a design: each wire and
// device, the whole as it was, and a way to charge until the repair, from what is in the van.
package retrofit

import (
	"epitrope/core/design"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// Found is what was there before, judged by the same rules as what is planned, and what
// becomes of it.
type Found struct {
	Wires   []WireVerdict `json:"wires"`
	Gear    []GearVerdict `json:"gear"`
	Missing []string      `json:"missing" doc:"What has to be known before it can be judged as a whole"`
	Before  *Sketch       `json:"before,omitempty" doc:"The installation as found; absent where too little is known"`
	After   Sketch        `json:"after" doc:"The new design"`
	Bypass  *Bypass       `json:"bypass,omitempty" doc:"From what is in the van; absent where nothing was named"`
}

// WireFinding is one thing about something found.
type WireFinding struct {
	ID    string         `json:"id"`
	Level verdict.Level  `json:"level" enum:"good,caution,bad,open"`
	Text  string         `json:"text"`
	Mark  working.Origin `json:"mark" enum:"standard,practice,physics,memory"`
}

// WireVerdict is a wire as found.
type WireVerdict struct {
	Key      string        `json:"key"`
	Name     string        `json:"name"`
	Findings []WireFinding `json:"findings"`
	Level    verdict.Level `json:"level" enum:"good,caution,bad,open"`
	Fate     string        `json:"fate" enum:"stays,goes,open" doc:"In the new design"`
	Why      string        `json:"why"`
	Reuse    *verdict.Cure `json:"reuse,omitempty" doc:"Pins it in the new design"`
}

// GearVerdict is a device as found.
type GearVerdict struct {
	Key   string        `json:"key"`
	Name  string        `json:"name"`
	Level verdict.Level `json:"level" enum:"good,caution,bad,open"`
	Fate  string        `json:"fate" enum:"stays,goes,open"`
	Why   string        `json:"why"`

	FactoryFeed bool `json:"-"` // its coil hangs on the factory's ignition feed
}

// The checks of a wire as found. Source: ISO 10133 and ABYC E-11: a fuse within about
// 200 mm of its source. Common practice, no source: a good joint is up to 1 mΩ with its
// lug, a bad one 10 mΩ and more, which burns.
const (
	fuseWithinMM = 200.0
	suspectOhm   = 0.003
	burnsOhm     = 0.010
)

// Of judges what was found on a job against its design.
func Of(d *design.Design) Found {
	out := Found{Wires: []WireVerdict{}, Gear: []GearVerdict{}, Missing: []string{}, After: sketch(d)}
	for _, row := range d.Facts.Found {
		out.Wires = append(out.Wires, foundWire(d, row))
	}
	for _, row := range d.Facts.Gear {
		out.Gear = append(out.Gear, foundGear(d, row))
	}
	before, missing := AsFound(d.Doc)
	out.Missing = missing
	if len(missing) == 0 {
		s := sketch(d.With(before))
		out.Before = &s
	}
	out.Bypass = BypassOf(d)
	return out
}

func num(p *float64) float64 {
	if p == nil {
		return 0
	}
	return *p
}
