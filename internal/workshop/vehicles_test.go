package workshop_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/internal/workshop"
)

const vehicles = "model,answer to,answer,known by\r\n" +
	"Sandpiper 2.4,routes.startM,18 ft,measured\r\n" +
	"sandpiper  2.4,feeds.f1.name,F22,\r\n" +
	"Sandpiper 2.4,feeds.f1.ratingA,15 A,\r\n" +
	"Sandpiper 2.4,routes.auxM,nine,\r\n" +
	"Sandpiper 2.4,aux.capacityAh,100,\r\n" +
	",routes.auxM,1,\r\n" +
	"Curlew 24,alternator.volts,28.2 V,\r\n" +
	"Curlew 24,vehicle.systemVolts,24,\r\n" +
	"Curlew 24,bays.startC,80 °C,guessed\r\n" +
	"Redshank,alternator.label,one,\r\n"

// Good lines are used, bad ones named and given back; limits follow the system's voltage,
// wherever its line stands.
func TestReadVehicles(t *testing.T) {
	got, err := workshop.ReadVehicles([]byte(vehicles))
	require.NoError(t, err)
	require.Len(t, got.Models, 2)
	assert.Equal(t, 5, got.Answers)
	var says []string
	for _, p := range got.Problems {
		says = append(says, p.String())
	}
	require.Len(t, says, 5)
	assert.Contains(t, says[0], `line 5: routes.auxM "nine"`)
	assert.Contains(t, says[1], `line 6: aux.capacityAh "100" is not an answer of the vehicle book`)
	assert.Contains(t, says[2], "line 7: model is missing")
	assert.Contains(t, says[3], "line 10: known.bays/startC")
	assert.Contains(t, says[4], `line 11: alternator.label "one"`)
	assert.Equal(t, 6, strings.Count(got.Rest, "\n"), "heads and five lines")
	sandpiper := got.Models[1].Document
	if got.Models[0].Name == "Sandpiper 2.4" {
		sandpiper = got.Models[0].Document
	}
	assert.InDelta(t, 5.4864, *sandpiper.Routes.StartM, 1e-4)
	assert.Equal(t, "measured", sandpiper.Known["routes/startM"])
	assert.Equal(t, "F22", sandpiper.Feeds["f1"].Name)

	for _, bad := range []string{"", "model,answer\nA,1", "model,answer to,answer,price\nA,b,c,d", "model,model,answer to,answer\n", "\xff"} {
		_, err := workshop.ReadVehicles([]byte(bad))
		assert.Error(t, err, "%q", bad)
	}
}

// What is written reads back as it was.
func TestVehiclesThereAndBack(t *testing.T) {
	read, err := workshop.ReadVehicles([]byte(vehicles))
	require.NoError(t, err)
	again, err := workshop.ReadVehicles(workshop.WriteVehicles(read.Models))
	require.NoError(t, err)
	assert.Empty(t, again.Problems)
	byName := func(models []workshop.Model) map[string]string {
		m := map[string]string{}
		for _, one := range models {
			m[one.Name] = string(one.Document.Encode())
		}
		return m
	}
	assert.Equal(t, byName(read.Models), byName(again.Models))
}

// Whatever comes, each line is used or given back, and what is used survives a round trip.
func FuzzReadVehicles(f *testing.F) {
	f.Add(vehicles)
	f.Add("model;answer to;answer\n=A;points.p1.where;\"behind \"\"it\"\"\"\n")
	f.Fuzz(func(t *testing.T, text string) {
		got, err := workshop.ReadVehicles([]byte(text))
		if err != nil {
			return
		}
		for _, m := range got.Models {
			_, problems := job.Decode(m.Document.Encode())
			assert.Empty(t, problems)
		}
		again, err := workshop.ReadVehicles(workshop.WriteVehicles(got.Models))
		require.NoError(t, err)
		assert.Empty(t, again.Problems)
		require.Len(t, again.Models, len(got.Models))
		for i := range got.Models {
			assert.Equal(t, string(got.Models[i].Document.Encode()), string(again.Models[i].Document.Encode()))
		}
	})
}
