package track_test

import (
	"fmt"
	"io"
	"math"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/day"
	"epitrope/internal/track"
)

// recorded writes a GPX file of points by what gives the position at each second, in m to the east.
func recorded(from string, seconds int, east func(s int) float64) string {
	begin, _ := time.Parse(time.RFC3339, from)
	var b strings.Builder
	b.WriteString(`<?xml version="1.0"?><gpx version="1.1"><trk><trkseg>`)
	for s := range seconds {
		fmt.Fprintf(&b, `<trkpt lat="0" lon="%.8f"><ele>3</ele><time>%s</time></trkpt>`, east(s)/111_195,
			begin.Add(time.Duration(s)*time.Second).Format(time.RFC3339))
	}
	b.WriteString(`</trkseg></trk></gpx>`)
	return b.String()
}

func driven(p day.Pattern) (seconds float64) {
	for _, s := range p {
		if s.Kind.Runs() {
			seconds += s.Seconds
		}
	}
	return seconds
}

// A receiver that stands all night wanders by tens of metres: that is no driving.
func TestANightOfJitterIsStanding(t *testing.T) {
	r := rand.New(rand.NewPCG(20, 4))
	at := 0.0
	got, err := track.File(strings.NewReader(recorded("2030-05-01T20:00:00Z", 8*3600, func(int) float64 {
		at = 0.97*at + 4*r.NormFloat64() // it keeps within some tens of metres and moves by metres each second
		return math.Max(-30, math.Min(30, at))
	})))
	require.NoError(t, err)
	assert.Less(t, driven(got.Pattern), 120.0, "%v", got.Pattern)
	assert.Contains(t, strings.Join(got.Says, " "), "taken as standing")
}

// A point that leaps a county and back is left out, and told; what was driven stays what it was.
func TestLeapsAreLeftOut(t *testing.T) {
	drive := func(s int) float64 { return 15 * float64(s) } // 54 km/h
	whole, err := track.File(strings.NewReader(recorded("2030-05-01T08:00:00Z", 1200, drive)))
	require.NoError(t, err)
	leaping, err := track.File(strings.NewReader(recorded("2030-05-01T08:00:00Z", 1200, func(s int) float64 {
		if s%100 == 50 {
			return drive(s) + 60_000
		}
		return drive(s)
	})))
	require.NoError(t, err)
	assert.InDelta(t, driven(whole.Pattern), driven(leaping.Pattern), 30)
	assert.Contains(t, strings.Join(leaping.Says, " "), "12 points left out that leap")
	for _, s := range leaping.Pattern {
		assert.NotEqual(t, day.Highway, s.Kind)
	}
	_, err = track.File(strings.NewReader(recorded("2030-05-01T08:00:00Z", 1200, func(s int) float64 { return float64(s%2) * 60_000 })))
	require.ErrorContains(t, err, "leaps further than any vehicle drives")

	// A ferry: where it is from then on is where it is.
	ferry, err := track.File(strings.NewReader(recorded("2030-05-01T08:00:00Z", 1200, func(s int) float64 {
		if s > 600 {
			return drive(s) + 60_000
		}
		return drive(s)
	})))
	require.NoError(t, err)
	assert.InDelta(t, driven(whole.Pattern), driven(ferry.Pattern), 60)
}

// Hours are those of the place's own days.
func TestHoursByLocalDay(t *testing.T) {
	got, err := track.File(strings.NewReader(recorded("2030-05-01T21:30:00Z", 3600, func(s int) float64 { return 15 * float64(s) })))
	require.NoError(t, err)
	berlin, err := time.LoadLocation("Europe/Berlin")
	require.NoError(t, err)
	days := got.Days(berlin) // midnight there is 22:00 UTC
	require.Len(t, days, 2)
	assert.Equal(t, []string{"2030-05-01", "2030-05-02"}, []string{days[0].Date, days[1].Date})
	assert.InDelta(t, 0.5, days[0].Hours, 0.02)
	assert.InDelta(t, 0.5, days[1].Hours, 0.02)
	assert.Len(t, got.Days(time.UTC), 1)
	table, err := track.File(strings.NewReader("time,rpm\n0,900\n600,2000\n"))
	require.NoError(t, err)
	assert.Empty(t, table.Days(time.UTC), "it has no dates")
}

// endless is a file without an end.
type endless struct{ begin, again string }

func (e *endless) Read(p []byte) (int, error) {
	if e.begin != "" {
		n := copy(p, e.begin)
		e.begin = e.begin[n:]
		return n, nil
	}
	return copy(p, strings.Repeat(e.again, 1+len(p)/len(e.again))), nil
}

// A file without an end is refused as soon as a part of it is longer, or stands deeper, than any has.
func TestFilesWithoutAnEnd(t *testing.T) {
	for _, e := range []*endless{{"<gpx><!--", "x"}, {"<gpx>", "<a>"}, {"<gpx><trkpt lat='1' lon='1'><time>", "2"}, {"time,speed\n", "1"},
		{"<gpx><trkpt lat='", "1"}, {"time,speed\n", "\""}, {"<gpx><trkpt lat='1' lon='1'><time>2030", "<!-- -->0"}} {
		what := e.begin
		_, err := track.File(io.LimitReader(e, 1<<30))
		require.Error(t, err, what)
		assert.Less(t, len(err.Error()), 200, what)
	}
}
