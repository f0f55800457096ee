package method_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/battery"
	"epitrope/core/coupling"
	"epitrope/core/method"
)

// near is a plain job: steady regulation, lead at both ends, a short run, a machine with
// room for what is needed.
func near() method.Case {
	return method.Case{Chemistry: battery.AGM, RouteM: 1.5, RegulatedV: 14.4, WantedV: 14.4, MostV: 14.7,
		HalfA: 60, IdleA: 40, NeedA: 20, WithinA: 40, ChargerA: 20, ChargerIn: 26.5, LargestA: 80, AcceptsA: 40, RestA: 80, CrankA: 400,
		Alternators: 1}
}

func chosen(c method.Case) coupling.Kind {
	for _, k := range method.Judge(c) {
		if k.Chosen {
			return k.Kind
		}
	}
	return ""
}

func fires(c method.Case, id string, k coupling.Kind) bool {
	for _, candidate := range method.Judge(c) {
		if candidate.Kind != k {
			continue
		}
		for _, r := range candidate.Reasons {
			if r.ID == id {
				return true
			}
		}
	}
	return false
}

// Each rule with a case that fires it and one that just does not.
func TestRulesFire(t *testing.T) {
	type change = func(*method.Case)
	none := func(*method.Case) {}
	varies := func(c *method.Case) { c.Varies = true }
	proven := func(c *method.Case) { c.Varies, c.Known = true, true }
	lithium := func(c *method.Case) { c.Chemistry = battery.LiFePO4 }
	unnamed := func(c *method.Case) { c.Chemistry, c.Unnamed = battery.LiFePO4, true }
	gel := func(c *method.Case) { c.Chemistry = battery.Gel }
	far := func(c *method.Case) { c.RouteM = 4.1 }
	justNear := func(c *method.Case) { c.RouteM = 4.0 }
	trailer := func(c *method.Case) { c.Trailer = true }
	emergency := func(c *method.Case) { c.Emergency = true }
	winch := func(c *method.Case) { c.Winch = true }
	twin := func(c *method.Case) { c.Alternators = 2 }
	solar := func(c *method.Case) { c.Solar = true }
	need := func(a float64) change { return func(c *method.Case) { c.NeedA = a } }
	cases := map[string]struct{ on, off change }{
		"charger.variable": {varies, none},
		"charger.staged":   {none, nil},
		"charger.far":      {far, justNear},
		"charger.solar":    {solar, none},
		"charger.signal":   {none, nil},
		"charger.hot":      {func(c *method.Case) { c.Hot = true }, none},
		"charger.idle": {func(c *method.Case) { c.Idling, c.IdleA = true, 26.4 },
			func(c *method.Case) { c.Idling, c.IdleA = true, 26.5 }},
		"charger.short":         {need(40.1), need(40)},
		"dcdc.tow":              {trailer, none},
		"dcdc.noassist":         {emergency, none},
		"trailer.none":          {none, trailer},
		"trailer.at":            {trailer, none},
		"trailer.feed":          {trailer, none},
		"changeover.trailer":    {trailer, none},
		"changeover.rest":       {func(c *method.Case) { c.ChargerIn = 80.1 }, func(c *method.Case) { c.ChargerIn = 80 }},
		"changeover.emergency":  {emergency, none},
		"changeover.unasked":    {none, emergency},
		"changeover.left":       {none, nil},
		"changeover.factory":    {func(c *method.Case) { c.FactoryFeed = true }, none},
		"changeover.management": {lithium, gel},
		"bypass.trailer":        {trailer, none},
		"bypass.machine":        {func(c *method.Case) { c.HalfA = 89 }, func(c *method.Case) { c.HalfA = 90 }},
		"bypass.large":          {func(c *method.Case) { c.NeedA, c.AcceptsA = 80.1, 81 }, func(c *method.Case) { c.NeedA, c.AcceptsA = 80, 81 }},
		"bypass.small":          {func(c *method.Case) { c.NeedA, c.AcceptsA = 90, 80 }, func(c *method.Case) { c.NeedA, c.AcceptsA = 90, 81 }},
		"bypass.sum":            {none, nil},
		"bypass.feed":           {varies, none},
		"bypass.idle":           {lithium, gel},
		"splitter.variable":     {proven, varies},
		"splitter.lithium":      {lithium, gel},
		"splitter.lead":         {none, varies},
		"splitter.low": {func(c *method.Case) { c.RegulatedV, c.WantedV, c.SplitV = 14.5, 14.0, 0.8 },
			func(c *method.Case) { c.RegulatedV, c.WantedV, c.SplitV = 14.5, 14.0, 0.1 }},
		"splitter.cut":        {none, nil},
		"splitter.excite":     {none, nil},
		"splitter.far":        {far, justNear},
		"splitter.assist":     {emergency, none},
		"join.variable":       {proven, varies},
		"join.unproven":       {varies, proven},
		"join.unnamed":        {unnamed, lithium},
		"vsr.lithium":         {lithium, unnamed},
		"contact.lithium":     {lithium, gel},
		"join.lead":           {none, varies},
		"join.far":            {far, justNear},
		"join.short":          {func(c *method.Case) { c.RegulatedV = 14.3 }, none},
		"join.over":           {func(c *method.Case) { c.RegulatedV = 14.8 }, func(c *method.Case) { c.RegulatedV = 14.7 }},
		"join.trailer":        {trailer, none},
		"join.suspect":        {func(c *method.Case) { c.Suspect = true }, func(c *method.Case) { c.Suspect, c.Varies = true, true }},
		"vsr.cheap":           {none, nil},
		"join.budget":         {func(c *method.Case) { c.LowBudget = true }, none},
		"volts.apart":         {func(c *method.Case) { c.Apart = true }, func(c *method.Case) { c.Apart = false }},
		"vsr.solar":           {solar, func(c *method.Case) { c.Solar, c.Varies = true, true }},
		"vsr.near":            {func(c *method.Case) { c.SensingM = 2.1 }, func(c *method.Case) { c.SensingM = 2 }},
		"vsr.assist":          {emergency, none},
		"vsr.winch":           {winch, none},
		"contactor.ignition":  {none, nil},
		"contact.crank":       {none, nil},
		"contactor.emergency": {emergency, none},
		"selector.left":       {none, nil},
		"selector.winch":      {winch, none},
		"selector.old":        {func(c *method.Case) { c.Year = 1999 }, func(c *method.Case) { c.Year = 2000 }},
		"second.trailer":      {trailer, none},
		"second.room":         {func(c *method.Case) { c.Room = "no" }, func(c *method.Case) { c.Room, c.Alternators = "no", 2 }},
		"second.twin":         {twin, none},
		"second.large":        {need(80.1), need(80)},
		"second.own":          {varies, none},
		"second.unneeded":     {need(80), need(80.1)},
		"second.cost":         {none, twin},
		"second.unknown":      {none, func(c *method.Case) { c.Room = "yes" }},
		"second.dump":         {lithium, gel},
		"second.far":          {far, justNear},
	}
	for _, r := range method.Rules() {
		c, ok := cases[r.ID]
		if !assert.True(t, ok, "%s has no case", r.ID) {
			continue
		}
		for _, k := range r.Subjects {
			on := near()
			c.on(&on)
			assert.True(t, fires(on, r.ID, k), "%s of %s", r.ID, k)
			if c.off != nil { // nil: it always holds of these couplings
				off := near()
				c.off(&off)
				assert.False(t, fires(off, r.ID, k), "%s of %s", r.ID, k)
			}
		}
		delete(cases, r.ID)
	}
	assert.Empty(t, cases, "cases of rules that there are not")
}

// Trade, §7: relays for steady regulation, lead and short runs; chargers for
// variable regulation, other chemistry and batteries at the back.
func TestWhichCoupling(t *testing.T) {
	assert.Equal(t, coupling.VSR, chosen(near()))
	for name, change := range map[string]func(*method.Case){
		"variable": func(c *method.Case) { c.Varies = true },
		"lithium":  func(c *method.Case) { c.Chemistry = battery.LiFePO4 },
		"far":      func(c *method.Case) { c.RouteM = 6 },
	} {
		c := near()
		change(&c)
		assert.Equal(t, coupling.DCDC, chosen(c), name)
	}
}

// Every sentence has its numbers; what is ruled out says what would allow it; every rule
// says where it comes from.
func TestWords(t *testing.T) {
	for _, change := range []func(*method.Case){
		func(c *method.Case) {
			c.Varies, c.Chemistry, c.RouteM, c.Emergency, c.Winch, c.Solar = true, battery.LiFePO4, 9, true, true, true
		},
		func(c *method.Case) { c.Trailer, c.NeedA, c.AcceptsA, c.ChargerIn, c.SensingM = true, 200, 300, 120, 3 },
		func(c *method.Case) {
			c.RegulatedV, c.Year, c.LowBudget, c.Idling, c.IdleA, c.Room = 13.9, 1990, true, true, 3, "no"
		},
		func(c *method.Case) {
			c.RegulatedV, c.Suspect, c.FactoryFeed, c.Hot, c.Alternators = 15, true, true, true, 2
		},
	} {
		c := near()
		change(&c)
		for _, k := range method.Judge(c) {
			assert.NotEmpty(t, k.Reasons, k.Kind)
			for _, r := range k.Reasons {
				assert.NotContains(t, r.Text, "%!", r.ID)
				assert.NotEmpty(t, r.Text, r.ID)
				assert.NotEmpty(t, r.Mark, r.ID)
				assert.Equal(t, r.Effect == method.RulesOut, r.Unless != "", r.ID)
			}
		}
	}
}
