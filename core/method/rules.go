package method

import (
	"slices"

	"epitrope/core/coupling"
	"epitrope/core/working"
)

// Groups of couplings that a rule speaks of.
var (
	chargers = []coupling.Kind{coupling.DCDC, coupling.TrailerCharger, coupling.DCDCChangeover, coupling.DCDCHighCurrent}
	alone    = []coupling.Kind{coupling.DCDC, coupling.TrailerCharger, coupling.DCDCChangeover}
	joins    = []coupling.Kind{coupling.VSR, coupling.SwitchedContactor, coupling.ManualSelector}
	byHand   = []coupling.Kind{coupling.SwitchedContactor, coupling.ManualSelector}
	dcdc     = []coupling.Kind{coupling.DCDC}
	inTow    = []coupling.Kind{coupling.TrailerCharger}
	change   = []coupling.Kind{coupling.DCDCChangeover}
	bypass   = []coupling.Kind{coupling.DCDCHighCurrent}
	vsr      = []coupling.Kind{coupling.VSR}
	contact  = []coupling.Kind{coupling.SwitchedContactor}
	selector = []coupling.Kind{coupling.ManualSelector}
	twoVolts = slices.Concat(joins, change, bypass, split) // what puts the start side on the aux side, some way
	second   = []coupling.Kind{coupling.SecondAlternator}
	split    = []coupling.Kind{coupling.DiodeSplitter}
	plain    = append(slices.Clone(joins), split...) // nothing regulates what reaches the aux battery
	cheap    = []coupling.Kind{coupling.VSR, coupling.SwitchedContactor}
)

// Borders of the rules. Source: common practice, no source: a run beyond 4 m is long, a
// relay sits within 2 m of the start battery. From memory: a machine under 180 A has no
// room for a high-current stage; before 2000 regulation was steady.
const (
	farM     = 4.0
	nearM    = 2.0
	bigHalfA = 90.0
	oldYear  = 2000.0
)

// unknownWeight ranks what stands on something unknown behind all that does not.
const unknownWeight = 4

func always(Case) bool    { return true }
func varies(c Case) bool  { return c.Varies }
func managed(c Case) bool { return c.Chemistry.Managed() }

// What nobody knows warns, and rules nothing out.
func proven(c Case) bool   { return c.Varies && c.Known }
func unproven(c Case) bool { return c.Varies && !c.Known }
func lithium(c Case) bool  { return managed(c) && !c.Unnamed }
func unnamed(c Case) bool  { return managed(c) && c.Unnamed }

func far(c Case) bool       { return c.RouteM > farM }
func plainLead(c Case) bool { return !c.Varies && c.Chemistry.Lead }
func splitLow(c Case) bool  { return c.RegulatedV-c.SplitV < c.WantedV }
func trailer(c Case) bool   { return c.Trailer }
func emergency(c Case) bool { return c.Emergency }
func twin(c Case) bool      { return c.Alternators >= 2 }
func large(c Case) bool     { return c.NeedA > c.LargestA }

func not(of func(Case) bool) func(Case) bool { return func(c Case) bool { return !of(c) } }

func route(c Case) []any { return []any{c.RouteM} }
func regulation(c Case) []any {
	if c.Known {
		return []any{"variable"}
	}
	return []any{"not proven steady, so taken as variable"}
}

// rules are all of them, by what they are about.
var rules = []rule{
	// Two voltages.
	{"volts.apart", twoVolts, RulesOut, 0, working.Physics, func(c Case) bool { return c.Apart }, nil},

	// Chargers.
	{"charger.variable", chargers, Favours, 1, working.Practice, varies, regulation},
	{"charger.staged", chargers, Favours, 1, working.Practice, always, func(c Case) []any { return []any{c.Chemistry.Label} }},
	{"charger.far", chargers, Favours, 1, working.Practice, far, route},
	{"charger.solar", chargers, Favours, 1, working.Practice, func(c Case) bool { return c.Solar }, nil},
	{"charger.signal", chargers, Warns, 1, working.Practice, always, nil},
	{"charger.hot", chargers, Warns, 1, working.Practice, func(c Case) bool { return c.Hot }, nil},
	{"charger.idle", chargers, Warns, 1, working.Physics, func(c Case) bool { return c.Idling && c.ChargerIn > c.IdleA },
		func(c Case) []any { return []any{c.ChargerA, c.ChargerIn, max(0, c.IdleA)} }},
	{"charger.short", alone, Warns, 2, working.Physics, func(c Case) bool { return c.NeedA > c.WithinA },
		func(c Case) []any { return []any{c.NeedA, c.HalfA, c.WithinA} }},
	{"dcdc.tow", dcdc, Warns, 2, working.Physics, trailer, route},
	{"dcdc.noassist", dcdc, Warns, 1, working.Physics, emergency, nil},

	// A charger behind the tow coupling.
	{"trailer.none", inTow, RulesOut, 0, working.Physics, not(trailer), nil},
	{"trailer.at", inTow, Favours, 1, working.Practice, trailer, nil},
	{"trailer.feed", inTow, Warns, 1, working.Practice, trailer, nil},

	// A changeover for an emergency start.
	{"changeover.trailer", change, RulesOut, 0, working.Physics, trailer, func(c Case) []any { return []any{c.CrankA} }},
	{"changeover.rest", change, RulesOut, 0, working.Memory, func(c Case) bool { return c.ChargerIn > c.RestA },
		func(c Case) []any { return []any{c.ChargerA, c.ChargerIn, c.RestA} }},
	{"changeover.emergency", change, Favours, 1, working.Practice, emergency, nil},
	{"changeover.unasked", change, Warns, 1, working.Practice, not(emergency), nil},
	{"changeover.left", change, Warns, 1, working.Physics, always, nil},
	{"changeover.factory", change, Warns, 0, working.Practice, func(c Case) bool { return c.FactoryFeed }, nil},
	{"changeover.management", change, Warns, 0, working.Practice, managed, func(c Case) []any { return []any{c.CrankA} }},

	// A high-current stage beside a charger.
	{"bypass.trailer", bypass, RulesOut, 0, working.Practice, trailer, nil},
	{"bypass.machine", bypass, RulesOut, 0, working.Memory, func(c Case) bool { return c.HalfA < bigHalfA },
		func(c Case) []any { return []any{c.HalfA, 2 * bigHalfA} }},
	{"bypass.large", bypass, Favours, 3, working.Practice, func(c Case) bool { return large(c) && c.AcceptsA > c.LargestA },
		func(c Case) []any { return []any{c.NeedA, c.LargestA, c.AcceptsA} }},
	{"bypass.small", bypass, Warns, 2, working.Practice, func(c Case) bool { return !large(c) || c.AcceptsA <= c.LargestA },
		func(c Case) []any { return []any{c.LargestA, c.NeedA} }},
	{"bypass.sum", bypass, Warns, 1, working.Physics, always, nil},
	{"bypass.feed", bypass, Warns, 1, working.Practice, varies, nil},
	{"bypass.idle", bypass, Warns, 1, working.Practice, managed, func(c Case) []any { return []any{max(0, c.IdleA)} }},

	// A contact between the batteries.
	{"join.variable", joins, RulesOut, 0, working.Practice, proven, regulation},
	{"join.unproven", plain, Warns, unknownWeight, working.Practice, unproven, nil},
	{"join.unnamed", plain, Warns, unknownWeight, working.Practice, unnamed, func(c Case) []any { return []any{c.Chemistry.Label} }},
	{"vsr.lithium", vsr, RulesOut, 0, working.Practice, lithium, func(c Case) []any {
		return []any{c.Chemistry.Name(), c.Chemistry.RestV(0.5), c.Chemistry.RestV(0.95), coupling.CutOutV,
			100 * c.Chemistry.Charge(coupling.CutOutV)}
	}},
	{"contact.lithium", byHand, RulesOut, 0, working.Practice, lithium, func(c Case) []any { return []any{c.Chemistry.Label, c.AcceptsA} }},
	{"join.lead", joins, Favours, 1, working.Practice, plainLead, nil},
	{"join.far", joins, Warns, 1, working.Practice, far, route},
	{"join.short", joins, Warns, 1, working.Memory, func(c Case) bool { return c.RegulatedV < c.WantedV },
		func(c Case) []any { return []any{c.RegulatedV, c.Chemistry.Label, c.WantedV} }},
	{"join.over", joins, Warns, 2, working.Memory, func(c Case) bool { return c.RegulatedV > c.MostV },
		func(c Case) []any { return []any{c.RegulatedV, c.Chemistry.Label, c.MostV} }},
	{"join.trailer", joins, Warns, 1, working.Practice, trailer, nil},
	{"join.suspect", joins, Warns, 1, working.Practice, func(c Case) bool { return c.Suspect && !c.Varies }, nil},
	{"vsr.cheap", vsr, Favours, 1, working.Practice, always, nil},
	{"join.budget", cheap, Favours, 1, working.Practice, func(c Case) bool { return c.LowBudget }, nil},
	{"vsr.solar", vsr, Favours, 1, working.Practice, func(c Case) bool { return c.Solar && !c.Varies }, nil},
	{"vsr.near", vsr, Warns, 1, working.Practice, func(c Case) bool { return c.SensingM > nearM },
		func(c Case) []any { return []any{c.SensingM, nearM} }},
	{"vsr.assist", vsr, Warns, 1, working.Practice, emergency, nil},
	{"vsr.winch", vsr, Warns, 1, working.Practice, func(c Case) bool { return c.Winch }, nil},
	{"contactor.ignition", contact, Warns, 1, working.Practice, always, nil},
	{"contact.crank", byHand, Warns, 1, working.Physics, always, func(c Case) []any { return []any{c.CrankA} }},
	{"contactor.emergency", contact, Favours, 3, working.Practice, emergency, nil},
	{"selector.left", selector, Warns, 1, working.Practice, always, nil},
	{"selector.winch", selector, Favours, 2, working.Practice, func(c Case) bool { return c.Winch }, nil},
	{"selector.old", selector, Favours, 1, working.Practice, func(c Case) bool { return c.Year > 0 && c.Year < oldYear },
		func(c Case) []any { return []any{c.Year} }},

	// Diodes from the machine to each battery.
	{"splitter.variable", split, RulesOut, 0, working.Practice, proven, regulation},
	{"splitter.lithium", split, RulesOut, 0, working.Practice, lithium, func(c Case) []any { return []any{c.Chemistry.Label, c.AcceptsA} }},
	{"splitter.lead", split, Favours, 1, working.Practice, plainLead, nil},
	{"splitter.low", split, Warns, 1, working.Memory, splitLow,
		func(c Case) []any { return []any{c.RegulatedV, c.SplitV, c.Chemistry.Label, c.WantedV} }},
	{"splitter.cut", split, Warns, 1, working.Practice, always, nil},
	{"splitter.excite", split, Warns, 1, working.Physics, always, nil},
	{"splitter.far", split, Warns, 1, working.Practice, far, route},
	{"splitter.assist", split, Warns, 1, working.Physics, emergency, nil},

	// A machine of its own.
	{"second.trailer", second, RulesOut, 0, working.Physics, trailer, nil},
	{"second.room", second, RulesOut, 0, working.Physics, func(c Case) bool { return c.Room == "no" && c.Alternators < 2 }, nil},
	{"second.twin", second, Favours, 2, working.Practice, twin, nil},
	{"second.large", second, Favours, 4, working.Practice, large, func(c Case) []any { return []any{c.NeedA, c.LargestA} }},
	{"second.own", second, Favours, 1, working.Physics, varies, nil},
	{"second.unneeded", second, Warns, 1, working.Practice, not(large), func(c Case) []any { return []any{c.NeedA} }},
	{"second.cost", second, Warns, 2, working.Practice, not(twin), nil},
	{"second.unknown", second, Warns, 1, working.Practice, func(c Case) bool { return c.Room == "" && c.Alternators < 2 }, nil},
	{"second.dump", second, Warns, 1, working.Practice, managed, nil},
	{"second.far", second, Warns, 1, working.Physics, far, route},
}
