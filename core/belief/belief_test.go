package belief_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/belief"
	"epitrope/core/job"
	"epitrope/internal/jobtest"
)

const (
	fixed = `"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4}`
	relay = fixed + `,"pins":{"coupling":"vsr"}`
)

// cases are what holds of each belief on some job, written from trade §19: by its number.
var cases = []struct {
	id, job string
	so      bool
	says    string
}{
	{"draws", `"pins":{"chargerA":30}`, false, "for 30 A out it draws up to"}, // 1
	{"draws", relay, true, "Nothing boosts"},
	{"drop", `"routes":{"startM":0.3,"auxM":0.3}`, false, "by its drop alone"}, // 2
	{"drop", `"routes":{"startM":9,"auxM":3}`, true, "also carries the load"},
	{"oneFuse", ``, false, "past no fuse but one of its own"},                                                              // 3
	{"volts", ``, false, "still takes"},                                                                                    // 10
	{"label", `"alternator":{"label":"90/180 A"}`, false, "The label says 180 A; at idle, hot, the alternator gives 77 A"}, // 17: 85 % of 90
	{"rest", `"aux":{"chemistry":"flooded","place":"bonnet"}`, false, "about 63 % full"},                                   // 11
	{"rest", `"aux":{"chemistry":"lifepo4"}`, false, "about 5 % full"},
	{"apart", relay + `,"aux":{"chemistry":"lifepo4","place":"seat"}`, false, "stays closed"}, // 8
	{"apart", relay + `,"aux":{"chemistry":"agm","place":"seat"}`, true, "are apart"},
	{"apart", relay + `,"aux":{"chemistry":"agm","place":"seat"},"day":{"solarW":200}`, false, "in the sun"},
	{"length", ``, false, "their sum counts"}, // 18
	{"length", `"aux":{"count":2}`, true, "Between the 2 batteries"},
	{"chassis", `"aux":{"place":"rear"},"routes":{"startM":9}`, false, "leads better here"}, // 19
	{"chassis", `"vehicle":{"kind":"tow-caravan"}`, true, "at least as well"},
	{"accessory", ``, false, "left so,"}, // 13
	{"accessory", relay, true, "needs no signal"},
	{"cranks", relay + `,"aux":{"chemistry":"agm","place":"seat"}`, false, "may open after"}, // 14
	{"cranks", `"pins":{"coupling":"dcdc"}`, true, "nothing opens"},
	{"click", ``, false, "none of the"}, // 12
	{"eight", ``, false, "4.6 mm²"},
	{"stands", `"aux":{"chemistry":"agm"}`, false, "after 180 days"}, // 22
}

func TestWhatIsTakenForGranted(t *testing.T) {
	told := map[string]bool{}
	for _, c := range cases {
		document := `{"beliefs":{"` + c.id + `":"yes"}}`
		if c.job != "" {
			document = `{"beliefs":{"` + c.id + `":"yes"},` + c.job + `}`
		}
		list := belief.Answers(jobtest.Design(t, document), true)
		require.Len(t, list, 1, document)
		assert.Equal(t, c.so, list[0].So, "%s: %s", document, list[0].Text)
		assert.Contains(t, list[0].Text, c.says, document)
		told[list[0].Path] = true
	}
	for _, f := range job.Fields {
		if f.Path[:min(8, len(f.Path))] == "beliefs." {
			assert.True(t, told[f.Path], "%s has no case", f.Path)
		}
	}
}

// What nobody believes is not answered.
func TestNothingIsSaidUnasked(t *testing.T) {
	assert.Empty(t, belief.Answers(jobtest.Design(t, `{}`), true))
	assert.Empty(t, belief.Answers(jobtest.Design(t, `{"beliefs":{"draws":"no"}}`), true))
}
