// Package need works out what is used of an auxiliary battery and what puts it back:
// loads, the balance of a drive and the days parked after it, and the smallest bank and
// charger that hold it.
package need

import (
	"math"

	"epitrope/core/working"
)

// Appliance is a load as commonly met: what one takes while it runs, for how many hours
// of a day it is wanted, the share of these that it runs, and what it takes besides.
type Appliance struct {
	ID, Label string
	Watts     float64
	Hours     float64 // 0 to 24
	Duty      float64 // 0 to 1
	StandbyA  float64 // at 12 V, all day
}

// Appliances are the loads to pick from. Source: from memory; the appliance's own label
// wins. A pump of 10 A and a lamp of 30 W are the trade's examples (common practice, no
// source).
var Appliances = []Appliance{
	{"fridge", "compressor fridge", 45, 24, 0.35, 0},
	{"freezer", "freezer", 60, 24, 0.45, 0},
	{"lights", "LED lamps", 12, 4, 1, 0},
	{"worklight", "work lamp", 30, 2, 1, 0},
	{"pump", "water pump", 120, 0.25, 1, 0},
	{"fan", "roof fan", 25, 8, 1, 0},
	{"heater", "diesel heater", 25, 8, 1, 0},
	{"laptop", "laptop", 60, 4, 1, 0},
	{"phones", "phones and tablets", 15, 3, 1, 0},
	{"screen", "television", 40, 3, 1, 0},
	{"radio", "radio", 20, 3, 1, 0.01},
	{"router", "router", 10, 24, 1, 0},
	{"breathing", "breathing aid", 40, 8, 1, 0},
	{"tools", "tool chargers", 120, 1, 1, 0},
	{"inverter", "inverter with what it feeds", 400, 0.5, 1, 0.6},
	{"monitor", "monitor and alarms", 1, 24, 1, 0},
	{"other", "something else", 12, 1, 1, 0},
}

// ApplianceByID finds an appliance; the last, "something else", where there is none such.
func ApplianceByID(id string) Appliance {
	for _, a := range Appliances {
		if a.ID == id {
			return a
		}
	}
	return Appliances[len(Appliances)-1]
}

// FromWatts is a load's current from its power.
var FromWatts = working.Declare("I = P / U", "physics: power",
	working.Symbol{Letter: "I", Name: "current", Unit: "A", Digits: 2},
	working.Symbol{Letter: "P", Name: "power", Unit: "W", Digits: 0},
	working.Symbol{Letter: "U", Name: "system voltage", Unit: "V", Digits: 0})

// LoadAh is what a load takes in a day.
var LoadAh = working.Declare("Q = n·(I·h·d + I_s·24)", "conservation of charge",
	working.Symbol{Letter: "Q", Name: "taken in a day", Unit: "Ah", Digits: 1},
	working.Symbol{Letter: "n", Name: "how many", Unit: "", Digits: 0},
	working.Symbol{Letter: "I", Name: "current", Unit: "A", Digits: 2},
	working.Symbol{Letter: "h", Name: "hours a day", Unit: "h", Digits: 2},
	working.Symbol{Letter: "d", Name: "share that it runs", Unit: "", Digits: 2},
	working.Symbol{Letter: "I_s", Name: "standby", Unit: "A", Digits: 3})

// SunAh is what panels give in a day.
var SunAh = working.Declare("Q_s = η·P·h / U", "physics: energy; share of the panel's label from memory",
	working.Symbol{Letter: "Q_s", Name: "from the sun in a day", Unit: "Ah", Digits: 1},
	working.Symbol{Letter: "η", Name: "share of the label that arrives", Unit: "", Digits: 2},
	working.Symbol{Letter: "P", Name: "panels", Unit: "W", Digits: 0},
	working.Symbol{Letter: "h", Name: "hours of full sun", Unit: "h", Digits: 1},
	working.Symbol{Letter: "U", Name: "system voltage", Unit: "V", Digits: 0})

// SunShare is how much of a panel's label arrives in the battery: heat, dirt, lying flat.
// Source: from memory.
const SunShare = 0.7

// CycleAh is what driving has to put back: the use of the drive day and the days parked
// after it, less what mains and sun give.
var CycleAh = working.Declare("Q_c = (Q − Q_s − Q_m)·(1 + p)", "conservation of charge",
	working.Symbol{Letter: "Q_c", Name: "to put back on a drive", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "Q", Name: "used in a day", Unit: "Ah", Digits: 1},
	working.Symbol{Letter: "Q_s", Name: "from the sun in a day", Unit: "Ah", Digits: 1},
	working.Symbol{Letter: "Q_m", Name: "from the mains in a day", Unit: "Ah", Digits: 1},
	working.Symbol{Letter: "p", Name: "days parked between drives", Unit: "", Digits: 1})

// Current is the charging current that puts it back in a drive.
var Current = working.Declare("I_n = Q_c / (h·η)", "conservation of charge; charge efficiency from memory",
	working.Symbol{Letter: "I_n", Name: "charging current needed", Unit: "A", Digits: 1},
	working.Symbol{Letter: "Q_c", Name: "to put back on a drive", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "h", Name: "driven in a day", Unit: "h", Digits: 2},
	working.Symbol{Letter: "η", Name: "charge efficiency", Unit: "", Digits: 2})

// BankAh is the smallest bank that has the cycle's use to give.
var BankAh = working.Declare("C = Q_c / u", "common practice, no source: half of lead, 80 % of LiFePO4 is used",
	working.Symbol{Letter: "C", Name: "smallest bank", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "Q_c", Name: "to put back on a drive", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "u", Name: "usable share", Unit: "", Digits: 2})

// PutBackAh is what a drive puts back.
var PutBackAh = working.Declare("Q_d = η·(I·(h − h_i) + I_i·h_i)", "conservation of charge; bulk, lead takes less near full",
	working.Symbol{Letter: "Q_d", Name: "put back on a drive", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "η", Name: "charge efficiency", Unit: "", Digits: 2},
	working.Symbol{Letter: "I", Name: "current at cruise", Unit: "A", Digits: 1},
	working.Symbol{Letter: "h", Name: "driven in a day", Unit: "h", Digits: 2},
	working.Symbol{Letter: "h_i", Name: "of these at idle", Unit: "h", Digits: 2},
	working.Symbol{Letter: "I_i", Name: "current at idle", Unit: "A", Digits: 1})

// Reaches returns how full a bank of capacityAh stands after a drive and before the
// next, 0 to 1, once days repeat themselves: it starts full, each cycle takes usedAh out
// and each drive puts up to putBackAh in.
//
// Source: conservation of charge. usedAh and putBackAh are not negative; where more is
// used than put back, it sinks until it is empty before each drive.
func Reaches(capacityAh, usedAh, putBackAh float64) (after, before float64) {
	if putBackAh >= usedAh {
		return 1, math.Max(0, 1-usedAh/capacityAh)
	}
	return math.Min(1, putBackAh/capacityAh), 0
}
