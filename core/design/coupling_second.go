package design

import (
	"epitrope/core/coupling"
	"epitrope/core/system"
)

// secondMachine is an alternator of the run's own with an isolator behind it: nothing of the
// vehicle's is touched.
var secondMachine = Arrangement{Kind: coupling.SecondAlternator, Name: "Isolator", Part: system.KindIsolator, OwnMachine: true}
