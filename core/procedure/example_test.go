package procedure_test

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/harness"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/procedure"
	"epitrope/core/prove"
	"epitrope/core/retrofit"
)

// The steps of an installation come in an order that keeps every source apart until the end.
func ExampleSteps() {
	d := design.Of(job.New(), parts.Stock())
	steps := procedure.Steps(plan.Of(d), harness.Leads(&d.System, harness.UsualScheme), retrofit.Of(d), prove.Of(d))
	fmt.Println(len(steps), "steps,", procedure.Hours(steps), "h")
	fmt.Println(steps[0].Title)
	fmt.Println(steps[len(steps)-1].Title)
	// Output:
	// 52 steps, 13.2 h
	// Everything in hand
	// Hand over
}
