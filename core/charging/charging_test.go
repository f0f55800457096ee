package charging_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/charging"
	"epitrope/core/verdict"
	"epitrope/internal/jobtest"
)

const (
	lithium = `"aux":{"chemistry":"lifepo4","capacityAh":100}`
	agm     = `"aux":{"chemistry":"agm","capacityAh":100}`
	watched = `"extras":{"monitor":"yes"},`
)

// cases are each sentence with a job in which it is said, and one in which it just is not. Limits of charge:
// trade §12, from memory.
var cases = []struct{ id, fires, not string }{
	{"charging.open", `{` + lithium + `,"day":{"solarW":100}}`, `{` + lithium + `,"day":{"solarW":100},"solar":{"absorptionV":14.4}}`},
	{"charging.open", `{` + lithium + `,"mains":{"outputA":10}}`, `{` + lithium + `,"solar":{"through":"yes"},"day":{"solarW":100}}`},
	{"charging.harms", `{` + lithium + `,"mains":{"absorptionV":14.7}}`, `{` + lithium + `,"mains":{"absorptionV":14.6}}`},
	{"charging.high", `{` + lithium + `,"mains":{"absorptionV":14.6}}`, `{` + lithium + `,"mains":{"absorptionV":14.4}}`},
	{"charging.low", `{` + agm + `,"solar":{"absorptionV":14.2}}`, `{` + agm + `,"solar":{"absorptionV":14.4}}`},
	{"charging.float", `{` + lithium + `,"mains":{"absorptionV":14.4,"floatV":13.8}}`,
		`{` + lithium + `,"mains":{"absorptionV":14.4,"floatV":13.5}}`},
	{"charging.compensates", `{` + lithium + `,"solar":{"compensated":"yes"}}`, `{` + agm + `,"solar":{"compensated":"yes"}}`},
	{"charging.uncompensated", `{` + agm + `,"solar":{"compensated":"no"},"day":{"outsideC":4}}`,
		`{` + agm + `,"solar":{"compensated":"no"},"day":{"outsideC":5}}`},
	{"charging.frost", `{` + lithium + `,"mains":{"disable":"no"},"day":{"outsideC":-1}}`,
		`{` + lithium + `,"mains":{"disable":"no","probe":"yes"},"day":{"outsideC":-1}}`},
	{"charging.cold", `{` + lithium + `,"mains":{"outputA":10},"day":{"outsideC":-1}}`,
		`{` + lithium + `,"mains":{"outputA":10},"day":{"outsideC":0}}`},
	{"charging.rate", `{` + lithium + `,"mains":{"outputA":51}}`, `{` + lithium + `,"mains":{"outputA":50}}`},
	{"charging.generator", `{` + lithium + `,"mains":{"outputA":20,"absorptionV":14.4,"generatorW":420}}`,
		`{` + lithium + `,"mains":{"outputA":20,"absorptionV":14.4,"generatorW":430}}`},
	{"charging.apart", `{` + agm + `,"mains":{"absorptionV":14.3}}`, `{` + agm + `,"mains":{"absorptionV":14.5}}`},
	{"setting.hangs", `{` + lithium + `,"profile":{"fed":"switched"}}`, `{` + agm + `,"profile":{"fed":"switched"}}`},
	{"setting.hangs.open", `{` + lithium + `}`, `{` + lithium + `,"profile":{"fed":"steady"}}`},
	{"charging.good", `{` + agm + `,"mains":{"absorptionV":14.6}}`, `{` + agm + `,"mains":{"absorptionV":14.2}}`},
	{"monitor.open", `{` + watched + agm + `}`, `{` + agm + `}`},
	{"monitor.capacity", `{` + watched + agm + `,"monitor":{"capacityAh":120}}`, `{` + watched + agm + `,"monitor":{"capacityAh":105}}`},
	{"monitor.never", `{` + watched + lithium + `,"monitor":{"fullV":14.4}}`, `{` + watched + lithium + `,"monitor":{"fullV":14.2}}`},
	{"monitor.early", `{` + watched + lithium + `,"monitor":{"fullV":13.5}}`, `{` + watched + lithium + `,"monitor":{"fullV":13.7}}`},
	{"monitor.tail", `{` + watched + lithium + `,"monitor":{"tailPct":10}}`, `{` + watched + lithium + `,"monitor":{"tailPct":4}}`},
	{"monitor.efficiency", `{` + watched + agm + `,"monitor":{"efficiency":100}}`, `{` + watched + agm + `,"monitor":{"efficiency":92}}`},
}

func said(t *testing.T, doc string) []string {
	var ids []string
	for _, a := range charging.Answers(jobtest.Design(t, doc)) {
		assert.NotContains(t, a.Text, "%!", a.ID)
		ids = append(ids, a.ID)
	}
	return ids
}

func TestEachIsSaid(t *testing.T) {
	covered := map[string]bool{}
	for _, c := range cases {
		assert.Contains(t, said(t, c.fires), c.id, c.fires)
		assert.NotContains(t, said(t, c.not), c.id, c.not)
		covered[c.id] = true
	}
	for _, id := range charging.IDs() {
		assert.True(t, covered[id], "%s has no case", id)
	}
}

// At 24 V everything is twice as much, and a cure that is offered sets what suits.
func TestChargingAt24V(t *testing.T) {
	const job = `{"vehicle":{"systemVolts":24},` + lithium + `,"mains":{"absorptionV":29.4}}`
	list := charging.Answers(jobtest.Design(t, job))
	at := slices.IndexFunc(list, func(a charging.Answer) bool { return a.ID == "charging.harms" })
	require.GreaterOrEqual(t, at, 0)
	assert.Contains(t, list[at].Text, "29.2 V")
	require.Len(t, list[at].Cures, 1)
	assert.Equal(t, "28.8", list[at].Cures[0].Value)
	assert.Contains(t, said(t, strings.Replace(job, "29.4", list[at].Cures[0].Value, 1)), "charging.good")
}

// All that charges stands in one list with the charger first, each with what it is set to and how that is read
// back; what nobody said is open.
func TestAllThatChargesInOnePlace(t *testing.T) {
	c := charging.Of(jobtest.Design(t, `{`+watched+lithium+`,"mains":{"outputA":20,"absorptionV":14.6},"day":{"solarW":200},
		"monitor":{"capacityAh":100,"fullV":14.5}}`))
	require.Len(t, c.Sources, 3)
	assert.Equal(t, []string{"charger", "mains", "sun"}, []string{c.Sources[0].ID, c.Sources[1].ID, c.Sources[2].ID})
	assert.Equal(t, verdict.Caution, c.Sources[1].Level)
	assert.Equal(t, verdict.Open, c.Sources[2].Level)
	for _, s := range c.Sources {
		assert.NotEmpty(t, s.ReadBack, s.ID)
		assert.NotEmpty(t, s.ColdStop, s.ID)
	}
	require.Len(t, c.Monitor, 4)
	assert.Equal(t, []verdict.Level{verdict.Good, verdict.Caution, verdict.Open, verdict.Open},
		[]verdict.Level{c.Monitor[0].Level, c.Monitor[1].Level, c.Monitor[2].Level, c.Monitor[3].Level})
	relay := charging.Of(jobtest.Design(t, `{`+agm+`,"pins":{"coupling":"vsr"}}`))
	assert.Equal(t, "alternator", relay.Sources[0].ID)
	assert.Empty(t, relay.Monitor)
}
