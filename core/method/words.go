package method

// words are the sentences of the rules, by id.
var words = map[string]string{
	"charger.variable": "The alternator's regulation is %s: a charger boosts whatever it is given.",
	"charger.staged":   "It gives a staged charge that suits %s.",
	"charger.far":      "The aux battery is %.1f m away by its route: a charger makes up what the cable loses.",
	"charger.solar":    "Solar is wanted: a charger with a built-in solar regulator saves a second box.",
	"charger.signal":   "It needs a signal that is live only while the engine runs.",
	"charger.hot":      "It would sit in an engine space: heat and air decide what it can give.",
	"charger.idle":     "Charging at idle matters: %.0f A out draws %.0f A at worst, and idle, hot, lamps on, leaves %.0f A.",
	"charger.short":    "%.0f A would hold the balance; half of the alternator's label, %.0f A, feeds a charger of %.0f A.",
	"dcdc.tow": "It would stay in the tow vehicle: what the rest of the %.1f m to the trailer's battery loses is missing at the " +
		"battery, and it holds its voltage at the wrong place.",
	"dcdc.noassist": "An emergency start is wanted, and a charger lets nothing through to the starter.",

	"trailer.none": "The aux battery is not behind a tow coupling.",
	"trailer.at":   "The charger sits at the battery it charges, behind the plug: the long loop only feeds it.",
	"trailer.feed": "The feed to the trailer must go dead with the engine off, or the trailer flattens the tow vehicle.",

	"changeover.trailer": "An emergency start through the trailer's plug: some %.0f A of cranking current over its contacts.",
	"changeover.rest": "A %.0f A charger draws %.0f A through the rest contact 87a; the largest rest contact bears %.0f A: its " +
		"headline is that of 87.",
	"changeover.emergency": "An emergency start is wanted: energised, it joins the start battery to the aux battery; a factory boost " +
		"button can be reused.",
	"changeover.unasked": "Nobody asked for an emergency start: one more contact in the feed for nothing.",
	"changeover.left": "Left energised with the engine running it bypasses the charger and overloads the alternator: the button must " +
		"be momentary.",
	"changeover.factory": "The factory's ignition feed hangs on this coil: it has to be taken off and insulated, or the batteries are " +
		"joined whenever the key is on.",
	"changeover.management": "The battery's management system may open under some %.0f A of cranking current: its sheet says what it " +
		"bears.",

	"bypass.trailer": "Its current is far beyond a trailer's plug.",
	"bypass.machine": "Half of the alternator's label is %.0f A: a high-current stage wants a machine of %.0f A and more.",
	"bypass.large":   "%.0f A would hold the balance, the largest charger gives %.0f A, and the bank accepts %.0f A.",
	"bypass.small":   "A charger alone, up to %.0f A, gives what is needed (%.0f A) or what the bank accepts.",
	"bypass.sum":     "Cable, fuses, plug and earth have to bear both stages at once.",
	"bypass.feed":    "On variable regulation both stages need an ignition feed: voltage tells them nothing.",
	"bypass.idle": "A bank that takes all it can get, straight on an alternator, overheats it at idle: little cooling, full current, " +
		"and %.0f A to spare.",

	"join.variable": "The alternator's regulation is %s: joined, the aux battery is left about half charged, and a relay that senses " +
		"never closes or drops out.",
	"join.unproven": "How the alternator is regulated is not proven: if it varies, the aux battery is left about half charged, and a relay " +
		"that senses never closes or drops out. A logged test settles it.",
	"join.unnamed": "Nobody said what the aux battery is: if it is %s, nothing limits its charging current, and it holds a relay that " +
		"senses closed after parking.",
	"vsr.lithium": "%s rests at %.1f–%.1f V from half charge up, and above a relay's cut-out of %.1f V until %.0f %% are left: it stays " +
		"closed after parking, and nothing limits the charging current.",
	"contact.lithium": "Nothing limits the charging current of a %s bank but the circuit (it accepts %.0f A), and its management " +
		"system may open under it: a load dump.",
	"join.lead":  "Steady regulation and lead at both ends are what a plain contact is for.",
	"join.far":   "The aux battery is %.1f m away by its route: what the cable loses is missing at the battery.",
	"join.short": "The alternator gives %.1f V and %s wants at least %.1f V: it is seldom full.",
	"join.over":  "The alternator gives %.1f V and %s bears at most %.1f V.",
	"join.trailer": "The feed to the trailer must go dead with the engine off: a relay may hold closed for hours, and the plug " +
		"stays live.",
	"join.suspect": "Said to be steady without a test, on a vehicle that stops and starts by itself, or built to Euro 5 or 6, or " +
		"from 2008 on: a suspect.",
	"vsr.cheap":   "A relay kit costs a quarter to a third of a charger, and needs no signal.",
	"join.budget": "The budget is low: a contact costs a fraction of a charger.",
	"vsr.solar":   "Sensing both sides it lets panels on the aux battery keep up the start battery too.",
	"vsr.near":    "It would sit %.1f m of cable from the start battery: it wants a true voltage, within %.0f m.",
	"vsr.assist": "An emergency start is wanted: a relay helps starting only from 100 A on, and on cable that bears it, which 8 " +
		"AWG does not.",
	"vsr.winch":           "Joined while winching: a relay's rating is not a winching rating.",
	"volts.apart":         "The vehicle and the aux side have different voltages: joined, one drives hundreds of amps into the other.",
	"contactor.ignition":  "The ignition left on lets the aux battery feed the vehicle, and the start battery drain into the aux battery.",
	"contact.crank":       "Joined by ignition means joined while cranking: the aux battery and its cable share the starter's %.0f A.",
	"contactor.emergency": "An emergency start is wanted: the same contactor gives it, by a button.",
	"selector.left":       "It depends on somebody turning it: left joined, both batteries go flat.",
	"selector.winch":      "A winch is fitted: joined by hand, both batteries pull.",
	"selector.old":        "Built in %.0f: steady regulation, nothing for a contact to confuse.",

	"splitter.variable": "The alternator's regulation is %s: eased off for the start battery, what is left behind a diode " +
		"charges no aux battery.",
	"splitter.lithium": "Nothing limits the charging current of a %s bank but the circuit (it accepts %.0f A), and its management system " +
		"may open under it: a load dump.",
	"splitter.lead": "Lead at both ends and steady regulation: diodes keep the batteries apart by themselves, without a signal or a " +
		"moving part.",
	"splitter.low":    "The alternator gives %.1f V, a diode loses %.1f V, and %s wants at least %.1f V: it is seldom full.",
	"splitter.cut":    "The vehicle's own charge cable is cut and led through it: what fails there ends the start battery's charge too.",
	"splitter.excite": "No battery reaches the machine behind it: one that excites itself from its own terminal needs an excitation feed.",
	"splitter.far":    "The aux battery is %.1f m away by its route: what the cable loses is missing at the battery.",
	"splitter.assist": "An emergency start is wanted, and diodes let nothing through to the starter.",

	"second.trailer": "A machine whose only battery is behind a plug loses it when the plug is pulled: a load dump that destroys its " +
		"rectifier.",
	"second.room":     "There is no room or bracket for a second alternator.",
	"second.twin":     "Two alternators are fitted already: one can be the aux battery's own.",
	"second.large":    "%.0f A would hold the balance; the largest charger gives %.0f A.",
	"second.own":      "The second alternator's regulator is set for the aux battery: the vehicle's regulation does not matter.",
	"second.unneeded": "%.0f A holds the balance: the vehicle's own alternator can give that.",
	"second.cost":     "The machine, bracket, belt and regulator cost several chargers, and days to fit.",
	"second.unknown":  "Nobody looked whether there is room and a bracket for a second alternator.",
	"second.dump":     "The management system must stop the regulator before the battery opens: opening is a load dump.",
	"second.far":      "A second alternator charges straight through %.1f m of cable: what that loses is missing at the battery.",
}

// unless says what would have to change for what is ruled out to be allowed.
var unless = map[string]string{
	"trailer.none":       "An aux battery in a trailer.",
	"changeover.trailer": "An aux battery in the tow vehicle.",
	"changeover.rest":    "A smaller charger, or a changeover relay whose rest contact bears its input.",
	"bypass.trailer":     "An aux battery in the tow vehicle.",
	"bypass.machine":     "A larger alternator, or a second one.",
	"volts.apart":        "One voltage on both sides.",
	"join.variable":      "A logged test that shows steady regulation.",
	"vsr.lithium":        "A lead aux battery.",
	"contact.lithium":    "A lead aux battery.",
	"splitter.variable":  "A logged test that shows steady regulation.",
	"splitter.lithium":   "A lead aux battery.",
	"second.trailer":     "An aux battery in the tow vehicle.",
	"second.room":        "A bracket and room for a second machine.",
}
