package protect_test

import (
	"fmt"

	"epitrope/core/protect"
)

// The fuse is the lowest that carries the load warm and is no more than the cable bears.
func ExampleChoose() {
	fuse, err := protect.Choose(protect.Need{ContinuousA: 53, AmbientC: 23, CableA: 97, FaultA: 2000}, protect.Power)
	fmt.Println(fuse.Label(), err)
	_, err = protect.Choose(protect.Need{ContinuousA: 53, AmbientC: 23, CableA: 60, FaultA: 2000}, protect.Power)
	fmt.Println(err)
	// Output:
	// 70 A strip fuse, SF30 <nil>
	// no rating lies between 66.3 A and 60 A
}
