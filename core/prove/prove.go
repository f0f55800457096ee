// Package prove is the proof of an installation by readings: which to take, in an order that moves the hand least and
// never asks for what is not yet live; what each is expected to be, with its band; and what one that is not means.
//
// A band is not a tolerance of a figure. The installation is solved some hundred times as it may really have been built,
// in the state that the vehicle is then really in, and a meter is held to each. Readings that were taken narrow the bands
// of those to come: a start battery at 14.3 V has an aux battery to match.
package prove

import (
	"slices"

	"epitrope/core/design"
	"epitrope/core/judge"
	"epitrope/core/system"
	"epitrope/core/verdict"
)

// Unit is what a reading is in.
type Unit string

// The units of readings.
const (
	Volts  Unit = "V"
	Amps   Unit = "A"
	Ohms   Unit = "Ω"
	Kelvin Unit = "K"    // warmer than what lies beside it
	Seen   Unit = "seen" // nothing is measured: it is as asked, or not
)

// Probe is where a probe is held.
type Probe struct {
	system.Terminal
	Name string `json:"name"`
}

// Reading is one reading of a proof.
type Reading struct {
	ID      string `json:"id"`
	Station string `json:"station" doc:"What the vehicle is to be meanwhile: the id of a station"`
	What    string `json:"what"`
	Unit    Unit   `json:"unit" enum:"V,A,Ω,K,seen"`
	Red     Probe  `json:"red,omitzero" doc:"Of volts: where the red probe is held"`
	Black   Probe  `json:"black,omitzero"`
	Clamp   string `json:"clamp,omitempty" doc:"Of amps: the wire that the clamp goes round, its arrow towards the aux battery"`
	Drop    bool   `json:"drop,omitempty" doc:"It is what a stretch loses"`
	Of      string `json:"of,omitempty" doc:"The reading of the stretch that this is a piece of: asked for only where that one is out"`
	Range   string `json:"range" doc:"Of the meter"`

	Untested bool   `json:"untested,omitempty" doc:"Nobody has tested this point so: what is expected is what it has to be"`
	IfNot    string `json:"ifNot,omitempty" doc:"Of what is looked at: what it means where it is not so"`

	Extra bool   `json:"extra,omitempty" doc:"No part of a proof: a point that is read where something fails"`
	Moved string `json:"moved,omitempty" doc:"What is moved by hand meanwhile: the place"`

	figure func(p *Proof, at Moment) (value float64, never bool) // of what is no volts and amps of the station; nil: those
}

// Station is what the vehicle is to be while readings are taken.
type Station struct {
	ID    string   `json:"id"`
	Name  string   `json:"name"`
	Setup []string `json:"setup" doc:"What is on and off, one thing each"`
	state func(d *design.Design) design.State
	as    func(system.System) system.System // what is taken apart meanwhile; nil: nothing
	full  bool                              // the aux battery is full, and takes next to nothing
}

// Proof is the readings of an installation, with what they may come to.
type Proof struct {
	Stations []Station
	Readings []Reading
	Stops    []string // what the plan may not be built with; then there is nothing to read
	Unsteady bool     // with the engine running it comes to no stand at any speed that is asked for: nothing is read there
	wide     bool     // every point that a probe reaches is read besides
	d        *design.Design
	all      *ensemble
	base     []Bounds // of each reading, with nothing read yet
	sought   *suspects
	apart    map[string]*laid // by station: what is out there
}

// Of is the proof of a design, worked out once. While a stop stands nothing is to be expected: there is none to take.
func Of(d *design.Design) *Proof { return design.Kept(d, "prove", of) }

// Outline is the readings of a design, without what they may come to.
func Outline(d *design.Design) *Proof {
	p := &Proof{d: d}
	p.list(heldAt[0])
	return p
}

func of(d *design.Design) *Proof {
	p := &Proof{d: d, sought: &suspects{}}
	for _, n := range judge.Notes(d) {
		if n.Severity == verdict.Stop {
			p.Stops = append(p.Stops, n.Text)
		}
	}
	if len(p.Stops) > 0 {
		return p
	}
	for _, rpm := range heldAt {
		p.lay(rpm)
		if p.steady() {
			return p
		}
	}
	p.Unsteady = true
	p.keep(func(r Reading) bool { return r.Station != FastIdle })
	return p
}

// lay lists the readings with the engine held at a speed, and what they come to.
func (p *Proof) lay(rpm float64) {
	p.list(rpm)
	p.keep(func(Reading) bool { return true })
}

func (p *Proof) list(rpm float64) {
	p.Stations, p.Readings = stations(p.d, rpm), nil
	if p.wide {
		p.Stations = append(p.Stations, loaded())
	}
	for _, s := range p.Stations {
		list := readings(p.d, s)
		if p.wide {
			list = append(append(list, points(p.d, s)...), acts(p.d, s)...)
		}
		p.Readings = append(p.Readings, list...)
	}
	p.leave(func(Reading) bool { return true })
}

// keep leaves some readings, and says what they come to.
func (p *Proof) keep(some func(Reading) bool) {
	p.leave(some)
	p.apart = p.parts()
	p.all, p.base = p.healthy(), nil
	for i, r := range p.Readings {
		p.base = append(p.base, p.all.band(i, r))
	}
}

// leave leaves some readings, and the stations at which there are any.
func (p *Proof) leave(some func(Reading) bool) {
	p.Readings = slices.DeleteFunc(p.Readings, func(r Reading) bool { return !some(r) })
	p.Stations = slices.DeleteFunc(p.Stations, func(s Station) bool {
		return !slices.ContainsFunc(p.Readings, func(r Reading) bool { return r.Station == s.ID })
	})
}

// mostJumps is in which share of sound installations a reading may go on and off for it to be worth taking.
const mostJumps = 0.03

// steady says whether what is read with the engine running stands still.
func (p *Proof) steady() bool {
	for i := range p.Readings {
		if p.all.jumps(i) > mostJumps {
			return false
		}
	}
	return true
}

// Reading finds a reading; ok is false where there is none such.
func (p *Proof) Reading(id string) (r Reading, ok bool) {
	i := p.at(id)
	if i < 0 {
		return Reading{}, false
	}
	return p.Readings[i], true
}

func (p *Proof) at(id string) int {
	return slices.IndexFunc(p.Readings, func(r Reading) bool { return r.ID == id })
}
