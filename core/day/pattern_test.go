package day_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/day"
)

func TestPatternsAreReadAndWritten(t *testing.T) {
	p := pattern(t, "Park 8 h; crank 2s\nidle 3 min, highway 1h30 @ 2600 rpm,, lift-off 90 s")
	assert.Equal(t, day.Pattern{{Kind: day.Park, Seconds: 28800}, {Kind: day.Crank, Seconds: 2}, {Kind: day.Idle, Seconds: 180},
		{Kind: day.Highway, Seconds: 5400, RPM: 2600}, {Kind: day.LiftOff, Seconds: 90}}, p)
	assert.Equal(t, p, pattern(t, p.String()))
	assert.True(t, p.Starts())
	assert.False(t, pattern(t, "park 1 h, lamps 5 min").Starts())
}

func TestASegmentHasItsOwnAirLoadAndSun(t *testing.T) {
	p := pattern(t, "park 6 h air 100F load 500mA sun 80 %, highway 1h30 @ 2600 air -8 °C, Town 20 min SUN 0%")
	assert.InDelta(t, 37.78, *p[0].Own.AirC, 0.01)
	assert.Equal(t, 0.5, *p[0].Own.LoadA)
	assert.Equal(t, 0.8, *p[0].Own.Sun)
	assert.Equal(t, 2600.0, p[1].RPM)
	assert.Equal(t, -8.0, *p[1].Own.AirC)
	assert.Nil(t, p[1].Own.LoadA)
	assert.Zero(t, *p[2].Own.Sun)
	assert.Equal(t, p, pattern(t, p.String()))
	varied := p.Varied(10, 1.2)
	assert.Equal(t, 2.0, *varied[1].Own.AirC)
	assert.Equal(t, 0.6, *varied[0].Own.LoadA)
	assert.Nil(t, varied[2].Own.LoadA)
	assert.Equal(t, -8.0, *p[1].Own.AirC, "the pattern itself stays")
}

func TestBrokenPatternsAreNamed(t *testing.T) {
	for text, says := range map[string]string{
		"":                                "it is empty",
		" , ; ":                           "it is empty",
		"fly 1 h":                         `"fly" is not known; allowed are [park lamps key`,
		"park":                            "how long?",
		"park -1 h":                       "how long?",
		"park 0 s":                        "how long?",
		"park NaN s":                      "how long?",
		"idle 1 h @ 99999":                "300 to 8000 rpm",
		"idle 1 h @ fast":                 "300 to 8000 rpm",
		"park 1 h @ 2000":                 "has no speed",
		"park 1 h air 99 °C":              "after air stands -40 to 60 °C",
		"park 1 h load -2 A":              "after load stands 0 to 400 A",
		"park 1 h sun":                    "after sun stands 0 to 100 %",
		"park 1 h air 5 C air 6 C":        "air stands twice",
		"park 800 h":                      "it lasts 33 days; allowed are up to 31",
		strings.Repeat("idle 1 s,", 5001): "allowed are 5000",
	} {
		_, err := day.ParsePattern(text)
		var named *day.PatternError
		require.ErrorAs(t, err, &named, text)
		assert.Contains(t, err.Error(), says)
		assert.Less(t, len(err.Error()), 400)
	}
}

// Every ready pattern lasts the days it is asked for and drives the hours it is asked
// for; what is assumed idles counts as driven.
func TestReadyPatterns(t *testing.T) {
	for _, r := range day.ReadyPatterns {
		for _, hours := range []float64{0.1, 1, 2.5, 8, 24} {
			p := r.Days(6, hours)
			assert.InDelta(t, 6*86400, p.Seconds(), 1, "%s %g h", r.ID, hours)
			assert.True(t, p.Starts(), r.ID)
			running := 0.0
			for _, s := range p {
				assert.GreaterOrEqual(t, s.Seconds, 0.0, "%s %g h", r.ID, hours)
				if s.Kind != day.Park && s.Kind != day.Crank {
					running += s.Seconds / 3600
				}
			}
			driven := 6.0
			if r.ID == "weekend" {
				driven = 2
			}
			if hours >= 1 && hours <= 8 {
				assert.InEpsilon(t, driven*hours, running, 0.15, "%s %g h", r.ID, hours)
			}
		}
	}
	_, err := day.ReadyByID("none")
	require.ErrorContains(t, err, "allowed are two-trips")
}

func TestRepeat(t *testing.T) {
	p := pattern(t, "park 10 h, crank 2 s, idle 1 h").Repeat(3)
	assert.InDelta(t, 3*86400, p.Seconds(), 1e-3)
}

func FuzzParsePattern(f *testing.F) {
	for _, s := range []string{"park 8 h, crank 2 s", "idle 1h30 @ 2600", "lift-off 1e9 s", "park 1,5 h", "@", "town 3 min @",
		"park 1 h park 1 h", "park 6 h air 38C load 5 A sun 80 %"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, text string) {
		p, err := day.ParsePattern(text)
		if err != nil {
			return
		}
		again, err := day.ParsePattern(p.String())
		require.NoError(t, err, p.String())
		require.InDelta(t, p.Seconds(), again.Seconds(), 1e-6*p.Seconds())
		require.Len(t, again, len(p))
	})
}
