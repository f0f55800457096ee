package unit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/unit"
)

// Two figures that are held against each other print differently, where they differ at all.
func TestApart(t *testing.T) {
	for _, c := range []struct {
		a, b       float64
		digits     int
		one, other string
	}{
		{50.3, 49.8, 0, "50.3 A", "49.8 A"}, {50, 40, 0, "50 A", "40 A"}, {0.1234, 0.1236, 2, "0.123 A", "0.124 A"},
		{1, 1, 0, "1 A", "1 A"}, {13.19, 13.2, 1, "13.19 A", "13.20 A"}, {1, 1.00000001, 1, "1.0000 A", "1.0000 A"},
	} {
		one, other := unit.Apart(c.a, c.b, "A", c.digits)
		assert.Equal(t, []string{c.one, c.other}, []string{one, other})
	}
}
