// Package job holds the job document: what was surveyed, what is wanted and what
// the designer pinned.
//
// A document is sparse: what nobody answered is absent, and Resolve fills it with
// a stated default that stays marked as assumed. Fields lists every field once,
// with its limits; reading, checking, the published schema, the questions and the
// defaults all go by that table.
package job

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
)

// Format and Version name the document's format. A document of a newer version
// is refused, never guessed at.
const (
	Format  = "epitrope-job"
	Version = 1
)

// Document is a job as stored, exported and imported. Lengths in m, temperatures
// in °C, charge in Ah, time in hours; cables and alternators by their names.
type Document struct {
	Format   string `json:"format"`
	Version  int    `json:"version"`
	Title    string `json:"title,omitempty"`
	Customer string `json:"customer,omitempty"`
	Remarks  string `json:"remarks,omitempty"`

	Vehicle      Vehicle      `json:"vehicle,omitzero"`
	Alternator   Alternator   `json:"alternator,omitzero"`
	StartBattery StartBattery `json:"startBattery,omitzero"`
	Aux          Aux          `json:"aux,omitzero"`
	Use          Use          `json:"use,omitzero"`
	Routes       Routes       `json:"routes,omitzero"`
	Bays         Bays         `json:"bays,omitzero"`
	Cable        Cable        `json:"cable,omitzero"`
	Limits       Limits       `json:"limits,omitzero"`
	Day          Day          `json:"day,omitzero"`
	Pins         Pins         `json:"pins,omitzero"`
}

// Vehicle is what is driven.
type Vehicle struct {
	Kind        *string  `json:"kind,omitempty"`
	SystemVolts *float64 `json:"systemVolts,omitempty"`
	LoadA       *float64 `json:"loadA,omitempty"`
}

// Alternator is the machine and how it is regulated.
type Alternator struct {
	Label      *string  `json:"label,omitempty"`
	Regulation *string  `json:"regulation,omitempty"`
	KnownBy    *string  `json:"knownBy,omitempty"`
	Volts      *float64 `json:"volts,omitempty"`
}

// StartBattery is the battery that cranks.
type StartBattery struct {
	CapacityAh *float64 `json:"capacityAh,omitempty"`
	CrankA     *float64 `json:"crankA,omitempty"`
}

// Aux is the auxiliary battery.
type Aux struct {
	Chemistry  *string  `json:"chemistry,omitempty"`
	CapacityAh *float64 `json:"capacityAh,omitempty"`
	Place      *string  `json:"place,omitempty"`
}

// Use is how the vehicle is lived in.
type Use struct {
	DailyAh     *float64 `json:"dailyAh,omitempty"`
	DrivenHours *float64 `json:"drivenHours,omitempty"`
}

// Routes are measured lengths, one way, along the real route with slack.
type Routes struct {
	StartM   *float64 `json:"startM,omitempty"`
	AuxM     *float64 `json:"auxM,omitempty"`
	EarthM   *float64 `json:"earthM,omitempty"`
	TriggerM *float64 `json:"triggerM,omitempty"`
}

// Bays are the warmest places along the runs, and how the cable lies there.
type Bays struct {
	StartC   *float64 `json:"startC,omitempty"`
	AuxC     *float64 `json:"auxC,omitempty"`
	StartLay *string  `json:"startLay,omitempty"`
	AuxLay   *string  `json:"auxLay,omitempty"`
}

// Cable is what is on the workshop's reels.
type Cable struct {
	System     *string  `json:"system,omitempty"`
	Insulation *float64 `json:"insulation,omitempty"`
}

// Limits are the drops that are allowed, in % of the system voltage.
type Limits struct {
	ChargerDrop *float64 `json:"chargerDrop,omitempty"`
	BatteryDrop *float64 `json:"batteryDrop,omitempty"`
}

// Day is how the installation is tried out: what the vehicle does, and in what.
type Day struct {
	Pattern  *string  `json:"pattern,omitempty"`
	Own      string   `json:"own,omitempty"`
	Days     *float64 `json:"days,omitempty"`
	OutsideC *float64 `json:"outsideC,omitempty"`
	SolarW   *float64 `json:"solarW,omitempty"`
	SunHours *float64 `json:"sunHours,omitempty"`
	StartSOC *float64 `json:"startSOC,omitempty"`
	AuxSOC   *float64 `json:"auxSOC,omitempty"`
	Trigger  *string  `json:"trigger,omitempty"`
}

// Pins are the choices that the designer took out of the plan's hands.
type Pins struct {
	Coupling   *string  `json:"coupling,omitempty"`
	ChargerA   *float64 `json:"chargerA,omitempty"`
	StartSize  *string  `json:"startSize,omitempty"`
	AuxSize    *string  `json:"auxSize,omitempty"`
	StartFuseA *float64 `json:"startFuseA,omitempty"`
	AuxFuseA   *float64 `json:"auxFuseA,omitempty"`
	Device     *string  `json:"device,omitempty"`
	Return     *string  `json:"return,omitempty"`
}

// New is an empty document of this version.
func New() Document { return Document{Format: Format, Version: Version} }

// Encode writes the document; the same document always gives the same bytes.
func (d Document) Encode() []byte {
	b, err := json.Marshal(d)
	if err != nil {
		panic(err) // only strings, numbers and pointers to them
	}
	return b
}

// Digest names the document's content.
func (d Document) Digest() string {
	sum := sha256.Sum256(d.Encode())
	return hex.EncodeToString(sum[:8])
}
