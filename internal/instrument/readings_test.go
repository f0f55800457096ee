package instrument_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/prove"
	"epitrope/internal/instrument"
	"epitrope/internal/jobtest"
)

func someProof(t testing.TB) *prove.Proof {
	return prove.Of(jobtest.Design(t, `{"alternator":{"label":"120/200 A"},"aux":{"chemistry":"agm","capacityAh":100},"use":{"dailyAh":20}}`))
}

// A file of readings is read in its order, by its heads; what is wrong is named with its line and what is allowed.
func TestReadProof(t *testing.T) {
	p := someProof(t)
	taken, err := instrument.ReadProof([]byte("at;reading;value\n08:00;start-rest;12,6 V\n08:01;charge;jumps\n08:02;start-rest;12,65\n"), p)
	require.NoError(t, err)
	assert.Equal(t, []prove.Taken{{ID: "start-rest", Value: 12.6}, {ID: "charge", Jumps: true}, {ID: "start-rest", Value: 12.65}}, taken)
	for text, wrong := range map[string]string{
		"": "no table", "reading\nstart-rest\n": "lack “reading” or “value”", "reading,value\nstart-rest,OL\n": "line 2: value \"OL\"",
		"reading,value\nstart-rest,12.6\nfinish,3\n": "line 3: reading \"finish\" is none of this proof's", "reading," +
			"value\nstart-rest\n": "is missing",
	} {
		_, err := instrument.ReadProof([]byte(text), p)
		require.Error(t, err, text)
		assert.Contains(t, err.Error(), wrong, text)
	}
}

// Whatever is sent, it is read or refused in words, and what was read is judged.
func FuzzReadProof(f *testing.F) {
	p := someProof(f)
	f.Add("reading,value\nstart-rest,12.6\ncharge,31 A\n")
	f.Add("value;reading\n-1e300;start-rest\n12,5;lost-start\n")
	f.Fuzz(func(t *testing.T, text string) {
		taken, err := instrument.ReadProof([]byte(text), p)
		if err != nil {
			assert.NotEmpty(t, err.Error())
			return
		}
		if len(taken) < 30 {
			assert.LessOrEqual(t, len(p.Judge(taken).Verdicts), len(taken))
		}
	})
}
