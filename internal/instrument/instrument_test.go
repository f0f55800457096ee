package instrument_test

import (
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/alternator"
	"epitrope/internal/instrument"
)

// What each recording says, from the rules of the trade (§3), written before the code.
var says = map[string]struct {
	class  alternator.Class
	sure   string
	proves alternator.Regulation
}{
	"fixed":             {alternator.ClassFixed, "clear", alternator.Fixed},
	"compensated":       {alternator.ClassCompensated, "clear", alternator.Compensated},
	"variable":          {alternator.ClassVariable, "clear", alternator.Variable},
	"not-charging":      {alternator.ClassNotCharging, "clear", alternator.Unknown},
	"variable-no-rpm":   {alternator.ClassVariable, "clear", alternator.Variable},
	"steady-no-rpm":     {alternator.ClassNotSeen, "open", alternator.Unknown},
	"short":             {alternator.ClassNotSeen, "open", alternator.Unknown},
	"loaded-idle":       {alternator.ClassUnclear, "open", alternator.Unknown},
	"comma-millivolts":  {alternator.ClassNotSeen, "open", alternator.Unknown},
	"gaps-and-glitches": {alternator.ClassVariable, "clear", alternator.Variable},
	"24-volt":           {alternator.ClassVariable, "clear", alternator.Variable},
}

func judge(t *testing.T, text string) alternator.Judgement {
	t.Helper()
	readings, err := instrument.Log([]byte(text))
	require.NoError(t, err)
	j, err := alternator.Classify(readings)
	require.NoError(t, err)
	return j
}

func TestEveryRecordingIsJudged(t *testing.T) {
	require.Len(t, says, len(instrument.Simulations))
	for _, s := range instrument.Simulations {
		want, ok := says[s.ID]
		require.True(t, ok, s.ID)
		j := judge(t, s.Write())
		assert.Equal(t, want.class, j.Class, "%s: %s", s.ID, j.Why)
		assert.Equal(t, want.sure, j.Sure, "%s: %s", s.ID, j.Why)
		assert.Equal(t, want.proves, j.Proves(), s.ID)
		assert.NotEmpty(t, j.Why)
		if j.Sure == "open" {
			assert.NotEmpty(t, j.Missing, "%s: what to record", s.ID)
		}
	}
	assert.Contains(t, judge(t, by(t, "comma-millivolts")).Taken, "volts read as millivolts")
	assert.Equal(t, 24.0, judge(t, by(t, "24-volt")).System)
	gaps := judge(t, by(t, "gaps-and-glitches"))
	assert.Contains(t, strings.Join(gaps.Taken, " "), "left out")
	found := ""
	for _, f := range gaps.Findings {
		found += f.Text + "; "
	}
	assert.Contains(t, found, "nothing recorded for 90 s")
	assert.Contains(t, found, "a jump from 12.9 to 14.9 V")
	assert.Contains(t, judge(t, by(t, "loaded-idle")).Why, "A loaded idle pulls a fixed one low too")
}

func by(t *testing.T, id string) string {
	t.Helper()
	s, err := instrument.SimulationByID(id)
	require.NoError(t, err)
	return s.Write()
}

// The recordings that are shipped are those that are simulated.
func TestShippedRecordings(t *testing.T) {
	for _, s := range instrument.Simulations {
		data, err := os.ReadFile(filepath.Join("../../testdata/logs", s.ID+".csv"))
		require.NoError(t, err, "write it with: epitrope log %s", s.ID)
		assert.Equal(t, s.Write(), string(data), s.ID)
	}
	_, err := instrument.SimulationByID("none")
	require.ErrorContains(t, err, "allowed are fixed")
}

// The order of the readings does not matter, nor a constant shift of time.
func TestOrderDoesNotMatter(t *testing.T) {
	readings, err := instrument.Log([]byte(by(t, "variable")))
	require.NoError(t, err)
	first, err := alternator.Classify(readings)
	require.NoError(t, err)
	rand.New(rand.NewPCG(1, 1)).Shuffle(len(readings), func(i, j int) { readings[i], readings[j] = readings[j], readings[i] })
	again, err := alternator.Classify(readings)
	require.NoError(t, err)
	assert.Equal(t, first, again)
}

func TestBrokenRecordingsAreNamed(t *testing.T) {
	many := "time,volts\n" + strings.Repeat("1,14\n", 3)
	kilo := "time,volts\n"
	for i := range 60 {
		kilo += strings.Repeat("x", 0) + string(rune('0'+i%10)) + ",0.014\n"
	}
	for text, wrong := range map[string]string{
		"":                        "there is no recording in it",
		"time,volts\n":            "there is no recording in it",
		"a,b\n1,2\n":              "name no time with volts",
		"time,rpm\n1,2\n":         "name no time with volts",
		"time,volts\n0,x\n":       `line 2: volts "x" is not a number`,
		"time,volts\nnoon,14.1\n": `line 2: time "noon" is not a time`,
		many:                      "are too few",
		kilo:                      "are no vehicle's voltage",
	} {
		readings, err := instrument.Log([]byte(text))
		if err == nil {
			_, err = alternator.Classify(readings)
		}
		require.Error(t, err, text)
		assert.Contains(t, err.Error(), wrong)
	}
}

func FuzzLog(f *testing.F) {
	f.Add([]byte(instrument.Simulations[2].Write()[:4000]))
	f.Add([]byte("t;U\n0;14,1\n1;14,2"))
	f.Fuzz(func(t *testing.T, data []byte) {
		readings, err := instrument.Log(data)
		if err != nil {
			require.NotEmpty(t, err.Error())
			return
		}
		j, err := alternator.Classify(readings)
		if err == nil {
			require.NotEmpty(t, j.Class)
			require.NotEmpty(t, j.Why)
			require.NotContains(t, j.Why, "NaN")
		}
	})
}
