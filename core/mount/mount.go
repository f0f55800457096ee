// Package mount is what is carried and what holds it: what an installation weighs and on which axle, and what a
// crash asks of the fastening of a battery or a box.
package mount

import (
	"epitrope/core/working"
)

// G is the acceleration of free fall, in m/s².
const G = 9.81

// Class is a class of vehicle by what a crash test asks of things fastened in it, as multiples of their weight,
// along the vehicle and across.
type Class struct {
	ID, Label     string
	Along, Across float64
}

// Classes are those of UN R100 and R67. Source: from memory: M1 and N1 20 and 8 g, M2 and N2 10 and 5 g, M3 and N3
// 6.6 and 5 g. The local code decides.
var Classes = []Class{
	{"light", "car, van, ute (up to 3.5 t)", 20, 8},
	{"middle", "heavier than 3.5 t, or a small bus", 10, 5},
	{"heavy", "heavier than 12 t, or a large bus", 6.6, 5},
}

// ClassOf finds a class; the first, which asks most, where there is none such.
func ClassOf(id string) Class {
	for _, c := range Classes {
		if c.ID == id {
			return c
		}
	}
	return Classes[0]
}

// Pull is the force on a fastening, in N: mass in kg, g as a multiple of free fall.
var Pull = working.Declare("F = m·a·9.81", "physics: Newton's second law; the multiple from UN R100 and R67, from memory",
	working.Symbol{Letter: "F", Name: "pulls on the fastening in a crash", Unit: "N", Digits: 0},
	working.Symbol{Letter: "m", Name: "held down", Unit: "kg", Digits: 1},
	working.Symbol{Letter: "a", Name: "times its weight", Unit: "", Digits: 1})

// Holds is what some bolts of class 8.8 hold in single shear, in N: area of the thread in mm².
var Holds = working.Declare("F_b = n·0.6·800·A_s / 1.5", "ISO 898-1 for 800 MPa of class 8.8; 0.6 of it in shear and a "+
	"reserve of 1.5 from memory",
	working.Symbol{Letter: "F_b", Name: "its bolts hold", Unit: "N", Digits: 0},
	working.Symbol{Letter: "n", Name: "bolts", Unit: "", Digits: 0},
	working.Symbol{Letter: "A_s", Name: "area of their thread", Unit: "mm²", Digits: 1})

// Thread is a bolt's size and the area of its thread in mm².
type Thread struct {
	ID    string
	AsMM2 float64
}

// Threads are coarse threads. Source: ISO 898-1, stress area.
var Threads = []Thread{{"M6", 20.1}, {"M8", 36.6}, {"M10", 58.0}, {"M12", 84.3}}

// ThreadOf finds a size; ok is false where there is none such.
func ThreadOf(id string) (t Thread, ok bool) {
	for _, t := range Threads {
		if t.ID == id {
			return t, true
		}
	}
	return Thread{}, false
}

// RearShare is the part of a weight that the rear axle carries, by the level of its place: x, and the axles front
// and rear, in m back from the front. Behind the rear axle it is more than 1, and the front axle is relieved.
//
// Source: the lever, physics.
func RearShare(x, front, rear float64) float64 {
	if rear <= front {
		return 1
	}
	return (x - front) / (rear - front)
}

// Weights where nobody weighed. Source: from memory: lead batteries some 0.29 kg to the Ah at 12 V, lithium 0.12;
// copper with its insulation a quarter more than the copper alone; a charger 0.06 kg to the ampere, a kilo at the
// least.
const (
	leadKgPerAh    = 0.29
	lithiumKgPerAh = 0.12
	sheathed       = 1.25
	chargerKgPerA  = 0.06
	chargerKg      = 1.0
)

// BatteryKg is a battery's weight by its charge at 12 V.
func BatteryKg(ah float64, lead bool) float64 {
	if lead {
		return leadKgPerAh * ah
	}
	return lithiumKgPerAh * ah
}

// CableKg is cable with its insulation, by the copper in it.
func CableKg(copperKg float64) float64 { return sheathed * copperKg }

// ChargerKg is a charger's weight by its output; 0 where there is none.
func ChargerKg(outputA float64) float64 {
	if outputA <= 0 {
		return 0
	}
	return max(chargerKg, chargerKgPerA*outputA)
}
