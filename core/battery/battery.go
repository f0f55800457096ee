// Package battery knows the chemistries: what a battery rests at, what of its
// label can be used, what charge it accepts and what it resists.
package battery

import "epitrope/core/working"

// UsableAh is what is used of a battery before it is charged again.
var UsableAh = working.Declare("Q_u = C·u", "common practice, no source: half for lead, 80 % for others",
	working.Symbol{Letter: "Q_u", Name: "usable charge", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "C", Name: "capacity", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "u", Name: "usable share", Unit: "", Digits: 2})
