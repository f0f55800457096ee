package study_test

import (
	"regexp"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/study"
	"epitrope/internal/jobtest"
)

// Trade §21.4: what a start takes is put back by what the battery accepts, and not through one ohm: some minutes
// with a strong machine, longer with one that has little left beside what charges.
func TestAStartIsPutBackByWhatTheBatteryAccepts(t *testing.T) {
	minutes := func(doc string) []float64 {
		var list []float64
		for _, s := range study.Schools(jobtest.Design(t, doc)) {
			if s.ID != "delay" {
				continue
			}
			for _, o := range s.Options {
				found := regexp.MustCompile(`after ([\d.]+)( min| s)`).FindStringSubmatch(o.Comes)
				require.NotNil(t, found, o.Comes)
				v, err := strconv.ParseFloat(found[1], 64)
				require.NoError(t, err)
				if found[2] == " s" {
					v /= 60
				}
				list = append(list, v)
			}
		}
		return list
	}
	strong := minutes(`{"alternator":{"label":"150/250 A","regulation":"fixed","knownBy":"test","volts":14.4},"pins":{"chargerA":40}}`)
	require.Len(t, strong, 3)
	assert.Less(t, strong[0], 10.0)
	weak := minutes(`{"alternator":{"label":"90 A","regulation":"fixed","knownBy":"test","volts":14.4},"pins":{"chargerA":30}}`)
	assert.Greater(t, weak[0], strong[0])
	assert.Less(t, weak[2], weak[0], "a timer leaves the machine to the start battery")
}
