package design

import (
	"epitrope/core/coupling"
	"epitrope/core/system"
)

// changeover is a charger on the rest contact of K1: energised by S1, K1 takes the charger's
// feed away and joins the batteries for an emergency start.
var changeover = Arrangement{Kind: coupling.DCDCChangeover, Name: "DC-DC", Part: system.KindCharger,
	Beside: RestContact, ByHand: Button, CanJoin: true}
