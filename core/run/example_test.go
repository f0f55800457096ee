package run_test

import (
	"fmt"

	"epitrope/core/cable"
	"epitrope/core/job"
	"epitrope/core/protect"
	"epitrope/core/run"
)

// One stretch is asked for and sized: its cable, its fuse, and what decided them.
func ExampleSize() {
	got := run.Size(run.Ask{ID: "c1", FuseID: "f1", Amps: 53, LengthM: job.Num{Value: 5}, BudgetV: 0.6,
		Bay: cable.Cabin(), SourceV: 12.7, SourceOhm: 0.005, Device: protect.Devices[0]},
		cable.Shelf(cable.Metric), cable.Class85, 12)
	fmt.Printf("%s, %s; it loses %.2f V\n", got.Trial.Size.Label, got.Fuse.Label(), got.Trial.DropV)
	fmt.Println(got.Workings()["c1.drop"].Filled)
	// Output:
	// 16 mm², 80 A single-bolt fuse; it loses 0.35 V
	// 53.0 A · 0.00661 Ω
}
