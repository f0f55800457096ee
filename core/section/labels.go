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
		list = append(list, "relay.cutInV", "relay.cutOutV", "relay.closeS", "relay.openS", "relay.twoWay", "relay.followS",
			"relay.against")
	}
	if d.Contact.CoilA > 0 {
		list = append(list, "relay.coilA", "relay.damped")
	}
	return append(list, "relay.ratedA", "relay.joinA", "relay.crankA", "relay.contactMO")
}

// chargerLabel are what the sheet of a charger says, and the label of a relay beside it.
func chargerLabel(d *design.Design) []string {
	list := []string{"card.name", "card.outputA", "card.efficiency", "card.cutOutV", "card.restartV", "card.inputA", "card.idleInputA",
		"card.softStartS", "card.standbyA", "card.maxAmbientC", "card.maxFuseA", "card.isolated", "card.probe"}
	if d.ByVoltage() {
		list = append(list, "card.detectOnV", "card.detectOffV", "card.detectOnS", "card.detectOffS", "card.followS")
	} else {
		list = append(list, "card.signalV", "card.signalOhm", "signal.fuseA")
	}
	switch d.Is.Beside {
	case design.RestContact:
		list = append(list, "relay.name", "relay.ratedA", "relay.restA", "relay.joinA", "relay.crankA", "relay.coilA", "relay.damped",
			"relay.contactMO")
	case design.Bypass:
		list = append(list, "relay.name", "relay.ratedA", "relay.joinA", "relay.crankA", "relay.coilA", "relay.damped", "relay.contactMO")
	}
	return list
}
