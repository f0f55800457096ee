package rig_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/modes"
	"epitrope/core/rig"
	"epitrope/core/system"
	"epitrope/internal/jobtest"
)

// without takes a component out of a system, or cuts a wire.
func without(id string) func(system.System) system.System {
	return func(s system.System) system.System {
		s.Components = slices.DeleteFunc(slices.Clone(s.Components), func(c system.Component) bool { return c.ID == id })
		s.Wires = slices.DeleteFunc(slices.Clone(s.Wires), func(w system.Wire) bool { return w.ID == id })
		return s
	}
}

// coilBroken breaks the coil of the contact that joins the batteries.
func coilBroken(s system.System) system.System {
	s.Components = slices.Clone(s.Components)
	for i, c := range s.Components {
		if contact, is := c.Device.(system.Contact); is {
			contact.CoilOhm = 1e6
			s.Components[i].Device = contact
		}
	}
	return s
}

// driven is how far two hours on the highway charge the aux battery, in %.
func driven(t *testing.T, d *design.Design) float64 {
	t.Helper()
	pattern, err := day.ParsePattern("crank 2 s, highway 2 h")
	require.NoError(t, err)
	built := rig.Of(d, rig.Nominal)
	built.Solar, built.HouseA = nil, 0
	begins := built.Aux.SOC
	got, err := day.Run(built, pattern, day.Conditions{OutsideC: 20}, day.Options{})
	require.NoError(t, err)
	return 100 * (got.Verdict.AuxEnd - begins)
}

// A fault acts in a state, in the mode table and through a day alike: what charges when all is
// whole does not charge without it.
func TestFaultsActEverywhere(t *testing.T) {
	const fixed = `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4},` +
		`"aux":{"chemistry":"agm","place":"middle"},`
	for _, c := range []struct {
		job   string
		stops []string // each alone; “coil” breaks it
	}{
		{`{}`, []string{"f1", "f2", "f3", "c1", "c2", "t1", "t1b", "n1"}},
		{`{"day":{"trigger":"ignition"},"pins":{"chargerA":20}}`, []string{"f1", "f3", "t1b"}},
		{fixed + `"pins":{"coupling":"vsr"}}`, []string{"f1", "f2", "g1", "c1", "c2"}},
		{fixed + `"pins":{"coupling":"contactor"}}`, []string{"f1", "f2", "f3", "g1", "t1", "c1", "coil"}},
		{fixed + `"pins":{"coupling":"selector"}}`, []string{"f1", "f3", "g1", "c2"}},
		{fixed + `"pins":{"coupling":"splitter"}}`, []string{"lead", "f2", "c2"}},
		{`{"pins":{"coupling":"changeover"}}`, []string{"f1", "f3", "k1a", "k1b", "c2"}},
	} {
		whole := jobtest.Design(t, c.job)
		running := design.KeyState{Key: "on", Engine: "running"}
		position := whole.CouplingSwitches()[0]
		if position == design.AtOff {
			position = design.AtIgnition
		}
		require.True(t, modes.ModeAt(whole, position, running, "no").Charging, c.job)
		require.Greater(t, whole.StateBy("early").OutA, 5.0, c.job)
		require.Greater(t, driven(t, whole), 10.0, c.job)
		for _, id := range c.stops {
			wrong := without(id)
			if id == "coil" {
				wrong = coilBroken
			}
			f := whole.Faulty(wrong)
			early := f.StateBy("early")
			assert.True(t, early.Err != nil || early.OutA < 0.5, "%s without %s: %.1f A in a state", c.job, id, early.OutA)
			assert.False(t, modes.ModeAt(f, position, running, "no").Charging, "%s without %s, in the mode table", c.job, id)
			assert.Less(t, driven(t, f), 1.0, "%s without %s, through a day", c.job, id)
		}
		assert.Greater(t, whole.StateBy("early").OutA, 5.0, "the design itself is as it was")
	}
}
