package study

import (
	"fmt"
	"math"

	"epitrope/core/coupling"
	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/rig"
	"epitrope/core/unit"
)

// Method is a coupling beside the others: the rules, what its circuit does, and what it
// comes to through time.
type Method struct {
	Consequence
	Driven
}

// Driven is what a coupling comes to through time.
type Driven struct {
	To80H   float64 `json:"to80H" doc:"Driving from where the aux battery begins to 80 %, nothing used, in h; −1 never within two days' driving"`
	FullH   float64 `json:"fullH" doc:"… until it is full"`
	FromPct float64 `json:"fromPct" doc:"Where it begins, in %"`
	Week    Outcome `json:"week"`
	Aims    []Met   `json:"aims" doc:"The days as they are driven"`
	Fails   Failing `json:"fails" doc:"What it does if its signal fails"`
	Stopped string  `json:"stopped,omitempty" doc:"Why a run could not go on"`
}

// Failing is what a coupling does if its signal fails one way or the other.
type Failing struct {
	Dead      string  `json:"dead" doc:"The signal stays away"`
	Live      string  `json:"live" doc:"It stays live, or the contact stays closed, with the key out"`
	HalfAfter float64 `json:"halfAfter" doc:"Start battery half empty then, or unable to start, after so many hours parked; −1 never"`
}

// Methods is every coupling on a job, in the circuit and through time.
func Methods(now *design.Design) []Method {
	out := make([]Method, len(coupling.Kinds()))
	eachOn(now, func(i int, d *design.Design) {
		out[i] = Method{Consequence: consequence(d, d.Kind == now.Kind), Driven: driven(d, nil)}
	})
	return out
}

// Consequences is every coupling on a job without running it.
func Consequences(now *design.Design) []Consequence {
	out := make([]Consequence, len(coupling.Kinds()))
	eachOn(now, func(i int, d *design.Design) { out[i] = consequence(d, d.Kind == now.Kind) })
	return out
}

// Drive runs one coupling on a job. halt, where it is not nil, is asked now and then whether
// to stop.
func Drive(now *design.Design, kind coupling.Kind, halt func() bool) Driven {
	return driven(on(now, kind), halt)
}

// eachOn decides a job with every coupling, on all processors.
func eachOn(now *design.Design, use func(i int, d *design.Design)) {
	kinds := coupling.Kinds()
	many(len(kinds), nil, func(i int, _ func() bool) { use(i, on(now, kinds[i])) })
}

// on decides a job with a coupling, where another may be fitted.
func on(now *design.Design, kind coupling.Kind) *design.Design {
	doc, pin := now.Doc, string(kind)
	if was := doc.Pins.Coupling; was != nil && *was == pin {
		return now
	}
	doc.Pins.Coupling = &pin
	if kind != now.Kind {
		doc.Pins = only(doc.Pins)
	}
	return now.With(doc)
}

// only is what of the pins holds for another coupling: its return and kind of fuse, not
// the sizes pinned for this one.
func only(p job.Pins) job.Pins {
	return job.Pins{Coupling: p.Coupling, Device: p.Device, Return: p.Return, PlugA: p.PlugA, SecondA: p.SecondA, Selector: p.Selector}
}

// chargedH is how long a battery is charged to see when it is full.
const chargedH = 48.0

func driven(d *design.Design, halt func() bool) Driven {
	m := Driven{To80H: -1, FullH: -1}
	m.charge(d, halt)
	week, err := once(d, rig.Nominal, halt)
	if err != nil {
		m.Stopped = err.Error()
	}
	m.Week, m.Aims = week, week.Judge()
	m.fail(d)
	return m
}

// charge drives on, nothing used and no sun, until the aux battery is full.
func (m *Driven) charge(d *design.Design, halt func() bool) {
	v := rig.Nominal
	v.House = 0
	rigged := rig.Of(d, v)
	rigged.Solar = nil
	m.FromPct = percent(rigged.Aux.SOC)
	_, conditions := rig.Varied(d, v)
	drive := day.Pattern{{Kind: day.Crank, Seconds: 2}, {Kind: day.Highway, Seconds: 570}, {Kind: day.LiftOff, Seconds: 30}}
	pattern := append(day.Pattern{drive[0]}, drive[1:].Repeat(chargedH/24)...)
	full := false
	watch := func(f day.Frame) {
		if f.AuxSOC >= 0.80 && m.To80H < 0 {
			m.To80H = unit.Round(f.T/3600, 1)
		}
		if f.AuxSOC >= fullSOC && m.FullH < 0 {
			m.FullH, full = unit.Round(f.T/3600, 1), true
		}
	}
	_, err := day.Run(rigged, pattern, conditions, day.Options{Watch: watch, Halt: func() bool { return full || halt != nil && halt() }})
	if err != nil && !full && m.Stopped == "" {
		m.Stopped = err.Error()
	}
}

// fullSOC is what counts as full.
const fullSOC = 0.98

// fail looks at what happens when the signal fails.
func (m *Driven) fail(d *design.Design) {
	m.Fails.HalfAfter = -1
	daily := d.Facts.DailyAh.Value
	usable := d.Facts.AuxAh.Value * d.Facts.Chemistry.Usable
	lasts := fmt.Sprintf("no charge: what the aux battery has lasts %s", unit.Text(usable/math.Max(daily, 0.1), "days", 1))
	switch {
	case d.Isolates():
		m.Fails.Dead, m.Fails.Live = "no signal needed", "nothing: it is apart from the start battery"
		return
	case d.Is.Splits:
		m.Fails.Dead, m.Fails.Live = "no signal needed; a diode open: "+lasts, "nothing: the diodes keep the batteries apart"
		return
	case d.Is.Senses:
		m.Fails.Dead = "no signal needed; its own earth lost: " + lasts
	default:
		m.Fails.Dead = lasts
	}
	stuck := d.Doc
	if d.Is.ByHand == design.Selector {
		always := string(coupling.JoinedForGood)
		stuck.Pins.Selector = &always
	}
	left := rig.NewLeaving(d.With(stuck)).Live(design.KeyOut)
	m.Fails.Live = left.Says
	if left.HalfH > 0 {
		m.Fails.HalfAfter = unit.Round(left.HalfH, 1)
	}
	if left.NoStartH > 0 && (left.HalfH == 0 || left.NoStartH < left.HalfH) {
		m.Fails.HalfAfter = unit.Round(left.NoStartH, 1)
	}
}
