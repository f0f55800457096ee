// Package system is what a job becomes: components with their terminals, and the
// wires between them. Everything that is shown, priced, drawn or simulated asks
// this.
//
// Terminals are named by DIN 72552 (from memory): 15 ignition-switched positive,
// 30 battery positive, 31 ground, 86 and 85 coil, 87 make, B+ alternator output.
package system

import "epitrope/core/job"

// ComponentKind is a kind of component.
type ComponentKind string

// The kinds of component.
const (
	Alternator ComponentKind = "alternator"
	Battery    ComponentKind = "battery"
	Fuse       ComponentKind = "fuse"
	Charger    ComponentKind = "charger"
	Relay      ComponentKind = "relay"
	Plug       ComponentKind = "plug"
	Earth      ComponentKind = "earth"
	FeedPoint  ComponentKind = "feed-point"
)

// Component is one thing that is fitted, or was there before.
type Component struct {
	ID       string        `json:"id"`
	Kind     ComponentKind `json:"kind" enum:"alternator,battery,fuse,charger,relay,plug,earth,feed-point"`
	Name     string        `json:"name"`
	Rating   string        `json:"rating,omitempty"`
	Existing bool          `json:"existing,omitempty" doc:"There before the work"`
	At       job.Point     `json:"at"`
}

// Role is what a wire is for.
type Role string

// The roles of a wire.
const (
	Feed    Role = "feed"
	Return  Role = "return"
	Chassis Role = "chassis" // the vehicle's own steel
	Signal  Role = "signal"
)

// Terminal is a terminal of a component.
type Terminal struct {
	Component string `json:"component"`
	Terminal  string `json:"terminal,omitempty" doc:"DIN 72552"`
}

// Wire is one conductor from terminal to terminal.
type Wire struct {
	ID        string   `json:"id"`
	Run       string   `json:"run" doc:"The run it belongs to"`
	Role      Role     `json:"role" enum:"feed,return,chassis,signal"`
	From      Terminal `json:"from"`
	To        Terminal `json:"to"`
	Size      string   `json:"size,omitempty"`
	CopperMM2 float64  `json:"copperMM2,omitempty"`
	LengthM   float64  `json:"lengthM"`
	Existing  bool     `json:"existing,omitempty"`
}

// System is the whole installation.
type System struct {
	Components []Component `json:"components"`
	Wires      []Wire      `json:"wires"`
}

// Add puts a component in.
func (s *System) Add(c Component) { s.Components = append(s.Components, c) }

// Join puts a wire in.
func (s *System) Join(w Wire) { s.Wires = append(s.Wires, w) }

// Component finds a component; ok is false where there is none such.
func (s *System) Component(id string) (c Component, ok bool) {
	for _, c := range s.Components {
		if c.ID == id {
			return c, true
		}
	}
	return Component{}, false
}
