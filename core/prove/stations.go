package prove

import (
	"slices"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// The stations of a proof, in their order.
const (
	FusesOut  = "fuses-out" // both batteries connected, every fuse out
	Socket    = "socket"    // fuses in, the plug apart
	KeyOut    = "key-out"   // fuses in, the key just taken out
	Asleep    = "asleep"    // … and the vehicle asleep
	Accessory = "accessory"
	Ignition  = "ignition" // key on, engine stopped
	FastIdle  = "fast-idle"
	Warm      = "warm"    // half an hour later
	Full      = "full"    // the aux battery full
	Stopped   = "stopped" // after the engine was stopped, and the coupling has let go
	Held      = "held"    // a person joins the batteries
	Released  = "released"
	Parted    = "parted" // what opens by hand is open
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
		{ID: FusesOut, Name: "Fuses out, both batteries connected", Setup: append([]string{"every fuse of the work out", "key out"},
			quiet...),
			state: at("", design.KeyOut), as: Bare},
		{ID: Socket, Name: "Fuses in, the plug apart", Setup: append([]string{"fuses in", "the plug apart", "key out"}, quiet...),
			state: at("", design.KeyOut), as: unplugged},
		{ID: KeyOut, Name: "Fuses in, key just out", Setup: append([]string{"fuses in", "key out a moment ago"}, quiet...),
			state: at("", design.KeyOut)},
		{ID: Asleep, Name: "Parked and asleep", Setup: append([]string{"fuses in",
			"key out, doors shut, until the vehicle sleeps: up to half an hour"},
			quiet...), state: at("", design.KeyOut)},
		{ID: Accessory, Name: "Key at accessory", Setup: []string{"key at accessory, engine stopped"}, state: at("", design.Accessory)},
		{ID: Ignition, Name: "Key on, engine stopped", Setup: []string{"key on, engine stopped", "lamps off"}, state: at("",
			design.Ignition)},
		{ID: FastIdle, Name: "Engine running", Setup: append([]string{unit.Say("engine warm, held at about %s", unit.Plain(rpm, "rpm", 0)),
			"lamps and blower off", "the aux battery part discharged"}, quiet...), state: held(rpm)},
		{ID: Warm, Name: "After half an hour of that", Setup: append([]string{"engine as before, thirty minutes on"}, quiet...),
			state: held(rpm)},
		{ID: Full, Name: "The aux battery full", Setup: append([]string{"engine on until the current has fallen to a trickle"}, quiet...),
			state: held(rpm), full: true},
		{ID: Stopped, Name: "Engine stopped again", Setup: append([]string{"engine stopped, key out",
			"headlights on for a minute, then off"},
			quiet...), state: at("", design.KeyOut)},
	}
	if by, how := joinedBy(d); by != "" {
		list = append(list, Station{ID: Held, Name: "Joined by hand", Setup: append([]string{"engine stopped, key out", how}, quiet...),
			state: at(by, design.KeyOut)},
			Station{ID: Released, Name: "Let go again", Setup: append([]string{"engine stopped, key out",
				"the switch back where it usually stands"},
				quiet...), state: at("", design.KeyOut)})
	}
	return append(list, Station{ID: Parted, Name: "What opens by hand open", Setup: append([]string{"key out"}, quiet...),
		state: at("", design.KeyOut)})
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

// Situation is what a station asks of the world, where the devices stand before they act, what is taken apart meanwhile (nil:
// nothing), and whether the aux battery is full.
func (p *Proof) Situation(station string) (s circuit.State, was circuit.Position, as func(system.System) system.System, full bool) {
	for _, at := range p.Stations {
		if at.ID == station {
			planned := at.state(p.d)
			return planned.State, planned.Position, at.as, at.full
		}
	}
	return circuit.State{}, circuit.Position{}, nil, false
}

// silent is a state in which nothing is drawn that a proof asks to be off.
func silent(s design.State) design.State {
	s.HouseA, s.SunA, s.MainsA, s.Taps, s.TapsA = 0, 0, 0, circuit.TapsOff, nil
	return s
}

// Bare is an installation with its fuses out.
func Bare(s system.System) system.System {
	return apart(s, func(d system.Device) system.Device {
		if fuse, is := d.(system.Fuse); is {
			fuse.Ohm = outOhm
			return fuse
		}
		return d
	})
}

// unplugged is an installation with its plugs apart.
func unplugged(s system.System) system.System {
	return apart(s, func(d system.Device) system.Device {
		if plug, is := d.(system.Plug); is {
			plug.Card.Ohm = outOhm
			return plug
		}
		return d
	})
}

// apart is an installation with some of its devices changed.
func apart(s system.System, change func(system.Device) system.Device) system.System {
	s.Components = slices.Clone(s.Components)
	for i := range s.Components {
		s.Components[i].Device = change(s.Components[i].Device)
	}
	return s
}

// outOhm stands for a fuse or a plug that is out.
const outOhm = 1e9
