package procedure_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/harness"
	"epitrope/core/procedure"
	"epitrope/core/retrofit"
	"epitrope/core/unit"
	"epitrope/internal/jobtest"
)

// Trade §21.6: a return is judged by milliohms, or by millivolts at a known current, within what the design
// counts for it; a common meter's tenth of an ohm would pass four volts at 40 A.
func TestReturnsAreReadInMilliohms(t *testing.T) {
	p := jobtest.Plan(t, `{"pins":{"chargerA":40}}`)
	sum := 0.0
	for _, r := range p.Returns {
		sum += r.MilliO
	}
	for _, s := range procedure.Steps(p, harness.Leads(&p.System, harness.UsualScheme), retrofit.Found{}) {
		assert.NotContains(t, s.Figure, "0.1 Ω")
		if s.ID == "hold-connect" {
			assert.Contains(t, s.Figure, unit.Text(sum, "mΩ", 1))
			assert.Contains(t, s.Figure, unit.Text(20*sum, "mV", 0))
			assert.Less(t, sum, 20.0)
			return
		}
	}
	t.Fatal("no step reads the returns")
}
