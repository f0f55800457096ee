package instrument_test

import (
	"bytes"
	"fmt"
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
	readings, err := instrument.Log(strings.NewReader(text))
	require.NoError(t, err)
	j, err := alternator.Classify(readings.Readings)
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
	readings, err := instrument.Log(strings.NewReader(by(t, "variable")))
	require.NoError(t, err)
	first, err := alternator.Classify(readings.Readings)
	require.NoError(t, err)
	rand.New(rand.NewPCG(1, 1)).Shuffle(len(readings.Readings), func(i, j int) {
		r := readings.Readings
		r[i], r[j] = r[j], r[i]
	})
	again, err := alternator.Classify(readings.Readings)
	require.NoError(t, err)
	assert.Equal(t, first, again)
}

func TestBrokenRecordingsAreNamed(t *testing.T) {
	few := "time,volts\n1,14\n2,14\n3,14\n"
	kilo := "time,volts\n"
	for i := range 60 {
		kilo += fmt.Sprintf("%d,0.014\n", i)
	}
	for text, wrong := range map[string]string{
		"":                        "there is no recording in it",
		"time,volts\n":            "there is no recording in it",
		"a,b\n1,2\n":              "name no time with volts",
		"time,rpm\n1,2\n":         "name no time with volts",
		"time,volts\n0,x\n":       `line 2: volts "x" is not a number`,
		"time,volts\nnoon,14.1\n": `line 2: time "noon" is not a time`,
		few:                       "are too few",
		kilo:                      "are no vehicle's voltage",
	} {
		readings, err := instrument.Log(strings.NewReader(text))
		if err == nil {
			_, err = alternator.Classify(readings.Readings)
		}
		require.Error(t, err, text)
		assert.Contains(t, err.Error(), wrong)
	}
}

func FuzzLog(f *testing.F) {
	f.Add([]byte(instrument.Simulations[2].Write()[:4000]))
	f.Add([]byte("t;U\n0;14,1\n1;14,2"))
	f.Fuzz(func(t *testing.T, data []byte) {
		readings, err := instrument.Log(bytes.NewReader(data))
		if err != nil {
			require.NotEmpty(t, err.Error())
			return
		}
		j, err := alternator.Classify(readings.Readings)
		if err == nil {
			require.NotEmpty(t, j.Class)
			require.NotEmpty(t, j.Why)
			require.NotContains(t, j.Why, "NaN")
		}
	})
}

// How a logger's clock went is told, or refused with its line where two stretches would lie over each other.
func TestTheClockOfARecording(t *testing.T) {
	table := func(times ...string) string {
		text := "time,volts\n"
		for i, at := range times {
			text += fmt.Sprintf("%s,14.%d\n", at, i%10)
		}
		return text
	}
	for says, text := range map[string]string{
		"":                                   table("0", "1", "2"),
		"the newest reading stands first":    table("9", "8", "7", "6"),
		"a moment that was recorded already": table("0", "1", "1", "2"),
		"pass midnight":                      table("23:59:58", "23:59:59", "00:00:00", "00:00:01"),
		"a moment too late in the file, 1":   table("0", "2", "1", "3"),
		"!line 5: time steps back by 3598 s": table("0", "3600", "3601", "3", "4"),
		"!on 3 of 4 readings as on the line": table("08:15", "08:15", "08:15", "08:15"),
		"!line 3: line is longer than 64 kB": "time,volts\n0,14\n" + strings.Repeat("9", 90_000),
		"!decimal commas among the commas":   "time,volts\n0,13,96\n",
	} {
		got, err := instrument.Log(strings.NewReader(text))
		if wrong, refused := strings.CutPrefix(says, "!"); refused {
			require.ErrorContains(t, err, wrong)
			continue
		}
		require.NoError(t, err, says)
		assert.Contains(t, strings.Join(got.Says, ". "), says)
		assert.Equal(t, says == "", len(got.Says) == 0, "%v", got.Says)
	}
	night, err := instrument.Log(strings.NewReader(table("23:59:58", "00:00:01")))
	require.NoError(t, err)
	assert.InDelta(t, 3, night.Readings[1].At-night.Readings[0].At, 1e-9)
}
