package design

import (
	"epitrope/core/job"
	"epitrope/core/system"
	"epitrope/core/working"
)

// KeyState is a position of the key, and whether the engine runs.
type KeyState struct{ Key, Engine string }

// HoursToHalf is how long a start battery lasts until it is half empty.
var HoursToHalf = working.Declare("t = C·s / I",
	"conservation of charge; a battery below half may not start in the cold (common practice, no source)",
	working.Symbol{Letter: "t", Name: "start battery half empty after", Unit: "h", Digits: 0},
	working.Symbol{Letter: "C", Name: "start battery", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "s", Name: "share that may go, from 90 to 50 %", Unit: "", Digits: 2},
	working.Symbol{Letter: "I", Name: "out of it", Unit: "A", Digits: 2})

// ShareToHalf is what goes from a healthy start battery until it is half empty.
const ShareToHalf = 0.4

// The positions of what a person can switch.
const (
	NoSwitch   = "–"
	released   = "button released"
	Held       = "button held"
	SwitchOn   = "switch on"
	SwitchOff  = "switch off"
	IsolatorOn = "isolator on"
	Isolator0  = "isolator off"
	AtOff      = "selector off"
	AtIgnition = "selector with ignition"
	AtAlways   = "selector always"
	Isolated   = "Q1 open"
)

// CouplingSwitches are the positions of what works the coupling.
func (d *Design) CouplingSwitches() []string {
	switch by := d.WorkedByHand(); {
	case by == Selector:
		return []string{AtOff, AtIgnition, AtAlways}
	case by != NoHand:
		return []string{released, Held}
	case d.Is.OwnMachine:
		return []string{IsolatorOn, Isolator0}
	case d.seriesSwitch() != "":
		return []string{SwitchOn, SwitchOff}
	}
	return []string{NoSwitch}
}

// HandsAt is what a person has done in a position.
func (d *Design) HandsAt(position string) map[string]system.Hand {
	for _, at := range []struct {
		position, control string
		hand              system.Hand
	}{
		{released, "s1", system.Released}, {Held, "s1", system.Held},
		{AtOff, "s1", system.Off}, {AtIgnition, "s1", system.WithSignal}, {AtAlways, "s1", system.Always},
		{SwitchOn, d.seriesSwitch(), system.On}, {SwitchOff, d.seriesSwitch(), system.Off},
		{IsolatorOn, "coupling", system.On}, {Isolator0, "coupling", system.Off},
	} {
		if at.position == position {
			return map[string]system.Hand{at.control: at.hand}
		}
	}
	return nil
}

// Signalled says whether the coupling's signal is live.
func (d *Design) Signalled(position string, k KeyState) bool {
	if position == SwitchOff || position == Isolated && d.Facts.Extras.IsolatorFirst == job.Yes {
		return false
	}
	switch d.Facts.Day.Trigger {
	case "switch":
		return true
	case "dead":
		return false
	case "accessory":
		return k.Key == "accessory" || k.Key == "on"
	case "ignition":
		return k.Key == "on" || k.Key == "start"
	case "voltage":
		return k.Engine == "running" && d.Facts.RegulatedV.Value >= d.Facts.Detects.CutInV*d.Facts.N
	}
	return k.Engine == "running"
}

// feedPoint is where the signal is taken from, and when it is live.
func (d *Design) feedPoint() system.FeedPoint {
	f := system.FeedPoint{LoomOhm: loomOhm}
	switch d.Facts.Day.Trigger {
	case "switch":
		f.Keys = []system.Key{system.KeyOff, system.KeyAccessory, system.KeyOn, system.KeyStart}
	case "dead":
	case "accessory":
		f.Keys = []system.Key{system.KeyAccessory, system.KeyOn}
	case "ignition":
		f.Keys = []system.Key{system.KeyOn, system.KeyStart}
	default:
		f.Running = true
	}
	return f
}

// SignalA is what a charger's signal input takes.
func (d *Design) SignalA() float64 { return 12 / d.Facts.Signal.Ohm.Value }

// restAfterV is a lead start battery some hours after a drive, at 12 V; SunShare is a good sun.
// Source: from memory.
const (
	restAfterV = 12.7
	SunShare   = 0.7
)

// RestAfterV is the start battery some hours after a drive.
func (d *Design) RestAfterV() float64 {
	if c := d.StartChemistry(); !c.Lead {
		return c.RestV(1) * d.Facts.N
	}
	return restAfterV * d.Facts.N
}

// ByVoltage says whether a charger takes the voltage that it sees for its signal.
func (d *Design) ByVoltage() bool { return d.Kind.Charger() && d.Facts.Day.Trigger == "voltage" }

// Wired says whether a wire brings the coupling its signal.
func (d *Design) Wired() bool { return d.Kind.Signal() && !d.ByVoltage() }

// InputAt is what a charger draws from a start battery at rest, at its usual efficiency.
func (d *Design) InputAt(outA float64) float64 {
	return outA * d.AuxEmptyV() / (d.Charger.Efficiency * d.RestAfterV())
}
