package design

import (
	"epitrope/core/coupling"
	"epitrope/core/system"
)

// dcdc is a DC-DC charger between the batteries: nothing joins them.
var dcdc = Arrangement{Kind: coupling.DCDC, Name: "DC-DC", Part: system.KindCharger}
