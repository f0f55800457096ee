package track_test

import (
	"bytes"
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/day"
	"epitrope/internal/track"
)

// drive is a table of a drive: five minutes in town, ten on the highway, a stop of two
// minutes, an hour parked, and back.
func drive(head, format string, comma bool) string {
	var b strings.Builder
	b.WriteString(head + "\n")
	at := 0
	add := func(seconds int, kmh float64) {
		for range seconds / 5 {
			line := fmt.Sprintf(format, at, kmh)
			if comma {
				line = strings.ReplaceAll(line, ".", ",")
			}
			b.WriteString(line + "\n")
			at += 5
		}
	}
	add(300, 42.5)
	add(600, 100)
	add(120, 0)
	add(60, 50)
	add(3600, 0)
	add(300, 42.5)
	return b.String()
}

func kinds(p day.Pattern) []day.Kind {
	var list []day.Kind
	for _, s := range p {
		list = append(list, s.Kind)
	}
	return list
}

func TestTablesInAnySensibleForm(t *testing.T) {
	want := []day.Kind{day.Crank, day.Town, day.Highway, day.Idle, day.Town, day.Park, day.Crank, day.Town, day.Park}
	for name, text := range map[string]string{
		"plain":             drive("time,speed km/h", "%d,%.1f", false),
		"semicolons, comma": drive("Time;Speed (km/h)", "%d;%.1f", true),
		"tabs, mark":        "\ufeff" + drive("seconds\tspeed\tother", "%d\t%.1f\tx", false),
		"mph":               drive("t,mph", "%d,%.1f", false),
	} {
		got, err := track.File(strings.NewReader(text))
		require.NoError(t, err, name)
		if name == "mph" {
			assert.Contains(t, kinds(got.Pattern), day.Highway)
			continue
		}
		var without []day.Kind
		for _, k := range kinds(got.Pattern) {
			if k != day.LiftOff && (len(without) == 0 || without[len(without)-1] != k) {
				without = append(without, k)
			}
		}
		assert.Equal(t, want, without, name)
		assert.InDelta(t, 4975, got.Seconds, 15, name)
	}
}

func TestEngineSpeedIsTakenAsItIs(t *testing.T) {
	got, err := track.File(strings.NewReader("time,rpm\n0,0\n60,800\n120,2600\n1020,2600\n1021,0\n1600,0\n"))
	require.NoError(t, err)
	// From 120 s nothing was recorded for a quarter of an hour: parked.
	assert.Equal(t, []day.Kind{day.Park, day.Crank, day.Idle, day.Park, day.Crank, day.Highway, day.Park}, kinds(got.Pattern))
	assert.Equal(t, 800.0, got.Pattern[2].RPM)
}

// Haversine: a hundredth of a degree of latitude is 1,112 m; in 40 s that is 100 km/h.
func TestGPX(t *testing.T) {
	var b strings.Builder
	b.WriteString(`<?xml version="1.0"?><gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1"><trk><trkseg>`)
	for i := range 30 {
		fmt.Fprintf(&b, `<trkpt lat="%.4f" lon="10"><time>2030-05-01T08:%02d:%02dZ</time></trkpt>`, 1+0.01*float64(i), i*40/60, i*40%60)
	}
	b.WriteString(`</trkseg></trk></gpx>`)
	got, err := track.File(strings.NewReader(b.String()))
	require.NoError(t, err)
	assert.Equal(t, []day.Kind{day.Crank, day.Highway, day.Park}, kinds(got.Pattern))
	assert.InDelta(t, 2200, got.Pattern[1].RPM, 100)
	assert.InDelta(t, 29*40, got.Pattern[1].Seconds, 1)
}

func TestBrokenTracksAreNamed(t *testing.T) {
	year := "time,speed\n"
	for i := range 3 {
		year += fmt.Sprintf("%d,50\n", i*15_000_000)
	}
	for text, says := range map[string]string{
		"":                               "no track in it",
		"time,speed\n":                   "no track in it",
		"time,speed\n0,10\n":             "no track in it",
		"a,b\n1,2\n":                     "name no time with a speed or rpm",
		"speed,rpm\n1,2\n":               "name no time",
		"time,speed\n0,10\n1,-5\n":       `line 3: speed "-5 km/h" is not a vehicle's`,
		"time,speed\n0,10\nx,5\n":        `line 3: time "x" is not a time`,
		"time,speed\n0,10\n1,fast\n":     `line 3: speed "fast" is not a number`,
		"time,speed\n0,10\n1,NaN\n":      `line 3: speed "NaN" is not a number`,
		"time,rpm\n0,900\n1,20000\n":     `rpm "20000" is not an engine's`,
		"time,speed\n9,1\n8,1\n7,1\n6,1": "runs backward at 3 of 4 moments",
		year:                             "lasts 347 days; allowed are up to 31",
		"<gpx><trk><trkseg><trkpt lat='1' lon='1'/></trkseg></trk></gpx>":              "has no time",
		"<gpx><trk><trkseg><trkpt lat='1' lon='1'><time>noon</time>":                   "is not a time",
		"<gpx><trkpt lat='99' lon='1'><time>2030-05-01T08:00:00Z</time></trkpt></gpx>": "is not on the earth",
		"<html>": "is not GPX",
	} {
		_, err := track.File(strings.NewReader(text))
		require.Error(t, err, text)
		assert.Contains(t, err.Error(), says, text)
	}
}

// A year at one a second is refused by its length, before anything is made of it.
func TestAYearOfSeconds(t *testing.T) {
	many := make([]track.Sample, track.Samples+1)
	for i := range many {
		many[i] = track.Sample{At: float64(i), Kmh: 50, RPM: math.NaN()}
	}
	_, err := track.Pattern(many)
	require.ErrorContains(t, err, "moments; allowed are")
}

// Whatever is in a file: an error that names something, or a pattern that reads again.
func FuzzFile(f *testing.F) {
	f.Add([]byte(drive("time,speed km/h", "%d,%.1f", false)))
	f.Add([]byte("time;rpm\n0;800,5\n10;2000"))
	f.Add([]byte("<gpx><trkpt lat='1' lon='1'><time>2030-05-01T08:00:00Z</time></trkpt></gpx>"))
	f.Fuzz(func(t *testing.T, data []byte) {
		got, err := track.File(bytes.NewReader(data))
		if err != nil {
			require.NotEmpty(t, err.Error())
			return
		}
		require.LessOrEqual(t, len(got.Pattern), day.MaxSegments)
		again, err := day.ParsePattern(got.Pattern.String())
		require.NoError(t, err)
		require.Len(t, again, len(got.Pattern))
	})
}
