package fault_test

import (
	"math"
	"reflect"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/system"
	"epitrope/internal/jobtest"
	"epitrope/testdata"
)

func designs(t *testing.T) map[string]*design.Design {
	t.Helper()
	list := map[string]*design.Design{"none": jobtest.Design(t, `{}`)}
	for _, k := range coupling.Kinds() {
		list[string(k)] = jobtest.Design(t, `{"pins":{"coupling":"`+string(k)+`"}}`)
	}
	list["isolator"] = jobtest.Design(t, `{"aux":{"chemistry":"agm"},"extras":{"isolator":"front"},"day":{"solarW":200}}`)
	all, err := testdata.Documents()
	require.NoError(t, err)
	for name, document := range all {
		list[name] = jobtest.Design(t, string(document))
	}
	return list
}

// Every fault has its name, what mends it, and a change that can be seen: in the installation or in the world, and never in the
// installation that it is a fault of.
func TestEveryFaultChangesSomething(t *testing.T) {
	kinds := map[fault.Kind]bool{}
	for name, d := range designs(t) {
		seen := map[string]bool{}
		for _, f := range fault.Of(d) {
			kinds[f.Kind] = true
			assert.False(t, seen[f.ID], "%s: %s stands twice", name, f.ID)
			seen[f.ID] = true
			assert.NotEmpty(t, f.Says, f.ID)
			assert.NotEmpty(t, f.Mend, f.ID)
			was := d.System
			state := circuit.State{SetV: 14, MachineA: 50, StartV: 12.6, AuxOwnV: 12.5}
			parked := circuit.State{StartV: 12.6, AuxOwnV: 12.5, Key: system.KeyOff}
			changed := !reflect.DeepEqual(f.On(d.System, f.Size(0.5)), d.System) || !reflect.DeepEqual(f.In(state, 1, f.Size(0.5)),
				state) ||
				!reflect.DeepEqual(f.In(parked, 1, f.Size(0.5)), parked)
			assert.True(t, changed || f.Kind == fault.Uncounted, "%s: %s changes nothing", name, f.ID) // it is in what a display says
			assert.True(t, reflect.DeepEqual(was, d.System), "%s: %s changes what it is a fault of", name, f.ID)
		}
	}
	assert.Len(t, kinds, 39, "every kind of fault is one of some installation: %v", kinds)
}

// Any two may be there at once, at the same place too.
func TestAnyTwoFaultsAreACircuit(t *testing.T) {
	for name, d := range designs(t) {
		faults := fault.Of(d)
		for i, a := range faults {
			b := faults[(7*i+3)%len(faults)]
			for _, b := range []fault.Fault{b, faults[(i+1)%len(faults)]} {
				if b.ID == a.ID {
					continue
				}
				both := b.On(a.On(d.System, a.Size(0.5)), b.Size(0.5))
				assert.NotPanics(t, func() { circuit.Lay(&both, d.Facts.N) }, "%s: %s and %s", name, a.ID, b.ID)
			}
		}
	}
}

// Those that come and go have a name of their own, and are one of the others while they are there.
func TestAtTimesIsAFaultThatStands(t *testing.T) {
	faults := fault.Of(jobtest.Design(t, `{}`))
	list := fault.AtTimes(faults)
	assert.NotEmpty(t, list)
	for _, f := range list {
		at := slices.IndexFunc(faults, func(g fault.Fault) bool { return g.ID == f.Standing().ID })
		assert.True(t, at >= 0 && faults[at].At == f.At && f.ID != faults[at].ID && f.Says != faults[at].Says, f.ID)
	}
}

// Whatever the fault and its size, the circuit is one, and comes to a stand or says why not.
func TestACircuitWithAFaultIsOne(t *testing.T) {
	for name, d := range designs(t) {
		for _, f := range fault.Of(d) {
			for _, share := range []float64{0, 1} {
				size := f.Size(share)
				sys := f.On(d.System, size)
				laid := circuit.Lay(&sys, d.Facts.N)
				for _, id := range []string{"bay", "parked"} {
					s := d.StateBy(id)
					settled, err := laid.Settle(f.In(s.State, d.Facts.N, size), s.Position)
					if err != nil {
						continue
					}
					v, err := settled.Solution.Across("aux.30", "aux.31")
					require.NoError(t, err, "%s: %s", name, f.ID)
					assert.False(t, math.IsNaN(v) || math.IsInf(v, 0), "%s: %s", name, f.ID)
				}
			}
		}
	}
}

// A size grows with its share, by powers, between its least and its most.
func TestSizes(t *testing.T) {
	f := fault.Fault{Least: 5, Most: 500}
	assert.InDelta(t, 5, f.Size(0), 1e-9)
	assert.InDelta(t, 50, f.Size(0.5), 1e-9)
	assert.InDelta(t, 500, f.Size(1), 1e-9)
	assert.InDelta(t, 7, fault.Fault{Most: 7}.Size(0.3), 1e-9)
}

// Table: what a fault does to what a meter would show, from what is known of such faults (trade.md §§17, 19).
func TestWhatFaultsDo(t *testing.T) {
	relay := `{"alternator":{"label":"80/140 A","regulation":"fixed","knownBy":"test","volts":14.3},"aux":{"chemistry":"agm",` +
		`"capacityAh":100},` +
		`"routes":{"startM":1,"auxM":2},"pins":{"coupling":"vsr"}}`
	d := jobtest.Design(t, relay)
	at := func(id, state string, size float64) design.State {
		for _, f := range fault.Of(d) {
			if f.ID == id {
				with := d.Faulty(func(s system.System) system.System { return f.On(s, size) })
				return with.StateBy(state)
			}
		}
		require.Fail(t, "no fault "+id)
		return design.State{}
	}
	whole := d.StateBy("bay")
	assert.InDelta(t, 0, at("blown f1", "bay", 0).OutA, 0.1, "14 V at the start battery, nothing at the aux battery")
	assert.InDelta(t, whole.BusV, at("blown f1", "bay", 0).BusV, 0.3)
	assert.Less(t, at("joint c1 to", "bay", 100).OutA, 0.7*whole.OutA, "a bad joint before the coupling")
	parked := at("welded coupling", "parked", 0).Solved
	assert.InDelta(t, circuit.Had(parked.At("coupling.30")), circuit.Had(parked.At("coupling.87")), 0.05, "what is welded stays "+
		"joined when parked")
	open := d.StateBy("parked").Solved
	assert.Greater(t, math.Abs(circuit.Had(open.At("coupling.30"))-circuit.Had(open.At("coupling.87"))), 0.05, "and a sound one parts")
	assert.InDelta(t, 0, at("open g1", "bay", 0).OutA, 0.1, "a relay without its ground does not close")
}
