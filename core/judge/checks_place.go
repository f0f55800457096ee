package judge

import (
	"math"
	"slices"

	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/system"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// contactMostC is how warm a contact's place may be before it bears little. Source: from
// memory.
const contactMostC = 85.0

// placeLooks are about the place of the coupling.
var placeLooks = slices.Concat(
	asked("exhaust", job.No, verdict.Bad, func(p job.PlacingFacts) job.Tri { return p.Exhaust },
		"The coupling sits near exhaust, turbo or radiator: 60–90 °C, where a relay senses wrong and a charger gives nothing.",
		"The coupling sits away from exhaust, turbo and radiator.",
		"Look: is the coupling away from exhaust, turbo and radiator?"),
	asked("spray", job.No, verdict.Caution, func(p job.PlacingFacts) job.Tri { return p.Spray },
		"The coupling is in reach of spray: terminals corrode, a contact that corrodes burns.",
		"The coupling is out of reach of spray and wading.",
		"Look: can spray or wading reach the coupling?"),
	asked("gas", job.No, verdict.Bad, func(p job.PlacingFacts) job.Tri { return p.Gas },
		"The coupling sits in the gas of a vented battery: a contact's spark lights that.",
		"The coupling is away from the gas of vented batteries.",
		"Look: is a vented battery beside the coupling?"),
	asked("moving", job.Yes, verdict.Bad, func(p job.PlacingFacts) job.Tri { return p.Moving },
		"Something that moves can touch the coupling: strut, door, seat or belt.",
		"The coupling is clear of struts, doors, seats and belts.",
		"Look: is the coupling clear of bonnet struts, doors, seats and belts through their whole travel?"),
	asked("visible", job.Yes, verdict.Caution, func(p job.PlacingFacts) job.Tri { return p.Visible },
		"The coupling's lamp cannot be seen: nobody will know when charging stopped.",
		"The coupling's lamp can be seen.",
		"Look: can the coupling's lamp be seen without taking anything off?"),
	asked("access", job.Yes, verdict.Caution, func(p job.PlacingFacts) job.Tri { return p.Access },
		"The coupling cannot be reached for service.",
		"The coupling can be reached for service.",
		"Look: can the coupling be reached without taking furniture out?"),
	asked("housed", job.Yes, verdict.Caution, func(p job.PlacingFacts) job.Tri { return p.Housed },
		"Something live there is in no housing made for it: a tool, a load that slides or a wet hand finds it.",
		"All that is live is in a housing made for it.",
		"Look: is everything live in a housing made for it, holders and bars too?"),
	asked("ground", job.Yes, verdict.Caution, func(p job.PlacingFacts) job.Tri { return p.Ground },
		"The coupling's ground lead carries another's current: what that loses there shifts what the coupling measures, and both fail "+
			"together.",
		"The coupling's ground lead is its own.",
		"Look: does the coupling's ground lead carry its own current alone?"),
	[]look{
		{"place.against", verdict.Caution, working.Physics, []string{"relay.against"},
			"The relay senses against the aux battery's earth point: %.0f A in that lead shift what it sees by %.2f V.",
			func(d *design.Design) []finding {
				early := d.StateBy("early")
				shift := circuit.Had(early.Solved.Across("coupling.31", "0"))
				return where(d.Is.Senses && d.Facts.Relay.AtAuxEarth && early.OutA > 0, func() finding {
					return at("coupling", early.OutA, math.Abs(shift)).
						cure(verdict.Set("The relay's ground goes to the start battery's earth", "relay.against", job.AgainstStart))
				})
			}},
		{"place.beside", verdict.Caution, working.Practice, []string{"placing.gas", "routes.auxM", "routes.startM"},
			"By its cable the coupling sits %.1f m from the %s battery, which gives off gas: look that the coupling is out of that, and " +
				"not above the battery.",
			ventedBeside},
		{"place.heat", verdict.Good, working.Practice, []string{"bays.startC"},
			"The coupling's place gets %.0f °C; up to %.0f °C the coupling does all it can.",
			func(d *design.Design) []finding { return warm(d, d.AtStart()) }},
		{"place.heat", verdict.Good, working.Practice, []string{"bays.auxC"},
			"The coupling's place gets %.0f °C; up to %.0f °C the coupling does all it can.",
			func(d *design.Design) []finding { return warm(d, !d.AtStart()) }},
		{"place.terminals", verdict.Caution, working.Practice, []string{"placing.terminals"},
			"The coupling's terminals point down: water runs to them, and nuts work loose onto them.",
			func(d *design.Design) []finding { return says(pointing(d) == "down", "coupling") }},
		{"place.terminals.good", verdict.Good, working.Practice, []string{"placing.terminals"},
			"The coupling's terminals point up or lie level.",
			func(d *design.Design) []finding {
				return says(pointing(d) == "up" || pointing(d) == "level", "coupling")
			}},
		{"place.terminals.open", verdict.Open, working.Practice, []string{"placing.terminals"},
			"Look: which way do the coupling's terminals point?",
			func(d *design.Design) []finding { return says(pointing(d) == "", "coupling") }},
		{"place.sensing", verdict.Good, working.Practice, []string{"routes.startM"},
			"%.1f m from the start battery the relay senses %s less than the battery has while charged; up to %s that is true enough.",
			func(d *design.Design) []finding {
				return where(d.Is.Senses, func() finding {
					early := d.StateBy("early")
					less := max(0, early.BusV-early.SensedV)
					is, may := unit.Apart(less, design.SensesWithinV*d.Facts.N, "V", 2)
					f := at("coupling", d.Facts.StartM.Value, is, may)
					if less > design.SensesWithinV*d.Facts.N {
						f = f.as(verdict.Caution)
					}
					return f
				})
			}},
		{"place.socket", verdict.Caution, working.Practice, nil,
			"With the engine off and the plug pulled the socket is still live: a cover that closes by itself, keyed housings, and the feed " +
				"switched by the ignition where it can be.",
			func(d *design.Design) []finding {
				return where(d.Facts.Place.Trailer && halfLive(d, vehicleHalf), func() finding { return at("x1").heavier(verdict.Remark) })
			}},
		{"place.socket.good", verdict.Good, working.Practice, nil,
			"With the engine off the socket is dead.",
			func(d *design.Design) []finding {
				return says(d.Facts.Place.Trailer && !halfLive(d, vehicleHalf), "x1")
			}},
		{"place.halves", verdict.Caution, working.Practice, nil,
			"With X1 pulled and the engine off, %s live: caps on both halves, contacts that no finger or spanner reaches, and switched off before " +
				"it is pulled.",
			func(d *design.Design) []finding {
				which := liveHalves(d)
				return where(d.Plugged() && !d.Facts.Place.Trailer && which != "", func() finding {
					return at("x1", which).heavier(verdict.Remark)
				})
			}},
		{"place.halves.good", verdict.Good, working.Practice, nil,
			"With X1 pulled and the engine off both its halves are dead.",
			func(d *design.Design) []finding {
				return says(d.Plugged() && !d.Facts.Place.Trailer && liveHalves(d) == "", "x1")
			}},
		{"place.box", verdict.Good, working.Physics,
			[]string{"placing.lengthMM", "placing.widthMM", "placing.heightMM", "placing.vented"},
			"In the %s box the air gets to %.0f °C, and the charger settles at %.0f of %.0f A.",
			inBox},
	})

// asked is a question about the place: the answer that is wanted, how bad the other one is, and
// what is said of the other one, of the wanted one, and where nobody has looked.
func asked(about string, good job.Tri, wrong verdict.Level, given func(job.PlacingFacts) job.Tri, isWrong, isGood, isOpen string) []look {
	fields := []string{"placing." + about}
	answered := func(holds func(job.Tri) bool) func(d *design.Design) []finding {
		return func(d *design.Design) []finding { return says(holds(given(d.Facts.Survey.Placing)), "coupling") }
	}
	return []look{
		{"place." + about, wrong, working.Practice, fields, isWrong,
			answered(func(t job.Tri) bool { return t != good && t != job.Asked })},
		{"place." + about + ".good", verdict.Good, working.Practice, fields, isGood, answered(func(t job.Tri) bool { return t == good })},
		{"place." + about + ".open", verdict.Open, working.Practice, fields, isOpen,
			answered(func(t job.Tri) bool { return t == job.Asked })},
	}
}

// besideM is how near a battery's gas can reach a contact. Source: from memory: half a metre; by its
// cable that is about twice as far.
const besideM = 1.0

// ventedBeside is whether a battery that gives off gas stands beside the coupling, as far as the
// document knows, and nobody looked.
func ventedBeside(d *design.Design) []finding {
	near, name, vented := d.Facts.AuxM.Value, "aux", d.Facts.Chemistry.Vented && d.Facts.ChemistryKnown
	if d.AtStart() {
		near, name, vented = d.Facts.StartM.Value, "start", d.StartChemistry().Vented && d.Doc.StartBattery.Chemistry != nil
	}
	return says(d.Facts.Survey.Placing.Gas == job.Asked && vented && near <= besideM, "coupling", near, name)
}

// pointing is which way the terminals point; a relay's are level or up.
func pointing(d *design.Design) string { return d.Facts.Survey.Placing.Terminals }

// warm holds the coupling's place against what it bears.
func warm(d *design.Design, here bool) []finding {
	if !here {
		return nil
	}
	isC, mostC := d.CouplingBay().AmbientC, contactMostC
	if d.Kind.Charger() {
		mostC = d.Charger.MaxAmbientC
	}
	f := at("coupling", isC, mostC)
	if isC > mostC {
		f = f.as(verdict.Caution)
	}
	return []finding{f}
}

// The plus contacts of a plug: on the vehicle's half, and on the other.
const (
	vehicleHalf = "+"
	otherHalf   = "+t"
)

// liveHalves says which halves of the plug are live with it pulled and the engine off, and from what; "" where
// none is.
func liveHalves(d *design.Design) string {
	inside, out := halfLive(d, vehicleHalf), halfLive(d, otherHalf)
	switch {
	case inside && out:
		return "the half in the vehicle, from the start battery, and the half on the box, from the aux battery, are"
	case inside:
		return "the half in the vehicle is"
	case out:
		return "the half on the box, from the aux battery, is"
	}
	return ""
}

// halfLive is whether a half of the plug is live with the engine off and the plug pulled.
func halfLive(d *design.Design, half string) bool {
	live, socket := d.LiveWires("engine", "x1"), system.Terminal{Component: "x1", Terminal: half}
	return slices.ContainsFunc(d.System.Wires, func(w system.Wire) bool {
		_, is := live[w.ID]
		return is && (w.From == socket || w.To == socket)
	})
}

// boxed is a charger in the box that it sits in.
type boxed struct {
	share float64 // of its full output, that it settles at
	airC  float64
	how   string // closed or vented
	Work  working.Figure
}

// InBox is what a charger gives in its box; ok is false where that was not measured.
func InBox(d *design.Design) (b boxed, ok bool) {
	p := d.Facts.Survey.Placing
	if !d.Kind.Charger() || p.LengthMM == nil || p.WidthMM == nil || p.HeightMM == nil {
		return boxed{}, false
	}
	worst := d.WorstState()
	lost := worst.LostW
	alpha, how := coupling.ClosedBox, "closed"
	if p.Vented == job.Yes {
		alpha, how = coupling.VentedBox, "vented"
	}
	area := coupling.BoxAreaM2(*p.LengthMM, *p.WidthMM, *p.HeightMM)
	share, boxC := coupling.InBox(d.Aux.Bay.AmbientC, lost, 1/(alpha*area), d.Charger.MaxAmbientC)
	work := coupling.BoxC.MustWork(working.From(d.Aux.Bay.AmbientC, working.Practice, d.Aux.Bay.Label),
		working.Is(lost*share, "at the output that it settles at"), working.From(alpha, working.Memory, how+" box"),
		working.From(area, working.Surveyed, "six walls"))
	return boxed{share, boxC, how, work}, true
}

// inBox finds what a charger gives in its box.
func inBox(d *design.Design) []finding {
	b, ok := InBox(d)
	return where(ok, func() finding {
		f := at("coupling", b.how, b.airC, b.share*d.Charger.OutputA, d.Charger.OutputA).by("box", b.Work)
		switch {
		case b.share < 0.5:
			return f.as(verdict.Bad)
		case b.share < 0.95:
			return f.as(verdict.Caution)
		}
		return f
	})
}
