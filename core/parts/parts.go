// Package parts is the parts book: device cards that say what a device gives,
// bears and asks for. The cards here describe kinds of device, not makes.
package parts

import (
	"fmt"

	"epitrope/core/coupling"
)

// Charger is the card of a DC-DC charger.
type Charger struct {
	ID            string
	Label         string
	OutputA       float64
	EfficiencyLow float64 // worst over its range
	Efficiency    float64 // typical
	CutOutV       float64 // stops below this input, 12 V systems
	MaxAmbientC   float64
	StandbyA      float64 // taken at the input while it rests
	CaseKPerW     float64 // how far its losses heat it above its place
	MaxFuseA      float64 // largest fuse its sheet allows at the input; 0 where it says nothing
}

// Relay is the card of a voltage-sensing relay.
type Relay struct {
	ID          string
	Label       string
	ContinuousA float64
	ContactOhm  float64
	Sensing     coupling.Sensing // at 12 V
}

// Book is the parts a plan chooses from, smallest first.
type Book struct {
	Chargers []Charger
	Relays   []Relay
}

// Efficiency where a card does not say, and the worst of what is seen.
// Source: 0.87–0.92, common practice, no source.
const (
	efficiency    = 0.90
	efficiencyLow = 0.87
)

// cutOutV is the input below which a charger stops, and maxAmbientC the
// place it still gives its full output in. Source: common practice, no source.
const (
	cutOutV     = 11.8
	maxAmbientC = 50.0
)

// standbyA is what a resting charger takes; caseKPerW a finned case of about
// 0.04 m² in still air. Source: common practice, no source.
const (
	standbyA  = 0.008
	caseKPerW = 0.5
)

// contactOhm is a relay's closed contact with its two studs. Source: common
// practice, no source: 0.1–0.5 mΩ each.
const contactOhm = 0.0008

// ChargerRatings are the outputs, in A, that chargers are commonly sold with.
// Source: common practice, no source.
var ChargerRatings = []float64{10, 15, 20, 25, 30, 40, 50, 60, 80}

// Stock is the book that every job starts with: one card for each rating that is
// commonly sold.
func Stock() Book {
	var b Book
	for _, a := range ChargerRatings {
		b.Chargers = append(b.Chargers, Charger{
			ID: fmt.Sprintf("dcdc-%g", a), Label: fmt.Sprintf("DC-DC charger, %g A", a), OutputA: a,
			EfficiencyLow: efficiencyLow, Efficiency: efficiency, CutOutV: cutOutV, MaxAmbientC: maxAmbientC,
			StandbyA: standbyA, CaseKPerW: caseKPerW,
		})
	}
	for _, a := range []float64{60, 100, 140, 200} {
		b.Relays = append(b.Relays, Relay{
			ID: fmt.Sprintf("vsr-%g", a), Label: fmt.Sprintf("voltage-sensing relay, %g A", a),
			ContinuousA: a, ContactOhm: contactOhm, Sensing: coupling.Usual,
		})
	}
	return b
}

// Charger finds the card of a given output.
func (b Book) Charger(outputA float64) (Charger, bool) {
	for _, c := range b.Chargers {
		if c.OutputA == outputA {
			return c, true
		}
	}
	return Charger{}, false
}

// Relay returns the smallest relay that carries amps, or the largest there is.
func (b Book) Relay(amps float64) Relay {
	for _, r := range b.Relays {
		if r.ContinuousA >= amps {
			return r
		}
	}
	return b.Relays[len(b.Relays)-1]
}
