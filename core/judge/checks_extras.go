package judge

import (
	"math"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/protect"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

var isolatorFields = []string{"extras.isolator", "extras.isolatorA", "extras.isolatorFirst"}

// isolatorLooks hold the isolator Q1 against what it may have to open or carry.
var isolatorLooks = []look{
	{"extra.isolator.crank", verdict.Caution, working.Memory, isolatorFields,
		"Cranking through the join sends %.0f A through Q1, which bears %.0f A for some seconds.",
		func(d *design.Design) []finding {
			if d.Facts.Extras.Isolator == job.NoIsolator {
				return nil
			}
			amps, bears := math.Abs(circuit.Had(d.StateBy("joined").Solved.Through("q1"))), d.Isolator().CrankA
			return says(amps > bears, "q1", amps, bears)
		}},
	{"extra.isolator.parts", verdict.Good, working.Practice, isolatorFields,
		"Q1 parts the run by hand: what is behind it can be worked on.",
		func(d *design.Design) []finding {
			return says(d.Facts.Extras.Isolator != job.NoIsolator && !partsCharger(d), "q1")
		}},
	{"extra.isolator.first", verdict.Good, working.Practice, isolatorFields,
		"Q1 stops the charger before it opens.",
		func(d *design.Design) []finding {
			return says(partsCharger(d) && d.Facts.Extras.IsolatorFirst == job.Yes, "q1")
		}},
	{"extra.isolator.dump", verdict.Caution, working.Practice, isolatorFields,
		"Opened while the charger runs, Q1 leaves %.0f A without a battery behind them: the voltage jumps. A contact in Q1 that breaks the " +
			"signal first, or stop the engine first.",
		func(d *design.Design) []finding {
			return where(partsCharger(d) && d.Facts.Extras.IsolatorFirst == job.No, func() finding { return at("q1", d.Charger.OutputA) })
		}},
	{"extra.isolator.open", verdict.Open, working.Practice, isolatorFields,
		"Look: does Q1 stop the charger before it opens?",
		func(d *design.Design) []finding {
			return says(partsCharger(d) && d.Facts.Extras.IsolatorFirst == job.Asked, "q1")
		}},
}

// partsCharger is whether the isolator sits between a charger and its battery.
func partsCharger(d *design.Design) bool {
	e := d.Facts.Extras
	return e.Isolator != job.NoIsolator && e.Isolator != job.FrontIsolator && d.Kind.Charger()
}

// ShuntReads is what a shunt shows at a current.
var ShuntReads = working.Declare("U = U_r·I / I_r", "Ohm's law",
	working.Symbol{Letter: "U", Name: "shunt shows", Unit: "mV", Digits: 2},
	working.Symbol{Letter: "U_r", Name: "at its rating", Unit: "mV", Digits: 0},
	working.Symbol{Letter: "I", Name: "current", Unit: "A", Digits: 1},
	working.Symbol{Letter: "I_r", Name: "its rating", Unit: "A", Digits: 0})

var (
	shuntFields = []string{"extras.shuntA", "extras.shuntMV"}
	pastFields  = []string{"extras.shuntAll"}
)

// shuntLooks hold the battery monitor's shunt R1 against what passes it, and what goes past.
var shuntLooks = []look{
	{"extra.shunt.reads", verdict.Good, working.Physics, shuntFields,
		"R1 shows %s at %.0f A: a meter there proves the monitor's figure.",
		func(d *design.Design) []finding {
			e := d.Facts.Extras
			return where(e.Monitor, func() finding {
				fig := ShuntReads.MustWork(e.ShuntMV.Input(), working.Is(d.Aux.Amps, "charging at most"), e.ShuntA.Input())
				return at("aux", fig.Text, d.Aux.Amps).by("shunt", fig)
			})
		}},
	{"extra.shunt.hours", verdict.Bad, working.Practice, shuntFields,
		"R1 carries %.0f A for hours; it stays true up to %.0f A.",
		func(d *design.Design) []finding { return says(overForHours(d), "aux", d.Aux.Amps, trueUpToA(d)) }},
	{"extra.shunt.short", verdict.Caution, working.Practice, shuntFields,
		"R1 sees %.0f A while cranking through the join, over its %.0f A: it may shift for good.",
		func(d *design.Design) []finding {
			if !d.Facts.Extras.Monitor || overForHours(d) {
				return nil
			}
			most := math.Max(d.Aux.Amps, math.Abs(circuit.Had(d.StateBy("joined").Solved.Through("contact"))))
			return says(most > d.Facts.Extras.ShuntA.Value, "aux", most, d.Facts.Extras.ShuntA.Value)
		}},
	{"extra.shunt.all", verdict.Good, working.Practice, pastFields,
		"Every negative but the battery's own is on R1's far side: it counts all.",
		func(d *design.Design) []finding {
			return says(d.Facts.Extras.Monitor && d.Facts.Extras.ShuntAll == job.Yes, "aux")
		}},
	{"extra.shunt.past", verdict.Caution, working.Physics, pastFields,
		"What is used comes back past R1: %.0f Ah a day go uncounted, and the monitor says full when it is not.",
		func(d *design.Design) []finding {
			return says(d.Facts.Extras.Monitor && d.Facts.Extras.ShuntAll == job.No, "aux", d.Facts.DailyAh.Value)
		}},
	{"extra.shunt.open", verdict.Open, working.Practice, pastFields,
		"Look: is every negative but the battery's own on R1's far side?",
		func(d *design.Design) []finding {
			return says(d.Facts.Extras.Monitor && d.Facts.Extras.ShuntAll == job.Asked, "aux")
		}},
}

// trueUpToA is what the shunt carries for hours and stays true.
func trueUpToA(d *design.Design) float64 { return d.Facts.Extras.ShuntA.Value * parts.ShuntHours }

func overForHours(d *design.Design) bool { return d.Facts.Extras.Monitor && d.Aux.Amps > trueUpToA(d) }

var bondFields = []string{"extras.bondSize", "extras.bondM"}

// bondLooks hold the bonding lead B1 against what it carries, and against a short.
var bondLooks = []look{
	{"extra.bond.idle", verdict.Good, working.Practice, bondFields,
		"The return comes back by cable; the bonding lead carries nothing but a fault.",
		func(d *design.Design) []finding { return says(d.Facts.Extras.Bond && !d.Back.ByChassis, "return") }},
	{"extra.bond.thin", verdict.Bad, working.Standard, bondFields,
		"B1, %s, bears %.0f A and the return drives %.0f A through it.",
		func(d *design.Design) []finding {
			return where(bonded(d) && bondThin(d), func() finding {
				return at("return", d.BondSize().Copper(), d.BondBearsA(), d.ReturnLeg().Amps)
			})
		}},
	{"extra.bond.fuse", verdict.Bad, working.Standard, bondFields,
		"B1, %s, bears %.0f A and nothing protects it in a short: the fuse of its run is %s.",
		func(d *design.Design) []finding {
			return where(bonded(d) && !bondThin(d) && !bondSaved(d), func() finding {
				return at("return", d.BondSize().Copper(), d.BondBearsA(), d.ReturnLeg().Fuse.Label())
			})
		}},
	{"extra.bond.carries", verdict.Good, working.Standard, bondFields,
		"B1, %s, carries the return's %.0f A (it bears %.0f A); end to end it should measure %.1f mΩ with its lugs.",
		func(d *design.Design) []finding {
			return where(bonded(d) && !bondThin(d) && bondSaved(d), func() finding {
				return at("return", d.BondSize().Copper(), d.ReturnLeg().Amps, d.BondBearsA(), 1000*d.BondOhm())
			})
		}},
}

// bonded is whether the return goes over a bonding lead.
func bonded(d *design.Design) bool { return d.Facts.Extras.Bond && d.Back.ByChassis }

// bondThin is whether the return drives more through it than it bears.
func bondThin(d *design.Design) bool { return d.ReturnLeg().Amps > d.BondBearsA() }

// bondSaved is whether the fuse of its run protects it, in an overload and in a short.
func bondSaved(d *design.Design) bool {
	l := d.ReturnLeg()
	fault := d.Facts.Insulation.Faulted(d.BondSize(), l.Bay, l.Bay.AmbientC)
	short := l.Fuse.Covers(l.NearFault, protect.FaultCurrent.Value(l.SourceV, l.SourceOhm, l.FaultOhm(l.Fuse, l.Trial)), fault)
	return l.Fuse.RatingA <= d.BondBearsA() && short.Saves
}
