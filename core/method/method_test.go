package method_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/battery"
	"epitrope/core/coupling"
	"epitrope/core/method"
)

func lead() method.Case {
	return method.Case{Chemistry: battery.AGM, RouteM: 1.5, RegulatedV: 14.4, WantedV: 14.4}
}

func chosen(c method.Case) coupling.Kind {
	for _, k := range method.Judge(c) {
		if k.Chosen {
			return k.Kind
		}
	}
	return ""
}

func reasons(c method.Case, k coupling.Kind) []string {
	var ids []string
	for _, candidate := range method.Judge(c) {
		if candidate.Kind == k {
			for _, r := range candidate.Reasons {
				ids = append(ids, r.ID)
			}
		}
	}
	return ids
}

// Each rule with a case that fires it and one that just does not.
func TestRulesFire(t *testing.T) {
	cases := []struct {
		id      string
		subject coupling.Kind
		fires   func(*method.Case)
		not     func(*method.Case)
	}{
		{"vsr.variable", coupling.VSR, func(c *method.Case) { c.Varies = true }, func(*method.Case) {}},
		{"dcdc.variable", coupling.DCDC, func(c *method.Case) { c.Varies = true }, func(*method.Case) {}},
		{"vsr.lithium", coupling.VSR, func(c *method.Case) { c.Chemistry = battery.LiFePO4 }, func(c *method.Case) { c.Chemistry = battery.Gel }},
		{"vsr.far", coupling.VSR, func(c *method.Case) { c.RouteM = 4.1 }, func(c *method.Case) { c.RouteM = 4.0 }},
		{"dcdc.far", coupling.DCDC, func(c *method.Case) { c.RouteM = 4.1 }, func(c *method.Case) { c.RouteM = 4.0 }},
		{"vsr.short", coupling.VSR, func(c *method.Case) { c.WantedV = 14.8 }, func(*method.Case) {}},
		{"vsr.trailer", coupling.VSR, func(c *method.Case) { c.Trailer = true }, func(*method.Case) {}},
		{"dcdc.hot", coupling.DCDC, func(c *method.Case) { c.Hot = true }, func(*method.Case) {}},
		{"vsr.lead", coupling.VSR, func(*method.Case) {}, func(c *method.Case) { c.Varies = true }},
	}
	for _, c := range cases {
		on, off := lead(), lead()
		c.fires(&on)
		c.not(&off)
		assert.Contains(t, reasons(on, c.subject), c.id)
		assert.NotContains(t, reasons(off, c.subject), c.id)
	}
}

// Trade, §7: relays for steady regulation, lead and short runs; chargers for
// variable regulation, other chemistry and batteries at the back.
func TestWhichCoupling(t *testing.T) {
	assert.Equal(t, coupling.VSR, chosen(lead()))
	c := lead()
	c.Varies = true
	assert.Equal(t, coupling.DCDC, chosen(c))
	c = lead()
	c.Chemistry = battery.LiFePO4
	assert.Equal(t, coupling.DCDC, chosen(c))
	c = lead()
	c.RouteM = 6
	assert.Equal(t, coupling.DCDC, chosen(c))
}

func TestWhatIsRuledOutSaysWhatWouldAllowIt(t *testing.T) {
	c := lead()
	c.Varies, c.Chemistry = true, battery.LiFePO4
	for _, k := range method.Judge(c) {
		for _, r := range k.Reasons {
			assert.NotContains(t, r.Text, "%!", r.ID)
			assert.Equal(t, r.Effect == method.RulesOut, r.Unless != "", r.ID)
		}
	}
}
