package alternator_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/alternator"
)

// Common practice (no source): fixed settles within 0.2 V; a compensated one falls
// slowly as it warms; a variable one shows spells under 13.2 V and jumps of 0.8 V or
// more on lift-off, up to about 15 V.
func TestRegulation(t *testing.T) {
	fixed, compensated, variable := alternator.Fixed, alternator.Compensated, alternator.Variable
	assert.Equal(t, fixed.SetV(14.2, 0, alternator.Pulling), fixed.SetV(14.2, 90, alternator.LiftOff))
	cold, hot := compensated.SetV(14.2, 0, alternator.Pulling), compensated.SetV(14.2, 90, alternator.Pulling)
	assert.InDelta(t, 14.2, compensated.SetV(14.2, 50, alternator.Pulling), 1e-9)
	assert.True(t, cold > 14.5 && hot < 14.0 && hot > 13.6, "%g to %g V", cold, hot)
	assert.LessOrEqual(t, compensated.SetV(15, -40, alternator.Pulling), 15.2)
	eased, lift := variable.SetV(14.2, 50, alternator.Pulling), variable.SetV(14.2, 50, alternator.LiftOff)
	assert.Less(t, eased, 13.2)
	assert.GreaterOrEqual(t, lift-eased, 0.8)
	assert.InDelta(t, 14.2, variable.SetV(14.2, 50, alternator.Charging), 1e-9)
	assert.Equal(t, eased, alternator.Unknown.SetV(14.2, 50, alternator.Pulling), "unknown is taken as variable")
}

// A lithium bank straight on an alternator at idle overheats it: little cooling,
// full current. The same machine bears its label on the road.
func TestHeat(t *testing.T) {
	l := alternator.Label{LowA: 90, RatedA: 180}
	idle := alternator.IdleRPM * alternator.Ratio
	road := l.WindingC(180, 13.5, 6000, 40)
	assert.Less(t, road, alternator.HottestC)
	assert.Less(t, l.WindingC(90, 13.5, 1500, 23), alternator.HottestC, "it holds the label's lower figure")
	atIdle := l.WindingC(l.Output(idle), 13.5, idle, 80)
	assert.Greater(t, atIdle, alternator.HottestC)
	// A 30 A charger on it, with the vehicle's own 30 A, is easy.
	assert.Less(t, l.WindingC(70, 13.8, idle, 80), alternator.HottestC)
	assert.Equal(t, 40.0, l.WindingC(0, 14, 2000, 40))
	for amps := 10.0; amps < 180; amps += 10 {
		assert.Greater(t, l.WindingC(amps+10, 13.5, 3000, 40), l.WindingC(amps, 13.5, 3000, 40))
	}
}

// Hot output is 80–90 % of the label.
func TestHotOutput(t *testing.T) {
	l := alternator.Label{RatedA: 120}
	assert.InDelta(t, 120, l.HotOutput(6000, 23), 1e-9)
	assert.InDelta(t, 0.85*120, l.HotOutput(6000, 80), 1e-9)
}
