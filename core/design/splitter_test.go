package design_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/internal/jobtest"
)

// split is a job with a splitter, with something said of its alternator and its pins.
func split(machine, pins string) string {
	return `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4` + machine +
		`},"aux":{"chemistry":"agm","place":"seat"},"pins":{"coupling":"splitter"` + pins + `}}`
}

// From memory: silicon loses 0.7–0.9 V, FET types about 0.1 V. A machine that holds its voltage at
// its own terminal leaves both batteries that much short, besides what cables lose; one that senses
// at the start battery gives it back.
func TestDiodesLoseWhatTheyLose(t *testing.T) {
	for kind, loses := range map[string]struct{ least, most float64 }{"silicon": {0.7, 0.9}, "fet": {0.09, 0.2}} {
		pins := `,"splitter":"` + kind + `"`
		own := jobtest.Design(t, split(`,"senses":"own"`, pins)).CruiseState()
		sensed := jobtest.Design(t, split(`,"senses":"battery"`, pins)).CruiseState()
		for _, battery := range []string{"1", "2"} {
			lost := own.Across("coupling.B+", "coupling."+battery)
			assert.Greater(t, lost, loses.least, "%s to %s", kind, battery)
			assert.Less(t, lost, loses.most, "%s to %s", kind, battery)
		}
		assert.InDelta(t, 14.4, own.Across("alternator.B+", "0"), 0.01)
		assert.InDelta(t, 14.4, sensed.Across("start.30", "0"), 0.01)
		gains := sensed.AuxV - own.AuxV
		assert.Greater(t, gains, loses.least, kind)
	}
}

// Neither battery feeds the other, nor the machine: parked nothing flows, and cranking takes nothing
// from the aux battery.
func TestDiodesKeepBatteriesApart(t *testing.T) {
	d := jobtest.Design(t, split("", ""))
	for _, id := range []string{"parked", "crank"} {
		s := d.StateBy(id)
		require.NoError(t, s.Err)
		assert.Less(t, s.Across("alternator.B+", "0"), s.Across("start.30", "0"))
		for _, diode := range []string{"diode to the start battery", "diode to the aux battery"} {
			assert.InDelta(t, 0, through(t, s, diode), 1e-3, "%s: %s", id, diode)
		}
	}
	assert.False(t, d.Is.CanJoin)
	assert.Equal(t, []string{design.NoSwitch}, d.CouplingSwitches())
}

func through(t *testing.T, s design.State, element string) float64 {
	t.Helper()
	amps, err := s.Solved.Through(element)
	require.NoError(t, err)
	return amps
}

// The vehicle's own cable ends at the splitter, and what takes its place bears the machine.
func TestTheChargeCableIsCut(t *testing.T) {
	d := jobtest.Design(t, split("", ""))
	lead, ok := d.System.Wire("lead")
	require.True(t, ok)
	assert.Equal(t, "coupling", lead.To.Component)
	assert.GreaterOrEqual(t, d.Start.Trial.AmpacityA, 180.0)
	assert.GreaterOrEqual(t, d.Contact.ContinuousA, 180.0)
	assert.Less(t, d.DrawsA(), d.Start.Amps)
}
