package judge_test

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/parts"
)

// What is weak about a design is a note, with what would cure it.
func ExampleNotes() {
	doc, _ := job.Decode([]byte(`{"pins":{"startSize":"6 mm²","chargerA":40}}`))
	for _, n := range judge.Notes(design.Of(doc, parts.Stock())) {
		fmt.Println(n.Severity, n.ID, len(n.Cures))
	}
	// Output:
	// stop cable.burns 1
	// stop fuse.opens 1
	// caution alternator.half 1
	// caution charger.starved 2
	// remark alternator.idle 0
	// remark aux.unnamed 1
	// remark regulation.unknown 1
	// remark charger.idle 0
}
