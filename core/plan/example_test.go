package plan_test

import (
	"fmt"
	"strings"

	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
)

// A plan is a design told whole: what a screen shows and a revision keeps.
func ExampleDecide() {
	doc, _ := job.Decode([]byte(`{"alternator":{"label":"120 A","regulation":"fixed","knownBy":"test","volts":14.2}}`))
	p := plan.Decide(doc, parts.Stock())
	fmt.Println(strings.ReplaceAll(p.Summary, ". ", ".\n"))
	fmt.Println(p.Figures["need"].Filled)
	// Output:
	// DC-DC charger, 40 A.
	// Start run 25 mm², fuse 70 A; aux run 10 mm², fuse 50 A; return by the chassis.
	// 14.1 V at the aux battery at cruise.
	// So far: 17 of 21 answers are stand-ins.
	// 50 Ah / (1.50 h · 0.97)
}
