package working_test

import (
	"epitrope/core/unit"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

// A time is never shown as none because it is short, nor in seconds where hours are meant.
func TestSeconds(t *testing.T) {
	for s, want := range map[float64]string{0.43: "0.43 s", 4.26: "4.3 s", 45.2: "45 s", 600: "10 min", 3 * 3600: "3 h",
		math.Inf(1): "no end"} {
		assert.Equal(t, want, unit.Seconds(s))
	}
}
