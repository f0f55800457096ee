package cable_test

import (
	"fmt"

	"epitrope/core/cable"
)

// A size is read in the system that it is written in, and tried on a run: what it loses, and
// how warm it gets.
func ExampleLoop_Try() {
	size, _ := cable.Parse("2/0 AWG")
	run := cable.Loop{Amps: 100, CableM: 8, Bay: cable.Cabin(), Insulation: cable.Class85}
	t := run.Try(size)
	fmt.Printf("%s loses %.2f V over 8 m and gets %.0f °C; it may carry %.0f A\n", t.Size.Copper(), t.DropV, t.ConductorC, t.AmpacityA)
	// Output:
	// 2/0 AWG (67.4 mm² copper) loses 0.22 V over 8 m and gets 37 °C; it may carry 278 A
}
