package design

import (
	"epitrope/core/circuit"
	"epitrope/core/job"
	"epitrope/core/system"
)

// accessoryA is what a vehicle takes with the key at accessory. Source: common practice, no source.
const accessoryA = 3.0

// StateAt is the vehicle in a position of key and switches, as everything stood before: the
// devices have still to act. An empty position is that in which everything usually stands.
func (d *Design) StateAt(position string, k KeyState) State {
	f, n := d.Facts, d.Facts.N
	s := State{ID: "mode", Kind: Resting, State: circuit.State{Taps: circuit.TapsMean, StartV: d.RestAfterV(), StartOhm: d.StartOhm(),
		VehicleA: f.Machine.AsleepA.Value, AuxOwnV: f.Chemistry.RestV(0.75) * f.AuxN, HouseA: f.DailyAh.Value / 24}}
	s.Stopped, s.Joined = true, d.Is.Senses && k.Engine != "running" // a relay was closed until now
	if d.Is.Senses {
		s.AuxOwnV = f.Chemistry.RestV(1) * f.AuxN
	}
	switch k.Engine {
	case "running":
		s.Kind, s.Rpm, s.SetV, s.MachineA, s.VehicleA, s.StartV = Charging, CruiseRPM, f.RegulatedV.Value,
			d.MachineA(CruiseRPM), f.Machine.DayA.Value, d.SurfaceV()
		s.AuxOwnV, s.SecondA = d.AuxEmptyV(), d.SecondA(CruiseRPM)
		if f.Chemistry.Lead {
			s.AcceptsA = d.Rates.Accepts.Unrounded
		}
	case "cranking":
		before := d.StateAt(position, KeyState{"on", "stopped"})
		d.Settle(&before)
		s.Kind, s.Cranks, s.LastsS, s.Position = Cranking, true, f.CrankS.Value, before.Position
		s.StartOhm, s.VehicleA = d.crankOhm(f.Day.OutsideC.Value), f.Machine.KeyA.Value
	case JustStopped.Engine:
		s.StartV = max(s.StartV, freshV*n)
		s.AuxOwnV = max(s.AuxOwnV, freshV*f.AuxN)
		s.Stopped = !d.ByVoltage() // a charger that watches voltage still runs
	default:
		s.VehicleA = map[string]float64{"off": f.Machine.AsleepA.Value, "accessory": min(accessoryA, f.Machine.KeyA.Value),
			"on": f.Machine.KeyA.Value}[k.Key]
	}
	s.Key, s.Hands = system.Key(k.Key), d.HandsAt(position)
	if s.Isolated = position == Isolated; s.Isolated && f.Extras.Isolator == job.MasterSwitch {
		s.HouseA = 0 // it is off with the battery
	}
	return s
}

// Signal says whether what works the coupling reaches it with the key so, and everything else
// where it usually stands: a charger's signal at its input, current enough through a coil. The
// coupling itself rests meanwhile.
func (d *Design) Signal(k KeyState) bool {
	s := d.StateAt("", k)
	s.HouseA = 0
	return d.signalled(s)
}

// SignalReaches says whether the signal has a way to the coupling with the key so: as Signal, with nothing taken that pulls
// the volts down.
func (d *Design) SignalReaches(k KeyState) bool { return d.signalled(d.Unloaded(k)) }

// Unloaded is the vehicle in a position of the key, with nothing taken.
func (d *Design) Unloaded(k KeyState) State {
	if k.Engine == CrankKey.Engine {
		k.Engine = KeyOut.Engine
	}
	s := d.StateAt("", k)
	s.VehicleA, s.HouseA, s.Taps = 0, 0, circuit.TapsOff
	return s
}

// signalled says whether what works the coupling reaches it in a state, the coupling itself at rest.
func (d *Design) signalled(s State) bool {
	s.Stopped, s.Joined = true, false
	d.solveAs(&s)
	if d.Ahead() {
		return circuit.Had(s.Solved.Through(circuit.AheadCoil)) >= coilPull*d.AheadCard.CoilA
	}
	if d.Kind.Charger() {
		return s.Across("coupling.15", "coupling.31") >= d.Facts.Signal.LiveV.Value*d.Facts.N
	}
	return circuit.Had(s.Solved.Through("coil")) >= coilPull*d.coilA()
}
