package day_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/alternator"
	"epitrope/core/battery"
	"epitrope/core/coupling"
	"epitrope/core/day"
)

// Trade (§16): the relay closes seconds after the start, and the aux battery rises by
// about a volt.
func TestRelayClosesAndAuxRises(t *testing.T) {
	m := usual()
	m.join = relay(coupling.Usual)
	got, frames := run(t, m.rig(t), "park 10 min, crank 2 s, idle 5 min, highway 30 min")
	closed := events(got, "join.closes")
	require.Len(t, closed, 1)
	assert.InDelta(t, 602, closed[0].AtS, 30, "seconds after the engine runs: first it makes up for the starter")
	assert.Greater(t, closed[0].AtS, 604.0)
	before, after := frameAt(frames, 590).AuxV, frameAt(frames, 900).AuxV
	assert.InDelta(t, 12.3, before, 0.05)
	assert.InDelta(t, 1.2, after-before, 0.5)
	assert.Len(t, events(got, "start"), 1)
}

// Trade (§7): a fresh full start battery may hold the relay closed for hours after
// stopping; headlights bring it down.
func TestRelayStaysClosedAfterStopping(t *testing.T) {
	m := usual()
	m.join, m.startSOC, m.auxSOC = relay(coupling.Usual), 1, 1
	opens := func(after string) float64 {
		got, _ := run(t, m.rig(t), "crank 2 s, highway 2 h, "+after)
		list := events(got, "join.opens")
		require.NotEmpty(t, list, after)
		return list[0].AtS - 7202
	}
	left, lit := opens("park 20 h"), opens("lamps 1 h, park 19 h")
	assert.Greater(t, left, 1800.0, "it stays closed for half an hour and more")
	assert.Less(t, lit, left/2, "headlights bring it down")
	assert.Less(t, lit, 1500.0)
}

// Truth 7: thin cable before the sensing point chatters; after it, it does not; and
// thickening the wrong side does not cure it.
func TestChatter(t *testing.T) {
	chatter := func(before, after float64) int {
		m := usual()
		m.join, m.auxSOC, m.auxAh, m.beforeOhm, m.afterOhm = relay(coupling.Usual), 0.1, 200, before, after
		got, _ := run(t, m.rig(t), "crank 2 s, highway 10 min")
		return got.Verdict.Chatter
	}
	assert.Greater(t, chatter(0.100, 0.010), 10, "thin before: on, off, on")
	assert.Zero(t, chatter(0.010, 0.100), "thin after: slow, but quiet")
	assert.Greater(t, chatter(0.100, 0.002), 10, "thickening after it does not help")
	assert.Zero(t, chatter(0.004, 0.010), "thickening before it does")
}

// Trade (§3, §7): variable regulation leaves a relay-charged aux battery about half
// charged after a week; a fixed one does not.
func TestVariableRegulationStarvesARelay(t *testing.T) {
	after := func(r alternator.Regulation) float64 {
		m := usual()
		m.join, m.regulation, m.houseA, m.auxSOC = relay(coupling.Usual), r, 1.6, 0.8
		ready, err := day.ReadyByID("two-trips")
		require.NoError(t, err)
		got, err := day.Run(m.rig(t), ready.Days(7, 2), day.Conditions{OutsideC: 20}, day.Options{})
		require.NoError(t, err)
		return got.Verdict.AuxEnd
	}
	fixed, variable := after(alternator.Fixed), after(alternator.Variable)
	assert.Greater(t, fixed, 0.65)
	assert.Less(t, variable, 0.6)
}

// A charger goes through bulk, absorption and float, at its voltages.
func TestChargerStages(t *testing.T) {
	m := usual()
	m.charger = charger(25, battery.AGM.Stages)
	got, frames := run(t, m.rig(t), "crank 2 s, highway 14 h")
	ids := []string{}
	for _, e := range got.Events {
		if e.Part == "coupling" {
			ids = append(ids, e.ID)
		}
	}
	require.Equal(t, []string{"charger.on", "charger.absorption", "charger.float"}, ids)
	absorption, float := events(got, "charger.absorption")[0].AtS, events(got, "charger.float")[0].AtS
	assert.InDelta(t, 25, frameAt(frames, absorption-60).CoupleA, 0.1, "all its current in bulk")
	assert.InDelta(t, 14.4, frameAt(frames, absorption+60).OutV, 0.02)
	assert.Less(t, frameAt(frames, float-60).CoupleA, 25*0.13)
	assert.InDelta(t, 13.5, frameAt(frames, float+3600).OutV, 0.02)
	assert.Greater(t, got.Verdict.AuxEnd, 0.97)
	// Trade (§5, §12): bulk to about 80 %, then a long tail.
	at80, at99 := math.Inf(1), math.Inf(1)
	for _, f := range frames {
		if f.AuxSOC >= 0.8 {
			at80 = math.Min(at80, f.T)
		}
		if f.AuxSOC >= 0.99 {
			at99 = math.Min(at99, f.T)
		}
	}
	assert.Less(t, at80/3600, 1.5, "30 Ah at 25 A")
	assert.Greater(t, (at99-at80)/at80, 1.3, "the last fifth takes longer than the third before it")
}

// Trade (§6), truth 8: a lithium bank on a relay takes all an alternator has at idle,
// and holds the relay closed all night.
func TestLithiumOnARelay(t *testing.T) {
	m := usual()
	m.join, m.aux, m.auxAh, m.auxSOC, m.label = relay(coupling.Usual), battery.LiFePO4, 200, 0.3, "60/120 A"
	got, frames := run(t, m.rig(t), "crank 2 s, idle 1 h, park 10 h")
	assert.Greater(t, got.Verdict.LimitedS, 3000.0, "the alternator is at its limit")
	assert.Greater(t, got.Verdict.Winding.C, 110.0, "full current with little cooling")
	assert.Greater(t, frameAt(frames, 1800).AuxA, 20.0, "all that the vehicle leaves")
	assert.Empty(t, events(got, "join.opens"), "it stays closed all night")
	assert.True(t, frames[len(frames)-1].Joined)
}

// Trade (§7): a forgotten switch lets the charger empty the start battery into the aux
// battery, down to its cut-out.
func TestForgottenSwitch(t *testing.T) {
	m := usual()
	m.charger, m.houseA, m.startSOC = charger(10, battery.AGM.Stages), 3, 0.95
	m.charger.By = day.Switched
	got, _ := run(t, m.rig(t), "park 24 h, crank 2 s, idle 10 min")
	require.GreaterOrEqual(t, got.Verdict.RiskAtS, 0.0)
	// 10 A at 13.6 V and 0.88 from 12.2 V: about 12.7 A; 45 % of 80 Ah lasts about 2.8 h.
	assert.InDelta(t, 0.45*80/12.7, got.Verdict.RiskAtS/3600, 0.3)
	assert.NotZero(t, got.Verdict.Starved, "the cut-out stops it")
	assert.Less(t, got.Verdict.StartLeast, 0.45)
	m.charger = charger(10, battery.AGM.Stages)
	fine, _ := run(t, m.rig(t), "park 24 h, crank 2 s, idle 10 min")
	assert.Less(t, fine.Verdict.RiskAtS, 0.0, "with a proper trigger nothing happens")
}

// Trade (§13): a trailer that stays fed with the engine off flattens the tow vehicle,
// which then does not start.
func TestFedTrailerDrainsTheTowVehicle(t *testing.T) {
	m := usual()
	m.aux, m.beforeOhm, m.afterOhm = battery.Flooded, 0.020, 0.030
	m.join, m.houseA, m.auxSOC, m.auxAh = &day.Join{Switch: "relay", Coil: "coil", By: day.Always, HoldA: 0.15, WatchA: 0.005}, 6, 0.3, 60
	got, _ := run(t, m.rig(t), "park 40 h, crank 2 s, idle 10 min")
	assert.GreaterOrEqual(t, got.Verdict.RiskAtS, 0.0)
	assert.Equal(t, 1, got.Verdict.FailedStarts)
	assert.Contains(t, events(got, "start.fails")[0].Text, "does not start")
	m.join.By, m.join.Trigger = day.ByCoil, day.Ignition
	apart, _ := run(t, m.rig(t), "park 40 h, crank 2 s, idle 10 min")
	assert.Zero(t, apart.Verdict.FailedStarts, "dead with the engine off it does not")
}

// Truth 14: joined by ignition means joined while cranking.
func TestContactorShareInCranking(t *testing.T) {
	m := usual()
	m.join = &day.Join{Switch: "relay", Coil: "coil", By: day.ByCoil, Trigger: day.Ignition, HoldA: 1, WatchA: 1e-3}
	_, frames := run(t, m.rig(t), "park 1 min, crank 2 s, idle 1 min")
	assert.Less(t, frameAt(frames, 61).AuxA, -50.0)
}

// Trade (§7): two-way sensing lets a solar panel on the aux battery also keep up the
// start battery; one-way does not.
func TestSolarThroughATwoWayRelay(t *testing.T) {
	after := func(s coupling.Sensing) float64 {
		m := usual()
		m.join, m.solarW, m.houseA, m.auxSOC, m.startSOC = relay(s), 200, 1, 0.9, 0.75
		got, _ := run(t, m.rig(t), "park 72 h")
		return got.Verdict.StartEnd
	}
	assert.Greater(t, after(coupling.UsualTwoWay), 0.85)
	assert.Less(t, after(coupling.Usual), 0.75)
}

// Truth 21: ten seconds of join move 0.2–0.3 Ah, ten minutes at 8–30 A some 1.3–5 Ah.
func TestEmergencyJoinAndPreCharge(t *testing.T) {
	m := usual()
	m.join, m.startSOC, m.auxSOC = &day.Join{Switch: "relay", Coil: "coil", By: day.Never, HoldA: 0.15, WatchA: 0.005}, 0.05, 0.95
	moved := func(text string) float64 {
		_, frames := run(t, m.rig(t), text)
		sum := 0.0
		for i, f := range frames[1:] {
			if frames[i].Joined && f.Joined {
				sum += (frames[i].StartA + f.StartA) / 2 * (f.T - frames[i].T) / 3600
			}
		}
		return sum
	}
	ten := moved("park 1 min, joined 10 s")
	assert.True(t, ten > 0.04 && ten < 0.35, "%g Ah", ten)
	long := moved("park 1 min, joined 10 min")
	assert.True(t, long > 1.0 && long < 5.5, "%g Ah", long)
	crank := func(text string) float64 {
		_, frames := run(t, m.rig(t), text)
		return frameAt(frames, 1e9).BusV
	}
	assert.Greater(t, crank("joined 10 min, assist 2 s"), crank("assist 2 s")+0.05, "pre-charge first helps")
	assert.Greater(t, crank("assist 2 s"), crank("crank 2 s")+0.3, "and the join helps most")
}

// Trade (§5): LiFePO4 is not charged below 0 °C: its management takes no charge.
func TestManagementInTheCold(t *testing.T) {
	m := usual()
	m.charger, m.aux, m.fullV, m.houseA = charger(30, battery.LiFePO4.Stages), battery.LiFePO4, 14.2, 3
	rig := m.rig(t)
	got, err := day.Run(rig, pattern(t, "park 5 min, crank 2 s, highway 2 h"), day.Conditions{OutsideC: -8}, day.Options{})
	require.NoError(t, err)
	assert.NotEmpty(t, events(got, "bms.cold"))
	assert.InDelta(t, 0.5, got.Verdict.AuxMost, 1e-3)
	// The charger feeds the loads meanwhile: it is not starved, and the battery rests.
	assert.Empty(t, events(got, "charger.starved"))
	assert.InDelta(t, got.Verdict.AuxMost-3*0.8*5/60/rig.Aux.CapacityAh, got.Verdict.AuxEnd, 5e-4)
	e := got.Energy
	assert.InDelta(t, 0, e.AuxIn, 0.01*e.House, "next to nothing is lost in a battery that rests")
	warm, err := day.Run(m.rig(t), pattern(t, "park 5 min, crank 2 s, highway 2 h"), day.Conditions{OutsideC: 8}, day.Options{})
	require.NoError(t, err)
	assert.Greater(t, warm.Verdict.AuxEnd, 0.9)
}

// A segment's own air, load and sun count for that segment: the management opens in its
// cold alone, its load is what is used, and without sun panels give nothing.
func TestASegmentOfItsOwn(t *testing.T) {
	m := usual()
	m.charger, m.aux, m.fullV = charger(30, battery.LiFePO4.Stages), battery.LiFePO4, 14.2
	got, frames := run(t, m.rig(t), "crank 2 s, highway 2 h air -8 C, highway 2 h, park 4 h load 10 A")
	cold := events(got, "bms.cold")
	require.Len(t, cold, 1)
	assert.Less(t, cold[0].AtS, 2*3600.0)
	assert.InDelta(t, 0.5, frameAt(frames, 2*3600).AuxSOC, 1e-3)
	// Its voltage held, the charger went on to float meanwhile; from there it takes longer.
	assert.Greater(t, frameAt(frames, 4*3600).AuxSOC, 0.7)
	used := (frameAt(frames, 4*3600+2).AuxSOC - frameAt(frames, 8*3600+2).AuxSOC) * m.rig(t).Aux.CapacityAh
	assert.InDelta(t, 40, used, 1.5, "Ah in four hours at 10 A")

	solar := withSolar(relay(coupling.UsualTwoWay))
	bright, _ := run(t, solar.rig(t), "park 6 h sun 90 %")
	dark, _ := run(t, solar.rig(t), "park 6 h sun 0 %")
	assert.Zero(t, dark.Energy.Solar)
	assert.Greater(t, bright.Energy.Solar, 100.0)
}

// What a flat battery feeds goes off, and is on again once it was charged.
func TestEmptyAndBack(t *testing.T) {
	m := usual()
	m.charger, m.houseA, m.auxSOC = charger(30, battery.AGM.Stages), 10, 0.2
	got, _ := run(t, m.rig(t), "park 6 h, crank 2 s, highway 2 h")
	require.Len(t, events(got, "aux.empty"), 1)
	require.Len(t, events(got, "aux.back"), 1)
	assert.Equal(t, 1, got.Verdict.Empty)
}

// A fuse that carries twice its rating opens, and the batteries are apart from then on.
func TestFuseOpens(t *testing.T) {
	m := usual()
	m.join, m.auxSOC, m.fuseA = relay(coupling.Usual), 0.1, 30
	got, frames := run(t, m.rig(t), "crank 2 s, highway 1 h")
	require.Len(t, events(got, "fuse.opens"), 1)
	assert.InDelta(t, 0, frames[len(frames)-1].CoupleA, 1e-3)
	assert.InDelta(t, 1, got.Verdict.Fuses[0].Heated, 1e-9)
	m.fuseA = 100
	holds, _ := run(t, m.rig(t), "crank 2 s, highway 1 h")
	assert.Empty(t, events(holds, "fuse.opens"))
	assert.Less(t, holds.Verdict.Fuses[0].Heated, 0.1)
}
