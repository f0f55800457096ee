package run_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/cable"
	"epitrope/core/run"
)

func pump() run.SingleInput {
	return run.SingleInput{Amps: 12, OneWayM: 2.3, DropPercent: 2, ReferenceV: 10.7, Bay: cable.Cabin(), Insulation: cable.Class85,
		System: cable.Metric}
}

// Common practice (no source): 12 A, 2.3 m: 4.45 mm² by the rule, so 6 mm²; 15 A.
func TestSizeSinglePump(t *testing.T) {
	got, err := run.SizeSingle(pump())
	require.NoError(t, err)
	assert.Equal(t, 4.45, got.RuleAreaMM2)
	assert.Equal(t, "6 mm²", got.Size)
	assert.Equal(t, "drop", got.DecidedBy)
	assert.Equal(t, 15.0, got.FuseA)
	assert.InDelta(t, 0.191, got.DropV, 0.001)
	assert.Empty(t, got.Warnings)
	// Before rounding, the working gives the same drop.
	last := got.Working[len(got.Working)-2]
	assert.Equal(t, got.DropV, last.Value)
	assert.Equal(t, "ΔU = I·R", last.Formula)
}

func TestSizeSingleByFuseAndByAmpacity(t *testing.T) {
	in := pump()
	in.Amps, in.OneWayM = 36, 0.3
	got, err := run.SizeSingle(in)
	require.NoError(t, err)
	assert.Equal(t, "fuse", got.DecidedBy, "36 A wants 45 A of fuse and so of cable")
	assert.Equal(t, 50.0, got.FuseA)
	assert.Equal(t, "6 mm²", got.Size)
	in.Bay = cable.EngineBay()
	hot, err := run.SizeSingle(in)
	require.NoError(t, err)
	assert.Equal(t, "10 mm²", hot.Size, "the engine space takes 18 %")
}

// Steel may conduct better than cable: only its joints count.
func TestSizeSingleByChassis(t *testing.T) {
	in := pump()
	in.ByChassis = true
	got, err := run.SizeSingle(in)
	require.NoError(t, err)
	assert.Equal(t, "4 mm²", got.Size)
	assert.Equal(t, 4.6, got.LoopM)
}

func TestSizeSingleJudgesAGivenSize(t *testing.T) {
	in := pump()
	thin, _ := cable.Parse("1.5 mm²")
	in.Size = &thin
	got, err := run.SizeSingle(in)
	require.NoError(t, err)
	assert.Equal(t, "pinned", got.DecidedBy)
	require.Len(t, got.Warnings, 1)
	assert.Contains(t, got.Warnings[0], "more than the 0.214 V allowed")
	in.Amps = 60
	got, err = run.SizeSingle(in)
	require.NoError(t, err)
	assert.Contains(t, got.Warnings[0], "it burns")
	assert.Zero(t, got.FuseA)
}

func TestSizeSingleSaysWhereNoCableDoes(t *testing.T) {
	in := pump()
	in.Amps, in.OneWayM = 1000, 50
	_, err := run.SizeSingle(in)
	var none *cable.NoSize
	require.ErrorAs(t, err, &none)
}
