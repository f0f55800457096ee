package design

import (
	"epitrope/core/coupling"
	"epitrope/core/system"
)

// relay is a voltage-sensing relay at the start battery, with an earth lead of its own that
// sets what it measures.
var relay = Arrangement{Kind: coupling.VSR, Name: "Relay", Part: system.KindRelay, Senses: true, CanJoin: true}
