package design_test

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
)

// A job is decided once; everything else asks the design.
func ExampleOf() {
	doc, _ := job.Decode([]byte(`{"alternator":{"label":"90/180 A"},"aux":{"chemistry":"lifepo4","capacityAh":100}}`))
	d := design.Of(doc, parts.Stock())
	fmt.Println(d.Kind.Label(), d.Charger.OutputA, "A")
	fmt.Println(d.Start.Trial.Size.Label, d.Start.Fuse.Label())
	fmt.Println(len(d.System.Way()), "parts in series")
	fmt.Printf("%.1f V at the aux battery at cruise\n", d.CruiseState().AuxV)
	// Output:
	// DC-DC charger 40 A
	// 25 mm² 70 A strip fuse, SF30
	// 5 parts in series
	// 14.1 V at the aux battery at cruise
}
