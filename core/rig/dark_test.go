package rig_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/day"
	"epitrope/core/rig"
	"epitrope/internal/jobtest"
)

// A load with volts that nothing works at goes off, once, and stays off until another source is there: it does
// not switch to and fro at the edge, and the run costs what any other does.
func TestLoadsGoOffOnce(t *testing.T) {
	for _, document := range []string{
		`{"aux":{"chemistry":"agm","capacityAh":100,"mOhm":412},"day":{"pattern":"own","own":"park 6 h load 26 A, crank 2 s, ` +
			`highway 1 h","days":2}}`,
		`{"startBattery":{"capacityAh":20,"mOhm":55},"vehicle":{"loadA":120},"alternator":{"idleA":1},"day":{"pattern":"own",` +
			`"own":"park 1 h, idle 10 min","days":1}}`,
	} {
		d := jobtest.Design(t, document)
		driving, conditions := rig.Varied(d, rig.Nominal)
		got, err := day.Run(rig.Of(d, rig.Nominal), driving, conditions, day.Options{})
		require.NoError(t, err, document)
		dark := 0
		for _, e := range got.Events {
			if e.ID == "aux.dark" || e.ID == "start.dark" {
				dark++
			}
		}
		assert.Positive(t, dark, document)
		assert.Less(t, dark, 30, document)
		assert.Less(t, got.Steps, 5000, document)
	}
}
