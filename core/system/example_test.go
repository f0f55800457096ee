package system_test

import (
	"fmt"

	"epitrope/core/system"
)

// A system is components with their devices, and wires from terminal to terminal; its way is
// what the run's current passes.
func ExampleSystem_Way() {
	at := func(component, terminal string) system.Terminal {
		return system.Terminal{Component: component, Terminal: terminal}
	}
	s := system.System{}
	s.Add(system.Component{ID: "f1", Kind: system.KindFuse, Name: "F1", Device: system.Fuse{}})
	s.Join(system.Wire{ID: "c1a", Run: "c1", Role: system.Feed, From: at("start", "30"), To: at("f1", "in"), Beside: "f1"})
	s.Join(system.Wire{ID: "c1", Run: "c1", Role: system.Feed, From: at("f1", "out"), To: at("aux", "30")})
	s.Ends = system.Ends{Source: at("start", "30"), Bank: at("aux", "30")}
	for _, station := range s.Way() {
		fmt.Println(station.ID, len(station.Before), len(station.Cable))
	}
	// Output:
	// f1 1 0
	// c1 0 1
}
