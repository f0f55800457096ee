package section_test

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/section"
)

// The sheet's columns are the parts of the run with what each carries and loses.
func ExampleColumns() {
	d := design.Of(job.New(), parts.Stock())
	for _, c := range section.Columns(d, d.Workings()) {
		fmt.Printf("%s: %s, carries %s, loses %s\n", c.Name, c.Part.Text, c.Carries.Text, c.Loses.Text)
	}
	// Output:
	// Alternator: 120 A, carries 57 of 6 A idle, loses –
	// Lead: existing, carries –, loses 0.09 V
	// Start battery: 80 Ah, carries –, loses –
	// F1: 70 A strip, carries 54 of 56 A, loses 0.08 V, 4 W
	// C1: 25 mm², 6.0 m, carries 54 of 93 A, loses 0.45 V, 24 W
	// DC-DC: 40 A out, carries 54 in, 40 A out, loses 86 W
	// C2: 10 mm², 0.9 m, carries 40 of 66 A, loses 0.18 V, 7 W
	// F2: 50 A single-bolt, carries 40 of 40 A, loses 0.08 V, 3 W
	// Aux battery: LiFePO4 100 Ah, carries 40 of 50 A, loses –
}
