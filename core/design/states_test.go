package design_test

import (
	"io/fs"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/battery"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/section"
	"epitrope/internal/jobtest"
	"epitrope/internal/networktest"
	"epitrope/testdata"
)

func circuit(t testing.TB, text, at string) networktest.Read {
	t.Helper()
	doc, problems := job.Decode([]byte(text))
	require.Empty(t, problems)
	_, solved, err := design.Of(doc, parts.Stock()).CircuitAt(at)
	require.NoError(t, err)
	return networktest.Read{T: t, Solution: solved}
}

const (
	relayLead = `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4},"aux":{"chemistry":"agm",` +
		`"capacityAh":100,"place":"seat"},"pins":{"coupling":"vsr"}}`
	relayLithium = `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4},"aux":{"chemistry":"lifepo4",` +
		`"capacityAh":100,"place":"seat"},"pins":{"coupling":"vsr"}}`
)

// The wiring that is solved is the wiring that was sized: a dead short at the end of a
// run, solved as a circuit, draws what the fuse was judged by, U/ΣR.
func TestShortsAreWhatFusesAreJudgedBy(t *testing.T) {
	for _, doc := range []string{`{}`, relayLead, `{"vehicle":{"kind":"tow-camper"}}`, `{"vehicle":{"systemVolts":24}}`,
		`{"pins":{"return":"cable","startSize":"2 x 10 mm2"}}`} {
		p := jobtest.Plan(t, doc)
		for at, key := range map[string]string{"short-c1": "f1.fault", "short-c2": "f2.fault"} {
			amps := circuit(t, doc, at).Through(at)
			assert.InEpsilon(t, p.Figures[key].Unrounded, amps, 0.02, "%s %s", doc, at)
		}
	}
}

// A start battery is of its own kind: AGM rests about 0.1 V higher than flooded.
func TestTheStartBatterysKindCounts(t *testing.T) {
	flooded, agm := circuit(t, `{"startBattery":{"chemistry":"flooded"}}`, "parked"),
		circuit(t, `{"startBattery":{"chemistry":"agm"}}`, "parked")
	assert.InDelta(t, 0.1, agm.At("start.30")-flooded.At("start.30"), 0.06)
	assert.Greater(t, circuit(t, `{"startBattery":{"chemistry":"agm"}}`, "crank").At("start.30"),
		circuit(t, `{"startBattery":{"chemistry":"flooded"}}`, "crank").At("start.30"), "and resists less")
}

// The charger's sheet limits its fuse where a fuse within it carries the load.
func TestTheSheetLimitsTheFuse(t *testing.T) {
	free := jobtest.Plan(t, `{"pins":{"chargerA":40}}`)
	limited := jobtest.Plan(t, `{"pins":{"chargerA":40},"card":{"name":"own","outputA":40,"maxFuseA":70}}`)
	assert.NotContains(t, jobtest.NoteIDs(free), "fuse.sheet")
	assert.NotContains(t, jobtest.NoteIDs(limited), "fuse.sheet")
	tight := jobtest.Plan(t, `{"pins":{"chargerA":40},"card":{"name":"own","outputA":40,"maxFuseA":50}}`)
	assert.Contains(t, jobtest.NoteIDs(tight), "fuse.sheet", "none within it carries 53 A")
}

// A machine of the run's own gives what its regulator allows, through the isolator.
func TestSecondAlternatorCharges(t *testing.T) {
	p := jobtest.Plan(t, `{"alternator":{"label":"150/250 A"},"aux":{"chemistry":"lifepo4","capacityAh":400,"place":"rear"},`+
		`"pins":{"coupling":"second","secondA":180}}`)
	cruise := jobtest.State(t, p, "cruise")
	assert.InDelta(t, 90, cruise.OutA, 1, "half of its label")
	assert.Greater(t, cruise.AuxV, 13.2)
}

// 400 A from a full 80 Ah battery of 7.5 mΩ at once: 12.7 − 3.0 V at the posts. By the end of the start it
// has polarised, in use and at 20 °C: a starter of (12.7 − 3.0)/400 Ω then divides with that, and the key
// has the vehicle on.
func TestCrankingPullsTheStartBatteryDown(t *testing.T) {
	s := circuit(t, `{"startBattery":{"capacityAh":80,"crankA":400}}`, "crank")
	starter := 12.7/400 - battery.Flooded.Ohm(80, 1)
	ohm := battery.Polarised(battery.Flooded.OhmAt(80, 1, 0.9, 20), 80, 1, 2)
	assert.InDelta(t, (12.7-12*ohm)*starter/(starter+ohm), s.At("start.30"), 0.03)
	assert.InDelta(t, s.At("start.30")/starter, s.Through("starter"), 1)
}

// Truths 8 and 14: lead lets the relay drop out at rest; LiFePO4 rests above its
// cut-out, so that it stays closed all night and shares in the cranking.
func TestWhatIsJoinedAtRest(t *testing.T) {
	lead, lithium := jobtest.Plan(t, relayLead), jobtest.Plan(t, relayLithium)
	assert.True(t, jobtest.State(t, lead, "parked").Apart)
	assert.False(t, jobtest.State(t, lithium, "parked").Apart)
	assert.Contains(t, jobtest.NoteIDs(lithium), "relay.night")
	assert.NotContains(t, jobtest.NoteIDs(lead), "relay.night")
	assert.InDelta(t, 0, circuit(t, relayLead, "crank").Through("c2"), 0.01, "isolated")
	assert.Less(t, circuit(t, relayLithium, "crank").Through("c2"), -20.0, "the house bank cranks too")
	charger := jobtest.Plan(t, `{}`)
	assert.True(t, jobtest.State(t, charger, "parked").Apart)
	assert.InDelta(t, 0, circuit(t, `{}`, "parked").Through("c2"), 0.01, "0 A between the batteries")
}

// Through the join: what the aux battery gives follows from the two batteries, the
// starter and the cable between, all in one equation for the voltage at the posts.
func TestCrankingThroughTheJoin(t *testing.T) {
	s := circuit(t, relayLead, "joined")
	flat, crank := battery.Flooded.RestV(0.1), 400.0
	startOhm := battery.Flooded.OhmAt(80, 1, 0.1, 20)
	starter := battery.Flooded.RestV(1)/crank - battery.Flooded.Ohm(80, 1)
	aux := battery.AGM.RestV(1)
	loop := (s.Across("aux.30", "aux.31")-s.At("start.30"))/-s.Through("contact") + battery.AGM.Ohm(100, 1)
	bus := (flat/startOhm + aux/loop) / (1/startOhm + 1/loop + 1/starter)
	assert.InDelta(t, bus, s.At("start.30"), 0.03)
	assert.InDelta(t, (aux-bus)/loop, -s.Through("contact"), 2)
	says := jobtest.State(t, jobtest.Plan(t, relayLead), "joined").Says
	assert.Contains(t, says, "opens after", "the cranking current is more than the fuse")
}

// A relay that closes on a flat battery: the inrush is the difference over the loop,
// and more than what is accepted later.
func TestInrush(t *testing.T) {
	p := jobtest.Plan(t, relayLead)
	rush, steady := jobtest.State(t, p, "inrush"), jobtest.State(t, p, "cruise")
	assert.Greater(t, rush.OutA, 1.5*steady.OutA)
	s := circuit(t, relayLead, "inrush")
	loop := (s.At("start.30") - s.Across("aux.30", "aux.31")) / s.Through("contact")
	assert.InEpsilon(t, (s.At("start.30")-battery.AGM.RestV(0.1))/(loop+battery.AGM.Ohm(100, 1)), s.Through("contact"), 0.01)
}

// Every demo job is solved in every state that it has, and each of these is named.
func TestEveryStateIsSolved(t *testing.T) {
	names, err := fs.Glob(testdata.Demo, "demo/*.json")
	require.NoError(t, err)
	for _, name := range names {
		data, err := fs.ReadFile(testdata.Demo, name)
		require.NoError(t, err)
		p := jobtest.Plan(t, string(data))
		ids := map[string]bool{}
		for _, s := range p.States {
			ids[s.ID] = true
			assert.NotEmpty(t, s.Says+s.Fails, "%s %s", name, s.ID)
			assert.Len(t, s.Points, len(p.Columns), "%s %s", name, s.ID)
		}
		for _, id := range []string{"cruise", "early", "idle", "parked", "crank", "short-c1", "short-c2"} {
			assert.True(t, ids[id], "%s %s", name, id)
		}
	}
	_, _, err = design.Of(job.New(), parts.Stock()).CircuitAt("flying")
	require.ErrorContains(t, err, "allowed are cruise, early")
}

// A joint of 0.3 mΩ at 54 A: 16 mV and 0.9 W (common practice, no source: 0.1–0.5 mΩ).
func TestJointsHaveTheirOwnDrops(t *testing.T) {
	p := jobtest.Plan(t, `{"alternator":{"label":"90/180 A"},"pins":{"chargerA":40}}`)
	require.Len(t, p.Joints, 6)
	assert.Equal(t, "16 mV", p.Joints[0].Text)
	assert.Contains(t, p.Joints[0].Says, "0.9 W")
	assert.Equal(t, []string{"start", "f1", "c1", "coupling", "c2", "f2"},
		[]string{p.Joints[0].After, p.Joints[1].After, p.Joints[2].After, p.Joints[3].After, p.Joints[4].After, p.Joints[5].After})
}

// Full current at idle heats a machine more than on the road: little cooling.
func TestAlternatorRunsHotAtIdle(t *testing.T) {
	p := jobtest.Plan(t, relayLithium)
	assert.Equal(t, "idle, hot, lamps on", p.Figures["winding"].State)
	assert.Contains(t, jobtest.Column(t, p, "alternator").Heat.Text, "of 170 °C")
}

// The picture of time against current: the band narrows no fault away, the cable
// bears less of more, and the words say what the points say.
func TestCurves(t *testing.T) {
	for _, doc := range []string{`{}`, relayLead, `{"pins":{"device":"breaker"}}`} {
		p := jobtest.Plan(t, doc)
		require.Len(t, p.Curves, 2)
		for _, c := range p.Curves {
			last := section.CurvePoint{MinS: math.Inf(1), MaxS: math.Inf(1), Bears: math.Inf(1)}
			for _, at := range c.Points {
				at = section.CurvePoint{Amps: at.Amps, MinS: forever(at.MinS), MaxS: forever(at.MaxS), Bears: forever(at.Bears)}
				assert.GreaterOrEqual(t, at.MaxS, at.MinS)
				assert.Greater(t, at.Amps, last.Amps)
				assert.True(t, at.MinS <= last.MinS && at.MaxS <= last.MaxS && at.Bears <= last.Bears, "%s at %g A", c.Label, at.Amps)
				last = at
			}
			assert.Len(t, c.Marks, 5)
			for i := range c.Marks[1:] {
				assert.LessOrEqual(t, c.Marks[i].Amps, c.Marks[i+1].Amps)
			}
			require.GreaterOrEqual(t, len(c.Says), 3)
			assert.Contains(t, c.Says[1], "Short at the far end")
		}
	}
}

func forever(s float64) float64 {
	if s == 0 {
		return math.Inf(1)
	}
	return s
}

// F1 and F2 carry the same current into a short at the aux battery: the plan says
// whether one of them surely opens first. A charger between them passes none.
func TestFusesInSeries(t *testing.T) {
	f2 := func(p plan.Plan) string { return p.Curves[1].Says[len(p.Curves[1].Says)-1] }
	assert.Contains(t, f2(jobtest.Plan(t, relayLead)), "F1 and F2 alike")
	apart := relayLead[:len(relayLead)-2] + `,"startFuseA":200,"startSize":"95 mm2","auxFuseA":40}}`
	assert.Contains(t, f2(jobtest.Plan(t, apart)), "F2")
	assert.NotContains(t, f2(jobtest.Plan(t, `{}`)), "F1 and F2")
}

// A breaker instead of a fuse, reset by hand or by itself.
func TestBreakers(t *testing.T) {
	p := jobtest.Plan(t, `{"pins":{"device":"breaker"}}`)
	assert.Contains(t, jobtest.Column(t, p, "f1").Part.Text, "breaker")
	assert.NotContains(t, jobtest.NoteIDs(p), "fuse.resets")
	assert.Contains(t, jobtest.NoteIDs(jobtest.Plan(t, `{"pins":{"device":"auto-breaker"}}`)), "fuse.resets")
	assert.Contains(t, jobtest.NoteIDs(jobtest.Plan(t, `{"pins":{"device":"breaker","startFuseA":125}}`)), "fuse.kind")
	assert.NotContains(t, jobtest.NoteIDs(jobtest.Plan(t, `{"pins":{"device":"breaker","startFuseA":120}}`)), "fuse.kind")
}

// Two cables in parallel carry the same as one of twice the copper, less what they
// take from each other, and lose as much.
func TestParallelCables(t *testing.T) {
	two := jobtest.Column(t, jobtest.Plan(t, `{"bays":{"startLay":"open"},"pins":{"chargerA":30,"startSize":"2 x 16 mm2"}}`), "c1")
	one := jobtest.Column(t, jobtest.Plan(t, `{"bays":{"startLay":"open"},"pins":{"chargerA":30,"startSize":"16 mm2"}}`), "c1")
	assert.Contains(t, two.Part.Text, "2 × 16 mm²")
	assert.Equal(t, "2 × 16 mm²", two.Choice.Now)
	assert.Contains(t, one.Carries.Text, "of 82 A")
	assert.Contains(t, two.Carries.Text, "of 131 A", "2 × 82 × 0.80 for two that touch")
}

// A run in a hot place is judged by the heat balance, and says so.
func TestHotBayIsJudgedByTheBalance(t *testing.T) {
	p := jobtest.Plan(t, `{"bays":{"startC":75,"startLay":"open"}}`)
	require.Contains(t, p.Figures, "c1.balance")
	assert.NotContains(t, jobtest.Plan(t, `{"bays":{"startC":50,"startLay":"open"}}`).Figures, "c1.balance")
	loom := jobtest.Plan(t, `{"bays":{"startLay":"loom"},"pins":{"startSize":"25 mm2"}}`)
	open := jobtest.Plan(t, `{"pins":{"startSize":"25 mm2"}}`)
	assert.NotEqual(t, jobtest.Column(t, open, "c1").Carries.Text, jobtest.Column(t, loom, "c1").Carries.Text)
}

// A plan as it was stored before joints and curves were in it is read as it is.
func TestReadAnEarlierPlan(t *testing.T) {
	old := `{"format":"epitrope-plan","version":1,"coupling":"vsr","states":[{"id":"cruise","inA":0,"points":[{"column":"c1","inV":14.2,` +
		`"outV":14.1}]}]}`
	p, err := plan.Read([]byte(old))
	require.NoError(t, err)
	assert.Equal(t, []section.Joint{}, p.Joints)
	assert.Equal(t, "charging", p.States[0].Kind)
	assert.True(t, p.States[0].Apart)
	assert.Equal(t, "–", p.States[0].Points[0].Carries)
	for _, bad := range []string{`{"format":"epitrope-plan","version":99}`, `{"format":"other","version":1}`, `{`} {
		_, err := plan.Read([]byte(bad))
		assert.Error(t, err, bad)
	}
}
