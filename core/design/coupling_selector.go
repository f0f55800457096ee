package design

import (
	"epitrope/core/coupling"
	"epitrope/core/system"
)

// selector is a contact whose coil is dead, on the signal, or on a feed from the start side for
// good, as S1 stands.
var selector = Arrangement{Kind: coupling.ManualSelector, Name: "Selector", Part: system.KindContactor, ByHand: Selector, CanJoin: true}
