package design

import (
	"epitrope/core/coupling"
	"epitrope/core/system"
)

// inTrailer is a DC-DC charger behind the trailer's plug, beside the battery that it charges.
var inTrailer = Arrangement{Kind: coupling.TrailerCharger, Name: "DC-DC", Part: system.KindCharger}
