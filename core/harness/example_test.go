package harness_test

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/harness"
	"epitrope/core/job"
	"epitrope/core/parts"
)

// Of a system come the wires to be made, with what goes on their ends.
func ExampleLeads() {
	d := design.Of(job.New(), parts.Stock())
	for _, w := range harness.Leads(&d.System, harness.UsualScheme)[:3] {
		fmt.Printf("%s: %s %s, cut %.2f m, %s and %s\n", w.Number, w.Size, w.Colour, w.CutM, w.From.Lug, w.To.Lug)
	}
	// Output:
	// C1A: 25 mm² red, cut 0.25 m, tube lug 25 mm², M8 and tube lug 25 mm², M5
	// C1: 25 mm² red, cut 5.95 m, tube lug 25 mm², M5 and reducing pin, 25 mm² to 16 mm²
	// C2: 10 mm² red, cut 0.85 m, ferrule 10 mm² and tube lug 10 mm², M8
}
