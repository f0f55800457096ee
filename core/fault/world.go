package fault

import (
	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/system"
)

// world is a fault of what the installation hangs on, at one of its parts.
func world(kind Kind, part, says, mend string, least, most float64, unit string, change func(s *circuit.State, n, size float64)) Fault {
	return Fault{ID: string(kind) + " " + part, Kind: kind, At: part, Says: says, Mend: mend, Least: least, Most: most, Unit: unit,
		world: change}
}

// ofWorld are faults of what the installation hangs on. Source of their sizes: from memory.
func ofWorld(d *design.Design) []Fault {
	return append(append(ofMachine(), ofBatteries(d)...), ofHands(d)...)
}

// ofMachine are the faults of the vehicle's alternator.
func ofMachine() []Fault {
	return []Fault{
		world(Machine, "alternator", "the alternator gives nothing", "its belt, its plug, its charge lamp; then the machine", 0, 0, "",
			func(s *circuit.State, _, _ float64) { s.MachineA = 0 }),
		world(Worn, "alternator", "the alternator gives a part of its label", "a load test of the machine", 0.1, 0.5, "",
			func(s *circuit.State, _, share float64) { s.MachineA *= share }),
		world(Diode, "alternator", "a diode or a phase of the alternator is gone",
			"ripple over half a volt on the alternating range says so: "+
				"another rectifier, or machine", 0.2, 3, "A", func(s *circuit.State, _, amps float64) {
				if s.MachineA *= 0.6; s.SetV == 0 {
					s.VehicleA += amps
				}
			}),
		world(Eased, "alternator", "the alternator's regulation varies: it is held low", "a charger that boosts, or loads on to wake "+
			"the regulator; log the volts", 0.6, 1.6, "V", func(s *circuit.State, n, volts float64) { s.SetV = max(0, s.SetV-volts*n) }),
		dangerous(world(High, "alternator", "the regulator holds too much", "another regulator, before the batteries gas", 0.5, 2.5, "V",
			func(s *circuit.State, n, volts float64) {
				if s.SetV > 0 {
					s.SetV += volts * n
				}
			}), "batteries gas, and everything that is fed lives shorter"),
	}
}

func dangerous(f Fault, endangers string) Fault {
	f.Endangers = endangers
	return f
}

// drains are what may go on taking with the vehicle asleep, in A.
const (
	leastDrainA = 0.15
	mostDrainA  = 6.0
)

// ofBatteries are the faults of both batteries, and of what drains them.
func ofBatteries(d *design.Design) (list []Fault) {
	if d.StartChemistry().Lead {
		list = append(list,
			world(Cell, "start", "a cell of the start battery is short", "charge the battery alone, rest, load test; else another battery", 0, 2.1,
				"V",
				func(s *circuit.State, _, volts float64) { s.StartV -= volts }))
	}
	list = append(list, dangerous(world(Drain, "start", "something in the vehicle does not go to sleep",
		"fuse by fuse, by the millivolts across "+
			"each, doors shut", leastDrainA, mostDrainA, "A", func(s *circuit.State, _, amps float64) {
			if s.SetV == 0 && s.Key == system.KeyOff {
				s.VehicleA += amps
			}
		}), flat))
	aux := func(kind Kind, says, mend string, least, most float64, unit string, change func(s *circuit.State, n, size float64)) {
		list = append(list, world(kind, "aux", says, mend, least, most, unit, change))
	}
	c, ohm := d.Facts.Chemistry, d.AuxOhm()
	if c.Lead {
		aux(Cell, "a cell of the aux battery is short", "charge the battery alone, rest, load test; else another battery", 0, 2.1, "V",
			func(s *circuit.State, _, volts float64) { s.AuxOwnV -= volts })
		aux(Sulphated, "the aux battery is sulphated: it resists, and takes little",
			"a long charge alone, then a load test; else another battery", 5,
			40,
			"times", func(s *circuit.State, _, times float64) {
				s.AuxOhm = times * ohm
				if s.AcceptsA > 0 {
					s.AcceptsA /= times
				}
			})
	} else {
		aux(Management, "the aux battery's management has opened: cold, low, high or hot",
			"what it says itself; a charge that wakes it; never past it",
			0, 0, "", func(s *circuit.State, _, _ float64) { s.AuxParted = true })
	}
	aux(Parted, "the aux battery is open inside", "another", 0, 0, "", func(s *circuit.State, _, _ float64) { s.AuxOhm = openOhm })
	n := d.Facts.AuxN
	aux(Tired, "the aux battery has lost its capacity: full in no time, empty by the morning",
		"a capacity test: full, then a known load, timed, "+
			"to its cut-off; else another battery", 0.25, 0.9, "V", func(s *circuit.State, _, volts float64) {
			if s.SetV == 0 {
				s.AuxOwnV -= volts * n
			}
			if s.AcceptsA > 0 {
				s.AcceptsA *= 0.4
			}
		})
	aux(HouseDrain, "something on the aux battery stays on", "each load off in turn, the clamp at the battery", leastDrainA, 2*mostDrainA,
		"A",
		func(s *circuit.State, _, amps float64) { s.HouseA += amps })
	return list
}

// ofHands is what people leave as it should not be.
func ofHands(d *design.Design) (list []Fault) {
	if d.Facts.Extras.Isolator != job.NoIsolator {
		list = append(list, world(Isolated, "q1", "the isolator is off, or half turned", "on, to its stop", 0, 0, "",
			func(s *circuit.State, _, _ float64) { s.Isolated = true }))
	}
	for _, c := range d.System.Components {
		of, is := c.Device.(system.Control)
		if !is {
			continue
		}
		for _, at := range standings(of) {
			if at == of.Usual {
				continue
			}
			f := world(Forgotten, c.ID, c.Name+" stands at “"+string(at)+"”", "back where it usually stands", 0, 0, "",
				func(s *circuit.State, _, _ float64) {
					hands := map[string]system.Hand{c.ID: at}
					for id, hand := range s.Hands {
						if id != c.ID {
							hands[id] = hand
						}
					}
					s.Hands = hands
				})
			f.ID += " " + string(at)
			list = append(list, f)
		}
	}
	for _, a := range d.System.Attached {
		if panel, is := a.Device.(system.Panel); is && panel.Watts > 0 && a.Name == circuit.Sun {
			list = append(list, world(Sunny, "aux", "the sun gives too: what is read is not the engine's", "panels covered, and read again", 2,
				20,
				"A",
				func(s *circuit.State, _, amps float64) { s.SunA += amps }))
		}
	}
	return list
}

// standings are where a control may stand.
func standings(of system.Control) (list []system.Hand) {
	seen := map[system.Hand]bool{}
	for _, t := range of.Throws {
		for _, at := range t.At {
			if !seen[at] {
				seen[at], list = true, append(list, at)
			}
		}
	}
	return list
}
