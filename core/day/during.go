package day

import (
	"math"

	"epitrope/core/alternator"
)

// lampsA are two headlamps and tail lamps. Source: common practice, no source.
const lampsA = 10.0

// during is what holds from now on, until the segment ends or the clock changes
// something.
func (r *runner) during(s Segment, end float64) now {
	if r.on.stalled && s.Kind.live() {
		s = Segment{Kind: Park, Seconds: s.Seconds, Own: s.Own}
	} else {
		r.on.stalled = false
	}
	n := now{kind: s.Kind, running: s.Kind.Runs(), airC: or(s.Own.AirC, r.cond.OutsideC), until: end}
	turns := s.rpm(r.rig.Machine.IdleRPM)
	rpm := turns * r.rig.Machine.Ratio
	if !n.running {
		r.stoodAt = end
	}
	r.openedOnDrive = r.openedOnDrive && n.running
	n.idles = n.running && turns <= r.rig.Machine.IdleRPM
	machine := r.rig.Machine.Label
	n.outputA = machine.Output(rpm)
	if !machine.Converter {
		n.windingK = alternator.Winding.Value(0, 1, 1, machine.RatedA, alternator.Slowness(rpm))
	}
	if m := r.rig.Second; m != nil {
		n.secondA = m.Label.Output(rpm)
	}
	clock := math.Mod(r.t/hour+firstHour, 24)
	switch {
	case n.running:
		n.vehicleA = r.rig.VehicleA
		if clock >= 18 || clock < 7 {
			n.vehicleA = r.rig.LampsA
		}
	case s.Kind == Lamps:
		n.vehicleA = lampsA
	case s.Kind.live():
		n.vehicleA = r.rig.KeyA
	default:
		n.vehicleA = r.rig.AsleepA
	}
	n.houseA = or(s.Own.LoadA, r.rig.HouseA*houseShare(clock))
	n.until = math.Min(end, r.t+hour*houseUntil(clock))
	n.mains = s.Own.Mains
	if solar := r.rig.Solar; solar != nil {
		var until float64
		n.sun, until = sun(clock, solar.Hours)
		n.sun = or(s.Own.Sun, n.sun)
		n.until = math.Min(n.until, r.t+hour*until)
	}
	return n
}

// or is what is said, or what holds otherwise.
func or(said *float64, otherwise float64) float64 {
	if said != nil {
		return *said
	}
	return otherwise
}

// The use of a day: a third of it in four hours of the evening. Source: assumed.
func houseShare(clock float64) float64 {
	if clock >= 18 && clock < 22 {
		return 2.0
	}
	return 0.8
}

func houseUntil(clock float64) float64 {
	for _, at := range []float64{7, 18, 22, 24} {
		if clock < at-1e-9 {
			return at - clock
		}
	}
	return 7
}

// How finely a run steps. located is how closely an event is found, in s.
const (
	located   = 0.005
	firstS    = 2.0
	longestS  = 900.0
	shortestS = 1e-4

	// Circuits that a run may solve, which is what it costs: some for whatever hunts, more with each piece of its
	// driving, never more than so many. A month of deliveries takes eighty thousand, with two thousand pieces.
	mostLooks    = 400_000
	looksAtLeast = 65_000
	looksEach    = 40
)
