package rig_test

import (
	"fmt"

	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/rig"
)

// A design is run through a day of its own.
func ExampleOf() {
	doc, _ := job.Decode([]byte(`{"aux":{"chemistry":"agm","capacityAh":100},"day":{"auxSOC":60}}`))
	d := design.Of(doc, parts.Stock())
	drive, _ := day.ParsePattern("park 6 h, crank 2 s, highway 2 h")
	got, err := day.Run(rig.Of(d, rig.Nominal), drive, day.Conditions{OutsideC: 20}, day.Options{})
	fmt.Printf("the aux battery goes to %.0f %%, at least %.0f %%: %v\n", 100*got.Verdict.AuxEnd, 100*got.Verdict.AuxLeast, err)
	// Output:
	// the aux battery goes to 98 %, at least 50 %: <nil>
}
