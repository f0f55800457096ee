package design_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	circ "epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/system"
	"epitrope/internal/jobtest"
)

// Both batteries under one seat: the steel between two earth points in one place still conducts.
func TestSteelOfNoLengthConducts(t *testing.T) {
	d := jobtest.Design(t, `{"vehicle":{"kind":"wagon"},"startBattery":{"place":"seat"},"aux":{"place":"seat"},"pins":{"coupling":"dcdc"}}`)
	cruise := d.CruiseState()
	assert.NoError(t, cruise.Err)
	assert.Greater(t, cruise.OutA, 1.0)
}

// A charger on an alternator of its own takes nothing from the vehicle's side.
func TestASecondAlternatorFeedsTheCharger(t *testing.T) {
	d := jobtest.Design(t, `{"aux":{"chemistry":"lifepo4","capacityAh":200},"pins":{"coupling":"dcdc"},"arranged":{"from":"second"}}`)
	cruise := d.CruiseState()
	assert.NoError(t, cruise.Err)
	assert.InDelta(t, d.Charger.OutputA, cruise.OutA, 0.5)
	assert.InDelta(t, cruise.InA, circ.Had(cruise.Solved.Through("second alternator")), 0.1, "it gives what the charger draws")
	assert.Less(t, circ.Had(cruise.Solved.Through("lead")), cruise.VehicleA+15, "the vehicle's feeds the vehicle")
	assert.GreaterOrEqual(t, design.SecondShare*d.Second.RatedA, cruise.InA, "half its label bears it for hours")
}

// What hangs on the plug goes over it, both ways.
func TestAPlugPartsWhatComesOut(t *testing.T) {
	for _, c := range []struct{ coupling, plug string }{
		{"dcdc", "start"}, {"dcdc", "aux"}, {"vsr", "start"}, {"vsr", "aux"}, {"contactor", "aux"}, {"changeover", "start"},
	} {
		d := jobtest.Design(t, `{"vehicle":{"kind":"wagon"},"pins":{"coupling":"`+c.coupling+`"},"arranged":{"plug":"`+c.plug+`"}}`)
		plug, is := d.System.Component("x1")
		assert.True(t, is, "%v", c)
		assert.Equal(t, system.Plug{Card: d.PlugCard, Plus: true, Minus: true, Behind: system.Box}, plug.Device, "%v", c)
		way := d.System.Way()
		assert.True(t, slices.ContainsFunc(way, func(s system.Station) bool { return s.ID == "x1" }), "%v", c)
		crossing := 0
		for _, w := range d.System.Wires {
			if w.From.Component == "x1" || w.To.Component == "x1" {
				crossing++
			}
		}
		more := 0
		if g, is := d.System.Wire("g1"); is && g.To.Component == "x1" { // the ground of a relay in a box
			more = 1
		}
		assert.Equal(t, 4+more, crossing, "plus and minus on both halves, %v", c)
		assert.Equal(t, c.coupling == "vsr" && c.plug == "start", more == 1, "what comes out has its ground with it, %v", c)
	}
}

// The trailer's frame loses what it measures, and nothing else changes.
func TestATrailersFrameIsAReturn(t *testing.T) {
	job := func(frame string) *design.Design {
		return jobtest.Design(t, `{"vehicle":{"kind":"tow-caravan"},"aux":{"chemistry":"lifepo4"},"pins":{"coupling":"trailer",`+
			`"startSize":"35 mm2"},`+
			`"arranged":{"frame":"yes"}`+frame+`}`)
	}
	good, bad := job(`,"joints":{"frame":{"mOhm":1}}`), job(`,"joints":{"frame":{"mOhm":21}}`)
	was, is := good.CruiseState(), bad.CruiseState()
	assert.InDelta(t, is.InA*0.021-was.InA*0.001, was.InV-is.InV, 0.1, "20 mΩ at what it draws")
	_, cable := good.System.Wire("n1t")
	assert.True(t, cable)
	wire, steel := good.System.Wire("frame")
	assert.True(t, steel)
	assert.Equal(t, system.Chassis, wire.Role)
}

// A body-builder's stud that is live with the engine only is dead when parked.
func TestAStudIsDeadWithoutTheEngine(t *testing.T) {
	for live, want := range map[string]float64{"running": 0, "always": 12.7} {
		d := jobtest.Design(t, `{"pins":{"coupling":"dcdc"},"arranged":{"from":"stud","fromA":100,"fromLive":"`+live+`"}}`)
		assert.InDelta(t, want, d.StateBy("parked").InV, 0.1, live)
		assert.Greater(t, d.CruiseState().OutA, 1.0, live)
		_, stays := d.LiveWires("engine")["c1"]
		assert.Equal(t, live == "always", stays, live)
	}
}

// A relay ahead of a charger: with its coil's feed dead, or F6 out, nothing charges.
func TestARelayAheadPartsTheFeed(t *testing.T) {
	job := func(trigger string) *design.Design {
		return jobtest.Design(t, `{"vehicle":{"kind":"tow-caravan"},"day":{"trigger":"`+trigger+`"},"pins":{"coupling":"trailer"},`+
			`"arranged":{"ahead":"yes"}}`)
	}
	runs := design.KeyState{Key: "on", Engine: "running"}
	settled := func(d *design.Design) design.State {
		s := d.StateAt("", runs)
		d.Settle(&s)
		return s
	}
	whole := settled(job("running"))
	assert.True(t, whole.Ahead && !whole.Stopped)
	dead := settled(job("dead"))
	assert.True(t, !dead.Ahead && dead.Stopped)
	without := settled(job("running").Faulty(func(s system.System) system.System {
		s.Wires = slices.DeleteFunc(slices.Clone(s.Wires), func(w system.Wire) bool { return w.ID == "t2b" })
		return s
	}))
	assert.True(t, without.Ahead && without.Stopped, "K2 closes and the charger has no signal")
}

// What is left without a fuse: up to the next one, or to what lets nothing back.
func TestWhatIsLeftWithoutAFuse(t *testing.T) {
	for _, c := range []struct {
		coupling, fuses    string
		fromStart, fromAux float64
	}{
		{"vsr", "both", 0, 0}, {"vsr", "front", 0, 3}, {"vsr", "back", 3, 0}, {"vsr", "none", 3, 3},
		{"dcdc", "front", 0, 2}, {"dcdc", "back", 1, 0}, {"dcdc", "none", 1, 2}, {"splitter", "front", 0, 2}, {"second", "none", 3, 2},
	} {
		d := jobtest.Design(t, `{"routes":{"startM":1,"auxM":2},"pins":{"coupling":"`+c.coupling+`"},"arranged":{"fuses":"`+c.fuses+`"}}`)
		fromStart, fromAux := d.UnfusedM()
		assert.Equal(t, []float64{c.fromStart, c.fromAux}, []float64{fromStart, fromAux}, "%v", c)
		for id, is := range map[string]bool{"f1": c.fuses == "both" || c.fuses == "front", "f2": c.fuses == "both" || c.fuses == "back"} {
			_, there := d.System.Component(id)
			assert.Equal(t, is, there, "%s of %v", id, c)
		}
	}
}

// Two chargers of different size give both their outputs, and draw what both lose.
func TestChargersOfTwoSizes(t *testing.T) {
	one := func(rest string) *design.Design {
		return jobtest.Design(t, `{"aux":{"chemistry":"lifepo4","capacityAh":400},"pins":{"coupling":"dcdc","chargerA":40}`+rest+`}`)
	}
	d := one(`,"arranged":{"besideA":25}`)
	assert.Equal(t, 65.0, d.Charger.OutputA)
	small := jobtest.Design(t, `{"aux":{"chemistry":"lifepo4","capacityAh":400},"pins":{"coupling":"dcdc","chargerA":25}}`)
	assert.InDelta(t, d.InputA(one("").Charger)+d.InputA(small.Charger), d.InputA(d.Charger), 0.1)
}
