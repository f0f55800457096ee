package job_test

import (
	"fmt"

	"epitrope/core/coupling"
	"epitrope/core/job"
)

// A document is read with every field checked; what is wrong is named, and the rest holds.
func ExampleDecode() {
	doc, problems := job.Decode([]byte(`{"alternator":{"label":"90/180 A"},"aux":{"capacityAh":-5}}`))
	fmt.Println(problems)
	facts := doc.Resolve(coupling.DCDC)
	fmt.Println(facts.Label, "and", facts.AuxAh.Value, "Ah,", facts.AuxAh.Origin)
	// Output:
	// aux.capacityAh: -5 is out of range (allowed: 5 to 2000 Ah, such as 70 Ah, 840 Wh)
	// 90/180 A and 100 Ah, assumed
}
