package coupling

import (
	"math"

	"epitrope/core/working"
)

// BoxC is how warm the air in a closed box gets.
var BoxC = working.Declare("T_b = T_a + P / (α·A)", "physics: heat balance; coefficient from memory",
	working.Symbol{Letter: "T_b", Name: "air in the box", Unit: "°C", Digits: 0},
	working.Symbol{Letter: "T_a", Name: "air round the box", Unit: "°C", Digits: 0},
	working.Symbol{Letter: "P", Name: "lost in the charger", Unit: "W", Digits: 0},
	working.Symbol{Letter: "α", Name: "heat passed by its walls", Unit: "W/(m²·K)", Digits: 1},
	working.Symbol{Letter: "A", Name: "walls", Unit: "m²", Digits: 3})

// What walls pass, in W/(m²·K): still air on both sides of thin walls, and with vents top
// and bottom. Source: from memory.
const (
	ClosedBox = 3.0
	VentedBox = 8.0
)

// BoxAreaM2 is the walls of a box of given sides, in mm: all six, as it hangs free.
func BoxAreaM2(l, w, h float64) float64 { return 2 * (l*w + w*h + h*l) / 1e6 }

// InBox returns the share of its output that a charger settles at in a box: what it loses
// at full output, lostW, heats the air round it above ambientC by kPerW for each watt,
// and above fullC it gives less, which loses less in proportion.
//
// Source: heat balance; Derate.
func InBox(ambientC, lostW, kPerW, fullC float64) (share, boxC float64) {
	low, high := 0.0, 1.0
	for range 60 {
		share = (low + high) / 2
		if Derate(ambientC+share*lostW*kPerW, fullC) > share {
			low = share
		} else {
			high = share
		}
	}
	share = math.Min(1, high)
	return share, ambientC + share*lostW*kPerW
}
