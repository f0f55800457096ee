package battery_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/battery"
)

// At once it is its own resistance, after minutes 1.8 of it; what cranking shows is what it has at once.
func TestPolarised(t *testing.T) {
	const ohm = 0.005
	assert.InDelta(t, ohm, battery.Polarised(ohm, 80, 1, 0), 1e-9)
	assert.InDelta(t, 1.8*ohm, battery.Polarised(ohm, 80, 1, 600), 1e-6)
	assert.InDelta(t, ohm*(1+0.8*(1-0.5941)), battery.Polarised(ohm, 80, 1, 2), 1e-5, "τ = 4 mΩ · 960 F = 3.84 s")
	after := func(r float64) float64 { return battery.Polarised(r, 80, 1, 2) }
	r := battery.ByCrank(12.7, 10.2, 400, 0, after)
	starter := 12.7/400 - r
	assert.InDelta(t, 10.2, 12.7*starter/(starter+after(r)), 1e-6, "Ohm's law at the end of the start")
	assert.Less(t, r, (12.7-10.2)/400)
	assert.Less(t, battery.ByCrank(12.7, 10.2, 400, 20, after), r, "some of it was the vehicle's")
}
