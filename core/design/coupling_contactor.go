package design

import (
	"epitrope/core/coupling"
	"epitrope/core/system"
)

// contactor is a contact whose coil the signal works; S1 takes it over to a feed from the aux
// side where an emergency start is wanted.
var contactor = Arrangement{Kind: coupling.SwitchedContactor, Name: "Contactor", Part: system.KindContactor, ByHand: ButtonIfWanted,
	CanJoin: true}
