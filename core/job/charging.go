package job

import "slices"

// Mains is the charger that the mains feed, where one is fitted. Voltages are the system's.
type Mains struct {
	OutputA     *float64 `json:"outputA,omitempty"`
	GeneratorW  *float64 `json:"generatorW,omitempty"`
	AbsorptionV *float64 `json:"absorptionV,omitempty"`
	FloatV      *float64 `json:"floatV,omitempty"`
	Compensated *string  `json:"compensated,omitempty"`
	Probe       *string  `json:"probe,omitempty"`
	Disable     *string  `json:"disable,omitempty"`
	How         string   `json:"how,omitempty"`
}

// Solar is how panels reach the aux battery: by a regulator of their own, or through the charger; and how
// that regulator is set. Voltages are the system's.
type Solar struct {
	Through     *string  `json:"through,omitempty"`
	Priority    *string  `json:"priority,omitempty"`
	AbsorptionV *float64 `json:"absorptionV,omitempty"`
	FloatV      *float64 `json:"floatV,omitempty"`
	Compensated *string  `json:"compensated,omitempty"`
	Probe       *string  `json:"probe,omitempty"`
	Disable     *string  `json:"disable,omitempty"`
	How         string   `json:"how,omitempty"`
}

// Monitor is how the battery monitor is set: what it counts on.
type Monitor struct {
	CapacityAh *float64 `json:"capacityAh,omitempty"`
	FullV      *float64 `json:"fullV,omitempty"`
	TailPct    *float64 `json:"tailPct,omitempty"`
	Efficiency *float64 `json:"efficiency,omitempty"`
	How        string   `json:"how,omitempty"`
}

// sourceFields are how a source of charging is set, under its section.
func sourceFields(section, its, the string) []Field {
	volts := func(path, label string, least, most float64, example string) Field {
		return Field{Path: section + path, Label: its + label, Kind: Number, Unit: "V", Min: least, Max: most, Digits: 2, PerSystem: true,
			dim: tension, Part: "aux", Example: example}
	}
	return []Field{
		volts(".absorptionV", " is set to, absorption", 12.5, 16.5, "14.4 V"),
		volts(".floatV", ", float; 0 where it rests", 0, 15, "13.5 V"),
		ask(section+".compensated", its+" follows the battery's temperature", "aux"),
		ask(section+".probe", its+" has a probe at the battery", "aux"),
		ask(section+".disable", "Charge-disable wired to "+the, "aux"),
		{Path: section + ".how", Label: its + " is set by", Kind: Text, Max: 120, Part: "aux", Example: "its switches, or its menu"},
	}
}

// chargingFields are how all that charges the aux battery is set besides the coupling's charger, and the
// monitor.
var chargingFields = slices.Concat([]Field{
	{Path: "mains.outputA", Label: "Mains charger gives", Kind: Number, Unit: "A", Min: 0.5, Max: 200, Digits: 1, dim: current, Part: "aux",
		Example: "20 A"},
	{Path: "mains.generatorW", Label: "A generator feeds it too, of", Kind: Number, Unit: "W", Max: 20000, dim: power, Part: "aux",
		Example: "1000 W"}},
	sourceFields("mains", "Mains charger", "the mains charger"),
	sourceFields("solar", "Solar regulator", "the solar regulator"), monitorFields)

// watched is where there is a monitor.
var watched = &When{Path: "extras.monitor", Is: []string{string(Yes)}}

// monitorFields are how the monitor is set.
var monitorFields = []Field{
	{Path: "monitor.capacityAh", Label: "Monitor counts on", Kind: Number, Unit: "Ah", Min: 1, Max: 5000, dim: chargeAt, Part: "aux",
		When: watched, Example: "100 Ah"},
	{Path: "monitor.fullV", Label: "Monitor takes the battery for full above", Kind: Number, Unit: "V", Min: 12, Max: 16, Digits: 2,
		PerSystem: true, dim: tension, Part: "aux", When: watched, Example: "14.2 V"},
	{Path: "monitor.tailPct", Label: "… with a current below, of its capacity", Kind: Number, Unit: "%", Min: 0.1, Max: 20,
		Digits: 1, dim: share, Part: "aux", When: watched, Example: "4 %"},
	{Path: "monitor.efficiency", Label: "Monitor's charge efficiency", Kind: Number, Unit: "%", Min: 50, Max: 100, dim: share,
		Part: "aux", When: watched, Example: "99 %"},
	{Path: "monitor.how", Label: "Monitor is set by", Kind: Text, Max: 120, Part: "aux", When: watched, Example: "its menu"},
}

// SourceFacts are how a source of charging is set; nil and open what nobody said.
type SourceFacts struct {
	ID, Name                    string
	Section                     string   // of the document
	OutputA                     *float64 // nil where nobody said, or where it follows the sun
	AbsorptionV, FloatV         *float64 // the system's
	Compensated, Probe, Disable Tri
	How                         string
}

// Answered says whether anything is known of how it is set.
func (s SourceFacts) Answered() bool {
	return s.AbsorptionV != nil || s.FloatV != nil || s.Compensated != Asked || s.Probe != Asked || s.Disable != Asked
}

// sources notes what charges the aux battery besides the coupling.
func (f *Facts) sources(r *resolver, d Document) {
	m, s := d.Mains, d.Solar
	r.some("monitor.capacityAh", d.Monitor.CapacityAh)
	r.some("monitor.fullV", d.Monitor.FullV)
	r.some("monitor.tailPct", d.Monitor.TailPct)
	r.some("monitor.efficiency", d.Monitor.Efficiency)
	f.GeneratorW = r.some("mains.generatorW", m.GeneratorW)
	mains := SourceFacts{"mains", "mains charger", "mains", r.some("mains.outputA", m.OutputA),
		r.some("mains.absorptionV", m.AbsorptionV), r.some("mains.floatV", m.FloatV), r.tri("mains.compensated", m.Compensated),
		r.tri("mains.probe", m.Probe), r.tri("mains.disable", m.Disable), m.How}
	if mains.OutputA != nil || mains.Answered() || m.How != "" || f.Need.MainsAh.Value > 0 {
		f.Sources = append(f.Sources, mains)
	}
	if f.Survey.SolarThrough {
		return
	}
	sun := SourceFacts{"sun", "solar regulator", "solar", nil, r.some("solar.absorptionV", s.AbsorptionV), r.some("solar.floatV", s.FloatV),
		r.tri("solar.compensated", s.Compensated), r.tri("solar.probe", s.Probe), r.tri("solar.disable", s.Disable), s.How}
	if sun.Answered() || s.How != "" || f.Day.SolarW.Value > 0 {
		f.Sources = append(f.Sources, sun)
	}
}
