package prove

import (
	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// The stations of a proof, in their order.
const (
	FusesOut  = "fuses-out" // both batteries connected, every fuse out
	KeyOut    = "key-out"   // fuses in, nobody there
	Accessory = "accessory"
	Ignition  = "ignition" // key on, engine stopped
	FastIdle  = "fast-idle"
	Stopped   = "stopped" // after the engine was stopped, and the coupling has let go
	Held      = "held"    // a person joins the batteries
)

// heldAt are the engine speeds that a proof may ask for, the lowest first: a machine that cannot hold what it feeds at a
// fast idle is read where it can. Source: common practice, no source: 1,500 rpm; from memory: 2,500.
var heldAt = []float64{design.FastIdleRPM, 2500}

// stations are what the vehicle is to be, for this installation, its engine held at a speed.
func stations(d *design.Design, rpm float64) []Station {
	quiet := []string{"what is used off the aux battery off", "panels covered, mains unplugged"}
	at := func(position string, k design.KeyState) func(*design.Design) design.State {
		return func(d *design.Design) design.State { return silent(d.StateAt(position, k)) }
	}
	list := []Station{
		{ID: FusesOut, Name: "Fuses out, both batteries connected", Setup: append([]string{"every fuse of the work out", "key out"}, quiet...),
			state: at("", design.KeyOut), bare: true},
		{ID: KeyOut, Name: "Fuses in, key out", Setup: append([]string{"fuses in", "key out, doors shut until the vehicle sleeps"}, quiet...),
			state: at("", design.KeyOut)},
		{ID: Accessory, Name: "Key at accessory", Setup: []string{"key at accessory, engine stopped"}, state: at("", design.Accessory)},
		{ID: Ignition, Name: "Key on, engine stopped", Setup: []string{"key on, engine stopped", "lamps off"}, state: at("", design.Ignition)},
		{ID: FastIdle, Name: "Engine running", Setup: append([]string{unit.Say("engine warm, held at about %s", unit.Plain(rpm, "rpm", 0)),
			"lamps and blower off", "the aux battery part discharged"}, quiet...), state: held(rpm)},
		{ID: Stopped, Name: "Engine stopped again", Setup: append([]string{"engine stopped, key out", "headlights on for a minute, then off"},
			quiet...), state: at("", design.KeyOut)},
	}
	if by, how := joinedBy(d); by != "" {
		list = append(list, Station{ID: Held, Name: "Joined by hand", Setup: append([]string{"engine stopped, key out", how}, quiet...),
			state: at(by, design.KeyOut)})
	}
	return list
}

// held is a bay with the engine at a speed.
func held(rpm float64) func(*design.Design) design.State {
	return func(d *design.Design) design.State {
		s := silent(d.StateBy("bay"))
		turns := rpm * d.Facts.Machine.Ratio.Value
		s.Rpm, s.MachineA, s.SecondA = turns, d.MachineA(turns), d.SecondA(turns)
		return s
	}
}

// joinedBy is the position in which a person joins the batteries, and how that is done; "" where nobody does.
func joinedBy(d *design.Design) (position, how string) {
	switch by := d.WorkedByHand(); {
	case by == design.NoHand || !d.Is.CanJoin:
		return "", ""
	case by == design.Selector:
		return design.AtAlways, "the selector at “always”"
	case d.Toggles():
		return design.JoinOn, "the switch on"
	}
	return design.Held, "the button held"
}

// Situation is what a station asks of the world, where the devices stand before they act, and whether the fuses are out.
func (p *Proof) Situation(station string) (s circuit.State, was circuit.Position, bare bool) {
	for _, at := range p.Stations {
		if at.ID == station {
			planned := at.state(p.d)
			return planned.State, planned.Position, at.bare
		}
	}
	return circuit.State{}, circuit.Position{}, false
}

// silent is a state in which nothing is drawn that a proof asks to be off.
func silent(s design.State) design.State {
	s.HouseA, s.SunA, s.MainsA, s.Taps, s.TapsA = 0, 0, 0, circuit.TapsOff, nil
	return s
}

// Bare is an installation with its fuses out.
func Bare(s system.System) system.System {
	out := make([]system.Component, len(s.Components))
	for i, c := range s.Components {
		if fuse, is := c.Device.(system.Fuse); is {
			fuse.Ohm = outOhm
			c.Device = fuse
		}
		out[i] = c
	}
	s.Components = out
	return s
}

// outOhm stands for a fuse that is out.
const outOhm = 1e9
