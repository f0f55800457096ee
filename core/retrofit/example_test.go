package retrofit_test

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/retrofit"
)

// A wire that was found is judged by the rules of a new one.
func ExampleOf() {
	doc, _ := job.Decode([]byte(`{"found":{"w1":{"role":"start","endA":"battery","endB":"relay","size":"8 AWG","lengthM":3,"fuseA":150,
"amps":40}}}`))
	for _, w := range retrofit.Of(design.Of(doc, parts.Stock())).Wires {
		for _, f := range w.Findings {
			fmt.Println(f.Level, f.Text)
		}
		fmt.Println(w.Fate, w.Why)
	}
	// Output:
	// bad A 150 A fuse on 8 AWG (8.4 mm² copper), which bears 69 A where it lies: the cable burns first.
	// caution It loses 0.30 V at 40 A over its length alone.
	// goes Unsafe as it is.
}
