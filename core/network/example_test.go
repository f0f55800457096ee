package network_test

import (
	"fmt"

	"epitrope/core/network"
)

// A battery cranks through a lead: the circuit is put together by named nodes and solved.
func ExampleSolve() {
	c := network.New()
	post, starter := c.Node("post"), c.Node("starter")
	c.Add(network.Battery{Name: "battery", Plus: post, Volts: 12.6, Ohm: 0.006},
		network.Resistance{Name: "lead", A: post, B: starter, Ohm: 0.002},
		network.Resistance{Name: "motor", A: starter, Ohm: 0.040})
	solved, err := network.Solve(c)
	if err != nil {
		fmt.Println(err)
		return
	}
	amps, _ := solved.Through("motor")
	volts, _ := solved.At("starter")
	fmt.Printf("%.1f A at %.2f V\n", amps, volts)
	// Output:
	// 262.5 A at 10.50 V
}
