package design_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/internal/jobtest"
)

// Ohm's law: what was measured of a battery is what its circuit shows. Rested at 12.7 V and cranked at
// 9.2 V, it cranks at 9.2 V, whatever the starter takes; 20 A from 12.60 to 12.46 V are 7 mΩ.
func TestMeasuredBatteries(t *testing.T) {
	for _, crank := range []string{``, `,"crankA":600`} {
		d := jobtest.Design(t, `{"startBattery":{"restV":12.7,"crankV":9.2`+crank+`}}`)
		volts, err := d.StateBy("crank").Solved.At("start.30")
		assert.NoError(t, err)
		assert.InDelta(t, 9.2, volts, 0.05)
	}
	d := jobtest.Design(t, `{"startBattery":{"restV":12.6,"loadedV":12.46,"loadedA":20},"aux":{"chemistry":"agm","mOhm":5}}`)
	assert.InDelta(t, 0.007, d.StartOhm(), 1e-9)
	assert.InDelta(t, 0.005, d.AuxOhm(), 1e-9)
}

// An alternator at idle gives what was measured there; where nobody measured, no more than its
// label's first figure, times heat; by its label at the speed that was measured, where that was.
func TestIdle(t *testing.T) {
	const vehicle = `"vehicle":{"loadA":30}`
	for machine, want := range map[string]float64{
		`"label":"90/180 A"`:                          0.85*90 - 30,
		`"label":"180 A"`:                             0.85*90 - 30,
		`"label":"90/180 A","idleA":60`:               60 - 30,
		`"label":"90/180 A","idleRpm":500,"ratio":3`:  0.85*90 - 30,
		`"label":"90/180 A","idleRpm":1500,"ratio":4`: 0.85*180 - 30,
	} {
		d := jobtest.Design(t, `{"alternator":{`+machine+`},`+vehicle+`}`)
		assert.InDelta(t, want, d.IdleA, 0.5, machine)
	}
}
