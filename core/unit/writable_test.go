package unit_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/unit"
)

// What turns text round, or controls it, is found; what people write is not.
func TestUnwritable(t *testing.T) {
	for _, bad := range []string{"\x00", "\x1b[31m", "left \u202eright", "\u2066x", "\u200f", "\ufeff", "\u0085", "\x7f"} {
		assert.True(t, strings.ContainsFunc(bad, unit.Unwritable), "%q", bad)
	}
	for _, good := range []string{"", "a seat, left\nand right\t", "“quoted” & <b>", "日本", "שלום", "5 mm² — Ω", "👩‍🔧"} {
		assert.False(t, strings.ContainsFunc(good, unit.Unwritable), "%q", good)
	}
}

func TestWritten(t *testing.T) {
	assert.Equal(t, "left U+202Eright", unit.Written("left \u202eright"))
	assert.Equal(t, "U+0000", unit.Written("\x00"))
	assert.Equal(t, "as it is\n", unit.Written("as it is\n"))
}
