package owner_test

import (
	"fmt"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/coupling"
	"epitrope/core/modes"
	"epitrope/core/owner"
	"epitrope/internal/jobtest"
)

func booklet(t *testing.T, doc string) owner.Booklet {
	t.Helper()
	d := jobtest.Design(t, doc)
	return owner.Of(d, modes.Of(d))
}

// words is all that a booklet says.
func words(o owner.Booklet) string {
	list := append(append(append([]string{o.Does}, o.Never...), o.Expect...), o.Look...)
	for _, a := range append(append([]owner.Advice{}, o.Lamps...), o.When...) {
		list = append(list, a.When+": "+a.Then)
	}
	return strings.Join(list, "\n")
}

const fixed = `"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4}`

// The owner's words know no part by its number, no terminal, no opening time of a fuse, and no word of the trade
// that is told to the fitter: whatever the coupling.
func TestOwnersWords(t *testing.T) {
	parts := regexp.MustCompile(`\b[FCKNTSQXERLM]\d\b|\baux\b|\bterminal \d|opens after|mΩ|mm²|cut-out|coupling`)
	for _, k := range coupling.Kinds() {
		for _, more := range []string{``, `,"wants":{"emergencyStart":"yes"}`, `,"extras":{"isolator":"master"}`, `,"day":{"solarW":200}`} {
			said := words(booklet(t, fmt.Sprintf(`{%s,"pins":{"coupling":%q}%s}`, fixed, k, more)))
			assert.Empty(t, parts.FindString(said), "%s%s: %s", k, more, said)
			assert.NotContains(t, said, "%!")
		}
	}
}

// What is said follows from this installation.
func TestWhatTheOwnerIsTold(t *testing.T) {
	for _, c := range []struct{ job, says, not string }{
		{`{}`, "With the engine off both batteries are apart", "stay joined"},
		{`{` + fixed + `,"aux":{"chemistry":"lifepo4","place":"seat"},"pins":{"coupling":"vsr"}}`, "stay joined", "lets go"},
		{`{` + fixed + `,"aux":{"chemistry":"agm","place":"seat"},"pins":{"coupling":"vsr"}}`, "lets go", "stay joined"},
		{`{"aux":{"chemistry":"agm"}}`, "Charge the second battery full first", "half full, switch"},
		{`{"aux":{"chemistry":"lifepo4"}}`, "about half full, switch everything off", "Charge the second battery full first"},
		{`{"aux":{"chemistry":"lifepo4"},"profile":{"disable":"yes"}}`, "as it should be", "Nothing is known to keep the second battery"},
		{`{"aux":{"chemistry":"lifepo4"}}`, "Nothing is known to keep the second battery", "takes no charge until"},
		{`{"aux":{"chemistry":"flooded","place":"bonnet"}}`, "close its vent", "not made for its kind"},
		{`{"vehicle":{"kind":"tow-caravan"}}`, "You plug the trailer in", "master switch"},
		{`{"extras":{"isolator":"master"}}`, "turn the master switch off", "trailer's plug"},
		{`{"day":{"solarW":100}}`, "look at night", "trailer's plug"},
		{`{"day":{"trigger":"ignition"},"alternator":{"label":"150/250 A"}}`, "with the ignition on and the engine off: the charger then empties",
			"trailer's plug"},
		{`{"pins":{"coupling":"changeover"},"wants":{"emergencyStart":"yes"}}`, "Press the button for ten seconds, let go, and then start",
			"does not start the engine"},
		{`{` + fixed + `,"aux":{"chemistry":"agm","place":"seat"},"pins":{"coupling":"selector"}}`, "Turn the selector",
			"does not start the engine"},
		{`{"pins":{"coupling":"dcdc"}}`, "does not start the engine", "Press the button"},
	} {
		said := words(booklet(t, c.job))
		assert.Contains(t, said, c.says, c.job)
		assert.NotContains(t, said, c.not, c.job)
	}
}

// The first trip is run: a larger charger on a larger machine puts more back.
func TestTheFirstTripIsComputed(t *testing.T) {
	gained := func(doc string) float64 {
		found := regexp.MustCompile(`gained about (\d+) Ah`).FindStringSubmatch(strings.Join(booklet(t, doc).Expect, " "))
		if !assert.NotNil(t, found, doc) {
			return 0
		}
		var ah float64
		_, err := fmt.Sscan(found[1], &ah)
		assert.NoError(t, err)
		return ah
	}
	small := gained(`{"alternator":{"label":"150/250 A"},"aux":{"capacityAh":200},"pins":{"chargerA":10}}`)
	assert.InDelta(t, 2*10*0.97, small, 1, "two hours of 10 A into LiFePO4")
	assert.Greater(t, gained(`{"alternator":{"label":"150/250 A"},"aux":{"capacityAh":200},"pins":{"chargerA":30}}`), 2.5*small)
}
