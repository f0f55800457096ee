package modes_test

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/modes"
	"epitrope/core/parts"
)

// Every position of key and switches is solved, and judged.
func ExampleOf() {
	doc, _ := job.Decode([]byte(`{"pins":{"coupling":"contactor"},"day":{"trigger":"ignition"},"aux":{"chemistry":"agm"}}`))
	for _, m := range modes.Of(design.Of(doc, parts.Stock())).Rows {
		fmt.Printf("key %s, engine %s: joined %v, %s\n", m.Key, m.Engine, m.Joined, m.Verdict)
	}
	// Output:
	// key off, engine stopped: joined false, normal
	// key accessory, engine stopped: joined false, normal
	// key on, engine stopped: joined true, caution
	// key start, engine cranking: joined true, caution
	// key on, engine running: joined true, normal
}
