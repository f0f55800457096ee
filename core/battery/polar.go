package battery

import "math"

// A battery that gives polarises, within seconds to minutes, by about its own resistance; the capacity
// that holds it back goes with its size. Source: from memory: 12 F an Ah at 12 V.
const (
	FaradPerAh = 12.0
	PolarShare = 0.8
)

// InUse is the charge of a healthy start battery in use, 0 to 1. Source: common practice, no source.
const InUse = 0.9

// Polarised is the resistance, in Ω, of a battery of capacityAh and n times 12 V after it has given an
// even current for so many seconds, where at once it has ohm.
//
// Source: from memory.
func Polarised(ohm, capacityAh, n, seconds float64) float64 {
	slow := PolarShare * ohm
	return ohm + slow*(1-math.Exp(-seconds/(slow*FaradPerAh*capacityAh/n)))
}

// ByCrank is what a battery has at once, in Ω, that rests at restV and falls to crankV by the end of a
// start; crankA is the starter's at first, besideA what the vehicle takes meanwhile, and after what a
// resistance at once comes to by the end.
func ByCrank(restV, crankV, crankA, besideA float64, after func(ohm float64) float64) float64 {
	low, high := 0.0, restV/crankA
	for range 50 {
		mid := (low + high) / 2
		starter := restV/crankA - mid
		if end := after(mid); (restV-besideA*end)*starter/(starter+end) > crankV {
			low = mid
		} else {
			high = mid
		}
	}
	return high
}
