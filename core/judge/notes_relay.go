package judge

import (
	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// relayRules are about a plain contact between the batteries, and one that senses.
var relayRules = []rule{
	{"relay.surge", verdict.Stop, working.Memory,
		"The aux battery takes %s; %s is what it accepts.",
		"Nothing limits the current but the circuit: the alternator may overheat.",
		ofContacts(func(d *design.Design) []finding {
			accepts := d.Rates.Accepts
			over := d.Aux.Amps > accepts.Unrounded*(1+design.SettledWithin)
			return where(over && !d.Facts.Chemistry.Lead, func() finding { // lead takes more for minutes, and tapers
				takes, may := unit.Apart(d.Aux.Amps, accepts.Unrounded, "A", 0)
				return at("aux", takes, may).cure(otherCoupling())
			})
		})},
	{"relay.undercharge", verdict.Beware, working.Memory,
		"The aux battery never sees more than %s; %s wants %s.",
		"The battery is charged; the last part takes long that way, and lead that is seldom full ages sooner.",
		ofContacts(func(d *design.Design) []finding {
			full := d.ChargesAtV()
			return where(full < d.Profile.AbsorptionLow, func() finding {
				return at("aux", unit.Text(full, "V", 1), d.Facts.Chemistry.Label, unit.Text(d.Profile.AbsorptionLow, "V", 1)).
					cure(otherCoupling())
			})
		})},
	{"relay.open", verdict.Stop, working.Physics,
		"In the state “%s” the start battery has %s and the relay, which closes at %s, stays open: no charge at all.",
		"A voltage-sensing relay knows nothing but voltage.",
		sensing(func(s *design.State, _ float64) bool { return !s.Joined }, busV, func(s design.State, cutInV, _ float64) finding {
			has, closes := unit.Apart(s.BusV, cutInV, "V", 1)
			return at("coupling", s.Label, has, closes).cure(otherCoupling()).ifVaries(s.Doubtful)
		})},
	{"relay.idle", verdict.Remark, working.Physics,
		"In the state “%s” the start battery has %s and the relay's cut-out is %s: the relay opens, and stays open until there is more.",
		"The alternator has no more there: thicker cable is no cure.",
		sensing(func(s *design.State, cutOutV float64) bool {
			return s.Joined && s.BusV < cutOutV && s.SensedV < cutOutV
		},
			busV, func(s design.State, _, cutOutV float64) finding {
				f := at("coupling", s.Label, unit.Text(s.BusV, "V", 2), unit.Text(cutOutV, "V", 1))
				if !s.Idles {
					f = f.heavier(verdict.Beware)
				}
				return f
			})},
	{"relay.chatter", verdict.Beware, working.Physics,
		"In the state “%s” the start battery has %s and the relay senses %s, below its cut-out of %s: it opens, recovers, closes again.",
		"Thin cable before the relay drags down what it senses. Thicker cable or a better earth on that side.",
		sensing(func(s *design.State, cutOutV float64) bool {
			return s.Joined && s.BusV >= cutOutV && s.SensedV < cutOutV
		},
			func(s *design.State) float64 { return s.SensedV }, func(s design.State, _, cutOutV float64) finding {
				return at("coupling", s.Label, unit.Text(s.BusV, "V", 2), unit.Text(s.SensedV, "V", 2), unit.Text(cutOutV, "V", 1)).
					cure(otherCoupling()).ifVaries(s.Doubtful)
			})},
	{"bypass.hunts", verdict.Beware, working.Physics,
		"In the state “%s” the start side has %s, and the high-current stage parts below %s: it joins and parts again, drive after drive.",
		"Thresholds want a machine that holds its voltage. One that eases off wants a charger alone, or a stage that its signal alone joins.",
		func(d *design.Design) []finding {
			if d.Is.Beside != design.Bypass {
				return nil
			}
			dropV := coupling.UsualHighCurrent.DropV * d.Facts.N
			s, hunts := d.WorstWhere(func(s *design.State) bool { return !s.Idles && s.Err == nil && s.InV < dropV }, inV)
			return where(hunts, func() finding {
				return at("coupling", s.Label, unit.Text(s.InV, "V", 2), unit.Text(dropV, "V", 2)).cure(otherCoupling())
			})
		}},
	{"relay.night", verdict.Stop, working.Physics,
		"Parked, %s holds the relay at %s, above its cut-out of %s: it stays closed.",
		"House and vehicle live on one bank all night, until it is nearly empty, and nothing is isolated when people think it is.",
		func(d *design.Design) []finding {
			parked := d.StateBy("parked")
			return where(d.Is.Senses && parked.Joined, func() finding {
				return at("coupling", d.Facts.Chemistry.Label, unit.Text(parked.SensedV, "V", 1),
					unit.Text(d.Contact.Sensing.CutOutV*d.Facts.N, "V", 1)).cure(otherCoupling())
			})
		}},
}

// coilRules are about what works a contact.
var coilRules = []rule{
	{"coil.undamped", verdict.Beware, working.Practice,
		"The coil has neither a diode nor a resistor across it.",
		"As it lets go it puts hundreds of volts on its feed, into whatever shares it. A diode or a resistor across 85 and 86.",
		func(d *design.Design) []finding {
			return where(d.Facts.Relay.Damped == job.No && (d.Kind.Coil() || d.Relayed()), func() finding { return at("coupling") })
		}},
}

// ofContacts lets a rule speak of a plain contact between two batteries.
func ofContacts(finds func(d *design.Design) []finding) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		if d.Kind.Charger() || d.Is.OwnMachine {
			return nil
		}
		return finds(d)
	}
}

// sensing lets a rule speak of a sensing relay in the worst state of charging in which it fails, with its
// thresholds.
func sensing(fails func(s *design.State, cutOutV float64) bool, volts func(s *design.State) float64,
	says func(s design.State, cutInV, cutOutV float64) finding) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		if !d.Is.Senses {
			return nil
		}
		in, out := d.Contact.Sensing.CutInV*d.Facts.N, d.Contact.Sensing.CutOutV*d.Facts.N
		s, found := d.WorstWhere(func(s *design.State) bool { return fails(s, out) }, volts)
		return where(found, func() finding { return says(s, in, out) })
	}
}

func busV(s *design.State) float64 { return s.BusV }
func inV(s *design.State) float64  { return s.InV }
