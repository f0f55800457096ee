package study_test

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/study"
)

// A design is tried through its days, and told by what was to hold.
func ExampleTry() {
	doc, _ := job.Decode([]byte(`{"aux":{"chemistry":"lifepo4","capacityAh":100},"use":{"dailyAh":40,"drivenHours":2},"day":{"days":3}}`))
	t := study.Try(design.Of(doc, parts.Stock()), study.Window{}, nil)
	for _, aim := range t.Aims {
		fmt.Println(aim.Met, aim.Label)
	}
	// Output:
	// true the engine always starts, its battery never below half
	// true the aux battery always has charge left
	// true the aux battery ends no lower than it began
	// false the aux battery is full at least once
	// false relay and charger run without dropping out
	// true every fuse holds
}
