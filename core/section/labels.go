package section

import (
	"epitrope/core/design"
	"epitrope/core/run"
	"epitrope/core/system"
)

// What a part's own label says, or a meter shows at it, in the place of what is usual. It is asked
// at the part, folded until it is wanted.
var (
	alternatorFields = []string{"alternator.idleA", "alternator.idleV", "alternator.hotV", "alternator.idleRpm", "alternator.ratio",
		"vehicle.dayA"}
	startFields = []string{"startBattery.chemistry", "startBattery.place", "startBattery.ageYears", "startBattery.restV",
		"startBattery.restHours", "startBattery.loadedV", "startBattery.loadedA", "startBattery.mOhm", "startBattery.crankV",
		"startBattery.crankS", "vehicle.keyA", "vehicle.asleepA"}
	auxFields = []string{"aux.restV", "aux.restHours", "aux.loadedV", "aux.loadedA", "aux.mOhm", "aux.curve", "aux.slowMOhm", "aux.slowS"}
)

// asMeasured names what a label says or a meter shows.
const asMeasured = "As its label says, or as measured"

// foldedAt is what is asked at a part, folded.
func foldedAt(d *design.Design, column string) []Folded {
	switch column {
	case "alternator":
		return []Folded{{asMeasured, alternatorFields}}
	case "start":
		return []Folded{{asMeasured, startFields}}
	case "aux":
		return []Folded{{asMeasured, auxFields}}
	case "coupling":
		if d.Kind.Charger() {
			return []Folded{{asMeasured, chargerFields(d)}}
		}
		return []Folded{{asMeasured, relayFields(d)}}
	case d.Start.FuseID, d.Aux.FuseID:
		return []Folded{{"In its holder, as measured", joint(column)}}
	case d.Start.ID:
		return append([]Folded{{"This cable, as it is", append([]string{"cable.startInsulation", "routes.guarded"}, joint("c1")...)}},
			wayBack(d, &d.Start)...)
	case d.Aux.ID:
		own := append([]string{"cable.auxInsulation"}, joint("c2")...)
		if d.Kind.Charger() {
			own = append(own, "routes.auxBackM")
		}
		return append([]Folded{{"This cable, as it is", own}}, wayBack(d, &d.Aux)...)
	}
	return []Folded{}
}

// wayBack is what is asked of the return at the run that it counts in.
func wayBack(d *design.Design, l *run.Sized) []Folded {
	if l != d.ReturnLeg() {
		return nil
	}
	list := []Folded{{"The way back", []string{"routes.returnM", "bays.returnC", "bays.returnLay", "routes.earthAt", "routes.earthBy"}}}
	for _, w := range d.System.Wires {
		switch {
		case w.ID == "body":
			list = append(list, Folded{"Tray, canopy or body to the chassis, as measured", joint(w.ID)})
		case w.Role == system.Chassis:
			list = append(list, Folded{"Chassis between E2 and E1, as measured", joint(w.ID)})
		}
	}
	return list
}

// joint are the answers about a piece that was measured.
func joint(row string) []string {
	at := "joints." + row + "."
	return []string{at + "mV", at + "atA", at + "mOhm", at + "tempC"}
}

// relayFields are what the label of a relay or contactor says, or a meter shows at it.
func relayFields(d *design.Design) []string {
	list := []string{"relay.name"}
	if d.Is.Senses {
		list = append(list, "relay.cutInV", "relay.cutOutV", "relay.closeS", "relay.openS", "relay.twoWay", "relay.followS",
			"relay.against")
	}
	if d.Contact.CoilA > 0 {
		list = append(list, "relay.coilA", "relay.damped")
	}
	return append(list, "relay.ratedA", "relay.ratedBy", "relay.joinA", "relay.crankA", "relay.contactMO")
}

// chargerFields are what the sheet of a charger says, and the label of a relay beside it.
func chargerFields(d *design.Design) []string {
	list := []string{"card.name", "card.outputA", "card.efficiency", "card.cutOutV", "card.restartV", "card.inputA", "card.idleInputA",
		"card.softStartS", "card.standbyA", "card.maxAmbientC", "card.maxFuseA", "card.isolated", "card.probe"}
	if d.ByVoltage() {
		list = append(list, "card.detectOnV", "card.detectOffV", "card.detectOnS", "card.detectOffS", "card.followS")
	} else {
		list = append(list, "card.signalV", "card.signalOhm", "signal.fuseA")
	}
	switch d.Is.Beside {
	case design.RestContact:
		list = append(list, "relay.name", "relay.ratedA", "relay.ratedBy", "relay.restA",
			"relay.joinA", "relay.crankA", "relay.coilA", "relay.damped",
			"relay.contactMO")
	case design.Bypass:
		list = append(list, "relay.name", "relay.ratedA", "relay.ratedBy", "relay.joinA",
			"relay.crankA", "relay.coilA", "relay.damped", "relay.contactMO")
	}
	return list
}

// FoldedPaths are all answers that are asked folded, at any part.
func FoldedPaths(d *design.Design) []string {
	var list []string
	for _, column := range []string{"alternator", "start", "f1", "c1", "coupling", "c2", "f2", "aux"} {
		for _, f := range foldedAt(d, column) {
			list = append(list, f.Fields...)
		}
	}
	return list
}
