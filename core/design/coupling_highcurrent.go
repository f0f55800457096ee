package design

import (
	"epitrope/core/coupling"
	"epitrope/core/system"
)

// highCurrent is a charger with a bypass K1 beside it, which it closes while there is much to
// give, and rests meanwhile. Cable, fuses and plug are sized for both.
var highCurrent = Arrangement{Kind: coupling.DCDCHighCurrent, Name: "DC-DC", Part: system.KindCharger, Beside: Bypass, CanJoin: true}
