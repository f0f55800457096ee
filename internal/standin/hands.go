package standin

import (
	"epitrope/core/circuit"
	"epitrope/core/prove"
	"epitrope/core/system"
)

// Hands is what whoever works at the vehicle does: the station that a proof asks for, and what differs from it.
type Hands struct {
	Station string
	RPM     float64 // 0: what the station asks for
	Lamps   bool    // headlights and blower on
	Sun     bool    // panels not covered
}

// What forgotten lamps take and what panels that nobody covered give, in A. Source: from memory.
const (
	lampsA = 18.0
	sunA   = 6.0
)

// world is the vehicle as the hands have it: what it is made of then, and the world around it.
func (v *Vehicle) world(h Hands) (system.System, circuit.State) {
	sys, s := v.at(h.Station)
	if running := s.SetV > 0; running && h.RPM > 0 {
		turns := h.RPM * v.Design.Facts.Machine.Ratio.Value
		s.MachineA, s.SecondA = v.Design.MachineA(turns)*v.machine, v.Design.SecondA(turns)*v.machine
	}
	if h.Lamps {
		s.VehicleA += lampsA
	}
	if h.Sun {
		s.SunA += sunA
	}
	return sys, s
}

// ReadsAs is what the meter shows of a reading with the hands as they are, whatever the reading would ask of them.
func (v *Vehicle) ReadsAs(r prove.Reading, h Hands) (value float64, ok bool) {
	value, ok = v.exact(r, h)
	return v.metered(r, value), ok
}

// Charging is what a charger says of itself, with the hands as they are.
func (v *Vehicle) Charging(h Hands) (inV, outV, outA float64, stage string) {
	sys, s := v.world(h)
	at, _ := settled(circuit.Lay(&sys, v.Design.Facts.N), s)
	across := func(a, b system.Terminal) float64 { return circuit.Had(at.Solution.Across(a.Node(), b.Node())) }
	start, aux := system.Terminal{Component: "start", Terminal: "31"}, system.Terminal{Component: "aux", Terminal: "31"}
	inV = across(v.Design.System.Ends.Start, start)
	outV = across(system.Terminal{Component: "aux", Terminal: "30"}, aux)
	outA = -circuit.Had(at.Solution.Through(prove.AtPost))
	stage = "rest"
	if outA > restA {
		stage = "bulk"
		if s.AcceptsA > 0 && outA > 0.9*s.AcceptsA {
			stage = "absorption"
		}
	}
	return inV, outV, outA, stage
}

// restA is below what a charger says that it rests.
const restA = 0.5
