package coupling_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/coupling"
)

// Every method of the trade is there once, named, and knows what it is made of: a charger
// never hands over to a coil of the ignition's, what joins needs a contact, and what has a
// charger or a coil has to be told that the engine runs.
func TestKinds(t *testing.T) {
	kinds := coupling.Kinds()
	assert.ElementsMatch(t, []coupling.Kind{"dcdc", "trailer", "changeover", "highcurrent", "vsr", "contactor", "selector", "second",
		"splitter"}, kinds)
	labels := map[string]bool{}
	for _, k := range kinds {
		assert.False(t, labels[k.Label()], k)
		labels[k.Label()] = true
		assert.NotEqual(t, string(k), k.Label(), k)
		assert.False(t, k.Charger() && k.Coil(), k)
		assert.Equal(t, k.Charger() || k.Coil(), k.Signal(), k)
		assert.Equal(t, !k.Charger(), k.AtStart(false), k)
		assert.False(t, k.Coil() && !k.Joins(), "%s: a coil works the contact that joins", k)
	}
	assert.True(t, coupling.DCDCHighCurrent.Joins() && coupling.DCDCHighCurrent.Charger(), "the bypass joins beside the charger")
	assert.False(t, coupling.DCDCChangeover.Joins(), "joined by hand alone, not in daily use")
	assert.False(t, coupling.SecondAlternator.Joins(), "it keeps the two systems apart")
	assert.False(t, coupling.VSR.Signal(), "a sensing relay needs no trigger wire")
	assert.Equal(t, "rope", coupling.Kind("rope").Label(), "what is not known is shown as it is")
	kinds[0] = "changed"
	assert.Equal(t, coupling.DCDC, coupling.Kinds()[0], "a list of its own each time")
}
