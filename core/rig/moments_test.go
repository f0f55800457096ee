package rig_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/rig"
	"epitrope/core/system"
	"epitrope/internal/jobtest"
)

// moments are long enough in each thing that a vehicle does for every delay to have run out.
const moments = "park 40 min, key 40 min, crank 2 s, idle 80 min, highway 80 min, park 40 min"

// within is by how much volts may differ between a moment and a state, of the system's: a crank is an even
// current in a state, and falls in a day.
const within = 0.01

// floats is below what a terminal is dead, in V: what nothing feeds stands where leaks have it.
const floats = 0.5

// met counts what was met at the moments.
type met struct{ compared, waiting, hunting, atThreshold, stopped int }

// A state and a moment of a day in the same conditions are the same: with batteries, machine,
// loads and charger as they are at that moment, the devices come to stand where they stand in the
// day, and the volts agree. Wires keep the plan's temperature; a moment in which something is on
// its way to switch is none to compare.
func TestMomentsAgreeWithStates(t *testing.T) {
	jobs := jobtest.Complete(t)
	count := jobtest.Fewer(1000, 120)
	for i := range count {
		doc, problems := job.Decode(jobtest.Random(rand.New(rand.NewPCG(uint64(i), 15))))
		require.Empty(t, problems)
		jobs[fmt.Sprintf("seed %d", i)] = doc
	}
	var m met
	for name, doc := range jobs {
		compareMoments(t, name, design.Of(doc, parts.Stock()), &m)
	}
	t.Logf("%d jobs: %+v", len(jobs), m)
	assert.Greater(t, m.compared, 4*len(jobs))
	assert.Less(t, m.waiting+m.hunting, m.compared/3)
	assert.Less(t, m.atThreshold, m.compared/100)
	assert.Less(t, m.stopped, len(jobs)/8)
}

// compareMoments compares the last moment of each thing that the vehicle does.
func compareMoments(t *testing.T, name string, d *design.Design, m *met) {
	built := rig.Of(d, rig.Nominal)
	built.Wires, built.Fuses, built.Disconnect = nil, nil, nil
	if c := built.Charger; c != nil { // it holds what it holds in a state, however warm
		c.Stages.AbsorptionV, c.Stages.FloatV, c.Stages.AgainV = held(d)/d.Facts.AuxN, held(d)/d.Facts.AuxN, 0
		c.FullC = 200
	}
	pattern, err := day.ParsePattern(moments)
	require.NoError(t, err)
	var f day.Frame
	_, err = day.Run(built, pattern, day.Conditions{OutsideC: 20}, day.Options{Watch: func(next day.Frame) {
		if next.Kind != f.Kind && f.Kind != "" {
			compareMoment(t, name, d, built, f, m)
		}
		f = next
	}})
	if err != nil {
		m.stopped++ // it ends before its next moment
		return
	}
	compareMoment(t, name, d, built, f, m)
}

func compareMoment(t *testing.T, name string, d *design.Design, built *day.Rig, f day.Frame, m *met) {
	if f.Waits && f.Stage != coupling.Absorption || f.World.Share < 1 {
		m.waiting++
		return
	}
	bypassed := built.Join != nil && built.Join.By == day.ByBypass && f.Joined
	was := circuit.Position{Joined: f.Joined || d.Isolates(), Stopped: built.Charger != nil && f.Stage == coupling.Resting,
		Ahead:  f.Ahead,
		Output: bypassed}
	s := design.State{State: stateOf(d, built, f), Position: was}
	d.Settle(&s)
	at := fmt.Sprintf("%s, %s at %.0f s (%s)", name, f.Kind, f.T, d.Kind)
	switch {
	case len(s.Hunts) > 0:
		m.hunting++
		return
	case was != s.Position && built.Charger != nil && math.Abs(f.InV-d.Charger.CutOutV*d.Facts.N) < within*f.InV:
		m.atThreshold++
		return
	}
	was.Locked = s.Locked // a day joins nothing by hand while the engine runs
	m.compared++
	if !assert.NoError(t, s.Err, at) || !assert.Equal(t, was, s.Position, at) {
		return
	}
	for what, v := range map[string][2]float64{
		"coupling":      {f.InV, s.Across(built.Nodes.SensePlus, built.Nodes.SenseZero)},
		"aux battery":   {f.AuxV, s.AuxV},
		"start battery": {f.BusV, s.Across(built.Nodes.Bus, "0")},
	} {
		if math.Abs(v[0]) < floats && math.Abs(v[1]) < floats {
			continue
		}
		assert.InDelta(t, v[0], v[1], within*max(math.Abs(v[0]), 12*d.Facts.N), "%s: %s", at, what)
	}
}

// stateOf is what hands and the world do at a moment.
func stateOf(d *design.Design, built *day.Rig, f day.Frame) circuit.State {
	w := f.World
	s := circuit.State{Key: system.KeyOff, HouseA: w.HouseA, SunA: w.SunA, MainsA: w.MainsA, VehicleA: w.VehicleA, StartV: w.StartV,
		StartOhm: w.StartOhm,
		Fresh:    true, AuxOwnV: w.AuxV, AuxOhm: w.AuxOhm, SecondA: w.SecondA, Efficiency: w.Working, Idles: w.Idles}
	for _, t := range d.Taps {
		amps := 0.0
		for i, of := range built.Taps {
			if of.Element == "load "+t.ID {
				amps = w.TapsA[i]
			}
		}
		s.TapsA = append(s.TapsA, amps)
	}
	switch {
	case f.Kind == day.Key:
		s.Key = system.KeyOn
	case f.Kind == day.Crank:
		s.Key, s.Cranks, s.LastsS = system.KeyStart, true, d.Facts.CrankS.Value
	case f.Kind.Runs():
		s.Key, s.SetV, s.MachineA = system.KeyOn, w.SetV, w.MachineA
	}
	return s
}

// held is what the charger holds in a state.
func held(d *design.Design) float64 {
	for _, c := range d.System.Components {
		if charger, is := c.Device.(system.Charger); is {
			return charger.OutV
		}
	}
	return 0
}
