package judge

// checkWords are the sentences of the checks, by id; those that end in .good and .open
// are of the same check as it was answered well, or not yet.
var checkWords = map[string]string{
	"place.exhaust":        "It sits near exhaust, turbo or radiator: 60–90 °C, where a relay senses wrong and a charger gives nothing.",
	"place.exhaust.good":   "Away from exhaust, turbo and radiator.",
	"place.exhaust.open":   "Look: is it away from exhaust, turbo and radiator?",
	"place.spray":          "It is in reach of spray: terminals corrode, a contact that corrodes burns.",
	"place.spray.good":     "Out of reach of spray and wading.",
	"place.spray.open":     "Look: can spray or wading reach it?",
	"place.gas":            "It sits in the gas of a vented battery: a contact's spark lights it.",
	"place.gas.good":       "Away from the gas of vented batteries.",
	"place.gas.open":       "Look: is a vented battery beside it?",
	"place.moving":         "Something that moves can touch it: strut, door, seat or belt.",
	"place.moving.good":    "Clear of struts, doors, seats and belts.",
	"place.moving.open":    "Look: is it clear of bonnet struts, doors, seats and belts through their whole travel?",
	"place.visible":        "Its lamp cannot be seen: nobody will know that it stopped.",
	"place.visible.good":   "Its lamp can be seen.",
	"place.visible.open":   "Look: can its lamp be seen without taking anything off?",
	"place.access":         "It cannot be reached for service.",
	"place.access.good":    "It can be reached for service.",
	"place.access.open":    "Look: can it be reached without taking furniture out?",
	"place.heat":           "It gets %.0f °C at its place; up to %.0f °C it does all it can.",
	"place.terminals":      "Its terminals point down: water runs to them, and nuts work loose onto them.",
	"place.terminals.good": "Its terminals point up or lie level.",
	"place.terminals.open": "Look: which way do its terminals point?",
	"place.sensing":        "It senses %.1f m of cable from the start battery; within %.0f m it sees a true voltage.",
	"place.socket": "With the engine off and the plug pulled the socket is still live: a cover that closes by itself, keyed " +
		"housings, and the feed switched by the ignition where it can be.",
	"place.socket.good": "With the engine off the socket is dead.",
	"place.box":         "In the %s box the air gets to %.0f °C, and the charger settles at %.0f of %.0f A.",

	"fit.open": "%d of %d measures are missing: battery, recess up to its lid or seat, opening, and what is free above it. A dummy of " +
		"cardboard settles the rest.",
	"fit.not":    "The battery does not go in: %s.",
	"fit.tilted": "The battery goes in tilted by %.0f°; %.0f mm are left over its terminals.",
	"fit.goes":   "The battery goes in upright; %.0f mm are left over its terminals.",

	"bank.shares":    "The hardest worked battery carries %.0f %% of the current, and %.0f %% would be even, fed %s.",
	"bank.mixed":     "Batteries of different type or age in parallel: the weaker one drags the other down.",
	"bank.same.open": "Ask: are they of the same type and age?",

	"join.open": "Before they are joined, measure both batteries at rest.",
	"join.ruined": "One battery stands at %.1f V: under %.0f V they are not joined. Isolate it and charge it alone; one that jumps from 3 " +
		"to 12 V in minutes has lost its capacity.",
	"join.flows": "Joined as they stand, %.1f V apart, %.0f A begin to flow from the %s to the %s battery (the smaller fuse is %.0f A); " +
		"ten seconds move %.2f Ah.",
	"join.large": "Joined as they stand, %.1f V apart, %.0f A would flow from the %s to the %s battery, far over the %.0f A fuse, and ten " +
		"seconds would move %.2f Ah: charge the lower one alone first.",

	"extra.isolator.parts": "Q1 parts the run by hand: what is behind it can be worked on.",
	"extra.isolator.first": "Q1 stops the charger before it opens.",
	"extra.isolator.dump": "Opened while the charger runs, Q1 leaves %.0f A without a battery behind them: the voltage jumps. A contact " +
		"in Q1 that breaks the signal first, or stop the engine first.",
	"extra.isolator.open":  "Look: does Q1 stop the charger before it opens?",
	"extra.isolator.crank": "Cranking through the join sends %.0f A through Q1, which bears %.0f A for some seconds.",

	"extra.shunt.reads": "R1 shows %s at %.0f A: a meter there proves the monitor's figure.",
	"extra.shunt.hours": "R1 carries %.0f A for hours; it stays true up to %.0f A.",
	"extra.shunt.short": "R1 sees %.0f A while cranking through the join, over its %.0f A: it may shift for good.",
	"extra.shunt.all":   "Every negative but the battery's own is on R1's far side: it counts all.",
	"extra.shunt.past":  "What is used comes back past R1: %.0f Ah a day go uncounted, and the monitor says full when it is not.",
	"extra.shunt.open":  "Look: is every negative but the battery's own on R1's far side?",

	"extra.disconnect.right": "Q3 opens at %.1f V: %.0f %% is left then (this chemistry should keep %.0f %%).",
	"extra.disconnect.soon":  "Q3 opens at %.1f V, with %.0f %% still in the battery (%.0f %% would be kept): too soon.",
	"extra.disconnect.late":  "Q3 opens at %.1f V, when only %.0f %% is left; this chemistry should keep %.0f %%.",
	"extra.disconnect.hunts": "Once Q3 has opened, the battery recovers to %.1f V, above the %.1f V at which it closes: on and off " +
		"without end.",
	"extra.disconnect.peak":  "At %.0f A Q3 opens already with %.0f %% left: a delay longer than the peak, or thicker cable.",
	"extra.disconnect.over":  "All loads at once take %.0f A; Q3 bears %.0f A where it sits.",
	"extra.disconnect.bears": "All loads at once take %.0f A, and Q3 is rated %.0f A.",
	"extra.disconnect.open":  "Ask: what do the loads take at most, and what is the disconnect rated?",
	"extra.disconnect.all": "Q3 cuts off the whole battery: once it has opened, a charger sees no battery and does not begin. It " +
		"belongs between battery and loads alone.",
	"extra.disconnect.cuts.open": "Look: does Q3 cut off the loads alone, or the whole battery?",

	"extra.bond.carries": "B1, %s, carries the return's %.0f A (it bears %.0f A); end to end it should measure %.1f mΩ with its lugs.",
	"extra.bond.thin":    "B1, %s, bears %.0f A and the return drives %.0f A through it.",
	"extra.bond.fuse":    "B1, %s, bears %.0f A and nothing protects it in a short: the fuse of its run is %s.",
	"extra.bond.idle":    "The return comes back by cable; the bonding lead carries nothing but a fault.",

	"extra.winch.fuse":    "Winching through the join sends %.0f A along the charging run: %s may open after %s.",
	"extra.winch.contact": "Winching through the join sends %.0f A through a contact that bears %.0f A for minutes.",
	"extra.winch.join":    "Winching through the join sends %.0f A along the charging run, which bears it.",
	"extra.winch.apart":   "The winch is to pull from both batteries, and a %s does not join them.",
	"extra.winch.volts":   "The winch pulls at %.1f V; under %.0f V its contactor chatters and the vehicle's electronics complain.",
	"extra.winch.takes":   "The winch takes %.0f A: %.1f min of it is %.1f Ah out of the %s battery.",
	"extra.winch.fails":   "Winching has no solution: %s.",

	"extra.management.bears": "The management system lets %.0f A through; most of all %s asks of it: %.0f A.",
	"extra.management.over": "The management system lets %.0f A through; %s is %.0f A: it opens under load, and what is still connected " +
		"takes the jump in voltage.",
	"extra.management.open": "Look: what current does the battery's management system let through?",
	"extra.output.bears":    "The charge-disable output switches %.2f A; %s takes %.2f A.",
	"extra.output.over":     "The charge-disable output switches %.2f A and %s takes %.2f A: a relay between them.",

	"extra.socket.over":      "%.0f A by the 13-pin socket: its power contacts bear %.0f A.",
	"extra.socket.drop":      "The load in the trailer loses %s on its way, %.1f %% (up to %.0f %% is usual).",
	"extra.socket.permanent": "Contact 9 is live with the engine off: %.0f A have the tow vehicle's start battery half empty after %s.",
	"extra.socket.switched":  "Contact 10 is dead with the engine off.",
	"extra.socket.lamps":     "The load comes back by the lamps' earth: its own contact, 13 for 9 and 11 for 10, or the thin wire melts.",

	"answers.use":  "Daily use says %.0f Ah and the loads come to %.0f Ah: one of them is wrong.",
	"answers.idle": "%.1f h at idle of %.1f h driven cannot be.",
	"answers.suspect": "Steady regulation is taken from a label on a vehicle that stops and starts by itself, is built to Euro 5 or 6, " +
		"or is from 2008 on: record it before the first cable is cut.",
	"answers.sensor": "The negative goes on the battery's post, and there is a sensor on it: the vehicle will miscount all that the aux " +
		"battery takes.",
	"answers.frame": "The frame is %s: it is no return. The current needs a cable all the way.",
	"answers.bonded": "The tray, canopy or body is not bonded to the chassis, and the return goes by it: a bonding lead, or a cable all " +
		"the way.",
	"answers.startflat": "The start battery rests at %.2f V, about %.0f %% full: charge it before anything is tested.",
	"answers.startold": "The start battery is %.0f years old: test it before it takes the blame for the new installation, or the other " +
		"way round.",
	"answers.ruined": "The aux battery rests at %.1f V: ruined, not flat.",
	"answers.load": "The vehicle takes %.0f A with lamps and blower on, and the alternator gives %.0f A at idle, hot: the start " +
		"battery makes up the rest before anything is charged.",
}
