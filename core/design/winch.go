package design

import (
	"epitrope/core/job"
	"epitrope/core/system"
)

// WinchOhm is a winch as a resistance that takes its current at 12 V.
func (d *Design) WinchOhm() float64 {
	n := d.Facts.N
	if d.Facts.Extras.WinchFrom == job.WinchAtAux {
		n = d.Facts.AuxN
	}
	return 12 * n / d.Facts.Extras.WinchA.Value
}

// winchState is a pull with the engine running a little above idle.
func (d *Design) winchState(rest State) State {
	e := d.Facts.Extras
	s := rest
	s.ID, s.Label, s.Kind = "winch", "winch pulling", Cranking
	s.Rpm, s.SetV, s.MachineA, s.StartV = d.Facts.IdleTurns(), d.Facts.RegulatedV.Value, d.MachineA(d.Facts.IdleTurns()), d.SurfaceV()
	s.VehicleA, s.HouseA = d.Facts.Machine.DayA.Value, 0
	s.Winches, s.Idles = true, true
	s.Key = system.KeyOn
	if s.Joined = e.WinchFrom == job.WinchAtJoined && d.Is.CanJoin; s.Joined {
		s.Hands = d.joinByHand()
	}
	return s
}
