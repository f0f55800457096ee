package judge

import (
	"math"

	"epitrope/core/battery"
	"epitrope/core/design"
	"epitrope/core/parts"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// A disconnect that leaves more than soonerBy of the capacity unused opens too soon, one
// that takes laterBy more than is usable too late. Source: common practice, no source.
const (
	soonerBy = 0.25
	laterBy  = 0.10
)

// UnderLoad is what stands at a disconnect while the battery gives a current.
var UnderLoad = working.Declare("U = E − I·R", "Ohm's law; rest voltage and resistance from memory",
	working.Symbol{Letter: "U", Name: "at the disconnect", Unit: "V", Digits: 2},
	working.Symbol{Letter: "E", Name: "battery at rest at that charge", Unit: "V", Digits: 2},
	working.Symbol{Letter: "I", Name: "taken", Unit: "A", Digits: 1},
	working.Symbol{Letter: "R", Name: "battery and wires", Unit: "Ω", Digits: 4})

var (
	voltFields = []string{"extras.opensV", "extras.closesV"}
	peakFields = []string{"extras.disconnectA", "extras.peakA"}
	cutFields  = []string{"extras.cuts"}
)

// disconnectLooks hold the low-voltage disconnect Q3 against the battery and the loads.
var disconnectLooks = []look{
	{"extra.disconnect.right", verdict.Good, working.Memory, voltFields,
		"Q3 opens at %.1f V: %.0f %% is left then (this chemistry should keep %.0f %%).",
		left(func(soc, keeps float64) bool { return soc >= keeps-laterBy && soc <= keeps+soonerBy })},
	{"extra.disconnect.soon", verdict.Caution, working.Memory, voltFields,
		"Q3 opens at %.1f V, with %.0f %% still in the battery (%.0f %% would be kept): too soon.",
		left(func(soc, keeps float64) bool { return soc > keeps+soonerBy })},
	{"extra.disconnect.late", verdict.Caution, working.Memory, voltFields,
		"Q3 opens at %.1f V, when only %.0f %% is left; this chemistry should keep %.0f %%.",
		left(func(soc, keeps float64) bool { return soc < keeps-laterBy })},
	{"extra.disconnect.hunts", verdict.Bad, working.Physics, voltFields,
		"Once Q3 has opened, the battery recovers to %.1f V, above the %.1f V at which it closes: on and off without end.",
		func(d *design.Design) []finding {
			if !d.Facts.Extras.Disconnect {
				return nil
			}
			rests, closes := restsAt(d, opensAt(d, spreadA(d))), d.Facts.Extras.ClosesV.Value
			return says(rests >= closes, "aux", rests, closes)
		}},
	{"extra.disconnect.over", verdict.Bad, working.Practice, peakFields,
		"All loads at once take %.0f A; Q3 bears %.0f A where it sits.",
		peak(func(takes, bears float64) bool { return takes > bears }, disconnectBearsA)},
	{"extra.disconnect.bears", verdict.Good, working.Practice, peakFields,
		"All loads at once take %.0f A, and Q3 is rated %.0f A.",
		peak(func(takes, bears float64) bool { return takes <= bears }, func(d *design.Design) float64 {
			return *d.Facts.Extras.DisconnectA
		})},
	{"extra.disconnect.open", verdict.Open, working.Practice, peakFields,
		"Ask: what do the loads take at most, and what is the disconnect rated?",
		func(d *design.Design) []finding {
			e := d.Facts.Extras
			return says(e.Disconnect && (e.PeakA == nil || e.DisconnectA == nil), "aux")
		}},
	{"extra.disconnect.peak", verdict.Caution, working.Physics, peakFields,
		"At %.0f A Q3 opens already with %.0f %% left: a delay longer than the peak, or thicker cable.",
		func(d *design.Design) []finding {
			e, most := d.Facts.Extras, 1-d.Facts.Chemistry.Usable+soonerBy
			if !e.Disconnect || e.PeakA == nil {
				return nil
			}
			soc := opensAt(d, *e.PeakA)
			return says(soc > most && opensAt(d, spreadA(d)) <= most, "aux", *e.PeakA, 100*soc)
		}},
	{"extra.disconnect.all", verdict.Bad, working.Practice, cutFields,
		"Q3 cuts off the whole battery: once it has opened, a charger sees no battery and does not begin. It belongs between battery and " +
			"loads alone.",
		func(d *design.Design) []finding {
			return says(d.Facts.Extras.Disconnect && d.Facts.Extras.Cuts == "battery", "aux")
		}},
	{"extra.disconnect.cuts.open", verdict.Open, working.Practice, cutFields,
		"Look: does Q3 cut off the loads alone, or the whole battery?",
		func(d *design.Design) []finding {
			return says(d.Facts.Extras.Disconnect && d.Facts.Extras.Cuts == "", "aux")
		}},
}

// spreadA is a day's use, spread over the day.
func spreadA(d *design.Design) float64 { return d.Facts.DailyAh.Value / 24 }

// restsAt is where the aux battery rests at a charge, in V.
func restsAt(d *design.Design, soc float64) float64 {
	return d.Facts.Chemistry.RestAt(soc, design.WarmC) * d.Facts.AuxN
}

// opensAt is the charge at which the disconnect's voltage is reached at a current, 0 to 1.
func opensAt(d *design.Design, amps float64) float64 {
	f := d.Facts
	ohm := parts.DisconnectOhm
	if d.FedHouse() {
		ohm = d.House.TotalOhm()
	}
	return battery.LeastCharge(func(soc float64) bool {
		return restsAt(d, soc)-amps*(f.Chemistry.OhmAt(f.AuxAh.Value, f.AuxN, soc, design.WarmC)+ohm) >= f.Extras.OpensV.Value
	}, 40)
}

// left finds what is left in the battery when the disconnect opens, beside what this chemistry
// should keep; both 0 to 1.
func left(holds func(soc, keeps float64) bool) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		f := d.Facts
		if !f.Extras.Disconnect {
			return nil
		}
		amps, keeps := spreadA(d), 1-f.Chemistry.Usable
		soc := opensAt(d, amps)
		return where(holds(soc, keeps), func() finding {
			own, opens := restsAt(d, soc), f.Extras.OpensV.Value
			fig := UnderLoad.MustWork(working.From(own, working.Memory, unit.Say("%s at %.0f %%", f.Chemistry.Label, 100*soc)),
				working.Is(amps, "a day's use, spread"), working.Is((own-opens)/math.Max(amps, 1e-6), "battery and feed"))
			return at("aux", opens, 100*soc, 100*keeps).by("disconnect", fig)
		})
	}
}

// disconnectBearsA is what the disconnect bears where it sits.
func disconnectBearsA(d *design.Design) float64 {
	return *d.Facts.Extras.DisconnectA * parts.ContactFactor(d.Facts.AuxBay.AmbientC)
}

// peak finds how what the loads take at most stands to what the disconnect bears, and tells it
// beside a rating.
func peak(holds func(takes, bears float64) bool, rating func(d *design.Design) float64) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		e := d.Facts.Extras
		if !e.Disconnect || e.PeakA == nil || e.DisconnectA == nil {
			return nil
		}
		return says(holds(*e.PeakA, disconnectBearsA(d)), "aux", *e.PeakA, rating(d))
	}
}
