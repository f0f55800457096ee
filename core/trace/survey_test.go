package trace_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/trace"
	"epitrope/internal/jobtest"
)

// What nothing that was read tells apart is told apart by where it is, and by how long it has been in use.
func TestWhereAndHowOldTellWhatNothingElseDoes(t *testing.T) {
	tr := trace.Of(jobtest.Design(t, relay))
	shares := func(e trace.Evidence) map[string]float64 {
		list := map[string]float64{}
		for _, s := range tr.Believe(e).Suspects {
			list[s.ID] = s.Share
		}
		return list
	}
	ends := shares(trace.Evidence{Seen: []trace.Observed{said("slow-charge"), took("lost-back", "900 mV")}})
	assert.Greater(t, ends["joint n1 to"], ends["joint n1 from"], "bare steel rusts before a post corrodes")

	aged := func(years float64) float64 {
		return shares(trace.Evidence{Years: &years, Seen: []trace.Observed{said("house-flat")}})["tired aux"]
	}
	assert.Greater(t, aged(8), 2*aged(0.02), "a battery does not tire in a week")
}
