package day_test

import (
	"fmt"

	"epitrope/core/day"
)

// A pattern of driving is written as people say it.
func ExampleParsePattern() {
	p, err := day.ParsePattern("park 8 h, crank 2 s, town 20 min, highway 1.5 h")
	fmt.Println(len(p), "segments,", p.Seconds()/3600, "h", err)
	_, err = day.ParsePattern("fly 2 h")
	fmt.Println(err)
	// Output:
	// 4 segments, 9.83388888888889 h <nil>
	// "fly 2 h": "fly" is not known; allowed are [park lamps key joined crank assist idle town highway lift-off]; write what it does and for how long, such as “park 8 h, crank 2 s, idle 3 min, highway 1h30 @ 2600, park 14 h”
}
