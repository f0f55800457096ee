package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
)

// One reading for all that names the same: a voltage with its unit, with a point, as a number; and all that grows
// with it. Gauges with a slash, or of noughts, need no “AWG”.
func TestOneReading(t *testing.T) {
	for _, volts := range []string{`24`, `24.0`, `"24"`, `"24 V"`, `"24.0"`, `"24,0 V"`} {
		doc, problems := job.Decode([]byte(`{"vehicle":{"systemVolts":` + volts + `},"alternator":{"volts":28.4},"use":{"dailyAh":"480 Wh"}}`))
		require.Empty(t, problems, volts)
		assert.InDelta(t, 24, *doc.Vehicle.SystemVolts, 0, volts)
		assert.InDelta(t, 28.4, *doc.Alternator.Volts, 1e-9, volts)
		assert.InDelta(t, 20, *doc.Use.DailyAh, 1e-9, "at 24 V")
	}
	for text, want := range map[string]string{"000": "3/0 AWG", "00": "2/0 AWG", "1/0": "1/0 AWG", "4/0": "4/0 AWG"} {
		doc, problems := job.Decode([]byte(`{"pins":{"startSize":"` + text + `"}}`))
		require.Empty(t, problems, text)
		assert.Equal(t, want, *doc.Pins.StartSize)
	}
}

// What is no field is told with the field that was most likely meant.
func TestTheNearestFieldIsNamed(t *testing.T) {
	for path, want := range map[string]string{`{"vehicle":{"sistemVolts":24}}`: "vehicle.systemVolts",
		`{"aux":{"capacityAH":1}}`: "aux.capacityAh",
		`{"routs":{"startM":1}}`:   "routes"} {
		_, problems := job.Decode([]byte(path))
		require.Len(t, problems, 1, path)
		assert.Contains(t, problems[0].Allowed, want, path)
	}
	_, problems := job.Decode([]byte(`{"nothing at all like it":1}`))
	require.Len(t, problems, 1)
	assert.NotContains(t, problems[0].Allowed, "nearest")
}

// Nothing written is no answer, so that what was read and written once is the same ever after: a save that is
// sent again meets itself.
func TestNothingWrittenIsNoAnswer(t *testing.T) {
	doc, problems := job.Decode([]byte(`{"title":"","gear":{"r0":{"name":""}},"loads":{"r1":{}},"found":{"r2":{"remark":"","role":"aux"}}}`))
	require.Empty(t, problems)
	again, problems := job.Decode(doc.Encode())
	require.Empty(t, problems)
	assert.Equal(t, doc.Digest(), again.Digest())
	assert.Empty(t, doc.Gear)
	assert.Contains(t, doc.Found, "r2")
}

// Answers that are each within their limits and together ask for more than can be run are refused together.
func TestDrivingAndDaysTogether(t *testing.T) {
	for document, wrong := range map[string]bool{
		`{"day":{"own":"park 1 s","days":28}}`:               true,
		`{"day":{"own":"park 1 h, idle 1 min","days":28}}`:   false,
		`{"day":{"own":"park 4 s"}}`:                         true,
		`{"day":{"own":"crank 2 s, town 5 min","days":"7"}}`: false,
	} {
		doc, problems := job.Decode([]byte(document))
		if !wrong {
			assert.Empty(t, problems, document)
			continue
		}
		require.Len(t, problems, 1, document)
		assert.Equal(t, "day.own", problems[0].Field)
		assert.Contains(t, problems[0].Wrong, "days")
		assert.Empty(t, doc.Day.Own)
	}
}

// A document from elsewhere says of which format and version it is.
func TestOpenWantsFormatAndVersion(t *testing.T) {
	for document, fields := range map[string][]string{
		`{"format":"epitrope-job","version":1}`: nil,
		`{"title":"x"}`:                         {"version", "format"},
		`{"format":"epitrope-job"}`:             {"version"},
		`{"version":1}`:                         {"format"},
		`{"format":"epitrope-job","version":2}`: {"version"},
	} {
		_, problems := job.Open([]byte(document))
		var named []string
		for _, p := range problems {
			named = append(named, p.Field)
		}
		assert.Equal(t, fields, named, document)
	}
}
