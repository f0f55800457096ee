package job

import (
	"epitrope/core/battery"
	"epitrope/core/working"
)

// StartBattery is the battery that cranks.
type StartBattery struct {
	CapacityAh *float64 `json:"capacityAh,omitempty"`
	CrankA     *float64 `json:"crankA,omitempty"`
	Chemistry  *string  `json:"chemistry,omitempty"`
	Place      *string  `json:"place,omitempty"`
	AgeYears   *float64 `json:"ageYears,omitempty"`
	RestV      *float64 `json:"restV,omitempty"`
	RestHours  *float64 `json:"restHours,omitempty"`
	LoadedV    *float64 `json:"loadedV,omitempty"`
	LoadedA    *float64 `json:"loadedA,omitempty"`
	MOhm       *float64 `json:"mOhm,omitempty"`
	CrankV     *float64 `json:"crankV,omitempty"`
	CrankS     *float64 `json:"crankS,omitempty"`
}

// Aux is the auxiliary battery.
type Aux struct {
	Volts      *float64 `json:"volts,omitempty"`
	Chemistry  *string  `json:"chemistry,omitempty"`
	CapacityAh *float64 `json:"capacityAh,omitempty"`
	Place      *string  `json:"place,omitempty"`
	Count      *float64 `json:"count,omitempty"`
	Same       *string  `json:"same,omitempty"`
	Feed       *string  `json:"feed,omitempty"`
	LinkM      *float64 `json:"linkM,omitempty"`
	RestV      *float64 `json:"restV,omitempty"`
	RestHours  *float64 `json:"restHours,omitempty"`
	LoadedV    *float64 `json:"loadedV,omitempty"`
	LoadedA    *float64 `json:"loadedA,omitempty"`
	MOhm       *float64 `json:"mOhm,omitempty"`
	Curve      string   `json:"curve,omitempty"`
	SlowMOhm   *float64 `json:"slowMOhm,omitempty"`
	SlowS      *float64 `json:"slowS,omitempty"`
}

// defaultCrankS is how long a start takes. Source: common practice, no source.
const defaultCrankS = 2.0

// cellFields are what was measured of the two batteries, or what their sheets say.
var cellFields = []Field{
	{Path: "startBattery.restHours", Label: "Measured so long after it was charged", Kind: Number, Unit: "h", Max: 5000, Digits: 1,
		dim:  hours,
		Part: "start", Example: "6 h"},
	{Path: "startBattery.loadedV", Label: "Start battery under a load", Kind: Number, Unit: "V", Min: 1, Max: 14, Digits: 2,
		PerSystem: true,
		dim:       tension, Part: "start", Example: "12.3 V"},
	{Path: "startBattery.loadedA", Label: "The start battery's test load takes", Kind: Number, Unit: "A", Min: 0.5, Max: 2000, Digits: 1,
		dim:     current,
		Part:    "start",
		Example: "20 A"},
	{Path: "startBattery.mOhm", Label: "Or its resistance, measured", Kind: Number, Unit: "mΩ", Min: 0.2, Max: 500, Digits: 2,
		dim:  milliohms,
		Part: "start", Example: "7 mΩ"},
	{Path: "startBattery.crankV", Label: "Lowest while cranking", Kind: Number, Unit: "V", Min: 1, Max: 14, Digits: 2, PerSystem: true,
		dim: tension, Part: "start", Example: "10.2 V"},
	{Path: "startBattery.crankS", Label: "A start takes", Kind: Number, Unit: "s", Min: 0.2, Max: 60, Digits: 1, dim: moments,
		Part:    "start",
		Example: "1.5 s"},
	{Path: "aux.restHours", Label: "Measured so long after it was charged", Kind: Number, Unit: "h", Max: 5000, Digits: 1,
		dim: hours, Part: "aux",
		Example: "6 h"},
	{Path: "aux.loadedV", Label: "Aux battery under a load", Kind: Number, Unit: "V", Min: 1, Max: 16, Digits: 2, PerSystem: true,
		dim: tension, Part: "aux", Example: "12.3 V"},
	{Path: "aux.loadedA", Label: "The aux battery's test load takes", Kind: Number, Unit: "A", Min: 0.5, Max: 2000, Digits: 1, dim: current,
		Part: "aux", Example: "20 A"},
	{Path: "aux.mOhm", Label: "Or its resistance, measured", Kind: Number, Unit: "mΩ", Min: 0.2, Max: 500, Digits: 2, dim: milliohms,
		Part: "aux", Example: "4 mΩ"},
	{Path: "aux.curve", Label: "Rest volts of this battery, by its sheet or a log", Kind: Resting, Max: 600, Part: "aux",
		Example: "0 % 11.9, 50 % 13.1, 100 % 13.5"},
	{Path: "aux.slowMOhm", Label: "The slow part of its resistance", Kind: Number, Unit: "mΩ", Min: 0.1, Max: 500, Digits: 2,
		dim:  milliohms,
		Part: "aux", Example: "3 mΩ"},
	{Path: "aux.slowS", Label: "The slow part settles within", Kind: Number, Unit: "s", Min: 1, Max: 7200, dim: moments, Part: "aux",
		Example: "90 s"},
}

// Resistance is what a battery was measured to have: of its own, or by what a load does to it;
// ok is false where neither was measured whole.
func (s StartBattery) Resistance() (ohm float64, ok bool) {
	return resistance(s.MOhm, s.RestV, s.LoadedV, s.LoadedA)
}

// crankedC is how warm a battery is taken to be when cranking was measured.
const crankedC = 20.0

// cranked is the start battery's resistance by what cranking does to it, as far as it was measured:
// what the starter takes, and what the battery rests at, may be stand-ins.
func (f *Facts) cranked(s StartBattery) (ohm float64, ok bool) {
	rest := f.Survey.StartChemistry.RestV(1) * f.N
	if s.RestV != nil {
		rest = *s.RestV
	}
	if _, ok = resistance(nil, &rest, s.CrankV, &f.CrankA.Value); !ok {
		return 0, false
	}
	c, ah := f.Survey.StartChemistry, f.StartAh.Value
	asUsed := c.OhmAt(ah, f.N, battery.InUse, crankedC) / c.Ohm(ah, f.N)
	return battery.ByCrank(rest, *s.CrankV, f.CrankA.Value, f.Machine.KeyA.Value, func(ohm float64) float64 {
		return battery.Polarised(ohm*asUsed, ah, f.N, f.CrankS.Value)
	}), true
}

// Resistance is what the aux battery was measured to have.
func (a Aux) Resistance() (ohm float64, ok bool) {
	return resistance(a.MOhm, a.RestV, a.LoadedV, a.LoadedA)
}

func resistance(mOhm, restV, loadedV, loadedA *float64) (ohm float64, ok bool) {
	if mOhm != nil {
		return *mOhm / 1000, true
	}
	if restV == nil || loadedV == nil || loadedA == nil {
		return 0, false
	}
	return battery.ByLoad(*restV, *loadedV, *loadedA)
}

// Answers that say that a chemistry is still open.
const (
	Undecided = "undecided"
	Unknown   = "unknown"
)

// chemistry is the aux battery's; known is false where one stands in for what is still open.
func (r *resolver) chemistry(given *string) (c battery.Chemistry, known bool) {
	const path = "aux.chemistry"
	why := "what most new installations use"
	switch Str(given) {
	case "":
	case Undecided:
		why = "it is not decided; this stands in for it"
	case Unknown:
		why = "it is not known; this stands in for it"
	default:
		c, _ = battery.ByID(*given)
		return c, r.note(path, *given, true, "") != working.Assumed
	}
	r.note(path, battery.LiFePO4.ID, false, why)
	return battery.LiFePO4, false
}

// cells puts what was measured of the batteries into the place of what is usual of their kind.
func (f *Facts) cells(r *resolver, d Document) {
	s, a := d.StartBattery, d.Aux
	f.Survey.StartHours, f.Survey.AuxHours = r.some("startBattery.restHours", s.RestHours), r.some("aux.restHours", a.RestHours)
	f.Survey.CrankV = r.some("startBattery.crankV", s.CrankV)
	f.CrankS = r.num("startBattery.crankS", s.CrankS, defaultCrankS, "a usual start (common practice, no source)")
	r.some("startBattery.loadedV", s.LoadedV)
	r.some("startBattery.loadedA", s.LoadedA)
	r.some("startBattery.mOhm", s.MOhm)
	r.some("aux.loadedV", a.LoadedV)
	r.some("aux.loadedA", a.LoadedA)
	r.some("aux.mOhm", a.MOhm)
	ohm, ok := s.Resistance()
	if !ok {
		ohm, ok = f.cranked(s)
	}
	if f.Survey.StartMeasured = ok; ok {
		f.Survey.StartChemistry = f.Survey.StartChemistry.Resisting(ohm, f.StartAh.Value, f.N)
	}
	ohm, f.Survey.AuxMeasured = a.Resistance()
	if f.Survey.AuxMeasured {
		f.Chemistry = f.Chemistry.Resisting(ohm, f.AuxAh.Value, f.AuxN)
	}
	if a.Curve != "" {
		if curve, err := battery.ParseCurve(a.Curve); err == nil { // a document holds only curves that read
			r.note("aux.curve", a.Curve, true, "")
			f.Chemistry = f.Chemistry.Resting(curve)
		}
	}
	f.SlowMOhm, f.SlowS = r.some("aux.slowMOhm", a.SlowMOhm), r.some("aux.slowS", a.SlowS)
}
