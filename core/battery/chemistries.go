package battery

import (
	"fmt"
	"slices"
	"strings"

	"epitrope/core/unit"
)

// Chemistry is a kind of battery: all that is known of it stands in one literal below.
// Voltages are for a 12 V battery at 25 °C.
type Chemistry struct {
	ID, Label string
	Lead      bool // lead: its charge tapers, and it wants to be full; all others have a management system
	Vented    bool // gives off gas: only where it vents outside
	Starts    bool // is met as a start battery
	StartOnly bool // … and as nothing else

	Usable         float64 // share of the label that is used in practice
	Efficiency     float64 // charge got back for charge put in
	ChargeLow      float64 // continuous charge current as a share of capacity: advised
	ChargeHigh     float64 // … and at most
	NoChargeBelowC float64 // its cells must not be charged below; none such for lead

	rest     Curve   // at rest, from empty to full
	restPerK float64 // rest voltage by temperature, V/K
	mOhmAh   float64 // internal resistance times capacity at full charge, mΩ·Ah
	emptier  float64 // resistance added when empty, as a share
	colder   float64 // growth of resistance for each kelvin below 25 °C, as a share
	knee     float64 // charge from which it accepts less

	Profile Profile // what it wants to be charged at
	Stages  Stages  // how long, and when again
	Setting Setting // how a charger whose card says nothing else is set for it

	LosesIn30Days float64 // by itself at 20 °C, as a share of its capacity
	KeepsOver     float64 // charge that it is not to fall below while it stands, 0 to 1
	StandsDays    float64 // it stands at 20 °C at most, whatever it loses by itself
	OpensV        float64 // a low-voltage disconnect commonly opens at
	ClosesV       float64 // … and closes at
}

// Profile is what a 12 V battery at 25 °C wants to be charged at; a 24 V one
// wants twice that.
type Profile struct {
	AbsorptionLow, AbsorptionHigh float64 // V
	FloatLow, FloatHigh           float64 // V; zero where none is wanted
	PerK                          float64 // V/K, negative: less when warm; 0 where none is wanted
	HarmV                         float64 // harmed above; its management system opens
}

// Stages are how a charger goes through its stages for a chemistry.
type Stages struct {
	AbsorptionS float64 // absorption ends after
	AgainV      float64 // bulk again below
}

// Setting is how a charger with two configuration leads is set: what each is joined to, and
// how that is done.
type Setting struct{ A, B, How string }

// point is a rest voltage, in V, at a state of charge.
type point struct{ soc, volts float64 }

func lead(above float64) Curve {
	return Curve{{0, 11.8 + above}, {0.25, 12.0 + above}, {0.5, 12.2 + above}, {0.75, 12.4 + above}, {1, 12.7 + above}}
}

// A low-voltage disconnect on lead. Source: from memory.
const (
	leadOpensV  = 11.8
	leadClosesV = 12.8
)

// The chemistries. Usable share: about half for lead, 80–100 % for LiFePO4
// (common practice, no source). Rest voltages, resistance, its growth with
// discharge and cold, efficiency, profiles and self-discharge: from memory. How long each may
// stand: common practice, no source: flooded one to three months, calcium three to six, AGM and gel
// within about six, LiFePO4 looked at twice a year. Charge limits:
// from memory; the battery's own sheet wins. Compensation: the middle of −24 to −30 mV/K for
// flooded, −24 for calcium and AGM, −20 for gel. No charge of LiFePO4 below freezing, the end
// of absorption after four hours, bulk again below 13.2 V (LiFePO4 13.1): common practice, no
// source. Settings of a charger: assumed; the device's own sheet wins. Sodium-ion, as a pack
// of four layered-oxide cells in series: all from memory.
var (
	Flooded = Chemistry{
		ID: "flooded", Label: "flooded lead", Lead: true, Vented: true, Starts: true,
		Usable: 0.5, Efficiency: 0.85, ChargeLow: 0.1, ChargeHigh: 0.2, NoChargeBelowC: noLimitC,
		rest: lead(0), restPerK: 0.0015, mOhmAh: 600, emptier: 1, colder: 0.010, knee: 0.8,
		Profile: Profile{AbsorptionLow: 14.4, AbsorptionHigh: 14.8, FloatLow: 13.4, FloatHigh: 13.8, PerK: -0.027, HarmV: 15.2},
		Stages:  Stages{AbsorptionS: 4 * 3600, AgainV: 13.2}, Setting: Setting{"ground", "open", "lead A to ground"},
		LosesIn30Days: 0.06, KeepsOver: 0.75, StandsDays: 60, OpensV: leadOpensV, ClosesV: leadClosesV,
	}
	Calcium = Chemistry{
		ID: "calcium", Label: "calcium lead", Lead: true, Vented: true, Starts: true,
		Usable: 0.5, Efficiency: 0.85, ChargeLow: 0.1, ChargeHigh: 0.2, NoChargeBelowC: noLimitC,
		rest: lead(0), restPerK: 0.0015, mOhmAh: 550, emptier: 1, colder: 0.010, knee: 0.8,
		Profile: Profile{AbsorptionLow: 14.8, AbsorptionHigh: 15.3, FloatLow: 13.5, FloatHigh: 13.8, PerK: -0.024, HarmV: 15.6},
		Stages:  Stages{AbsorptionS: 4 * 3600, AgainV: 13.2}, Setting: Setting{"ground", "ground", "leads A and B to ground"},
		LosesIn30Days: 0.03, KeepsOver: 0.75, StandsDays: 120, OpensV: leadOpensV, ClosesV: leadClosesV,
	}
	EFB = Chemistry{
		ID: "efb", Label: "EFB lead", Lead: true, Vented: true, Starts: true, StartOnly: true,
		Usable: 0.5, Efficiency: 0.87, ChargeLow: 0.1, ChargeHigh: 0.25, NoChargeBelowC: noLimitC,
		rest: lead(0), restPerK: 0.0015, mOhmAh: 450, emptier: 1, colder: 0.010, knee: 0.8,
		Profile: Profile{AbsorptionLow: 14.4, AbsorptionHigh: 14.8, FloatLow: 13.5, FloatHigh: 13.8, PerK: -0.024, HarmV: 15.4},
		Stages:  Stages{AbsorptionS: 4 * 3600, AgainV: 13.2}, Setting: Setting{"ground", "battery", "lead A to ground, lead B to " +
			"battery plus"},
		LosesIn30Days: 0.03, KeepsOver: 0.75, StandsDays: 60, OpensV: leadOpensV, ClosesV: leadClosesV,
	}
	AGM = Chemistry{
		ID: "agm", Label: "AGM", Lead: true, Starts: true,
		Usable: 0.5, Efficiency: 0.90, ChargeLow: 0.25, ChargeHigh: 0.4, NoChargeBelowC: noLimitC,
		rest: lead(0.1), restPerK: 0.0015, mOhmAh: 400, emptier: 1, colder: 0.010, knee: 0.8,
		Profile: Profile{AbsorptionLow: 14.4, AbsorptionHigh: 14.7, FloatLow: 13.5, FloatHigh: 13.7, PerK: -0.024, HarmV: 14.9},
		Stages:  Stages{AbsorptionS: 4 * 3600, AgainV: 13.2}, Setting: Setting{"open", "open", "both configuration leads left open and " +
			"insulated"},
		LosesIn30Days: 0.025, KeepsOver: 0.75, StandsDays: 180, OpensV: leadOpensV, ClosesV: leadClosesV,
	}
	Gel = Chemistry{
		ID: "gel", Label: "gel", Lead: true,
		Usable: 0.5, Efficiency: 0.90, ChargeLow: 0.15, ChargeHigh: 0.2, NoChargeBelowC: noLimitC,
		rest: lead(0.1), restPerK: 0.0015, mOhmAh: 500, emptier: 1, colder: 0.012, knee: 0.8,
		Profile: Profile{AbsorptionLow: 14.1, AbsorptionHigh: 14.3, FloatLow: 13.5, FloatHigh: 13.8, PerK: -0.020, HarmV: 14.4},
		Stages:  Stages{AbsorptionS: 4 * 3600, AgainV: 13.2}, Setting: Setting{"open", "ground", "lead B to ground"},
		LosesIn30Days: 0.025, KeepsOver: 0.75, StandsDays: 180, OpensV: leadOpensV, ClosesV: leadClosesV,
	}
	LiFePO4 = Chemistry{
		ID: "lifepo4", Label: "LiFePO4", Starts: true,
		Usable: 0.8, Efficiency: 0.97, ChargeLow: 0.3, ChargeHigh: 0.5, NoChargeBelowC: 0,
		rest: Curve{{0, 10.5}, {0.05, 12.3}, {0.10, 12.7}, {0.15, 12.87}, {0.25, 13.0}, {0.5, 13.2}, {0.75, 13.3}, {0.95, 13.34},
			{1, 13.5}},
		restPerK: 0.0002, mOhmAh: 300, emptier: 0.3, colder: 0.030, knee: 0.98,
		Profile: Profile{AbsorptionLow: 14.2, AbsorptionHigh: 14.4, FloatHigh: 13.5, HarmV: 14.6},
		Stages:  Stages{AbsorptionS: 3600, AgainV: 13.1}, Setting: Setting{"battery", "open", "lead A to battery plus, over 1 A"},
		LosesIn30Days: 0.03, KeepsOver: 0.30, StandsDays: 180, OpensV: 12.4, ClosesV: 13.3,
	}
	SodiumIon = Chemistry{
		ID: "sodium", Label: "sodium-ion",
		Usable: 0.8, Efficiency: 0.95, ChargeLow: 0.3, ChargeHigh: 0.5, NoChargeBelowC: -20,
		rest:     Curve{{0, 8.0}, {0.05, 9.6}, {0.10, 10.6}, {0.25, 11.6}, {0.5, 12.6}, {0.75, 13.8}, {0.95, 14.9}, {1, 15.2}},
		restPerK: 0.001, mOhmAh: 400, emptier: 0.5, colder: 0.020, knee: 0.98,
		Profile: Profile{AbsorptionLow: 15.4, AbsorptionHigh: 15.6, FloatHigh: 15.0, HarmV: 15.9},
		Stages:  Stages{AbsorptionS: 3600, AgainV: 14.2}, Setting: Setting{"open", "battery", "lead B to battery plus, over 1 A"},
		LosesIn30Days: 0.03, KeepsOver: 0.30, StandsDays: 180, OpensV: 10.8, ClosesV: 12.4,
	}
)

// noLimitC is no limit of cold to charging.
const noLimitC = -273.0

// Chemistries lists them in the order they are offered.
var Chemistries = []Chemistry{LiFePO4, AGM, Gel, Calcium, Flooded, EFB, SodiumIon}

// House lists those that are met as auxiliary batteries.
func House() []Chemistry {
	return slices.DeleteFunc(slices.Clone(Chemistries), func(c Chemistry) bool { return c.StartOnly })
}

// Name is the label as a sentence begins with it.
func (c Chemistry) Name() string { return unit.Capital(c.Label) }

// Managed says whether cells are watched by a management system, which may open.
func (c Chemistry) Managed() bool { return !c.Lead }

// MayCharge says whether its cells may be charged at a temperature.
func (c Chemistry) MayCharge(cellC float64) bool { return cellC >= c.NoChargeBelowC }

// ByID finds a chemistry. It returns an error naming those allowed.
func ByID(id string) (Chemistry, error) {
	ids := make([]string, len(Chemistries))
	for i, c := range Chemistries {
		if c.ID == id {
			return c, nil
		}
		ids[i] = c.ID
	}
	return Chemistry{}, fmt.Errorf("%q is not a chemistry; allowed are %s", id, strings.Join(ids, ", "))
}
