package day_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/battery"
	"epitrope/core/coupling"
	"epitrope/core/day"
)

// Closed form: a constant current takes I·t out of a battery.
func TestConstantCurrentDischarge(t *testing.T) {
	m := usual()
	m.join, m.houseA, m.auxSOC = &day.Join{Switch: "relay", Coil: "coil", By: day.Never, HoldA: 1, WatchA: 1e-6}, 5, 1
	got, _ := run(t, m.rig(t), "park 12 h") // from six in the morning, so all at the day's rate
	soc := 1 - 5*0.8*12/100.0
	polarised := 12.0 * 4 * 0.8 * battery.AGM.OhmAt(100, 1, soc, 20) / 3600 // comes from the capacity
	assert.InEpsilon(t, soc+polarised, got.Verdict.AuxEnd, 1e-5)
}

// Closed form: after a load begins, polarisation grows as I·R·(1 − e^(−t/RC)).
func TestPolarisationIsAnRC(t *testing.T) {
	m := usual()
	m.join, m.houseA, m.auxSOC, m.auxAh = &day.Join{Switch: "relay", Coil: "coil", By: day.Never, HoldA: 1, WatchA: 1e-6}, 50, 0.99, 1000
	_, frames := run(t, m.rig(t), "park 1 min")
	ohm := battery.AGM.OhmAt(1000, 1, 0.99, 20)
	amps, over := 50*0.8, 0.8*ohm
	for _, at := range []float64{2, 4, 8, 16, 32} {
		f := nearest(frames, at)
		rest := battery.AGM.RestAt(f.AuxSOC, 20)
		want := amps * over * (1 - math.Exp(-f.T/(over*12*1000)))
		assert.InEpsilon(t, rest-amps*ohm-want, f.AuxV, 1e-4, "%g s", f.T)
		assert.InEpsilon(t, want, rest-amps*ohm-f.AuxV, 0.02, "%g s", f.T)
	}
}

func nearest(frames []day.Frame, at float64) day.Frame {
	best := frames[0]
	for _, f := range frames {
		if math.Abs(f.T-at) < math.Abs(best.T-at) {
			best = f
		}
	}
	return best
}

// Closed form: an engine space warms as 1 − e^(−t/τ) and cools as e^(−t/τ).
func TestFirstOrderHeating(t *testing.T) {
	m := usual()
	m.join = &day.Join{Switch: "relay", Coil: "coil", By: day.Never, HoldA: 1, WatchA: 1e-6}
	_, frames := run(t, m.rig(t), "highway 1 h, park 1 h")
	for _, f := range frames {
		want := 20 + 45*(1-math.Exp(-f.T/900))
		if f.T > 3600 {
			want = 20 + 45*(1-math.Exp(-4.0))*math.Exp(-(f.T-3600)/2400)
		}
		require.InEpsilon(t, want, f.SpaceC, 1e-4, "%g s", f.T)
	}
}

// Energy: what the sources give is what loads use, what is lost and what is stored,
// within 0.1 %; the stored part from the charge alone.
func TestEnergyIsAccountedFor(t *testing.T) {
	for name, m := range map[string]made{"relay": withJoin(relay(coupling.Usual)), "charger": withCharger(charger(25, battery.AGM.Stages)),
		"two-way, solar": withSolar(relay(coupling.UsualTwoWay))} {
		rig := m.rig(t)
		got, frames := run(t, rig, "park 2 h, crank 2 s, town 10 min, highway 90 min, park 9 h, lamps 10 min, park 2 h, crank 2 s, idle 20 "+
			"min, park 8 h")
		e := got.Energy
		in := e.Machine + e.Solar
		gone := e.Vehicle + e.House + e.Coils + e.Charger + e.Lines + e.StartIn + e.AuxIn
		last := frames[len(frames)-1]
		stored := stored(rig.Start, got.Verdict.StartEnd, last.BusV, last.StartA) + stored(rig.Aux, got.Verdict.AuxEnd, last.AuxV, last.AuxA)
		assert.InDelta(t, in, gone+stored, 0.001*in, "%s: in %.0f, gone %.0f, stored %.0f", name, in, gone, stored)
		for part, joules := range map[string]float64{"lines": e.Lines, "start": e.StartIn, "aux": e.AuxIn, "coils": e.Coils} {
			assert.Positive(t, joules, "%s %s", name, part)
		}
	}
}

func withJoin(j *day.Join) made {
	m := usual()
	m.join, m.houseA = j, 3
	return m
}

func withCharger(c *day.Charger) made {
	m := usual()
	m.charger, m.houseA = c, 3
	return m
}

func withSolar(j *day.Join) made {
	m := withJoin(j)
	m.solarW = 150
	return m
}

// stored is the rest voltage over the charge that a battery gained, and what its
// overvoltage holds at the end, in J.
func stored(b day.Bank, end, volts, amps float64) float64 {
	sum, parts := 0.0, 1000
	for i := range parts {
		sum += b.Chemistry.RestAt(b.SOC+(end-b.SOC)*(float64(i)+0.5)/float64(parts), 20)
	}
	rest := b.Chemistry.RestAt(end, 20)
	over := volts - rest - amps*b.Chemistry.OhmAt(b.CapacityAh, 1, end, 20)
	farad := 12 * b.CapacityAh
	return sum/float64(parts)*(end-b.SOC)*b.CapacityAh*3600 + farad*over*(rest+over/2)
}

const aWeekday = "park 90 min, crank 2 s, idle 2 min, town 20 min, highway 30 min, park 8 h, crank 2 s, town 30 min, highway 20 min, " +
	"park 10 h"

// What comes out does not depend on who watches, and hardly on the tolerance.
func TestStepsDoNotMatter(t *testing.T) {
	for name, m := range map[string]made{"relay": withJoin(relay(coupling.Usual)), "charger": withCharger(charger(25, battery.AGM.Stages))} {
		p := pattern(t, aWeekday)
		alone, err := day.Run(m.rig(t), p, day.Conditions{OutsideC: 20}, day.Options{})
		require.NoError(t, err)
		watched, _ := run(t, m.rig(t), aWeekday)
		assert.Equal(t, alone.Verdict, watched.Verdict, name)
		assert.Equal(t, alone.Events, watched.Events, name)
		for _, tolerance := range []float64{0.5, 0.1, 0.02} {
			fine, err := day.Run(m.rig(t), p, day.Conditions{OutsideC: 20}, day.Options{Tolerance: tolerance})
			require.NoError(t, err)
			assert.InEpsilon(t, fine.Verdict.AuxEnd, alone.Verdict.AuxEnd, 0.001, name)
			assert.InEpsilon(t, fine.Verdict.AuxInAh, alone.Verdict.AuxInAh, 0.002, name)
			require.Len(t, alone.Events, len(fine.Events), name)
			for i, e := range fine.Events {
				assert.Equal(t, e.ID, alone.Events[i].ID, name)
			}
		}
	}
}

// An event is found to 10 ms: the delay of a relay after its threshold, and a crossing
// that a much finer run finds too.
func TestEventsAreLocated(t *testing.T) {
	m := withJoin(relay(coupling.Usual))
	m.startSOC = 1
	p := pattern(t, "crank 2 s, highway 30 min, lamps 2 h")
	coarse, err := day.Run(m.rig(t), p, day.Conditions{OutsideC: 20}, day.Options{})
	require.NoError(t, err)
	fine, err := day.Run(m.rig(t), p, day.Conditions{OutsideC: 20}, day.Options{Tolerance: 0.002})
	require.NoError(t, err)
	closes := events(coarse, "join.closes")[0]
	assert.InDelta(t, events(fine, "join.closes")[0].AtS, closes.AtS, 0.1)
	opens, finer := events(coarse, "join.opens")[0].AtS, events(fine, "join.opens")[0].AtS
	// The voltage falls by some 0.2 mV a second there, so that a step's error of a
	// fraction of a millivolt shifts it by a second or two.
	assert.InDelta(t, finer, opens, 3)
}
