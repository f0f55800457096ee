package section

import "epitrope/core/design"

// What a part's own label says, or a meter shows at it, in the place of what is usual. It is asked
// at the part, folded until it is wanted.
var (
	alternatorLabel = []string{"alternator.idleA", "alternator.idleV", "alternator.hotV", "alternator.idleRpm", "alternator.ratio",
		"vehicle.dayA"}
	startLabel = []string{"startBattery.chemistry", "startBattery.ageYears", "startBattery.restV", "startBattery.restHours",
		"startBattery.loadedV", "startBattery.loadedA", "startBattery.mOhm", "startBattery.crankV", "startBattery.crankS", "vehicle.keyA",
		"vehicle.asleepA"}
	auxLabel = []string{"aux.restV", "aux.restHours", "aux.loadedV", "aux.loadedA", "aux.mOhm", "aux.curve", "aux.slowMOhm", "aux.slowS"}
)

// relayLabel are what the label of a relay or contactor says, or a meter shows at it.
func relayLabel(d *design.Design) []string {
	list := []string{"relay.name"}
	if d.Is.Senses {
		list = append(list, "relay.cutInV", "relay.cutOutV", "relay.closeS", "relay.openS", "relay.twoWay")
	}
	if d.Contact.CoilA > 0 {
		list = append(list, "relay.coilA")
	}
	return append(list, "relay.crankA", "relay.contactMO")
}
