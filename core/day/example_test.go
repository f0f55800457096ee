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
	fmt.Println(err != nil)
	// Output:
	// 4 segments, 9.83388888888889 h <nil>
	// true
}
