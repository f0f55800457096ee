package protect_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/protect"
)

// M5 lugs are sold to 35 mm², M6 to 70 and M8 to 120 (trade §21.14, from memory): a thicker cable goes on a
// family with larger studs.
func TestCablesAreBoltedOnWhatTakesTheirLug(t *testing.T) {
	ids := func(mm2 float64, of []protect.Family) []string {
		list := []string{}
		for _, f := range protect.Bolting(of, mm2) {
			list = append(list, f.ID)
		}
		return list
	}
	assert.Equal(t, []string{"sf30", "sf51", "bolt", "ceramic"}, ids(35, protect.Power))
	assert.Equal(t, []string{"sf51", "bolt", "ceramic"}, ids(50, protect.Power))
	assert.Equal(t, []string{"breaker"}, ids(95, []protect.Family{protect.Breaker}), "where none takes it, a note has to say so")
	assert.Equal(t, "M5", protect.Strip30.Stud())
	assert.Empty(t, protect.Blade.Stud())
}
