package design

import (
	"epitrope/core/feed"
	"epitrope/core/job"
	"epitrope/core/system"
)

// KeyState is a position of the key, and whether the engine runs.
type KeyState struct{ Key, Engine string }

// The positions of what a person can switch.
const (
	NoSwitch   = "–"
	released   = "button released"
	Held       = "button held"
	JoinOn     = "join switch on"
	JoinOff    = "join switch off"
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
	case d.Toggles():
		return []string{JoinOff, JoinOn}
	case by != NoHand:
		return []string{released, Held}
	case d.Isolates():
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
		{released, "s1", system.Released}, {Held, "s1", system.Held}, {JoinOff, "s1", system.Released}, {JoinOn, "s1", system.Held},
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

// A position of the key in which the signal is looked at.
var (
	KeyOut    = KeyState{"off", "stopped"}
	Accessory = KeyState{"accessory", "stopped"}
	Ignition  = KeyState{"on", "stopped"}
	CrankKey  = KeyState{"start", "cranking"}
	Driving   = KeyState{"on", "running"}

	JustStopped = KeyState{"off", "just stopped"} // surface charge still stands on what was charged
)

// FeedIs is what is known of the feed point with the key so: as it was tested, where one was taken;
// otherwise as it is to be.
func (d *Design) FeedIs(k KeyState) feed.Live {
	if p, ok := d.tested(); ok {
		switch k {
		case KeyOut:
			if p.Off == feed.Dead && p.Slept != feed.Dead { // dead at once, and nobody knows about the night
				return p.Slept
			}
			return p.Off
		case Accessory:
			return p.Accessory
		case Ignition:
			return p.On
		case CrankKey:
			return p.Cranking
		}
		return p.Running
	}
	is := map[bool]feed.Live{true: feed.Is, false: feed.Dead}
	switch d.Facts.Day.Trigger {
	case "switch":
		return feed.Is
	case "dead":
		return feed.Dead
	case "accessory":
		return is[k.Key == "accessory" || k.Key == "on"]
	case "ignition":
		return is[k.Key == "on" || k.Key == "start"]
	case "voltage":
		return is[k.Engine == "running" && d.Facts.RegulatedV.Value >= d.Facts.Detects.CutInV*d.Facts.N]
	}
	return is[k.Engine == "running"]
}

// tested is the feed point that was taken, unless the coupling is told by a switch, by voltage, or by
// nothing.
func (d *Design) tested() (feed.Point, bool) {
	switch d.Facts.Day.Trigger {
	case "switch", "voltage", "dead":
		if d.Doc.Day.Trigger != nil {
			return feed.Point{}, false
		}
	}
	return d.Taken()
}

// Taken is the feed point that was taken; ok is false where none was, or its row is gone.
func (d *Design) Taken() (p feed.Point, ok bool) {
	for _, row := range d.Facts.Feeds {
		if row.Key == d.Facts.FeedTaken {
			return row.Of.Point(row.Key), true
		}
	}
	return feed.Point{}, false
}

// Signalled says whether the coupling's signal is live. What was not tested is taken as the plan asks:
// live while the engine runs, and dead otherwise.
func (d *Design) Signalled(position string, k KeyState) bool {
	if position == SwitchOff || position == Isolated && d.Facts.Extras.IsolatorFirst == job.Yes {
		return false
	}
	return d.feedPoint().Live(system.Key(k.Key), k.Engine == "running")
}

// feedPoint is where the signal is taken from, and when it is live.
func (d *Design) feedPoint() system.FeedPoint {
	p, taken := d.tested()
	f := system.FeedPoint{LoomOhm: loomOhm, Running: d.FeedIs(Driving) != feed.Dead, Slot: !taken || p.Kind == feed.Slot}
	for _, k := range []KeyState{KeyOut, Accessory, Ignition, CrankKey} {
		if d.FeedIs(k) == feed.Is {
			f.Keys = append(f.Keys, system.Key(k.Key))
		}
	}
	return f
}

// SignalA is what a charger's signal input takes.
func (d *Design) SignalA() float64 { return 12 / d.Facts.Signal.Ohm.Value }

// freshV is a lead start battery the moment after its engine stops, at 12 V; SunShare is a good sun.
// Source: from memory.
const (
	freshV   = 13.2 // with surface charge
	SunShare = 0.7
)

// RestAfterV is the start battery some hours after a drive: full, and at rest.
func (d *Design) RestAfterV() float64 { return d.StartChemistry().RestV(1) * d.Facts.N }

// ByVoltage says whether a charger takes the voltage that it sees for its signal.
func (d *Design) ByVoltage() bool { return d.Kind.Charger() && d.Facts.Day.Trigger == "voltage" }

// Wired says whether a wire brings the coupling its signal.
func (d *Design) Wired() bool { return d.Kind.Signal() && (!d.ByVoltage() || d.Ahead()) }
