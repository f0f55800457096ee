package trip_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/trip"
	"epitrope/internal/jobtest"
)

const charger = `{"alternator":{"label":"120/200 A"},"aux":{"chemistry":"lifepo4","capacityAh":200},"pins":{"chargerA":30},
	"use":{"dailyAh":60}}`

// By hand: 30 A for two hours are 60 Ah, 30 % of 200 Ah; a lithium battery takes them all.
func TestTrips(t *testing.T) {
	d := jobtest.Design(t, charger)
	for _, c := range []struct {
		name   string
		drive  trip.Drive
		proven float64
		want   trip.Level
	}{
		{"as computed", trip.Drive{Hours: 2, From: 50, To: 80}, 0, trip.AsItShould},
		{"what a monitor may miss", trip.Drive{Hours: 2, From: 50, To: 72}, 0, trip.AsItShould},
		{"half of it", trip.Drive{Hours: 2, From: 50, To: 64}, 0, trip.Less},
		{"half of it, as it was proven to give", trip.Drive{Hours: 2, From: 50, To: 64}, 15, trip.AsItShould},
		{"we drove two hours and gained nothing", trip.Drive{Hours: 2, From: 50, To: 50}, 30, trip.Nothing},
		{"it lost", trip.Drive{Hours: 2, From: 50, To: 41}, 30, trip.Nothing},
		{"full before", trip.Drive{Hours: 2, From: 100, To: 100}, 30, trip.SaysLittle},
		{"round the block", trip.Drive{Hours: 0.05, From: 50, To: 50}, 30, trip.SaysLittle},
	} {
		got := trip.Of(d, c.drive, c.proven)
		assert.Equal(t, c.want, got.Level, "%s: %+v", c.name, got)
		assert.NotEmpty(t, got.Says, c.name)
		lacks := c.want == trip.Less || c.want == trip.Nothing
		assert.Equal(t, lacks, len(got.Causes) > 0, c.name)
		assert.Equal(t, lacks, got.Next != "", c.name)
	}
	assert.InDelta(t, 60, trip.Of(d, trip.Drive{Hours: 2, From: 50, To: 80}, 0).ShouldAh, 4)
}

// Nothing arrived: what is named can stop all of it.
func TestNothingArrivedNamesWhatStopsAll(t *testing.T) {
	d := jobtest.Design(t, charger)
	got := trip.Of(d, trip.Drive{Hours: 3, From: 40, To: 40}, 30)
	require.NotEmpty(t, got.Causes)
	kinds := ""
	for _, c := range got.Causes {
		kinds += c.ID + "; "
		for _, same := range c.Same {
			kinds += same + "; "
		}
	}
	assert.Regexp(t, `blown|open|dead|never`, kinds)
}

func TestWhatIsNoDrive(t *testing.T) {
	for field, drive := range map[string]trip.Drive{"hours": {From: 1, To: 2}, "from": {Hours: 1, From: -1}, "to": {Hours: 1, To: 142}} {
		got, wrong := drive.Check()
		assert.Equal(t, field, got)
		assert.Contains(t, wrong, "allowed")
	}
	field, _ := trip.Drive{Hours: 2, From: 40, To: 60}.Check()
	assert.Empty(t, field)
}
