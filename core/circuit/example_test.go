package circuit_test

import (
	"fmt"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
)

// A system is laid once and solved in any state of hands and world.
func ExampleLay() {
	doc, _ := job.Decode([]byte(`{"pins":{"coupling":"vsr"},"aux":{"chemistry":"agm"}}`))
	d := design.Of(doc, parts.Stock())
	laid := circuit.Lay(&d.System, d.Facts.N)
	s := d.CruiseState().State
	for _, joined := range []bool{false, true} {
		solved, err := laid.Solve(s, circuit.Position{Joined: joined})
		volts, _ := solved.Across("aux.30", "aux.31")
		fmt.Printf("joined %v: %.1f V at the aux battery, %v\n", joined, volts, err)
	}
	// Output:
	// joined false: 12.3 V at the aux battery, <nil>
	// joined true: 13.8 V at the aux battery, <nil>
}
