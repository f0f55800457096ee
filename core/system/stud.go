package system

// studs are the bolts at the terminals of components, by kind; ferrule and blade stand for
// terminals that are none. Source: from memory; the device's sheet wins.
var studs = map[ComponentKind]string{
	KindAlternator: "M8", KindBattery: "M8", KindFuse: "M6", KindRelay: "M6", KindContactor: "M8",
	KindIsolator: "M8", KindSplitter: "M8",
	KindSwitch: "M8", KindShunt: "M8", KindDisconnect: "M6", KindEarth: "M8", KindLoads: "M6",
	KindWinch: "M8", KindChangeover: "M6", KindTap: "M8",
}

// Stud is the bolt that a power cable's lug goes on at a component, a fuse's its family's; "" where it goes on none:
// into a charger's clamp, a plug, a relay's socket.
func (c Component) Stud() string {
	switch d := c.Device.(type) {
	case Fuse:
		if d.Family.Stud() != "" {
			return d.Family.Stud()
		}
	case Charger:
		if d.Card.Stud() != "" || d.Card.ClampMM2() > 0 {
			return d.Card.Stud()
		}
	case Contact:
		if d.PlugIn || d.Stud != "" {
			return d.Stud
		}
	case Load:
		if d.Ohm > 0 { // a lamp
			return ""
		}
	case Plug, Control, FeedPoint:
		return ""
	}
	if stud, is := studs[c.Kind]; is {
		return stud
	}
	return "M8"
}
