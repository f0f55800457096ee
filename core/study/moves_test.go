package study_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/study"
	"epitrope/internal/jobtest"
)

// 60 mV at 40 A are 1.5 mΩ, over a good joint's 0.3 mΩ: at some 55 A the charger sees about 0.07 V
// less. The answer says so, and one that moves nothing says nothing.
func TestWhatAMeasurementMoves(t *testing.T) {
	moves := study.Moves(jobtest.Design(t, `{"pins":{"chargerA":40},"joints":{"c1":{"mOhm":12,"tempC":40}},"startBattery":{"ageYears":2}}`))
	require.Len(t, moves, 1)
	assert.Equal(t, "joints.c1.mOhm", moves[0].Path)
	assert.Regexp(t, `^This moves what the charger sees .* from 1\d\.\d\d V to 1\d\.\d\d V\.$`, moves[0].Says)
	assert.Empty(t, study.Moves(jobtest.Design(t, `{}`)))
}
