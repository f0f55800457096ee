package trace_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"epitrope/core/network"
	"epitrope/core/prove"
	"epitrope/core/system"
	"epitrope/internal/spice"
	"epitrope/internal/standin"
)

// elsewhere is the meter of a vehicle whose circuit ngspice solves, with its devices where they come to stand. What is no volt and no
// amp of a circuit at rest, and what goes on and off, is the vehicle's own.
func elsewhere(t *testing.T, v *standin.Vehicle) func(prove.Reading) (float64, bool) {
	t.Helper()
	volts := map[string]map[string]float64{}
	return func(r prove.Reading) (float64, bool) {
		own, ok := v.Reads(r)
		if !ok || r.Unit != prove.Volts && r.Unit != prove.Amps || r.ID == "lets-go" || r.Station == prove.FusesOut {
			return own, ok
		}
		if volts[r.Station] == nil {
			netlist, err := v.Circuit(r.Station, v.Position(r.Station)).Netlist(fmt.Sprint(r.Station))
			require.NoError(t, err)
			volts[r.Station], err = spice.Rest(netlist)
			require.NoError(t, err, "%s: %s", r.ID, v.Fault().ID)
		}
		node := func(at system.Terminal) float64 { return volts[r.Station][network.SpiceName(at.Node())] }
		value := node(r.Red.Terminal) - node(r.Black.Terminal)
		if r.Unit == prove.Amps {
			wire, there := v.Design.System.Wire(r.Clamp)
			if !there { // round every lead at a battery
				return own, ok
			}
			from, to := wire.Ends()
			names := volts[r.Station]
			value = (names[network.SpiceName(from)] - names[network.SpiceName(to)]) / v.Ohm(wire.ID)
			if wire.From == (system.Terminal{Component: "aux", Terminal: "30"}) {
				value = -value
			}
		}
		return v.Metered(r, value), true
	}
}
